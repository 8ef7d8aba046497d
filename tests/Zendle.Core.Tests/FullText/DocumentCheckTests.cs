using CsCheck;
using Zendle.Core.FullText;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.FullText;

public sealed class DocumentCheckTests
{
    private static readonly ExpectedWork Work = new(
        ["Lit verges, idle flowers: street lighting cuts visits by moths"],
        [new("Ouverleaux-Tann", "Mei"), new("Okwemba", "J.")],
        ["10.5555/verge.2017.00012"],
        2017,
        "Street lamps were switched on beside half of the verges."
    );

    private static DocumentFacts Facts(params string[] lines) =>
        new()
        {
            Pages = 12,
            Lines = [.. lines.Select(l => new DocumentLine(l, 1, 10, false))],
            BodySize = 10,
            WordCount = 5_200,
        };

    private static readonly DocumentFacts Right = Facts(
        "Journal of Verge Ecology 12 (3), 118–131",
        "Lit verges, idle flowers: street lighting",
        "cuts visits by moths",
        "M. Ouverleaux-Tann, J. Okwemba",
        "Received 3 May 2016 · Accepted 9 January 2017",
        "https://doi.org/10.5555/verge.2017.00012"
    );

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

    [Theory]
    [InlineData("Lit verges, idle flovers: street lighing cuts visits by moths", DocumentVerdict.Agrees)]
    [InlineData("Lit verges, idle flowers: streeet lightning cuts visits by moths", DocumentVerdict.Agrees)]
    [InlineData("Lit verges, idle sparrows: street heating cuts visits by moths", DocumentVerdict.Doubtful)]
    [InlineData("Lit verges, idle flowers: cuts by moths in the street", DocumentVerdict.Doubtful)]
    public void Slips_in_the_title_of_a_record_are_no_other_words(string title, DocumentVerdict verdict) =>
        Assert.Equal(verdict, DocumentCheck.Of(Right, Work with { Titles = [title] }).Verdict);

    [Fact]
    public void Another_work_is_refused()
    {
        var check = DocumentCheck.Of(
            Facts("Sky brightness in rural districts", "P. Quist-Andersen", "10.5555/sky.1987.00003"),
            Work
        );
        Assert.Equal(
            (DocumentVerdict.Refused, "It is another work: the title is not on its first pages."),
            (check.Verdict, check.Sentence)
        );
    }

    [Fact]
    public void Its_own_title_with_another_doi_and_nobody_of_its_people_is_another_work() =>
        Assert.Equal(
            DocumentVerdict.Refused,
            DocumentCheck
                .Of(
                    Facts(
                        "Lit verges, idle flowers: street lighting cuts visits by moths",
                        "Comment by H. Tchakalov",
                        "10.5555/comment.2018.1"
                    ),
                    Work
                )
                .Verdict
        );

    [Fact]
    public void Half_the_title_with_another_doi_and_nobody_of_its_people_is_another_work() =>
        Assert.Equal(
            (
                DocumentVerdict.Refused,
                "It is another work: the title agrees only in part (60 % of its words, in order), it prints another DOI "
                    + "and names none of the people."
            ),
            DocumentCheck.Of(
                Facts(
                    "Lit verges, idle flowers: street lighting, a first account",
                    "H. Tchakalov",
                    "10.5555/account.2018.1"
                ),
                Work
            )
                is var check
                ? (check.Verdict, check.Sentence)
                : default
        );

    [Fact]
    public void Half_the_title_is_a_doubt()
    {
        // Six of ten words stand in order.
        var check = DocumentCheck.Of(
            Facts("Lit verges, idle flowers: street lighting, a first account", "M. Ouverleaux-Tann"),
            Work
        );
        Assert.Equal(
            (DocumentVerdict.Doubtful, "The title agrees only in part (60 % of its words, in order)."),
            (check.Verdict, check.Sentence)
        );
        Assert.False(check.Lines[0].Agrees);
        Assert.Equal("Lit verges, idle flowers: street lighting, a first account", check.Lines[0].Document);
    }

    [Theory]
    [InlineData(
        "Lit verges, idle flowers: street lighting cuts visits by moths|Nobody we know",
        "The title agrees, but none of the people is named near it."
    )]
    [InlineData(
        "Lit verges, idle flowers: street lighting cuts visits by moths|J. Okwemba|10.5555/other.1",
        "The title agrees, but another DOI is printed on it."
    )]
    [InlineData(
        "Something else altogether|10.5555/verge.2017.00012",
        "The DOI agrees, but the title is not on its first pages."
    )]
    public void What_agrees_in_part_is_for_a_person(string lines, string sentence)
    {
        var check = DocumentCheck.Of(Facts(lines.Split('|')), Work);
        Assert.Equal((DocumentVerdict.Doubtful, sentence), (check.Verdict, check.Sentence));
    }

    /// <summary>Lines with their looks: "#" before a line is 16 points and bold, "+" is bold.</summary>
    private static DocumentFacts Set(int pages, params string[] lines) =>
        new()
        {
            Pages = pages,
            BodySize = 10,
            WordCount = 900,
            Lines =
            [
                .. lines.Select(l =>
                    l[0] switch
                    {
                        '#' => new DocumentLine(l[1..], 1, 16, true),
                        '+' => new DocumentLine(l[1..], 1, 10, true),
                        _ => new DocumentLine(l, 1, 10, false),
                    }
                ),
            ],
        };

    private const string T = "Lit verges, idle flowers: street lighting cuts visits by moths";
    private const string By = "M. Ouverleaux-Tann, J. Okwemba";

    [Theory]
    [InlineData(
        "#A doubt about lamps|H. Tchakalov|In their article “Lit verges, idle flowers: street lighting cuts "
            + "visits by moths”, Ouverleaux-Tann and|Okwemba report a finding that deserves a second look",
        "words stand before it in its line"
    )]
    [InlineData(
        "#A doubt about lamps|H. Tchakalov|Some text that goes on and on until the line is at its very end and|"
            + "Lit verges, idle flowers: street lighting cuts visits by moths|M. Ouverleaux-Tann",
        "it stands in running text"
    )]
    [InlineData(
        "#A doubt about lamps|H. Tchakalov|References|Lit verges, idle flowers: street lighting cuts visits by moths|M. Ouverleaux-Tann",
        "it stands in a list of references"
    )]
    [InlineData(
        "#A doubt about lamps|H. Tchakalov|one|two|three|four|five|six|seven|eight|nine|Lit verges, idle "
            + "flowers: street lighting cuts visits by moths|M. Ouverleaux-Tann",
        "it does not stand at the head of a page"
    )]
    [InlineData(
        "#Contents|Lit verges, idle flowers: street lighting cuts visits by moths|M. Ouverleaux-Tann|The count of bees in towns|K. Moe",
        "it stands in a list of contents"
    )]
    [InlineData(
        "Small Wings 12|Lit verges, idle flowers: street lighting cuts visits by moths .... 118|M. "
            + "Ouverleaux-Tann|The count of bees in towns .... 124|K. Moe|Lamps of the harbour .... 131|A. B. Vik|"
            + "Sleep of swifts .... 140",
        "it stands in a list of contents"
    )]
    [InlineData(
        "#Lit verges, idle flowers: street lighting cuts visits by moths|M. Ouverleaux-Tann|#The count of all "
            + "the bees in towns|K. Moe|#Lamps of the harbour and their moths|A. B. Vik|#Sleep of swifts over the lit "
            + "bay|C. Ek",
        "it is one of several titles on the page"
    )]
    public void A_title_that_is_only_named_is_no_title(string lines, string why)
    {
        var check = DocumentCheck.Of(Set(2, lines.Split('|')), Work);
        Assert.Equal(
            (DocumentVerdict.Doubtful, $"It names the work, but not as its own title: {why}."),
            (check.Verdict, check.Sentence)
        );
        Assert.False(check.Lines[0].Agrees);
    }

    [Theory]
    [InlineData(
        "#Reply to Okwemba et al.|#Lit verges, idle flowers: street lighting cuts visits by moths|J. Okwemba, M. Ouverleaux-Tann",
        "Reply to Okwemba et al."
    )]
    [InlineData(
        "ERRATUM|#Lit verges, idle flowers: street lighting cuts visits by moths|J. Okwemba, M. Ouverleaux-Tann",
        "ERRATUM"
    )]
    [InlineData(
        "Supporting Information for|#Lit verges, idle flowers: street lighting cuts visits by moths|J. Okwemba, M. Ouverleaux-Tann",
        "Supporting Information for"
    )]
    [InlineData(
        "Correspondence|#Lit verges, idle flowers: street lighting cuts visits by moths|J. Okwemba, M. Ouverleaux-Tann",
        "Correspondence"
    )]
    [InlineData(
        "#Lit verges, idle flowers: street lighting cuts visits by moths|By M. Ouverleaux-Tann and J. Okwemba|Fjord, Vik, 2017. 320 pp.",
        "Fjord, Vik, 2017. 320 pp."
    )]
    public void What_says_that_it_is_about_the_work_is_for_a_person(string lines, string sign)
    {
        var check = DocumentCheck.Of(Set(2, lines.Split('|')), Work);
        Assert.Equal(
            (DocumentVerdict.Doubtful, $"It has the title, but says that it is about the work: “{sign}”."),
            (check.Verdict, check.Sentence)
        );
    }

    [Theory]
    [InlineData(
        "Erratum: the counts of lit verges",
        DocumentType.Correction,
        "ERRATUM|#Erratum: the counts of lit verges|J. Okwemba, M. Ouverleaux-Tann"
    )]
    [InlineData(
        "On the counts of lit verges",
        DocumentType.Correction,
        "Correction|#On the counts of lit verges|J. Okwemba, M. Ouverleaux-Tann"
    )]
    [InlineData(
        "On the counts of lit verges",
        DocumentType.Letter,
        "Letters to the Editor|#On the counts of lit verges|J. Okwemba, M. Ouverleaux-Tann"
    )]
    [InlineData(
        "Reply to critics of lit verges",
        DocumentType.Article,
        "#Reply to critics of lit verges|J. Okwemba, M. Ouverleaux-Tann"
    )]
    public void A_work_may_be_what_it_says(string title, DocumentType type, string lines) =>
        Assert.Equal(
            DocumentVerdict.Agrees,
            DocumentCheck.Of(Set(2, lines.Split('|')), Work with { Titles = [title], Type = type }).Verdict
        );

    [Theory]
    [InlineData(
        "Small Wings 12 (3), 118–131|Research article|#Lit verges, idle flowers: street|#lighting cuts visits by "
            + "moths|M. Ouverleaux-Tann, J. Okwemba"
    )] // as publishers set it
    [InlineData("#Lit verges, idle flowers: street light-|#ing cuts visits by moths|M. Ouverleaux-Tann, J. Okwemba")] // divided
    // a manuscript in one size
    [InlineData("+Lit verges, idle flowers: street lighting cuts visits by moths|J. Okwemba|M. Ouverleaux-Tann")]
    [InlineData(
        "Article|Lit verges, idle flowers: street lighting cuts visits by moths|M. Ouverleaux-Tann and J. Okwemba|Abstract"
    )] // all plain
    [InlineData("M. Ouverleaux-Tann, J. Okwemba|#LIT VERGES, IDLE FLOWERS: STREET LIGHTING CUTS VISITS BY MOTHS")] // people above
    public void A_title_that_stands_as_one_is_known_however_it_is_set(string lines) =>
        Assert.Equal("All checks agree.", DocumentCheck.Of(Set(12, lines.Split('|')), Work).Sentence);

    [Fact]
    public void Behind_a_cover_page_it_is_found() =>
        Assert.Equal(
            DocumentVerdict.Agrees,
            DocumentCheck
                .Of(
                    new()
                    {
                        Pages = 9,
                        BodySize = 10,
                        WordCount = 4_000,
                        Lines =
                        [
                            .. Enumerable
                                .Range(0, 12)
                                .Select(i => new DocumentLine(
                                    $"This sheet tells how number {i} may be used",
                                    1,
                                    10,
                                    false
                                )),
                            new(T, 2, 10, true),
                            new(By, 2, 10, false),
                        ],
                    },
                    Work
                )
                .Verdict
        );

    [Fact]
    public void Without_a_doi_of_its_own_the_bar_is_higher()
    {
        var many = Work with { People = [.. Work.People, new("Moe", "K."), new("Vik", "A.")] };
        Assert.Equal(
            "The title agrees, but only one of the people is named near it, and it prints no DOI of its own.",
            DocumentCheck.Of(Set(12, "#" + T, "J. Okwemba"), many).Sentence
        );
        Assert.Equal(
            DocumentVerdict.Agrees,
            DocumentCheck.Of(Set(12, "#" + T, "J. Okwemba", "https://doi.org/10.5555/verge.2017.00012"), many).Verdict
        );
        Assert.Equal(
            "The title agrees, but it is not set apart on a page or two without a DOI, as in a list or a note.",
            DocumentCheck.Of(Set(2, T, By), Work).Sentence
        );
    }

    [Fact]
    public void Slides_are_for_a_person() =>
        Assert.Contains(
            "like slides",
            DocumentCheck.Of(Set(20, "#" + T, By) with { IsLandscape = true }, Work).Sentence,
            StringComparison.Ordinal
        );

    [Fact]
    public void A_text_no_longer_than_an_abstract_is_a_doubt() =>
        Assert.Equal(
            "The title agrees, but the text is no longer than an abstract.",
            DocumentCheck.Of(Right with { Pages = 1, WordCount = 120 }, Work).Sentence
        );

    [Theory]
    [InlineData(TextFormat.Html, 290, DocumentVerdict.Doubtful)]
    [InlineData(TextFormat.Html, 310, DocumentVerdict.Agrees)]
    [InlineData(TextFormat.Jats, 160, DocumentVerdict.Agrees)]
    public void A_page_about_a_work_whose_abstract_nobody_knows_is_not_its_text(
        TextFormat format,
        int words,
        DocumentVerdict verdict
    ) =>
        Assert.Equal(
            verdict,
            DocumentCheck
                .Of(Right with { Pages = 1, WordCount = words, Format = format }, Work with { Abstract = "" })
                .Verdict
        );

    [Theory]
    [InlineData(DocumentType.Correction, TextFormat.Pdf, 70, DocumentVerdict.Agrees)]
    [InlineData(DocumentType.RetractionNotice, TextFormat.Jats, 70, DocumentVerdict.Agrees)]
    [InlineData(DocumentType.Editorial, TextFormat.Epub, 70, DocumentVerdict.Agrees)]
    [InlineData(DocumentType.Letter, TextFormat.Pdf, 50, DocumentVerdict.Doubtful)]
    [InlineData(DocumentType.Correction, TextFormat.Html, 70, DocumentVerdict.Doubtful)]
    [InlineData(DocumentType.Correction, TextFormat.Html, 130, DocumentVerdict.Agrees)]
    [InlineData(DocumentType.Article, TextFormat.Pdf, 70, DocumentVerdict.Doubtful)]
    public void A_note_may_be_as_short_as_its_abstract_unless_a_page_about_it_is(
        DocumentType type,
        TextFormat format,
        int words,
        DocumentVerdict verdict
    )
    {
        var abstractOf60 = string.Join(' ', Enumerable.Repeat("columns", 60));
        Assert.Equal(
            verdict,
            DocumentCheck
                .Of(
                    Right with
                    {
                        Pages = 1,
                        WordCount = words,
                        Format = format,
                    },
                    Work with
                    {
                        Type = type,
                        Abstract = abstractOf60,
                    }
                )
                .Verdict
        );
    }

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
        Assert.Equal(
            DocumentVerdict.Agrees,
            DocumentCheck.Of(Facts("LIT VERGES, IDLE FLOWERS: STREET LIGHTING CUTS VISITS BY MOTHS"), bare).Verdict
        );
        Assert.Equal(
            "The record has no title to compare it with.",
            DocumentCheck.Of(Right, bare with { Titles = [] }).Sentence
        );
    }

    [Fact]
    public void Accents_hyphens_and_ligatures_do_not_stand_between()
    {
        var work = Work with
        {
            Titles = ["Polinização noturna e luz-artificial em ﬂores"],
            People = [new("Nuñez", "A.")],
            Dois = [],
        };
        Assert.Equal(
            DocumentVerdict.Agrees,
            DocumentCheck.Of(Facts("Polinizacao noturna e luz artificial em flores", "A. Nunez"), work).Verdict
        );
    }

    [Fact]
    public void Any_title_printed_whole_is_found_wherever_it_stands() =>
        Gen.Select(Gen.Int[0, 400].Array[2, 25], Gen.Int[0, 40].Array[0, 60], Gen.Int[0, 40].Array[0, 60])
            .Sample(
                (title, before, after) =>
                {
                    static string Named(int[] numbers, string letter) =>
                        string.Join(' ', numbers.Select(n => letter + n));
                    Assert.Equal(
                        1,
                        DocumentCheck
                            .Of(
                                Facts(Named(before, "b"), Named(title, "t"), Named(after, "a")),
                                Work with
                                {
                                    Titles = [Named(title, "t")],
                                }
                            )
                            .TitleShare
                    );
                },
                iter: 200
            );

    [Theory]
    [InlineData(
        "Harbour Repository|This is the accepted manuscript of a work that was later published.",
        false,
        WorkVersion.AcceptedManuscript
    )]
    [InlineData("PREPRINT — not peer reviewed", true, WorkVersion.SubmittedManuscript)]
    [InlineData("A title|by someone", true, WorkVersion.SubmittedManuscript)]
    [InlineData("Dusk Biology 44 (2) 1998, 17–30|A title", false, WorkVersion.VersionOfRecord)]
    [InlineData("A title|Received 1 May 2001; revised; accepted 4 June 2001", false, WorkVersion.VersionOfRecord)]
    [InlineData("A title|by someone", false, null)]
    public void Versions_are_known_by_what_is_printed(string lines, bool numbered, WorkVersion? version) =>
        Assert.Equal(version, VersionSigns.Of(Facts(lines.Split('|')) with { LineNumbers = numbered }));
}
