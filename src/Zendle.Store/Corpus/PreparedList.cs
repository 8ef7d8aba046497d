using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>A list of references that no record has, ready to be written.</summary>
/// <param name="Work">The work that cites; 0 for one that is told by its DOI.</param>
/// <param name="Citing">Key of the DOI of the work that cites; 0 for one that is told by its number.</param>
/// <param name="References">The references, compressed; none to take away what was there.</param>
/// <param name="Count">How many they are; 0 where nobody counted.</param>
public sealed record PreparedList(int Work, ulong Citing, byte[] References, int Count = 0)
{
    private byte[]? keys;

    /// <summary>Whether it takes away what was there.</summary>
    public bool IsEmpty => References.Length == 0;

    /// <summary>The keys of the references, packed. Worked out when they are first asked for: most lists are as they were.</summary>
    public byte[] ReferenceKeys => keys ??= RecordCodec.Keys(RecordCodec.References(References));

    /// <summary>The list of a work.</summary>
    /// <param name="work">The work.</param>
    /// <param name="references">Its references; none to take a list away.</param>
    public static PreparedList Of(int work, IReadOnlyList<Reference> references) =>
        new(work, 0, RecordCodec.References(references), references.Count);

    /// <summary>The list of a work that is told by its DOI.</summary>
    /// <param name="citing"><see cref="MergeKeys.Doi"/> of it.</param>
    /// <param name="references">Its references.</param>
    public static PreparedList By(ulong citing, IReadOnlyList<Reference> references) =>
        new(0, citing, RecordCodec.References(references), references.Count) { keys = RecordCodec.Keys(references) };
}
