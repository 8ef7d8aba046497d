using System.Globalization;
using Zendle.Core.Records;

namespace Zendle.Core.Merging;

/// <summary>A reference as some works print it, over all databases that have it.</summary>
/// <param name="Reference">As the database prints it that says most; the first of those that say as much.</param>
/// <param name="Match">The work it means, and how it was found.</param>
/// <param name="Citing">The works whose lists it stands in, ascending.</param>
/// <param name="Databases">The databases that have it, ascending.</param>
public sealed record JoinedReference(
    Reference Reference,
    ReferenceMatch Match,
    IReadOnlyCollection<int> Citing,
    IReadOnlyCollection<int> Databases
);

/// <summary>A reference where it stands: in the list of one record of a work.</summary>
/// <param name="Record">The record.</param>
/// <param name="Ordinal">Its ordinal in the record's list, from 0.</param>
/// <param name="Work">The record's work.</param>
/// <param name="Database">The record's database.</param>
/// <param name="Reference">The reference.</param>
/// <param name="Doi">Key of its DOI; 0 for none.</param>
/// <param name="Title">Key of its title and first person; 0 for none.</param>
public readonly record struct ListedReference(
    int Record,
    int Ordinal,
    int Work,
    int Database,
    Reference Reference,
    ulong Doi,
    ulong Title
);

/// <summary>
/// Joins the reference lists that several databases have of the same works: one that several print stands once.
/// </summary>
public static class ReferenceList
{
    /// <summary>
    /// Joins references by the work they mean; those that mean none by DOI, title or text. In the order of their first
    /// appearance; O(references).
    /// </summary>
    /// <param name="references">The references.</param>
    /// <param name="means">The work that one means: as the citation graph has it, so that list, trail and count are
    /// one.</param>
    public static IReadOnlyList<JoinedReference> Join(
        IEnumerable<ListedReference> references,
        Func<ListedReference, ReferenceMatch> means
    )
    {
        var found =
            new List<(Reference Reference, ReferenceMatch Match, SortedSet<int> Citing, SortedSet<int> Databases)>();
        var known = new Dictionary<string, int>();
        foreach (var listed in references)
        {
            var (_, _, work, database, reference, doi, title) = listed;
            var match = means(listed);
            string?[] names =
                match.Work != 0
                    ? [Invariant($"work {match.Work}")]
                    :
                    [
                        doi == 0 ? null : Invariant($"doi {doi}"),
                        title == 0 ? null : Invariant($"title {title}"),
                        doi == 0 && title == 0 ? reference.Text : null,
                    ];
            var at = names
                .OfType<string>()
                .Select(n => known.TryGetValue(n, out var i) ? i : -1)
                .FirstOrDefault(i => i >= 0, -1);
            if (at < 0)
            {
                at = found.Count;
                found.Add((reference, match, [], []));
            }
            else
            {
                // Of two databases the surer evidence speaks, and the fuller print is shown: one may give no more than
                // a DOI.
                var had = found[at];
                found[at] = had with
                {
                    Reference = Fuller(had.Reference, reference),
                    Match = match.Confidence > had.Match.Confidence ? match : had.Match,
                };
            }
            foreach (var name in names.OfType<string>())
                known.TryAdd(name, at);
            found[at].Citing.Add(work);
            found[at].Databases.Add(database);
        }
        return [.. found.Select(f => new JoinedReference(f.Reference, f.Match, f.Citing, f.Databases))];
    }

    private static Reference Fuller(Reference first, Reference other)
    {
        var (fuller, lesser) = other.Text.Length > first.Text.Length ? (other, first) : (first, other);
        return fuller with { Doi = fuller.Doi ?? lesser.Doi };
    }

    /// <summary>How a reference found its work, in words; null when it found none.</summary>
    public static string? Words(ReferenceEvidence evidence) =>
        evidence switch
        {
            ReferenceEvidence.Doi => "the same DOI",
            ReferenceEvidence.TitleAndPerson => "the same title and first person",
            ReferenceEvidence.Words => "the words of its title, with person, year, volume or page",
            ReferenceEvidence.Location => "no title printed, but person, year, volume and page",
            _ => null,
        };

    private static string Invariant(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
