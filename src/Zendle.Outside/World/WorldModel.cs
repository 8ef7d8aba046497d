namespace Zendle.Outside.World;

/// <summary>A person of the made-up world, with the changes of a working life.</summary>
/// <param name="Id">Number in the world, from 0.</param>
/// <param name="Family">Family name at birth.</param>
/// <param name="Given">Given names, with a middle initial where there is one.</param>
/// <param name="LaterFamily">Family name after <see cref="RenamedIn"/>; null when it never changed.</param>
/// <param name="RenamedIn">Year of the change of name; 0 for none.</param>
/// <param name="Orcid">ORCID iD; null for those without.</param>
/// <param name="Institute">First place of work.</param>
/// <param name="LaterInstitute">Place of work after <see cref="MovedIn"/>; null when the person stayed.</param>
/// <param name="MovedIn">Year of the move; 0 for none.</param>
/// <param name="From">First year of work.</param>
/// <param name="To">Last year of work.</param>
public sealed record Person(
    int Id,
    string Family,
    string Given,
    string? LaterFamily,
    int RenamedIn,
    string? Orcid,
    string Institute,
    string? LaterInstitute,
    int MovedIn,
    int From,
    int To
)
{
    /// <summary>How the person signs a work of a year. iDs were given out from 2012 on.</summary>
    public Signature SignsIn(int year) =>
        new(
            this,
            LaterFamily is not null && year >= RenamedIn ? LaterFamily : Family,
            Given,
            year >= 2012 ? Orcid : null,
            LaterInstitute is not null && year >= MovedIn ? LaterInstitute : Institute
        );
}

/// <summary>A person's name and place as signed on one work.</summary>
public sealed record Signature(Person Person, string Family, string Given, string? Orcid, string Institute);

/// <summary>People who work together on a topic at one place.</summary>
/// <param name="Topic">The topic.</param>
/// <param name="From">First year.</param>
/// <param name="To">Last year.</param>
/// <param name="Institute">Where it is.</param>
/// <param name="Signed">Everybody who signed a work of it, once for each work.</param>
public sealed record Lab(Topic Topic, int From, int To, string Institute, List<Person> Signed);

/// <summary>A journal of the made-up world.</summary>
public sealed record Journal(int Id, string Title, string Issn, string Publisher, string Area, bool Curated, bool Open);

/// <summary>What one piece of research was and found; several works may report it.</summary>
/// <param name="Id">Number of the study.</param>
/// <param name="Design">Kind of design, from the topic's kind of study.</param>
/// <param name="Place">Where it was done.</param>
/// <param name="Country">The place's country.</param>
/// <param name="Setting">Habitat or surroundings.</param>
/// <param name="Things">What was studied.</param>
/// <param name="Response">What was measured.</param>
/// <param name="Factor">What was thought to act on it.</param>
/// <param name="Direction">−1 fell, 0 no difference, 1 rose.</param>
/// <param name="Effect">Size of the effect in per cent; 0 without one.</param>
/// <param name="Figures">Its sizes, years and other figures.</param>
public sealed record Study(
    int Id,
    string Design,
    string Place,
    string Country,
    string Setting,
    string Things,
    string Response,
    string Factor,
    int Direction,
    int Effect,
    StudyFigures Figures
);

/// <summary>A work as it truly is, before any database describes it.</summary>
public sealed record Work
{
    /// <summary>Number in the world, from 0, by date.</summary>
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

    /// <summary>People in order; editors of a book.</summary>
    public required Signature[] People { get; init; }

    /// <summary>The research it reports.</summary>
    public required Study Study { get; init; }

    /// <summary>Journal; null for what did not appear in one.</summary>
    public Journal? Journal { get; init; }

    /// <summary>Title of the proceedings or of the series; null for none.</summary>
    public string? Proceedings { get; init; }

    /// <summary>The book a chapter stands in; null for what is no chapter.</summary>
    public Work? Book { get; init; }

    /// <summary>Publisher of a book.</summary>
    public string? Publisher { get; init; }

    /// <summary>ISBN of a book.</summary>
    public string? Isbn { get; init; }

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

    /// <summary>
    /// Number of the work that a correction, a retraction notice or a comment speaks of; −1 for none.
    /// </summary>
    public int About { get; init; } = -1;

    /// <summary>Number of the work that it came out beside, with nearly the same title; −1 for none.</summary>
    public int CompanionOf { get; init; } = -1;

    /// <summary>How readily others cite it, 1 for an ordinary work.</summary>
    public double Appeal { get; init; } = 1;

    /// <summary>Year in which a sleeping work was found; 0 for others.</summary>
    public int FoundIn { get; init; }

    /// <summary>Numbers of the works it cites.</summary>
    public int[] Cites { get; init; } = [];

    /// <summary>How many references it has to works nobody describes.</summary>
    public int Strays { get; init; }

    /// <summary>Title of what it appeared in; null for what stands alone.</summary>
    public string? Venue => Journal?.Title ?? Proceedings ?? Book?.Title;
}
