using System.Collections.Immutable;
using Zendle.Core.Text;

namespace Zendle.Core.Queries;

/// <summary>A stretch of a text in which a term of a concept stands.</summary>
/// <param name="Start">Offset of the first character.</param>
/// <param name="Length">Number of characters.</param>
/// <param name="Concept">Letter of the concept.</param>
public readonly record struct TermMark(int Start, int Length, char Concept);

/// <summary>Finds where the terms of a question stand in a text, for marks, hit strips and best sentences.</summary>
public static class TermMarks
{
    /// <summary>
    /// All places in <paramref name="text"/> where a term of a concept stands, in order and not overlapping: where two
    /// meet, the one that starts first wins, then the longer.
    /// </summary>
    /// <param name="text">The text of one field.</param>
    /// <param name="concepts">The concepts of the question.</param>
    /// <param name="field">The field the text belongs to; terms that are looked for elsewhere are left out.</param>
    public static ImmutableArray<TermMark> In(string text, ImmutableArray<Concept> concepts, QueryField field)
    {
        if (text.Length == 0 || concepts.IsEmpty)
            return [];
        var words = Words.Of(text);
        var found = new List<TermMark>();
        foreach (var concept in concepts)
        foreach (var (term, scope) in concept.Terms)
            if (Covers(scope, field))
                foreach (var form in term.Forms)
                    Find(words, form, concept.Letter, found);
        found.Sort(
            (a, b) =>
                a.Start != b.Start ? a.Start.CompareTo(b.Start)
                : b.Length != a.Length ? b.Length.CompareTo(a.Length)
                : a.Concept.CompareTo(b.Concept)
        );
        var kept = ImmutableArray.CreateBuilder<TermMark>();
        var end = -1;
        foreach (var mark in found)
            if (mark.Start >= end)
            {
                kept.Add(mark);
                end = mark.Start + mark.Length;
            }
        return kept.ToImmutable();
    }

    /// <summary>Whether a term looked for in <paramref name="scope"/> can stand in <paramref name="field"/>.</summary>
    public static bool Covers(QueryField scope, QueryField field) =>
        scope == field
        || scope == QueryField.Anywhere
        || (scope == QueryField.About && field is QueryField.Title or QueryField.Abstract or QueryField.Keywords);

    private static void Find(List<Word> words, ImmutableArray<string> slots, char concept, List<TermMark> found)
    {
        for (var i = 0; i < words.Count; i++)
        {
            var last = Follow(words, i, slots);
            if (last >= 0)
                found.Add(new(words[i].Start, words[last].End - words[i].Start, concept));
        }
    }

    /// <summary>The index of the last word of a form that begins at a word; −1 when it does not stand there.</summary>
    internal static int Follow(List<Word> words, int first, ImmutableArray<string> slots)
    {
        var at = first;
        for (var s = 0; s < slots.Length; s++)
        {
            if (s > 0)
            {
                var wanted = words[first].Position + s;
                var n = at + 1;
                while (
                    n < words.Count
                    && (words[n].Position < wanted || (words[n].Position == wanted && !Fits(slots[s], words[n].Text)))
                )
                    n++;
                if (n >= words.Count || words[n].Position != wanted)
                    return -1;
                at = n;
            }
            else if (!Fits(slots[0], words[at].Text))
                return -1;
        }
        return at;
    }

    private static bool Fits(string slot, string word) =>
        TermNode.IsPattern(slot) ? Glob.Matches(slot, word) : slot == word;
}
