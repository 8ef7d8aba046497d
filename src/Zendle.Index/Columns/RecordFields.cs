using Zendle.Core.Records;

namespace Zendle.Index.Columns;

/// <summary>What kind of document a record describes, and which fields it has; in one byte.</summary>
/// <param name="packed">The byte.</param>
public readonly struct RecordFields(byte packed)
{
    private const int Types = 0b1_1111,
        WithAbstract = 1 << 5,
        WithKeywords = 1 << 6,
        WithReferences = 1 << 7;

    /// <summary>Packs what a record has.</summary>
    internal static byte Pack(ColumnRow row) =>
        (byte)(
            (int)row.Type & Types
            | (row.HasAbstract ? WithAbstract : 0)
            | (row.Around?.Keywords.Count > 0 ? WithKeywords : 0)
            | (row.References.Count > 0 ? WithReferences : 0)
        );

    /// <summary>Kind of document.</summary>
    public DocumentType Type => (DocumentType)(packed & Types);

    /// <summary>Whether it has an abstract.</summary>
    public bool HasAbstract => (packed & WithAbstract) != 0;

    /// <summary>Whether it has keywords.</summary>
    public bool HasKeywords => (packed & WithKeywords) != 0;

    /// <summary>Whether it has references.</summary>
    public bool HasReferences => (packed & WithReferences) != 0;
}
