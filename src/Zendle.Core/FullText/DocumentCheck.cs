using System.Globalization;
using System.Text.RegularExpressions;
using Zendle.Core.Records;
using Zendle.Core.Text;

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
public sealed record CheckedDocument(
    DocumentVerdict Verdict,
    string Sentence,
    double TitleShare,
    WorkVersion? Version,
    IReadOnlyList<CheckLine> Lines
)
{
    /// <summary>Whether it has no more words than an abstract.</summary>
    public bool IsShort { get; init; }
}

/// <summary>
/// Verifies a document: at least nine tenths of the title's words in order on its first pages, standing there as a
/// title (<see cref="FoundTitle"/>), its people near it, its DOI if one is printed, a body longer than an abstract, and
/// nothing that says it is about another (<see cref="AboutAnother"/>). Half to nine tenths of the title, or a title
/// that only is named, is doubt, unless another DOI is printed and none of the people is named; less is another work.
/// </summary>
public static partial class DocumentCheck
{
    /// <summary>Share of the title that settles it.</summary>
    public const double Sure = 0.9;

    /// <summary>Share of the title below which it is another work.</summary>
    public const double Least = 0.5;
    private const int FewestWords = 150,
        FewestOfAPage = 300,
        FewestOfANote = 60;

    /// <summary>
    /// Fewest words of a text: as many as an abstract has, or twice its own. A web page may be one about the work, with an abstract
    /// that no record has, or a longer one, among other words: of it more is asked. Editorials, letters and notices say all they say in
    /// a few lines, which a record may give whole as their abstract; so that is held against them only where a page about the
    /// work may have come in its stead.
    /// </summary>
    private static int Fewest(DocumentFacts facts, ExpectedWork work)
    {
        var isNote =
            work.Type
            is DocumentType.Editorial
                or DocumentType.Letter
                or DocumentType.Correction
                or DocumentType.RetractionNotice;
        var least =
            isNote ? FewestOfANote
            : facts.Format == TextFormat.Html ? FewestOfAPage
            : FewestWords;
        return isNote && facts.Format != TextFormat.Html ? least : Math.Max(least, Words.Of(work.Abstract).Count * 2);
    }

    /// <summary>Holds a document against a work.</summary>
    public static CheckedDocument Of(DocumentFacts facts, ExpectedWork work)
    {
        if (facts.IsScan)
            return new(
                DocumentVerdict.Doubtful,
                "Its pages are images without text: only a person can tell whether it is the work.",
                0,
                null,
                [
                    new(
                        "title",
                        null,
                        work.Titles.Count == 0 ? "" : work.Titles[0],
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"{facts.Pages} {(facts.Pages == 1 ? "page" : "pages")} of pictures"
                        )
                    ),
                ]
            );
        var found = work
            .Titles.Where(t => t.Length > 0)
            .Select(t => FoundTitle.Find(facts, t))
            .OfType<FoundTitle>()
            .ToArray();
        var best = found
            .OrderByDescending(p => p.Share >= Sure && p.WhyNot is null)
            .ThenByDescending(p => p.Share)
            .FirstOrDefault();
        var untitled = !work.Titles.Any(t => t.Length > 0);
        var share = best?.Share ?? 0;
        // People are looked for near the title; where there is none, on the first pages.
        var present = facts.LineWords.SelectMany(w => w).ToHashSet(StringComparer.Ordinal);
        var near = best is null ? 0 : best.Named(facts, work.People.Take(12));
        var named = best is null || near > 0 ? work.People.FirstOrDefault(p => FoundTitle.IsNamed(p, present)) : null;
        string[] dois = [.. facts.OwnFirstPage.Select(Identifiers.Doi).OfType<string>().Distinct()];
        bool? doi =
            dois.Length == 0 || work.Dois.Count == 0
                ? null
                : dois.Any(d => work.Dois.Contains(d, StringComparer.OrdinalIgnoreCase));
        var printed = string.Join('\n', facts.FirstPage);
        var years = Year()
            .Matches(printed)
            .Select(m => int.Parse(m.Value, CultureInfo.InvariantCulture))
            .Distinct()
            .ToArray();
        bool? year = work.Year is not { } y || years.Length == 0 ? null : years.Any(p => Math.Abs(p - y) <= 1);
        var least = Fewest(facts, work);
        var isShort = facts.WordCount < least;
        bool? person = work.People.Count == 0 ? null : named is not null;
        CheckLine[] lines =
        [
            new(
                "title",
                untitled ? null : share >= Sure && best!.WhyNot is null,
                work.Titles.Count == 0 ? "" : work.Titles[0],
                best is null || share <= 0 ? "not found on its first pages"
                    : best.WhyNot is { Length: > 0 } whyNot && share >= Sure ? $"{Around(facts, best)} ({whyNot})"
                    : Around(facts, best)
            ),
            new(
                "people",
                person,
                work.People.Count == 0
                    ? "no author named"
                    : string.Join(", ", work.People.Take(4).Select(p => p.Family)),
                named is null ? "none of them" : named.Family
            ),
            new(
                "DOI",
                doi,
                work.Dois.Count == 0 ? "none known" : work.Dois[0],
                dois.Length == 0 ? "none printed" : string.Join(", ", dois)
            ),
            new(
                "year",
                year,
                work.Year?.ToString(CultureInfo.InvariantCulture) ?? "none known",
                years.Length == 0 ? "none printed" : string.Join(", ", years.Order())
            ),
            new(
                "length",
                !isShort,
                least switch
                {
                    FewestOfANote => "a few lines",
                    FewestWords or FewestOfAPage => "more than an abstract",
                    _ => "more than its abstract",
                },
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{(facts.Format == TextFormat.Pdf ? $"{facts.Pages} pages, " : "")}{facts.WordCount:N0} words"
                )
            ),
        ];
        var (verdict, sentence) = new Findings(facts, work, best, person, near, doi, !isShort).Judge();
        return new(verdict, sentence, share, VersionSigns.Of(facts), lines) { IsShort = isShort };
    }

    /// <summary>What was found out about a document, and what follows from it.</summary>
    /// <param name="Facts">The document.</param>
    /// <param name="Work">What it is held against.</param>
    /// <param name="Title">Where its title stands best; null when it has none, or the record has none.</param>
    /// <param name="Person">Whether any of the people is named; null when the record names nobody.</param>
    /// <param name="Near">How many of them are named near the title.</param>
    /// <param name="Doi">Whether a DOI of its own agrees; null when it prints none, or the record has none.</param>
    /// <param name="IsLongEnough">Whether it is longer than an abstract.</param>
    private sealed record Findings(
        DocumentFacts Facts,
        ExpectedWork Work,
        FoundTitle? Title,
        bool? Person,
        int Near,
        bool? Doi,
        bool IsLongEnough
    )
    {
        private double Share => Title?.Share ?? 0;

        public (DocumentVerdict Verdict, string Sentence) Judge()
        {
            if (!Work.Titles.Any(t => t.Length > 0))
                return Doubt("The record has no title to compare it with.");
            // A right DOI or person cannot turn a page that does not hold the title into the work, but they can raise
            // doubt where there was none.
            if (Share < Least)
                return Doi == true
                    ? Doubt("The DOI agrees, but the title is not on its first pages.")
                    : Refuse("It is another work: the title is not on its first pages.");
            if (Share < Sure)
            {
                var part = string.Create(CultureInfo.InvariantCulture, $"{Share * 100:0} % of its words, in order");
                // Titles of one pattern share its words: "… and … in …: a review".
                return Doi == false && Person == false
                    ? Refuse(
                        $"It is another work: the title agrees only in part ({part}), it prints another DOI and names "
                            + "none of the people."
                    )
                    : Doubt($"The title agrees only in part ({part}).");
            }
            return AsTitle() ?? AsItsOwn() ?? AsWhole() ?? (DocumentVerdict.Agrees, "All checks agree.");
        }

        /// <summary>What speaks against the title being the document's own.</summary>
        private (DocumentVerdict, string)? AsTitle()
        {
            if (Title!.WhyNot is { } whyNot)
                return Doi == false && Person != true
                    ? Refuse(
                        $"It is another work, which only names this one: {whyNot}, and another DOI is printed on it."
                    )
                    : Doubt($"It names the work, but not as its own title: {whyNot}.");
            return AboutAnother.Sign(Facts, Title, Work) is { } sign
                ? Doubt($"It has the title, but says that it is about the work: “{sign}”.")
                : null;
        }

        /// <summary>What speaks against its being this work among those of one title.</summary>
        private (DocumentVerdict, string)? AsItsOwn()
        {
            if (Doi == false)
                return Person == true
                    ? Doubt("The title agrees, but another DOI is printed on it.")
                    : Refuse("It is another work: it prints another DOI and names none of the people.");
            if (Person == false)
                return Doubt("The title agrees, but none of the people is named near it.");
            if (Doi is not null)
                return null;
            // Without a DOI of its own one name in common may be chance.
            if (Work.People.Count >= 3 && Near < 2)
                return Doubt(
                    "The title agrees, but only one of the people is named near it, and it prints no DOI of its own."
                );
            return Title!.IsSetApart(Facts) || Facts.Pages >= 3
                ? null
                : Doubt(
                    "The title agrees, but it is not set apart on a page or two without a DOI, as in a list or a note."
                );
        }

        /// <summary>What speaks against its being all of the work.</summary>
        private (DocumentVerdict, string)? AsWhole()
        {
            if (!IsLongEnough)
                return Doubt("The title agrees, but the text is no longer than an abstract.");
            if (Work.Type is not (DocumentType.Book or DocumentType.Thesis) || Facts.Pages > 2)
                return null;
            return Doubt(
                $"The title agrees, but {(Work.Type == DocumentType.Book ? "a book" : "a thesis")} has more "
                    + $"than {Facts.Pages} {(Facts.Pages == 1 ? "page" : "pages")}."
            );
        }

        private static (DocumentVerdict, string) Doubt(string sentence) => (DocumentVerdict.Doubtful, sentence);

        private static (DocumentVerdict, string) Refuse(string sentence) => (DocumentVerdict.Refused, sentence);
    }

    /// <summary>The printed words where the title stands, cut at 160 letters.</summary>
    private static string Around(DocumentFacts facts, FoundTitle found)
    {
        var text = string.Join(
            ' ',
            Enumerable.Range(found.FirstLine, found.LastLine - found.FirstLine + 1).Select(i => facts.Lines[i].Text)
        );
        return text.Length > 160 ? text[..160] + "…" : text;
    }

    [GeneratedRegex(@"\b(?:19|20)\d\d\b", RegexOptions.CultureInvariant, PatternTime.Milliseconds)]
    private static partial Regex Year();
}
