using CsCheck;
using Zendle.Index.Text;

namespace Zendle.Index.Tests;

public sealed class SpansTests
{
    private static readonly Gen<Spans> Any = Gen.Select(
            Gen.Int[0, 4],
            Gen.Int[0, 15],
            Gen.Int[1, 3],
            (document, position, length) => (Start: Spans.Pack(document, position), Length: length)
        )
        .Array[0, 14]
        .Select(all =>
        {
            var sorted = all.DistinctBy(s => s.Start).OrderBy(s => s.Start).ToArray();
            return new Spans([.. sorted.Select(s => s.Start)], [.. sorted.Select(s => s.Length)]);
        });

    private static IEnumerable<(int Document, int Begin, int End)> List(Spans spans) =>
        spans.Starts.Select((s, i) => (Spans.Document(s), Spans.Position(s), Spans.Position(s) + spans.Lengths[i]));

    [Fact]
    public void Near_is_what_comparing_every_pair_finds() =>
        Gen.Select(Any, Any, Gen.Int[0, 6])
            .Sample(
                (left, right, distance) =>
                {
                    var expected = List(right)
                        .Where(r =>
                            List(left)
                                .Any(l =>
                                    l.Document == r.Document
                                    && (
                                        l.Begin >= r.End ? l.Begin - r.End
                                        : r.Begin >= l.End ? r.Begin - l.End
                                        : int.MaxValue
                                    ) <= distance
                                )
                        )
                        .ToArray();
                    Assert.Equal(expected, List(Spans.Near(left, right, distance)));
                },
                iter: 3_000
            );

    [Fact]
    public void Merged_lists_are_sorted_and_whole() =>
        Any.Array[1, 5]
            .Sample(
                lists =>
                {
                    var merged = Spans.Merge(lists);
                    Assert.Equal(lists.Sum(l => l.Count), merged.Count);
                    Assert.Equal(merged.Starts.Order(), merged.Starts);
                    Assert.Equal(lists.SelectMany(List).Order(), List(merged).Order());
                },
                iter: 1_000
            );

    [Theory]
    [InlineData(0, 0)]
    [InlineData(0, int.MaxValue)]
    [InlineData(2_000_000_000, 7)]
    public void A_place_is_packed_and_unpacked(int document, int position)
    {
        var packed = Spans.Pack(document, position);
        Assert.Equal((document, position), (Spans.Document(packed), Spans.Position(packed)));
    }

    [Fact]
    public void Places_are_sorted_by_document_then_position() =>
        Assert.True(Spans.Pack(1, 0) > Spans.Pack(0, int.MaxValue));

    [Fact]
    public void Nothing_is_near_nothing()
    {
        Assert.Equal(0, Spans.Near(Spans.None, Spans.None, 9).Count);
        Assert.Equal(0, Spans.Merge([Spans.None, Spans.None]).Count);
    }
}
