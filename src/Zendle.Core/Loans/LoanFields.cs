using System.Globalization;
using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Core.Loans;

/// <summary>What is asked for (ISO 18626, closed code list "ServiceType").</summary>
public enum LoanService
{
    /// <summary>A copy to keep.</summary>
    Copy,

    /// <summary>The item itself, to give back.</summary>
    Loan,
}

/// <summary>
/// What a request says of an item, as a person reads and mends it. Texts are never null; empty says nothing.
/// </summary>
public sealed record LoanFields
{
    /// <summary>Kind of publication (ISO 18626, open code list "PublicationType").</summary>
    public required string Kind { get; init; }

    /// <summary>Copy or loan.</summary>
    public required LoanService Service { get; init; }

    /// <summary>Title of what is wanted.</summary>
    public required string Title { get; init; }

    /// <summary>Its people, as they are printed.</summary>
    public string People { get; init; } = "";

    /// <summary>Title of the journal or book it is in; empty when it stands for itself.</summary>
    public string In { get; init; } = "";

    /// <summary>Volume.</summary>
    public string Volume { get; init; } = "";

    /// <summary>Issue.</summary>
    public string Issue { get; init; } = "";

    /// <summary>Pages, "12–19", or the number of an article.</summary>
    public string Pages { get; init; } = "";

    /// <summary>Year, or a date as far as it is told.</summary>
    public string Date { get; init; } = "";

    /// <summary>Edition.</summary>
    public string Edition { get; init; } = "";

    /// <summary>Publisher.</summary>
    public string Publisher { get; init; } = "";

    /// <summary>ISSN of the journal.</summary>
    public string Issn { get; init; } = "";

    /// <summary>ISBN of the book.</summary>
    public string Isbn { get; init; } = "";

    /// <summary>DOI.</summary>
    public string Doi { get; init; } = "";

    /// <summary>What else the desk should know.</summary>
    public string Note { get; init; } = "";

    /// <summary>Whether what is wanted is part of something: an article, a chapter, a paper.</summary>
    public bool IsPart => In.Length > 0;

    private const int MostPeople = 5;

    /// <summary>Fills the fields from a work. A book is asked for as a loan, anything else as a copy.</summary>
    /// <param name="work">What was chosen from its records.</param>
    public static LoanFields Of(ChosenFields work)
    {
        var (type, venue) = (work.Type.Value, work.Venue.Value);
        var isWhole = type is DocumentType.Book or DocumentType.Thesis;
        var people = work.People.Value.Select(p => p.Inverted).ToArray();
        return new()
        {
            Kind = KindOf(type),
            Service = isWhole ? LoanService.Loan : LoanService.Copy,
            Title = work.Title.Value,
            People = string.Join("; ", people.Take(MostPeople)) + (people.Length > MostPeople ? "; et al." : ""),
            In = isWhole ? "" : venue?.Title ?? "",
            Volume = venue?.Volume ?? "",
            Issue = venue?.Issue ?? "",
            Pages = venue?.FirstPage is { } first
                ? venue.EndPage is { } end
                    ? $"{first}–{end}"
                    : first
                : "",
            Date = work.Date ?? work.Year.Value?.ToString(CultureInfo.InvariantCulture) ?? "",
            Publisher = work.Publisher.Value ?? "",
            Issn = venue?.Issn ?? "",
            Isbn = work.Isbn.Value ?? "",
            Doi = work.Doi.Value ?? "",
        };
    }

    private static string KindOf(DocumentType type) =>
        type switch
        {
            DocumentType.Book => "Book",
            DocumentType.Chapter => "Chapter",
            DocumentType.Thesis => "Thesis",
            DocumentType.Report => "Report",
            DocumentType.ConferencePaper => "ConferenceProc",
            DocumentType.Preprint => "Manuscript",
            _ => "Article",
        };
}
