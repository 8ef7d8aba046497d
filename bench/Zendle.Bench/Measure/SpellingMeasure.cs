using System.Globalization;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Spelling;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Zendle.Index.Spelling;

namespace Zendle.Bench.Measure;

/// <summary>
/// How often a misspelt line is mended as it was meant: words of a corpus with slips, alone and in lines of three, and
/// correct rare words and names, which should be left alone.
/// </summary>
internal sealed class SpellingMeasure
{
    private const int Cases = 2_000;
    private const string Letters = "abcdefghijklmnopqrstuvwxyz",
        Vowels = "aeiou";
    private static readonly string[] Rows = ["qwertyuiop", "asdfghjkl", "zxcvbnm"];

    private enum Slip
    {
        NextKey,
        Swapped,
        Missing,
        Extra,
        Doubled,
        Vowel,
        Together,
        Apart,
    }

    private readonly CorpusColumns columns;
    private readonly QuestionEvaluator evaluator;
    private readonly LineMender mender;
    private readonly Random random;
    private readonly string[] words;
    private readonly int[] works;
    private readonly bool examples;
    private readonly TextWriter to;

    private SpellingMeasure(CorpusSnapshot snapshot, int seed, bool examples, TextWriter to)
    {
        (columns, this.examples, this.to, random) = (snapshot.Columns, examples, to, new(seed));
        evaluator = new(snapshot, null);
        mender = new(columns, evaluator, Works);
        words =
        [
            .. columns
                .Words.Words.Zip(columns.Words.Works)
                .Where(w => w.Second > Misspelling.Rare && IsPlain(w.First))
                .Select(w => w.First),
        ];
        works = [.. Enumerable.Range(1, columns.WorkSize - 1).Where(w => columns.WorkFirstRecord[w] > 0)];
    }

    /// <summary>Prints it.</summary>
    /// <param name="snapshot">The corpus.</param>
    /// <param name="seed">Which words, and which slips.</param>
    /// <param name="to">Where it is printed.</param>
    /// <param name="examples">Whether each miss is printed.</param>
    public static void Print(CorpusSnapshot snapshot, int seed, TextWriter to, bool examples)
    {
        var measure = new SpellingMeasure(snapshot, seed, examples, to);
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"Spelling: {measure.words.Length:N0} words in more than {Misspelling.Rare} works"
            )
        );
        foreach (var slips in new[] { 1, 2 })
        {
            measure.Mend($"{slips} slip(s), a word alone", slips, length: 1, all: false);
            measure.Mend($"{slips} slip(s) in one word of three", slips, length: 3, all: false);
            measure.Mend($"{slips} slip(s) in each of three", slips, length: 3, all: true);
        }
        measure.Alarms();
        measure.Time();
    }

    private int Works(string line) =>
        QueryReader.Read(line).Root is { } root ? evaluator.Works(evaluator.Records(root)).Count() : 0;

    private static bool IsPlain(string word) => word.Length >= 5 && word.All(char.IsAsciiLetterLower);

    private void Mend(string what, int slips, int length, bool all)
    {
        var (right, shown, total) = (new int[8], new int[8], new int[8]);
        for (var n = 0; n < Cases; )
        {
            var line = length == 1 ? [words[random.Next(words.Length)]] : Line(length);
            var kind = (Slip)(n % (slips == 1 ? 8 : 6));
            if (line.Length == 0 || Slipped(line, kind, slips, all) is not { } slipped)
                continue;
            n++;
            total[(int)kind]++;
            var (_, ways) = mender.Mend(QueryReader.Read(slipped.Typed).Root!, slipped.Typed);
            var at = ways.ToList().FindIndex(w => w.Line == slipped.Meant);
            if (at == 0)
                right[(int)kind]++;
            if (at >= 0)
                shown[(int)kind]++;
            if (at != 0 && examples)
                to.WriteLine(
                    $"    {kind}: {slipped.Typed} → {string.Join(" | ", ways.Select(w => $"{w.Line} {w.Works}"))}; meant {slipped.Meant}"
                );
        }
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  {what}: right first {(double)right.Sum() / total.Sum():0.000}, among those shown "
                    + $"{(double)shown.Sum() / total.Sum():0.000} ("
            )
                + string.Join(
                    ", ",
                    Enum.GetValues<Slip>()
                        .Where(s => total[(int)s] > 0)
                        .Select(s =>
                            string.Create(
                                CultureInfo.InvariantCulture,
                                $"{s} {(double)right[(int)s] / total[(int)s]:0.00}"
                            )
                        )
                )
                + ")"
        );
    }

    /// <summary>Different words of one work, in the order they stand.</summary>
    private string[] Line(int length)
    {
        var of = new List<string>();
        foreach (var number in columns.Words.Of(works[random.Next(works.Length)]))
            if (
                columns.Words.Words[number] is var word
                && IsPlain(word)
                && columns.Words.Works[number] > Misspelling.Rare
            )
                of.Add(word);
        of = [.. of.Distinct()];
        if (of.Count < length)
            return [];
        return [.. Enumerable.Range(0, of.Count).OrderBy(_ => random.Next()).Take(length).Order().Select(i => of[i])];
    }

    /// <summary>The line with slips; null when what comes out is known to the corpus, so that nobody could tell.</summary>
    private (string Typed, string Meant)? Slipped(string[] line, Slip kind, int slips, bool all)
    {
        var (typed, meant) = ((string[])line.Clone(), (string[])line.Clone());
        var from = random.Next(line.Length);
        for (var i = 0; i < line.Length; i++)
        {
            if (!all && i != from)
                continue;
            if (kind == Slip.Together)
            {
                if (Pair() is not { } pair)
                    return null;
                (typed[i], meant[i]) = (pair.Replace(" ", "", StringComparison.Ordinal), $"\"{pair}\"");
            }
            else
                for (var n = 0; n < slips; n++)
                    typed[i] = With(typed[i], n == 0 ? kind : (Slip)random.Next(6));
            if (typed[i] == line[i] || typed[i].Split(' ').All(IsKnown))
                return null;
        }
        return (string.Join(' ', typed), string.Join(' ', meant));
    }

    private bool IsKnown(string word) =>
        columns.Spelled(null).Works(word) > Misspelling.Rare || columns.Spelled(Facet.Person).Works(word) > 0;

    /// <summary>Two words that stand beside each other in several works.</summary>
    private string? Pair()
    {
        string? last = null;
        foreach (var number in columns.Words.Of(works[random.Next(works.Length)]))
        {
            var word = columns.Words.Words[number];
            if (
                last is not null
                && IsPlain(last)
                && IsPlain(word)
                && random.Next(12) == 0
                && Works($"\"{last} {word}\"") > 10
            )
                return $"{last} {word}";
            last = word;
        }
        return null;
    }

    private string With(string word, Slip slip)
    {
        var at = random.Next(1, word.Length - 1);
        switch (slip)
        {
            case Slip.NextKey:
                var row = Array.Find(Rows, r => r.Contains(word[at], StringComparison.Ordinal))!;
                var key = row.IndexOf(word[at], StringComparison.Ordinal) + (random.Next(2) == 0 ? 1 : -1);
                return $"{word[..at]}{row[Math.Clamp(key, 0, row.Length - 1)]}{word[(at + 1)..]}";
            case Slip.Swapped:
                return $"{word[..at]}{word[at + 1]}{word[at]}{word[(at + 2)..]}";
            case Slip.Missing:
                return word.Remove(at, 1);
            case Slip.Extra:
                return word.Insert(at, Letters[random.Next(26)].ToString());
            case Slip.Doubled:
                for (var i = 1; i < word.Length; i++)
                    if (word[i] == word[i - 1])
                        return word.Remove(i, 1);
                return word.Insert(at, word[at].ToString());
            case Slip.Vowel:
                var vowel = word.AsSpan(1).IndexOfAny(Vowels) + 1;
                return vowel == 0 ? word : $"{word[..vowel]}{Vowels[random.Next(5)]}{word[(vowel + 1)..]}";
            default:
                return word.Insert(Math.Clamp(at, 2, word.Length - 2), " ");
        }
    }

    /// <summary>
    /// Words and names that are right. The rare words of a made-up corpus are slips of its records; so each common one is
    /// looked at as if one work had it.
    /// </summary>
    private void Alarms()
    {
        string[] names =
        [
            .. columns
                .Of(Facet.Person)
                .Names.SelectMany(n => Core.Text.Words.AsWritten(n.Split(',')[0]))
                .Where(IsPlain)
                .Distinct(),
        ];
        string[] strange = [.. Enumerable.Range(0, Cases).Select(_ => Strange()).Where(w => !IsKnown(w))];
        Alarms(
            "words, as if one work had each",
            words,
            word => Misspelling.Of(word, 1, columns.Spelled(null), 3).Select(m => m.Text)
        );
        Alarms("names of people", names, Mended);
        Alarms("made-up names that nobody has", strange, Mended);

        IEnumerable<string> Mended(string line) =>
            mender.Mend(QueryReader.Read(line).Root!, line).Ways.Select(w => $"{w.Line} {w.Works}");
    }

    private void Alarms(string what, string[] right, Func<string, IEnumerable<string>> offered)
    {
        var tried = right.OrderBy(_ => random.Next()).Take(Cases).ToArray();
        var alarms = 0;
        foreach (var word in tried)
        {
            string[] ways = [.. offered(word)];
            if (ways.Length == 0)
                continue;
            alarms++;
            if (examples)
                to.WriteLine($"    alarm: {word} ({columns.Spelled(null).Works(word)}) → {string.Join(" | ", ways)}");
        }
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  {what}: {tried.Length:N0} that are right, of which {(double)alarms / Math.Max(1, tried.Length):0.000} are doubted"
            )
        );
    }

    /// <summary>A name of the sound of names, which nobody in the corpus has.</summary>
    private string Strange() =>
        string.Concat(
            Enumerable
                .Range(0, random.Next(2, 4))
                .Select(_ => $"{"bdfghklmnprstvz"[random.Next(15)]}{Vowels[random.Next(5)]}{"lmnrs"[random.Next(5)]}")
        );

    private void Time()
    {
        Time(columns.Spelled(null), words);
        // As many words as a corpus of a million works may have.
        var (many, made) = (new HashSet<string>(words, StringComparer.Ordinal), new List<string>(words));
        while (many.Count < 500_000)
        {
            var (a, b) = (made[random.Next(made.Count)], made[random.Next(made.Count)]);
            var word = a[..random.Next(2, Math.Min(a.Length, 9))] + b[random.Next(Math.Min(b.Length, 4))..];
            if (word.Length <= 20 && many.Add(word))
                made.Add(word);
        }
        Time(new(many.Select(w => (w, 1))), words);
    }

    private void Time(SpelledWords among, string[] typed)
    {
        const int Rounds = 200;
        _ = among.Near(With(typed[0], Slip.Extra)).Count();
        var began = TimeProvider.System.GetTimestamp();
        for (var n = 0; n < Rounds; n++)
            _ = among.Near(With(typed[random.Next(typed.Length)], Slip.Extra)).Count();
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  near words of a word among {among.Count:N0}: "
                    + $"{TimeProvider.System.GetElapsedTime(began).TotalMilliseconds / Rounds:0.00} ms"
            )
        );
    }
}
