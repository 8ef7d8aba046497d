using System.Globalization;
using System.Text;
using System.Xml;
using Zendle.Connect.Harvest;

namespace Zendle.Server.Tests;

/// <summary>A page of an OAI-PMH list is read record by record, and believed only when all of it is sound.</summary>
public sealed class OaiPageReaderTests
{
    private static readonly Uri Address = new("http://shelf.example/oai");

    private static OaiPage<string> Read(string inside, string root = "OAI-PMH")
    {
        var xml =
            $"<?xml version='1.0'?>\n<{root} xmlns='http://www.openarchives.org/OAI/2.0/'>\n  "
            + $"<responseDate>2026-03-04T05:06:07Z</responseDate>\n  {inside}\n</{root}>\n";
        using var reader = OaiReply.Reader(new MemoryStream(Encoding.UTF8.GetBytes(xml)), 1_000_000);
        return OaiPageReader.Read(
            Address,
            reader,
            DateTimeOffset.UnixEpoch,
            r =>
                $"{r.Identifier} {r.Datestamp.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)} {r.Metadata?.Value ?? "gone"}",
            CancellationToken.None
        );
    }

    private static string Record(string id, string? text) =>
        $"<record><header{(text is null ? " status='deleted'" : "")}><identifier> {id} </identifier>"
        + "<datestamp>2025-12-31</datestamp>"
        + $"</header>{(text is null ? "" : $"<metadata>\n<mods xmlns='http://www.loc.gov/mods/v3'>{text}</mods>\n</metadata>")}</record>";

    [Fact]
    public void Records_keep_their_order_and_deleted_ones_are_told()
    {
        var page = Read(
            $"<request>x</request>\n<ListRecords>\n{Record("a", "moths")}\n<!-- a remark "
                + $"-->{Record("b", null)}{string.Concat(Enumerable.Range(0, 300).Select(i => Record($"c{i}", $"n{i}")))}<resumptionToken "
                + "completeListSize='905' cursor='0'>\n on and on </resumptionToken></ListRecords>"
        );
        Assert.Equal(
            [
                "a 2025-12-31 moths",
                "b 2025-12-31 gone",
                .. Enumerable.Range(0, 300).Select(i => $"c{i} 2025-12-31 n{i}"),
            ],
            page.Records
        );
        Assert.Equal(
            ("on and on", 905, new DateTimeOffset(2026, 3, 4, 5, 6, 7, TimeSpan.Zero)),
            (page.Token, page.Total, page.ResponseDate)
        );
    }

    [Fact]
    public void What_is_no_record_is_passed_over()
    {
        var page = Read(
            "<ListRecords><record/><record><header/>"
                + $"</record>{Record("", "no name")}{Record(new string('x', 501), "too long a name")}<record>"
                + "<header><identifier>bare</identifier></header></record><other "
                + $"xmlns='urn:x'>{Record("inside", "other")}</other>{Record("a", "moths")}<resumptionToken/>"
                + "</ListRecords><later/>"
        );
        Assert.Equal(["a 2025-12-31 moths"], page.Records);
        Assert.Null(page.Token);
        Assert.Null(page.Total);
        Assert.Empty(Read("<ListRecords/>").Records);
    }

    [Theory]
    [InlineData(
        "<error code='badResumptionToken'> expired </error>",
        "answers with the error badResumptionToken: expired",
        "badResumptionToken"
    )]
    [InlineData("<Identify/>", "has no list of records", null)]
    public void A_reply_that_is_no_list_says_what_it_is(string inside, string sentence, string? code)
    {
        var fault = Assert.Throws<HarvestFaultException>(() => Read(inside));
        Assert.Contains(sentence, fault.Message, StringComparison.Ordinal);
        Assert.Equal(code, fault.Code);
    }

    [Fact]
    public void Another_language_is_refused() =>
        Assert.Contains(
            "does not speak OAI-PMH",
            Assert.Throws<HarvestFaultException>(() => Read("", "html")).Message,
            StringComparison.Ordinal
        );

    [Theory]
    [InlineData("<ListRecords>{0}<record></ListRecords>")] // broken inside the list
    [InlineData("<ListRecords>{0}</ListRecords><unclosed>")] // broken behind it
    public void A_page_that_breaks_anywhere_is_not_believed_in_part(string inside) =>
        Assert.Throws<XmlException>(() =>
            Read(string.Format(CultureInfo.InvariantCulture, inside, Record("a", "moths")))
        );

    [Fact]
    public async Task A_reply_is_taken_in_up_to_its_limit()
    {
        var bytes = Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("lamps and moths ", 20_000)));
        using var whole = await TakenReply.Of(new MemoryStream(bytes), bytes.Length, CancellationToken.None);
        using var to = new MemoryStream();
        await whole.Open().CopyToAsync(to);
        Assert.Equal(bytes, to.ToArray());
        await Assert.ThrowsAsync<Connect.Fetch.ReplyTooLongException>(() =>
            TakenReply.Of(new MemoryStream(bytes), bytes.Length - 1, CancellationToken.None)
        );
    }
}
