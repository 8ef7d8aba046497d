using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>A record as it came from a harvest.</summary>
/// <param name="Identifier">OAI identifier.</param>
/// <param name="Datestamp">OAI datestamp.</param>
/// <param name="Record">The record; null when the database has deleted it.</param>
/// <param name="Source">The original XML, as <see cref="RecordCodec.Source(System.Xml.Linq.XElement)"/> compresses it.</param>
public sealed record HarvestedRecord(string Identifier, DateTimeOffset Datestamp, Record? Record, byte[] Source)
{
    private PreparedRecord? prepared;

    /// <summary>Works out all that the store will need of the record and that follows from it alone; best where the record is taken in, beside other work.</summary>
    /// <param name="databaseId">The database it comes from.</param>
    public HarvestedRecord Prepare(int databaseId)
    {
        prepared = PreparedRecord.From(databaseId, this);
        return this;
    }

    /// <summary>The record as the store takes it.</summary>
    internal PreparedRecord For(int databaseId) => prepared?.DatabaseId == databaseId ? prepared : PreparedRecord.From(databaseId, this);
}

/// <summary>A harvested record with all that follows from it alone.</summary>
internal sealed record PreparedRecord(int DatabaseId, HarvestedRecord Item, byte[] Facts, byte[] References, byte[] ReferenceKeys, long TitleKey, MergeFacts? Merge, byte[] MergeFacts)
{
    public static PreparedRecord From(int databaseId, HarvestedRecord item)
    {
        if (item.Record is not { } r) return new(databaseId, item, [], [], [], 0, null, []);
        var merge = Core.Merging.MergeFacts.Of(0, databaseId, r);
        _ = merge.Blocking; // worked out here rather than by the one writer
        return new(databaseId, item, RecordCodec.Facts(r), RecordCodec.References(r.References), RecordCodec.ReferenceKeys(r.References),
            unchecked((long)MergeKeys.TitleAndPerson(r.Title, r.People.Count > 0 ? r.People[0].Family : null)), merge, MergeFactsCodec.Write(merge));
    }
}
