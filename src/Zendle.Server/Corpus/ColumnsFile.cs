using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Index.Columns;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>
/// The columns on disk, beside the words: a later start reads them and follows what changed since. Written aside and
/// put in place in one stroke; a file that is missing, damaged (its checksum is another), or of another version or
/// older rules of merging is passed over, and everything is built anew.
/// </summary>
/// <param name="folder">The folder of the index.</param>
internal sealed class ColumnsFile(string folder)
{
    /// <summary>Changes whenever what is written, or what it means, changes.</summary>
    private const int Version = 17;

    /// <summary>The fields that were written; with another one everything is built anew.</summary>
    private static readonly string Fields = string.Join(' ', Enum.GetNames<Facet>());

    private string Columns => Path.Combine(folder, "columns");
    private string People => Path.Combine(folder, "people");

    /// <summary>What was written last; null when there is nothing of use.</summary>
    public CorpusState? Read()
    {
        try
        {
            using var file = new FileStream(
                Columns,
                FileMode.Open,
                FileAccess.Read,
                FileShare.Read,
                1 << 16,
                FileOptions.SequentialScan
            );
            var summed = new ChecksumStream(file);
            using var from = new BinaryReader(summed);
            if (
                from.ReadInt32() != Version
                || from.ReadInt32() != CorpusWriter.MergeVersion
                || from.ReadString() != Fields
            )
                return null;
            var (sequence, people) = (from.ReadInt64(), from.ReadUInt64());
            var databases = Enumerable
                .Range(0, from.ReadInt32())
                .Select(_ => (Id: from.ReadInt32(), Trust: from.ReadInt32(), Name: from.ReadString()))
                .ToDictionary(d => d.Id, d => (d.Trust, d.Name));
            var (titles, issns) = (from.ReadTexts(), from.ReadTexts());
            var venues = new ShownVenues(
                [.. titles.Zip(issns, (title, issn) => new VenuePart(title!, issn))],
                from.ReadNumbers<int>(),
                from.ReadNumbers<short>()
            );
            var columns = ColumnsStream.Read(from);
            return summed.Sum == from.ReadUInt64()
                ? new(sequence, databases, columns, venues) { WrittenPeople = people == 0 ? null : people }
                : null;
        }
        catch (Exception e) when (IsDamage(e))
        {
            return null;
        }
    }

    /// <summary>What reading a file may end in that is missing, or holds anything at all.</summary>
    private static bool IsDamage(Exception e) =>
        e
            is IOException
                or InvalidDataException
                or ArgumentException
                or UnauthorizedAccessException
                or FormatException
                or OverflowException
                or IndexOutOfRangeException
                or KeyNotFoundException;

    /// <summary>
    /// The people of works, as they were written with the columns; null when there is nothing of use.
    /// </summary>
    /// <param name="sum">The checksum they were written with.</param>
    public PeopleByBlock? ReadPeople(ulong sum)
    {
        try
        {
            using var file = File.OpenRead(People);
            var summed = new ChecksumStream(file);
            var written = PeopleByBlock.Read(summed);
            return summed.Sum == sum ? written : null;
        }
        catch (Exception e) when (IsDamage(e))
        {
            return null;
        }
    }

    /// <summary>Writes a state down. What cannot be written is left: the next start takes longer.</summary>
    /// <returns>The state as one that was written; null when it could not be.</returns>
    public CorpusState? Write(CorpusState state)
    {
        try
        {
            var people = state.People is { } told ? Put(People, told.Write) : 0;
            Put(
                Columns,
                summed =>
                {
                    using var to = new BinaryWriter(summed, System.Text.Encoding.UTF8, leaveOpen: true);
                    to.Write(Version);
                    to.Write(CorpusWriter.MergeVersion);
                    to.Write(Fields);
                    to.Write(state.Sequence);
                    to.Write(people);
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
                    to.Flush();
                    to.Write(summed.Sum);
                }
            );
            return state with { Unwritten = 0, WrittenPeople = people == 0 ? null : people };
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    /// <returns>The checksum of what was written.</returns>
    private static ulong Put(string path, Action<ChecksumStream> write)
    {
        var aside = path + ".part";
        ulong sum;
        using (var file = new FileStream(aside, FileMode.Create, FileAccess.Write, FileShare.None, 1 << 16))
        {
            var summed = new ChecksumStream(file);
            write(summed);
            sum = summed.Sum;
            file.Flush(flushToDisk: true);
        }
        File.Move(aside, path, overwrite: true);
        return sum;
    }
}
