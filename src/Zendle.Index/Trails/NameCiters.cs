using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Columns;

namespace Zendle.Index.Trails;

/// <summary>A name as references print it that match no work.</summary>
/// <param name="Name">The name.</param>
/// <param name="Works">How many works print such a reference.</param>
public readonly record struct PrintedVariant(string Name, int Works);

/// <summary>
/// Who cites a name: what cites the works of persons, and what prints a reference by the name that matches no work.
/// </summary>
public static class NameCiters
{
    /// <summary>The works of some persons.</summary>
    public static WorkSet By(CorpusColumns columns, IEnumerable<string> persons) =>
        columns.Of(Facet.Person).With(persons.Select(p => columns.Today(Facet.Person, p)), columns.WorkSize);

    /// <summary>What cites some works. O(works + ties).</summary>
    public static WorkSet Citing(CorpusColumns columns, WorkSet works)
    {
        var found = new WorkSet(columns.WorkSize);
        foreach (var work in works.Members())
        foreach (var citing in columns.Graph.CitedBy(work))
            found.Add(citing);
        return found;
    }

    /// <summary>
    /// The works that cite a name, whoever they are by; <see cref="Left"/> asks for that. O(ties of the persons' works +
    /// printed names).
    /// </summary>
    public static WorkSet Of(CorpusColumns columns, CitersQuestion question)
    {
        var found = Citing(columns, By(columns, question.Persons));
        var asked = question.Printed.Select(columns.Printed.NumberOf).Where(n => n != WordColumn.End).ToHashSet();
        if (asked.Count > 0)
            EachPrinted(
                columns,
                (work, name) =>
                {
                    if (asked.Contains(name))
                        found.Add(work);
                }
            );
        return found;
    }

    /// <summary>Of works that cite a name those that the question leaves, by whether they are the persons' own.</summary>
    /// <param name="columns">The corpus.</param>
    /// <param name="question">The question.</param>
    /// <param name="citing">The works; not changed.</param>
    public static WorkSet Left(CorpusColumns columns, CitersQuestion question, WorkSet citing)
    {
        if (question.Self == SelfCitations.With)
            return citing;
        var left = citing.Copy();
        if (question.Self == SelfCitations.Only)
            left.IntersectWith(By(columns, question.Persons));
        else
            left.ExceptWith(By(columns, question.Persons));
        return left;
    }

    /// <summary>The names in references without a work that fit, those that most works print first. O(printed names).</summary>
    /// <param name="columns">The corpus.</param>
    /// <param name="fits">Whether a name fits.</param>
    public static IReadOnlyList<PrintedVariant> Variants(CorpusColumns columns, Func<string, bool> fits)
    {
        var names = columns.Printed.Words;
        var works = new Dictionary<int, HashSet<int>>();
        for (var n = WordColumn.End + 1; n < names.Count; n++)
            if (fits(names[n]))
                works[n] = [];
        if (works.Count > 0)
            EachPrinted(
                columns,
                (work, name) =>
                {
                    if (works.TryGetValue(name, out var its))
                        its.Add(work);
                }
            );
        return
        [
            // A name whose last reference found its work is kept as a number, and printed by nobody.
            .. works
                .Where(w => w.Value.Count > 0)
                .Select(w => new PrintedVariant(names[w.Key], w.Value.Count))
                .OrderByDescending(v => v.Works)
                .ThenBy(v => v.Name, StringComparer.OrdinalIgnoreCase),
        ];
    }

    /// <summary>Goes through the printed names of all works, each by its number.</summary>
    private static void EachPrinted(CorpusColumns columns, Action<int, int> take)
    {
        for (var record = 0; record < columns.Printed.Size; record++)
            if (columns.ListerOf(record) is > 0 and var work)
                foreach (var name in columns.Printed.Of(record))
                    if (name != WordColumn.End)
                        take(work, name);
    }
}
