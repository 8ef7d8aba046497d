using System.Text.Json;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Index.Columns;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>
/// The columns on disk, beside the words: a later start reads them and follows what changed since. Written aside and put in place in one stroke; a file that is
/// missing, damaged, or of another version or older rules of merging is passed over, and everything is built anew.
/// </summary>
/// <param name="folder">The folder of the index.</param>
internal sealed class ColumnsFile(string folder)
{
    /// <summary>Changes whenever what is written, or what it means, changes.</summary>
    private const int Version = 4;
    private const int End = 0x5A4E444C;

    private string Columns => Path.Combine(folder, "columns");
    private string People => Path.Combine(folder, "people");

    /// <summary>What was written last; null when there is nothing of use.</summary>
    public CorpusState? Read()
    {
        try
        {
            using var from = new BinaryReader(new FileStream(Columns, FileMode.Open, FileAccess.Read, FileShare.Read, 1 << 16, FileOptions.SequentialScan));
            if (from.ReadInt32() != Version || from.ReadInt32() != CorpusWriter.MergeVersion) return null;
            var (sequence, toldApart) = (from.ReadInt64(), from.ReadBoolean());
            var databases = Enumerable.Range(0, from.ReadInt32()).Select(_ => (Id: from.ReadInt32(), Trust: from.ReadInt32(), Name: from.ReadString())).ToDictionary(d => d.Id, d => (d.Trust, d.Name));
            var (titles, issns) = (from.ReadTexts(), from.ReadTexts());
            var venues = new ShownVenues([.. titles.Zip(issns, (title, issn) => new VenuePart(title!, issn))], from.ReadNumbers<int>(), from.ReadNumbers<short>());
            var columns = ColumnsStream.Read(from);
            return from.ReadInt32() == End ? new(sequence, databases, columns, venues, toldApart) { HasWrittenPeople = toldApart } : null;
        }
        catch (Exception e) when (e is IOException or InvalidDataException or ArgumentException or UnauthorizedAccessException) { return null; }
    }

    /// <summary>The people that works name, as they were written with the columns; null when there is nothing of use.</summary>
    /// <param name="sequence">The change sequence of those columns.</param>
    public Dictionary<int, IReadOnlyList<Mention>>? ReadPeople(long sequence)
    {
        try
        {
            using var from = File.OpenRead(People);
            var written = JsonSerializer.Deserialize<WrittenPeople>(from);
            return written is { Works: not null } && written.Sequence == sequence ? written.Works.ToDictionary(w => w[0].WorkId, IReadOnlyList<Mention> (w) => w) : null;
        }
        catch (Exception e) when (e is IOException or JsonException or ArgumentException or UnauthorizedAccessException or IndexOutOfRangeException) { return null; }
    }

    /// <summary>Writes a state down. What cannot be written is left: the next start takes longer.</summary>
    /// <returns>Whether it was written.</returns>
    public bool Write(CorpusState state)
    {
        try
        {
            if (state.Mentions is { } mentions) Put(People, to => JsonSerializer.Serialize(to, new WrittenPeople(state.Sequence, [.. mentions.Values.Select(m => m.ToArray())])));
            Put(Columns, stream =>
            {
                using var to = new BinaryWriter(stream, System.Text.Encoding.UTF8, leaveOpen: true);
                to.Write(Version);
                to.Write(CorpusWriter.MergeVersion);
                to.Write(state.Sequence);
                to.Write(state.PeopleTold);
                to.Write(state.Databases.Count);
                foreach (var (id, (trust, name)) in state.Databases)
                {
                    to.Write(id);
                    to.Write(trust);
                    to.Write(name);
                }
                to.WriteTexts([.. state.Venues.Spellings.Select(v => v.Title)]);
                to.WriteTexts([.. state.Venues.Spellings.Select(v => v.Issn)]);
                to.WriteNumbers(state.Venues.SpellingOf);
                to.WriteNumbers(state.Venues.YearOf);
                ColumnsStream.Write(to, state.Columns);
                to.Write(End);
            });
            return true;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException) { return false; }
    }

    private static void Put(string path, Action<Stream> write)
    {
        var aside = path + ".part";
        using (var to = new FileStream(aside, FileMode.Create, FileAccess.Write, FileShare.None, 1 << 16))
        {
            write(to);
            to.Flush(flushToDisk: true);
        }
        File.Move(aside, path, overwrite: true);
    }

    /// <summary>The people of works, as they are written.</summary>
    private sealed record WrittenPeople(long Sequence, Mention[][] Works);
}
