using System.Text.RegularExpressions;
using Zendle.Core.Holdings;
using Zendle.Core.Records;

namespace Zendle.Core.Loans;

/// <summary>What may be wrong with a request before it is sent.</summary>
public enum LoanFault
{
    /// <summary>Nothing says what is wanted.</summary>
    NoTitle,

    /// <summary>Nothing says which journal or book a part is in.</summary>
    NoContainer,

    /// <summary>Neither volume nor issue nor pages nor a DOI: the part cannot be found in its journal.</summary>
    NoLocation,

    /// <summary>Nothing says when it appeared.</summary>
    NoDate,

    /// <summary>Nobody is named.</summary>
    NoPeople,

    /// <summary>The date is none.</summary>
    BadDate,

    /// <summary>The check digit of an ISSN or ISBN is another.</summary>
    BadNumber,

    /// <summary>The last page comes before the first.</summary>
    BadPages,

    /// <summary>The DOI is none.</summary>
    BadDoi,

    /// <summary>A whole book cannot be asked for as a copy.</summary>
    WholeAsCopy,

    /// <summary>A part cannot be lent.</summary>
    PartAsLoan,

    /// <summary>The text is longer than desks take.</summary>
    TooLong,
}

/// <summary>A fault of one field.</summary>
/// <param name="Field">The field's name in <see cref="LoanFields"/>.</param>
/// <param name="Fault">What is wrong.</param>
/// <param name="Stops">Whether the request cannot be sent as it is; else it is only likely to fail.</param>
public sealed record LoanFieldFault(string Field, LoanFault Fault, bool Stops);

/// <summary>Holds a request against what a desk needs to find the item, before it is sent.</summary>
public static partial class LoanCheck
{
    /// <summary>Longest text of a field.</summary>
    public const int Longest = 1_000;

    [GeneratedRegex(@"^\s*(\p{L}*)(\d{1,9})\s*[-–—]+\s*(\p{L}*)(\d{1,9})\s*$", RegexOptions.CultureInvariant)]
    private static partial Regex FromTo { get; }

    [GeneratedRegex(@"^10\.\d{4,9}/\S+$", RegexOptions.CultureInvariant)]
    private static partial Regex DoiShape { get; }

    /// <summary>All faults, in the order of the fields; none when it can be sent as it is.</summary>
    /// <param name="fields">The request.</param>
    /// <param name="today">Today: nothing appears later than next year.</param>
    public static IReadOnlyList<LoanFieldFault> Of(LoanFields fields, DateOnly today)
    {
        var faults = new List<LoanFieldFault>();
        void Add(string field, LoanFault fault, bool stops) => faults.Add(new(field, fault, stops));
        var isPartKind = fields.Kind is "Article" or "Chapter" or "ConferenceProc";
        if (fields.Title.Trim().Length == 0)
            Add(nameof(fields.Title), LoanFault.NoTitle, stops: true);
        if (fields.People.Trim().Length == 0)
            Add(nameof(fields.People), LoanFault.NoPeople, stops: false);
        if (isPartKind && !fields.IsPart)
            Add(nameof(fields.In), LoanFault.NoContainer, stops: true);
        if (fields.IsPart && fields is { Volume.Length: 0, Issue.Length: 0, Pages.Length: 0, Doi.Length: 0 })
            Add(nameof(fields.Pages), LoanFault.NoLocation, stops: false);
        if (fields.Pages.Length > 0 && IsBackwards(fields.Pages))
            Add(nameof(fields.Pages), LoanFault.BadPages, stops: true);
        if (fields.Date.Trim().Length == 0)
            Add(nameof(fields.Date), LoanFault.NoDate, stops: false);
        else if (PartialDate.Read(fields.Date) is not { Year: > 1400 } date || date.Year > today.Year + 1)
            Add(nameof(fields.Date), LoanFault.BadDate, stops: true);
        if (fields.Issn.Length > 0 && Identifiers.Issn(fields.Issn) is null)
            Add(nameof(fields.Issn), LoanFault.BadNumber, stops: true);
        if (fields.Isbn.Length > 0 && Identifiers.Isbn(fields.Isbn) is null)
            Add(nameof(fields.Isbn), LoanFault.BadNumber, stops: true);
        if (fields.Doi.Length > 0 && !DoiShape.IsMatch(fields.Doi))
            Add(nameof(fields.Doi), LoanFault.BadDoi, stops: true);
        if (fields is { Service: LoanService.Copy, Kind: "Book" })
            Add(nameof(fields.Service), LoanFault.WholeAsCopy, stops: true);
        if (fields.Service == LoanService.Loan && fields.IsPart)
            Add(nameof(fields.Service), LoanFault.PartAsLoan, stops: true);
        foreach (var (field, text) in Texts(fields))
            if (text.Length > Longest)
                Add(field, LoanFault.TooLong, stops: true);
        return faults;
    }

    /// <summary>The texts of a request by the names of their fields.</summary>
    public static IEnumerable<(string Field, string Text)> Texts(LoanFields fields) =>
        [
            (nameof(fields.Kind), fields.Kind),
            (nameof(fields.Title), fields.Title),
            (nameof(fields.People), fields.People),
            (nameof(fields.In), fields.In),
            (nameof(fields.Volume), fields.Volume),
            (nameof(fields.Issue), fields.Issue),
            (nameof(fields.Pages), fields.Pages),
            (nameof(fields.Date), fields.Date),
            (nameof(fields.Edition), fields.Edition),
            (nameof(fields.Publisher), fields.Publisher),
            (nameof(fields.Issn), fields.Issn),
            (nameof(fields.Isbn), fields.Isbn),
            (nameof(fields.Doi), fields.Doi),
            (nameof(fields.Note), fields.Note),
        ];

    /// <summary>Whether pages run backwards: "19–12". Shortened ends ("319–22") and article numbers do not.</summary>
    private static bool IsBackwards(string pages) =>
        FromTo.Match(pages) is { Success: true } m
        && (m.Groups[3].Length == 0 || m.Groups[1].Value == m.Groups[3].Value)
        && m.Groups[4].Length >= m.Groups[2].Length
        && long.Parse(m.Groups[4].Value, System.Globalization.CultureInfo.InvariantCulture)
            < long.Parse(m.Groups[2].Value, System.Globalization.CultureInfo.InvariantCulture);
}
