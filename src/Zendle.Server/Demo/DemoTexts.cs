using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Store.Corpus;

namespace Zendle.Server.Demo;

/// <summary>Kept works whose texts were arranged.</summary>
/// <param name="InHand">Works with a free text that comes.</param>
/// <param name="Stuck">Works that need a person: a price and nothing free, another paper behind the link, a paper under
/// another title.</param>
/// <param name="Ahead">Works whose gathering takes a turn: a host that asks to wait, a dead link with a manuscript
/// elsewhere, a file cut off.</param>
internal sealed record ArrangedTexts(IReadOnlyList<int> InHand, IReadOnlyList<int> Stuck, IReadOnlyList<int> Ahead);

/// <summary>
/// Arranges with the outside what lies behind the texts of some kept works, so that gathering them meets every turn it
/// can take. What is kept follows from searches, so the world cannot know beforehand; and the outside forgets when it
/// ends, so it is told at every start.
/// </summary>
internal sealed class DemoTexts(CorpusReader reader, ZendleOptions options)
{
    private const int InHand = 14;

    /// <summary>A kept work with its copies.</summary>
    private sealed record Candidate(int Work, IReadOnlyList<Copy> Copies)
    {
        public Copy? OfRecord => Copies.FirstOrDefault(c => WorkVersions.IsOfRecord(c.Version));
        public Copy? Manuscript => Copies.FirstOrDefault(c => c.Version == WorkVersion.AcceptedManuscript);
        public bool IsFree => OfRecord is { Access: CopyAccess.Free };
        public bool HasOther => Copies.Any(c => !WorkVersions.IsOfRecord(c.Version));
    }

    /// <summary>Tells the outside. Throws <see cref="HttpRequestException"/> while it does not answer.</summary>
    /// <param name="kept">The kept works.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<ArrangedTexts> Arrange(IEnumerable<int> kept, CancellationToken cancel)
    {
        int[] ids = [.. kept.Order()];
        var records = await reader.OfWorks(ids, cancel);
        var left = ids.Where(records.Contains)
            .Select(id => new Candidate(id, ChosenFields.From([.. records[id]]).Copies))
            .ToList();
        using var http = new HttpClient();

        async Task<List<int>> Take(
            int most,
            Func<Candidate, bool> fits,
            Func<Candidate, Copy?>? which = null,
            string kind = "fine"
        )
        {
            var taken = left.Where(fits).Take(most).ToArray();
            foreach (var one in taken)
            {
                left.Remove(one);
                foreach (var copy in one.Copies)
                    await Set(http, copy, copy == which?.Invoke(one) ? kind : "fine", cancel);
            }
            return [.. taken.Select(t => t.Work)];
        }

        bool OnlyFree(Candidate c) => c.IsFree && !c.HasOther;
        List<int> ahead =
        [
            .. await Take(1, OnlyFree, c => c.OfRecord, "wait"),
            .. await Take(1, c => c is { OfRecord: not null, Manuscript: not null }, c => c.OfRecord, "dead"),
            .. await Take(1, OnlyFree, c => c.OfRecord, "truncated"),
        ];
        List<int> stuck =
        [
            .. await Take(1, OnlyFree, c => c.OfRecord, "wrong"),
            .. await Take(1, OnlyFree, c => c.OfRecord, "other-title"),
            .. await Take(1, c => c.OfRecord is { Access: CopyAccess.Closed } && !c.HasOther),
        ];
        // Some of each: free as published, a manuscript, a preprint.
        List<int> inHand =
        [
            .. await Take(4, OnlyFree),
            .. await Take(2, c => c.HasOther && c.Manuscript is null),
            .. await Take(8, c => c.Manuscript is not null),
        ];
        inHand.AddRange(await Take(InHand - inHand.Count, c => c.IsFree || c.HasOther));
        return new(inHand, stuck, ahead);
    }

    private async Task Set(HttpClient http, Copy copy, string kind, CancellationToken cancel)
    {
        if (!Uri.TryCreate(copy.Address, UriKind.Absolute, out var address))
            return;
        using var reply = await http.PostAsync(
            new Uri(options.Outside!, $"/copies?path={Uri.EscapeDataString(address.AbsolutePath)}&kind={kind}"),
            null,
            cancel
        );
        reply.EnsureSuccessStatusCode();
    }
}
