using System.Text;
using Zendle.Core.Queries;

namespace Zendle.Index.Columns;

/// <summary>
/// The places of works in an order of texts, so that a list sorts by whole numbers. Texts are compared by their words as they are searched: case, accents and
/// punctuation count for nothing, and letters of other scripts follow the order of Unicode. Equal texts share a place, works without one come last.
/// </summary>
internal static class TextRanks
{
    /// <summary>The place of each work. O(n log n) over works, on all cores.</summary>
    /// <param name="texts">A text by work; null for none.</param>
    public static int[] Of(string?[] texts)
    {
        var keyed = texts.Select((text, work) => (Text: text, Work: work)).Where(t => t.Text is not null).AsParallel().Select(t => (Key: Key(t.Text!), t.Work)).ToArray();
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

    private static byte[] Key(string text) => Encoding.UTF8.GetBytes(string.Join(' ', Words.Of(text).Where(w => !w.IsClosedForm).Select(w => w.Text)));
}
