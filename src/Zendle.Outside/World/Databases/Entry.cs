namespace Zendle.Outside.World.Databases;

/// <summary>How a database writes names.</summary>
public enum NameForm
{
    /// <summary>Family and given names apart, in full.</summary>
    Full,

    /// <summary>Family name and initials.</summary>
    Initials,

    /// <summary>Family name without diacritics, and the first initial only.</summary>
    Bare,

    /// <summary>The whole name in one part, given names first.</summary>
    Whole,

    /// <summary>The whole name in one part, inverted, with the year of birth as catalogues add it.</summary>
    Catalogue,
}

/// <summary>How a database gives references.</summary>
public enum ReferenceForm
{
    /// <summary>None.</summary>
    None,

    /// <summary>As printed strings, in the style of the venue.</summary>
    Printed,

    /// <summary>In parts: title, first person, year, often a DOI.</summary>
    Parts,

    /// <summary>Only those that have one, as DOIs.</summary>
    Dois,
}

/// <summary>How one database describes a work at one time.</summary>
public sealed record Entry
{
    /// <summary>OAI identifier.</summary>
    public required string Identifier { get; init; }

    /// <summary>When it became so.</summary>
    public required DateTimeOffset Datestamp { get; init; }

    /// <summary>Whether it is deleted.</summary>
    public bool Deleted { get; init; }

    /// <summary>The work it is about.</summary>
    public required Work Work { get; init; }

    /// <summary>Kind, in the database's words.</summary>
    public required string Type { get; init; }

    /// <summary>Title as the database spells it.</summary>
    public required string Title { get; init; }

    /// <summary>A second title: the original one beside a translated one; null for none.</summary>
    public string? OtherTitle { get; init; }

    /// <summary>People as the database names them, in its order.</summary>
    public required IReadOnlyList<Signature> People { get; init; }

    /// <summary>How names are written.</summary>
    public NameForm Names { get; init; }

    /// <summary>Year as the database has it.</summary>
    public required int Year { get; init; }

    /// <summary>Abstract.</summary>
    public string Abstract { get; init; } = "";

    /// <summary>Keywords.</summary>
    public string[] Keywords { get; init; } = [];

    /// <summary>Controlled terms, with the vocabulary they stand in.</summary>
    public string[] Descriptors { get; init; } = [];

    /// <summary>The vocabulary of <see cref="Descriptors"/>.</summary>
    public string Vocabulary { get; init; } = "local";

    /// <summary>DOI as the database writes it.</summary>
    public string? Doi { get; init; }

    /// <summary>
    /// The database's own number, with its kind: an extract carries the numbers of what it is taken from.
    /// </summary>
    public (string Kind, string Number)? Own { get; init; }

    /// <summary>ISBN as the database writes it.</summary>
    public string? Isbn { get; init; }

    /// <summary>DOI of another version.</summary>
    public string? OtherVersion { get; init; }

    /// <summary>Which version is described.</summary>
    public string? Version { get; init; }

    /// <summary>Title of the venue as the database writes it; null for none.</summary>
    public string? Venue { get; init; }

    /// <summary>Whether pages are missing.</summary>
    public bool NoPages { get; init; }

    /// <summary>Date as the database writes it; null for the bare year.</summary>
    public string? Date { get; init; }

    /// <summary>Table of contents.</summary>
    public string[] Contents { get; init; } = [];

    /// <summary>The database's own citation count.</summary>
    public int? Cited { get; init; }

    /// <summary>
    /// Which of the work's references the database has: the place in the list, and the number of the work cited (−1 for
    /// one nobody describes).
    /// </summary>
    public IReadOnlyList<(int Place, int Work)> References { get; init; } = [];

    /// <summary>How references are given.</summary>
    public ReferenceForm ReferencesAs { get; init; }

    /// <summary>Whether the entry is known only from the reference lists of others.</summary>
    public bool OnlyCited { get; init; }

    /// <summary>From which day its manuscript may be read; null where it is not told of, or is not held back.</summary>
    public DateOnly? OpensOn =>
        Copies.Any(c => c.Path.StartsWith(Deposit.HoldsBack, StringComparison.Ordinal)) ? Deposit.OpensOn(Work) : null;

    /// <summary>Copies: path on this host, access, version.</summary>
    public IReadOnlyList<(string Path, string Access, string Version)> Copies { get; init; } = [];

    /// <summary>Sets it belongs to.</summary>
    public IReadOnlyList<string> Sets { get; init; } = [];
}

/// <summary>
/// A database of the outside: its name, what it says of itself, and its entries, each with all its states by time.
/// </summary>
/// <param name="Key">Name in addresses.</param>
/// <param name="Name">Name as people know it.</param>
/// <param name="Description">What it says of itself.</param>
/// <param name="Entries">Entries in all their states.</param>
/// <param name="Works">All works, for the references.</param>
/// <param name="Noise">How often things go wrong, 1 for as usual.</param>
public sealed record OutsideDatabase(
    string Key,
    string Name,
    string Description,
    IReadOnlyList<Entry> Entries,
    IReadOnlyList<Work> Works,
    double Noise
)
{
    private readonly Lock gate = new();
    private (DateTimeOffset At, List<Entry> Entries)? last;

    /// <summary>
    /// Newest state of every entry at a moment, ordered by identifier, not by datestamp: the protocol promises no
    /// order.
    /// </summary>
    public IReadOnlyList<Entry> At(DateTimeOffset now)
    {
        lock (gate)
        {
            if (last is { } known && known.At == now)
                return known.Entries;
            List<Entry> entries =
            [
                .. Entries
                    .Where(e => e.Datestamp <= now)
                    .GroupBy(e => e.Identifier)
                    .Select(g => g.MaxBy(e => e.Datestamp)!)
                    .OrderBy(e => e.Identifier, StringComparer.Ordinal),
            ];
            last = (now, entries);
            return entries;
        }
    }
}
