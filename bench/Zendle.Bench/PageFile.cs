using Zendle.Connect.Harvest;
using Zendle.Server.Features.Databases;
using Zendle.Store.Corpus;

namespace Zendle.Bench;

/// <summary>A page of a database in a file, as its service sent it.</summary>
internal static class PageFile
{
    /// <summary>Reads a page the way a harvest does.</summary>
    /// <param name="databaseId">The database.</param>
    /// <param name="file">The file.</param>
    public static OaiPage<PreparedRecord> Read(int databaseId, string file)
    {
        using var xml = OaiReply.Reader(
            new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.Read, bufferSize: 65_536),
            OaiLimits.Usual.ReplyBytes
        );
        return OaiPageReader.Read(
            new("http://bench.example/"),
            xml,
            DateTimeOffset.UnixEpoch,
            record => HarvestedRecords.Of(databaseId, record, DateOnly.MinValue),
            default
        );
    }
}
