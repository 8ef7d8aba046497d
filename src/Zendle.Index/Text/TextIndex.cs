using System.Globalization;
using Lucene.Net.Documents;
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
    private static readonly FieldType Running = new(TextField.TYPE_NOT_STORED) { OmitNorms = true, IndexOptions = IndexOptions.DOCS_AND_FREQS_AND_POSITIONS };

    private readonly FSDirectory directory;
    private readonly IndexWriter writer;
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
    public void Put(int recordId, Record record) => writer.UpdateDocument(Id(recordId), DocumentOf(recordId, record));

    /// <summary>Puts a record into an index that holds nothing yet; each may come once. Nothing is looked for to be replaced, and larger parts are written.</summary>
    public void Fill(int recordId, Record record)
    {
        if (!isFilled) (isFilled, writer.Config.RAMBufferSizeMB) = (true, FillMegabytes);
        writer.AddDocument(DocumentOf(recordId, record));
    }

    private static Document DocumentOf(int recordId, Record record)
    {
        var document = new Document
        {
            new StringField("id", recordId.ToString(CultureInfo.InvariantCulture), Field.Store.NO),
            new NumericDocValuesField(IndexFields.Record, recordId),
        };
        var title = AddText(document, IndexFields.Title, [record.Title]);
        var keywords = AddText(document, IndexFields.Keywords, record.Keywords);
        var abstractWords = AddText(document, IndexFields.Abstract, [record.Abstract]);
        AddText(document, IndexFields.Author, record.People.Select(p => $"{p.Given} {p.Family}"));
        AddText(document, IndexFields.Venue, record.Venue is null ? [] : [record.Venue.Title]);
        AddText(document, IndexFields.Subject, record.Subjects);
        AddText(document, IndexFields.Affiliation, record.People.Select(p => p.Affiliation).OfType<string>().Distinct());
        AddText(document, IndexFields.Funder, record.Funders);
        document.Add(new NumericDocValuesField(IndexFields.Lengths, (long)((uint)Math.Min(title, 0xFFFF) | (ulong)(uint)Math.Min(keywords, 0xFFFF) << 16 | (ulong)(uint)Math.Min(abstractWords, 0xFFFFFF) << 32)));
        AddValue(document, IndexFields.Doi, record.Doi);
        AddValue(document, IndexFields.Issn, record.Venue?.Issn);
        AddValue(document, IndexFields.Isbn, record.Isbn);
        AddValue(document, IndexFields.Type, DocumentTypes.Name(record.Type));
        if (record.Language is { } language)
        {
            AddValue(document, IndexFields.Language, language);
            AddValue(document, IndexFields.Language, Languages.Name(language).ToLowerInvariant());
            AddValue(document, IndexFields.Language, Languages.TwoLetters(language));
        }
        return document;
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
    }

    private static Term Id(int recordId) => new("id", recordId.ToString(CultureInfo.InvariantCulture));

    private static int AddText(Document document, string field, IEnumerable<string> values)
    {
        var stream = new WordsTokenStream(values);
        if (stream.Count > 0) document.Add(new Field(field, stream, Running));
        else stream.Dispose();
        return stream.Count;
    }

    private static void AddValue(Document document, string field, string? value)
    {
        if (value is not null) document.Add(new StringField(field, value, Field.Store.NO));
    }
}
