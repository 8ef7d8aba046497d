using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Zendle.Core.Citing;
using Zendle.Core.Records;

namespace Zendle.Core.Entries;

/// <summary>
/// Reads a table of references as spreadsheets copy and databases export it: CSV (RFC 4180), or with semicolons or tabs
/// between cells, with a first row that names the columns. Columns are known by the trade's names for them, in any order.
/// </summary>
internal static class TableEntries
{
    private const int LongestField = 100_000,
        FewestNamed = 2;

    private static readonly char[] Delimiters = ['\t', ',', ';'];

    private static readonly (string Field, string[] Names)[] Known =
    [
        ("title", ["title", "article title", "document title", "paper title", "title of article", "titel", "titre"]),
        ("people", ["authors", "author", "author(s)", "author names", "creators", "people", "autoren", "auteurs"]),
        ("year", ["year", "publication year", "pub year", "date", "publication date", "published", "jahr"]),
        ("venue", ["venue", "journal", "journal title", "source", "source title", "container title", "publication"]),
        ("volume", ["volume", "vol", "vol."]),
        ("issue", ["issue", "number", "no."]),
        ("pages", ["pages", "page", "page numbers"]),
        ("publisher", ["publisher", "institution"]),
        ("doi", ["doi", "digital object identifier"]),
        ("isbn", ["isbn"]),
        ("address", ["url", "link", "address", "web address"]),
        ("language", ["language"]),
        ("keywords", ["keywords", "author keywords"]),
        ("abstract", ["abstract", "summary"]),
        ("type", ["type", "document type", "publication type"]),
    ];

    /// <summary>Its references; null where the first row does not name a title or a DOI, and one column more.</summary>
    public static IReadOnlyList<EntryFields>? Read(string text)
    {
        var head = text.Split('\n', 2)[0];
        foreach (var delimiter in Delimiters)
        {
            if (!head.Contains(delimiter, StringComparison.Ordinal))
                continue;
            var rows = Rows(text, delimiter);
            if (rows is [var names, ..] && ColumnsOf(names) is { } columns)
                return [.. rows.Skip(1).Select(r => Of(r, columns))];
        }
        return null;
    }

    /// <summary>The fields by the columns that hold them; null where the row is no head of such a table.</summary>
    private static Dictionary<string, int>? ColumnsOf(string[] names)
    {
        var columns = new Dictionary<string, int>(StringComparer.Ordinal);
        for (var i = 0; i < names.Length; i++)
        {
            var name = names[i].Trim(' ', '"', '\r').ToLowerInvariant();
            foreach (var (field, known) in Known)
                if (known.Contains(name, StringComparer.Ordinal))
                    columns.TryAdd(field, i);
        }
        return columns.Count >= FewestNamed && (columns.ContainsKey("title") || columns.ContainsKey("doi"))
            ? columns
            : null;
    }

    private static List<string[]> Rows(string text, char delimiter)
    {
        using var parser = new CsvParser(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = delimiter.ToString(),
                BadDataFound = null,
                MaxFieldSize = LongestField,
            }
        );
        var rows = new List<string[]>();
        try
        {
            while (rows.Count <= PastedReferences.Most && parser.Read())
                rows.Add(parser.Record!);
        }
        catch (CsvHelperException)
        {
            // A cell that never ends: what stands before it is read.
        }
        return rows;
    }

    private static EntryFields Of(string[] row, Dictionary<string, int> columns)
    {
        string Cell(string field) =>
            columns.TryGetValue(field, out var at) && at < row.Length ? ReferenceFile.Line(Plain(row[at])) : "";
        return EntryFields.Empty with
        {
            Title = Cell("title"),
            Type = Cell("type") is { Length: > 0 } type ? DocumentTypes.Name(DocumentTypes.Read(type)) : "",
            People = Cell("people"),
            Year = Cell("year"),
            Venue = Cell("venue"),
            Volume = Cell("volume"),
            Issue = Cell("issue"),
            Pages = Cell("pages"),
            Publisher = Cell("publisher"),
            Doi = Cell("doi"),
            Isbn = Cell("isbn"),
            Address = Cell("address"),
            Language = Cell("language"),
            Keywords = Cell("keywords"),
            Abstract = Cell("abstract"),
        };
    }

    /// <summary>Without the apostrophe that keeps a spreadsheet from taking a cell for a formula.</summary>
    private static string Plain(string cell) => cell is ['\'', '=' or '+' or '-' or '@', ..] ? cell[1..] : cell;
}
