using System.Collections.Frozen;
using Zendle.Core.Text;

namespace Zendle.Core.Records;

/// <summary>
/// The words for kinds of document: one lower-case name each, used in queries, on chips and in exports.
/// </summary>
public static class DocumentTypes
{
    private static readonly (DocumentType Type, string Name)[] Names =
    [
        (DocumentType.Article, "article"),
        (DocumentType.Review, "review"),
        (DocumentType.SystematicReview, "systematic review"),
        (DocumentType.ConferencePaper, "conference paper"),
        (DocumentType.Editorial, "editorial"),
        (DocumentType.Letter, "letter"),
        (DocumentType.Correction, "correction"),
        (DocumentType.RetractionNotice, "retraction notice"),
        (DocumentType.Thesis, "thesis"),
        (DocumentType.Report, "report"),
        (DocumentType.Preprint, "preprint"),
        (DocumentType.Book, "book"),
        (DocumentType.Chapter, "chapter"),
        (DocumentType.Dataset, "dataset"),
        (DocumentType.Manuscript, "manuscript"),
        (DocumentType.Other, "other"),
    ];

    /// <summary>
    /// Words of databases, vocabularies and people for each kind, folded as <see cref="Folded"/> does: English, German,
    /// French, Spanish, Portuguese.
    /// </summary>
    private static readonly (DocumentType Type, string Words)[] Others =
    [
        (
            DocumentType.Article,
            "journal article|journalarticle|datapaper|brief report|rapid communication|rapid "
                + "report|research article|original article|original paper|original research|scientific "
                + "article|peer reviewed article|magazine article|newspaper article|data paper|case report|short "
                + "communication"
                + "|brief communication|research paper|article in journal|contribution to journal|"
                + "contributiontoperiodical|articles|journal paper|zeitschriftenartikel|zeitschriftenaufsatz|"
                + "aufsatz|artikel|wissenschaftlicher artikel"
                + "|article de revue|article de periodique|article scientifique|articulo|articulo de revista|"
                + "articulo cientifico|artigo|artigo de revista|artigo de periodico|artigo cientifico"
        ),
        (
            DocumentType.Review,
            "review article|literature review|reviews|review paper|ubersichtsartikel|ubersichtsarbeit|article de "
                + "synthese|revue de litterature|articulo de revision|revision|artigo de revisao|revisao"
        ),
        (
            DocumentType.SystematicReview,
            "meta analysis|meta analyse|systematic literature review|scoping review|systematische "
                + "ubersichtsarbeit|revue systematique|revision sistematica|revisao sistematica|metaanalisis|metanalise"
        ),
        (
            DocumentType.ConferencePaper,
            "conference publication|conferenceproceeding|meeting report|conference object|conference "
                + "item|conference or workshop item|conference "
                + "contribution|conference paper not in proceedings|conference poster|conference presentation"
                + "|conference abstract|conference proceedings paper|paper in conference proceedings|proceedings "
                + "paper|proceedings article|meeting abstract|poster|workshop paper|inproceedings|contribution to "
                + "conference|conferenceobject"
                + "|conferencepaper|conferenceposter|conferencecontribution|conferenceitem|konferenzbeitrag|"
                + "tagungsbeitrag|konferenzveroffentlichung|vortrag|communication dans un congres|communication|"
                + "actes de congres|papier de conference"
                + "|ponencia|comunicacion|comunicacion de congreso|documento de conferencia|trabalho de "
                + "conferencia|comunicacao em conferencia|artigo de conferencia|trabalho apresentado em evento"
        ),
        (DocumentType.Editorial, "editorials|editorial material|leitartikel|editorial de revista"),
        (
            DocumentType.Letter,
            "comment|commentary|article commentary|letter to the editor|correspondence|reply|response|discussion|leserbrief|lettre|"
                + "carta|carta al editor|carta ao editor|lettertoeditor"
        ),
        (
            DocumentType.Correction,
            "erratum|corrigendum|corrections|addendum|berichtigung|rectificatif|fe de erratas|errata"
        ),
        (DocumentType.RetractionNotice, "retraction|retracted article notice|ruckzug|retratacao|retractacion"),
        (
            DocumentType.Thesis,
            "doctoral thesis|phd thesis|ph d thesis|phd|doctoral dissertation|master thesis|masters thesis|"
                + "master s thesis|msc thesis|ma thesis|bachelor thesis|bachelors thesis|bachelor s thesis|dissertation"
                + "|thesis dissertation|thesis or dissertation|electronic thesis or dissertation|etd|theses|thesis "
                + "doctoral|thesis masters|thesis phd|doctoralthesis|masterthesis|bachelorthesis|phdthesis|"
                + "mastersthesis|habilitation"
                + "|habilitation thesis|habilitationsschrift|doktorarbeit|diplomarbeit|masterarbeit|bachelorarbeit|"
                + "hochschulschrift|abschlussarbeit|these|these de doctorat|memoire|memoire de master|tesis|tesis "
                + "doctoral|tesis de maestria"
                + "|tesis de grado|trabajo fin de grado|trabajo de fin de master|tese|tese de doutorado|tese de "
                + "doutoramento|dissertacao|dissertacao de mestrado|trabalho de conclusao de curso"
        ),
        (
            DocumentType.Report,
            "technical report|research report|project report|working paper|discussion paper|policy brief|white "
                + "paper|technical documentation|reports|workingpaper|techreport|internal report|annual report|"
                + "monitoring report"
                + "|bericht|forschungsbericht|arbeitspapier|abschlussbericht|rapport|rapport technique|rapport de "
                + "recherche|document de travail|informe|informe tecnico|documento de trabajo|relatorio|relatorio "
                + "tecnico|documento de trabalho"
        ),
        (
            DocumentType.Preprint,
            "preprints|pre print|eprint|submitted manuscript|vorabdruck|prepublication|pre publication|preimpression|preimpreso"
        ),
        (
            DocumentType.Book,
            "books|monograph|edited book|edited volume|book edited|proceedings|conference proceedings|textbook|"
                + "handbook|collection|buch|monographie|sammelband|tagungsband|livre|ouvrage|direction d ouvrage|libro|"
                + "monografia|livro"
        ),
        (
            DocumentType.Chapter,
            "book chapter|book section|book part|chapter in book|part of book or chapter of book|bookpart|"
                + "bookchapter|inbook|incollection|contribution to book anthology|reference entry|encyclopedia entry|"
                + "buchkapitel"
                + "|kapitel|buchbeitrag|beitrag in sammelband|chapitre|chapitre d ouvrage|chapitre de livre|"
                + "capitulo|capitulo de libro|capitulo de livro|parte de libro"
        ),
        (
            DocumentType.Dataset,
            "data set|datasets|data|research data|database|datensatz|forschungsdaten|jeu de donnees|donnees|"
                + "conjunto de datos|conjunto de dados|dados"
        ),
        (
            DocumentType.Manuscript,
            "unpublished|unpublished manuscript|unpublished work|manuskript|manuscrit|manuscrito"
        ),
    ];

    /// <summary>Concepts of the COAR resource type vocabulary (version 3), by the last part of their address.</summary>
    private static readonly (string Concept, DocumentType Type)[] Coar =
    [
        ("c_6501", DocumentType.Article),
        ("c_2df8fbb1", DocumentType.Article),
        ("c_beb9", DocumentType.Article),
        ("c_dcae04bc", DocumentType.Review),
        ("c_545b", DocumentType.Letter),
        ("c_b239", DocumentType.Editorial),
        ("c_7acd", DocumentType.Correction),
        ("c_46ec", DocumentType.Thesis),
        ("c_db06", DocumentType.Thesis),
        ("c_bdcc", DocumentType.Thesis),
        ("c_7a1f", DocumentType.Thesis),
        ("c_2f33", DocumentType.Book),
        ("c_f744", DocumentType.Book),
        ("c_3248", DocumentType.Chapter),
        ("c_5794", DocumentType.ConferencePaper),
        ("c_c94f", DocumentType.ConferencePaper),
        ("c_6670", DocumentType.ConferencePaper),
        ("r60j-j5bd", DocumentType.ConferencePaper),
        ("c_93fc", DocumentType.Report),
        ("c_18gh", DocumentType.Report),
        ("c_18ws", DocumentType.Report),
        ("c_8042", DocumentType.Report),
        ("c_816b", DocumentType.Preprint),
        ("c_ddb1", DocumentType.Dataset),
        ("c_0040", DocumentType.Manuscript),
    ];

    private static readonly FrozenDictionary<string, DocumentType> ByName = Names
        .Select(n => (n.Name, n.Type))
        .Concat(Others.SelectMany(o => o.Words.Split('|').Select(w => (Name: w, o.Type))))
        .DistinctBy(n => n.Name)
        .ToFrozenDictionary(n => n.Name, n => n.Type);

    private static readonly FrozenDictionary<string, DocumentType> ByConcept = Coar.ToFrozenDictionary(
        c => c.Concept,
        c => c.Type
    );

    /// <summary>The name of <paramref name="type"/>, in lower case.</summary>
    public static string Name(DocumentType type) => Array.Find(Names, n => n.Type == type).Name;

    /// <summary>
    /// Reads a kind from a database's own words: a name in any of five languages, a term of
    /// <c>info:eu-repo/semantics</c>, or a COAR resource type. <see cref="DocumentType.Other"/> when it is none we
    /// know.
    /// </summary>
    public static DocumentType Read(string? words)
    {
        if (string.IsNullOrWhiteSpace(words) || words.Length > 200)
            return DocumentType.Other;
        // Of an address or a path the last part speaks: "info:eu-repo/semantics/bookPart",
        // "http://purl.org/coar/resource_type/c_6501".
        var text = words.Trim();
        if (
            text.Contains("://", StringComparison.Ordinal)
            || text.StartsWith("info:", StringComparison.OrdinalIgnoreCase)
        )
            text = text.TrimEnd('/')[(text.TrimEnd('/').LastIndexOf('/') + 1)..];
        if (ByConcept.TryGetValue(text.ToLowerInvariant(), out var concept))
            return concept;
        var folded = Folded(text);
        if (ByName.TryGetValue(folded, out var type))
            return type;
        // "Article (peer reviewed)", "Thesis / Doctoral", "Journal Article; Text": each part by itself, the first that
        // says something.
        foreach (
            var part in text.Split(['(', ')', ';', '/', ',', ':', '|', '-', '–'], StringSplitOptions.RemoveEmptyEntries)
        )
            if (ByName.TryGetValue(Folded(part), out type))
                return type;
        return DocumentType.Other;
    }

    /// <summary>
    /// Which degree a thesis is for, by a database's own words: "Doctoral thesis", "Master's thesis", "Bachelor's
    /// thesis"; null when they do not say.
    /// </summary>
    public static string? ThesisGenre(string? words)
    {
        if (string.IsNullOrWhiteSpace(words) || words.Length > 200 || Read(words) != DocumentType.Thesis)
            return null;
        var folded = Folded(words.TrimEnd('/')[(words.TrimEnd('/').LastIndexOf('/') + 1)..])
            .Replace(" ", "", StringComparison.Ordinal)
            is { Length: > 0 } last
            ? last + Folded(words).Replace(" ", "", StringComparison.Ordinal)
            : "";
        foreach (var (genre, signs) in ThesisSigns)
            if (signs.Split('|').Any(s => folded.Contains(s, StringComparison.Ordinal)))
                return genre;
        return null;
    }

    private static readonly (string Genre, string Signs)[] ThesisSigns =
    [
        ("Bachelor's thesis", "bachelor|cfyt|7a1f|trabajofindegrado|tesisdegrado|conclusaodecurso"),
        ("Master's thesis", "master|mscthesis|mathesis|bdcc|maestria|mestrado|diplomarbeit"),
        ("Doctoral thesis", "doctor|doktor|phd|dphil|db06|doutor|habilitation"),
    ];

    /// <summary>Lower case, without accents, words with one space between.</summary>
    private static string Folded(string text) => string.Join(' ', Words.AsWritten(text));

    /// <summary>All kinds with their names.</summary>
    public static IEnumerable<(DocumentType Type, string Name)> All => Names;
}
