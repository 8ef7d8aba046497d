using CsCheck;
using Zendle.Store.Made;

namespace Zendle.Server.Tests;

/// <summary>Ids of the works of a run, as bytes.</summary>
public sealed class WorkIdsTests
{
    [Fact]
    public void Ids_of_a_run_are_packed_and_unpacked() =>
        Gen.Int[1, 5_000_000]
            .Array[0, 300]
            .Select(ids => ids.Distinct().Order().ToArray())
            .Sample(
                ids =>
                {
                    var packed = WorkIds.Pack(ids);
                    Assert.Equal(ids, WorkIds.Unpack(packed));
                    Assert.True(packed.Length <= ids.Length * 4 + 8);
                },
                iter: 500
            );

    [Fact]
    public void Neighbouring_ids_take_a_byte_each() =>
        Assert.Equal(10_000 + 2, WorkIds.Pack([.. Enumerable.Range(1, 10_000)]).Length);
}
