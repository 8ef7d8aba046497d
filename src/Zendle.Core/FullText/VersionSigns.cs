using System.Text.RegularExpressions;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>
/// Recognises the version of a document by what is printed on it, in the terms of NISO RP-8-2008: a cover that says so,
/// line numbers of a manuscript, dates received and accepted under a running head.
/// </summary>
public static partial class VersionSigns
{
    /// <summary>The version; null when the document shows no sign.</summary>
    public static WorkVersion? Of(DocumentFacts facts)
    {
        var first = string.Join('\n', facts.FirstPage);
        // What a page says of itself comes before what it looks like; a proof looks typeset, a corrected version like
        // the one it corrects.
        if (Proof().IsMatch(first))
            return WorkVersion.Proof;
        if (Corrected().IsMatch(first))
            return WorkVersion.CorrectedVersionOfRecord;
        if (Enhanced().IsMatch(first))
            return WorkVersion.EnhancedVersionOfRecord;
        if (Original().IsMatch(first))
            return WorkVersion.AuthorsOriginal;
        if (Accepted().IsMatch(first))
            return WorkVersion.AcceptedManuscript;
        if (Submitted().IsMatch(first))
            return WorkVersion.SubmittedManuscript;
        if (facts.LineNumbers)
            return WorkVersion.SubmittedManuscript;
        if (Dates().IsMatch(first) || RunningHead().IsMatch(first))
            return WorkVersion.VersionOfRecord;
        return null;
    }

    [GeneratedRegex(
        @"\b(?:uncorrected|corrected|author|page|galley) proofs?\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Proof();

    [GeneratedRegex(
        @"corrected version of record|this is a corrected version|this version (?:corrects|replaces)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Corrected();

    [GeneratedRegex(
        @"enhanced version of record",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Enhanced();

    [GeneratedRegex(
        @"author.s original(?: manuscript| version)?\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Original();

    [GeneratedRegex(
        @"accepted (?:manuscript|version)|post-?print|author.s? (?:accepted|final) manuscript",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Accepted();

    [GeneratedRegex(
        @"pre-?print|not (?:yet )?peer[- ]reviewed|submitted manuscript|working paper",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Submitted();

    [GeneratedRegex(
        @"received\b.{4,40}\baccepted\b",
        RegexOptions.IgnoreCase | RegexOptions.Singleline | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Dates();

    [GeneratedRegex(
        @"\b\d{1,4} ?\(\d{1,3}\),? (?:\(?(?:19|20)\d\d\)?,? )?\d{1,5}[–-]\d{1,5}\b",
        RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex RunningHead();
}
