using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Zendle.Core.Records;

namespace Zendle.Core.Holdings;

/// <summary>A row of a KBART file: a line of holdings, or why it is none.</summary>
/// <param name="Number">Its number in the file; the row of names is 1.</param>
/// <param name="Line">The line; null when the row was not read.</param>
/// <param name="Fault">Why it was not read, in a few words; null when it was.</param>
public sealed record KbartRow(int Number, HoldingLine? Line, string? Fault);

/// <summary>
/// Reads a library's holdings as KBART (NISO RP-9-2014, phase I and II): cells parted by tabs, or by commas or semicolons
/// where a file has no tab, columns known by their names in any order.
/// </summary>
public static class KbartReader
{
    /// <summary>More rows than this are not taken.</summary>
    public const int Most = 5_000_000;

    private const int LongestField = 50_000;

    /// <summary>The rows of a file. Streams: memory does not grow with the file.</summary>
    /// <param name="from">The file.</param>
    /// <exception cref="FormatException">It is no KBART file; the message is a sentence for a person.</exception>
    public static IEnumerable<KbartRow> Read(TextReader from)
    {
        var head = Head(from);
        var delimiter =
            head.Contains('\t', StringComparison.Ordinal) ? "\t"
            : head.Contains(';', StringComparison.Ordinal) ? ";"
            : ",";
        var columns = new Columns(head.Split(delimiter).Select(Plain).ToArray());
        using var parser = new CsvParser(
            from,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = delimiter,
                // In files with tabs a quotation mark is a letter of a title, whatever follows it.
                Mode = delimiter == "\t" ? CsvMode.NoEscape : CsvMode.RFC4180,
                BadDataFound = null,
                MaxFieldSize = LongestField,
                LineBreakInQuotedFieldIsBadData = false,
            }
        );
        for (var count = 1; Next(parser, parser.RawRow + 2); count++)
        {
            if (count > Most)
                throw new FormatException(
                    string.Create(CultureInfo.InvariantCulture, $"The file has more than {Most:N0} lines.")
                );
            var cells = parser.Record!;
            if (!Array.TrueForAll(cells, string.IsNullOrWhiteSpace))
                yield return Row(parser.RawRow + 1, columns, cells);
        }
    }

    private static string Head(TextReader from)
    {
        var letters = new System.Text.StringBuilder();
        for (int c; (c = from.Read()) >= 0 && c is not '\n'; )
        {
            if (letters.Length > LongestField)
                throw new FormatException("The file's first line never ends, so it is not a KBART file.");
            if (c is not ('\r' or '\uFEFF'))
                letters.Append((char)c);
        }
        return letters.ToString();
    }

    private static bool Next(CsvParser parser, int number)
    {
        try
        {
            return parser.Read();
        }
        catch (CsvHelperException e)
        {
            throw new FormatException(
                string.Create(CultureInfo.InvariantCulture, $"Line {number} of the file cannot be read as a table."),
                e
            );
        }
    }

    /// <summary>Where the columns stand that are used.</summary>
    private sealed class Columns
    {
        private readonly Dictionary<string, int> ordinals;

        public Columns(string[] names)
        {
            ordinals = names
                .Select((n, i) => (Name: n.ToLowerInvariant().Replace(' ', '_'), i))
                .GroupBy(n => n.Name)
                .ToDictionary(g => g.Key, g => g.First().i);
            if (!ordinals.ContainsKey("publication_title"))
                throw new FormatException(
                    "The file is not a KBART file: its first line has no column “publication_title”."
                );
            if (!ordinals.ContainsKey("print_identifier") && !ordinals.ContainsKey("online_identifier"))
                throw new FormatException(
                    "The file names neither a column “print_identifier” nor “online_identifier”, so no work can be matched with it."
                );
        }

        public string Of(string[] cells, string name) =>
            ordinals.TryGetValue(name, out var i) && i < cells.Length ? Plain(cells[i]) : "";
    }

    /// <summary>A cell without the quotation marks that spreadsheets put around it.</summary>
    private static string Plain(string cell)
    {
        var text = cell.Trim();
        return text is ['"', .., '"'] ? text[1..^1].Replace("\"\"", "\"", StringComparison.Ordinal).Trim() : text;
    }

    private static KbartRow Row(int number, Columns columns, string[] cells)
    {
        string Of(string name) => columns.Of(cells, name);
        var keys = new[] { Of("print_identifier"), Of("online_identifier") }.SelectMany(Keys).Distinct().ToArray();
        if (keys.Length == 0)
            return new(number, null, "it has no valid ISSN or ISBN");
        if (Edge("first") is not { } first || Edge("last") is not { } last)
            return new(number, null, "a date in it is not valid");
        var depth = Of("coverage_depth").ToLowerInvariant();
        return new(
            number,
            new()
            {
                Title = Of("publication_title"),
                Keys = keys,
                IsBook =
                    Of("publication_type").StartsWith("mono", StringComparison.OrdinalIgnoreCase)
                    || Array.TrueForAll(keys, k => k >= 978_000_000_000),
                First = first,
                Last = last,
                Embargo = Embargo.Read(Of("embargo_info")),
                EmbargoCode = Of("embargo_info"),
                Depth =
                    depth.Contains("abstract", StringComparison.Ordinal) ? HoldingDepth.Abstracts
                    : depth.Contains("select", StringComparison.Ordinal) ? HoldingDepth.SomeArticles
                    : HoldingDepth.FullText,
                Address = Of("title_url") is { Length: > 0 } address ? address : null,
            },
            null
        );

        CoverageEdge? Edge(string which)
        {
            var written = Of($"date_{which}_issue_online");
            var date = PartialDate.Read(written);
            return written.Length > 0 && date is null
                ? null
                : new(
                    date,
                    CoverageEdge.Number(Of($"num_{which}_vol_online")),
                    CoverageEdge.Number(Of($"num_{which}_issue_online"))
                );
        }
    }

    private static IEnumerable<long> Keys(string written)
    {
        if (Identifiers.Issn(written) is { } issn)
            yield return HoldingKey.OfIssn(issn);
        else if (Identifiers.Isbn(written) is { } isbn)
            yield return HoldingKey.OfIsbn(isbn);
    }
}
