using Zendle.Connect.Harvest;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Databases;

/// <summary>What is kept of a record that a service sent.</summary>
public static class HarvestedRecords
{
    /// <summary>
    /// Reads a record, compresses its source and prepares it for the store; the XML itself is then no longer needed.
    /// </summary>
    /// <param name="databaseId">The database it comes from.</param>
    /// <param name="record">The record.</param>
    /// <param name="today">The day it is: copies whose embargo has ended are free.</param>
    public static PreparedRecord Of(int databaseId, OaiRecord record, DateOnly today) =>
        PreparedRecord.Of(
            databaseId,
            new(
                record.Identifier,
                record.Datestamp,
                RecordReader.Read(record)?.On(today),
                RecordCodec.Source(record.Metadata)
            )
        );
}
