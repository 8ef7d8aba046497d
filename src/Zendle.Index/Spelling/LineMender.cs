using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Spelling;
using Zendle.Core.Text;
using Zendle.Index.Columns;
using Zendle.Index.Questions;

namespace Zendle.Index.Spelling;

/// <summary>A word of a line that the corpus hardly knows, and that may be misspelt.</summary>
/// <param name="Start">Where it begins in the line.</param>
/// <param name="End">Where it ends.</param>
/// <param name="Typed">The word, folded; two with a blank between them when they may be one.</param>
/// <param name="Works">Works that have it.</param>
/// <param name="Meant">What it may be, as it would be written in its place, with how likely that is.</param>
public sealed record DoubtedWord(
    int Start,
    int End,
    string Typed,
    int Works,
    IReadOnlyList<(string Written, double Score)> Meant
);

/// <summary>A line with its doubted words mended.</summary>
/// <param name="Line">The whole line.</param>
/// <param name="Words">What is written in the places of the doubted words.</param>
/// <param name="Works">Works in view if it stood in the place of the line.</param>
public readonly record struct MendedLine(string Line, IReadOnlyList<string> Words, int Works);

/// <summary>
/// Mends a line whose words the corpus hardly knows, all of them at once. Of several ways the one is likeliest whose
/// words are common, near to what was typed, and found together.
/// </summary>
/// <param name="columns">What works are about, and who and what is named in them.</param>
/// <param name="evaluator">Answers what each word finds.</param>
/// <param name="worksOf">Works that a whole line finds, with every limit in force.</param>
public sealed class LineMender(CorpusColumns columns, QuestionEvaluator evaluator, Func<string, int> worksOf)
{
    private const int MostDoubted = 4,
        MostEach = 8,
        MostTried = 48,
        MostShown = 3;

    /// <summary>A name is only taken for what was meant when a slip or two explain it.</summary>
    private const double NameCost = 1.4;

    /// <summary>The doubted words of a line, and the likeliest ways to mend them, the best first; none for a line whose
    /// words are known.</summary>
    /// <param name="root">The line as it is read.</param>
    /// <param name="text">The line.</param>
    public (IReadOnlyList<DoubtedWord> Doubted, IReadOnlyList<MendedLine> Ways) Mend(QueryNode root, string text)
    {
        var words = Together(root, text).Concat(Misspelt(root, text)).ToList();
        // What belongs together is not mended apart as well.
        var doubted = words
            .Where((w, i) => !words.Take(i).Any(o => o.Start < w.End && w.Start < o.End))
            .OrderBy(w => w.Start)
            .Take(MostDoubted)
            .ToArray();
        if (doubted.Length == 0)
            return ([], []);
        // A word alone has no company.
        var isAlone = doubted is [{ Start: 0 } one] && one.End == text.Length;
        MendedLine[] mended = [.. Best(root, text, doubted, isAlone)];
        // What finds nothing is worth a look only where all else finds nothing too.
        return (doubted, Array.Exists(mended, m => m.Works > 0) ? Array.FindAll(mended, m => m.Works > 0) : mended);
    }

    /// <summary>
    /// The likeliest ways, the best first. A line that must find the words one and all finds no more works than its rarest word:
    /// those that could be best by this are counted first, and the others only as long as they may be among the best.
    /// </summary>
    private IEnumerable<MendedLine> Best(QueryNode root, string text, DoubtedWord[] doubted, bool isAlone)
    {
        // Each word is counted once, however many ways have it; what is counted is remembered for the lines.
        var most = Array.ConvertAll(
            doubted,
            d => d.Meant.Select(m => m.Written).Distinct().ToDictionary(w => w, w => AtMost(root, d, w))
        );
        var ways = Ways(doubted)
            .OrderByDescending(w => w.Score)
            .Take(MostTried)
            .Select(w => (Line: Written(text, doubted, w.Written), w.Written, w.Score))
            .DistinctBy(w => w.Line)
            .Where(w => w.Line != text && QueryReader.Read(w.Line).IsSound)
            .Index()
            .Select(w => (Order: w.Index, w.Item.Line, w.Item.Written, w.Item.Score, AtBest: AtBest(w.Item)))
            .OrderByDescending(w => w.AtBest);
        var counted = new List<(double Score, int Order, MendedLine Line)>();
        foreach (var way in ways)
        {
            if (counted.Count == MostShown && way.AtBest < counted[^1].Score)
                break;
            var works = worksOf(way.Line);
            counted.Add((Ranked(way.Score, works), way.Order, new(way.Line, way.Written, works)));
            counted = [.. counted.OrderByDescending(c => c.Score).ThenBy(c => c.Order).Take(MostShown)];
        }
        return counted.Select(c => c.Line);

        double Ranked(double score, int works) => score + (isAlone ? 0 : Company(works));

        double AtBest((string Line, IReadOnlyList<string> Written, double Score) way) =>
            Ranked(way.Score, doubted.Select((_, i) => most[i][way.Written[i]]).Min());
    }

    /// <summary>Most works that a line can find with a word in the place of a doubted one.</summary>
    private int AtMost(QueryNode root, DoubtedWord doubted, string written)
    {
        IEnumerable<QueryNode> needed = root is AndNode and ? and.Parts : [root];
        return
            Words.Of(written) is [var word]
            && word.Text == written
            && needed.Any(n => n is TermNode && n.Span.Start <= doubted.Start && doubted.End <= n.Span.End)
            ? Records(written, QueryField.About).Count() // no work without a record
            : int.MaxValue;
    }

    /// <summary>The words that the corpus hardly knows, each with what it may be.</summary>
    private IEnumerable<DoubtedWord> Misspelt(QueryNode root, string text)
    {
        foreach (var (term, field) in Concepts.Terms(root, QueryField.About).Where(t => Concepts.IsText(t.Field)))
        foreach (var word in WordsOf(term, text))
        {
            var works = Works(word.Text, field);
            if (works > Misspelling.Rare)
                continue;
            var among = columns.Spelled(NamesOf(field));
            var meant = Misspelling
                .Of(word.Text, works, among, MostEach)
                .Select(m => (Written: Put(m.Text, term), m.Score));
            if (works == 0 && field is QueryField.About or QueryField.Anywhere && !term.IsPhrase)
            {
                var names = columns.Spelled(Facet.Person);
                // A name that is spelled right is told as one.
                if (names.Works(word.Text) > 0)
                    continue;
                meant = meant.Concat(
                    names
                        .Near(word.Text)
                        .Where(n => word.Text.Length > 4 && n.Cost <= NameCost)
                        .Select(n => ($"author:{n.Word}", Misspelling.Score(n.Works, n.Cost)))
                );
            }
            (string, double)[] likeliest = [.. meant.OrderByDescending(m => m.Score).Take(MostEach)];
            if (likeliest.Length > 0)
                yield return new(
                    word.Start,
                    word.End,
                    word.Text,
                    works,
                    // What some works have may be what is meant.
                    works == 0
                        ? likeliest
                        : [.. likeliest, (text[word.Start..word.End], Misspelling.Score(works, 0))]
                );
        }
    }

    /// <summary>Neighbouring words that are one word of the corpus, where it hardly knows one of them.</summary>
    private IEnumerable<DoubtedWord> Together(QueryNode root, string text)
    {
        if (root is not AndNode and)
            yield break;
        var among = columns.Spelled(null);
        foreach (var (first, second) in and.Parts.Zip(and.Parts.Skip(1)))
        {
            if (
                first is not TermNode { IsPhrase: false, HasWildcard: false, Quoted: false } a
                || second is not TermNode { IsPhrase: false, HasWildcard: false, Quoted: false } b
                || !string.IsNullOrWhiteSpace(text[a.Span.End..b.Span.Start])
            )
                continue;
            var joined = a.Slots[0] + b.Slots[0];
            var fewer = Math.Min(Works(a.Slots[0], QueryField.About), Works(b.Slots[0], QueryField.About));
            if (fewer <= Misspelling.Rare && among.Works(joined) > fewer * 2)
                yield return new(
                    a.Span.Start,
                    b.Span.End,
                    $"{a.Slots[0]} {b.Slots[0]}",
                    fewer,
                    [(joined, Misspelling.Score(among.Works(joined), 0.5))]
                );
        }
    }

    /// <summary>The words of a term where they stand in the line; none of a pattern.</summary>
    private static IEnumerable<Word> WordsOf(TermNode term, string text) =>
        term.HasWildcard
            ? []
            : Words
                .Of(text.Substring(term.Span.Start, term.Span.Length))
                .Where(w => !w.IsClosedForm)
                .Select(w => w with { Start = w.Start + term.Span.Start, End = w.End + term.Span.Start });

    private int Works(string word, QueryField field) => evaluator.Works(Records(word, field)).Count();

    private RecordSet Records(string word, QueryField field) =>
        evaluator.Records(
            new TermNode(
                new(0, word.Length),
                word,
                false,
                [
                    [word],
                ]
            ),
            field
        );

    private static Facet? NamesOf(QueryField field) =>
        field switch
        {
            QueryField.Author => Facet.Person,
            QueryField.Venue => Facet.Venue,
            QueryField.Subject => Facet.Subject,
            QueryField.Affiliation => Facet.Affiliation,
            QueryField.Funder => Facet.Funder,
            _ => null,
        };

    /// <summary>Two words in the place of one are a phrase, unless they stand in one already.</summary>
    private static string Put(string meant, TermNode term) =>
        meant.Contains(' ', StringComparison.Ordinal) && !term.IsPhrase ? $"\"{meant}\"" : meant;

    /// <summary>What being found together adds to the score of words.</summary>
    private static double Company(int works) => works == 0 ? 0 : 2 + Math.Log(works);

    private static string Written(string text, DoubtedWord[] doubted, IReadOnlyList<string> written)
    {
        for (var i = doubted.Length - 1; i >= 0; i--)
            text = text[..doubted[i].Start] + written[i] + text[doubted[i].End..];
        return text;
    }

    /// <summary>All ways to mend the words together, each with the sum of their scores. At most 6⁴.</summary>
    private static IEnumerable<(IReadOnlyList<string> Written, double Score)> Ways(DoubtedWord[] doubted)
    {
        IEnumerable<(IReadOnlyList<string> Written, double Score)> ways = [([], 0)];
        foreach (var word in doubted)
            ways = ways.SelectMany(w =>
                word.Meant.Select(m => ((IReadOnlyList<string>)[.. w.Written, m.Written], w.Score + m.Score))
            );
        return ways;
    }
}
