namespace Zendle.Core.Terms;

/// <summary>A term of one to three words with how many works have it.</summary>
/// <param name="Words">Its words, folded.</param>
/// <param name="Good">Works among those it was taken from.</param>
/// <param name="Others">Other works that it was counted in.</param>
/// <param name="Strength">How surely it marks the first; see <see cref="LikelihoodRatio"/>.</param>
public sealed record CountedTerm(IReadOnlyList<string> Words, int Good, int Others, double Strength)
{
    /// <summary>The words with blanks between them.</summary>
    public string Text { get; } = string.Join(' ', Words);

    /// <summary>The share of the works that have it which it was taken from.</summary>
    public double Precision => (double)Good / (Good + Others);
}
