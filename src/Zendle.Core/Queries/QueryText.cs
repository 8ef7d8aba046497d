using System.Globalization;
using Zendle.Core.People;

namespace Zendle.Core.Queries;

/// <summary>Writes a tree as an expression, and says in words what a node means.</summary>
public static class QueryText
{
    /// <summary>What asks for folded words: one alone, several as a phrase.</summary>
    public static string OfWords(IReadOnlyList<string> words) =>
        words.Count == 1 ? words[0] : $"\"{string.Join(' ', words)}\"";

    /// <summary>
    /// An expression that reads back into a tree of the same meaning, with every parenthesis written.
    /// </summary>
    public static string Print(QueryNode node) =>
        node switch
        {
            AllNode => "",
            TermNode { Quoted: true } t => $"\"{t.Written}\"",
            TermNode t => ReadsAlone(t) ? t.Written : $"\"{t.Written}\"",
            NearNode n => string.Concat(
                n.Parts.Select((p, i) => (i == 0 ? "" : $" NEAR/{n.Distances[i - 1]} ") + Inner(p))
            ),
            AndNode a => string.Join(" AND ", a.Parts.Select(Inner)),
            OrNode o => string.Join(" OR ", o.Parts.Select(Inner)),
            NotNode n => "NOT " + Inner(n.Part),
            // A field inside a field needs its parentheses: a name right after a name asks for nothing.
            FieldNode f =>
                $"{QueryFields.Name(f.Field)}:{(f.Part is FieldNode or YearsNode ? $"({Print(f.Part)})" : Inner(f.Part))}",
            YearsNode y => y.From == y.To ? $"year:{y.From}" : $"year:{y.From}-{y.To}",
            _ => throw new ArgumentOutOfRangeException(nameof(node)),
        };

    /// <summary>Whether a word with signs in it is read as that word when it stands by itself.</summary>
    private static bool ReadsAlone(TermNode term) =>
        term.Written.AsSpan().IndexOfAny(":=/[]") < 0
        || QueryReader.Read(term.Written) is { IsSound: true, Notices.IsEmpty: true, Root: TermNode };

    private static string Inner(QueryNode node) =>
        node is TermNode or FieldNode or YearsNode ? Print(node) : $"({Print(node)})";

    /// <summary>What a node asks for, in words a person would use.</summary>
    /// <param name="node">The node.</param>
    /// <param name="field">The field that a surrounding node sets.</param>
    public static string Meaning(QueryNode node, QueryField field = QueryField.About) =>
        node switch
        {
            AllNode => "every work",
            TermNode when field == QueryField.Person => "this person, under every name",
            TermNode t when field == QueryField.Author && NameQuery.Of(t.Written) is not null =>
                "this name, in any order, given names in full or as initials",
            TermNode t => TermMeaning(t) + Where(field),
            NearNode n => n.Distances.Distinct().Count() == 1
                ? $"with at most {Count(n.Distances[0])} between neighbours, in either order{Where(field)}"
                : $"near each other, in either order{Where(field)}",
            AndNode a => $"all {a.Parts.Length} parts in one record",
            OrNode o => $"any of {o.Parts.Length}",
            NotNode => "without it",
            FieldNode f => Meaning(f.Part, f.Field),
            YearsNode { From: null } y => $"dated {y.To} or earlier in any record",
            YearsNode { To: null } y => $"dated {y.From} or later in any record",
            // A narrowing asks the year that a work shows; an expression asks records, and says so.
            YearsNode y => y.From == y.To ? $"dated {y.From} in any record" : $"dated {y.From} to {y.To} in any record",
            _ => throw new ArgumentOutOfRangeException(nameof(node)),
        };

    private static string TermMeaning(TermNode term)
    {
        if (term.IsPhrase)
            return term.HasWildcard ? "words in a row, with endings open"
                : term.Quoted ? "exactly these words in a row"
                : "these words in a row, open, closed or hyphenated";
        var slot = term.Slots[0];
        if (!TermNode.IsPattern(slot))
            return "the word";
        return slot.IndexOf('*') == slot.Length - 1 && !slot.Contains('?', StringComparison.Ordinal)
            ? $"words beginning with “{slot[..^1]}”"
            : "words of this pattern";
    }

    private static string Where(QueryField field) =>
        field switch
        {
            QueryField.About => " in title, abstract or keywords",
            QueryField.Anywhere => " anywhere in the record or in its gathered text",
            QueryField.Text => " in gathered full texts",
            _ => $" in {QueryFields.Name(field)}",
        };

    private static string Count(int words) =>
        words == 1 ? "1 word" : words.ToString(CultureInfo.InvariantCulture) + " words";
}
