using System.Diagnostics;
using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Citing;
using Zendle.Core.Entries;
using Zendle.Core.Formats;
using Zendle.Core.Merging;
using Zendle.Core.Text;
using Zendle.Documents.Citing;
using Zendle.Index.Questions;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;

namespace Zendle.Bench.Measure;

/// <summary>
/// How often a pasted reference leads to its work: works of a corpus, written in the twelve styles that are offered
/// first by the engine that writes bibliographies, with slips; and lists of forty, laid out as people paste them.
/// </summary>
internal sealed partial class PastedMeasure
{
    private const int Cases = 2_000,
        OfAList = 40,
        Width = 78;

    private enum Slip
    {
        None,
        TypingError,
        OtherInitials,
        NoPages,
        NoVolume,
        AbbreviatedVenue,
        TranslatedTitle,
        YearOff,
    }

    private enum Layout
    {
        OneALine,
        Numbered,
        Hanging,
        BlankLines,
        Bracketed,
        LineNumbers,
    }

    private sealed record Case(int Work, Slip Slip, CitationStyle Style, Citation Whole, string Text);

    private readonly CorpusSnapshot snapshot;
    private readonly Random random;

    private PastedMeasure(CorpusSnapshot snapshot, int seed) => (this.snapshot, random) = (snapshot, new(seed));

    /// <summary>Prints it.</summary>
    public static async Task Print(CorpusSnapshot snapshot, CorpusReader reader, int seed, TextWriter to, bool examples)
    {
        var measure = new PastedMeasure(snapshot, seed);
        using var shelf = StyleShelf.Shipped();
        using var formatter = new ReferenceFormatter(shelf);
        var styles = shelf.Search("");
        var cases = await measure.Cased(reader, formatter, styles);
        measure.Found(cases, to, examples);
        ReadAsEntries(cases, to, examples);
        await measure.Split(cases, formatter, styles, to, examples);
    }

    /// <summary>Works with somebody, a year and a title of some words; what has less cannot be told from a reference.</summary>
    private async Task<List<Case>> Cased(
        CorpusReader reader,
        ReferenceFormatter formatter,
        IReadOnlyList<CitationStyle> styles
    )
    {
        var columns = snapshot.Columns;
        int[] works = [.. Enumerable.Range(1, columns.WorkSize - 1).Where(w => columns.WorkFirstRecord[w] > 0)];
        random.Shuffle(works);
        var slipped = new List<(int Work, Slip Slip, Citation Whole, Citation Written)>();
        foreach (var part in works.Chunk(500))
        {
            var records = await reader.OfWorks(part, default);
            foreach (var work in part)
            {
                if (slipped.Count == Cases)
                    break;
                var chosen = ChosenFields.From([.. records[work]]);
                var whole = Citation.Of(work, chosen) with { Abstract = "", Keywords = [], Doi = null, Isbn = null };
                if (whole.Authors.Count == 0 || whole.Year is null || whole.Title.Split(' ').Length < 4)
                    continue;
                var slip = (Slip)(slipped.Count % 8);
                var other = records[work].SelectMany(r => r.Record.OtherTitles).FirstOrDefault();
                slipped.Add((work, slip, whole, Slipped(whole, slip, other)));
            }
            if (slipped.Count == Cases)
                break;
        }
        var cases = new List<Case>();
        foreach (
            var (group, n) in slipped
                .Select((c, i) => (c, i))
                .GroupBy(c => c.i / 8 % styles.Count)
                .Select((g, n) => (g, n))
        )
        {
            var texts = await Written(formatter, styles[n], [.. group.Select(c => c.c.Written)]);
            cases.AddRange(group.Select(c => new Case(c.c.Work, c.c.Slip, styles[n], c.c.Whole, texts[c.c.Work])));
        }
        return cases;
    }

    /// <summary>How many of those without a slip fill the fields of a custom entry as the work has them.</summary>
    private static void ReadAsEntries(List<Case> cases, TextWriter to, bool examples)
    {
        var plain = cases.Where(c => c.Slip == Slip.None).ToArray();
        var read = Array.ConvertAll(plain, c => PrintedEntry.Read(c.Text));
        void Share(string field, Func<Citation, EntryFields, bool> isRight)
        {
            var right = plain.Zip(read).Count(p => isRight(p.First.Whole, p.Second));
            to.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"  as an entry, {field}: {(double)right / plain.Length:0.000}"
                )
            );
            if (examples)
                foreach (var (c, e) in plain.Zip(read).Where(p => !isRight(p.First.Whole, p.Second)).Take(12))
                    to.WriteLine(
                        $"    {c.Style.Title}: {c.Text}\n      {e.People.ReplaceLineEndings("|")} # {e.Title} # {e.Venue}"
                    );
        }
        static string Same(string text) => string.Join(' ', Words.AsWritten(text));
        Share("title", (c, e) => Same(c.Title) == Same(e.Title));
        Share("year", (c, e) => $"{c.Year}" == e.Year);
        Share("first family name", (c, e) => Same(c.Authors[0].Family) == Same(e.People.Split('\n')[0].Split(',')[0]));
        Share("venue", (c, e) => c.Venue is not { } v || Same(v.Title) == Same(e.Venue));
    }

    private static async Task<Dictionary<int, string>> Written(
        ReferenceFormatter formatter,
        CitationStyle style,
        IReadOnlyList<Citation> citations
    )
    {
        using var json = new MemoryStream();
        CslJsonWriter.Write(json, citations);
        var made = await formatter.Format(style, "en-GB", Encoding.UTF8.GetString(json.ToArray()), default);
        var works = citations.ToDictionary(c => c.Key, c => c.WorkId);
        return made.References.ToDictionary(
            r => works[r.Id],
            r => Label().Replace(r.Text.ReplaceLineEndings(" ").Trim(), "")
        );
    }

    private Citation Slipped(Citation whole, Slip slip, string? otherTitle)
    {
        switch (slip)
        {
            case Slip.TypingError:
                var at = random.Next(2, whole.Title.Length - 2);
                return whole with { Title = whole.Title.Remove(at, 1).Insert(at, $"{(char)('a' + random.Next(26))}") };
            case Slip.OtherInitials:
                var given = $"{(char)('A' + random.Next(26))}. {(char)('A' + random.Next(26))}.";
                return whole with { Authors = [whole.Authors[0] with { Given = given }, .. whole.Authors.Skip(1)] };
            case Slip.NoPages:
                return whole with
                {
                    Venue = whole.Venue is { } paged ? paged with { FirstPage = null, LastPage = null } : null,
                };
            case Slip.NoVolume:
                return whole with
                {
                    Venue = whole.Venue is { } bound ? bound with { Volume = null, Issue = null } : null,
                };
            case Slip.AbbreviatedVenue:
                return whole with
                {
                    Venue = whole.Venue is { } named
                        ? named with
                        {
                            Title = string.Join(
                                ' ',
                                named
                                    .Title.Split(' ')
                                    .Where(w => w.Length > 3)
                                    .Select(w => w.Length > 5 ? w[..4] + "." : w)
                            ),
                        }
                        : null,
                };
            case Slip.TranslatedTitle:
                return otherTitle is { } other ? whole with { Title = other } : whole;
            case Slip.YearOff:
                return whole with { Year = whole.Year + (random.Next(2) == 0 ? 1 : -1), Date = null };
            default:
                return whole;
        }
    }

    private PastedDto Find(string text) =>
        PastedFinder.Find(snapshot, new QuestionEvaluator(snapshot, null), text, default);

    private void Found(List<Case> cases, TextWriter to, bool examples)
    {
        var (right, first, among, wrong) = (new int[8], new int[8], 0, 0);
        var times = new List<double>();
        foreach (var c in cases)
        {
            var began = Stopwatch.GetTimestamp();
            // As one line of a list: a list of one would be split at its own line ends.
            var found = Find($"{c.Text}\n");
            times.Add(Stopwatch.GetElapsedTime(began).TotalMilliseconds);
            var entry = found.References.Count > 0 ? found.References[0] : null;
            var works = entry?.Candidates.Select(w => w.WorkId).ToArray() ?? [];
            var isFirst = works.Length > 0 && works[0] == c.Work;
            first[(int)c.Slip] += isFirst ? 1 : 0;
            among += works.Contains(c.Work) ? 1 : 0;
            if (entry?.Verdict == PastedVerdict.Sure)
            {
                right[(int)c.Slip] += isFirst ? 1 : 0;
                wrong += isFirst ? 0 : 1;
            }
            if (examples && !isFirst)
                to.WriteLine(
                    $"  [{c.Slip}, {c.Style.Key}] {c.Text}\n     {entry?.Verdict}: "
                        + string.Join(" | ", entry?.Candidates.Select(w => w.Title) ?? [])
                );
        }
        times.Sort();
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"References: {cases.Count:N0} in {cases.Select(c => c.Style.Key).Distinct().Count()} styles; "
                    + $"right at first place {(double)first.Sum() / cases.Count:.000}, "
                    + $"sure {(double)right.Sum() / cases.Count:.000}, sure but wrong "
                    + $"{(double)wrong / cases.Count:.0000}, among three {(double)among / cases.Count:.000}; "
                    + $"median {times[times.Count / 2]:0.0} ms"
            )
        );
        foreach (var slip in Enum.GetValues<Slip>())
        {
            var of = cases.Count(c => c.Slip == slip);
            to.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"  {slip, -18} {of, 5}  first {(double)first[(int)slip] / of:.000}  sure {(double)right[(int)slip] / of:.000}"
                )
            );
        }
    }

    /// <summary>Lists of forty in one style, laid out in six ways; an entry is right when it holds just its reference.</summary>
    private async Task Split(
        List<Case> cases,
        ReferenceFormatter formatter,
        IReadOnlyList<CitationStyle> styles,
        TextWriter to,
        bool examples
    )
    {
        var (right, all, took) = (new int[6], new int[6], new List<double>());
        foreach (var (list, n) in cases.Chunk(OfAList).Where(c => c.Length == OfAList).Select((c, n) => (c, n)))
        {
            var written = await Written(
                formatter,
                styles[n % styles.Count],
                [.. list.Select(c => c.Whole).DistinctBy(c => c.WorkId)]
            );
            var layout = (Layout)(n % 6);
            string[] texts = [.. written.Values];
            var began = Stopwatch.GetTimestamp();
            var entries = Find(LaidOut(texts, layout)).References;
            took.Add(Stopwatch.GetElapsedTime(began).TotalMilliseconds);
            var found = entries.Select(e => Plain(e.Text)).ToHashSet(StringComparer.Ordinal);
            var missed = texts.Where(t => !found.Contains(Plain(t))).ToArray();
            right[(int)layout] += texts.Length - missed.Length;
            all[(int)layout] += texts.Length;
            if (examples && missed.Length > 0)
                to.WriteLine(
                    $"  [{layout}, {styles[n % styles.Count].Key}] {missed.Length} lost of {texts.Length}, {entries.Count} found:\n"
                        + string.Join(
                            '\n',
                            entries.Where(e => !texts.Any(t => Plain(t) == Plain(e.Text))).Select(e => "     " + e.Text)
                        )
                );
        }
        took.Sort();
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"Lists of {OfAList}: split rightly {(double)right.Sum() / all.Sum():.000} of {all.Sum():N0}; a list in "
                    + $"{took[took.Count / 2]:0} ms (median)"
            )
        );
        foreach (var layout in Enum.GetValues<Layout>())
            to.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"  {layout, -12} {(double)right[(int)layout] / Math.Max(1, all[(int)layout]):.000}"
                )
            );
    }

    private static string LaidOut(string[] texts, Layout layout)
    {
        var (lines, number) = (new List<string>(), 100);
        foreach (var (text, i) in texts.Select((t, i) => (t, i)))
        {
            var wrapped = Wrapped(text);
            switch (layout)
            {
                case Layout.OneALine:
                    lines.Add(text);
                    break;
                case Layout.Numbered:
                    lines.Add($"{i + 1}. {wrapped[0]}");
                    lines.AddRange(wrapped.Skip(1).Select(w => "   " + w));
                    break;
                case Layout.Hanging:
                    lines.Add(wrapped[0]);
                    lines.AddRange(wrapped.Skip(1).Select(w => "    " + w));
                    break;
                case Layout.BlankLines:
                    lines.AddRange([.. wrapped, ""]);
                    break;
                case Layout.Bracketed:
                    lines.Add($"[{i + 1}] {wrapped[0]}");
                    lines.AddRange(wrapped.Skip(1));
                    break;
                default:
                    lines.AddRange(wrapped.Select(w => $"{number++} {w}"));
                    break;
            }
        }
        return string.Join('\n', lines);
    }

    private static List<string> Wrapped(string text)
    {
        var (lines, line) = (new List<string>(), "");
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            if (line.Length > 0 && line.Length + 1 + word.Length > Width)
            {
                lines.Add(line);
                line = "";
            }
            line = line.Length == 0 ? word : $"{line} {word}";
        }
        lines.Add(line);
        return lines;
    }

    private static string Plain(string text) => string.Concat(text.Where(char.IsLetterOrDigit)).ToUpperInvariant();

    /// <summary>The number that some styles give an entry: lists are numbered here by their layout.</summary>
    [GeneratedRegex(@"^(?:\[\d+\]|\(\d+\)|\d+\.)\s*")]
    private static partial Regex Label();
}
