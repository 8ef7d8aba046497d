using Zendle.Core.Records;

namespace Zendle.Core.FullText;

/// <summary>How the search for one work's text stands, for the account.</summary>
/// <param name="Waiting">Whether it still waits to be tried.</param>
/// <param name="Got">The document that counts; null while there is none.</param>
/// <param name="Outcomes">How the attempts of the last round ended.</param>
public sealed record SoughtText(bool Waiting, GotText? Got, IReadOnlyList<AttemptOutcome> Outcomes);

/// <summary>A document that counts.</summary>
/// <param name="Version">Its version; null when unknown.</param>
/// <param name="Route">How it came.</param>
public sealed record GotText(WorkVersion? Version, RouteKind Route);

/// <summary>Words with how often they hold.</summary>
public sealed record Tally(string Word, int Count);

/// <summary>
/// Reports sought for retrieval and not retrieved, with reasons, as PRISMA 2020 (Page et al. 2021, items 16a and 16b)
/// asks for them. Sought = got + not got + waiting, and each list sums to its number.
/// </summary>
/// <param name="Sought">Works whose text was sought.</param>
/// <param name="Got">Works with a text in hand.</param>
/// <param name="NotGot">Works no route gave a text for, or whose document waits for a person to look.</param>
/// <param name="Waiting">Works still to be tried, or awaited by loan.</param>
/// <param name="ByVersion">Got, by version.</param>
/// <param name="ByRoute">Got, by route.</param>
/// <param name="ByReason">Not got, by the one weightiest reason.</param>
public sealed record TextAccount(
    int Sought,
    int Got,
    int NotGot,
    int Waiting,
    IReadOnlyList<Tally> ByVersion,
    IReadOnlyList<Tally> ByRoute,
    IReadOnlyList<Tally> ByReason
)
{
    /// <summary>Counts. O(works).</summary>
    public static TextAccount Of(IReadOnlyCollection<SoughtText> works)
    {
        var got = works.Where(w => w.Got is not null).Select(w => w.Got!).ToArray();
        var not = works.Where(w => w.Got is null && !w.Waiting).ToArray();
        return new(
            works.Count,
            got.Length,
            not.Length,
            works.Count - got.Length - not.Length,
            Tallied(got.Select(g => WorkVersions.Name(g.Version) ?? "version not known")),
            Tallied(got.Select(g => AttemptWords.Of(g.Route))),
            Tallied(not.Select(w => FullText.NotGot.Reason(w.Outcomes)))
        );
    }

    private static Tally[] Tallied(IEnumerable<string> words) =>
        [
            .. words
                .CountBy(w => w)
                .Select(w => new Tally(w.Key, w.Value))
                .OrderByDescending(t => t.Count)
                .ThenBy(t => t.Word, StringComparer.Ordinal),
        ];
}
