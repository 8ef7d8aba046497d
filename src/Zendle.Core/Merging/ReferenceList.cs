using Zendle.Core.Records;

namespace Zendle.Core.Merging;

/// <summary>A reference as some works print it, over all databases that have it.</summary>
/// <param name="Reference">As the database prints it that says most; the first of those that say as much.</param>
/// <param name="Match">The work it means, and how it was found.</param>
/// <param name="Citing">The works whose lists it stands in, ascending.</param>
/// <param name="Databases">The databases that have it, ascending.</param>
/// <param name="Listed">Where lists have it: once for each of its names.</param>
public sealed record JoinedReference(
    Reference Reference,
    ReferenceMatch Match,
    IReadOnlyCollection<int> Citing,
    IReadOnlyCollection<int> Databases,
    IReadOnlyList<ListedReference> Listed
);

/// <summary>A reference where it stands: in the list of one record of a work, or in one that no record has.</summary>
/// <param name="Record">The record, or the number of the list.</param>
/// <param name="Ordinal">Its ordinal in the list, from 0.</param>
/// <param name="Work">The work that cites.</param>
/// <param name="Database">The record's database, or the list's source.</param>
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
)
{
    /// <summary>Its names: <see cref="ReferenceKeys.Names"/>.</summary>
    public IEnumerable<ulong> Names => new ReferenceKeys(Doi, Title, 0).Names(Reference.Text);
}

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
            new List<(
                Reference Reference,
                ReferenceMatch Match,
                SortedSet<int> Citing,
                SortedSet<int> Databases,
                List<ListedReference> Listed
            )>();
        var (known, knownWorks) = (new Dictionary<ulong, int>(), new Dictionary<int, int>());
        foreach (var listed in references)
        {
            var reference = listed.Reference;
            var match = means(listed);
            ulong[] names = [.. listed.Names];
            var at =
                match.Work != 0
                    ? knownWorks.GetValueOrDefault(match.Work, -1)
                    : names.Select(n => known.GetValueOrDefault(n, -1)).FirstOrDefault(i => i >= 0, -1);
            if (at < 0)
            {
                at = found.Count;
                found.Add((reference, match, [], [], []));
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
            if (match.Work != 0)
                knownWorks.TryAdd(match.Work, at);
            else
                foreach (var name in names)
                    known.TryAdd(name, at);
            if (names.Any(n => !found[at].Listed.SelectMany(l => l.Names).Contains(n)))
                found[at].Listed.Add(listed);
            found[at].Citing.Add(listed.Work);
            found[at].Databases.Add(listed.Database);
        }
        return [.. found.Select(f => new JoinedReference(f.Reference, f.Match, f.Citing, f.Databases, f.Listed))];
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
            ReferenceEvidence.Person => "what a person confirmed",
            _ => null,
        };
}
