using System.Globalization;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;

namespace Zendle.Core.Loans;

/// <summary>What came is no message that can be used.</summary>
/// <param name="fault">A code of the closed list "ErrorType".</param>
/// <param name="about">What is at fault.</param>
public sealed class LoanMessageException(string fault, string about) : Exception($"{fault}: {about}")
{
    /// <summary>A code of the closed list "ErrorType".</summary>
    public string Fault => fault;

    /// <summary>What is at fault.</summary>
    public string About => about;
}

/// <summary>
/// Reads what a supplying library writes (ISO 18626:2021). Elements are known by their names, whatever the version of the
/// schema; without a document type, of limited size.
/// </summary>
public static partial class Iso18626Reader
{
    /// <summary>Most bytes of a message.</summary>
    public const int MostBytes = 256_000;

    /// <summary>Longest text that is kept of a note.</summary>
    public const int LongestNote = 2_000;

    private const int LongestCode = 200,
        MostAddresses = 5,
        Deepest = 32;

    [GeneratedRegex(@"https?://[^\s<>""']{1,2000}", RegexOptions.CultureInvariant | RegexOptions.IgnoreCase)]
    private static partial Regex Address { get; }

    /// <summary>A supplier's message.</summary>
    /// <exception cref="LoanMessageException">It is none, or lacks what every message must have.</exception>
    public static SupplierMessage Supplier(byte[] bytes)
    {
        var body = Body(bytes, "supplyingAgencyMessage");
        var (info, status, delivery) = (
            Part(body, "messageInfo"),
            Part(body, "statusInfo"),
            Part(body, "deliveryInfo")
        );
        var reasonCode = Code(info, "reasonForMessage") ?? throw Missing("reasonForMessage");
        if (
            !Enum.TryParse<LoanMessageReason>(reasonCode, ignoreCase: true, out var reason)
            || char.IsDigit(reasonCode[0])
        )
            throw new LoanMessageException("UnsupportedReasonForMessageType", reasonCode);
        var statusCode = Code(status, "status");
        var (note, item) = (Text(info, "note", LongestNote), Text(delivery, "itemId", LongestNote));
        return new(Header(body), reason)
        {
            Status = statusCode is null
                ? null
                : Iso18626.StatusOf(statusCode)
                    ?? throw new LoanMessageException("UnrecognisedDataValue", $"status {statusCode}"),
            ChangedAt = Moment(Code(status, "lastChange")),
            Answer = Code(info, "answerYesNo")?.ToUpperInvariant() switch
            {
                "Y" or "YES" or "TRUE" => true,
                "N" or "NO" or "FALSE" => false,
                _ => null,
            },
            Note = note,
            Why = Code(info, "reasonUnfilled") ?? Code(info, "reasonRetry"),
            Offer = Money(Part(info, "offeredCosts")),
            RetryAfter = Day(Code(info, "retryAfter")),
            ExpectedOn = Day(Code(status, "expectedDeliveryDate")),
            DueOn = Day(Code(status, "dueDate")),
            SentVia = Code(delivery, "sentVia"),
            Cost = Money(Part(delivery, "deliveryCosts")),
            Addresses =
            [
                .. Address
                    .Matches($"{item} {note}")
                    .Select(m =>
                        Uri.TryCreate(m.Value.TrimEnd('.', ',', ';', ')'), UriKind.Absolute, out var at) ? at : null
                    )
                    .OfType<Uri>()
                    .Distinct()
                    .Take(MostAddresses),
            ],
        };
    }

    /// <summary>What a desk answers a message of ours with at once.</summary>
    /// <exception cref="LoanMessageException">It is no answer.</exception>
    public static LoanConfirmation Confirmation(byte[] bytes)
    {
        var body = Body(bytes, "requestConfirmation", "requestingAgencyMessageConfirmation");
        var header = Part(body, "confirmationHeader") ?? throw Missing("confirmationHeader");
        var error = Part(body, "errorData");
        return Code(header, "messageStatus")?.ToUpperInvariant() switch
        {
            "OK" => new(true),
            "ERROR" => new(
                false,
                Code(error, "errorType") ?? "",
                Text(error, "errorValue", LongestNote) is { Length: > 0 } about ? about : null
            ),
            _ => throw Missing("messageStatus"),
        };
    }

    private static LoanHeader Header(XElement body)
    {
        var header = Part(body, "header") ?? throw Missing("header");
        return new(
            Code(Part(header, "supplyingAgencyId"), "agencyIdValue") ?? "",
            Code(Part(header, "requestingAgencyId"), "agencyIdValue") ?? "",
            Moment(Code(header, "timestamp")) ?? throw Missing("timestamp"),
            Code(header, "requestingAgencyRequestId") ?? throw Missing("requestingAgencyRequestId")
        )
        {
            SupplierRequestId = Code(header, "supplyingAgencyRequestId"),
        };
    }

    private static LoanMessageException Missing(string element) => new("BadlyFormedMessage", $"{element} is missing");

    private static XElement Body(byte[] bytes, params string[] kinds)
    {
        if (bytes.Length > MostBytes)
            throw new LoanMessageException("BadlyFormedMessage", "the message is too long");
        XElement root;
        try
        {
            using var reader = XmlReader.Create(
                new MemoryStream(bytes),
                new()
                {
                    DtdProcessing = DtdProcessing.Prohibit,
                    XmlResolver = null,
                    IgnoreComments = true,
                    IgnoreProcessingInstructions = true,
                    MaxCharactersInDocument = MostBytes,
                }
            );
            // Looked at before it is built: a tree that is nested without end would exhaust the stack.
            while (reader.Read())
                if (reader.Depth > Deepest)
                    throw new LoanMessageException("BadlyFormedMessage", "the message is nested too deeply");
            using var again = XmlReader.Create(
                new MemoryStream(bytes),
                new() { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null }
            );
            root = XElement.Load(again);
        }
        catch (Exception e) when (e is XmlException or ArgumentException or InvalidOperationException)
        {
            throw new LoanMessageException("BadlyFormedMessage", "it is not well-formed XML");
        }
        if (root.Name.LocalName != Iso18626.Root)
            throw new LoanMessageException("UnrecognisedDataElement", root.Name.LocalName);
        return root.Elements().FirstOrDefault(e => kinds.Contains(e.Name.LocalName))
            ?? throw new LoanMessageException(
                "UnrecognisedDataElement",
                root.Elements().FirstOrDefault()?.Name.LocalName ?? "an empty message"
            );
    }

    private static XElement? Part(XElement? of, string name) =>
        of?.Elements().FirstOrDefault(e => e.Name.LocalName == name);

    private static string? Code(XElement? of, string name) =>
        Part(of, name)?.Value.Trim() is { Length: > 0 and <= LongestCode } code ? code : null;

    private static string Text(XElement? of, string name, int longest) =>
        Part(of, name)?.Value.Trim() is { } text
            ? text.Length <= longest
                ? text
                : text[..longest]
            : "";

    private static DateTimeOffset? Moment(string? text) =>
        DateTimeOffset.TryParse(
            text,
            CultureInfo.InvariantCulture,
            DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal,
            out var at
        )
            ? at
            : null;

    /// <summary>The day that is written, wherever the clock of whoever wrote it stood.</summary>
    private static DateOnly? Day(string? text) =>
        text is { Length: >= 10 }
        && DateOnly.TryParseExact(
            text[..10],
            "yyyy-MM-dd",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var day
        )
            ? day
            : null;

    private static LoanCost? Money(XElement? of) =>
        Code(of, "currencyCode") is { Length: 3 } currency
        && decimal.TryParse(
            Code(of, "monetaryValue"),
            NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var amount
        )
            ? new(amount, currency.ToUpperInvariant())
            : null;
}
