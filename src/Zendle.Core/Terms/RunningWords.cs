using System.Buffers;
using Zendle.Core.Merging;
using Zendle.Core.Text;

namespace Zendle.Core.Terms;

/// <summary>
/// The words of a text in the order they stand, cut where a term cannot go on: at punctuation, and between title,
/// keywords and abstract. A hyphenated word gives its parts, so that "light-trap" and "light trap" are one term.
/// </summary>
public static class RunningWords
{
    /// <summary>Stands between two stretches; no word is empty.</summary>
    public const string End = "";

    /// <summary>So many words of a work are looked at; what is longer is no abstract.</summary>
    private const int Most = 4_000;

    private static readonly SearchValues<char> Cuts = SearchValues.Create(
        ".,;:!?()[]{}\"/|=<>+•·…“”„«»–—¿¡、。，；：！？（）「」『』"
    );

    /// <summary>The words of what a work shows: title, keywords, controlled terms, abstract.</summary>
    public static IReadOnlyList<string> Of(ChosenFields chosen) =>
        Of([chosen.Title.Value, .. chosen.Keywords.Value, .. chosen.ControlledTerms, chosen.Abstract.Value]);

    /// <summary>The folded words of some texts, <see cref="End"/> behind each stretch. O(length).</summary>
    public static IReadOnlyList<string> Of(IEnumerable<string> texts)
    {
        var words = new List<string>();
        foreach (var text in texts)
        {
            var end = 0;
            foreach (var word in Words.Of(text))
            {
                if (word.IsClosedForm)
                    continue;
                if (words.Count >= Most)
                    break;
                if (text.AsSpan(end, word.Start - end).ContainsAny(Cuts))
                    Cut(words);
                words.Add(word.Text);
                end = word.End;
            }
            Cut(words);
        }
        return words;
    }

    private static void Cut(List<string> words)
    {
        if (words.Count > 0 && words[^1].Length > 0)
            words.Add(End);
    }
}
