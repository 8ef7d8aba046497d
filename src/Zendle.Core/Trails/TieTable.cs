using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Zendle.Core.Records;

namespace Zendle.Core.Trails;

/// <summary>A row of a table of citations.</summary>
/// <param name="Citing">DOI of the work that cites, normalised; null when the row has none.</param>
/// <param name="Cited">DOI of the work that is cited; null when the row has none.</param>
public readonly record struct TieRow(string? Citing, string? Cited)
{
    /// <summary>Whether it says who cites whom.</summary>
    public bool IsRead => Citing is not null && Cited is not null;
}

/// <summary>
/// Reads a table with a citing and a cited DOI in each row (CSV, RFC 4180; semicolons, tabs, bars and blanks part cells too).
/// Columns are known by their names; without names the first two that hold DOIs are taken, the citing one first. Lines that
/// begin with # are remarks.
/// </summary>
public static class TieTable
{
    /// <summary>More rows than this are not taken at once.</summary>
    public const int Most = 20_000_000;

    private const int LongestField = 20_000;

    /// <summary>The rows of a table. Streams.</summary>
    /// <param name="from">The table.</param>
    /// <exception cref="FormatException">It has no two such columns, more than <see cref="Most"/> rows, or is no such table; the
    /// message is a sentence for a person.</exception>
    public static IEnumerable<TieRow> Read(TextReader from)
    {
        using var parser = new CsvParser(
            from,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                DetectDelimiter = true,
                DetectDelimiterValues = [",", ";", "\t", "|"],
                AllowComments = true,
                BadDataFound = null,
                MaxFieldSize = LongestField,
            }
        );
        var (rows, columns) = (0L, (Citing: -1, Cited: -1));
        while (Next(parser))
        {
            var cells = Cells(parser.Record!);
            if (columns.Citing < 0)
            {
                // A spreadsheet may say in a line of its own what parts the cells.
                if (cells[0].StartsWith("sep=", StringComparison.OrdinalIgnoreCase))
                    continue;
                columns = Columns(cells, out var isHead);
                if (isHead)
                    continue;
            }
            if (++rows > Most)
                throw new FormatException(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"The table has more than {Most:N0} rows. Please split it."
                    )
                );
            yield return new(Doi(cells, columns.Citing), Doi(cells, columns.Cited));
        }
        if (columns.Citing < 0)
            throw new FormatException("The table is empty.");
    }

    /// <summary>The cells of a row; what stands in one alone is parted at its blanks.</summary>
    private static string[] Cells(string[] record) =>
        record is [var alone]
        && alone.Split(default(char[]), StringSplitOptions.RemoveEmptyEntries) is { Length: > 1 } parted
            ? [.. parted.Select(c => c.Trim('"'))]
            : record;

    private static bool Next(CsvParser parser)
    {
        try
        {
            return parser.Read();
        }
        catch (MaxFieldSizeException)
        {
            throw new FormatException(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The cell that begins in line {parser.RawRow:N0} never ends; perhaps a quotation mark is missing."
                )
            );
        }
    }

    private static (int Citing, int Cited) Columns(string[] cells, out bool isHead)
    {
        int[] dois = [.. cells.Select((c, i) => (c, i)).Where(c => Identifiers.Doi(c.c) is not null).Select(c => c.i)];
        isHead = dois.Length == 0;
        if (!isHead)
            return dois.Length >= 2
                ? (dois[0], dois[1])
                : throw new FormatException(
                    "The first row holds one DOI; a row needs two, the citing and the cited one."
                );
        var (citing, cited) = (Named(cells, "citing"), Named(cells, "cited"));
        return citing >= 0 && cited >= 0 && citing != cited
            ? (citing, cited)
            : throw new FormatException(
                "The table needs a column whose name has “citing” in it and one whose name has “cited”; its first row has: "
                    + $"{string.Join(", ", cells.Take(8).Select(c => c.Length > 40 ? c[..40] + "…" : c))}."
            );
    }

    /// <summary>The column of a name: just so, else with "doi" in it, else with more in it ("cited_by_count" may stand beside
    /// "cited_doi").</summary>
    private static int Named(string[] cells, string name)
    {
        bool Has(string cell, string part) => cell.Contains(part, StringComparison.OrdinalIgnoreCase);
        Predicate<string>[] ways =
        [
            c => c.Trim().Equals(name, StringComparison.OrdinalIgnoreCase),
            c => Has(c, name) && Has(c, "doi"),
            c => Has(c, name),
        ];
        return ways.Select(way => Array.FindIndex(cells, way)).FirstOrDefault(at => at >= 0, -1);
    }

    private static string? Doi(string[] cells, int column) =>
        column < cells.Length ? Identifiers.Doi(cells[column]) : null;
}
