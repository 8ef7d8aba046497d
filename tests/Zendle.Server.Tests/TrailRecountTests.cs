using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Trails of five hundred random sets of seeds, recounted from every reference list with plain sets.</summary>
public sealed class TrailRecountTests(Harvested world) : IClassFixture<Harvested>
{
    private const int Sets = 500,
        MostSeeds = 12,
        AtOnce = 4;

    private Visitor Ann => world.Ann;

    [Fact]
    public async Task Trails_of_random_seeds_are_what_reference_lists_say()
    {
        var review = await Ann.Review();
        int[] works = [.. (await Ann.AllWorks(review, await Ann.Search(review, ""))).Order()];
        var lists = (
            await Task.WhenAll(
                works.Select(async w =>
                    (w, (await Ann.Get($"/api/reviews/{review}/works/{w}/references")).List("references"))
                )
            )
        ).ToDictionary(
            l => l.w,
            l => l.Item2.Select(r => r["workId"]?.GetValue<int>()).OfType<int>().Where(c => c != l.w).ToHashSet()
        );
        Assert.True(lists.Values.Sum(l => l.Count) > 2_000, "too few ties to say anything");
        var citing = lists.SelectMany(l => l.Value.Select(cited => (cited, l.Key))).ToLookup(t => t.cited, t => t.Key);
        var random = new Random(500);
        var seeds = Enumerable
            .Range(0, Sets)
            .Select(_ => random.GetItems(works, random.Next(1, MostSeeds + 1)).Distinct().ToArray());
        await Parallel.ForEachAsync(
            seeds,
            new ParallelOptions { MaxDegreeOfParallelism = AtOnce },
            async (set, _) =>
            {
                var step = await Ann.Follow(review, "Both", set);
                var (past, future) = (Tied(set, w => lists[w]), Tied(set, w => citing[w]));
                Assert.Equal(past, await Sides(review, step, "Backward", "past"));
                Assert.Equal(future, await Sides(review, step, "Forward", "future"));
            }
        );
    }

    /// <summary>Works tied to seeds, with how many of the seeds each is tied to; a seed that another seed cites is one.</summary>
    private static SortedDictionary<int, int> Tied(int[] seeds, Func<int, IEnumerable<int>> of) =>
        new(seeds.SelectMany(s => of(s).Distinct()).CountBy(w => w).ToDictionary(w => w.Key, w => w.Value));

    private async Task<SortedDictionary<int, int>> Sides(int review, int step, string side, string name)
    {
        var found = new SortedDictionary<int, int>();
        for (int offset = 0, total = 1; offset < total; offset += 200)
        {
            var page = await Ann.Get($"/api/reviews/{review}/steps/{step}/works?limit=200&offset={offset}&side={side}");
            total = page.Int("total");
            foreach (var w in page.List("works"))
                found.Add(w.Int("id"), w["ties"]!.Int(name));
        }
        return found;
    }
}
