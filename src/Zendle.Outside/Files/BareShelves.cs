using System.Globalization;
using System.Xml.Linq;
using Zendle.Outside.Oai;
using Zendle.Outside.World;

namespace Zendle.Outside.Files;

/// <summary>A record of a bare repository with the work it describes.</summary>
/// <param name="Shelf">Which repository, from 0.</param>
/// <param name="Work">What is true of it.</param>
/// <param name="Record">What the repository says, as <c>oai_dc:dc</c>.</param>
public sealed record ShelfRecord(int Shelf, Work Work, XElement Record);

/// <summary>
/// Repositories that speak bare Dublin Core, each with habits of its own for names, dates, kinds, languages, sources,
/// descriptions and identifiers, and some carelessness: for measuring how much of such records is read right. Nothing a
/// work has is left out, so that all of it could be read.
/// </summary>
public static class BareShelves
{
    /// <summary>How many repositories there are.</summary>
    public const int Count = 12;

    private static readonly Dictionary<string, string[]> Kinds = new(StringComparer.Ordinal)
    {
        ["article"] =
        [
            "Article",
            "info:eu-repo/semantics/article",
            "Journal Article",
            "http://purl.org/coar/resource_type/c_6501",
            "Zeitschriftenartikel",
            "Artículo",
            "Artigo",
            "article de revue",
            "Article (peer-reviewed)",
        ],
        ["review"] =
        [
            "Review",
            "info:eu-repo/semantics/review",
            "Review article",
            "http://purl.org/coar/resource_type/c_dcae04bc",
            "Übersichtsartikel",
        ],
        ["thesis"] =
        [
            "Thesis",
            "info:eu-repo/semantics/doctoralThesis",
            "PhD Thesis",
            "http://purl.org/coar/resource_type/c_db06",
            "Dissertation",
            "Tese",
            "Tesis doctoral",
            "Hochschulschrift",
            "Thesis or Dissertation",
        ],
        ["conference paper"] =
        [
            "Conference paper",
            "info:eu-repo/semantics/conferenceObject",
            "Conference or Workshop Item",
            "http://purl.org/coar/resource_type/c_5794",
            "Konferenzbeitrag",
            "Ponencia",
        ],
        ["report"] = ["Report", "info:eu-repo/semantics/report", "Technical Report", "Forschungsbericht", "Informe"],
        ["book"] = ["Book", "info:eu-repo/semantics/book", "Monograph", "Buch", "Libro", "Livre"],
        ["chapter"] =
        [
            "Book chapter",
            "info:eu-repo/semantics/bookPart",
            "Book Section",
            "Buchkapitel",
            "Capítulo de libro",
        ],
        ["dataset"] = ["Dataset", "info:eu-repo/semantics/dataset", "Data set", "Forschungsdaten"],
        ["editorial"] = ["Editorial", "Editorial material"],
        ["letter"] = ["Letter", "Comment"],
        ["preprint"] = ["Preprint", "info:eu-repo/semantics/preprint", "http://purl.org/coar/resource_type/c_816b"],
    };

    private static readonly string[] Remarks =
    [
        "Peer reviewed",
        "Includes bibliographical references",
        "This item is licensed under a Creative Commons licence.",
        "Submitted by the library on behalf of the authors",
        "Published version",
    ];

    /// <summary>Describes works; each stands in one repository.</summary>
    /// <param name="works">The works of a world; kinds that no bare repository has a word for are left out.</param>
    /// <param name="dice">Where chances come from.</param>
    public static IEnumerable<ShelfRecord> Of(IEnumerable<Work> works, Dice dice)
    {
        foreach (var work in works.Where(w => Kinds.ContainsKey(w.Type)))
        {
            var one = dice.For("shelf", work.Id);
            var shelf = one.Below(Count);
            yield return new(shelf, work, Describe(work, shelf, one));
        }
    }

    private static XElement Describe(Work w, int shelf, Dice dice)
    {
        var parts = new List<XElement>();
        void Add(string name, string? text)
        {
            if (text is { Length: > 0 })
                parts.Add(new(Metadata.Dc + name, text));
        }
        Add("title", Title(w, shelf));
        People(w, shelf, Add);
        foreach (var keyword in w.Keywords)
            Add("subject", keyword);
        Descriptions(w, shelf, dice, Add);
        Dates(w, shelf, dice, Add);
        Types(w, shelf, dice, Add);
        Add("language", LanguageOf(w.Language, shelf));
        Add("publisher", w.Journal?.Publisher ?? w.Publisher);
        Identifiers(w, shelf, dice, Add);
        Source(w, shelf, Add);
        Add("rights", dice.Of(["CC BY 4.0", "info:eu-repo/semantics/openAccess", "© The authors", ""]));
        // Repositories order their elements as they please.
        return Metadata.Bare(shelf % 3 == 1 ? parts.AsEnumerable().Reverse().ToArray() : [.. parts]);
    }

    private static string Title(Work w, int shelf) =>
        shelf switch
        {
            3 => w.Title + ".",
            5 => w.Title.Replace("CO2", "CO<sub>2</sub>", StringComparison.Ordinal),
            7 => $"  {w.Title} ",
            _ => w.Title,
        };

    private static void People(Work w, int shelf, Action<string, string?> add)
    {
        var isEdited = w.Type == "book" && w.People.Length > 1;
        // Backward where elements stand backward, so that the first stays the first.
        var people = shelf % 3 == 1 ? w.People.AsEnumerable().Reverse() : w.People;
        if (shelf == 4 && !isEdited)
        {
            add("creator", string.Join("; ", w.People.Select(p => $"{p.Family}, {p.Given}")));
            return;
        }
        foreach (var p in people)
        {
            var name = shelf switch
            {
                2 => $"{p.Family}, {string.Join(' ', p.Given.Split(' ').Select(g => g[..1] + "."))}",
                8 when p.Orcid is not null => $"{p.Family}, {p.Given} ({p.Orcid})",
                9 => $"{p.Family}, {p.Given}, {1950 + p.Person.Id % 40}-",
                _ => $"{p.Family}, {p.Given}",
            };
            add(
                isEdited ? "contributor" : "creator",
                isEdited ? $"{name} ({(shelf % 2 == 0 ? "ed." : "editor")})" : name
            );
        }
        if (w.Type == "thesis")
            add("contributor", "Advisor: Quell, Ina");
    }

    private static void Descriptions(Work w, int shelf, Dice dice, Action<string, string?> add)
    {
        if (shelf % 4 == 1)
            add("description", dice.Of(Remarks));
        if (shelf == 6 && w.Abstract.Length > 0)
            add("description", $"<p>{w.Abstract}</p>");
        else
            add("description", w.Abstract);
        if (shelf % 4 == 2)
            add("description", dice.Of(Remarks));
    }

    private static void Dates(Work w, int shelf, Dice dice, Action<string, string?> add)
    {
        var day = new DateTime(w.Year, 1, 1, 0, 0, 0, DateTimeKind.Utc).AddDays(w.Day % 365);
        var later = day.AddDays(30 + dice.Below(2_000));
        if (shelf is 0 or 6)
            add("date", later.ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture));
        add(
            "date",
            shelf switch
            {
                0 or 1 or 9 => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                2 => day.ToString("yyyyMMdd", CultureInfo.InvariantCulture),
                3 => day.ToString("MMMM yyyy", CultureInfo.InvariantCulture),
                4 => $"[{w.Year}]",
                5 => $"c{w.Year}",
                7 => day.ToString("yyyy-MM", CultureInfo.InvariantCulture),
                8 => day.ToString("dd.MM.yyyy", CultureInfo.InvariantCulture),
                _ => w.Year.ToString(CultureInfo.InvariantCulture),
            }
        );
        if (shelf is 6 or 9)
            add("date", later.ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture));
        if (shelf == 10)
            add("date", $"info:eu-repo/date/embargoEnd/{w.Year + 2}-01-01");
    }

    private static void Types(Work w, int shelf, Dice dice, Action<string, string?> add)
    {
        var words = Kinds[w.Type];
        if (shelf % 5 == 2)
            add("type", "Text");
        add("type", words[(shelf + (dice.Chance(0.2) ? 1 : 0)) % words.Length]);
        if (shelf % 5 == 3)
            add("type", "info:eu-repo/semantics/publishedVersion");
        if (shelf % 5 == 4)
            add("type", "PeerReviewed");
    }

    private static string LanguageOf(string code, int shelf)
    {
        var (two, name, own) = code switch
        {
            "ger" => ("de", "German", "Deutsch"),
            "spa" => ("es", "Spanish", "español"),
            "por" => ("pt", "Portuguese", "português"),
            "fre" => ("fr", "French", "français"),
            _ => ("en", "English", "English"),
        };
        return (shelf % 6) switch
        {
            0 => code,
            1 => two,
            2 => $"{two}_{(two == "en" ? "GB" : two.ToUpperInvariant())}",
            3 => name,
            4 => own,
            _ => code == "ger" ? "deu"
            : code == "fre" ? "fra"
            : code,
        };
    }

    private static void Identifiers(Work w, int shelf, Dice dice, Action<string, string?> add)
    {
        add("identifier", $"https://shelf{shelf}.example/record/{w.Id}");
        if (w.Doi is { } doi)
            switch (shelf % 6)
            {
                case 0:
                    add("identifier", doi);
                    break;
                case 1:
                    add("identifier", $"doi:{doi}");
                    break;
                case 2:
                    add(
                        "identifier",
                        $"https://doi.org/{Uri.EscapeDataString(doi).Replace("%2F", "/", StringComparison.Ordinal)}"
                    );
                    break;
                case 3:
                    add("relation", $"https://doi.org/{doi.ToUpperInvariant()}");
                    break;
                case 4:
                    add("identifier", $"info:doi/{doi}");
                    break;
                default:
                    add("relation", $"info:eu-repo/semantics/altIdentifier/doi/{doi}");
                    break;
            }
        if (w.Isbn is { } isbn && w.Type == "book")
            add("identifier", shelf % 2 == 0 ? $"urn:isbn:{isbn}" : $"ISBN {isbn} (print)");
        if (dice.Chance(0.3))
            add("identifier", $"https://hdl.handle.net/20.500.{shelf}/{w.Id}");
    }

    private static void Source(Work w, int shelf, Action<string, string?> add)
    {
        if (w.Venue is not { } venue || w.Type == "book")
            return;
        var issn = w.Journal?.Issn;
        if (w.Journal is null)
        {
            add("source", w.FirstPage > 0 && shelf % 2 == 0 ? $"{venue}, pp. {w.FirstPage}-{w.LastPage}" : venue);
            return;
        }
        var (v, i, p, q) = (w.Volume, w.Issue, w.FirstPage, w.LastPage);
        switch (shelf)
        {
            case 0 or 6:
                add("source", $"{venue}; Vol. {v} No. {i} ({w.Year}): Issue {i}; {p}-{q}");
                add("source", issn);
                break;
            case 1 or 7:
                add("source", $"{venue}, {v}({i}), {p}–{q} ({w.Year})");
                break;
            case 2:
                add("source", $"{venue} {v} ({i}), {p}-{q}. ({w.Year})");
                add("relation", $"ispartof: {issn}");
                break;
            case 3:
                // A citation of the whole work among its identifiers.
                add(
                    "identifier",
                    $"{string.Join(", ", w.People.Take(2).Select(x => $"{x.Family}, {x.Given[..1]}."))} "
                        + $"({w.Year}) {w.Title}. {venue}, {v} ({i}). pp. {p}-{q}. ISSN {issn}"
                );
                break;
            case 4:
                add("source", $"{venue}; Bd. {v} Nr. {i} ({w.Year}); {p}-{q}");
                break;
            case 5:
                add("source", $"{venue}, vol. {v}, no. {i}, pp. {p}-{q}, {w.Year}");
                break;
            case 8:
                add("source", $"ISSN: {issn}");
                add("source", $"{venue}, Vol. {v}, Issue {i} ({w.Year}), pp. {p}-{q}");
                break;
            case 9:
                add("source", $"{venue}. {w.Year}; {v}({i}): {p}-{q}");
                break;
            case 10:
                add("source", $"{venue} {v}:{i} ({w.Year}) {p}-{q}");
                break;
            default:
                add("source", $"In: {venue}, Band {v}, Heft {i}, Seiten {p}-{q}");
                break;
        }
    }
}
