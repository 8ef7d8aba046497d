using Zendle.Core.Reviews;

namespace Zendle.Core.Tests.Reviews;

public sealed class SearchStateTests
{
    private static readonly StepAct Light = new(StepKind.Search, "light");

    [Fact]
    public void Acts_add_up_and_the_same_field_is_narrowed_anew()
    {
        var state = SearchState.Of([
            Light,
            new(StepKind.Add, "moth* OR bat"),
            new(StepKind.Years, From: 2005),
            new(StepKind.Narrow, Facet: Facet.Type, Values: ["article"]),
            new(StepKind.Narrow, Facet: Facet.Language, Excluded: ["German"]),
            new(StepKind.Narrow, Facet: Facet.Type, Values: ["review"]),
            new(StepKind.Inside, Values: ["field*", " "]),
            new(StepKind.Databases, Databases: [2, 1, 2]),
        ]);
        Assert.Equal("light AND (moth* OR bat)", state.Expression);
        Assert.Equal((2005, null), (state.From, state.To));
        Assert.Equal(
            [(Facet.Language, "", "German"), (Facet.Type, "review", "")],
            state.Narrowings.Select(n => (n.Facet, string.Join(',', n.Values), string.Join(',', n.Excluded)))
        );
        Assert.Equal(["field*"], state.Inside);
        Assert.Equal([1, 2], state.Databases);
        Assert.False(state.After(new(StepKind.Narrow, Facet: Facet.Type)).Narrowings.Any(n => n.Facet == Facet.Type));
    }

    [Theory]
    [InlineData("light AND moth*", StepKind.Add, "moth*", "+ moth*")]
    [InlineData("light moth*", StepKind.Add, "moth*", "+ moth*")]
    [InlineData("light AND NOT laser*", StepKind.Add, "NOT laser*", "without laser*")]
    [InlineData("light NOT laser*", StepKind.Add, "NOT laser*", "without laser*")]
    // means (light AND moth) OR bat: not a part added
    [InlineData("light AND moth OR bat", StepKind.Search, "light AND moth OR bat", "light AND moth OR bat")]
    [InlineData("light OR moth", StepKind.Search, "light OR moth", "light OR moth")]
    [InlineData("light NEAR/5 moth", StepKind.Search, "light NEAR/5 moth", "light NEAR/5 moth")]
    [InlineData("lighting", StepKind.Search, "lighting", "lighting")]
    [InlineData("10.5555/ABC.1", StepKind.Search, "doi:\"10.5555/abc.1\"", "doi:\"10.5555/abc.1\"")]
    public void A_line_that_goes_on_from_the_one_before_is_a_part_added(
        string line,
        StepKind kind,
        string expression,
        string label
    )
    {
        var act = SearchState.Of([Light]).Toward(line);
        Assert.Equal((kind, expression), (act.Kind, act.Expression));
        Assert.Equal(label, StepLabels.For(act, _ => "?"));
    }

    [Fact]
    public void A_part_taken_out_of_the_middle_leaves_the_others() =>
        Assert.Equal("light AND pollinat*", SearchState.Of([Light, new(StepKind.Add, "pollinat*")]).Expression);

    [Fact]
    public void Adding_to_alternatives_joins_the_whole_of_them() =>
        Assert.Equal(
            "(light OR lamp) AND moth",
            SearchState.Of([new(StepKind.Search, "light OR lamp"), new(StepKind.Add, "moth")]).Expression
        );

    [Theory]
    [InlineData(2005, 2026, "2005–2026")]
    [InlineData(2005, null, "from 2005")]
    [InlineData(null, 2004, "until 2004")]
    [InlineData(null, null, "any year")]
    public void Years_are_named(int? from, int? to, string label) =>
        Assert.Equal(label, StepLabels.For(new(StepKind.Years, From: from, To: to), _ => "?"));

    [Fact]
    public void Other_acts_are_named_by_what_they_do()
    {
        Assert.Equal(
            "article; without letter",
            StepLabels.For(new(StepKind.Narrow, Facet: Facet.Type, Values: ["article"], Excluded: ["letter"]), _ => "?")
        );
        Assert.Equal("any type", StepLabels.For(new(StepKind.Narrow, Facet: Facet.Type), _ => "?"));
        Assert.Equal(
            "in Farnet",
            StepLabels.For(new(StepKind.Databases, Databases: [3]), id => id == 3 ? "Farnet" : "?")
        );
        Assert.Equal("inside: field*", StepLabels.For(new(StepKind.Inside, Values: ["field*"]), _ => "?"));
    }

    [Theory]
    [InlineData(20, 100, false)]
    [InlineData(0, 10, true)]
    [InlineData(50, 50, true)]
    public void A_target_band_goes_upward(int low, int high, bool faulty) =>
        Assert.Equal(faulty, new TargetBand(low, high).Fault is not null);

    [Fact]
    public void Another_search_to_be_held_against_is_written_down_with_its_acts()
    {
        var state = SearchState.Of([
            Light,
            new(
                StepKind.Compare,
                Other: [new(StepKind.Search, "moth*"), new(StepKind.Years, From: 2000)],
                Apart: true,
                Said: "not in moths"
            ),
        ]);
        var other = Assert.Single(state.Others!);
        Assert.True(other.Apart);
        Assert.Equal(("moth*", 2000), (other.State().Expression, other.State().From));
        Assert.True(state.IsNarrowed);
        Assert.False(state.AsksReview);
        Assert.True(state.After(new(StepKind.Compare, Other: [new(StepKind.Search, "stage:kept")])).AsksReview);
        Assert.Equal(
            "not in moths",
            StepLabels.For(new(StepKind.Compare, Other: [Light], Apart: true, Said: "not in moths"), _ => "?")
        );
        Assert.Equal("in another search too", StepLabels.For(new(StepKind.Compare, Other: [Light]), _ => "?"));
    }

    [Fact]
    public void A_list_of_works_is_what_all_lists_have_in_common()
    {
        var state = SearchState.Of([new(StepKind.Among, Seeds: [5, 3, 9, 3]), new(StepKind.Among, Seeds: [9, 4, 3])]);
        Assert.Equal([3, 9], state.Among!);
        Assert.Equal("3 works", StepLabels.For(new(StepKind.Among, Seeds: [5, 3, 9]), _ => "?"));
        Assert.Null(SearchState.Everything.Among);
    }

    [Theory]
    [InlineData(Facet.OpenAccess, "any open access")]
    [InlineData(Facet.Text, "any text at hand")]
    [InlineData(Facet.Quartile, "any quartile")]
    public void Fields_are_called_by_their_names_in_sentences(Facet facet, string label) =>
        Assert.Equal(label, StepLabels.For(new(StepKind.Narrow, Facet: facet), _ => "?"));
}
