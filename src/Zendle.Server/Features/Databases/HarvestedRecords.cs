using Zendle.Connect.Harvest;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Databases;

/// <summary>What is kept of a record that a service sent.</summary>
public static class HarvestedRecords
{
    /// <summary>Reads a record and compresses its source; the XML itself is then no longer needed.</summary>
    public static HarvestedRecord Of(OaiRecord record) => new(record.Identifier, record.Datestamp, RecordReader.Read(record), RecordCodec.Source(record.Metadata));
}
