using System.Collections.Immutable;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Questions;
using Zendle.Index.Trails;

namespace Zendle.Bench;

/// <summary>
/// Neighbours of every kind, a round and long trails over works that have words, people and references, each with the first
/// page of its list.
/// </summary>
internal sealed class RoundsBench
{
    private const int Times = 5,
        Page = 50,
        MostCited = 30;

    private readonly CorpusSnapshot snapshot;
    private readonly int works;

    private RoundsBench(CorpusSnapshot snapshot, int works) => (this.snapshot, this.works) = (snapshot, works);

    /// <summary>Prints it.</summary>
    public static void Run(string folder, int works, int seed)
    {
        var corpus = new SyntheticCorpus(works, seed);
        using var index = SyntheticIndex.Built(folder, corpus, works, corpus.Records().Count(), w => Cites(w, seed));
        using var snapshot = index.Snapshot();
        Console.WriteLine($"{snapshot.Columns.Graph.Ties:N0} ties");
        _ = snapshot.Columns.Words.Rarity.Length; // made once with the first question
        var bench = new RoundsBench(snapshot, works);
        foreach (var kind in new[] { NeighbourKind.Tied }.Concat(NeighbourQuestion.AllKinds))
        foreach (var seeds in new[] { 1, 100 })
            bench.Neighbours(kind, seeds);
        foreach (var seeds in new[] { 100, 500 })
            bench.Round(seeds);
        foreach (var seeds in new[] { 60, 5_000 })
            bench.Trails(seeds);
        Console.WriteLine(Measures.Memory());
    }

    /// <summary>What a work cites: up to thirty that are older, some of them by many.</summary>
    private static IEnumerable<int> Cites(int work, int seed)
    {
        var random = new Random((seed * 7_919) + work);
        return Enumerable
            .Range(0, work < MostCited ? 0 : random.Next(MostCited))
            .Select(_ => 1 + (int)((work - 1) * Math.Pow(random.NextDouble(), 3)))
            .Distinct();
    }

    private int[] Seeds(int many, int run) =>
        [.. Enumerable.Range(0, many).Select(i => 1 + ((works / 4) + (1_003 * run) + (i * 37)) % works)];

    private void Neighbours(NeighbourKind kind, int seeds)
    {
        var found = 0;
        var took = Took(run =>
        {
            var near = new Neighbours([new NeighbourLists(snapshot).Of(kind, Seeds(seeds, run))]);
            var set = near.Works(1, snapshot.Columns.WorkSize);
            First(set, SortOrder.Likeness, near.Order(_ => 1));
            found = set.Count();
        });
        Console.WriteLine($"{kind} of {seeds} works: {found:N0} neighbours, {took:N0} ms");
    }

    /// <summary>The candidates of a round as people begin one: ties both ways and all neighbours, in their joined order.</summary>
    private void Round(int seeds)
    {
        var found = 0;
        var took = Took(run =>
        {
            var from = Seeds(seeds, run);
            var lists = new NeighbourLists(snapshot);
            var near = new Neighbours([
                .. new[] { NeighbourKind.Tied }.Concat(NeighbourQuestion.AllKinds).Select(k => lists.Of(k, from)),
            ]);
            var candidates = Followed(from).Works(1);
            foreach (var list in near.Lists)
                list.AddTo(candidates, 2);
            First(candidates, SortOrder.Likeness, near.Order(_ => 1));
            found = candidates.Count();
        });
        Console.WriteLine($"a round of {seeds} kept works: {found:N0} candidates, {took:N0} ms");
    }

    private void Trails(int seeds)
    {
        var found = 0;
        var took = Took(run =>
        {
            var trail = Followed(Seeds(seeds, run));
            var set = trail.Works(1);
            _ = trail.Shares();
            First(set, SortOrder.Ties, ties: trail.Future.Ties);
            found = set.Count();
        });
        Console.WriteLine($"trails both ways from {seeds} works: {found:N0} works, {took:N0} ms");
    }

    private Trail Followed(int[] seeds) =>
        Trail.Follow(
            snapshot.Columns.Graph,
            new(seeds.ToImmutableArray(), TrailWay.Both),
            [],
            snapshot.Columns.WorkSize
        );

    /// <summary>The first page of a list.</summary>
    private void First(WorkSet set, SortOrder order, JoinedOrder? likeness = null, Func<int, int>? ties = null) =>
        _ = WorkOrder
            .Sort(snapshot, set, order, [], new RecordSet(snapshot.Columns.RecordSize), 2026, ties, likeness)
            .Take(Page)
            .ToArray();

    /// <summary>The median, after one run that is not counted.</summary>
    private static double Took(Action<int> act)
    {
        act(Times);
        return Measures.Took(Times, act);
    }
}
