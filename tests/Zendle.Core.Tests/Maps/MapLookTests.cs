using Zendle.Core.Maps;

namespace Zendle.Core.Tests.Maps;

/// <summary>How a map is looked at, before it is saved.</summary>
public sealed class MapLookTests
{
    private static readonly MapLook Usual = new(
        LaneField.Topic,
        LaneOrder.Size,
        MapAlong.Year,
        MapSize.Cited,
        0,
        MapColour.Lane,
        Open: false,
        0,
        0,
        0,
        null,
        [],
        []
    );

    [Fact]
    public void What_a_person_can_choose_is_without_fault() =>
        Assert.Null(
            (
                Usual with
                {
                    Until = 1999,
                    Pins = [3, 1],
                    Changed = [new(LaneKind.Value, "moths", LaneShown.Folded, "Night fliers")],
                }
            ).Fault
        );

    [Fact]
    public void What_no_interface_asks_for_is_told_in_a_sentence()
    {
        Assert.Contains("at most 6 cards", (Usual with { Pins = [1, 2, 3, 4, 5, 6, 7] }).Fault, Ignoring);
        Assert.Contains("does not know", (Usual with { Along = (MapAlong)99 }).Fault, Ignoring);
        var long201 = new string('x', 201);
        Assert.Contains(
            "at most 200 characters",
            (Usual with { Changed = [new(LaneKind.Value, "moths", LaneShown.Open, long201)] }).Fault,
            Ignoring
        );
        Assert.Contains(
            "at most 400 lanes",
            (
                Usual with
                {
                    Changed = [.. Enumerable.Repeat(new LaneLook(LaneKind.None, "", LaneShown.Hidden, null), 401)],
                }
            ).Fault,
            Ignoring
        );
    }

    private const StringComparison Ignoring = StringComparison.OrdinalIgnoreCase;
}
