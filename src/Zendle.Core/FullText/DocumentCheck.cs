using System.Globalization;
using System.Text.RegularExpressions;
using Zendle.Core.Queries;
using Zendle.Core.Records;

namespace Zendle.Core.FullText;

/// <summary>Whether a document is the work that was sought.</summary>
public enum DocumentVerdict
{
    /// <summary>It is.</summary>
    Agrees,
    /// <summary>It may be; a person looks.</summary>
    Doubtful,
    /// <summary>It is not.</summary>
    Refused,
}

/// <summary>One thing that was compared.</summary>
/// <param name="Name">What: title, people, DOI, year, length.</param>
/// <param name="Agrees">Whether it agrees; null when the document does not say.</param>
/// <param name="Record">What the records say.</param>
/// <param name="Document">What the document says.</param>
public sealed record CheckLine(string Name, bool? Agrees, string Record, string Document);

/// <summary>A document held against a work.</summary>
/// <param name="Verdict">What came of it.</param>
/// <param name="Sentence">Why, in a sentence.</param>
/// <param name="TitleShare">Share of the title's words found in order on the first pages, 0–1.</param>
/// <param name="Version">The version it shows signs of; null when it shows none.</param>
/// <param name="Lines">What was compared.</param>
public sealed record CheckedDocument(DocumentVerdict Verdict, string Sentence, double TitleShare, WorkVersion? Version, IReadOnlyList<CheckLine> Lines);

/// <summary>
/// Verifies a document: at least nine tenths of the title's words in order on its first pages, a surname of its people, its DOI if one is
/// printed, and a body longer than an abstract. Half to nine tenths of the title, or a title without a person, is doubt; less is another work.
/// </summary>
public static partial class DocumentCheck
{
    /// <summary>Share of the title that settles it.</summary>
    public const double Sure = 0.9;
    /// <summary>Share of the title below which it is another work.</summary>
    public const double Least = 0.5;
    private const int FewestWords = 150;

    /// <summary>Holds a document against a work.</summary>
    public static CheckedDocument Of(DocumentFacts facts, ExpectedWork work)
    {
        var text = string.Join('\n', facts.FirstLines);
        var words = Folded(text);
        var best = work.Titles.Where(t => t.Length > 0).Select(t => (Title: t, Found: TitleIn(words, Folded(t)))).OrderByDescending(t => t.Found.Share).FirstOrDefault();
        var share = best.Title is null ? 0 : best.Found.Share;
        var present = words.ToHashSet(StringComparer.Ordinal);
        var named = work.People.FirstOrDefault(p => Folded(p.Family) is { Count: > 0 } family && family.All(present.Contains));
        var printed = string.Join('\n', facts.FirstLines.Take(facts.LinesOnFirstPage));
        string[] dois = [.. Printed().Matches(printed).Select(m => Identifiers.Doi(m.Value)).OfType<string>().Distinct()];
        bool? doi = dois.Length == 0 || work.Dois.Count == 0 ? null : dois.Any(d => work.Dois.Contains(d, StringComparer.OrdinalIgnoreCase));
        var years = Year().Matches(printed).Select(m => int.Parse(m.Value, CultureInfo.InvariantCulture)).Distinct().ToArray();
        bool? year = work.Year is not { } y || years.Length == 0 ? null : years.Any(p => Math.Abs(p - y) <= 1);
        var least = Math.Max(FewestWords, Words.Of(work.Abstract).Count * 2);
        bool? person = work.People.Count == 0 ? null : named is not null;
        CheckLine[] lines =
        [
            new("title", best.Title is null ? null : share >= Sure, work.Titles.Count == 0 ? "" : work.Titles[0], share > 0 ? Around(text, best.Found.First, best.Found.Last) : "not found on its first pages"),
            new("people", person, work.People.Count == 0 ? "nobody named" : string.Join(", ", work.People.Take(4).Select(p => p.Family)), named is null ? "none of them" : named.Family),
            new("DOI", doi, work.Dois.Count == 0 ? "none known" : work.Dois[0], dois.Length == 0 ? "none printed" : string.Join(", ", dois)),
            new("year", year, work.Year?.ToString(CultureInfo.InvariantCulture) ?? "none known", years.Length == 0 ? "none printed" : string.Join(", ", years.Order())),
            new("length", facts.Words >= least, least == FewestWords ? "more than an abstract" : $"more than its abstract", string.Create(CultureInfo.InvariantCulture, $"{facts.Pages} pages, {facts.Words:N0} words")),
        ];
        var (verdict, sentence) = Judge(share, person, doi, facts.Words >= least, best.Title is null);
        return new(verdict, sentence, share, VersionSigns.Of(facts), lines);
    }

    private static (DocumentVerdict, string) Judge(double share, bool? person, bool? doi, bool longEnough, bool untitled)
    {
        if (untitled) return (DocumentVerdict.Doubtful, "The record has no title to hold it against.");
        // A right DOI or person cannot turn a page that does not hold the title into the work, but they can raise doubt where there was none.
        if (share < Least && doi != true) return (DocumentVerdict.Refused, "It is another work: the title is not on its first pages.");
        if (share < Least) return (DocumentVerdict.Doubtful, "The DOI agrees, but the title is not on its first pages.");
        if (share < Sure) return (DocumentVerdict.Doubtful, string.Create(CultureInfo.InvariantCulture, $"The title agrees only in part ({share * 100:0} % of its words, in order)."));
        if (doi == false && person != true) return (DocumentVerdict.Refused, "It is another work: it prints another DOI and names none of the people.");
        if (doi == false) return (DocumentVerdict.Doubtful, "The title agrees, but another DOI is printed on it.");
        if (person == false) return (DocumentVerdict.Doubtful, "The title agrees, but none of the people is named on its first pages.");
        if (!longEnough) return (DocumentVerdict.Doubtful, "The title agrees, but the text is no longer than an abstract.");
        return (DocumentVerdict.Agrees, "All checks agree.");
    }

    /// <summary>
    /// The longest run of a title's words in order inside a window of the text one and a half times as long, as a share of the title; with
    /// the first and last word of the window. O(text · title²) for titles of at most 60 words.
    /// </summary>
    private static (double Share, int First, int Last) TitleIn(IReadOnlyList<string> text, IReadOnlyList<string> title)
    {
        if (title.Count == 0) return (0, 0, 0);
        var wanted = title.Take(60).ToArray();
        var window = wanted.Length + wanted.Length / 2 + 1;
        var inTitle = wanted.ToHashSet(StringComparer.Ordinal);
        var best = (Share: 0.0, First: 0, Last: 0);
        var row = new int[wanted.Length + 1];
        for (var start = 0; start < text.Count; start++)
        {
            // A window that does best begins with a word of the title.
            if (!inTitle.Contains(text[start])) continue;
            Array.Clear(row);
            var end = Math.Min(text.Count, start + window);
            for (var i = start; i < end; i++)
            {
                if (!inTitle.Contains(text[i])) continue;
                var diagonal = 0;
                for (var j = 1; j <= wanted.Length; j++)
                {
                    var above = row[j];
                    row[j] = text[i] == wanted[j - 1] ? diagonal + 1 : Math.Max(row[j], row[j - 1]);
                    diagonal = above;
                }
            }
            var share = (double)row[wanted.Length] / wanted.Length;
            if (share <= best.Share) continue;
            while (end > start + 1 && !inTitle.Contains(text[end - 1])) end--;
            best = (share, start, end);
            if (best.Share >= 1) break;
        }
        return best;
    }

    private static List<string> Folded(string text) => [.. Words.Of(text).Where(w => !w.IsClosedForm).Select(w => w.Text)];

    /// <summary>The printed words of a window, cut at 160 letters.</summary>
    private static string Around(string text, int first, int last)
    {
        var words = Words.Of(text).Where(w => !w.IsClosedForm).ToArray();
        if (words.Length == 0 || first >= words.Length) return "";
        var to = words[Math.Min(last, words.Length) - 1];
        var cut = text[words[first].Start..to.End].ReplaceLineEndings(" ");
        return cut.Length > 160 ? cut[..160] + "…" : cut;
    }

    [GeneratedRegex(@"10\.\d{4,9}/[^\s""<>]+", RegexOptions.CultureInvariant, 200)]
    private static partial Regex Printed();

    [GeneratedRegex(@"\b(?:19|20)\d\d\b", RegexOptions.CultureInvariant, 200)]
    private static partial Regex Year();
}
