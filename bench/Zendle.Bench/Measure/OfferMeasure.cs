using System.Globalization;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Index.Questions;
using Zendle.Index.Terms;

namespace Zendle.Bench.Measure;

/// <summary>
/// What offered terms bring, held against the truth of a world: for each subtopic a search of two words, then three
/// rounds in each of which the first three offers are taken and what is found is judged by the truth. Beside it the same
/// search left alone, and the terms that somebody would take who knew the truth.
/// </summary>
internal sealed class OfferMeasure
{
    private const int Rounds = 3,
        EachRound = 3,
        LeastWorks = 8;

    private readonly CorpusSnapshot snapshot;
    private readonly QuestionEvaluator evaluator;
    private readonly TextWriter to;
    private readonly bool examples;

    private OfferMeasure(CorpusSnapshot snapshot, TextWriter to, bool examples)
    {
        (this.snapshot, this.to, this.examples) = (snapshot, to, examples);
        evaluator = new(snapshot, null);
    }

    public static void Print(
        CorpusSnapshot snapshot,
        IReadOnlyList<HarvestedEntry> entries,
        WorldFiles world,
        TextWriter to,
        bool examples
    )
    {
        var measure = new OfferMeasure(snapshot, to, examples);
        var relevant = Subtopics.Of(snapshot, entries, world);
        measure.Company();
        var took = new List<double>();
        var (off, on, best) = (new List<Score>(), new List<Score[]>(), new List<Score[]>());
        foreach (var (topic, works) in relevant)
        {
            if (works.Count() < LeastWorks)
                continue;
            var start = measure.Start(works);
            var board = SearchBoard.Of(QueryReader.Read(start).Root);
            off.Add(measure.ScoreOf(board, works));
            var began = TimeProvider.System.GetTimestamp();
            on.Add(measure.Walk(board, works, measure.Offered));
            took.Add(TimeProvider.System.GetElapsedTime(began).TotalMilliseconds / Rounds);
            best.Add(measure.Walk(board, works, measure.Best));
            to.WriteLine(
                $"  {topic} ({works.Count()} works), \"{start}\": {off[^1]}; offered {on[^1][^1]}; best {best[^1][^1]}"
            );
        }
        to.WriteLine($"Offers, mean of {off.Count} subtopics: the search alone {Mean(off)}");
        for (var round = 0; round < Rounds; round++)
            to.WriteLine(
                $"  after round {round + 1}: offered {Mean([.. on.Select(o => o[round])])}; best possible "
                    + $"{Mean([.. best.Select(o => o[round])])}"
            );
        to.WriteLine(string.Create(CultureInfo.InvariantCulture, $"  offers of one round took {took.Average():0} ms"));
        var (given, possible) = (Mean([.. on.Select(o => o[^1])]), Mean([.. best.Select(o => o[^1])]));
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  share of the best possible: recall {given.Recall / possible.Recall:0.000}, precision "
                    + $"{given.Precision / possible.Precision:0.000}"
            )
        );
    }

    /// <summary>How often a term goes to the concept it belongs to: words for light, for animals, for plants, for measures.</summary>
    private void Company()
    {
        string[][] groups =
        [
            [
                "artificial light at night",
                "artificial lighting",
                "light pollution",
                "skyglow",
                "sky brightness",
                "street lamps",
                "mercury lamps",
                "led street lighting",
                "street lights",
                "white led lamps",
                "sky glow",
                "lamp light",
                "street lighting",
            ],
            [
                "moths",
                "hawkmoths",
                "noctuid moths",
                "geometrid moths",
                "beetles",
                "bats",
                "spiders",
                "caddisflies",
                "lacewings",
                "caterpillars",
                "bees",
                "bumblebees",
                "flies",
            ],
            [
                "white campion",
                "evening primrose",
                "honeysuckle",
                "moonflower vine",
                "apple",
                "strawberry",
                "lupin",
                "squash",
                "avocado",
                "red clover",
                "dragon fruit",
                "bladder campion",
                "cotton",
            ],
            [
                "seed set",
                "fruit set",
                "pollen transport",
                "flower visits",
                "visitation rate",
                "flight activity",
                "trap catch",
                "body mass",
                "fruit weight",
                "nectar volume",
                "turning rate",
                "mate finding",
                "scent emission",
            ],
        ];
        var column = snapshot.Columns.Words;
        var (right, tried) = (0, 0);
        for (var seed = 0; seed < 4; seed++)
        {
            TermNode[][] concepts =
            [
                .. groups.Select(g => new[] { (TermNode)QueryReader.Read($"\"{g[seed]}\"").Root! }),
            ];
            var terms = groups
                .SelectMany((g, i) => g.Where((_, n) => n != seed).Select(t => (Group: i, Words: t.Split(' '))))
                .Where(t =>
                    Found(SearchBoard.Of(QueryReader.Read($"\"{string.Join(' ', t.Words)}\"").Root)).Count() > 2
                )
                .ToArray();
            var company = new TermCompany(
                column,
                Enumerable.Range(1, snapshot.Columns.WorkSize - 1),
                concepts,
                [.. terms.Select(t => t.Words)]
            );
            for (var t = 0; t < terms.Length; t++)
            {
                var likeness = company.Likeness(t, terms[t].Words);
                tried++;
                if (Array.IndexOf(likeness, likeness.Max()) == terms[t].Group)
                    right++;
                else if (examples)
                    to.WriteLine(
                        $"    {string.Join(' ', terms[t].Words)}: "
                            + $"{string.Join(' ', likeness.Select((l, i) => $"{groups[i][seed]} {l:0.000}"))}"
                    );
            }
        }
        to.WriteLine($"Company: {right} of {tried} terms go to their concept, which has one other term");
    }

    private readonly record struct Score(double Recall, double Precision)
    {
        public override string ToString() =>
            string.Create(CultureInfo.InvariantCulture, $"recall {Recall:0.00} precision {Precision:0.00}");
    }

    private static Score Mean(List<Score> scores) =>
        new(scores.Average(s => s.Recall), scores.Average(s => s.Precision));

    private WorkSet Found(SearchBoard board) =>
        QueryReader.Read(board.Expression).Root is { } root
            ? evaluator.Works(evaluator.Records(root))
            : evaluator.Nothing();

    private Score ScoreOf(SearchBoard board, WorkSet relevant)
    {
        var found = Found(board);
        var right = found.CountWith(relevant);
        return new((double)right / relevant.Count(), found.IsEmpty ? 0 : (double)right / found.Count());
    }

    private static double F1(Score s) =>
        s.Recall + s.Precision == 0 ? 0 : 2 * s.Recall * s.Precision / (s.Recall + s.Precision);

    /// <summary>Two words that a person may begin with: they find some of the works, and not too much beside.</summary>
    private string Start(WorkSet relevant)
    {
        var words = new TermCandidates(snapshot.Columns.Words, relevant)
            .Against(evaluator.Everything(), relevant, Zendle.Index.Budget.Current)
            .Where(t => t.Words.Count == 1 && t.Text.Length > 3)
            .Take(14)
            .Select(t => t.Text)
            .ToArray();
        return words
            .SelectMany((a, i) => words.Skip(i + 1).Where(b => a[..4] != b[..4]).Select(b => $"{a} AND {b}"))
            .Select(line => (Line: line, Score: ScoreOf(SearchBoard.Of(QueryReader.Read(line).Root), relevant)))
            .Where(l => l.Score.Recall is > 0.1 and < 0.5)
            .OrderByDescending(l => F1(l.Score))
            .ThenBy(l => l.Line, StringComparer.Ordinal)
            .Select(l => l.Line)
            .FirstOrDefault($"{words[0]} AND {words[1]}");
    }

    private Score[] Walk(SearchBoard board, WorkSet relevant, Func<SearchBoard, WorkSet, SearchBoard> round)
    {
        var scores = new List<Score>();
        for (var n = 0; n < Rounds; n++)
            scores.Add(ScoreOf(board = round(board, relevant), relevant));
        if (examples)
            to.WriteLine($"    {board.Expression}");
        return [.. scores];
    }

    private SearchBoard Offered(SearchBoard board, WorkSet relevant)
    {
        var found = Found(board);
        var good = found.Copy();
        good.IntersectWith(relevant);
        var offers = new TermOffers(
            snapshot,
            evaluator,
            new(board, [], null, found, good, new HashSet<string>())
        ).All();
        foreach (var offer in offers.Where(o => o.IsPromising).Take(EachRound))
        {
            if (examples)
                to.WriteLine($"      {offer}");
            board = With(board, offer.Expression, offer.Card);
        }
        return board;
    }

    private static SearchBoard With(SearchBoard board, string expression, int card) =>
        board.With(new(BoardEditKind.Add, card, Text: expression), out _) ?? board;

    /// <summary>The three terms, one after another, that make the search best for somebody who knows the truth.</summary>
    private SearchBoard Best(SearchBoard board, WorkSet relevant)
    {
        var terms = MarkingTerms.Choose(
            new TermCandidates(snapshot.Columns.Words, relevant).Against(
                evaluator.Everything(),
                relevant,
                Zendle.Index.Budget.Current
            ),
            [],
            new HashSet<string>(),
            120
        );
        for (var n = 0; n < EachRound; n++)
            board = terms
                .SelectMany(t => Enumerable.Range(0, board.Cards.Length).Select(c => With(board, t.Expression, c)))
                .MaxBy(b => F1(ScoreOf(b, relevant)))!;
        return board;
    }
}
