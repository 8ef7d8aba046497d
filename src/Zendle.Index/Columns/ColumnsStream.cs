using System.Runtime.InteropServices;
using System.Text;
using Zendle.Core.Merging;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;

namespace Zendle.Index.Columns;

/// <summary>
/// Writes columns down and reads them again: arrays as they lie in memory, so that a start costs little more than
/// reading a file.
/// </summary>
/// <remarks>
/// A file is for the machine that wrote it; it is derived, and one that cannot be read is thrown away.
/// </remarks>
public static class ColumnsStream
{
    /// <summary>Writes columns. O(size).</summary>
    public static void Write(BinaryWriter to, CorpusColumns columns)
    {
        var all = columns.All;
        to.WriteNumbers(all.RecordWork);
        to.WriteNumbers(all.RecordDatabase);
        to.WriteNumbers(all.RecordYear);
        to.WriteNumbers(all.RecordFields);
        to.WriteNumbers(all.Year);
        to.WriteLists(all.SortTitle.Texts);
        to.WriteLists(all.SortPerson.Texts);
        var (words, running) = all.Words.Parts;
        to.WriteTexts(words);
        to.WriteLists(running);
        to.WriteNumbers(all.VenueName);
        to.WriteNumbers(all.WorkFirstRecord);
        to.WriteNumbers(all.WorkVenue);
        to.WriteNumbers(all.TextRank);
        to.WriteNumbers(all.OnlyCited.ToArray());
        // Ranks by text follow from the rest, but take longer to work out than to read.
        to.WriteNumbers(columns.TitleRank);
        to.WriteNumbers(columns.PersonRank);
        foreach (var lists in new[] { all.RecordsOf, all.CitedWorks, all.Asked })
            to.WriteLists(lists);
        to.WriteNumbers(all.ListWork);
        to.WriteLists(all.ListsOf);
        to.Write(all.TextSource);
        to.Write(all.DatabaseCited.Count);
        foreach (var (database, counts) in all.DatabaseCited)
        {
            to.Write(database);
            to.WriteNumbers(counts);
        }
        to.Write(all.Facets.Count);
        foreach (var (facet, column) in all.Facets)
        {
            to.Write((int)facet);
            var (names, values, ones) = column.Parts;
            to.WriteTexts(names);
            to.Write(ones is not null);
            if (ones is null)
                to.WriteLists(values);
            else
                to.WriteNumbers(ones);
        }
        var (accounts, keys, records, texts) = all.References.Parts;
        to.WriteLists(accounts);
        to.WriteNumbers(keys);
        to.WriteNumbers(records);
        to.WriteTexts(texts);
        var graph = all.Graph.Parts;
        to.WriteLists(graph.Back);
        to.WriteLists(graph.Forward);
        to.WriteNumbers(graph.Masks);
        to.WriteNumbers(graph.Databases);
        to.Write(graph.Ties);
        var (people, printed) = all.Printed.Parts;
        to.WriteTexts(people);
        to.WriteLists(printed);
        to.Write(all.PerhapsSame.Count);
        foreach (var (person, others) in all.PerhapsSame)
        {
            to.Write(person);
            to.WriteTexts([.. others]);
        }
        foreach (var former in new[] { all.FormerLabels, all.FormerVenues })
        {
            to.WriteTexts([.. former.Keys]);
            to.WriteTexts([.. former.Values]);
        }
    }

    /// <summary>Reads columns, without where venues stand.</summary>
    /// <exception cref="InvalidDataException">What is read is not what was written.</exception>
    /// <exception cref="EndOfStreamException">It is cut off.</exception>
    public static CorpusColumns Read(BinaryReader from)
    {
        var recordWork = from.ReadNumbers<int>();
        var (recordDatabase, recordYear, recordFields, year) = (
            from.ReadNumbers<byte>(),
            from.ReadNumbers<short>(),
            from.ReadNumbers<byte>(),
            from.ReadNumbers<short>()
        );
        var (title, person) = (TextColumn.From(from.ReadLists()), TextColumn.From(from.ReadLists()));
        var spelled = from.ReadTexts();
        var (words, venue) = (WordColumn.From(from.ReadLists(), spelled!), from.ReadNumbers<int>());
        var (first, workVenue, rank, onlyCited) = (
            from.ReadNumbers<int>(),
            from.ReadNumbers<int>(),
            from.ReadNumbers<byte>(),
            from.ReadNumbers<int>()
        );
        var (titleRank, personRank) = (from.ReadNumbers<int>(), from.ReadNumbers<int>());
        var (recordsOf, citedWorks, asked) = (from.ReadLists(), from.ReadLists(), from.ReadLists());
        var (listWork, listsOf, textSource) = (from.ReadNumbers<int>(), from.ReadLists(), from.ReadInt32());
        var works = first.Length;
        if (
            recordDatabase.Length != recordWork.Length
            || recordYear.Length != recordWork.Length
            || recordFields.Length != recordWork.Length
            || listWork.Length != recordWork.Length
            || new[]
            {
                year.Length,
                title.Size,
                person.Size,
                words.Size,
                venue.Length,
                workVenue.Length,
                rank.Length,
                titleRank.Length,
                personRank.Length,
            }.Any(n => n != works)
            || Array.Exists(recordWork, w => (uint)w >= (uint)works)
            || Array.Exists(listWork, w => w >= works)
            || Array.Exists(onlyCited, w => (uint)w >= (uint)works)
        )
            throw new InvalidDataException("The columns do not fit each other.");
        foreach (var ranks in new[] { titleRank, personRank })
            if (Array.Exists(ranks, p => p != int.MaxValue && (uint)p >= (uint)works))
                throw new InvalidDataException("A rank lies beyond the works.");
        var contents = new CorpusColumns.Contents
        {
            RecordWork = recordWork,
            RecordDatabase = recordDatabase,
            RecordYear = recordYear,
            RecordFields = recordFields,
            Year = year,
            SortTitle = title,
            SortPerson = person,
            Words = words,
            VenueName = venue,
            WorkFirstRecord = first,
            WorkVenue = workVenue,
            TextRank = rank,
            OnlyCited = WorkSet.Of(works, onlyCited),
            RecordsOf = recordsOf,
            CitedWorks = citedWorks,
            Asked = asked,
            ListWork = listWork,
            ListsOf = listsOf,
            TextSource = textSource,
            DatabaseCited = Enumerable
                .Range(0, from.ReadInt32())
                .Select(_ => (Database: from.ReadInt32(), Counts: from.ReadNumbers<int>()))
                .ToDictionary(c => c.Database, c => c.Counts),
            Facets = Enumerable
                .Range(0, from.ReadInt32())
                .Select(_ => (Facet: (Facet)from.ReadInt32(), Column: from.ReadColumn()))
                .ToDictionary(f => f.Facet, f => f.Column),
            References = ReferenceMatcher.From(
                from.ReadLists(),
                from.ReadNumbers<ulong>(),
                from.ReadNumbers<int>(),
                from.ReadTexts()!
            ),
            Graph = CitationGraph.From(
                from.ReadLists(),
                from.ReadLists(),
                from.ReadNumbers<ulong>(),
                from.ReadNumbers<int>(),
                from.ReadInt32()
            ),
            Printed = ReadWords(from),
            PerhapsSame = Enumerable
                .Range(0, from.ReadInt32())
                .Select(_ => (Person: from.ReadString(), Others: (IReadOnlyList<string>)from.ReadTexts()!))
                .ToDictionary(p => p.Person, p => p.Others, StringComparer.OrdinalIgnoreCase),
            FormerLabels = ReadFormer(from),
            FormerVenues = ReadFormer(from),
        };
        if (Array.Exists(venue, name => name >= contents.Facets[Facet.Venue].Names.Count))
            throw new InvalidDataException("A venue has no name.");
        return new(contents, titleRank, personRank);
    }

    private static WordColumn ReadWords(BinaryReader from)
    {
        var words = from.ReadTexts();
        return WordColumn.From(from.ReadLists(), words!);
    }

    /// <summary>Writes numbers, their count before them.</summary>
    public static void WriteNumbers<T>(this BinaryWriter to, T[] numbers)
        where T : unmanaged
    {
        to.Write(numbers.Length);
        to.Flush();
        to.BaseStream.Write(MemoryMarshal.AsBytes(numbers.AsSpan()));
    }

    /// <summary>Reads numbers.</summary>
    public static T[] ReadNumbers<T>(this BinaryReader from)
        where T : unmanaged
    {
        var count = from.ReadCount(System.Runtime.CompilerServices.Unsafe.SizeOf<T>());
        var numbers = GC.AllocateUninitializedArray<T>(count);
        from.BaseStream.ReadExactly(MemoryMarshal.AsBytes(numbers.AsSpan()));
        return numbers;
    }

    private static int ReadCount(this BinaryReader from, int size)
    {
        var count = from.ReadInt32();
        return count >= 0 && (long)count * size <= from.BaseStream.Length - from.BaseStream.Position
            ? count
            : throw new InvalidDataException("A count is larger than what is left.");
    }

    /// <summary>Writes texts, null among them.</summary>
    public static void WriteTexts(this BinaryWriter to, IReadOnlyList<string?> texts)
    {
        var lengths = new int[texts.Count];
        for (var i = 0; i < lengths.Length; i++)
            lengths[i] = texts[i] is { } text ? Encoding.UTF8.GetByteCount(text) : -1;
        to.WriteNumbers(lengths);
        var bytes = new byte[lengths.DefaultIfEmpty().Max() is > 0 and var most ? most : 0];
        for (var i = 0; i < lengths.Length; i++)
            if (texts[i] is { } text)
                to.BaseStream.Write(bytes, 0, Encoding.UTF8.GetBytes(text, bytes));
    }

    /// <summary>Reads texts.</summary>
    public static string?[] ReadTexts(this BinaryReader from)
    {
        var lengths = from.ReadNumbers<int>();
        if (lengths.Sum(n => (long)Math.Max(0, n)) > from.BaseStream.Length - from.BaseStream.Position)
            throw new InvalidDataException("Texts are longer than what is left.");
        var bytes = new byte[lengths.DefaultIfEmpty().Max() is > 0 and var most ? most : 0];
        return Array.ConvertAll(
            lengths,
            length =>
            {
                if (length < 0)
                    return null;
                from.BaseStream.ReadExactly(bytes.AsSpan(0, length));
                return Encoding.UTF8.GetString(bytes, 0, length);
            }
        );
    }

    private static FacetColumn ReadColumn(this BinaryReader from)
    {
        var names = from.ReadTexts();
        return from.ReadBoolean()
            ? FacetColumn.From(names!, IdLists.Empty, from.ReadNumbers<int>())
            : FacetColumn.From(names!, from.ReadLists(), null);
    }

    private static void WriteLists(this BinaryWriter to, IdLists lists)
    {
        var (at, data) = lists.Arrays();
        to.WriteNumbers(at);
        to.WriteNumbers(data);
    }

    private static IdLists ReadLists(this BinaryReader from)
    {
        var at = from.ReadNumbers<int>();
        var used = from.ReadCount(sizeof(int));
        var data = GC.AllocateUninitializedArray<int>(IdLists.LengthFor(used));
        from.BaseStream.ReadExactly(MemoryMarshal.AsBytes(data.AsSpan(0, used)));
        return IdLists.From(at, data, used);
    }

    private static Dictionary<string, string> ReadFormer(BinaryReader from) =>
        from.ReadTexts()!
            .Zip(from.ReadTexts()!)
            .ToDictionary(l => l.First!, l => l.Second!, StringComparer.OrdinalIgnoreCase);
}
