using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;

namespace Zendle.Core.Loans;

/// <summary>Writes the messages of a requesting library (ISO 18626:2021).</summary>
public static class Iso18626Writer
{
    private static readonly XNamespace N = Iso18626.Names;

    /// <summary>A request as a message.</summary>
    public static byte[] Write(LoanRequest request)
    {
        var f = request.Fields;
        return Message(
            "request",
            Header(request.Header),
            Group(
                "bibliographicInfo",
                // What is wanted stands as a component where it is part of something.
                Text("title", f.IsPart ? f.In : f.Title),
                Text("author", f.IsPart ? "" : f.People),
                Text("edition", f.Edition),
                Text("titleOfComponent", f.IsPart ? f.Title : ""),
                Text("authorOfComponent", f.IsPart ? f.People : ""),
                Text("volume", f.Volume),
                Text("issue", f.Issue),
                Text("pagesRequested", f.Pages),
                Item("ISBN", f.Isbn),
                Item("ISSN", f.Issn),
                Item("DOI", f.Doi)
            ),
            Group(
                "publicationInfo",
                Text("publisher", f.Publisher),
                Text("publicationType", f.Kind),
                Text("publicationDate", f.Date)
            ),
            Group(
                "serviceInfo",
                Text("requestType", request.Previous is null ? "New" : "Retry"),
                Text("requestingAgencyPreviousRequestId", request.Previous),
                Text("serviceType", f.Service.ToString()),
                Text("preferredFormat", f.Service == LoanService.Copy ? "PDF" : ""),
                request.NeededBy is { } day ? Text("needBeforeDate", Date(day)) : null,
                Text("anyEdition", f.Edition.Length == 0 ? "Y" : "N"),
                Text("note", f.Note)
            ),
            request.Email is { } email
                ? Group(
                    "requestedDeliveryInfo",
                    Text("sortOrder", "1"),
                    Group(
                        "address",
                        Group(
                            "electronicAddress",
                            Text("electronicAddressType", "Email"),
                            Text("electronicAddressData", email)
                        )
                    )
                )
                : null,
            request.MostCost is { } cost ? Group("billingInfo", Money("maximumCosts", cost)) : null
        );
    }

    /// <summary>A later word of the requester as a message.</summary>
    public static byte[] Write(RequesterMessage message) =>
        Message(
            "requestingAgencyMessage",
            Header(message.Header),
            Text("action", message.Action.ToString()),
            Text("note", message.Note)
        );

    /// <summary>The answer to a supplier's message.</summary>
    /// <param name="message">The message; null when it could not be read.</param>
    /// <param name="confirmation">Whether it was taken.</param>
    /// <param name="at">Now.</param>
    public static byte[] Write(SupplierMessage? message, LoanConfirmation confirmation, DateTimeOffset at) =>
        Message(
            "supplyingAgencyMessageConfirmation",
            Group(
                "confirmationHeader",
                message is null ? null : Agency("supplyingAgencyId", message.Header.Supplier),
                message is null ? null : Agency("requestingAgencyId", message.Header.Requester),
                Text("timestamp", Moment(at)),
                Text("requestingAgencyRequestId", message?.Header.RequestId),
                Text("timestampReceived", Moment(at)),
                Text("messageStatus", confirmation.IsTaken ? "OK" : "ERROR")
            ),
            Text("reasonForMessage", message?.Reason.ToString()),
            confirmation.IsTaken
                ? null
                : Group("errorData", Text("errorType", confirmation.Fault), Text("errorValue", confirmation.About))
        );

    private static XElement Header(LoanHeader header) =>
        Group(
            "header",
            Agency("supplyingAgencyId", header.Supplier),
            Agency("requestingAgencyId", header.Requester),
            Text("timestamp", Moment(header.At)),
            Text("requestingAgencyRequestId", header.RequestId),
            Text("supplyingAgencyRequestId", header.SupplierRequestId),
            header.Account is null
                ? null
                : Group(
                    "requestingAgencyAuthentication",
                    Text("accountId", header.Account),
                    Text("securityCode", header.Code)
                )
        )!;

    private static XElement? Item(string kind, string value) =>
        value.Length == 0
            ? null
            : Group(
                "bibliographicItemId",
                Text("bibliographicItemIdentifier", value),
                Text("bibliographicItemIdentifierCode", kind)
            );

    private static XElement? Agency(string name, string isil) =>
        Group(name, Text("agencyIdType", Iso18626.Isil), Text("agencyIdValue", isil));

    private static XElement? Money(string name, LoanCost cost) =>
        Group(
            name,
            Text("currencyCode", cost.Currency),
            Text("monetaryValue", cost.Amount.ToString("0.00", CultureInfo.InvariantCulture))
        );

    private static string Moment(DateTimeOffset at) =>
        at.UtcDateTime.ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture);

    private static string Date(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) + "T00:00:00Z";

    private static XElement? Group(string name, params XElement?[] parts) =>
        parts.Any(p => p is not null) ? new(N + name, parts.OfType<XElement>()) : null;

    private static XElement? Text(string name, string? value) =>
        string.IsNullOrWhiteSpace(value) ? null : new(N + name, Plain(value));

    /// <summary>A text without what XML cannot carry.</summary>
    private static string Plain(string text) =>
        text.All(c => XmlConvert.IsXmlChar(c) || char.IsSurrogate(c)) && IsWhole(text)
            ? text
            : string.Concat(text.EnumerateRunes().Where(IsCarried).Select(r => r.ToString()));

    private static bool IsCarried(Rune rune) => !rune.IsBmp || XmlConvert.IsXmlChar((char)rune.Value);

    private static bool IsWhole(string text)
    {
        for (var i = 0; i < text.Length; i++)
            if (char.IsSurrogate(text[i]) && !(i + 1 < text.Length && char.IsSurrogatePair(text[i], text[++i])))
                return false;
        return true;
    }

    private static byte[] Message(string kind, params XElement?[] parts)
    {
        var root = new XElement(
            N + Iso18626.Root,
            new XAttribute(XNamespace.Xmlns + "ill", N.NamespaceName),
            new XAttribute(N + "version", Iso18626.Version),
            new XElement(N + kind, parts.OfType<XElement>())
        );
        using var to = new MemoryStream();
        using (var writer = XmlWriter.Create(to, new() { Encoding = new UTF8Encoding(false) }))
            root.Save(writer);
        return to.ToArray();
    }
}
