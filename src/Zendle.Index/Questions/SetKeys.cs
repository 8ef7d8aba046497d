using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;

namespace Zendle.Index.Questions;

/// <summary>Under what a set is remembered by a snapshot: equal keys are the same question.</summary>
/// <param name="Letters">About how many letters the key holds, for what it takes in memory.</param>
internal abstract record SetKey(int Letters);

/// <summary>
/// Under what a set of one kind is remembered. The kind belongs to the key, so that a set of records is never taken for
/// one of works, whatever their words are.
/// </summary>
/// <typeparam name="TSet">Records or works.</typeparam>
/// <param name="Letters">About how many letters the key holds.</param>
internal abstract record SetKey<TSet>(int Letters = 0) : SetKey(Letters)
    where TSet : IdSet<TSet>;

/// <summary>Records with a word, or with any word of a pattern, in one field of the index.</summary>
internal sealed record PostingsKey(string IndexField, string Slot) : SetKey<RecordSet>(Slot.Length);

/// <summary>Records that satisfy a term in a field.</summary>
internal sealed record TermKey(QueryField Field, Texts Forms) : SetKey<RecordSet>(Forms.Letters);

/// <summary>Records with a value, or with a person's name, as it was written.</summary>
internal sealed record WrittenKey(QueryField Field, string Written) : SetKey<RecordSet>(Written.Length);

/// <summary>Records that have a term among their authors' keywords, or among their controlled terms.</summary>
internal sealed record KeywordsKey(bool IsControlled, Texts Forms) : SetKey<RecordSet>(Forms.Letters);

/// <summary>Records that satisfy one of several terms, or terms near each other, as the tree is printed.</summary>
internal sealed record TreeKey(QueryField Field, string Printed) : SetKey<RecordSet>(Printed.Length);

/// <summary>Records that print a year of a span.</summary>
internal sealed record PrintedYearsKey(int From, int To) : SetKey<RecordSet>;

/// <summary>All works that a database holds.</summary>
internal sealed record AllWorksKey() : SetKey<WorkSet>;

/// <summary>Works that show a year of a span.</summary>
internal sealed record ShownYearsKey(int? From, int? To) : SetKey<WorkSet>;

/// <summary>Works that have one of some values of a field.</summary>
internal sealed record FacetKey(Facet Facet, Texts Values) : SetKey<WorkSet>(Values.Letters);

/// <summary>Texts in their order, equal when they are the same texts.</summary>
/// <param name="All">The texts.</param>
internal readonly record struct Texts(ImmutableArray<string> All)
{
    /// <summary>How many letters they have together.</summary>
    public int Letters => All.Sum(t => t.Length);

    /// <summary>The forms of a term, each with its slots in a row; no slot holds a space.</summary>
    public static Texts Of(TermNode term) => new([.. term.Forms.Select(f => string.Join(' ', f))]);

    /// <inheritdoc/>
    public bool Equals(Texts other) => All.AsSpan().SequenceEqual(other.All.AsSpan());

    /// <inheritdoc/>
    public override int GetHashCode()
    {
        var hash = new HashCode();
        foreach (var text in All)
            hash.Add(text, StringComparer.Ordinal);
        return hash.ToHashCode();
    }
}
