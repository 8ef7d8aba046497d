using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;

namespace Zendle.Core.Tests.Reviews;

public sealed class SearchStateTests
{
    private static readonly StepAct Light = new SearchAct("light");
    private static readonly ActNames Names = new(id => id == 3 ? "Farnet" : "?", _ => "?");

    [Fact]
    public void Acts_add_up_and_the_same_field_is_narrowed_anew()
    {
        var state = SearchState.Of([
            Light,
            new AddAct("moth* OR bat"),
            new YearsAct(2005),
            new NarrowAct(Facet.Type, ["article"]),
            new NarrowAct(Facet.Language, Excluded: ["German"]),
            new NarrowAct(Facet.Type, ["review"]),
            new InsideAct(["field*", " "]),
            new DatabasesAct([2, 1, 2]),
        ]);
        Assert.Equal("light AND (moth* OR bat)", state.Expression);
        Assert.Equal((2005, null), (state.From, state.To));
        Assert.Equal(
            [(Facet.Language, "", "German"), (Facet.Type, "review", "")],
            state.Narrowings.Select(n => (n.Facet, string.Join(',', n.Values), string.Join(',', n.Excluded)))
        );
        Assert.Equal(["field*"], state.Inside);
        Assert.Equal([1, 2], state.Databases);
        Assert.False(state.After(new NarrowAct(Facet.Type)).Narrowings.Any(n => n.Facet == Facet.Type));
        var required = state.After(new NarrowAct(Facet.Keyword, Each: ["moths"])).Narrowings[^1];
        Assert.Equal((Facet.Keyword, "moths"), (required.Facet, string.Join(',', required.Each)));
    }

    [Theory]
    [InlineData("light AND moth*", typeof(AddAct), "moth*", "+ moth*")]
    [InlineData("light moth*", typeof(AddAct), "moth*", "+ moth*")]
    [InlineData("light AND NOT laser*", typeof(AddAct), "NOT laser*", "without laser*")]
    [InlineData("light NOT laser*", typeof(AddAct), "NOT laser*", "without laser*")]
    // means (light AND moth) OR bat: not a part added
    [InlineData("light AND moth OR bat", typeof(SearchAct), "light AND moth OR bat", "light AND moth OR bat")]
    [InlineData("light OR moth", typeof(SearchAct), "light OR moth", "light OR moth")]
    [InlineData("light NEAR/5 moth", typeof(SearchAct), "light NEAR/5 moth", "light NEAR/5 moth")]
    [InlineData("lighting", typeof(SearchAct), "lighting", "lighting")]
    [InlineData("10.5555/ABC.1", typeof(SearchAct), "doi:\"10.5555/abc.1\"", "doi:\"10.5555/abc.1\"")]
    public void A_line_that_goes_on_from_the_one_before_is_a_part_added(
        string line,
        Type kind,
        string expression,
        string label
    )
    {
        var act = SearchState.Of([Light]).Toward(line);
        Assert.Equal(
            (kind, expression),
            (act.GetType(), act is AddAct add ? add.Expression : ((SearchAct)act).Expression)
        );
        Assert.Equal(label, act.Label(Names));
    }

    [Fact]
    public void A_part_taken_out_of_the_middle_leaves_the_others() =>
        Assert.Equal("light AND pollinat*", SearchState.Of([Light, new AddAct("pollinat*")]).Expression);

    [Fact]
    public void Adding_to_alternatives_joins_the_whole_of_them() =>
        Assert.Equal(
            "(light OR lamp) AND moth",
            SearchState.Of([new SearchAct("light OR lamp"), new AddAct("moth")]).Expression
        );

    [Theory]
    [InlineData(2005, 2026, "2005–2026")]
    [InlineData(2005, null, "from 2005")]
    [InlineData(null, 2004, "until 2004")]
    [InlineData(null, null, "any year")]
    public void Years_are_named(int? from, int? to, string label) =>
        Assert.Equal(label, new YearsAct(from, to).Label(Names));

    [Fact]
    public void Other_acts_are_named_by_what_they_do()
    {
        Assert.Equal("article; without letter", new NarrowAct(Facet.Type, ["article"], ["letter"]).Label(Names));
        Assert.Equal("any type", new NarrowAct(Facet.Type).Label(Names));
        Assert.Equal(
            "moths, bats; with light; without noise",
            new NarrowAct(Facet.Keyword, ["moths", "bats"], ["noise"], ["light"]).Label(Names)
        );
        Assert.Equal("in Farnet", new DatabasesAct([3]).Label(Names));
        Assert.Equal("inside: field*", new InsideAct(["field*"]).Label(Names));
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
            new CompareAct([new SearchAct("moth*"), new YearsAct(2000)], true, "not in moths"),
        ]);
        var other = Assert.Single(state.Others!);
        Assert.True(other.Apart);
        Assert.Equal(("moth*", 2000), (other.State().Expression, other.State().From));
        Assert.True(state.IsNarrowed);
        Assert.False(state.AsksReview);
        Assert.True(state.After(new CompareAct([new SearchAct("stage:kept")])).AsksReview);
        Assert.Equal("not in moths", new CompareAct([Light], true, "not in moths").Label(Names));
        Assert.Equal("in another search too", new CompareAct([Light]).Label(Names));
    }

    [Fact]
    public void A_list_of_works_is_what_all_lists_have_in_common()
    {
        var state = SearchState.Of([new AmongAct([5, 3, 9, 3]), new AmongAct([9, 4, 3])]);
        Assert.Equal([3, 9], state.Among!);
        Assert.Equal("3 works", new AmongAct([5, 3, 9]).Label(Names));
        Assert.Null(SearchState.Everything.Among);
    }

    [Theory]
    [InlineData(Facet.OpenAccess, "any open access")]
    [InlineData(Facet.Text, "any full text")]
    [InlineData(Facet.Quartile, "any quartile")]
    public void Fields_are_called_by_their_names_in_sentences(Facet facet, string label) =>
        Assert.Equal(label, new NarrowAct(facet).Label(Names));
}
