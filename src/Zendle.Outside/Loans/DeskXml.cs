using System.Globalization;
using System.Xml;
using System.Xml.Linq;

namespace Zendle.Outside.Loans;

/// <summary>The messages of a supplying library (ISO 18626:2021), as text.</summary>
public static class DeskXml
{
    private static readonly XNamespace N = "http://illtransactions.org/2013/iso18626";

    /// <summary>The message inside the root; null when it is none.</summary>
    public static XElement? Read(string text)
    {
        try
        {
            using var reader = XmlReader.Create(
                new StringReader(text),
                new() { DtdProcessing = DtdProcessing.Prohibit, MaxCharactersInDocument = 1_000_000 }
            );
            return XDocument.Load(reader).Root is { } root && root.Name == N + "ISO18626Message"
                ? root.Elements().FirstOrDefault()
                : null;
        }
        catch (XmlException)
        {
            return null;
        }
    }

    /// <summary>The text of an element at a path of names; empty when it is not there.</summary>
    public static string At(XElement? of, params string[] path)
    {
        foreach (var name in path)
            of = of?.Element(N + name);
        return of?.Value.Trim() ?? "";
    }

    /// <summary>The identifier of a kind among those of the item; empty when there is none.</summary>
    public static string Item(XElement message, string kind) =>
        message
            .Element(N + "bibliographicInfo")
            ?.Elements(N + "bibliographicItemId")
            .Where(i => At(i, "bibliographicItemIdentifierCode") == kind)
            .Select(i => At(i, "bibliographicItemIdentifier"))
            .FirstOrDefault()
        ?? "";

    /// <summary>The answer to a message.</summary>
    /// <param name="message">The message; null when it could not be read.</param>
    /// <param name="fault">A code of the list "ErrorType"; null when it was taken.</param>
    /// <param name="about">What was at fault.</param>
    /// <param name="now">Now.</param>
    public static string Confirmation(XElement? message, string? fault, string about, DateTimeOffset now) =>
        Text(
            new(
                N
                    + (message?.Name.LocalName == "requestingAgencyMessage" ? "requestingAgencyMessage" : "request")
                    + "Confirmation",
                new XElement(
                    N + "confirmationHeader",
                    Agency("supplyingAgencyId", At(message, "header", "supplyingAgencyId", "agencyIdValue")),
                    Agency("requestingAgencyId", At(message, "header", "requestingAgencyId", "agencyIdValue")),
                    new XElement(N + "timestamp", Moment(now)),
                    new XElement(N + "requestingAgencyRequestId", At(message, "header", "requestingAgencyRequestId")),
                    new XElement(N + "timestampReceived", Moment(now)),
                    new XElement(N + "messageStatus", fault is null ? "OK" : "ERROR")
                ),
                message?.Name.LocalName == "requestingAgencyMessage"
                    ? new XElement(N + "action", At(message, "action"))
                    : null,
                fault is null
                    ? null
                    : new XElement(
                        N + "errorData",
                        new XElement(N + "errorType", fault),
                        new XElement(N + "errorValue", about)
                    )
            )
        );

    /// <summary>A message of the desk.</summary>
    public static string Message(LendingDesk desk, DeskWord word, string requester, string requestId, string ownId) =>
        Text(
            new(
                N + "supplyingAgencyMessage",
                new XElement(
                    N + "header",
                    Agency("supplyingAgencyId", desk.Isil),
                    Agency("requestingAgencyId", requester),
                    new XElement(N + "timestamp", Moment(word.At)),
                    new XElement(N + "requestingAgencyRequestId", requestId),
                    new XElement(N + "supplyingAgencyRequestId", ownId)
                ),
                new XElement(
                    N + "messageInfo",
                    new XElement(N + "reasonForMessage", word.Reason),
                    word.Answer is { } answer ? new XElement(N + "answerYesNo", answer ? "Y" : "N") : null,
                    word.Note.Length > 0 ? new XElement(N + "note", word.Note) : null,
                    word.Status == "Unfilled" ? new XElement(N + "reasonUnfilled", word.Why) : null,
                    word.Status == "RetryPossible" ? new XElement(N + "reasonRetry", word.Why) : null,
                    word.Offer is { } offer ? Money("offeredCosts", offer) : null
                ),
                new XElement(
                    N + "statusInfo",
                    new XElement(N + "status", word.Status),
                    word.ExpectedOn is { } expected ? new XElement(N + "expectedDeliveryDate", Moment(expected)) : null,
                    word.DueOn is { } due ? new XElement(N + "dueDate", Moment(due)) : null,
                    new XElement(N + "lastChange", Moment(word.At))
                ),
                word.Via is null
                    ? null
                    : new XElement(
                        N + "deliveryInfo",
                        new XElement(N + "dateSent", Moment(word.At)),
                        word.Address is { } address ? new XElement(N + "itemId", address) : null,
                        new XElement(N + "sentVia", word.Via),
                        word.Cost is { } cost ? Money("deliveryCosts", cost) : null
                    )
            )
        );

    private static XElement Money(string name, decimal amount) =>
        new(
            N + name,
            new XElement(N + "currencyCode", "EUR"),
            new XElement(N + "monetaryValue", amount.ToString("0.00", CultureInfo.InvariantCulture))
        );

    private static XElement Agency(string name, string isil) =>
        new(N + name, new XElement(N + "agencyIdType", "ISIL"), new XElement(N + "agencyIdValue", isil));

    private static string Moment(DateTimeOffset at) =>
        at.UtcDateTime.ToString("yyyy-MM-ddTHH:mm:ss.fffZ", CultureInfo.InvariantCulture);

    private static string Text(XElement body) =>
        new XDocument(
            new XElement(
                N + "ISO18626Message",
                new XAttribute(XNamespace.Xmlns + "ill", N.NamespaceName),
                new XAttribute(N + "version", "1.2"),
                body
            )
        ).ToString(SaveOptions.DisableFormatting);
}

/// <summary>One word of a desk about a request.</summary>
/// <param name="At">When it is said.</param>
/// <param name="Reason">Why (list "ReasonForMessage").</param>
/// <param name="Status">How the request stands then (list "Status").</param>
public sealed record DeskWord(DateTimeOffset At, string Reason, string Status)
{
    /// <summary>Why it is not supplied, or only otherwise.</summary>
    public string Why { get; init; } = "";

    /// <summary>In words.</summary>
    public string Note { get; init; } = "";

    /// <summary>Yes or no to what was asked.</summary>
    public bool? Answer { get; init; }

    /// <summary>What it would cost, in euros.</summary>
    public decimal? Offer { get; init; }

    /// <summary>When it is expected to be supplied.</summary>
    public DateTimeOffset? ExpectedOn { get; init; }

    /// <summary>When it is due back.</summary>
    public DateTimeOffset? DueOn { get; init; }

    /// <summary>How it was sent (list "SentVia"); null when nothing was.</summary>
    public string? Via { get; init; }

    /// <summary>Where the copy lies.</summary>
    public string? Address { get; init; }

    /// <summary>What it did cost, in euros.</summary>
    public decimal? Cost { get; init; }
}
