extern alias outside;
using System.Text.RegularExpressions;
using outside::Zendle.Outside.Documents;
using outside::Zendle.Outside.World;
using Zendle.Documents;
using Zendle.Documents.Pdf;

namespace Zendle.Server.Tests;

/// <summary>The texts of the outside follow their works: kinds of document, kinds of study, versions.</summary>
public sealed class PaperTests
{
    private static readonly Scenario Scenario = Scenario.Read(Path.Combine(Root.Folder, "demo"));
    private static readonly IReadOnlyList<Work> Works = WorldMaker.Make(Scenario, 6, 1_500);

    private static Work First(string type) => Works.First(w => w.Type == type && w.Abstract.Length > 0);

    private static Paper Paper(Work w, Look look = Look.Typeset) =>
        outside::Zendle.Outside.Documents.Paper.Of(w, Works, Scenario, look);

    [Theory]
    [InlineData("thesis")]
    [InlineData("book")]
    [InlineData("report")]
    public void What_stands_alone_has_a_front_page_with_its_contents(string type)
    {
        var paper = Paper(First(type));
        Assert.True(paper.HasTitlePage);
        var facts = PdfText.Read(PaperPrinter.Print(paper), DocumentLimits.Usual);
        var front = string.Join('\n', facts.FirstLines);
        Assert.Contains("Contents", front, StringComparison.Ordinal);
        Assert.Contains("1 Introduction", front.Replace("  ", " ", StringComparison.Ordinal), StringComparison.Ordinal);
        Assert.DoesNotContain("Received", front, StringComparison.Ordinal);
        Assert.True(facts.Pages >= 3);
    }

    [Fact]
    public void An_article_begins_with_its_title_and_a_chapter_names_its_book()
    {
        Assert.False(Paper(First("article")).HasTitlePage);
        var chapter = Works.First(w => w.Type == "chapter" && w.Book is not null);
        var head = string.Join('\n', PdfText.Read(PaperPrinter.Print(Paper(chapter)), DocumentLimits.Usual).FirstLines);
        Assert.Contains("In: " + chapter.Book!.Title.Split(' ')[0], head, StringComparison.Ordinal);
    }

    [Fact]
    public void The_sentence_of_counts_is_what_the_table_adds_up_to()
    {
        var counted = 0;
        foreach (var w in Works.Where(w => w.Type == "article").Take(200))
        {
            var table = Paper(w).Counts;
            var (without, with) = (table.Rows.Sum(r => r.Without), table.Rows.Sum(r => r.With));
            var sentence = table.Sentence(w.Study, Look.Typeset);
            Assert.Contains($" {without} ", sentence, StringComparison.Ordinal);
            Assert.Contains($" and {with} ", sentence, StringComparison.Ordinal);
            // The counts come to the very effect that title and abstract tell.
            Assert.Equal(w.Study.Direction * w.Study.Effect, 100.0 * (with - without) / without, 9);
            Assert.EndsWith(
                w.Study.Effect == 0 ? ": no difference."
                    : w.Study.Direction < 0 ? $": {w.Study.Effect} % fewer."
                    : $": {w.Study.Effect} % more.",
                sentence,
                StringComparison.Ordinal
            );
            if (w.Study is { Direction: < 0, Effect: > 15 })
            {
                counted++;
                Assert.True(with < without, "a study that found a loss counts fewer");
            }
        }
        Assert.True(counted > 10);
    }

    [Fact]
    public void Two_works_on_one_study_report_the_same_counts()
    {
        var pair =
            Works
                .Where(w => w.Type is "article" or "conference paper")
                .GroupBy(w => w.Study.Id)
                .FirstOrDefault(g => g.Select(w => w.Year).Distinct().Count() == 1 && g.Count() > 1)
            ?? Works.GroupBy(w => w.Study.Id).First(g => g.Count() > 1);
        var counts = pair.Select(w => Paper(w).Counts.Rows.Select(r => (r.Without, r.With)).ToArray()).ToArray();
        Assert.All(counts, c => Assert.Equal(counts[0], c));
    }

    [Fact]
    public void Only_the_version_of_record_has_dates_thanks_and_who_paid()
    {
        var w = Works.First(w => w.Type == "article" && w.Funder is not null && w.PreprintDoi is not null);
        string Last(Look look) => Paper(w, look).Sections[^1].Heading;
        Assert.Equal(
            ("Acknowledgements and data", "Discussion", "Discussion"),
            (Last(Look.Typeset), Last(Look.Manuscript), Last(Look.Preprint))
        );
        Assert.Contains(w.Funder!, Paper(w).Sections[^1].Paragraphs[0], StringComparison.Ordinal);
        Assert.Contains(
            Paper(w, Look.Preprint).Sections.Single(s => s.Heading == "Methods").Paragraphs,
            p => p.Contains("last season had not been counted", StringComparison.Ordinal)
        );
        Assert.Equal((w.PreprintDoi, w.Doi), (Paper(w, Look.Preprint).Doi, Paper(w, Look.Manuscript).Doi));
    }

    [Fact]
    public void No_slot_is_left_open_in_any_text_of_any_kind_of_study()
    {
        foreach (var w in Works.GroupBy(w => (w.Topic.Kind, w.Topic.Core, w.Type)).Select(g => g.First()))
        {
            var text = string.Join(
                ' ',
                Paper(w).Sections.SelectMany(s => s.Paragraphs).Append(w.Title).Append(w.Abstract)
            );
            Assert.DoesNotContain("{", text, StringComparison.Ordinal);
            Assert.DoesNotContain("|", text, StringComparison.Ordinal);
            Assert.DoesNotMatch(@"[<>]\d{4} ", text);
            Assert.DoesNotContain("  ", text, StringComparison.Ordinal);
        }
    }

    [Fact]
    public void Sentences_begin_with_capitals_and_end_with_a_stop()
    {
        Assert.All(
            Works.Where(w => w.Abstract.Length > 0),
            w =>
            {
                Assert.True(char.IsUpper(w.Abstract[0]) || char.IsDigit(w.Abstract[0]), w.Abstract);
                Assert.Contains(w.Abstract[^1], ".?");
            }
        );
    }

    [Fact]
    public void A_paper_has_as_many_pages_as_its_record_says()
    {
        foreach (
            var w in Works
                .Where(w => !(Paper(w).HasTitlePage) && w.Venue is not null)
                .GroupBy(w => w.Type)
                .SelectMany(g => g.OrderBy(w => w.Id * 7919 % 1_009).Take(4))
        )
            Assert.Equal(
                (w.Type, w.Id, w.LastPage - w.FirstPage + 1),
                (w.Type, w.Id, PdfText.Read(PaperPrinter.Print(Paper(w)), DocumentLimits.Usual).Pages)
            );
    }

    [Fact]
    public void Results_are_told_in_other_words_than_the_abstract_with_the_same_figures()
    {
        foreach (var w in Works.Where(w => w.Abstract.Length > 0).Where((_, i) => i % 5 == 0))
        {
            var text = Paper(w)
                .Sections.Where(s => s.Heading is "Introduction" or "Methods" or "Results" or "Discussion");
            foreach (var paragraph in text.SelectMany(s => s.Paragraphs).Skip(0))
            {
                foreach (var sentence in w.Abstract.Split(". "))
                    Assert.DoesNotContain(sentence, paragraph, StringComparison.Ordinal);
                if (!paragraph.StartsWith("Over ", StringComparison.Ordinal))
                    Assert.Null(
                        WorldLint.Strange(
                            w.Study,
                            // The years of works that are cited are no figures of this one.
                            Regex
                                .Replace(paragraph, @" \([^()]*\d{4}\)", "")
                                .Replace("Table 1", "", StringComparison.Ordinal)
                                .Replace("Figure 1", "", StringComparison.Ordinal)
                        )
                    );
            }
        }
    }
}
