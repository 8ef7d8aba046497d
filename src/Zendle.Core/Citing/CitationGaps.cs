using Zendle.Core.Formats;
using Zendle.Core.Records;

namespace Zendle.Core.Citing;

/// <summary>What a reference would need and the records do not have.</summary>
public static class CitationGaps
{
    /// <summary>The missing parts, in words; none for a complete citation.</summary>
    public static IReadOnlyList<string> Of(Citation c)
    {
        var gaps = new List<string>();
        if (c.Title.Length == 0)
            gaps.Add("title");
        if (c.Authors.Count + c.Editors.Count == 0)
            gaps.Add("people");
        if (c.Year is null)
            gaps.Add("year");
        var inVenue =
            c.Type
            is DocumentType.Article
                or DocumentType.Review
                or DocumentType.SystematicReview
                or DocumentType.ConferencePaper
                or DocumentType.Chapter;
        if (inVenue && c.Venue is null)
            gaps.Add("venue");
        if (
            c.Type is DocumentType.Article or DocumentType.Review or DocumentType.SystematicReview
            && c.Venue is { Volume: null }
        )
            gaps.Add("volume");
        if (inVenue && c.Venue is { FirstPage: null } && c.Doi is null)
            gaps.Add("pages");
        if (c.Type is DocumentType.Book or DocumentType.Report or DocumentType.Thesis && c.Publisher is null)
            gaps.Add("publisher");
        return gaps;
    }
}
