using CsCheck;
using Zendle.Core.Sets;

namespace Zendle.Core.Tests.Sets;

public sealed class BoundedCacheTests
{
    [Fact]
    public void What_was_not_asked_for_longest_is_forgotten_first()
    {
        var cache = new BoundedCache<string, int>(100);
        cache.Put("a", 1, 40);
        cache.Put("b", 2, 40);
        Assert.True(cache.TryGet("a", out _));
        cache.Put("c", 3, 40);
        Assert.False(cache.TryGet("b", out _));
        Assert.True(cache.TryGet("a", out var a) && cache.TryGet("c", out _));
        Assert.Equal((1, 2, 80L), (a, cache.Count, cache.Bytes));
    }

    [Fact]
    public void What_came_last_stays_however_large_it_is()
    {
        var cache = new BoundedCache<string, int>(100);
        cache.Put("a", 1, 10);
        cache.Put("whale", 2, 5_000);
        Assert.Equal((1, 5_000L), (cache.Count, cache.Bytes));
        Assert.Equal(2, cache.Get("whale", () => throw new InvalidOperationException("it was there"), _ => 0));
        cache.Put("b", 3, 10);
        Assert.Equal((1, 10L), (cache.Count, cache.Bytes));
    }

    [Fact]
    public void A_lower_bound_forgets_at_once_and_everything_can_be_forgotten()
    {
        var cache = new BoundedCache<int, int>(1_000);
        for (var i = 0; i < 10; i++)
            cache.Put(i, i, 100);
        cache.MostBytes = 250;
        Assert.Equal((2, 200L), (cache.Count, cache.Bytes));
        Assert.True(cache.TryGet(9, out _) && cache.TryGet(8, out _));
        cache.Clear();
        Assert.Equal((0, 0L), (cache.Count, cache.Bytes));
    }

    [Fact]
    public void Whatever_is_put_and_asked_it_holds_the_youngest_that_fit_together() =>
        Gen.Select(Gen.Int[0, 9], Gen.Int[1, 60], Gen.Bool)
            .Array[0, 60]
            .Sample(acts =>
            {
                var cache = new BoundedCache<int, int>(100);
                // The plain rule: youngest first, cut off where the sum is over the bound.
                var young = new List<(int Key, int Bytes)>();
                foreach (var (key, bytes, isAsked) in acts)
                {
                    var place = young.FindIndex(y => y.Key == key);
                    if (isAsked)
                    {
                        Assert.Equal(place >= 0, cache.TryGet(key, out _));
                        if (place >= 0)
                            (young[place], young) = (young[place], [young[place], .. young.Where(y => y.Key != key)]);
                        continue;
                    }
                    cache.Put(key, key, bytes);
                    young = [(key, bytes), .. young.Where(y => y.Key != key)];
                    while (young.Count > 1 && young.Sum(y => y.Bytes) > 100)
                        young.RemoveAt(young.Count - 1);
                }
                Assert.Equal((young.Count, (long)young.Sum(y => y.Bytes)), (cache.Count, cache.Bytes));
            });
}
