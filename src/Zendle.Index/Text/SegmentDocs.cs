using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using Lucene.Net.Index;

namespace Zendle.Index.Text;

/// <summary>
/// Which record each document of a segment is, and how long its fields are; read once for each segment and kept as long
/// as it lives.
/// </summary>
internal sealed class SegmentDocs
{
    private static readonly ConditionalWeakTable<object, SegmentDocs> Cache = [];

    private SegmentDocs(AtomicReader reader)
    {
        var records = reader.GetNumericDocValues(IndexFields.Record);
        var lengths = reader.GetNumericDocValues(IndexFields.Lengths);
        Record = new int[reader.MaxDoc];
        Title = new ushort[reader.MaxDoc];
        Keywords = new ushort[reader.MaxDoc];
        Abstract = new ushort[reader.MaxDoc];
        Controlled = new ushort[reader.MaxDoc];
        for (var d = 0; d < reader.MaxDoc; d++)
        {
            Record[d] = (int)records.Get(d);
            var packed = lengths.Get(d);
            Title[d] = (ushort)packed;
            Keywords[d] = (ushort)(packed >> 16);
            Abstract[d] = (ushort)(packed >> 32);
            Controlled[d] = (ushort)(packed >> 48);
        }
    }

    public int[] Record { get; }

    public ushort[] Title { get; }

    public ushort[] Keywords { get; }

    public ushort[] Abstract { get; }

    public ushort[] Controlled { get; }

    public ushort[] Lengths(string field) =>
        field switch
        {
            IndexFields.Title => Title,
            IndexFields.Keywords => Keywords,
            IndexFields.Controlled => Controlled,
            _ => Abstract,
        };

    /// <summary>Words of a field in all documents, and the documents that have any; counted once.</summary>
    public (long Words, int Documents) Total(string field) =>
        totals.GetOrAdd(
            field,
            name =>
            {
                var (words, documents) = (0L, 0);
                foreach (var length in Lengths(name))
                    if (length > 0)
                        (words, documents) = (words + length, documents + 1);
                return (words, documents);
            }
        );

    private readonly ConcurrentDictionary<string, (long, int)> totals = new(StringComparer.Ordinal);

    public static SegmentDocs Of(AtomicReader reader) => Cache.GetValue(reader.CoreCacheKey, _ => new(reader));
}
