using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>A record as it came from a harvest.</summary>
/// <param name="Identifier">OAI identifier.</param>
/// <param name="Datestamp">OAI datestamp.</param>
/// <param name="Record">The record; null when the database has deleted it.</param>
/// <param name="Source">The original XML, as <see cref="RecordCodec.Source(System.Xml.Linq.XElement)"/> compresses
/// it.</param>
public sealed record HarvestedRecord(string Identifier, DateTimeOffset Datestamp, Record? Record, byte[] Source);

/// <summary>
/// A harvested record with all that the store needs of it and that follows from it alone: worked out where it is taken
/// in, beside other work.
/// </summary>
public sealed record PreparedRecord
{
    private PreparedRecord(
        HarvestedRecord item,
        byte[] facts,
        byte[] references,
        byte[] referenceKeys,
        long titleKey,
        MergeFacts? merge,
        byte[] mergeFacts
    ) =>
        (Item, Facts, References, ReferenceKeys, TitleKey, Merge, MergeFacts) = (
            item,
            facts,
            references,
            referenceKeys,
            titleKey,
            merge,
            mergeFacts
        );

    /// <summary>Whether it says that the record was deleted.</summary>
    public bool IsDeletion => Item.Record is null;

    internal HarvestedRecord Item { get; }
    internal byte[] Facts { get; }
    internal byte[] References { get; }
    internal byte[] ReferenceKeys { get; }
    internal long TitleKey { get; }
    internal MergeFacts? Merge { get; }
    internal byte[] MergeFacts { get; }

    /// <summary>Prepares a record.</summary>
    /// <param name="databaseId">The database it comes from.</param>
    /// <param name="item">The record.</param>
    public static PreparedRecord Of(int databaseId, HarvestedRecord item)
    {
        if (item.Record is not { } r)
            return new(item, [], [], [], 0, null, []);
        var merge = Core.Merging.MergeFacts.Of(0, databaseId, r);
        _ = merge.Blocking; // worked out here rather than by the one writer
        return new(
            item,
            RecordCodec.Facts(r),
            RecordCodec.References(r.References),
            RecordCodec.Keys(r.References),
            unchecked((long)MergeKeys.TitleAndPerson(r.Title, r.People.Count > 0 ? r.People[0].Family : null)),
            merge,
            MergeFactsCodec.Write(merge)
        );
    }
}
