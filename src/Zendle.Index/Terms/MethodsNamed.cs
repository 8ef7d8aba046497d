using System.Collections.Immutable;
using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Index.Columns;

namespace Zendle.Index.Terms;

/// <summary>
/// The methods, study designs among them, that works name in title, keywords or abstract: the terms of <see cref="MethodTerms"/> that at
/// least three works of a set have, singular and plural as one ("light trap", "light traps").
/// </summary>
public sealed class MethodsNamed
{
    /// <summary>So many methods are told apart, the commonest.</summary>
    private const int Most = 60;

    private readonly WordColumn column;
    private readonly Dictionary<(int First, int Second, int Third), int> methods = [];

    /// <summary>Finds what a set names. O(words of its works).</summary>
    /// <param name="column">The running words.</param>
    /// <param name="works">The works of the set.</param>
    public MethodsNamed(WordColumn column, WorkSet works)
    {
        this.column = column;
        var chosen = MarkingTerms.Choose(
            new TermCandidates(column, works).Common().Where(t => MethodTerms.Is(t.Words)),
            [],
            ImmutableHashSet<string>.Empty,
            Most
        );
        Names = [.. chosen.Select(c => c.Term.Text)];
        foreach (var (ordinal, term) in chosen.Index())
        foreach (var form in term.Variants.Prepend(term.Term))
        foreach (var head in Numbers(form.Words[^1]))
        {
            int[] words = [.. form.Words.SkipLast(1).Append(head).Select(column.NumberOf)];
            // A form that stands nowhere has no number; the commoner term has its words already.
            if (!words.Contains(WordColumn.End))
                methods.TryAdd((words[0], words.ElementAtOrDefault(1), words.ElementAtOrDefault(2)), ordinal);
        }
    }

    /// <summary>A noun in singular and plural, as English nouns of methods form it; the noun itself first.</summary>
    private static IEnumerable<string> Numbers(string noun)
    {
        yield return noun;
        if (noun.EndsWith("sis", StringComparison.Ordinal))
            yield return noun[..^3] + "ses";
        else if (noun.EndsWith("ses", StringComparison.Ordinal))
            yield return noun[..^3] + "sis";
        else if (noun.EndsWith("ies", StringComparison.Ordinal))
            yield return noun[..^3] + "y";
        else if (noun.EndsWith('s'))
            yield return noun[..^1];
        else
            yield return noun.EndsWith('y') ? noun[..^1] + "ies" : noun + "s";
    }

    /// <summary>What they are called, the commonest first.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>Ordinals of the methods that a work names, ascending; any work of the column. O(its words).</summary>
    public IReadOnlyList<int> Of(int work)
    {
        if (work >= column.Size)
            return [];
        var (found, before, earlier) = (new SortedSet<int>(), WordColumn.End, WordColumn.End);
        foreach (var word in column.Of(work))
        {
            if (word != WordColumn.End)
            {
                Note((word, 0, 0));
                if (before != WordColumn.End)
                    Note((before, word, 0));
                if (before != WordColumn.End && earlier != WordColumn.End)
                    Note((earlier, before, word));
            }
            earlier = word == WordColumn.End ? WordColumn.End : before;
            before = word;
        }
        return [.. found];

        void Note((int, int, int) words)
        {
            if (methods.TryGetValue(words, out var method))
                found.Add(method);
        }
    }
}
