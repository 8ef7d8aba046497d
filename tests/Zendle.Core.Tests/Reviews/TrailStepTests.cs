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
        Assert.True(act.NeedsTrail());
        Assert.Equal(SearchState.Everything, SearchState.Everything.After(act));
    }

    public static TheoryData<StepAct> OfTrails => [new TiesAct(2), new WayAct(TrailWay.Both)];

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
