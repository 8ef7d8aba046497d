namespace Zendle.Outside.World;

/// <summary>A person of the made-up world.</summary>
public sealed record Person(int Id, string Family, string Given, string? Orcid, string Institute, string Area);

/// <summary>A journal of the made-up world.</summary>
public sealed record Journal(string Title, string Issn, string Publisher, string Area, bool Curated, bool Open);

/// <summary>A work as it truly is, before any database describes it.</summary>
public sealed record Work
{
    /// <summary>Number in the world, from 0, by year.</summary>
    public required int Id { get; init; }
    /// <summary>Its field.</summary>
    public required Topic Topic { get; init; }
    /// <summary>Kind of document.</summary>
    public required string Type { get; init; }
    /// <summary>Year.</summary>
    public required int Year { get; init; }
    /// <summary>Day of the year it appeared.</summary>
    public required int Day { get; init; }
    /// <summary>Language code.</summary>
    public required string Language { get; init; }
    /// <summary>Title in its own language.</summary>
    public required string Title { get; init; }
    /// <summary>English title of a foreign work; else null.</summary>
    public string? Translated { get; init; }
    /// <summary>Abstract.</summary>
    public required string Abstract { get; init; }
    /// <summary>Keywords.</summary>
    public required string[] Keywords { get; init; }
    /// <summary>People in order.</summary>
    public required Person[] People { get; init; }
    /// <summary>Journal; null for theses, reports, books, preprints.</summary>
    public Journal? Journal { get; init; }
    /// <summary>Volume.</summary>
    public int Volume { get; init; }
    /// <summary>Issue.</summary>
    public int Issue { get; init; }
    /// <summary>First page.</summary>
    public int FirstPage { get; init; }
    /// <summary>Last page.</summary>
    public int LastPage { get; init; }
    /// <summary>DOI under the example prefix; null for older or grey works.</summary>
    public string? Doi { get; init; }
    /// <summary>DOI of its preprint; null when there was none.</summary>
    public string? PreprintDoi { get; init; }
    /// <summary>Whether an accepted manuscript lies in the repository.</summary>
    public bool HasManuscript { get; init; }
    /// <summary>Who paid; null when not said.</summary>
    public string? Funder { get; init; }
    /// <summary>Numbers of the works it cites.</summary>
    public int[] Cites { get; init; } = [];
}
