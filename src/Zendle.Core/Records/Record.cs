using System.Globalization;

namespace Zendle.Core.Records;

/// <summary>One database's description of a work, as it came, brought into our fields but not yet believed.</summary>
/// <remarks>
/// Every text is plain (no markup), trimmed, and in the database's own spelling. Absent means null or empty, never
/// "unknown".
/// </remarks>
public sealed record Record
{
    /// <summary>
    /// The identifier the database gave the record (OAI-PMH 2.0, section 2.4); unique inside one database.
    /// </summary>
    public required string Identifier { get; init; }

    /// <summary>When the database last changed the record, UTC.</summary>
    public DateTimeOffset Datestamp { get; init; }

    /// <summary>Title with its subtitle; empty when the database has none.</summary>
    public string Title { get; init; } = "";

    /// <summary>True when the database gave a translated title in brackets instead of the original one.</summary>
    public bool TitleIsTranslated { get; init; }

    /// <summary>Further titles: the original one beside a translated one, alternative and uniform titles.</summary>
    public IReadOnlyList<string> OtherTitles { get; init; } = [];

    /// <summary>Abstract; empty when the database has none.</summary>
    public string Abstract { get; init; } = "";

    /// <summary>Abstracts in other languages, and shorter ones.</summary>
    public IReadOnlyList<OtherAbstract> OtherAbstracts { get; init; } = [];

    /// <summary>Titles of the parts of a book, in order.</summary>
    public IReadOnlyList<string> Contents { get; init; } = [];

    /// <summary>Keywords given by the authors, in order.</summary>
    public IReadOnlyList<string> Keywords { get; init; } = [];

    /// <summary>
    /// Terms of a controlled vocabulary that the database's indexers gave, in order. They belong to the keywords and so
    /// to the default scope of a search.
    /// </summary>
    public IReadOnlyList<string> ControlledTerms { get; init; } = [];

    /// <summary>Subject categories of the database.</summary>
    public IReadOnlyList<string> Subjects { get; init; } = [];

    /// <summary>Authors, or editors where there are no authors, in order.</summary>
    public IReadOnlyList<PersonName> People { get; init; } = [];

    /// <summary>
    /// Editors of the book that the work is a part of, or of the work beside its authors. A book that has no authors
    /// has its editors as <see cref="People"/>, with their role.
    /// </summary>
    public IReadOnlyList<PersonName> Editors { get; init; } = [];

    /// <summary>Year of publication, 1000–2999; null when absent or implausible.</summary>
    public int? Year { get; init; }

    /// <summary>
    /// Date of publication as far as it is told: "2021", "2021-03" or "2021-03-18" (W3CDTF); null when absent.
    /// </summary>
    public string? Date { get; init; }

    /// <summary>Kind of document.</summary>
    public DocumentType Type { get; init; } = DocumentType.Other;

    /// <summary>
    /// Of a thesis which one: "Doctoral thesis", "Master's thesis", "Bachelor's thesis"; null when not said, and for
    /// everything else.
    /// </summary>
    public string? Genre { get; init; }

    /// <summary>Language of the text, ISO 639-2/B code in lower case ("eng"); null when not said.</summary>
    public string? Language { get; init; }

    /// <summary>Where the work appeared; null for what stands alone.</summary>
    public VenuePart? Venue { get; init; }

    /// <summary>Publisher's name.</summary>
    public string? Publisher { get; init; }

    /// <summary>DOI, normalised by <see cref="Identifiers.Doi"/>.</summary>
    public string? Doi { get; init; }

    /// <summary>ISBN-13 without hyphens.</summary>
    public string? Isbn { get; init; }

    /// <summary>
    /// Numbers that databases give a work ("kind:number"), by which an extract and what it was taken from know each
    /// other.
    /// </summary>
    public IReadOnlyList<string> OwnNumbers { get; init; } = [];

    /// <summary>Countries and places the work is about.</summary>
    public IReadOnlyList<string> Places { get; init; } = [];

    /// <summary>Works it is tied to otherwise: what a correction speaks of, a series, a part, a review of it.</summary>
    public IReadOnlyList<RelatedWork> Related { get; init; } = [];

    /// <summary>True when the database knows the work only from the reference lists of others.</summary>
    public bool IsOnlyCited { get; init; }

    /// <summary>Names of those who paid for the work.</summary>
    public IReadOnlyList<string> Funders { get; init; } = [];

    /// <summary>Other versions of the same work the record points at.</summary>
    public IReadOnlyList<VersionLink> Versions { get; init; } = [];

    /// <summary>Which version the record itself describes; null when it does not say.</summary>
    public WorkVersion? Version { get; init; }

    /// <summary>What the work cites, as far as the database tells.</summary>
    public IReadOnlyList<Reference> References { get; init; } = [];

    /// <summary>How many citations the database counts inside itself; null when it does not count.</summary>
    public int? CitedCount { get; init; }

    /// <summary>Places where the text can be had.</summary>
    public IReadOnlyList<Copy> Copies { get; init; } = [];

    /// <summary>The first day on which a copy becomes free; null for none.</summary>
    public DateOnly? OpensOn => Copies.Min(c => c.OpensOn);

    /// <summary>The record as it is on a day: copies whose embargo has ended by then are free.</summary>
    public Record On(DateOnly day) => OpensOn <= day ? this with { Copies = [.. Copies.Select(c => c.On(day))] } : this;

    /// <summary>Licence of the text: its address, or the words of the record; null when none is named.</summary>
    public string? Licence { get; init; }

    /// <summary>
    /// From where in the record fields were taken that stand in several places or forms, and why from there.
    /// </summary>
    public IReadOnlyList<Reading> Readings { get; init; } = [];

    /// <summary>What the reader mended or left out, in sentences a person understands.</summary>
    public IReadOnlyList<string> Notes { get; init; } = [];

    /// <summary>Every title, the record's own first.</summary>
    public IEnumerable<string> Titles => OtherTitles.Prepend(Title);

    /// <summary>Every abstract, the record's own first.</summary>
    public IEnumerable<string> Abstracts => OtherAbstracts.Select(a => a.Text).Prepend(Abstract);

    /// <summary>All that is searched when no field is named.</summary>
    public IEnumerable<string> About => Titles.Concat(Keywords).Concat(ControlledTerms).Concat(Abstracts);
}

/// <summary>From where in a record a field was taken.</summary>
/// <param name="Field">The field, as the records are laid side by side: "date", "abstract", "venue", "type",
/// "DOI".</param>
/// <param name="From">Where it stood and what stood there, cut to a line.</param>
/// <param name="Why">Why it was taken from there, in a sentence; empty when there was no choice.</param>
public sealed record Reading(string Field, string From, string Why);

/// <summary>A name on a work, split as far as the source splits it.</summary>
/// <param name="Family">Family name, with its particle; the whole name where the source does not split it.</param>
/// <param name="Given">Given names or initials; empty when unknown.</param>
/// <param name="Orcid">ORCID iD with a valid check digit (ISO 7064 MOD 11-2), in the form 0000-0000-0000-0000; null
/// when absent.</param>
/// <param name="Affiliation">Where the person worked; null when not said.</param>
/// <param name="Role">What the person did, when not an author: "editor", "translator"; null for authors.</param>
public sealed record PersonName(
    string Family,
    string Given,
    string? Orcid = null,
    string? Affiliation = null,
    string? Role = null
)
{
    /// <summary>"Family, Given" — the form of catalogues and exports; the whole name where it is not split.</summary>
    public string Inverted => Given.Length == 0 ? Family : $"{Family}, {Given}";

    /// <summary>"Family, G. H." — the form shown in lists.</summary>
    public string Short => Given.Length == 0 ? Family : $"{Family}, {Initials}";

    /// <summary>Initials with full stops: "M. K."; hyphenated given names keep the hyphen.</summary>
    public string Initials =>
        string.Join(
            ' ',
            Given
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(part =>
                    string.Join(
                        '-',
                        part.Split('-', StringSplitOptions.RemoveEmptyEntries)
                            .Select(p => FirstLetter(p).ToUpperInvariant() + ".")
                    )
                )
        );

    /// <summary>The first letter, whole: one outside the basic plane is two characters long.</summary>
    private static string FirstLetter(string part) => part[..(char.IsSurrogatePair(part, 0) ? 2 : 1)];
}

/// <summary>The journal, book, proceedings or repository of a work, and the place in it.</summary>
/// <param name="Title">Title as the database spells it.</param>
/// <param name="Issn">ISSN in the form 0000-0000 with a valid check digit; null when absent.</param>
/// <param name="Volume">Volume as printed.</param>
/// <param name="Issue">Issue as printed.</param>
/// <param name="FirstPage">First page or article number, as printed.</param>
/// <param name="LastPage">Last page as printed, filled out ("118–31" becomes 131).</param>
public sealed record VenuePart(
    string Title,
    string? Issn = null,
    string? Volume = null,
    string? Issue = null,
    string? FirstPage = null,
    string? LastPage = null
)
{
    /// <summary>Last page where there is more than one; null for a single page or an article number.</summary>
    public string? EndPage => LastPage == FirstPage ? null : LastPage;

    /// <summary>
    /// How many pages there are from first to last; null where one of them is not printed, is no number behind the same
    /// letters ("S12", "S19"), or the last one comes first.
    /// </summary>
    public int? PageCount
    {
        get
        {
            if (FirstPage is null || LastPage is null)
                return null;
            var (first, last) = (FirstPage.TrimEnd(Digits), LastPage.TrimEnd(Digits));
            return
                first == last
                && int.TryParse(FirstPage.AsSpan(first.Length), CultureInfo.InvariantCulture, out var from)
                && int.TryParse(LastPage.AsSpan(last.Length), CultureInfo.InvariantCulture, out var to)
                && to >= from
                ? to - from + 1
                : null;
        }
    }

    private static readonly char[] Digits = [.. "0123456789"];

    /// <summary>"118–131", "e45"; null when no page is known.</summary>
    /// <param name="between">What stands between two pages.</param>
    public string? Pages(string between = "–") =>
        FirstPage is null || EndPage is null ? FirstPage : FirstPage + between + EndPage;
}

/// <summary>One entry of a reference list.</summary>
/// <param name="Text">The entry as printed, or put together from its parts.</param>
/// <param name="Doi">Normalised DOI; null when not given.</param>
/// <param name="Title">Title; null when the database gives only the printed text.</param>
/// <param name="FirstPerson">Family name of the first person; null when unknown.</param>
/// <param name="Year">Year; null when unknown.</param>
public sealed record Reference(
    string Text,
    string? Doi = null,
    string? Title = null,
    string? FirstPerson = null,
    int? Year = null
);

/// <summary>A place where a version's text can be had.</summary>
/// <param name="Address">Absolute http or https address.</param>
/// <param name="Access">What it takes to read it.</param>
/// <param name="Version">Which version lies there; null when not said.</param>
/// <param name="OpensOn">From which day anyone may read it, of one under embargo; null for none, or no day told.</param>
public sealed record Copy(string Address, CopyAccess Access, WorkVersion? Version = null, DateOnly? OpensOn = null)
{
    /// <summary>The copy as it is on a day: one whose embargo has ended by then is free.</summary>
    public Copy On(DateOnly day) => OpensOn <= day ? this with { Access = CopyAccess.Free, OpensOn = null } : this;
}

/// <summary>A tie to another work, as a record declares it.</summary>
/// <param name="Kind">Kind of tie, in the words of MODS: preceding, succeeding, original, series, constituent,
/// isReferencedBy, reviewOf.</param>
/// <param name="Title">Title of the other work; null when not said.</param>
/// <param name="Doi">Its DOI, normalised; null when not said.</param>
public sealed record RelatedWork(string Kind, string? Title, string? Doi);

/// <summary>A declared tie to another version of the same work.</summary>
/// <param name="Doi">DOI of the other version, normalised.</param>
public sealed record VersionLink(string Doi);

/// <summary>What it takes to read a copy.</summary>
public enum CopyAccess
{
    /// <summary>Not said.</summary>
    Unknown,

    /// <summary>Anyone may read it.</summary>
    Free,

    /// <summary>A subscription or a price stands before it.</summary>
    Closed,
}

/// <summary>Kinds of document Zendle tells apart.</summary>
public enum DocumentType
{
    /// <summary>Anything else, or not said.</summary>
    Other,

    /// <summary>Journal article with work of its own.</summary>
    Article,

    /// <summary>Narrative review.</summary>
    Review,

    /// <summary>Systematic review or meta-analysis.</summary>
    SystematicReview,

    /// <summary>Paper in proceedings.</summary>
    ConferencePaper,

    /// <summary>Editorial.</summary>
    Editorial,

    /// <summary>Letter to the editor or comment.</summary>
    Letter,

    /// <summary>Correction of another work.</summary>
    Correction,

    /// <summary>Notice that another work is withdrawn.</summary>
    RetractionNotice,

    /// <summary>Thesis.</summary>
    Thesis,

    /// <summary>Report.</summary>
    Report,

    /// <summary>Preprint.</summary>
    Preprint,

    /// <summary>Book.</summary>
    Book,

    /// <summary>Chapter of a book.</summary>
    Chapter,

    /// <summary>Dataset.</summary>
    Dataset,

    /// <summary>Manuscript that nobody has published: in planning, in writing, or under review.</summary>
    Manuscript,
}
