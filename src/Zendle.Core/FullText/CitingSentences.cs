using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>A sentence of a document that cites some of its references.</summary>
/// <param name="Text">The sentence.</param>
/// <param name="Page">The page it begins on, from 1.</param>
/// <param name="Entries">What it cites: ordinals among the entries of the document's reference lists, ascending.</param>
/// <param name="Near">The sentence before it, itself and the one behind it: what words near the citation are looked for
/// in.</param>
public sealed record CitingSentence(string Text, int Page, IReadOnlyList<int> Entries, string Near);

/// <summary>
/// Finds the sentences of a document that cite its references: by number in brackets where the list is numbered, else by
/// family name and year, in brackets or in the sentence.
/// </summary>
/// <remarks>Numbers that are raised above the line stand in brackets in the lines given here, where whoever reads the file
/// takes them for citations.</remarks>
public static partial class CitingSentences
{
    /// <summary>More sentences than this are not told of one document.</summary>
    public const int Most = 3_000;

    private const int Longest = 900,
        LongestRange = 60,
        NameBeforeYear = 90,
        LongestHeading = 90;
    private const double OtherSize = 1.6;

    /// <summary>The sentences, in order. O(length + years × entries of that year).</summary>
    /// <param name="lines">The lines of the document in the order of reading.</param>
    /// <param name="lists">Its reference lists.</param>
    public static IReadOnlyList<CitingSentence> In(IReadOnlyList<ReadLine> lines, FoundLists lists)
    {
        if (lists.Entries.Count == 0)
            return [];
        return Among(
            Sentences(Body(lines, lists)),
            lists.IsNumbered ? s => ByNumber(s, lists.Entries.Count) : ByName(lists.Entries)
        );
    }

    /// <summary>
    /// The sentences of a document whose citations are links to its entries; null where there is no such link. O(length).
    /// </summary>
    /// <param name="paragraphs">Its running text; behind each citation stands <see cref="Mark"/>.</param>
    public static IReadOnlyList<CitingSentence>? Linked(IReadOnlyCollection<string> paragraphs) =>
        paragraphs.Any(Marks().IsMatch)
            ?
            [
                .. Among(
                        Of(paragraphs),
                        s =>
                            [
                                .. Marks()
                                    .Matches(s)
                                    .Select(m => int.Parse(m.Groups[1].ValueSpan, CultureInfo.InvariantCulture)),
                            ]
                    )
                    .Select(s => s with { Text = Marks().Replace(s.Text, ""), Near = Marks().Replace(s.Near, "") }),
            ]
            : null;

    /// <summary>
    /// The sentences of a document whose paragraphs are known, with citations as they are printed: by number where its list
    /// has numbers and any sentence names one, else by name.
    /// </summary>
    /// <param name="paragraphs">Its running text.</param>
    /// <param name="entries">The entries of its list.</param>
    /// <param name="isNumbered">Whether the list has numbers, from 1.</param>
    public static IReadOnlyList<CitingSentence> Printed(
        IReadOnlyCollection<string> paragraphs,
        IReadOnlyList<string> entries,
        bool isNumbered
    )
    {
        if (entries.Count == 0)
            return [];
        var sentences = Of(paragraphs);
        return isNumbered && Among(sentences, s => ByNumber(s, entries.Count)) is { Count: > 0 } numbered
            ? numbered
            : Among(sentences, ByName(entries));
    }

    /// <summary>Marks a place in running text that cites an entry, in characters that no text has.</summary>
    /// <param name="entry">The ordinal of the entry.</param>
    public static string Mark(int entry) => string.Create(CultureInfo.InvariantCulture, $"\uE000{entry}\uE001");

    private static List<(string Text, int Page)> Of(IEnumerable<string> paragraphs) =>
        Sentences([.. paragraphs.Select(p => new List<(string, int)> { (p, 1) })]);

    private static List<CitingSentence> Among(
        List<(string Text, int Page)> sentences,
        Func<string, SortedSet<int>> cited
    )
    {
        var found = new List<CitingSentence>();
        for (var i = 0; i < sentences.Count && found.Count < Most; i++)
            if (cited(sentences[i].Text) is { Count: > 0 } entries)
                found.Add(
                    new(
                        Cut(sentences[i].Text),
                        sentences[i].Page,
                        [.. entries],
                        string.Join(
                            ' ',
                            sentences.Skip(Math.Max(0, i - 1)).Take(i == 0 ? 2 : 3).Select(s => Cut(s.Text))
                        )
                    )
                );
        return found;
    }

    private static string Cut(string text) => text.Length > Longest ? text[..Longest] + "…" : text;

    /// <summary>The running text in paragraphs, each as pieces of a page: no headings, captions, notes or lists.</summary>
    private static List<List<(string Text, int Page)>> Body(IReadOnlyList<ReadLine> lines, FoundLists lists)
    {
        var isListed = lists.Listed(lines.Count);
        var sizes = new Dictionary<int, int>();
        for (var i = 0; i < lines.Count; i++)
            if (!isListed[i])
            {
                var half = (int)Math.Round(lines[i].Line.Size * 2);
                sizes[half] = sizes.GetValueOrDefault(half) + lines[i].Line.Text.Length;
            }
        var size = sizes.Count == 0 ? 0 : sizes.MaxBy(s => s.Value).Key / 2.0;
        var paragraphs = new List<List<(string, int)>> { new() };
        for (var i = 0; i < lines.Count; i++)
        {
            var line = lines[i].Line;
            var isHeading = line.Bold && line.Text.Length <= LongestHeading;
            if (isListed[i] || isHeading || Math.Abs(line.Size - size) > OtherSize)
            {
                if (paragraphs[^1].Count > 0 && (isListed[i] || isHeading))
                    paragraphs.Add([]);
                continue;
            }
            paragraphs[^1].Add((line.Text, line.Page));
        }
        return paragraphs;
    }

    private static List<(string Text, int Page)> Sentences(List<List<(string Text, int Page)>> paragraphs)
    {
        var found = new List<(string, int)>();
        foreach (var paragraph in paragraphs)
        {
            var (text, pages) = (new StringBuilder(), new List<(int At, int Page)>());
            foreach (var (line, page) in paragraph)
            {
                // A word that goes on over the end of a page is told on the page it begins on.
                pages.Add((text.Length, page));
                BrokenLines.Add(text, line);
            }
            var whole = text.ToString();
            var (start, piece) = (0, 0);
            for (var i = 0; i < whole.Length; i++)
            {
                var end = i + 1 == whole.Length ? whole.Length : EndAt(whole, i);
                if (end < 0)
                    continue;
                while (piece + 1 < pages.Count && pages[piece + 1].At <= start)
                    piece++;
                if (whole[start..end].Trim() is { Length: > 0 } sentence)
                    found.Add((sentence, pages[piece].Page));
                start = end;
                i = end - 1;
            }
        }
        return found;
    }

    /// <summary>Where a sentence ends whose stop stands at a place; −1 when none does.</summary>
    private static int EndAt(string text, int i)
    {
        if (text[i] is not ('.' or '?' or '!'))
            return -1;
        var end = i + 1;
        // Closing marks, and numbers of references that stand behind the stop, belong to the sentence.
        while (end < text.Length && text[end] is ')' or ']' or '”' or '"' or '’')
            end++;
        if (end < text.Length && BehindStop().Match(text, end) is { Success: true } numbers)
            end += numbers.Length;
        if (end >= text.Length)
            return text.Length;
        if (text[end] != ' ' || end + 1 >= text.Length)
            return -1;
        var next = text[end + 1];
        if (char.IsLower(next))
            return -1;
        if (text[i] != '.')
            return end;
        var word = i;
        while (word > 0 && (char.IsLetter(text[word - 1]) || text[word - 1] == '.'))
            word--;
        var before = text[word..i];
        var isInitial = before.Length == 1 && char.IsUpper(before[0]) && before != "I";
        return isInitial || (before.Length > 0 && Abbreviations.Contains(before)) ? -1 : end;
    }

    private static readonly HashSet<string> Abbreviations = new(StringComparer.OrdinalIgnoreCase)
    {
        "al",
        "e.g",
        "i.e",
        "cf",
        "fig",
        "figs",
        "eq",
        "eqs",
        "dr",
        "prof",
        "vs",
        "ca",
        "approx",
        "no",
        "nos",
        "pp",
        "p",
        "vol",
        "ed",
        "eds",
        "st",
        "sp",
        "spp",
        "var",
        "subsp",
        "resp",
        "tab",
        "ref",
        "refs",
        "sect",
        "ch",
        "pers",
        "comm",
        "unpubl",
    };

    private static SortedSet<int> ByNumber(string sentence, int entries)
    {
        var cited = new SortedSet<int>();
        foreach (Match group in Bracketed().Matches(sentence))
        {
            if (group.Index > 3 && Interval().IsMatch(sentence[..group.Index]))
                continue;
            foreach (var part in group.Groups[1].Value.Split(',', ';'))
            {
                int[] ends =
                [
                    .. part.Split('-', '–', '—').Select(n => int.Parse(n.Trim(), CultureInfo.InvariantCulture)),
                ];
                if (ends.Length > 2 || ends[^1] - ends[0] is < 0 or > LongestRange || ends[0] < 1 || ends[^1] > entries)
                    continue;
                for (var n = ends[0]; n <= ends[^1]; n++)
                    cited.Add(n - 1);
            }
        }
        return cited;
    }

    private static Func<string, SortedSet<int>> ByName(IReadOnlyList<string> entries)
    {
        var byYear = entries
            .Select(
                (e, i) =>
                {
                    var read = PrintedReference.Read(e);
                    var letter = read.Year is { } year ? LetterBehind(e, year) : null;
                    return (Entry: i, Name: NameKey(read.FirstPerson), read.Year, Letter: letter);
                }
            )
            .Where(e => e.Name.Length > 1 && e.Year is not null)
            .ToLookup(e => e.Year!.Value);
        return sentence =>
        {
            var cited = new SortedSet<int>();
            foreach (Match year in Year().Matches(sentence))
            {
                var candidates = byYear[int.Parse(year.Groups[1].ValueSpan, CultureInfo.InvariantCulture)];
                if (!candidates.Any())
                    continue;
                var before = sentence[Math.Max(0, year.Index - NameBeforeYear)..year.Index];
                if (before.LastIndexOf(';') is >= 0 and var cut)
                    before = before[(cut + 1)..];
                var names = $" {NameKey(before)} ";
                var letter = year.Groups[2].Value;
                // Of several whose names stand before the year the one that stands last, and all that look alike.
                var standing = candidates
                    .Select(c => (c.Entry, c.Letter, At: names.LastIndexOf($" {c.Name} ", StringComparison.Ordinal)))
                    .Where(c => c.At >= 0 && (letter.Length == 0 || c.Letter is null || c.Letter == letter))
                    .ToArray();
                foreach (var one in standing.Where(c => c.At == standing.Max(s => s.At)))
                    cited.Add(one.Entry);
            }
            return cited;
        };
    }

    private static string? LetterBehind(string entry, int year)
    {
        var at = entry.IndexOf(year.ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal);
        return
            at >= 0
            && at + 5 <= entry.Length
            && entry[at + 4] is >= 'a' and <= 'h'
            && (at + 5 == entry.Length || !char.IsLetter(entry[at + 5]))
            ? entry[(at + 4)..(at + 5)]
            : null;
    }

    /// <summary>The folded words of a name or of what stands before a year.</summary>
    private static string NameKey(string? text) => text is null ? "" : string.Join(' ', Words.AsWritten(text));

    [GeneratedRegex(@"\uE000(\d*)\uE001?", RegexOptions.CultureInvariant, PatternTime.Milliseconds)]
    private static partial Regex Marks();

    [GeneratedRegex(@"\[(\d{1,4}(?:\s*[,;–—-]\s*\d{1,4})*)\]", RegexOptions.CultureInvariant, PatternTime.Milliseconds)]
    private static partial Regex Bracketed();

    [GeneratedRegex(
        @"(?:\bCI|interval|range|=|between)\s*:?\s*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Interval();

    [GeneratedRegex(@"\G\[\d{1,4}(?:\s*[,;–—-]\s*\d{1,4})*\]", RegexOptions.CultureInvariant, PatternTime.Milliseconds)]
    private static partial Regex BehindStop();

    [GeneratedRegex(
        @"(?<!\d)((?:1[6-9]|20)\d\d)([a-h]?)(?![\d\p{L}])",
        RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Year();
}
