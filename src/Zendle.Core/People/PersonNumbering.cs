using System.Globalization;
using Zendle.Core.Merging;

namespace Zendle.Core.People;

/// <summary>A name on a work, as numbering knows it again: the work, and a hash of family name and first initial.</summary>
/// <param name="WorkId">The work.</param>
/// <param name="Name">The hash.</param>
public readonly record struct PersonMark(int WorkId, int Name)
{
    /// <summary>The mark of a mention.</summary>
    public static PersonMark Of(Mention mention) =>
        new(
            mention.WorkId,
            unchecked(
                (int)
                    MergeKeys.Of(
                        "person mark",
                        $"{string.Join('-', mention.Family)} {(mention.Given.Count > 0 ? mention.Given[0][..1] : "")}"
                    )
            )
        );
}

/// <summary>
/// What numbering gave: all of it, as it is written down, or what came or changed at once. Nothing that was given is ever
/// taken back.
/// </summary>
/// <param name="Marks">Names on works with the number of their person.</param>
/// <param name="Labels">Labels with the number they stand for from now on for ever.</param>
/// <param name="Shown">By number: the label that is shown.</param>
/// <param name="Redirects">By number: the number it went into; among changes 0 for one that stands by itself again.</param>
public sealed record GivenNumbers(
    IReadOnlyList<(PersonMark Mark, int Person)> Marks,
    IReadOnlyList<(string Label, int Person)> Labels,
    IReadOnlyList<(int Person, string Label)> Shown,
    IReadOnlyList<(int Person, int Into)> Redirects
);

/// <summary>
/// Gives persons numbers and labels that stay theirs, however often and from whatever people are told apart anew. Who
/// holds most of the names that a number had keeps it; a person that went into another leads there; a label, once
/// shown, never comes to mean somebody else.
/// </summary>
public sealed class PersonNumbering
{
    private readonly Dictionary<PersonMark, int> numberOf;
    private readonly Dictionary<string, int> labelled;
    private readonly Dictionary<int, string> shown;
    private readonly Dictionary<int, int> into;
    private int last;

    /// <summary>Goes on from what was written down.</summary>
    public PersonNumbering(GivenNumbers known)
    {
        numberOf = known.Marks.ToDictionary(m => m.Mark, m => m.Person);
        labelled = known.Labels.ToDictionary(l => l.Label, l => l.Person, StringComparer.OrdinalIgnoreCase);
        shown = known.Shown.ToDictionary(s => s.Person, s => s.Label);
        into = known.Redirects.ToDictionary(r => r.Person, r => r.Into);
        last = shown.Keys.Concat(numberOf.Values).Concat(labelled.Values).DefaultIfEmpty(0).Max();
    }

    /// <summary>Begins with nobody.</summary>
    public PersonNumbering()
        : this(new([], [], [], [])) { }

    /// <summary>The label that is shown for whom a label stands; null for one that was never given.</summary>
    public string? Today(string label) =>
        labelled.TryGetValue(label, out var number) ? shown.GetValueOrDefault(Current(number)) : null;

    /// <summary>Labels that stand for a person who is shown under another, with that other.</summary>
    public IEnumerable<(string Label, string Today)> Former =>
        labelled
            .Keys.Select(l => (Label: l, Today: Today(l) ?? l))
            .Where(l => !string.Equals(l.Label, l.Today, StringComparison.OrdinalIgnoreCase));

    /// <summary>Numbers persons and labels them for good. O(mentions).</summary>
    /// <param name="people">The persons, each with the label that suits it best.</param>
    /// <returns>The persons with number and label, in their order, and what has to be written down.</returns>
    public (IReadOnlyList<Person> People, GivenNumbers Changes) Number(IReadOnlyList<Person> people)
    {
        var marks = people.Select(p => p.Mentions.Select(PersonMark.Of).Distinct().ToArray()).ToArray();
        var numbers = Kept(marks);
        for (var i = 0; i < people.Count; i++)
            if (numbers[i] == 0)
                numbers[i] = ++last;
        var redirects = Redirected(marks, numbers);
        var moved = new List<(PersonMark, int)>();
        for (var i = 0; i < people.Count; i++)
            // A name whose person went into another keeps the number it had, so that both can part again.
            foreach (var mark in marks[i])
                if (!numberOf.TryGetValue(mark, out var had) || Current(had) != numbers[i])
                {
                    numberOf[mark] = numbers[i];
                    moved.Add((mark, numbers[i]));
                }
        var (labels, shows) = (new List<(string, int)>(), new List<(int, string)>());
        var named = new Person[people.Count];
        // Who is here longest is asked first, whatever order people came in.
        foreach (var i in Enumerable.Range(0, people.Count).OrderBy(i => numbers[i]))
        {
            var label = LabelFor(numbers[i], people[i].Label);
            if (labelled.TryAdd(label, numbers[i]))
                labels.Add((label, numbers[i]));
            if (shown.GetValueOrDefault(numbers[i]) != label)
            {
                shown[numbers[i]] = label;
                shows.Add((numbers[i], label));
            }
            named[i] = people[i] with { Id = numbers[i], Label = label };
        }
        return (named, new(moved, labels, shows, redirects));
    }

    /// <summary>By person: the number it had, by the names it holds; 0 for none.</summary>
    private int[] Kept(PersonMark[][] marks)
    {
        var numbers = new int[marks.Length];
        var taken = new HashSet<int>();
        foreach (
            var (person, number, _) in marks
                .SelectMany(
                    (of, i) =>
                        of.Select(m => numberOf.GetValueOrDefault(m))
                            .Where(n => n > 0)
                            .CountBy(n => n)
                            .Select(c => (Person: i, Number: c.Key, Held: c.Value))
                )
                .OrderByDescending(v => v.Held)
                .ThenBy(v => v.Number)
                .ThenBy(v => v.Person)
        )
            if (numbers[person] == 0 && taken.Add(number))
                numbers[person] = number;
        return numbers;
    }

    /// <summary>Numbers that nobody kept lead to who holds most of their names; one that is back leads nowhere.</summary>
    private List<(int, int)> Redirected(PersonMark[][] marks, int[] numbers)
    {
        var current = numbers.ToHashSet();
        var changes = new List<(int, int)>();
        foreach (
            var (was, now) in marks
                .SelectMany((of, i) => of.Select(m => (Was: numberOf.GetValueOrDefault(m), Now: numbers[i])))
                .Where(m => m.Was > 0 && !current.Contains(m.Was))
                .CountBy(m => m)
                .GroupBy(m => m.Key.Was)
                .Select(g => (g.Key, g.OrderByDescending(c => c.Value).ThenBy(c => c.Key.Now).First().Key.Now))
        )
            if (into.GetValueOrDefault(was) != now)
            {
                into[was] = now;
                changes.Add((was, now));
            }
        foreach (var back in numbers)
            if (into.Remove(back))
                changes.Add((back, 0));
        return changes;
    }

    private int Current(int number)
    {
        // A chain is as long as people were joined one after another.
        while (into.TryGetValue(number, out var next))
            number = next;
        return number;
    }

    private string LabelFor(int number, string wanted)
    {
        // The institution or the years that tell namesakes apart may stay what they were; that they are told may not.
        if (
            shown.TryGetValue(number, out var had)
            && Current(labelled[had]) == number
            && PersonLabel.NameIn(had) == PersonLabel.NameIn(wanted)
            && PersonLabel.TellsApart(had) == PersonLabel.TellsApart(wanted)
        )
            return had;
        for (var n = 1; ; n++)
        {
            var label = n == 1 ? wanted : PersonLabel.With(wanted, n.ToString(CultureInfo.InvariantCulture));
            if (!labelled.TryGetValue(label, out var other) || Current(other) == number)
                return label;
        }
    }
}
