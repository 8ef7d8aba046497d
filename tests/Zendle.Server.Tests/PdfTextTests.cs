extern alias outside;
using System.Text;
using outside::Zendle.Outside.Documents;
using outside::Zendle.Outside.World;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Fonts.Standard14Fonts;
using UglyToad.PdfPig.Writer;
using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Documents;
using Zendle.Documents.Pdf;

namespace Zendle.Server.Tests;

public sealed class PdfTextTests
{
    private static readonly Scenario Scenario = Scenario.Read(Path.Combine(Root.Folder, "demo"));
    private static readonly IReadOnlyList<Work> Works = WorldMaker.Make(Scenario, 5, 400);
    private static readonly Work Study = Works.Last(w =>
        w is { Type: "article", Language: "eng", Journal: not null, Doi: not null, PreprintDoi: not null }
    );

    private static byte[] Print(Look look) => PaperPrinter.Print(Paper.Of(Study, Works, Scenario, look));

    private static DocumentFault FaultOf(byte[] bytes, DocumentLimits? limits = null) =>
        Assert.Throws<DocumentFaultException>(() => PdfText.Read(bytes, limits ?? DocumentLimits.Usual)).Fault;

    private static ExpectedWork Expected(Work w) =>
        new(
            [w.Title],
            [.. w.People.Select(p => new PersonName(p.Family, p.Given))],
            [w.Doi!, w.PreprintDoi!],
            w.Year,
            w.Abstract
        );

    [Theory]
    [InlineData(Look.Typeset, WorkVersion.VersionOfRecord, false)]
    [InlineData(Look.Manuscript, WorkVersion.AcceptedManuscript, true)]
    [InlineData(Look.Preprint, WorkVersion.SubmittedManuscript, true)]
    public void A_printed_study_is_read_and_known_by_its_looks(Look look, WorkVersion version, bool numbered)
    {
        var facts = PdfText.Read(Print(look), DocumentLimits.Usual);
        Assert.Equal(numbered, facts.LineNumbers);
        Assert.True(facts.Pages >= 2);
        Assert.InRange(facts.WordCount, 700, 5_000);
        // Only the version of record thanks, names who paid and where the data lie.
        string[] thanks = look == Look.Typeset ? ["Acknowledgements and data"] : [];
        Assert.Equal(
            ["Introduction", "Methods", "Results", "Discussion", .. thanks, "References"],
            facts.Headings.Select(h => h.Text).Where(h => h != "Abstract")
        );
        Assert.True(facts.Headings.Zip(facts.Headings.Skip(1)).All(h => h.First.Page <= h.Second.Page));
        var check = DocumentCheck.Of(facts, Expected(Study));
        Assert.Equal((DocumentVerdict.Agrees, version), (check.Verdict, check.Version));
    }

    [Fact]
    public void The_numbers_of_a_list_of_contents_are_no_line_numbers()
    {
        var thesis = Works.First(w => w.Type == "thesis");
        var facts = PdfText.Read(
            PaperPrinter.Print(Paper.Of(thesis, Works, Scenario, Look.Typeset)),
            DocumentLimits.Usual
        );
        Assert.Contains(facts.Lines, l => l.Text.StartsWith("20 Chapter", StringComparison.Ordinal));
        Assert.False(facts.LineNumbers);
        Assert.Null(VersionSigns.Of(facts));
        Assert.Equal(DocumentVerdict.Agrees, DocumentCheck.Of(facts, Expected(thesis)).Verdict);
    }

    [Fact]
    public void Another_study_is_refused_and_an_earlier_title_doubted()
    {
        var other = Works.Last(w =>
            w.Type == "article" && w.Topic != Study.Topic && w.People.All(p => !Study.People.Contains(p))
        );
        Assert.Equal(
            DocumentVerdict.Refused,
            DocumentCheck
                .Of(
                    PdfText.Read(
                        PaperPrinter.Print(Paper.Of(other, Works, Scenario, Look.Typeset)),
                        DocumentLimits.Usual
                    ),
                    Expected(Study)
                )
                .Verdict
        );
        Assert.Equal(
            DocumentVerdict.Doubtful,
            DocumentCheck
                .Of(
                    PdfText.Read(
                        PaperPrinter.Print(Paper.Of(Study, Works, Scenario, Look.Manuscript, otherTitle: true)),
                        DocumentLimits.Usual
                    ),
                    Expected(Study)
                )
                .Verdict
        );
    }

    [Fact]
    public void A_preprint_lacks_the_last_season_and_counted_the_first_otherwise()
    {
        var (preprint, manuscript, record) = (
            CountTable.Of(Study, Look.Preprint).Rows,
            CountTable.Of(Study, Look.Manuscript).Rows,
            CountTable.Of(Study, Look.Typeset).Rows
        );
        Assert.Equal(record, manuscript);
        Assert.Equal(record.Select(r => r.Season).SkipLast(1), preprint.Select(r => r.Season));
        Assert.Equal((record[0].Without, true), (preprint[0].Without, preprint[0].With > record[0].With));
        Assert.Equal(record.Skip(1).SkipLast(1), preprint.Skip(1));
    }

    [Fact]
    public void A_password_for_the_owner_alone_keeps_nobody_from_reading()
    {
        Assert.StartsWith(
            "A line of text about moths under lamps, number 1.",
            PdfText.Read(LockedPdf.With("owner", ""), DocumentLimits.Usual).FirstLines.First(),
            StringComparison.Ordinal
        );
        Assert.Equal(DocumentFault.Encrypted, FaultOf(LockedPdf.With("owner", "reader")));
    }

    [Theory]
    [InlineData("\n\n\n")]
    [InlineData("<html><body>Served by a cache that adds this. 1 object was found.</body></html>")]
    public void What_stands_behind_the_end_is_no_damage(string behind)
    {
        byte[] whole =
        [
            .. Print(Look.Typeset),
            .. Encoding.ASCII.GetBytes(string.Concat(Enumerable.Repeat(behind, 4_000 / behind.Length + 1))),
        ];
        Assert.Equal(
            DocumentVerdict.Agrees,
            DocumentCheck.Of(PdfText.Read(whole, DocumentLimits.Usual), Expected(Study)).Verdict
        );
    }

    [Fact]
    public void A_file_cut_off_behind_an_earlier_end_is_damaged()
    {
        // As one that was changed and saved again: the mark of the first part is whole, the second part is not.
        byte[] cut = [.. Print(Look.Typeset), .. "9 0 obj\n<< /Type /Page"u8];
        Assert.Equal(DocumentFault.Damaged, FaultOf(cut));
    }

    public static TheoryData<string> Alike => [.. LookAlikes.Kinds];

    [Theory, MemberData(nameof(Alike))]
    public void What_only_carries_the_title_is_not_taken_for_the_work(string kind)
    {
        Work[] studies =
        [
            .. Works.Where(w => w.Type == (kind == "book-review" ? "book" : "article") && w.Title.Length > 20),
        ];
        for (var i = 0; i < 6; i++)
        {
            var work = studies[i * 5 % studies.Length];
            var check = DocumentCheck.Of(
                PdfText.Read(LookAlikes.Print(kind, work, Works, Scenario, i), DocumentLimits.Usual),
                Expected(work) with
                {
                    Dois = [.. new[] { work.Doi }.OfType<string>()],
                    Type = DocumentTypes.Read(work.Type),
                }
            );
            Assert.True(check.Verdict != DocumentVerdict.Agrees, $"{kind} {i}: {work.Title}");
        }
    }

    [Fact]
    public void The_same_study_is_the_same_bytes() => Assert.Equal(Print(Look.Typeset), Print(Look.Typeset));

    [Fact]
    public void A_file_that_is_no_readable_pdf_says_why()
    {
        var whole = Print(Look.Typeset);
        Assert.Equal(DocumentFault.Empty, FaultOf([]));
        Assert.Equal(DocumentFault.NotADocument, FaultOf(Encoding.UTF8.GetBytes("<html>Sign in</html>")));
        Assert.Equal(DocumentFault.Damaged, FaultOf(whole[..(whole.Length / 2)]));
        Assert.Equal(DocumentFault.Damaged, FaultOf([.. "%PDF-1.4\n"u8, .. new byte[5_000], .. "%%EOF"u8]));
        Assert.Equal(DocumentFault.Encrypted, FaultOf(OddFiles.Encrypted()));
        Assert.Equal(DocumentFault.Scripted, FaultOf(OddFiles.Scripted()));
        Assert.Equal(DocumentFault.NoLetters, FaultOf(OddFiles.Scanned()));
        Assert.Equal(DocumentFault.TooManyPages, FaultOf(OddFiles.Pages(30), new(20, TimeSpan.FromSeconds(30))));
        Assert.Equal(DocumentFault.TooSlow, FaultOf(whole, new(2_000, TimeSpan.Zero)));
    }

    [Theory]
    [InlineData(1)]
    [InlineData(9)]
    [InlineData(30)]
    public void The_pages_of_a_document_of_any_length_come_in_their_order(int pages)
    {
        var facts = PdfText.Read(Lettered(pages), DocumentLimits.Usual);
        Assert.Equal(
            Enumerable.Range(1, pages).Select(n => (n, LineOf(n))),
            facts.Text.Select(t => (t.Page, t.Text.Trim()))
        );
        Assert.Equal((pages, pages * 9), (facts.Pages, facts.WordCount));
    }

    [Theory]
    [InlineData(1)]
    [InlineData(4)]
    [InlineData(8)]
    public void One_page_with_too_many_letters_refuses_the_whole(int crowded)
    {
        var limits = DocumentLimits.Usual with { LettersOnPage = 65 };
        Assert.Equal(8, PdfText.Read(Lettered(8), limits).Pages);
        Assert.Equal(DocumentFault.TooHeavy, FaultOf(Lettered(8, crowded), limits));
    }

    /// <summary>Nine words, other ones on each page: what stands on many pages alike is their head.</summary>
    private static string LineOf(int page) =>
        string.Join(
            ' ',
            Enumerable.Range(1, 9).Select(w => new string((char)('a' + (page % 26)), (w / 3) + 4 + (page / 26)))
        );

    /// <summary>A page for each number, one of them with more words than the others.</summary>
    private static byte[] Lettered(int pages, int crowded = 0)
    {
        using var builder = new PdfDocumentBuilder();
        var font = builder.AddStandard14Font(Standard14Font.Helvetica);
        for (var n = 1; n <= pages; n++)
            builder
                .AddPage(PageSize.A4)
                .AddText(LineOf(n) + (n == crowded ? " and on no other one" : ""), 11, new PdfPoint(60, 700), font);
        return builder.Build();
    }

    [Fact]
    public void Bytes_changed_at_random_never_break_the_reader()
    {
        var whole = Print(Look.Preprint);
        var random = new Random(7);
        for (var round = 0; round < 12; round++)
        {
            var bytes = (byte[])whole.Clone();
            for (var i = 0; i < 200; i++)
                bytes[random.Next(bytes.Length)] = (byte)random.Next(256);
            try
            {
                Assert.True(PdfText.Read(bytes, DocumentLimits.Usual).Pages > 0);
            }
            catch (DocumentFaultException) { }
        }
    }
}
