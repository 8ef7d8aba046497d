using Zendle.Core.Records;

namespace Zendle.Core.Formats;

/// <summary>What an export says of one work: the work's chosen fields with the review's judgement.</summary>
public sealed record Citation
{
    /// <summary>Permanent id of the work in this installation.</summary>
    public required int WorkId { get; init; }
    /// <summary>Title.</summary>
    public required string Title { get; init; }
    /// <summary>People, in order.</summary>
    public IReadOnlyList<PersonName> People { get; init; } = [];
    /// <summary>Year, or null.</summary>
    public int? Year { get; init; }
    /// <summary>Kind of document.</summary>
    public DocumentType Type { get; init; }
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

    /// <summary>First copy anyone may read, or null.</summary>
    public string? FreeAddress => Copies.FirstOrDefault(c => c.Access == CopyAccess.Free)?.Address;
}
