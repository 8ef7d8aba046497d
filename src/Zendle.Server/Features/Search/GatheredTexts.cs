using System.Runtime.CompilerServices;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.FullText;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Core.Text;
using Zendle.Index.Questions;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search;

/// <summary>
/// The gathered full texts of reviews, for being searched. Of each text its different words are held in memory, as numbers; where
/// words must stand in a row or near each other, the texts that have them all are read.
/// </summary>
internal sealed class GatheredTexts(IDbContextFactory<ZendleContext> contexts, CorpusReader reader, CitingTexts said)
{
    private const long MostBytes = 48L << 20;
    private readonly BoundedCache<(int Review, long Generation, long Version), TextWords> known = new(MostBytes);
    private readonly BoundedCache<(int Review, long Version), StrongBox<bool>> hasAny = new(50_000);

    /// <summary>How the pages of a text are written down.</summary>
    public static byte[] Written(IReadOnlyList<TextPage> pages) =>
        pages.Count == 0 ? [] : RecordCodec.Document(JsonSerializer.SerializeToUtf8Bytes(pages));

    /// <summary>
    /// The texts of a review; null when it has none. Nothing of them is read before it is asked for; O(their letters) then,
    /// once for each state of texts and corpus.
    /// </summary>
    public async Task<TextWordsOf?> Of(int reviewId, CorpusSnapshot snapshot)
    {
        var key = (reviewId, said.Version);
        if (!hasAny.TryGet(key, out var has))
        {
            await using var made = await contexts.CreateDbContextAsync();
            hasAny.Put(key, has = new(await made.Texts.ThatCount().AnyAsync(t => t.ReviewId == reviewId)), 50);
        }
        return has.Value ? new(() => Words(reviewId, snapshot.Generation)) : null;
    }

    private TextWords Words(int reviewId, long generation) =>
        known.Get((reviewId, generation, said.Version), () => Read(reviewId), w => w.Bytes);

    private TextWords Read(int reviewId)
    {
        using var made = contexts.CreateDbContext();
        var texts = made
            .Texts.AsNoTracking()
            .ThatCount()
            .Where(t => t.ReviewId == reviewId)
            .Select(t => new TextOfWork(t.Id, t.WorkId, t.Hash, t.Version))
            .ToList();
        var today = reader.Redirects([.. texts.Select(t => t.WorkId)], CancellationToken.None).GetAwaiter().GetResult();
        var words = new TextWords(Pages);
        foreach (
            var of in texts
                .GroupBy(t => today.GetValueOrDefault(t.WorkId, t.WorkId))
                .Select(g => g.BestFirst().First() with { WorkId = g.Key })
        )
            words.Add(of, Pages(of.Hash));
        return words;
    }

    /// <summary>The pages of a text; none when nothing of it could be read.</summary>
    private IReadOnlyList<TextPage> Pages(string hash)
    {
        using var made = contexts.CreateDbContext();
        var pages = made.TextReadings.Where(r => r.Hash == hash).Select(r => r.Pages).FirstOrDefault();
        return pages is { Length: > 0 } ? JsonSerializer.Deserialize<TextPage[]>(RecordCodec.Opened(pages))! : [];
    }
}

/// <summary>The texts of one review, read when they are first asked for.</summary>
/// <param name="words">Reads them, or has them.</param>
internal sealed class TextWordsOf(Func<TextWords> words) : ITextWords
{
    /// <inheritdoc/>
    public WorkSet Holding(QueryNode node, int size) => words().Holding(node, size);

    /// <summary>The text of a work with its pages; null when it has none.</summary>
    public (TextOfWork Text, IReadOnlyList<TextPage> Pages)? Of(int work) => words().Of(work);
}

/// <summary>A document that is the text of a work.</summary>
/// <param name="Id">The document.</param>
/// <param name="WorkId">The work.</param>
/// <param name="Hash">Its file.</param>
/// <param name="Version">Its version.</param>
internal sealed record TextOfWork(int Id, int WorkId, string Hash, Core.Records.WorkVersion? Version) : IStoredText;

/// <summary>The words of the texts of one review.</summary>
/// <param name="pages">The pages of a text by its file.</param>
internal sealed class TextWords(Func<string, IReadOnlyList<TextPage>> pages)
{
    private const long MostFound = 2L << 20;
    private readonly Dictionary<string, int> numbers = new(StringComparer.Ordinal);
    private readonly List<string> words = [];
    private readonly Dictionary<int, (TextOfWork Text, int[] Words)> texts = [];
    private readonly BoundedCache<(string Node, int Size), WorkSet> found = new(MostFound);

    /// <summary>Bytes it takes.</summary>
    public long Bytes =>
        words.Sum(w => 90L + (2 * w.Length)) + texts.Values.Sum(t => 200L + (4 * t.Words.Length)) + MostFound;

    /// <summary>Puts a text in.</summary>
    public void Add(TextOfWork text, IReadOnlyList<TextPage> of)
    {
        var own = new HashSet<int>();
        foreach (var page in of)
        foreach (var word in Words.Of(page.Text))
        {
            if (!numbers.TryGetValue(word.Text, out var number))
            {
                numbers[word.Text] = number = words.Count;
                words.Add(word.Text);
            }
            own.Add(number);
        }
        texts[text.WorkId] = (text, [.. own.Order()]);
    }

    /// <summary>See <see cref="ITextWords.Holding"/>. O(texts × words of a slot), and the length of texts that have the words of a
    /// phrase.</summary>
    public WorkSet Holding(QueryNode node, int size) =>
        found.Get(
            ($"{node.GetType().Name} {QueryText.Print(node)}", size),
            () => Find(node, size),
            s => 200 + (s.Size / 8)
        );

    private WorkSet Find(QueryNode node, int size)
    {
        var works = new WorkSet(size);
        // For every way the node can be met: the numbers of words that may stand in each of its slots.
        var ways = Ways(node)
            .Select(w => w.Select(Numbers).ToArray())
            .Where(w => Array.TrueForAll(w, s => s.Count > 0))
            .ToArray();
        if (ways.Length == 0)
            return works;
        var isWord = ways.All(w => w.Length == 1) && node is TermNode;
        foreach (var (work, (text, own)) in texts)
            if (
                work < size
                && ways.Any(w => Array.TrueForAll(w, s => s.Overlaps(own)))
                && (isWord || PlainMatch.Holds(node, Whole(pages(text.Hash))))
            )
                works.Add(work);
        return works;
    }

    /// <summary>A text in one piece: what stands across the end of a page is found, too.</summary>
    private static string Whole(IReadOnlyList<TextPage> pages) => string.Join(' ', pages.Select(p => p.Text));

    private static IEnumerable<IReadOnlyList<string>> Ways(QueryNode node) =>
        node switch
        {
            TermNode term => term.Forms.Select(f => (IReadOnlyList<string>)f),
            OrNode or => or.Parts.SelectMany(Ways),
            // One of the ways of each part; which of them stand near is told by the text itself.
            NearNode near => near
                .Parts.Select(p => Ways(p).ToArray())
                .Aggregate(
                    (IEnumerable<IReadOnlyList<string>>)
                        [
                            [],
                        ],
                    (all, part) =>
                        part.Length > 8
                            ? all
                            : all.SelectMany(a => part.Select(p => (IReadOnlyList<string>)[.. a, .. p]))
                ),
            _ => [],
        };

    private HashSet<int> Numbers(string slot) =>
        !TermNode.IsPattern(slot)
            ? numbers.TryGetValue(slot, out var one)
                ? [one]
                : []
            : [.. Enumerable.Range(0, words.Count).Where(n => Glob.Matches(slot, words[n]))];

    /// <summary>The text of a work with its pages; null when it has none.</summary>
    public (TextOfWork Text, IReadOnlyList<TextPage> Pages)? Of(int work) =>
        texts.TryGetValue(work, out var of) ? (of.Text, pages(of.Text.Hash)) : null;
}
