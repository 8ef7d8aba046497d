using Zendle.Core.Reviews;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Reviews;

public sealed class TrailStepTests
{
    [Fact]
    public void A_trail_takes_the_place_of_a_question_and_is_narrowed_like_one()
    {
        var state = SearchState.Of([
            new(StepKind.Search, "moth*"),
            new(StepKind.Years, From: 1990),
            new(StepKind.Trail, Seeds: [7, 3, 7], Way: TrailWay.Both),
            new(StepKind.Ties, AtLeast: 2),
            new(StepKind.Inside, Values: ["field*"]),
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
        var trail = SearchState.Of([
            new(StepKind.Trail, Seeds: [7], Way: TrailWay.Both),
            new(StepKind.Ties, AtLeast: 3),
            new(StepKind.Way, Way: TrailWay.Forward),
        ]);
        Assert.Equal((TrailWay.Forward, 3), (trail.Trail!.Way, trail.Trail.AtLeast));
        Assert.Null(trail.After(new(StepKind.Search, "moth*")).Trail);
        Assert.Equal(["moth*"], trail.After(new(StepKind.Add, "moth*")).Inside);
    }

    [Theory]
    [InlineData(StepKind.Ties)]
    [InlineData(StepKind.Way)]
    public void Without_a_trail_its_narrowings_say_nothing(StepKind kind) =>
        Assert.Equal(SearchState.Everything, SearchState.Everything.After(new(kind, AtLeast: 2, Way: TrailWay.Both)));

    [Theory]
    [InlineData(TrailWay.Backward, 1, "what Voss 2011 cites")]
    [InlineData(TrailWay.Forward, 1, "what cites Voss 2011")]
    [InlineData(TrailWay.Both, 1, "both ways from Voss 2011")]
    [InlineData(TrailWay.Backward, 3, "what 3 works cite")]
    [InlineData(TrailWay.Forward, 1200, "what cites 1,200 works")]
    public void Trails_are_named_by_their_seeds(TrailWay way, int seeds, string label) =>
        Assert.Equal(
            label,
            StepLabels.For(
                new(StepKind.Trail, Seeds: [.. Enumerable.Range(1, seeds)], Way: way),
                _ => "?",
                _ => "Voss 2011"
            )
        );

    [Fact]
    public void Ties_and_ways_are_named_by_what_they_leave()
    {
        Assert.Equal("tied to 2 or more", StepLabels.For(new(StepKind.Ties, AtLeast: 2), _ => "?"));
        Assert.Equal("tied to any", StepLabels.For(new(StepKind.Ties, AtLeast: 1), _ => "?"));
        Assert.Equal("only what they cite", StepLabels.For(new(StepKind.Way, Way: TrailWay.Backward), _ => "?"));
        Assert.Equal("only what cites them", StepLabels.For(new(StepKind.Way, Way: TrailWay.Forward), _ => "?"));
    }
}
