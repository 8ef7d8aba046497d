using CsCheck;
using Zendle.Store.Corpus;

namespace Zendle.Server.Tests;

/// <summary>
/// The filter over merging keys never says "no" of a key that is there, and seldom "perhaps" of one that is not.
/// </summary>
public sealed class KeyFilterTests
{
    private static long[] Keys(int seed, int count)
    {
        var random = new Random(seed);
        return [.. Enumerable.Range(0, count).Select(_ => random.NextInt64(long.MinValue, long.MaxValue))];
    }

    [Fact]
    public void What_was_added_is_always_there() =>
        Gen
            .Long.Array[1, 200]
            .Sample(
                keys =>
                {
                    var filter = new KeyFilter(keys.Length);
                    foreach (var key in keys)
                        filter.Add(key);
                    Assert.All(keys, key => Assert.True(filter.MayHave(key)));
                },
                iter: 50
            );

    [Fact]
    public void Of_keys_that_were_never_added_it_says_perhaps_of_fewer_than_one_in_a_hundred()
    {
        var filter = new KeyFilter(150_000);
        foreach (var key in Keys(1, 150_000))
            filter.Add(key);
        Assert.InRange(Keys(2, 50_000).Count(filter.MayHave), 0, 500);
    }

    [Fact]
    public void An_empty_filter_has_nothing() => Assert.DoesNotContain(Keys(3, 1_000), new KeyFilter(0).MayHave);
}
