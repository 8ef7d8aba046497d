using Zendle.Core.Queries;
using Zendle.Core.Text;

namespace Zendle.Core.Tests.Queries;

public sealed class TermMarksTests
{
    private static string Marked(string expression, string text, QueryField field = QueryField.Title)
    {
        var marks = TermMarks.In(text, Concepts.Of(QueryReader.Read(expression).Root), field);
        foreach (var m in marks.Reverse())
            text = $"{text[..m.Start]}[{m.Concept}:{text.Substring(m.Start, m.Length)}]{text[(m.Start + m.Length)..]}";
        return text;
    }

    [Theory]
    [InlineData("moth*", "Moths at lamps", "[A:Moths] at lamps")]
    [InlineData("lamp AND moth*", "Moths at the lamp", "[B:Moths] at the [A:lamp]")]
    [InlineData("\"light trap\"", "Two light-trap nights, a light trap", "Two [A:light-trap] nights, a [A:light trap]")]
    [InlineData("light-trap", "lighttrap and light-traps", "[A:lighttrap] and light-traps")]
    // the longer of two that start together, or the first
    [InlineData("(moth* OR \"hawk moths\")", "Hawk moths hover", "[A:Hawk moths] hover")]
    [InlineData("moth* NOT lamp", "Moths at the lamp", "[A:Moths] at the lamp")]
    [InlineData("author:moth", "A moth", "A moth")]
    [InlineData("naive", "The naïve one", "The [A:naïve] one")]
    [InlineData("*moth", "hawkmoth and moth", "[A:hawkmoth] and [A:moth]")]
    public void Marks_where_terms_stand(string expression, string text, string expected) =>
        Assert.Equal(expected, Marked(expression, text));

    [Fact]
    public void A_term_of_one_field_is_not_marked_in_another() =>
        Assert.Equal("moth", Marked("title:moth", "moth", QueryField.Abstract));

    [Theory]
    [InlineData("moth*", "moths", true)]
    [InlineData("m?th", "math", true)]
    [InlineData("m?th", "mth", false)]
    [InlineData("*ink*", "drinking", true)]
    [InlineData("a*b*c", "axxbyyc", true)]
    [InlineData("a*b*c", "axxbyy", false)]
    public void Patterns_match_whole_words(string pattern, string word, bool fits) =>
        Assert.Equal(fits, Glob.Matches(pattern, word));

    [Theory]
    [InlineData("moths", "moth")]
    [InlineData("moth", "moths")]
    [InlineData("body", "bodies")]
    [InlineData("larvae", "larva")]
    [InlineData("colour", "colours,color")]
    [InlineData("behaviour", "behaviours,behavior")]
    [InlineData("pollinise", "pollinises,pollinize")]
    [InlineData("gray", "grays,grey")]
    [InlineData("moth*", "")]
    [InlineData("0.05", "")]
    [InlineData("of", "")]
    public void Other_spellings_are_offered(string word, string variants) =>
        Assert.Equal(variants, string.Join(',', SpellingVariants.Of(word)));
}
