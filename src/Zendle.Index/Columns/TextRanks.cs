using System.Globalization;

namespace Zendle.Index.Columns;

/// <summary>
/// The places of works in an order of texts, so that a list sorts by whole numbers. Case, accents and punctuation count for nothing (invariant culture); equal texts
/// share a place, works without one come last.
/// </summary>
internal static class TextRanks
{
    private const CompareOptions Options = CompareOptions.IgnoreCase | CompareOptions.IgnoreNonSpace | CompareOptions.IgnoreSymbols;

    /// <summary>The place of each work. O(n log n) over works, on all cores.</summary>
    /// <param name="texts">A text by work; null for none.</param>
    public static int[] Of(string?[] texts)
    {
        var compare = CultureInfo.InvariantCulture.CompareInfo;
        var keyed = texts.Select((text, work) => (Text: text, Work: work)).Where(t => t.Text is not null).AsParallel().Select(t => (Key: compare.GetSortKey(t.Text!, Options).KeyData, t.Work)).ToArray();
        Array.Sort(keyed, (a, b) => a.Key.AsSpan().SequenceCompareTo(b.Key));
        var ranks = new int[texts.Length];
        Array.Fill(ranks, int.MaxValue);
        var place = 0;
        for (var i = 0; i < keyed.Length; i++)
        {
            if (i > 0 && !keyed[i].Key.AsSpan().SequenceEqual(keyed[i - 1].Key)) place++;
            ranks[keyed[i].Work] = place;
        }
        return ranks;
    }
}
