using Zendle.Documents;
using Zendle.Documents.Pdf;
using Zendle.Documents.Reading;

namespace Zendle.Server.Tests;

/// <summary>
/// Documents from outside are read in processes of their own: none ends Zendle or takes its memory, whatever it is made
/// of.
/// </summary>
public sealed class HostileDocumentTests
{
    private static DocumentReader Reader(double seconds = 20, long heapMegabytes = 160) =>
        new(
            Path.Combine(AppContext.BaseDirectory, "Zendle.Reader.dll"),
            DocumentLimits.Usual with
            {
                Time = TimeSpan.FromSeconds(seconds),
                Heap = heapMegabytes << 20,
                Memory = (heapMegabytes + 300) << 20,
                Grace = TimeSpan.FromSeconds(2),
            },
            atOnce: 2
        );

    private static async Task<DocumentFault?> FaultOf(DocumentReader reader, byte[] bytes)
    {
        try
        {
            await reader.Read(bytes, TestContext.Current.CancellationToken);
            return null;
        }
        catch (DocumentFaultException e)
        {
            Assert.EndsWith(".", e.Message, StringComparison.Ordinal);
            return e.Fault;
        }
    }

    [Fact]
    public async Task An_honest_document_is_read_as_in_this_process()
    {
        using var reader = Reader();
        var (there, here) = (
            await reader.Read(HostilePdfs.Honest(), TestContext.Current.CancellationToken),
            PdfText.Read(HostilePdfs.Honest(), DocumentLimits.Usual)
        );
        Assert.Equal(here.FirstLines, there.FirstLines);
        Assert.Equal((here.Pages, here.WordCount), (there.Pages, there.WordCount));
        Assert.StartsWith("A line of text about moths", there.FirstLines.First(), StringComparison.Ordinal);
    }

    public static TheoryData<string> Ending => ["tree", "trees", "pair", "chain", "widths", "text", "bomb", "nested"];

    private static byte[] Made(string kind) =>
        kind switch
        {
            "tree" => HostilePdfs.TreeInItself(),
            "trees" => HostilePdfs.TreesInEachOther(),
            "pair" => HostilePdfs.FormsThatCallEachOther(),
            "chain" => HostilePdfs.ChainOfForms(5_000),
            "widths" => HostilePdfs.WidthsWithoutEnd(),
            "text" => HostilePdfs.TextWithoutEnd(20),
            "bomb" => HostilePdfs.Bomb(2L << 30),
            _ => HostilePdfs.ChainOfForms(24, each: 6),
        };

    [Theory, MemberData(nameof(Ending))]
    public async Task What_ends_or_exhausts_a_reader_is_a_fault_with_a_reason_and_the_next_document_is_read(string kind)
    {
        using var reader = Reader(seconds: 3);
        var before = Environment.WorkingSet;
        var watch = System.Diagnostics.Stopwatch.StartNew();
        // Some engines cope with some of these; what matters is that there is an answer, soon, and no more memory taken
        // here than the file has bytes.
        var fault = await FaultOf(reader, Made(kind));
        TestContext.Current.TestOutputHelper?.WriteLine($"{kind}: {fault} after {watch.Elapsed}");
        Assert.True(
            fault
                is null
                    or DocumentFault.TooHeavy
                    or DocumentFault.TooSlow
                    or DocumentFault.Unreadable
                    or DocumentFault.Damaged
                    or DocumentFault.NoLetters,
            $"{kind}: {fault}"
        );
        Assert.True(watch.Elapsed < TimeSpan.FromSeconds(60), $"{kind} took {watch.Elapsed}");
        // Other tests run in this process too, so the bound is wide; what the bomb unfolds to is wider.
        Assert.True(
            Environment.WorkingSet - before < 1_600L << 20,
            $"{kind} took {(Environment.WorkingSet - before) >> 20} MB here"
        );
        Assert.Null(await FaultOf(reader, HostilePdfs.Honest()));
    }

    [Fact]
    public async Task What_is_too_slow_and_what_is_too_heavy_are_told_apart()
    {
        using (var hasty = Reader(seconds: 3))
            Assert.Equal(DocumentFault.TooSlow, await FaultOf(hasty, HostilePdfs.ChainOfForms(24, each: 6)));
        using var reader = Reader(seconds: 120); // what is heavy must not be slow first, however busy the machine is
        Assert.Equal(DocumentFault.TooHeavy, await FaultOf(reader, HostilePdfs.TextWithoutEnd(20)));
        // Deeper than a stack is, also where its frames are small because the reader is compiled ahead.
        Assert.Equal(DocumentFault.Unreadable, await FaultOf(reader, HostilePdfs.ChainOfForms(60_000)));
    }

    [Theory]
    [InlineData("/OpenAction << /S /JavaScript /JS (app.alert\\(1\\)) >>", "")]
    [InlineData("/AA << /WC << /S /JavaScript /JS (x) >> >>", "")]
    [InlineData("/OpenAction << /S /GoTo /D [3 0 R /Fit] /Next << /S /JavaScript /JS (x) >> >>", "")]
    [InlineData(
        "/OpenAction << /S /GoTo /D [3 0 R /Fit] /Next [<< /S /GoTo /D [3 0 R /Fit] >> << /S /Launch /F (calc) >>] >>",
        ""
    )]
    [InlineData("/Names << /JavaScript << /Names [(a) << /S /JavaScript /JS (x) >>] >> >>", "")]
    [InlineData("", "/AA << /O << /S /JavaScript /JS (x) >> >>")]
    [InlineData("", "/Annots [<< /Type /Annot /Subtype /Link /Rect [0 0 1 1] /A << /S /Launch /F (calc) >> >>]")]
    [InlineData(
        "",
        "/Annots [<< /Type /Annot /Subtype /Widget /Rect [0 0 1 1] /AA << /E << /S /JavaScript /JS (x) >> >> >>]"
    )]
    [InlineData("/OpenAction 6 0 R", "")]
    public void Whatever_would_run_by_itself_counts_as_a_script(string inCatalog, string onPage)
    {
        var bytes = HostilePdfs.Honest(
            inCatalog,
            onPage,
            inCatalog.Contains("6 0 R", StringComparison.Ordinal)
                ? [("<< /S 7 0 R /JS (x) >>", null), ("/JavaScript", null)]
                : []
        );
        Assert.Equal(
            DocumentFault.Scripted,
            Assert.Throws<DocumentFaultException>(() => PdfText.Read(bytes, DocumentLimits.Usual)).Fault
        );
    }

    [Theory]
    [InlineData("/OpenAction << /S /GoTo /D [3 0 R /Fit] >>", "")]
    [InlineData(
        "",
        "/Annots [<< /Type /Annot /Subtype /Link /Rect [0 0 1 1] /A << /S /URI /URI (https://doi.example/10.5555/x) >> >>]"
    )]
    public void Links_and_first_pages_are_no_scripts(string inCatalog, string onPage) =>
        Assert.Equal(1, PdfText.Read(HostilePdfs.Honest(inCatalog, onPage), DocumentLimits.Usual).Pages);

    [Fact]
    public async Task Someone_who_goes_away_is_not_read_for()
    {
        using var reader = Reader(seconds: 30);
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(2));
        var watch = System.Diagnostics.Stopwatch.StartNew();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() =>
            reader.Read(HostilePdfs.ChainOfForms(24, each: 6), patience.Token)
        );
        Assert.True(watch.Elapsed < TimeSpan.FromSeconds(15), $"{watch.Elapsed}");
        Assert.Null(await FaultOf(reader, HostilePdfs.Honest()));
    }
}
