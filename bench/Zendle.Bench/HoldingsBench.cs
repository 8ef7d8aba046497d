using System.Diagnostics;
using System.Globalization;
using System.Text;
using Zendle.Core.Holdings;
using Zendle.Store.Holdings;

namespace Zendle.Bench;

/// <summary>
/// A library's holdings: a KBART file of many lines is read and put in order, then asked about works; every answer is held
/// against a plain reading of the file's own cells.
/// </summary>
internal static class HoldingsBench
{
    private const int Questions = 10_000;
    private static readonly DateOnly Today = new(2026, 11, 29);

    /// <summary>Reads a made-up file of so many lines, and asks 10,000 questions.</summary>
    public static void Run(string folder, int lines, int seed)
    {
        var random = new Random(seed);
        var (tsv, path) = (Path.Combine(folder, "holdings.tsv"), Path.Combine(folder, "holdings.db"));
        Write(tsv, lines, random);
        GC.Collect();
        var before = GC.GetTotalAllocatedBytes();
        var watch = Stopwatch.StartNew();
        int taken;
        using (var reader = new StreamReader(tsv))
            taken = HoldingsFile.Write(
                path,
                KbartReader.Read(reader).Select(r => r.Line).OfType<HoldingLine>(),
                CancellationToken.None
            );
        Console.WriteLine(
            $"{taken:N0} lines ({new FileInfo(tsv).Length / 1_000_000} MB) read and stored in {watch.Elapsed.TotalSeconds:0.0} s; "
                + $"{new FileInfo(path).Length / 1_000_000} MB, held while reading {Environment.WorkingSet / 1_000_000} MB, "
                + $"{(GC.GetTotalAllocatedBytes() - before) / (double)taken:0} bytes passed through a line"
        );

        // The plain way: all cells by identifier, in memory.
        var plain = File.ReadLines(tsv)
            .Skip(1)
            .Select(l => l.Split('\t'))
            .ToLookup(c => c[1].Length > 0 ? c[1] : c[2], StringComparer.Ordinal);
        var identifiers = plain.Select(p => p.Key).ToArray();
        using var file = HoldingsFile.Open(path);
        var (took, held, same) = (new List<double>(), 0, 0);
        for (var i = 0; i < Questions; i++)
        {
            var written = i % 10 == 0 ? Issn(random.Next(10_000_000)) : identifiers[random.Next(identifiers.Length)];
            var (year, volume, issue) = (random.Next(1960, 2027), random.Next(1, 80), random.Next(1, 7));
            var item = new HeldItem(
                [written.Length == 9 ? HoldingKey.OfIssn(written) : HoldingKey.OfIsbn(written)],
                new(year),
                volume,
                issue
            );
            var at = Stopwatch.GetTimestamp();
            var answer = HoldingAnswer.Of(item, item.Keys.SelectMany(file.Find), Today);
            took.Add(Stopwatch.GetElapsedTime(at).TotalMilliseconds);
            held += answer.Coverage == Coverage.Held ? 1 : 0;
            same += (answer.Coverage == Coverage.Held) == plain[written].Any(c => Says(c, year, volume, issue)) ? 1 : 0;
        }
        took.Sort();
        Console.WriteLine(
            $"{Questions:N0} questions, {held:N0} held: {took[Questions / 2]:0.000} ms, 99th {took[Questions * 99 / 100]:0.000} ms; "
                + $"{same:N0} agree with a plain reading"
        );
    }

    /// <summary>Whether the cells of a line say that a work is there: whole years, as the file made here has them.</summary>
    private static bool Says(string[] cells, int year, int volume, int issue)
    {
        static int N(string cell) => int.Parse(cell, CultureInfo.InvariantCulture);
        if (cells[12] == "monograph")
            return true;
        if (cells[11] == "abstracts")
            return false;
        var first = N(cells[3][..4]);
        // About the first year volume and issue decide.
        if (Math.Abs(year - first) <= 1 ? (volume, issue).CompareTo((N(cells[4]), N(cells[5]))) < 0 : year < first)
            return false;
        if (cells[6].Length > 0)
        {
            var last = N(cells[6][..4]);
            if (Math.Abs(year - last) <= 1 ? (volume, issue).CompareTo((N(cells[7]), N(cells[8]))) > 0 : year > last)
                return false;
        }
        return cells[10] switch
        {
            "P1Y" => year <= Today.Year - 1,
            "R10Y" => year >= Today.Year - 9,
            _ => true,
        };
    }

    private static void Write(string path, int lines, Random random)
    {
        using var to = new StreamWriter(path, append: false, Encoding.UTF8);
        to.WriteLine(
            "publication_title\tprint_identifier\tonline_identifier\tdate_first_issue_online\tnum_first_vol_online\t"
                + "num_first_issue_online\tdate_last_issue_online\tnum_last_vol_online\tnum_last_issue_online\ttitle_url\t"
                + "embargo_info\tcoverage_depth\tpublication_type"
        );
        for (var i = 0; i < lines; i++)
        {
            if (i % 2 == 1)
            {
                to.WriteLine(
                    $"Book {i}\t\t{Isbn(978_300_000_000 + i)}\t\t\t\t\t\t\thttps://books.example/{i}\t\tfulltext\tmonograph"
                );
                continue;
            }
            var (first, ends) = (random.Next(1960, 2020), random.Next(3) == 0);
            var volume = random.Next(1, 60);
            var last = random.Next(first, 2027);
            string embargo = random.Next(4) switch
            {
                0 => "P1Y",
                1 => "R10Y",
                _ => "",
            };
            to.WriteLine(
                $"Journal {i}\t{Issn(random.Next(lines * 2))}\t\t{first}-01-01\t{volume}\t{random.Next(1, 7)}\t"
                    + (ends ? $"{last}-12-31\t{volume + last - first}\t{random.Next(1, 7)}" : "\t\t")
                    + $"\thttps://journals.example/{i}\t{embargo}\t{(random.Next(20) == 0 ? "abstracts" : "fulltext")}\tserial"
            );
        }
    }

    private static string Issn(int seven)
    {
        var digits = seven.ToString("0000000", CultureInfo.InvariantCulture);
        var sum = digits.Select((d, i) => (d - '0') * (8 - i)).Sum();
        var check = (11 - (sum % 11)) % 11;
        return $"{digits[..4]}-{digits[4..]}{(check == 10 ? "X" : check)}";
    }

    private static string Isbn(long twelve)
    {
        var digits = twelve.ToString(CultureInfo.InvariantCulture);
        var sum = digits.Select((d, i) => (d - '0') * (i % 2 == 0 ? 1 : 3)).Sum();
        return $"{digits}{(10 - (sum % 10)) % 10}";
    }
}
