using System.Collections.Immutable;
using Zendle.Core.Text;

namespace Zendle.Core.Queries;

/// <summary>A stretch of the line that was read: offset and length in UTF-16 characters.</summary>
/// <param name="Start">Offset of the first character, from 0.</param>
/// <param name="Length">Number of characters.</param>
public readonly record struct TextSpan(int Start, int Length)
{
    /// <summary>Offset behind the last character.</summary>
    public int End => Start + Length;

    /// <summary>The smallest stretch that holds both.</summary>
    public static TextSpan Around(TextSpan first, TextSpan last) =>
        new(Math.Min(first.Start, last.Start), Math.Max(first.End, last.End) - Math.Min(first.Start, last.Start));
}

/// <summary>A node of the tree that a line is read into. Every node knows where it stands in the line.</summary>
/// <param name="Span">Where the node stands.</param>
public abstract record QueryNode(TextSpan Span);

/// <summary>An empty question: every work.</summary>
public sealed record AllNode() : QueryNode(new TextSpan(0, 0));

/// <summary>A word, a phrase or a pattern: the leaf of every question.</summary>
/// <param name="Span">Where it stands.</param>
/// <param name="Written">As written, without quotation marks.</param>
/// <param name="Quoted">Whether it stood in quotation marks.</param>
/// <param name="Forms"> Folded word patterns in a row, one list per spelling: "light-trap" has the forms [light, trap]
/// and [lighttrap]. A pattern may hold * (any run of letters) and ? (one letter).
/// </param>
public sealed record TermNode(TextSpan Span, string Written, bool Quoted, ImmutableArray<ImmutableArray<string>> Forms)
    : QueryNode(Span)
{
    /// <summary>The main form: parts of hyphenated words apart.</summary>
    public ImmutableArray<string> Slots => Forms[0];

    /// <summary>True when more than one word stands in a row.</summary>
    public bool IsPhrase => Slots.Length > 1;

    /// <summary>Whether any word is a pattern.</summary>
    public bool HasWildcard => Slots.Any(IsPattern);

    /// <summary>Whether it asks for just some folded words: each word of one of its forms, and no other.</summary>
    public bool IsJust(IReadOnlyList<string> words) =>
        Forms.Any(form =>
            form.Length == words.Count && form.Select((slot, i) => Glob.Matches(slot, words[i])).All(fits => fits)
        );

    /// <summary>Whether a folded word holds a wildcard.</summary>
    public static bool IsPattern(string slot) => slot.AsSpan().IndexOfAny('*', '?') >= 0;
}

/// <summary>
/// Parts that must stand near each other in one field, each pair of neighbours within its own distance.
/// </summary>
/// <param name="Span">Where it stands.</param>
/// <param name="Parts">Two or more parts: terms, or OR-groups of terms.</param>
/// <param name="Distances">At most so many words between part i and part i+1; one fewer than parts.</param>
public sealed record NearNode(TextSpan Span, ImmutableArray<QueryNode> Parts, ImmutableArray<int> Distances)
    : QueryNode(Span);

/// <summary>All parts must hold in one record.</summary>
/// <param name="Span">Where it stands.</param>
/// <param name="Parts">Two or more parts.</param>
public sealed record AndNode(TextSpan Span, ImmutableArray<QueryNode> Parts) : QueryNode(Span);

/// <summary>At least one part must hold.</summary>
/// <param name="Span">Where it stands.</param>
/// <param name="Parts">Two or more parts.</param>
public sealed record OrNode(TextSpan Span, ImmutableArray<QueryNode> Parts) : QueryNode(Span);

/// <summary>The part must not hold in the record.</summary>
/// <param name="Span">Where it stands.</param>
/// <param name="Part">What must not hold.</param>
public sealed record NotNode(TextSpan Span, QueryNode Part) : QueryNode(Span);

/// <summary>The part is looked for in one field only.</summary>
/// <param name="Span">Where it stands.</param>
/// <param name="Field">The field.</param>
/// <param name="Part">What must hold there.</param>
public sealed record FieldNode(TextSpan Span, QueryField Field, QueryNode Part) : QueryNode(Span);

/// <summary>Years from–to, both included.</summary>
/// <param name="Span">Where it stands.</param>
/// <param name="From">First year; null for no lower end.</param>
/// <param name="To">Last year; null for no upper end.</param>
public sealed record YearsNode(TextSpan Span, int? From, int? To) : QueryNode(Span);
