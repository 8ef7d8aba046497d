using System.Text;
using System.Xml.Linq;
using CsCheck;
using Zendle.Core.Loans;

namespace Zendle.Core.Tests.Loans;

/// <summary>Messages of ISO 18626:2021, written and read.</summary>
public sealed class Iso18626Tests
{
    private static readonly XNamespace N = "http://illtransactions.org/2013/iso18626";

    private static readonly LoanHeader Header = new(
        "XA-VLD",
        "XA-QUI1",
        new(2026, 11, 29, 14, 5, 6, TimeSpan.FromHours(1)),
        "Z42"
    )
    {
        Account = "quillmere",
        Code = "s3cret",
    };

    private static readonly LoanFields Article = new()
    {
        Kind = "Article",
        Service = LoanService.Copy,
        Title = "Lamps & moths <at dusk>",
        People = "Børg, Mei K.; Tal, U.",
        In = "Night and Hedge",
        Volume = "12",
        Issue = "3",
        Pages = "101–118",
        Date = "2019-03",
        Publisher = "Halden University Press",
        Issn = "9000-1370",
        Doi = "10.5555/a(b)c",
        Note = "Colour, please.",
    };

    private static XElement Written(byte[] message)
    {
        var root = XDocument.Load(new MemoryStream(message)).Root!;
        Assert.Equal(N + "ISO18626Message", root.Name);
        Assert.Equal("1.2", (string?)root.Attribute(N + "version"));
        return root.Elements().Single();
    }

    private static string At(XElement of, string path) =>
        path.Split('/').Aggregate((XElement?)of, (e, name) => e?.Element(N + name))?.Value ?? "";

    [Fact]
    public void A_request_for_an_article_names_the_journal_and_the_article_as_its_component()
    {
        var request = Written(
            Iso18626Writer.Write(
                new LoanRequest(Header, Article) { MostCost = new(4.5m, "EUR"), NeededBy = new(2026, 12, 24) }
            )
        );
        Assert.Equal("request", request.Name.LocalName);
        Assert.Equal(
            ["header", "bibliographicInfo", "publicationInfo", "serviceInfo", "billingInfo"],
            request.Elements().Select(e => e.Name.LocalName)
        );
        Assert.Equal(
            ("ISIL", "XA-VLD", "XA-QUI1", "2026-11-29T13:05:06Z", "Z42", "quillmere", "s3cret"),
            (
                At(request, "header/supplyingAgencyId/agencyIdType"),
                At(request, "header/supplyingAgencyId/agencyIdValue"),
                At(request, "header/requestingAgencyId/agencyIdValue"),
                At(request, "header/timestamp"),
                At(request, "header/requestingAgencyRequestId"),
                At(request, "header/requestingAgencyAuthentication/accountId"),
                At(request, "header/requestingAgencyAuthentication/securityCode")
            )
        );
        var info = request.Element(N + "bibliographicInfo")!;
        Assert.Equal(
            ("Night and Hedge", "Lamps & moths <at dusk>", "Børg, Mei K.; Tal, U.", "12", "3", "101–118"),
            (
                At(info, "title"),
                At(info, "titleOfComponent"),
                At(info, "authorOfComponent"),
                At(info, "volume"),
                At(info, "issue"),
                At(info, "pagesRequested")
            )
        );
        Assert.Null(info.Element(N + "author"));
        Assert.Equal(
            [("ISSN", "9000-1370"), ("DOI", "10.5555/a(b)c")],
            info.Elements(N + "bibliographicItemId")
                .Select(i => (At(i, "bibliographicItemIdentifierCode"), At(i, "bibliographicItemIdentifier")))
        );
        Assert.Equal(
            ("Article", "2019-03", "New", "Copy", "2026-12-24T00:00:00Z", "EUR", "4.50"),
            (
                At(request, "publicationInfo/publicationType"),
                At(request, "publicationInfo/publicationDate"),
                At(request, "serviceInfo/requestType"),
                At(request, "serviceInfo/serviceType"),
                At(request, "serviceInfo/needBeforeDate"),
                At(request, "billingInfo/maximumCosts/currencyCode"),
                At(request, "billingInfo/maximumCosts/monetaryValue")
            )
        );
    }

    [Fact]
    public void A_book_stands_for_itself_and_a_second_try_names_the_first()
    {
        var book = Article with
        {
            Kind = "Book",
            Service = LoanService.Loan,
            In = "",
            Isbn = "9780000000002",
            Issn = "",
        };
        var request = Written(Iso18626Writer.Write(new LoanRequest(Header, book) { Previous = "Z41" }));
        Assert.Equal("Lamps & moths <at dusk>", At(request, "bibliographicInfo/title"));
        Assert.Equal("Børg, Mei K.; Tal, U.", At(request, "bibliographicInfo/author"));
        Assert.Null(request.Element(N + "bibliographicInfo")!.Element(N + "titleOfComponent"));
        Assert.Equal(
            ("Retry", "Z41", "Loan"),
            (
                At(request, "serviceInfo/requestType"),
                At(request, "serviceInfo/requestingAgencyPreviousRequestId"),
                At(request, "serviceInfo/serviceType")
            )
        );
    }

    [Fact]
    public void Any_text_makes_a_message_that_is_well_formed() =>
        Gen.String.Sample(text =>
        {
            var request = Written(
                Iso18626Writer.Write(new LoanRequest(Header, Article with { Title = text, Note = text }))
            );
            // What XML can carry arrives as it was.
            if (text.Trim().Length > 0 && text.All(c => c is >= ' ' and < '\u007F'))
                Assert.Equal(text, At(request, "bibliographicInfo/titleOfComponent"));
        });

    private const string Delivered = """
        <?xml version="1.0" encoding="UTF-8"?>
        <ns2:ISO18626Message ns2:version="1.2" xmlns:ns2="http://illtransactions.org/2013/iso18626">
          <ns2:supplyingAgencyMessage>
            <ns2:header>
              <ns2:supplyingAgencyId>
                <ns2:agencyIdType>ISIL</ns2:agencyIdType><ns2:agencyIdValue>XA-VLD</ns2:agencyIdValue>
              </ns2:supplyingAgencyId>
              <ns2:requestingAgencyId>
                <ns2:agencyIdType>ISIL</ns2:agencyIdType><ns2:agencyIdValue>XA-QUI1</ns2:agencyIdValue>
              </ns2:requestingAgencyId>
              <ns2:timestamp>2026-12-02T10:00:00+01:00</ns2:timestamp>
              <ns2:requestingAgencyRequestId>Z42</ns2:requestingAgencyRequestId>
              <ns2:supplyingAgencyRequestId>V-7</ns2:supplyingAgencyRequestId>
            </ns2:header>
            <ns2:messageInfo>
              <ns2:reasonForMessage>StatusChange</ns2:reasonForMessage>
              <ns2:note>Here it is: https://desk.example/copies/7.pdf. Enjoy!</ns2:note>
            </ns2:messageInfo>
            <ns2:statusInfo>
              <ns2:status>CopyCompleted</ns2:status>
              <ns2:lastChange>2026-12-02T09:59:00+01:00</ns2:lastChange>
            </ns2:statusInfo>
            <ns2:deliveryInfo>
              <ns2:dateSent>2026-12-02T09:59:00+01:00</ns2:dateSent>
              <ns2:sentVia>URL</ns2:sentVia>
              <ns2:deliveryCosts><ns2:currencyCode>EUR</ns2:currencyCode><ns2:monetaryValue>4.50</ns2:monetaryValue></ns2:deliveryCosts>
            </ns2:deliveryInfo>
          </ns2:supplyingAgencyMessage>
        </ns2:ISO18626Message>
        """;

    private static SupplierMessage Read(string text) => Iso18626Reader.Supplier(Encoding.UTF8.GetBytes(text));

    private static string Fault(string text) => Assert.Throws<LoanMessageException>(() => Read(text)).Fault;

    [Fact]
    public void A_delivery_is_read_with_its_address_and_cost()
    {
        var message = Read(Delivered);
        Assert.Equal(
            ("XA-VLD", "Z42", "V-7"),
            (message.Header.Supplier, message.Header.RequestId, message.Header.SupplierRequestId)
        );
        Assert.Equal(new(2026, 12, 2, 8, 59, 0, TimeSpan.Zero), message.ChangedAt);
        Assert.Equal(
            (LoanStatus.CopyCompleted, "URL", new LoanCost(4.5m, "EUR")),
            (message.Status, message.SentVia, message.Cost)
        );
        Assert.Equal([new Uri("https://desk.example/copies/7.pdf")], message.Addresses);
    }

    [Fact]
    public void Another_prefix_no_prefix_and_no_namespace_are_the_same_message()
    {
        var plain = Delivered
            .Replace("ns2:", "", StringComparison.Ordinal)
            .Replace("xmlns:ns2", "xmlns", StringComparison.Ordinal);
        var bare = plain.Replace("xmlns=\"http://illtransactions.org/2013/iso18626\"", "", StringComparison.Ordinal);
        Assert.Equal(LoanStatus.CopyCompleted, Read(Delivered.Replace("ns2", "ill", StringComparison.Ordinal)).Status);
        Assert.Equal(LoanStatus.CopyCompleted, Read(bare).Status);
    }

    [Fact]
    public void What_is_no_message_is_refused_with_a_code_of_the_standard()
    {
        Assert.Equal("BadlyFormedMessage", Fault("hello"));
        Assert.Equal("BadlyFormedMessage", Fault(Delivered[..(Delivered.Length / 2)]));
        Assert.Equal(
            "BadlyFormedMessage",
            Fault("<!DOCTYPE a [<!ENTITY b \"c\">]><ISO18626Message>&b;</ISO18626Message>")
        );
        Assert.Equal("BadlyFormedMessage", Fault(string.Concat(Enumerable.Repeat("<a>", 5_000))));
        Assert.Equal(
            "BadlyFormedMessage",
            Fault(
                "<ISO18626Message>"
                    + string.Concat(Enumerable.Repeat("<a>", 60))
                    + string.Concat(Enumerable.Repeat("</a>", 60))
                    + "</ISO18626Message>"
            )
        );
        Assert.Equal("UnrecognisedDataElement", Fault("<OtherMessage/>"));
        Assert.Equal("UnrecognisedDataElement", Fault("<ISO18626Message><request/></ISO18626Message>"));
        Assert.Equal(
            "BadlyFormedMessage",
            Fault(Delivered.Replace("ns2:timestamp", "ns2:when", StringComparison.Ordinal))
        );
        Assert.Equal(
            "UnrecognisedDataValue",
            Fault(Delivered.Replace(">CopyCompleted<", ">Teleported<", StringComparison.Ordinal))
        );
        // Zendle's own statuses and bare numbers are none of the standard's.
        Assert.Equal(
            "UnrecognisedDataValue",
            Fault(Delivered.Replace(">CopyCompleted<", ">Unsent<", StringComparison.Ordinal))
        );
        Assert.Equal(
            "UnrecognisedDataValue",
            Fault(Delivered.Replace(">CopyCompleted<", ">11<", StringComparison.Ordinal))
        );
        Assert.Equal(
            "UnsupportedReasonForMessageType",
            Fault(Delivered.Replace(">StatusChange<", ">Gossip<", StringComparison.Ordinal))
        );
    }

    [Fact]
    public void Nothing_that_comes_ends_in_another_fault() =>
        Gen.Select(Gen.Int[0, Delivered.Length - 1], Gen.String[0, 20])
            .Sample(
                (at, text) =>
                {
                    try
                    {
                        Read(Delivered[..at] + text + Delivered[at..]);
                    }
                    catch (LoanMessageException) { }
                }
            );

    [Fact]
    public void Confirmations_say_yes_or_what_was_at_fault()
    {
        const string Said =
            "<ISO18626Message xmlns='http://illtransactions.org/2013/iso18626'><requestConfirmation><confirmationHeader>"
            + "<messageStatus>OK</messageStatus></confirmationHeader></requestConfirmation></ISO18626Message>";
        Assert.Equal(new(true), Iso18626Reader.Confirmation(Encoding.UTF8.GetBytes(Said)));
        var no = Said.Replace("OK", "ERROR", StringComparison.Ordinal)
            .Replace(
                "</confirmationHeader>",
                "</confirmationHeader><errorData><errorType>UnrecognisedDataValue</errorType><errorValue>title</errorValue></errorData>",
                StringComparison.Ordinal
            );
        Assert.Equal(
            new(false, "UnrecognisedDataValue", "title"),
            Iso18626Reader.Confirmation(Encoding.UTF8.GetBytes(no))
        );
        Assert.Throws<LoanMessageException>(() => Iso18626Reader.Confirmation("<html/>"u8.ToArray()));
    }

    [Fact]
    public void An_answer_repeats_whose_message_it_answers()
    {
        var message = Read(Delivered);
        var yes = Written(Iso18626Writer.Write(message, new(true), Header.At));
        Assert.Equal("supplyingAgencyMessageConfirmation", yes.Name.LocalName);
        Assert.Equal(
            ("Z42", "OK", "StatusChange"),
            (
                At(yes, "confirmationHeader/requestingAgencyRequestId"),
                At(yes, "confirmationHeader/messageStatus"),
                At(yes, "reasonForMessage")
            )
        );
        var no = Written(Iso18626Writer.Write(null, new(false, "BadlyFormedMessage", "x"), Header.At));
        Assert.Equal(
            ("ERROR", "BadlyFormedMessage"),
            (At(no, "confirmationHeader/messageStatus"), At(no, "errorData/errorType"))
        );
    }
}
