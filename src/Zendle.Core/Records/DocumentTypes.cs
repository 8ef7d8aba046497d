using System.Collections.Frozen;

namespace Zendle.Core.Records;

/// <summary>The words for kinds of document: one lower-case name each, used in queries, on chips and in exports.</summary>
public static class DocumentTypes
{
    private static readonly (DocumentType Type, string Name)[] Names =
    [
        (DocumentType.Article, "article"), (DocumentType.Review, "review"), (DocumentType.SystematicReview, "systematic review"),
        (DocumentType.ConferencePaper, "conference paper"), (DocumentType.Editorial, "editorial"), (DocumentType.Letter, "letter"),
        (DocumentType.Correction, "correction"), (DocumentType.RetractionNotice, "retraction notice"), (DocumentType.Thesis, "thesis"),
        (DocumentType.Report, "report"), (DocumentType.Preprint, "preprint"), (DocumentType.Book, "book"), (DocumentType.Chapter, "chapter"),
        (DocumentType.Dataset, "dataset"), (DocumentType.Other, "other"),
    ];

    private static readonly FrozenDictionary<string, DocumentType> ByName = Names
        .Select(n => (n.Name, n.Type))
        .Concat([("journal article", DocumentType.Article), ("research article", DocumentType.Article), ("book chapter", DocumentType.Chapter),
            ("book section", DocumentType.Chapter), ("conference publication", DocumentType.ConferencePaper), ("conference object", DocumentType.ConferencePaper),
            ("doctoral thesis", DocumentType.Thesis), ("master thesis", DocumentType.Thesis), ("dissertation", DocumentType.Thesis), ("meta-analysis", DocumentType.SystematicReview),
            ("technical report", DocumentType.Report), ("erratum", DocumentType.Correction), ("corrigendum", DocumentType.Correction),
            ("retraction", DocumentType.RetractionNotice), ("comment", DocumentType.Letter), ("data set", DocumentType.Dataset), ("review article", DocumentType.Review)])
        .ToFrozenDictionary(n => n.Item1, n => n.Item2);

    /// <summary>The name of <paramref name="type"/>, in lower case.</summary>
    public static string Name(DocumentType type) => Array.Find(Names, n => n.Type == type).Name;

    /// <summary>Reads a kind from a database's own words; <see cref="DocumentType.Other"/> when it is not one we know.</summary>
    public static DocumentType Read(string? words) =>
        words is not null && ByName.TryGetValue(words.Trim().ToLowerInvariant(), out var type) ? type : DocumentType.Other;

    /// <summary>All kinds with their names.</summary>
    public static IEnumerable<(DocumentType Type, string Name)> All => Names;
}
