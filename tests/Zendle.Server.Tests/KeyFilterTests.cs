using CsCheck;
using Zendle.Store.Corpus;

namespace Zendle.Server.Tests;

/// <summary>The filter over merging keys never says "no" of a key that is there, and seldom "perhaps" of one that is not.</summary>
public sealed class KeyFilterTests
{
    private static long[] Keys(int seed, int count)
    {
        var random = new Random(seed);
        return [.. Enumerable.Range(0, count).Select(_ => random.NextInt64(long.MinValue, long.MaxValue))];
    }

    [Fact]
    public void What_was_added_is_always_there() => Gen.Long.Array[1, 200].Sample(keys =>
    {
        var filter = new KeyFilter();
        foreach (var key in keys) filter.Add(key);
        Assert.All(keys, key => Assert.True(filter.Add(key)));
    }, iter: 50);

    [Fact]
    public void Of_keys_that_were_never_added_it_says_perhaps_of_fewer_than_one_in_fifty()
    {
        var filter = new KeyFilter();
        filter.Reset(150_000);
        foreach (var key in Keys(1, 150_000)) filter.Add(key);
        // Asked of a copy's worth of others: each question adds, so only a tenth as many are asked.
        Assert.InRange(Keys(2, 15_000).Count(filter.Add), 0, 300);
        Assert.False(filter.IsFull);
    }

    [Fact]
    public void It_says_when_it_grows_vague_and_is_empty_after_a_reset()
    {
        var filter = new KeyFilter();
        foreach (var key in Keys(3, 360_000)) filter.Add(key);
        Assert.True(filter.IsFull);
        filter.Reset(360_000);
        Assert.Equal((false, 0L), (filter.IsFull, filter.Count));
        Assert.False(filter.Add(Keys(3, 1)[0]));
    }
}
