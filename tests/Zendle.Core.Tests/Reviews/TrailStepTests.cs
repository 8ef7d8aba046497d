using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Reviews;

public sealed class TrailStepTests
{
    private static readonly ActNames Names = new(_ => "?", _ => "Voss 2011");

    [Fact]
    public void A_trail_takes_the_place_of_a_question_and_is_narrowed_like_one()
    {
        var state = SearchState.Of([
            new SearchAct("moth*"),
            new YearsAct(1990),
            new TrailAct([7, 3, 7], TrailWay.Both),
            new TiesAct(2),
            new InsideAct(["field*"]),
        ]);
        Assert.Equal("", state.Expression);
        Assert.Null(state.From); // a trail begins anew
        Assert.Equal([7, 3], state.Trail!.Seeds); // in the order given, each once
        Assert.Equal((TrailWay.Both, 2), (state.Trail.Way, state.Trail.AtLeast));
        Assert.Equal(["field*"], state.Inside);
        Assert.True(state.IsNarrowed);
    }

    [Fact]
    public void Another_way_keeps_seeds_and_ties_and_a_search_ends_the_trail()
    {
        var trail = SearchState.Of([new TrailAct([7], TrailWay.Both), new TiesAct(3), new WayAct(TrailWay.Forward)]);
        Assert.Equal((TrailWay.Forward, 3), (trail.Trail!.Way, trail.Trail.AtLeast));
        Assert.Null(trail.After(new SearchAct("moth*")).Trail);
        Assert.Equal(["moth*"], trail.After(new AddAct("moth*")).Inside);
    }

    [Theory]
    [MemberData(nameof(OfTrails))]
    public void Without_a_trail_its_narrowings_say_nothing(StepAct act)
    {
        Assert.False(act.SaysSomethingIn(SearchState.Everything));
        Assert.Equal(SearchState.Everything, SearchState.Everything.After(act));
    }

    public static TheoryData<StepAct> OfTrails =>
        [new TiesAct(2), new WayAct(TrailWay.Both), new KindsAct([NeighbourKind.SharedTerms]), new SharedAct(2)];

    [Fact]
    public void Neighbours_are_narrowed_by_kind_and_by_how_much_is_shared_and_trails_are_not()
    {
        var near = SearchState.Of([
            new NeighboursAct([7, 3, 7]),
            new KindsAct([NeighbourKind.SharedTerms, NeighbourKind.SharedReferences]),
            new SharedAct(3),
            new YearsAct(2001),
        ]);
        Assert.Equal([7, 3], near.Neighbours!.Seeds);
        Assert.Equal([NeighbourKind.SharedReferences, NeighbourKind.SharedTerms], near.Neighbours.Kinds);
        Assert.Equal((3, true, true), (near.Neighbours.AtLeast, near.HasSeeds, near.IsNarrowed));
        Assert.Equal(near, near.After(new TiesAct(2)).After(new WayAct(TrailWay.Both)));
        Assert.False(new TiesAct(2).SaysSomethingIn(near));
        var trail = near.After(new TrailAct([7]));
        Assert.Null(trail.Neighbours);
        Assert.Equal(trail, trail.After(new SharedAct(2)).After(new KindsAct([])));
    }

    [Fact]
    public void Neighbours_are_named_by_their_seeds_and_kinds()
    {
        Assert.Equal("neighbours of Voss 2011", new NeighboursAct([1]).Label(Names));
        Assert.Equal(
            "neighbours of 1,200 works: cited together",
            new NeighboursAct([.. Enumerable.Range(1, 1200)], [NeighbourKind.CitedTogether]).Label(Names)
        );
        Assert.Equal(
            "shared references, shared people",
            new KindsAct([NeighbourKind.SharedPeople, NeighbourKind.SharedReferences]).Label(Names)
        );
        Assert.Equal("neighbours of any kind", new KindsAct([]).Label(Names));
        Assert.Equal("3 or more in common", new SharedAct(3).Label(Names));
        Assert.NotNull(new NeighboursAct([]).Fault());
        Assert.NotNull(new NeighboursAct([.. Enumerable.Range(1, 5_001)]).Fault());
        Assert.Null(new NeighboursAct([1]).Fault());
    }

    [Theory]
    [InlineData(TrailWay.Backward, 1, "what Voss 2011 cites")]
    [InlineData(TrailWay.Forward, 1, "what cites Voss 2011")]
    [InlineData(TrailWay.Both, 1, "both ways from Voss 2011")]
    [InlineData(TrailWay.Backward, 3, "what 3 works cite")]
    [InlineData(TrailWay.Forward, 1200, "what cites 1,200 works")]
    public void Trails_are_named_by_their_seeds(TrailWay way, int seeds, string label) =>
        Assert.Equal(label, new TrailAct([.. Enumerable.Range(1, seeds)], way).Label(Names));

    [Fact]
    public void Ties_and_ways_are_named_by_what_they_leave()
    {
        Assert.Equal("tied to 2 or more", new TiesAct(2).Label(Names));
        Assert.Equal("tied to any", new TiesAct(1).Label(Names));
        Assert.Equal("only what they cite", new WayAct(TrailWay.Backward).Label(Names));
        Assert.Equal("only what cites them", new WayAct(TrailWay.Forward).Label(Names));
    }
}
