using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index;
using Zendle.Index.Questions;
using Zendle.Index.Senses;
using Zendle.Index.Spelling;
using Zendle.Index.Terms;
using Zendle.Index.Trails;
using Zendle.Server.Features.Search;

namespace Zendle.Bench;

/// <summary>
/// The field's own words: offered terms, spelling, pasted references, senses and the words of a set, each beside the
/// plain search that it starts from.
/// </summary>
internal sealed class WordsBench
{
    private const int Good = 200,
        LargeSet = 100_000,
        SenseSet = 5_000,
        Pasted = 40;

    private readonly SyntheticCorpus corpus;
    private readonly CorpusSnapshot snapshot;
    private readonly QuestionEvaluator evaluator;

    private WordsBench(SyntheticCorpus corpus, CorpusSnapshot snapshot) =>
        (this.corpus, this.snapshot, evaluator) = (corpus, snapshot, new(snapshot, null));

    /// <summary>Prints it.</summary>
    public static void Run(string folder, int works, int seed)
    {
        var corpus = new SyntheticCorpus(works, seed);
        using var index = SyntheticIndex.Built(folder, corpus, works, corpus.Records().Count());
        using var snapshot = index.Snapshot();
        var bench = new WordsBench(corpus, snapshot);
        bench.Offers();
        bench.Spelling();
        bench.References();
        bench.Senses();
        bench.SetWords();
        bench.Near();
        Console.WriteLine(Measures.Memory());
    }

    /// <summary>The words that together find about so many works: the commonest that do not find more.</summary>
    private (string Line, WorkSet Works) About(int size)
    {
        var best = (Line: "", Works: WorkSet.Of(snapshot.Columns.WorkSize, []));
        for (var rank = 5; rank < 3_000; rank += rank / 4)
        {
            var works = evaluator.Works(SyntheticCorpus.Word(rank));
            if (works.Count() is var count && count <= size && count > best.Works.Count())
                best = (SyntheticCorpus.Word(rank), works);
        }
        return best;
    }

    private void Offers()
    {
        var (line, found) = About(LargeSet);
        var root = QueryReader.Read(line).Root!;
        var good = WorkSet.Of(snapshot.Columns.WorkSize, found.Members().Take(Good));
        var ground = new OfferGround(SearchBoard.Of(root), [], null, found, good, new HashSet<string>());
        IReadOnlyList<TermOffer> offers = [];
        var candidates = Measures.Took(
            3,
            () =>
                new TermCandidates(snapshot.Columns.Words, good).Against(
                    evaluator.Everything(),
                    good,
                    new Budget(TimeSpan.FromMinutes(1), default)
                )
        );
        Console.WriteLine($"  finding candidates alone, on one core: {candidates:N0} ms");
        var took = Measures.Took(5, () => offers = new TermOffers(snapshot, evaluator, ground).All());
        Console.WriteLine(
            $"{offers.Count} terms offered for {good.Count()} works against a set of {found.Count():N0}: {took:N0} ms"
        );
    }

    private void Spelling()
    {
        var misspelt = string.Join(' ', new[] { 70, 300, 900 }.Select(SyntheticCorpus.Word).Select(w => w + w[^1]));
        var mender = new LineMender(snapshot.Columns, evaluator, l => evaluator.Works(l).Count());
        var took = Measures.Took(9, () => mender.Mend(QueryReader.Read(misspelt).Root!, misspelt));
        Console.WriteLine($"a line of three misspelt words: {took:N1} ms");
    }

    /// <summary>
    /// References as printed, one word of each title slipped, so that no key finds them; every other one without people
    /// and year, so that only the words of its title lead to its work.
    /// </summary>
    private void References()
    {
        string[] texts =
        [
            .. corpus
                .Records()
                .Where((r, i) => i % 701 == 0 && r.Record.People.Count > 0 && r.Record.Title.Contains(' '))
                .Take(Pasted)
                .Select(
                    (r, i) =>
                        (i % 2 == 0 ? $"{Capital(r.Record.People[0].Short)} ({r.Record.Year}). " : "")
                        + $"{Capital(r.Record.Title[..^1])}x. {r.Record.Venue?.Title} 3, 1–9."
                ),
        ];
        var one = Measures.Took(9, () => PastedFinder.Find(snapshot, evaluator, texts[1], default));
        var all = string.Join("\n\n", texts);
        IReadOnlyList<PastedReferenceDto> read = [];
        var many = Measures.Took(5, () => read = PastedFinder.Find(snapshot, evaluator, all, default).References);
        Console.WriteLine(
            $"one pasted reference: {one:N1} ms; {texts.Length} at once: {many:N0} ms, read as {read.Count}, "
                + $"{read.Count(r => r.Verdict == PastedVerdict.Sure)} sure, "
                + $"{read.Count(r => r.Verdict == PastedVerdict.ToConfirm)} to confirm"
        );
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private void Senses()
    {
        var (line, found) = About(SenseSet);
        var groups = 0;
        var took = Measures.Took(
            5,
            () => groups = new SenseGroups(snapshot).Of(found, new Budget(TimeSpan.FromMinutes(1), default)).Count
        );
        Console.WriteLine($"senses of {found.Count():N0} works ({line}): {groups} groups, {took:N0} ms");
    }

    /// <summary>Neighbours by terms and people, of one work and of a hundred.</summary>
    private void Near()
    {
        _ = snapshot.Columns.Words.Rarity.Length; // made once with the first question
        foreach (var kind in new[] { NeighbourKind.SharedTerms, NeighbourKind.SharedPeople })
        foreach (var seeds in new[] { 1, 100 })
        {
            var found = 0;
            var took = Measures.Took(
                5,
                n =>
                    found = new NeighbourLists(snapshot)
                        .Of(kind, [.. Enumerable.Range(0, seeds).Select(i => 17 + (1_003 * n) + (i * 37))])
                        .Count
            );
            Console.WriteLine($"{kind} of {seeds} works: {found:N0} neighbours, {took:N0} ms");
        }
    }

    private void SetWords()
    {
        var (line, found) = About(LargeSet);
        var terms = 0;
        var took = Measures.Took(
            5,
            () =>
                terms = new SetWords(snapshot, evaluator)
                    .Of(found, [], [], new Budget(TimeSpan.FromMinutes(1), default))
                    .Terms.Count
        );
        Console.WriteLine($"words of a set of {found.Count():N0} works ({line}): {terms} terms, {took:N0} ms");
        var plain = Measures.Took(5, () => _ = new QuestionEvaluator(snapshot, null).Works(line));
        Console.WriteLine($"the search itself: {plain:N1} ms");
    }
}
