using System.Text.RegularExpressions;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>
/// Signs by which a document says that it is about another one whose title it carries: a reply, a comment, a
/// correction, a review of a book, a supplement, the slides of a talk. A work that is one itself may say so.
/// </summary>
internal static partial class AboutAnother
{
    private const int FewPages = 3;

    /// <summary>The sign, as it stands in the document; null when there is none.</summary>
    /// <param name="facts">The document.</param>
    /// <param name="found">Where the title stands.</param>
    /// <param name="work">What it is held against.</param>
    public static string? Sign(DocumentFacts facts, FoundTitle found, ExpectedWork work)
    {
        var lines = facts.Lines;
        var page = lines[found.FirstLine].Page;
        var top = found.FirstLine;
        while (top > 0 && lines[top - 1].Page == page)
            top--;
        // What leads into the title: the words before it in its line, and the line above.
        var title = work.Titles.Count > 0 ? work.Titles[0] : "";
        var before = Lead(lines[found.FirstLine].Text, title);
        if (before.Length == 0 && found.FirstLine > top)
            before = lines[found.FirstLine - 1].Text;
        if (LeadsIn().Match(before) is { Success: true } lead && !IsOne(work, lead.Value))
            return Short(before);
        var isShort = facts.Pages <= FewPages;
        for (var i = top; i <= Math.Min(found.LastLine + 2, lines.Count - 1); i++)
        {
            if (lines[i].Page != page || (i >= found.FirstLine && i <= found.LastLine))
                continue;
            var match = Label().Match(lines[i].Text);
            if (!match.Success && isShort)
                match = ShortLabel().Match(lines[i].Text);
            if (
                match.Success
                && !IsOne(work, match.Value)
                && !title.Contains(lines[i].Text.Trim(), StringComparison.OrdinalIgnoreCase)
            )
                return Short(lines[i].Text);
        }
        // A review of a book has the book's bibliography under its title: "Fjord, Vik, 2012. 320 pp. ISBN …".
        for (var i = found.LastLine + 1; isShort && i <= Math.Min(found.LastLine + 5, lines.Count - 1); i++)
            if (lines[i].Page == page && Extent().IsMatch(lines[i].Text))
                return Short(lines[i].Text);
        if (facts.IsLandscape && facts.WordCount < facts.Pages * 140 && facts.Pages > 2)
            return "wide pages with few words, like slides";
        return null;
    }

    /// <summary>Whether the work is what the sign names.</summary>
    private static bool IsOne(ExpectedWork work, string sign)
    {
        if (work.Titles.Any(t => t.StartsWith(sign.Trim(' ', ':', '.'), StringComparison.OrdinalIgnoreCase)))
            return true;
        return work.Type switch
        {
            DocumentType.Correction => Correction().IsMatch(sign),
            DocumentType.RetractionNotice => sign.Contains("retract", StringComparison.OrdinalIgnoreCase),
            DocumentType.Letter => Correspondence().IsMatch(sign),
            DocumentType.Review or DocumentType.Editorial => sign.Contains("review", StringComparison.OrdinalIgnoreCase)
                || Correspondence().IsMatch(sign),
            _ => false,
        };
    }

    /// <summary>What stands in a line before the title begins.</summary>
    private static string Lead(string line, string title)
    {
        var first = title.Split(' ', 2)[0];
        var at = first.Length > 0 ? line.IndexOf(first, StringComparison.OrdinalIgnoreCase) : 0;
        return at > 0 ? line[..at].TrimEnd(' ', '“', '"', '‘', '\'', '«', '„') : "";
    }

    private static string Short(string text) =>
        text.Trim() is { Length: > 80 } longer ? longer[..80] + "…" : text.Trim();

    private const string Kinds =
        @"comment(?:ary|s)?|reply|replies|response|rejoinder|remarks?|erratum|errata|corrigend(?:um|a)"
        + @"|correction|addendum|retraction(?: notice| note)?|expression of concern|(?:book )?review"
        + @"|supplement(?:ary|al)?(?: (?:material|information|data|text|file|appendix))?s?"
        + @"|supporting information|appendi(?:x|ces)|slides|presentation|talk|discussion|letter|note|kommentar"
        + @"|antwort|berichtigung|r[ée]ponse|commentaire|rectificatif|respuesta|comentarios?|resposta|errata";

    // "Reply to", "Comment on the paper", "Erratum to:", "Re:"
    [GeneratedRegex(
        @"(?:^|[.:;–—-]\s*)\W*(?:author[s’']*\s+)?(?:(?:"
            + Kinds
            + @")\b[\w\s,’']{0,60}?\b(?:on|to|of|for|about|regarding|concerning|zu|auf|à|sur|a|sobre)\b.{0,80}|re)\s*:?\s*$|^\W*(?:"
            + Kinds
            + @")\s*[:.–—-]\s*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex LeadsIn();

    // A line by itself.
    [GeneratedRegex(
        @"^\W*(?:(?:published |author )?(?:erratum|errata|corrigend(?:um|a)|correction|addendum)(?: to)?"
            + @"|retraction(?: notice| note)?|expression of concern|book reviews?|reviews? of books"
            + @"|reviewed by\b.{0,60}|(?:electronic |online )?supplement(?:ary|al)? (?:material|information|data"
            + @"|text|file|appendix|table|figure|note)s?(?: \w?\d{1,2})?(?: for| to| of)?"
            + @"|supporting (?:online )?information(?: for| to| of)?|(?:online )?appendix(?: \w{1,3})?(?: to"
            + @"| for)?|slides(?: of| from)?.{0,40}|berichtigung|buchbesprechung(?:en)?|rezension|rectificatif"
            + @"|fe de erratas)\W*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Label();

    // Labels that a whole article may carry too; of a page or two they say what it is.
    [GeneratedRegex(
        @"^\W*(?:letters? to the editors?|letters?|correspondence|comment(?:ary|s)?|repl(?:y|ies)|responses?"
            + @"|author(?:s|’s|'s)? reply|discussion|news(?: and views)?|abstracts?(?: of .{0,40})?"
            + @"|leserbriefe?)\W*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex ShortLabel();

    [GeneratedRegex(
        @"\b\d{2,4}\s*(?:pp\b|pages\b|S\.|Seiten\b|p\.)|\bISBN\b.{0,40}(?:[£$€]|pp\b|hardback|paperback)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Extent();

    [GeneratedRegex(
        "err?at|corrig|correct|addend|bericht|rectif",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Correction();

    [GeneratedRegex(
        "letter|comment|repl|respon|corresp|discuss|rejoin|re$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Correspondence();
}
