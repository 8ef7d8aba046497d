using CsCheck;
using Zendle.Core.Sets;

namespace Zendle.Core.Tests.Sets;

/// <summary>Lists by id are what a dictionary of lists would be, and what was handed out does not change.</summary>
public sealed class IdListsTests
{
    private static readonly Gen<(int Id, int[] List)[][]> Edits = Gen.Select(
            Gen.Int[0, 30],
            // Lengths of 255 and more do not stand in a byte.
            Gen.Frequency((20, Gen.Int[-5, 5].Array[0, 6]), (1, Gen.Int[-5, 5].Array[253, 260]))
        )
        .Array[0, 12]
        .Array[1, 30];

    private static string Told(IdLists lists) =>
        string.Join(
            ' ',
            Enumerable.Range(0, 40).Select(id => $"{id}:{string.Join(',', lists.Of(id).ToArray())}/{lists.Length(id)}")
        );

    [Fact]
    public void Edits_one_after_another_give_what_was_set_last() =>
        Edits.Sample(
            rounds =>
            {
                var (lists, plain, before) = (
                    IdLists.Empty,
                    new Dictionary<int, int[]>(),
                    new List<(IdLists, string)>()
                );
                foreach (var round in rounds)
                {
                    var editor = lists.Edit(31);
                    foreach (var (id, list) in round)
                    {
                        editor.Set(id, list);
                        plain[id] = list;
                        Assert.Equal(list, editor.Of(id).ToArray());
                    }
                    lists = editor.Finish();
                    Assert.All(plain, p => Assert.Equal(p.Value, lists.Of(p.Key).ToArray()));
                    Assert.All(plain, p => Assert.Equal(p.Value.Length, lists.Length(p.Key)));
                    before.Add((lists, Told(lists)));
                }
                // Whoever holds an older one still reads what it said.
                Assert.All(before, b => Assert.Equal(b.Item2, Told(b.Item1)));
                var (at, data) = lists.Arrays();
                Assert.Equal(Told(lists), Told(IdLists.From(at, data)));
                Assert.Equal(plain.Values.Where(l => l.Length > 0).Sum(l => l.Length + 1), data.Length); // nothing dead is written down
            },
            iter: 500
        );

    [Theory]
    [InlineData(new[] { 1 }, new int[0])]
    [InlineData(new[] { 1 }, new[] { 5, 1, 2 })]
    [InlineData(new[] { -1 }, new[] { 1, 2 })]
    [InlineData(new[] { 1 }, new[] { -1, 2 })]
    public void Arrays_that_do_not_fit_each_other_are_refused(int[] at, int[] data) =>
        Assert.Throws<InvalidDataException>(() => IdLists.From(at, data));

    [Fact]
    public void Lists_read_with_room_behind_them_go_on_in_that_room()
    {
        int[] data = [2, 7, 8, 1, 9, -77, -77, -77];
        var lists = IdLists.From([1, 4], data, used: 5);
        var next = lists.Edit(3);
        next.Set(2, [5, 6]);
        Assert.Equal("0:7,8/2 1:9/1 2:5,6/2", string.Join(' ', Told(next.Finish()).Split(' ')[..3]));
        Assert.Equal([2, 5, 6], data[5..]); // no copy was made
        Assert.Equal("0:7,8/2 1:9/1 2:/0", string.Join(' ', Told(lists).Split(' ')[..3]));
        Assert.Throws<InvalidDataException>(() => IdLists.From([1, 4, 6], data, used: 5)); // a list in what is only room
        Assert.Equal(17_000_000, IdLists.LengthFor(16_000_000));
    }
}
