using Zendle.Core.Records;

namespace Zendle.Core.FullText;

/// <summary>What a document says of itself, for a work that no database has.</summary>
/// <param name="Title">Its title; empty when none stands out.</param>
/// <param name="Doi">A DOI on its first page, before its references; null for none.</param>
public sealed record OwnTitle(string Title, string? Doi)
{
    private const double SameSize = 0.3;
    private const int MostLines = 4,
        Longest = 300,
        FewestLetters = 8;

    /// <summary>
    /// Reads it off the first page: the title is the first run of lines in the largest letters there, where these are larger
    /// than the running text. O(lines of the first page).
    /// </summary>
    public static OwnTitle Of(DocumentFacts facts)
    {
        var lines = facts.Lines.TakeWhile(l => l.Page == 1 && !DocumentFacts.IsReferencesHead(l.Text)).ToArray();
        var largest = lines
            .Where(l => l.Text.Count(char.IsLetter) >= FewestLetters)
            .Select(l => l.Size)
            .DefaultIfEmpty()
            .Max();
        var title =
            largest < facts.BodySize * FoundTitle.Larger
                ? ""
                : string.Join(
                    ' ',
                    lines
                        .SkipWhile(l => l.Size < largest - SameSize || l.Text.Count(char.IsLetter) < FewestLetters)
                        .TakeWhile(l => Math.Abs(l.Size - largest) <= SameSize)
                        .Take(MostLines)
                        .Select(l => l.Text.Trim())
                );
        return new(
            title.Length > Longest ? title[..Longest] : title,
            facts.OwnFirstPage.Select(Identifiers.Doi).OfType<string>().FirstOrDefault()
        );
    }
}
