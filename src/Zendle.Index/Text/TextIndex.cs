using System.Globalization;
using Lucene.Net.Index;
using Lucene.Net.Store;
using Lucene.Net.Util;
using Zendle.Core.Records;

namespace Zendle.Index.Text;

/// <summary>
/// The words of all records on disk: a postings store with one document for each record. It is derived from the store and can be
/// thrown away; each commit carries the store's change sequence it stands at, so that a start knows what to replay.
/// </summary>
public sealed class TextIndex : IDisposable
{
    /// <summary>Changes whenever what is indexed changes; an index of another version is built anew.</summary>
    public const string Version = "1";

    private const double BufferMegabytes = 48, FillMegabytes = 192;
    private const LuceneVersion Lucene48 = LuceneVersion.LUCENE_48;
    private readonly FSDirectory directory;
    private readonly IndexWriter writer;
    private readonly ThreadLocal<RecordDocument> documents = new(() => new());
    private bool isFilled;

    private TextIndex(FSDirectory directory, IndexWriter writer, long sequence)
    {
        this.directory = directory;
        this.writer = writer;
        Sequence = sequence;
    }

    /// <summary>Change sequence of the store that the last commit stands at; 0 for an empty index.</summary>
    public long Sequence { get; private set; }

    /// <summary>Opens the index in <paramref name="folder"/>; a missing, damaged or older one is emptied and starts at sequence 0.</summary>
    public static TextIndex Open(string folder)
    {
        System.IO.Directory.CreateDirectory(folder);
        var directory = FSDirectory.Open(folder);
        var sequence = StandsAt(directory);
        if (IndexWriter.IsLocked(directory)) IndexWriter.Unlock(directory); // a lock file left by a killed process; one process owns the folder
        var config = new IndexWriterConfig(Lucene48, null)
        {
            OpenMode = sequence is null ? OpenMode.CREATE : OpenMode.CREATE_OR_APPEND,
            RAMBufferSizeMB = BufferMegabytes,
        };
        return new(directory, new IndexWriter(directory, config), sequence ?? 0);
    }

    private static long? StandsAt(FSDirectory directory)
    {
        try
        {
            if (!DirectoryReader.IndexExists(directory)) return null;
            using var reader = DirectoryReader.Open(directory);
            var data = reader.IndexCommit.UserData;
            return data.TryGetValue("version", out var version) && version == Version && data.TryGetValue("sequence", out var sequence)
                ? long.Parse(sequence, CultureInfo.InvariantCulture) : null;
        }
        catch (Exception e) when (e is IOException or FormatException or ArgumentException or IndexFormatTooNewException)
        {
            return null; // derived data that cannot be read is built anew
        }
    }

    /// <summary>Puts a record in, in place of what was there under its id.</summary>
    public void Put(int recordId, Record record) => writer.UpdateDocument(Id(recordId), documents.Value!.Of(recordId, record));

    /// <summary>Puts a record into an index that holds nothing yet; each may come once. Nothing is looked for to be replaced, and larger parts are written.</summary>
    public void Fill(int recordId, Record record)
    {
        if (!isFilled) (isFilled, writer.Config.RAMBufferSizeMB) = (true, FillMegabytes);
        writer.AddDocument(documents.Value!.Of(recordId, record));
    }

    /// <summary>Takes a record out.</summary>
    public void Remove(int recordId) => writer.DeleteDocuments(Id(recordId));

    /// <summary>Makes everything put in so far durable, standing at <paramref name="sequence"/>.</summary>
    public void Commit(long sequence)
    {
        writer.SetCommitData(new Dictionary<string, string> { ["version"] = Version, ["sequence"] = sequence.ToString(CultureInfo.InvariantCulture) });
        writer.Commit();
        Sequence = sequence;
        if (isFilled) (isFilled, writer.Config.RAMBufferSizeMB) = (false, BufferMegabytes);
    }

    /// <summary>Opens a reader on everything put in so far, committed or not.</summary>
    internal DirectoryReader OpenReader() => DirectoryReader.Open(writer, applyAllDeletes: true);

    /// <summary>Closes the files; what was not committed is lost and replayed at the next start.</summary>
    public void Dispose()
    {
        writer.Rollback();
        directory.Dispose();
        documents.Dispose();
    }

    private static Term Id(int recordId) => new(IndexFields.Id, recordId.ToString(CultureInfo.InvariantCulture));
}
