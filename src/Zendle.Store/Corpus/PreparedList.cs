using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>A list of references that no record has, ready to be written.</summary>
/// <param name="Work">The work that cites; 0 for one that is told by its DOI.</param>
/// <param name="Citing">Key of the DOI of the work that cites; 0 for one that is told by its number.</param>
/// <param name="References">The references, compressed.</param>
/// <param name="ReferenceKeys">Their keys, packed.</param>
public sealed record PreparedList(int Work, ulong Citing, byte[] References, byte[] ReferenceKeys)
{
    /// <summary>Whether it takes away what was there.</summary>
    public bool IsEmpty => ReferenceKeys.Length == 0;

    /// <summary>The list of a work.</summary>
    /// <param name="work">The work.</param>
    /// <param name="references">Its references; none to take a list away.</param>
    public static PreparedList Of(int work, IReadOnlyList<Reference> references) => Of(work, 0, references);

    /// <summary>The list of a work that is told by its DOI.</summary>
    /// <param name="citing"><see cref="MergeKeys.Doi"/> of it.</param>
    /// <param name="references">Its references.</param>
    public static PreparedList By(ulong citing, IReadOnlyList<Reference> references) => Of(0, citing, references);

    private static PreparedList Of(int work, ulong citing, IReadOnlyList<Reference> references) =>
        references.Count == 0
            ? new(work, citing, [], [])
            : new(work, citing, RecordCodec.References(references), RecordCodec.Keys(references));
}

/// <summary>A list of references that no record has, as the columns take it.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Source">Its source.</param>
/// <param name="Work">The work of today that cites; 0 for one that is told by its DOI.</param>
/// <param name="Citing">Key of the DOI of the work that cites; 0 for one that is told by its number.</param>
/// <param name="Keys">The keys of its references; none for a list that was taken away.</param>
public sealed record StoredList(int Number, int Source, int Work, ulong Citing, ReferenceKeys[] Keys);
