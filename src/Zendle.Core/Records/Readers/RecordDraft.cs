namespace Zendle.Core.Records.Readers;

/// <summary>A statement with the place in the record where it stands.</summary>
/// <param name="Where">Name of the element, as the format calls it.</param>
/// <param name="Text">What stands there, cleaned.</param>
internal readonly record struct Said(string Where, string Text);

/// <summary>A description of the work.</summary>
/// <param name="Text">As it came.</param>
/// <param name="Language">Language that the element names; null for none.</param>
internal readonly record struct Described(string Text, string? Language);

/// <summary>
/// What a record says, sorted by field but not yet chosen among. Readers of formats fill it; which of several dates,
/// abstracts, DOIs and kinds hold is decided here, once, whatever the format.
/// </summary>
internal sealed class RecordDraft
{
    /// <summary>Titles; the first is the work's, the others stand beside it.</summary>
    public List<string> Titles { get; } = [];

    /// <summary>People in order; with a role where it is not that of an author.</summary>
    public List<PersonName> People { get; } = [];

    /// <summary>Editors who are told apart from those who wrote.</summary>
    public List<PersonName> Editors { get; } = [];

    public List<string> Funders { get; } = [];

    /// <summary>Dates that may be the date of issue.</summary>
    public List<Said> Dates { get; } = [];

    /// <summary>Dates that stand for it only where there is no other.</summary>
    public List<Said> LesserDates { get; } = [];

    public List<Said> Types { get; } = [];

    public List<string> Languages { get; } = [];

    public List<Described> Descriptions { get; } = [];

    public List<string> Contents { get; } = [];

    public List<string> Keywords { get; } = [];

    public List<string> ControlledTerms { get; } = [];

    public List<string> Subjects { get; } = [];

    public List<string> Places { get; } = [];

    /// <summary>Numbers and addresses of the work itself, with or without label.</summary>
    public List<string> Identifiers { get; } = [];

    /// <summary>Ties to others, each behind the name of the tie: "isPartOf: 1234-5679".</summary>
    public List<string> Relations { get; } = [];

    public List<Reference> References { get; } = [];

    public List<RelatedWork> Related { get; } = [];

    /// <summary>Lines that tell where the work appeared, volume and pages among them.</summary>
    public List<Said> Sources { get; } = [];

    /// <summary>Where the work appeared, told in parts; stands before what lines tell.</summary>
    public VenuePart? Venue { get; set; }

    /// <summary>ISBN of the book that the work is a part of.</summary>
    public string? HostIsbn { get; set; }

    public List<string> Rights { get; } = [];

    /// <summary>The day from which the text is available, in any form; null when not told.</summary>
    public string? Available { get; set; }

    /// <summary>Places of the text that are told as such; those among the identifiers are found.</summary>
    public List<Copy> Copies { get; } = [];

    public string? Publisher { get; set; }

    public string? Genre { get; set; }

    public WorkVersion? Version { get; set; }

    public List<string> Notes { get; } = [];

    private readonly List<Reading> readings = [];

    /// <summary>Chooses, and makes the record.</summary>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public Record ToRecord(string identifier, DateTimeOffset datestamp)
    {
        var title = TitleText.Closed(Titles.Count > 0 ? Titles[0] : "");
        var inside = PlainText.InsideBrackets(title);
        if (title.Length == 0)
            Notes.Add(ReaderNotes.NoTitle);
        var (people, editors) = PeopleAndEditors();
        var date = ChosenDate();
        var language = ChosenLanguage();
        var descriptions = ChosenDescriptions(language);
        var (doi, versions, relations) = ChosenDoi();
        var venue = ChosenVenue(title, relations.PartOf);
        var rights = Records.Rights.Of(Rights.Concat(Embargoes()));
        return new()
        {
            Identifier = identifier,
            Datestamp = datestamp,
            Title = inside ?? title,
            TitleIsTranslated = inside is not null,
            OtherTitles = [.. Titles.Skip(1).Where(t => t.Length > 0 && t != title).Distinct()],
            Abstract = descriptions.Abstract,
            OtherAbstracts = descriptions.Others,
            Contents = [.. Contents.Where(c => c.Length > 0).Take(500)],
            Keywords = Values(Keywords),
            ControlledTerms = Values(ControlledTerms),
            Subjects = Values(Subjects),
            Places = Values(Places),
            People = people,
            Editors = editors,
            Funders = [.. Funders.Where(f => f.Length > 0).Distinct()],
            Year = date?.Year,
            Date = date?.Date,
            Type = ChosenType(),
            Genre = Genre ?? Types.Select(t => DocumentTypes.ThesisGenre(t.Text)).FirstOrDefault(g => g is not null),
            Language = language,
            Publisher = Publisher is { Length: > 0 } ? Publisher : null,
            Venue = venue,
            Doi = doi,
            Versions = versions,
            Isbn = Identifiers.Select(Records.Identifiers.Isbn).FirstOrDefault(i => i is not null) ?? HostIsbn,
            OwnNumbers = [.. Identifiers.SelectMany(NumbersOf).Distinct()],
            Licence = rights.Licence,
            Version = Version ?? Types.Select(t => WorkVersions.Read(t.Text)).FirstOrDefault(v => v is not null),
            Copies = [.. AllCopies(rights)],
            References = References.Count == 0 ? relations.References : [.. References, .. relations.References],
            Related = Related,
            Readings = readings,
            Notes = Notes,
        };
    }

    /// <summary>Of people of whom some edited and some wrote, the authors are those who wrote.</summary>
    private (List<PersonName> People, List<PersonName> Editors) PeopleAndEditors()
    {
        var wrote = People.FindAll(p => p.Role is null);
        if (wrote.Count > 0)
            return (Bounded(wrote), [.. People.Where(p => p.Role is "editor"), .. Editors]);
        // Where nobody wrote it whole, those who brought it together stand for it; they are called editors everywhere.
        return (Bounded(People.Count > 0 ? People : Editors), []);
    }

    private List<PersonName> Bounded(List<PersonName> people)
    {
        if (people.Count <= ModsReader.MostPeople)
            return people;
        Notes.Add(ReaderNotes.TooManyPeople(ModsReader.MostPeople));
        return people[..ModsReader.MostPeople];
    }

    private PublicationDate? ChosenDate()
    {
        var date = PublicationDate.Choose([.. Dates.Select(d => d.Text)]);
        var pool = Dates;
        if (date is null && LesserDates.Count > 0)
            (date, pool) = (PublicationDate.Choose([.. LesserDates.Select(d => d.Text)]), LesserDates);
        if (date is null)
        {
            if (Dates.Count > 0)
                Notes.Add(ReaderNotes.Implausible(Dates[0].Text));
            return null;
        }
        if (date.Why is { } why)
            Notes.Add(why);
        var where = pool.First(d => d.Text == date.Written).Where;
        readings.Add(new("date", $"{where} “{ReaderNotes.Brief(date.Written)}”", date.Why ?? ""));
        return date;
    }

    private string? ChosenLanguage()
    {
        var code = Languages.Select(Records.Languages.Code).FirstOrDefault(c => c is not null);
        if (code is null && Languages.Count > 0)
            Notes.Add(ReaderNotes.UnknownLanguage(Languages[0]));
        return code;
    }

    private DocumentType ChosenType()
    {
        foreach (var said in Types)
        {
            if (DocumentTypes.Read(said.Text) is not (not DocumentType.Other and var type))
                continue;
            readings.Add(new("type", $"{said.Where} “{ReaderNotes.Brief(said.Text)}”", ""));
            return type;
        }
        return DocumentType.Other;
    }

    private BareDescriptions ChosenDescriptions(string? language)
    {
        // Cleaned texts are compared; what is kept is read from what came, so that a cut can be noted.
        var raw = Descriptions
            .Select(d => (Clean: PlainText.Clean(d.Text), Said: d))
            .Where(d => d.Clean.Length > 0)
            .GroupBy(d => d.Clean)
            .ToDictionary(g => g.Key, g => g.First().Said);
        var sorted = BareDescriptions.Of([.. raw.Select(r => new Described(r.Key, r.Value.Language))], language);
        Notes.AddRange(sorted.Remarks.Take(6).Select(ReaderNotes.NoAbstract));
        if (sorted.Abstract.Length == 0)
            return sorted;
        var why =
            raw.Count < 2
                ? ""
                : $"Of {raw.Count} descriptions the longest that is running "
                    + $"text{(language is null ? "" : " in the language of the work")}.";
        readings.Add(new("abstract", $"description “{ReaderNotes.Brief(sorted.Abstract)}”", why));
        if (raw[sorted.Abstract].Text is { Length: > PlainText.Longest } longer)
            Notes.Add(ReaderNotes.Cut("abstract", longer.Length));
        return sorted;
    }

    private (string? Doi, IReadOnlyList<VersionLink> Versions, BareRelations Relations) ChosenDoi()
    {
        string[] dois = [.. Identifiers.Select(Records.Identifiers.Doi).OfType<string>().Distinct()];
        var related = BareRelations.Of(Relations, dois.FirstOrDefault());
        if (related.Own is { } own)
            readings.Add(
                dois.Contains(own)
                    ? new(
                        "DOI",
                        $"identifier “{ReaderNotes.Brief(Identifiers.First(i => Records.Identifiers.Doi(i) == own))}”",
                        dois.Length > 1 ? $"The first of {dois.Length}; the others are kept as other versions." : ""
                    )
                    : new("DOI", "relation", "No identifier is a DOI; the relation names the work’s own.")
            );
        var others = related
            .Versions.Select(v => v.Doi)
            .Concat(dois)
            .Append(Records.Identifiers.OfAllVersions(related.Own))
            .OfType<string>()
            .Where(d => d != related.Own)
            .Distinct();
        return (related.Own, [.. others.Select(d => new VersionLink(d))], related);
    }

    private VenuePart? ChosenVenue(string title, string? partOfIssn)
    {
        if (Venue is { Title.Length: > 0 } told)
            return told with { Issn = told.Issn ?? partOfIssn };
        // Some put a citation of the whole work there, or among its identifiers.
        Said[] lines =
        [
            .. Sources.Select(s => SourceLine.Behind(s.Text, title) is { } rest ? s with { Text = rest } : s),
            .. Identifiers
                .Select(i => new Said("identifier", SourceLine.Behind(i, title) ?? ""))
                .Where(s => s.Text.Length > 0),
        ];
        if (SourceLine.Read([.. lines.Select(s => s.Text)]) is not { } source)
            return null;
        var written = Array.Find(lines, s => s.Text.Contains(source.Title, StringComparison.Ordinal));
        if (written == default)
            written = lines[0];
        // A citation is believed when volume or pages could be told; else its rest may be anything.
        if (written.Where == "identifier" && source.Volume is null && source.FirstPage is null)
            return null;
        readings.Add(
            new(
                "venue",
                $"{written.Where} “{ReaderNotes.Brief(written.Text)}”",
                source.Volume is null && source.FirstPage is null
                    ? "Volume and pages could not be told apart."
                    : "Volume, issue and pages were told apart by their signs."
            )
        );
        // What was told in parts fills what the line leaves open.
        return source with
        {
            Issn = source.Issn ?? Venue?.Issn ?? partOfIssn,
            Volume = source.Volume ?? Venue?.Volume,
            Issue = source.Issue ?? Venue?.Issue,
            FirstPage = source.FirstPage ?? Venue?.FirstPage,
            LastPage = source.FirstPage is null ? Venue?.LastPage : source.LastPage,
        };
    }

    private IEnumerable<Copy> AllCopies(Rights rights) =>
        rights.Over([
            .. Copies
                .Concat(
                    Identifiers
                        .Where(i => WebAddress.Of(i) is { } address && !IsResolver(address))
                        .Select(i => new Copy(i, CopyAccess.Unknown))
                )
                .DistinctBy(c => c.Address),
        ]);

    /// <summary>
    /// Ends of embargoes that stand among the dates: told as such, or as the day from which a text that is held back is
    /// available.
    /// </summary>
    private IEnumerable<string> Embargoes()
    {
        foreach (var date in Dates)
            if (EmbargoEnd.IsTold(date.Text))
                yield return date.Text;
        if (Available is { } day && Rights.Any(EmbargoEnd.IsTold))
            yield return EmbargoEnd.Said(day);
    }

    private static List<string> Values(List<string> values) =>
        [.. values.Where(v => v.Length is > 0 and < 300).Distinct(StringComparer.OrdinalIgnoreCase).Take(200)];

    private static IEnumerable<string> NumbersOf(string identifier)
    {
        if (Records.Identifiers.Handle(identifier) is { } handle)
            yield return $"hdl:{handle}";
        if (Records.Identifiers.Ark(identifier) is { } ark)
            yield return ark;
        if (Records.Identifiers.Urn(identifier) is { } urn)
            yield return urn;
        if (Records.Identifiers.Preprint(identifier) is { } preprint)
            yield return preprint;
    }

    /// <summary>An address that leads from a number to wherever the text lies today is no place of a copy.</summary>
    private static bool IsResolver(Uri address) =>
        address.Host is "doi.org" or "dx.doi.org" or "www.doi.org" or "orcid.org";
}
