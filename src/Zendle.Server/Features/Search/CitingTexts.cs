using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.FullText;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search;

/// <summary>A sentence of a gathered text that cites works here.</summary>
/// <param name="Text">The sentence.</param>
/// <param name="Page">Its page, from 1.</param>
/// <param name="Near">It with the sentences beside it.</param>
/// <param name="Works">What it cites.</param>
internal sealed record SaidSentence(string Text, int Page, string Near, IReadOnlyList<int> Works);

/// <summary>What a gathered text says of works here.</summary>
/// <param name="Work">The work whose text it is.</param>
/// <param name="TextId">The document.</param>
/// <param name="Sentences">The sentences that cite works here, in order.</param>
internal sealed record SaidText(int Work, int TextId, IReadOnlyList<SaidSentence> Sentences);

/// <summary>
/// What the gathered texts of a review say where they cite: sentences with the works that their references mean. Only texts
/// that count for the review itself are asked.
/// </summary>
internal sealed class CitingTexts(IDbContextFactory<ZendleContext> contexts, CorpusReader reader)
{
    private const long MostBytes = 24L << 20;
    private readonly BoundedCache<(int Review, long Generation, long Version), IReadOnlyList<SaidText>> known = new(
        MostBytes
    );
    private long version;

    /// <summary>Changes whenever texts come, are settled or are read anew.</summary>
    public long Version => Interlocked.Read(ref version);

    /// <summary>Texts have come, were settled or were read anew.</summary>
    public void Changed() => Interlocked.Increment(ref version);

    /// <summary>How each sentence that cites is written down, with the ordinals of references.</summary>
    public static byte[] Written(IReadOnlyList<CitingSentence> sentences) =>
        sentences.Count == 0 ? [] : RecordCodec.Document(JsonSerializer.SerializeToUtf8Bytes(sentences));

    /// <summary>What the texts of a review say. O(their references), once for each state of texts and corpus.</summary>
    public async Task<IReadOnlyList<SaidText>> Of(int reviewId, CorpusSnapshot snapshot)
    {
        var key = (reviewId, snapshot.Generation, Version);
        if (!known.TryGet(key, out var said))
            known.Put(key, said = await Read(reviewId, snapshot), said.Sum(BytesOf) + 200);
        return said;
    }

    private static long BytesOf(SaidText text) =>
        100 + text.Sentences.Sum(s => 100L + (2 * (s.Text.Length + s.Near.Length)) + (4 * s.Works.Count));

    private async Task<List<SaidText>> Read(int reviewId, CorpusSnapshot snapshot)
    {
        await using var made = await contexts.CreateDbContextAsync();
        var texts = await made.ThatWereRead().Where(t => t.ReviewId == reviewId).ToListAsync();
        var today = await reader.Redirects([.. texts.Select(t => t.WorkId)], CancellationToken.None);
        return
        [
            .. texts
                .Where(t => t.Citations.Length > 0)
                .GroupBy(t => today.GetValueOrDefault(t.WorkId, t.WorkId))
                .Select(g => (Work: g.Key, Text: g.BestFirst().First()))
                .AsParallel()
                .AsOrdered()
                .Select(t => new SaidText(
                    t.Work,
                    t.Text.Id,
                    Sentences(snapshot, t.Work, t.Text.References, t.Text.Citations)
                ))
                .Where(t => t.Sentences.Count > 0),
        ];
    }

    private static List<SaidSentence> Sentences(CorpusSnapshot snapshot, int work, byte[] references, byte[] citations)
    {
        var matcher = snapshot.Columns.References;
        int[] meant = [.. RecordCodec.References(references).Select(r => matcher.Match(r).Work)];
        return
        [
            .. JsonSerializer
                .Deserialize<CitingSentence[]>(RecordCodec.Opened(citations))!
                .Select(s => new SaidSentence(
                    s.Text,
                    s.Page,
                    s.Near,
                    [
                        .. s
                            .Entries.Where(e => e < meant.Length)
                            .Select(e => meant[e])
                            .Where(w => w > 0 && w != work)
                            .Distinct(),
                    ]
                ))
                .Where(s => s.Works.Count > 0),
        ];
    }

    /// <summary>The works whose texts have words near the place where they cite one of some works.</summary>
    /// <param name="said">What the texts say.</param>
    /// <param name="size">Ids of works are below this.</param>
    /// <param name="cited">The works that are cited.</param>
    /// <param name="words">The expression; it can be asked.</param>
    public static WorkSet WhereItCites(IEnumerable<SaidText> said, int size, IEnumerable<int> cited, string words)
    {
        var found = new WorkSet(size);
        if (QueryReader.Read(words).Root is not { } root)
            return found;
        var of = cited.ToHashSet();
        foreach (var text in said)
            if (text.Work < size && text.Sentences.Any(s => s.Works.Any(of.Contains) && PlainMatch.Holds(root, s.Near)))
                found.Add(text.Work);
        return found;
    }
}
