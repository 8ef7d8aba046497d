using CsCheck;
using Zendle.Core.FullText;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.FullText;

public sealed class DocumentCheckTests
{
    private static readonly ExpectedWork Work = new(["Lit verges, idle flowers: street lighting cuts visits by moths"], [new("Ouverleaux-Tann", "Mei"), new("Okwemba", "J.")], ["10.5555/verge.2017.00012"], 2017, "Street lamps were switched on beside half of the verges.");

    private static DocumentFacts Facts(params string[] lines) => new() { Pages = 12, FirstLines = lines, LinesOnFirstPage = lines.Length, Words = 5_200 };

    private static readonly DocumentFacts Right = Facts("Journal of Verge Ecology 12 (3), 118–131", "Lit verges, idle flowers: street lighting", "cuts visits by moths", "M. Ouverleaux-Tann, J. Okwemba", "Received 3 May 2016 · Accepted 9 January 2017", "https://doi.org/10.5555/verge.2017.00012");

    [Fact]
    public void The_right_document_agrees_in_everything()
    {
        var check = DocumentCheck.Of(Right, Work);
        Assert.Equal(DocumentVerdict.Agrees, check.Verdict);
        Assert.Equal(1, check.TitleShare);
        Assert.Equal(WorkVersion.VersionOfRecord, check.Version);
        Assert.All(check.Lines, l => Assert.True(l.Agrees));
        Assert.Equal(["title", "people", "DOI", "year", "length"], check.Lines.Select(l => l.Name));
    }

    [Fact]
    public void Another_work_is_refused()
    {
        var check = DocumentCheck.Of(Facts("Sky brightness in rural districts", "P. Quist-Andersen", "10.5555/sky.1987.00003"), Work);
        Assert.Equal((DocumentVerdict.Refused, "It is another work: the title is not on its first pages."), (check.Verdict, check.Sentence));
    }

    [Fact]
    public void Its_own_title_with_another_doi_and_nobody_of_its_people_is_another_work() =>
        Assert.Equal(DocumentVerdict.Refused, DocumentCheck.Of(Facts("Lit verges, idle flowers: street lighting cuts visits by moths", "Comment by H. Tchakalov", "10.5555/comment.2018.1"), Work).Verdict);

    [Fact]
    public void Half_the_title_is_a_doubt()
    {
        // Six of ten words stand in order.
        var check = DocumentCheck.Of(Facts("Lit verges, idle flowers: street lighting, a first account", "M. Ouverleaux-Tann"), Work);
        Assert.Equal((DocumentVerdict.Doubtful, "The title agrees only in part (60 % of its words, in order)."), (check.Verdict, check.Sentence));
        Assert.False(check.Lines[0].Agrees);
        Assert.Equal("Lit verges, idle flowers: street lighting", check.Lines[0].Document);
    }

    [Theory]
    [InlineData("Lit verges, idle flowers: street lighting cuts visits by moths|Nobody we know", "The title agrees, but none of the people is named on its first pages.")]
    [InlineData("Lit verges, idle flowers: street lighting cuts visits by moths|J. Okwemba|10.5555/other.1", "The title agrees, but another DOI is printed on it.")]
    [InlineData("Something else altogether|10.5555/verge.2017.00012", "The DOI agrees, but the title is not on its first pages.")]
    public void What_agrees_in_part_is_for_a_person(string lines, string sentence)
    {
        var check = DocumentCheck.Of(Facts(lines.Split('|')), Work);
        Assert.Equal((DocumentVerdict.Doubtful, sentence), (check.Verdict, check.Sentence));
    }

    [Fact]
    public void A_text_no_longer_than_an_abstract_is_a_doubt() =>
        Assert.Equal("The title agrees, but the text is no longer than an abstract.", DocumentCheck.Of(Right with { Pages = 1, Words = 120 }, Work).Sentence);

    [Fact]
    public void Words_of_a_title_scattered_over_a_page_are_not_a_title()
    {
        // Every word is there, but never close together: the window is one and a half titles long.
        var far = string.Join(' ', Enumerable.Repeat("and so on with many other words in between them", 2));
        var text = string.Join($" {far} ", "Lit verges idle flowers street lighting cuts visits by moths".Split(' '));
        Assert.True(DocumentCheck.Of(Facts(text), Work).TitleShare < 0.3);
    }

    [Fact]
    public void A_work_without_people_or_doi_is_settled_by_its_title()
    {
        var bare = Work with { People = [], Dois = [] };
        Assert.Equal(DocumentVerdict.Agrees, DocumentCheck.Of(Facts("LIT VERGES, IDLE FLOWERS: STREET LIGHTING CUTS VISITS BY MOTHS"), bare).Verdict);
        Assert.Equal("The record has no title to hold it against.", DocumentCheck.Of(Right, bare with { Titles = [] }).Sentence);
    }

    [Fact]
    public void Accents_hyphens_and_ligatures_do_not_stand_between()
    {
        var work = Work with { Titles = ["Polinização noturna e luz-artificial em ﬂores"], People = [new("Nuñez", "A.")], Dois = [] };
        Assert.Equal(DocumentVerdict.Agrees, DocumentCheck.Of(Facts("Polinizacao noturna e luz artificial em flores", "A. Nunez"), work).Verdict);
    }

    [Fact]
    public void Any_title_printed_whole_is_found_wherever_it_stands() => Gen.Select(Gen.Int[0, 400].Array[2, 25], Gen.Int[0, 40].Array[0, 60], Gen.Int[0, 40].Array[0, 60]).Sample((title, before, after) =>
    {
        static string Named(int[] numbers, string letter) => string.Join(' ', numbers.Select(n => letter + n));
        Assert.Equal(1, DocumentCheck.Of(Facts(Named(before, "b"), Named(title, "t"), Named(after, "a")), Work with { Titles = [Named(title, "t")] }).TitleShare);
    }, iter: 200);

    [Theory]
    [InlineData("Harbour Repository|This is the accepted manuscript of a work that was later published.", false, WorkVersion.AcceptedManuscript)]
    [InlineData("PREPRINT — not peer reviewed", true, WorkVersion.SubmittedManuscript)]
    [InlineData("A title|by someone", true, WorkVersion.SubmittedManuscript)]
    [InlineData("Dusk Biology 44 (2) 1998, 17–30|A title", false, WorkVersion.VersionOfRecord)]
    [InlineData("A title|Received 1 May 2001; revised; accepted 4 June 2001", false, WorkVersion.VersionOfRecord)]
    [InlineData("A title|by someone", false, null)]
    public void Versions_are_known_by_what_is_printed(string lines, bool numbered, WorkVersion? version) => Assert.Equal(version, VersionSigns.Of(Facts(lines.Split('|')) with { LineNumbers = numbered }));
}
