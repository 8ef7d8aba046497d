using CsCheck;
using Zendle.Core.Sets;

namespace Zendle.Core.Tests.Sets;

public sealed class RadixSortTests
{
    /// <summary>Keys that differ in the middle alone.</summary>
    private static readonly Gen<ulong> High = Gen.ULong[0, 900_000].Select(k => 5UL << 60 | k << 37 | 77);

    /// <summary>Keys as they come: few different ones, many, very large ones, with lengths on both sides of where comparison
    /// ends.</summary>
    private static readonly Gen<ulong[]> Keys = Gen.OneOf(Gen.Int[0, 40], Gen.Int[1_000, 1_100], Gen.Int[3_000, 3_100])
        .SelectMany(n =>
            Gen.OneOf(Gen.ULong[0, 3].Array[n], Gen.ULong[0, 70_000].Array[n], Gen.ULong.Array[n], High.Array[n])
        );

    [Fact]
    public void Ids_stand_by_key_and_then_by_id() =>
        Keys.Sample(
            keys =>
            {
                int[] ids = [.. Enumerable.Range(0, keys.Length).Select(i => 3 * i)];
                var expected = ids.OrderBy(id => keys[id / 3]).ThenBy(id => id).ToArray();
                var sorted = keys.ToArray();
                RadixSort.Sort(sorted, ids);
                Assert.Equal(expected, ids);
                Assert.Equal(keys.Order(), sorted);
            },
            iter: 120
        );

    /// <summary>Many are sorted in two halves.</summary>
    [Fact]
    public void Many_stand_by_key_and_then_by_id()
    {
        var random = new Random(5);
        ulong[] keys = [.. Enumerable.Range(0, 200_001).Select(_ => (ulong)random.Next(150_000) << 9)];
        int[] ids = [.. Enumerable.Range(0, keys.Length)];
        var expected = ids.OrderBy(id => keys[id]).ThenBy(id => id).ToArray();
        RadixSort.Sort(keys, ids);
        Assert.Equal(expected, ids);
        Assert.Equal(keys.Order(), keys);
    }

    [Fact]
    public void Each_id_has_a_key() => Assert.Throws<ArgumentException>(() => RadixSort.Sort(new ulong[3], new int[2]));
}
