using System.Globalization;
using Lucene.Net.Index;
using Lucene.Net.Store;
using Lucene.Net.Util;
using Zendle.Core.Records;

namespace Zendle.Index.Text;

/// <summary>
/// The words of all records on disk: a postings store with one document for each record. It is derived from the store
/// and can be thrown away; each commit carries the store's change sequence it stands at, so that a start knows what to
/// replay.
/// </summary>
public sealed class TextIndex : IDisposable
{
    /// <summary>Changes whenever what is indexed changes; an index of another version is built anew.</summary>
    public const string Version = "3";

    private const double BufferMegabytes = 48,
        FillMegabytes = 192;
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

    /// <summary>
    /// Whether parts of it were damaged and have been taken out: what the store has and <see cref="Records"/> does not
    /// name must be put in again.
    /// </summary>
    /// <remarks>
    /// Written down beside the segments before any is taken out, and until the next commit: a process that is killed in
    /// between is followed by one that knows.
    /// </remarks>
    public bool IsPartial => File.Exists(PartialMark(directory));

    private static string PartialMark(FSDirectory directory) =>
        Path.Combine(directory.Directory.FullName, "to-be-filled");

    /// <summary>
    /// Opens the index in <paramref name="folder"/>; a missing or older one is emptied and starts at sequence 0. Every
    /// file is read through and held against its checksum; segments that are damaged are taken out. O(bytes of the
    /// index).
    /// </summary>
    public static TextIndex Open(string folder)
    {
        System.IO.Directory.CreateDirectory(folder);
        var directory = FSDirectory.Open(folder);
        if (IndexWriter.IsLocked(directory))
            IndexWriter.Unlock(directory); // a lock file left by a killed process; one process owns the folder
        var sequence = IsWhole(directory) || TakeDamagedOut(directory) ? StandsAt(directory) : null;
        // A writer looks at what lies there even when it is to begin anew.
        if (sequence is null)
        {
            foreach (
                var file in directory
                    .ListAll()
                    .Where(f => f.StartsWith('_') || f.StartsWith("segments", StringComparison.Ordinal))
            )
                directory.DeleteFile(file);
            File.Delete(PartialMark(directory));
        }
        var config = new IndexWriterConfig(Lucene48, null)
        {
            OpenMode = sequence is null ? OpenMode.CREATE : OpenMode.CREATE_OR_APPEND,
            RAMBufferSizeMB = BufferMegabytes,
            MergeScheduler = new CalmMergeScheduler(),
        };
        return new(directory, new IndexWriter(directory, config), sequence ?? 0);
    }

    /// <summary>Whether every segment agrees with its checksums; an index that is not there is whole.</summary>
    private static bool IsWhole(FSDirectory directory)
    {
        try
        {
            if (!DirectoryReader.IndexExists(directory))
                return true;
            using var reader = DirectoryReader.Open(directory);
            Parallel.ForEach(reader.Leaves, leaf => leaf.AtomicReader.CheckIntegrity());
            return true;
        }
#pragma warning disable CA1031 // bytes that are not what they were may make reading fail in any way
        catch (Exception)
        {
            return false;
        }
#pragma warning restore CA1031
    }

    /// <summary>Takes damaged segments out and leaves the others.</summary>
    /// <returns>False when nothing can be saved.</returns>
    private static bool TakeDamagedOut(FSDirectory directory)
    {
        try
        {
            var check = new CheckIndex(directory);
            var found = check.DoCheckIndex();
            if (found.MissingSegments || found.CantOpenSegments || found.MissingSegmentVersion)
                return false;
            File.WriteAllText(PartialMark(directory), "");
            if (!found.Clean)
                check.FixIndex(found);
            return IsWhole(directory);
        }
#pragma warning disable CA1031
        catch (Exception)
        {
            return false;
        }
#pragma warning restore CA1031
    }

    private static long? StandsAt(FSDirectory directory)
    {
        try
        {
            if (!DirectoryReader.IndexExists(directory))
                return null;
            using var reader = DirectoryReader.Open(directory);
            var data = reader.IndexCommit.UserData;
            return
                data.TryGetValue("version", out var version)
                && version == Version
                && data.TryGetValue("sequence", out var sequence)
                ? long.Parse(sequence, CultureInfo.InvariantCulture)
                : null;
        }
#pragma warning disable CA1031 // derived data that cannot be read, in whatever way, is built anew
        catch (Exception)
        {
            return null;
        }
#pragma warning restore CA1031
    }

    /// <summary>Ids of the records whose words are in it.</summary>
    internal HashSet<int> Records()
    {
        var ids = new HashSet<int>();
        using var reader = OpenReader();
        foreach (var leaf in reader.Leaves)
        {
            var (live, records) = (leaf.AtomicReader.LiveDocs, SegmentDocs.Of(leaf.AtomicReader).Record);
            for (var d = 0; d < records.Length; d++)
                if (live is null || live.Get(d))
                    ids.Add(records[d]);
        }
        return ids;
    }

    /// <summary>
    /// Merges segments behind the scenes; one that fails (a full disk) is left as it was, and does not end the process.
    /// </summary>
    private sealed class CalmMergeScheduler : ConcurrentMergeScheduler
    {
        protected override void HandleMergeException(Exception exc) { }
    }

    /// <summary>Puts a record in, in place of what was there under its id.</summary>
    public void Put(int recordId, Record record) =>
        writer.UpdateDocument(Id(recordId), documents.Value!.Of(recordId, record));

    /// <summary>
    /// Puts a record into an index that holds nothing yet; each may come once. Nothing is looked for to be replaced,
    /// and larger parts are written.
    /// </summary>
    public void Fill(int recordId, Record record)
    {
        if (!isFilled)
            (isFilled, writer.Config.RAMBufferSizeMB) = (true, FillMegabytes);
        writer.AddDocument(documents.Value!.Of(recordId, record));
    }

    /// <summary>Takes a record out.</summary>
    public void Remove(int recordId) => writer.DeleteDocuments(Id(recordId));

    /// <summary>Makes everything put in so far durable, standing at <paramref name="sequence"/>.</summary>
    public void Commit(long sequence)
    {
        writer.SetCommitData(
            new Dictionary<string, string>
            {
                ["version"] = Version,
                ["sequence"] = sequence.ToString(CultureInfo.InvariantCulture),
            }
        );
        writer.Commit();
        File.Delete(PartialMark(directory));
        Sequence = sequence;
        if (isFilled)
            (isFilled, writer.Config.RAMBufferSizeMB) = (false, BufferMegabytes);
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
