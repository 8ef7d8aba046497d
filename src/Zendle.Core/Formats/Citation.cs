using System.Globalization;
using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Core.Formats;

/// <summary>What an export says of one work: the work's chosen fields with the review's judgement.</summary>
public sealed record Citation
{
    /// <summary>Permanent id of the work in this installation.</summary>
    public required int WorkId { get; init; }

    /// <summary>Key under which the review cites it, as long as the review lasts.</summary>
    public string Key { get; init; } = "";

    /// <summary>Title.</summary>
    public required string Title { get; init; }

    /// <summary>Authors, in order; none where only editors stand for the work.</summary>
    public IReadOnlyList<PersonName> Authors { get; init; } = [];

    /// <summary>Editors of the work, or of the book it is in.</summary>
    public IReadOnlyList<PersonName> Editors { get; init; } = [];

    /// <summary>Year, or null.</summary>
    public int? Year { get; init; }

    /// <summary>Date as far as it is told beyond the year, W3CDTF; null for none.</summary>
    public string? Date { get; init; }

    /// <summary>Kind of document.</summary>
    public DocumentType Type { get; init; }

    /// <summary>Which thesis; null when not said or none.</summary>
    public string? Genre { get; init; }

    /// <summary>Those who paid.</summary>
    public IReadOnlyList<string> Funders { get; init; } = [];

    /// <summary>Series, or null.</summary>
    public string? Series { get; init; }

    /// <summary>Licence, or null.</summary>
    public string? Licence { get; init; }

    /// <summary>Language code, or null.</summary>
    public string? Language { get; init; }

    /// <summary>Venue with the place in it, or null.</summary>
    public VenuePart? Venue { get; init; }

    /// <summary>Publisher, or null.</summary>
    public string? Publisher { get; init; }

    /// <summary>DOI, or null.</summary>
    public string? Doi { get; init; }

    /// <summary>ISBN, or null.</summary>
    public string? Isbn { get; init; }

    /// <summary>Abstract; empty for none.</summary>
    public string Abstract { get; init; } = "";

    /// <summary>Keywords.</summary>
    public IReadOnlyList<string> Keywords { get; init; } = [];

    /// <summary>Free copies first.</summary>
    public IReadOnlyList<Copy> Copies { get; init; } = [];

    /// <summary>Names of the databases that hold it.</summary>
    public IReadOnlyList<string> Databases { get; init; } = [];

    /// <summary>Stage word: found, kept, set aside.</summary>
    public string Stage { get; init; } = "";

    /// <summary>Reason it was set aside, or null.</summary>
    public string? Reason { get; init; }

    /// <summary>Tags in the review.</summary>
    public IReadOnlyList<string> Tags { get; init; } = [];

    /// <summary>Citations, merged over databases.</summary>
    public int Cited { get; init; }

    /// <summary>The month of publication, 1–12; null when not told.</summary>
    public int? Month =>
        Date is { Length: >= 7 }
        && int.TryParse(
            Date.AsSpan(5, 2),
            System.Globalization.NumberStyles.None,
            System.Globalization.CultureInfo.InvariantCulture,
            out var m
        )
        && m is >= 1 and <= 12
            ? m
            : null;

    /// <summary>The day of publication; null when not told.</summary>
    public int? Day =>
        Month is not null
        && Date is { Length: 10 }
        && int.TryParse(
            Date.AsSpan(8, 2),
            System.Globalization.NumberStyles.None,
            System.Globalization.CultureInfo.InvariantCulture,
            out var d
        )
        && d is >= 1 and <= 31
            ? d
            : null;

    /// <summary>Whether it stands in a book or in proceedings.</summary>
    public bool IsInBook => Type is DocumentType.Chapter or DocumentType.ConferencePaper;

    /// <summary>First copy anyone may read, or null.</summary>
    public string? FreeAddress => Copies.FirstOrDefault(c => c.Access == CopyAccess.Free)?.Address;

    /// <summary>What a work's records say of it; what a review says of it is left out.</summary>
    /// <param name="workId">The work.</param>
    /// <param name="chosen">The fields chosen from its records.</param>
    public static Citation Of(int workId, ChosenFields chosen) =>
        new()
        {
            WorkId = workId,
            // Exports give keys that last; what stays on the screen needs one for the moment only.
            Key = string.Create(CultureInfo.InvariantCulture, $"work-{workId}"),
            Title = chosen.Title.Value,
            Authors = [.. chosen.People.Value.Where(p => p.Role is null)],
            Editors = [.. chosen.People.Value.Where(p => p.Role == "editor"), .. chosen.Editors],
            Year = chosen.Year.Value,
            Date = chosen.Date,
            Type = chosen.Type.Value,
            Genre = chosen.Genre,
            Language = chosen.Language.Value,
            Venue = chosen.Venue.Value,
            Publisher = chosen.Publisher.Value,
            Series = chosen.Series,
            Funders = chosen.Funders,
            Licence = chosen.Licence,
            Doi = chosen.Doi.Value,
            Isbn = chosen.Isbn.Value,
            Abstract = chosen.Abstract.Value,
            Keywords =
            [
                .. chosen.Keywords.Value.Concat(chosen.ControlledTerms).Distinct(StringComparer.OrdinalIgnoreCase),
            ],
            Copies = [.. chosen.Copies.OrderBy(c => c.Access != CopyAccess.Free)],
        };
}
