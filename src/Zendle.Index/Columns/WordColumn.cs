using System.Runtime.InteropServices;
using Zendle.Core.Sets;
using Zendle.Core.Spelling;
using Zendle.Core.Terms;

namespace Zendle.Index.Columns;

/// <summary>
/// The running words of each work as numbers, in the order they stand: what marks a set of works is counted from it in
/// one pass, without reading a record. Words that come often have small numbers, and a number takes one to five bytes.
/// </summary>
/// <remarks>
/// Memory: some two bytes for each word of title, keywords and abstract, and the words themselves once.
/// </remarks>
public sealed class WordColumn
{
    /// <summary>The number that stands where a stretch ends; see <see cref="RunningWords.End"/>.</summary>
    public const int End = 0;

    // Four bytes to a number; what is left over of the last is filled with the mark of an end, which nobody minds.
    private readonly IdLists texts;
    private readonly NameTable table;
    private readonly Lazy<int[]> works;
    private readonly Lazy<float[]> rarity;

    private WordColumn(NameTable table, IdLists texts)
    {
        (this.table, this.texts) = (table, texts);
        Words = table.First(table.Count);
        works = new(CountWorks);
        rarity = new(MeasureRarity);
    }

    /// <summary>The words by number; <see cref="End"/> is none.</summary>
    public IReadOnlyList<string> Words { get; }

    /// <summary>Work ids are below this.</summary>
    public int Size => texts.Size;

    /// <summary>In how many works each word stands, by number; counted when it is first asked for. O(words).</summary>
    public IReadOnlyList<int> Works => works.Value;

    /// <summary>
    /// How rare each word is, by number: ln(N ÷ df) over the works that have words (Spärck Jones 1972), worked out when
    /// it is first asked for.
    /// </summary>
    public ReadOnlySpan<float> Rarity => rarity.Value;

    /// <summary>The words with the works they stand in, put in order for looking up near ones.</summary>
    internal SpelledWords SpelledWords() => new(Words.Zip(Works));

    /// <summary>What the column is made of, for writing it down.</summary>
    internal (IReadOnlyList<string> Words, IdLists Texts) Parts => (Words, texts);

    /// <summary>The number of a folded word; <see cref="End"/> for one that no work has.</summary>
    public int NumberOf(string word) => table.Find(word) is > 0 and var number && number < Words.Count ? number : End;

    /// <summary>The words of a work in the order they stand.</summary>
    public Reader Of(int work) => new(MemoryMarshal.AsBytes(texts.Of(work)));

    /// <summary>A column that was written down.</summary>
    internal static WordColumn From(IdLists texts, IEnumerable<string> words)
    {
        var table = new NameTable(StringComparer.Ordinal);
        foreach (var word in words)
            table.Add(word);
        return new(table, texts);
    }

    private int[] CountWorks()
    {
        var (counts, seen) = (new int[Words.Count], new int[Words.Count]);
        for (var work = 0; work < Size; work++)
            foreach (var word in Of(work))
                if (seen[word] != work)
                    (seen[word], counts[word]) = (work, counts[word] + 1);
        counts[End] = 0;
        return counts;
    }

    private float[] MeasureRarity()
    {
        var all = 0;
        for (var work = 0; work < Size; work++)
            all += texts.Of(work).IsEmpty ? 0 : 1;
        return Array.ConvertAll(works.Value, w => w == 0 ? 0 : (float)Math.Log((double)all / w));
    }

    /// <summary>Goes through the words of one work.</summary>
    public ref struct Reader(ReadOnlySpan<byte> bytes)
    {
        private readonly ReadOnlySpan<byte> bytes = bytes;
        private int at;

        /// <summary>The number of the word; <see cref="End"/> where a stretch ends.</summary>
        public int Current { get; private set; }

        /// <summary>This, for <c>foreach</c>.</summary>
        public readonly Reader GetEnumerator() => this;

        /// <summary>Goes on to the next word; false behind the last.</summary>
        public bool MoveNext()
        {
            if (at >= bytes.Length)
                return false;
            int number = bytes[at++];
            if (number >= 0x80)
            {
                number &= 0x7F;
                for (var shift = 7; at < bytes.Length; shift += 7)
                {
                    int next = bytes[at++];
                    number |= (next & 0x7F) << shift;
                    if (next < 0x80)
                        break;
                }
            }
            Current = number;
            return true;
        }
    }

    /// <summary>Makes a column, from nothing or from the one before it.</summary>
    internal sealed class Editor
    {
        private readonly NameTable table;
        private readonly IdLists.Editor texts;
        private int[] room = new int[256];

        public Editor(WordColumn? from, int size)
        {
            table = from?.table ?? new(StringComparer.Ordinal);
            if (from is null)
                table.Add(RunningWords.End);
            texts = (from?.texts ?? IdLists.Empty).Edit(size);
        }

        /// <summary>Sets the words of a work; none takes them away.</summary>
        public void Set(int work, IReadOnlyList<string> words)
        {
            if (room.Length * sizeof(int) < words.Count * 5)
                room = new int[words.Count * 2];
            var bytes = MemoryMarshal.AsBytes(room.AsSpan());
            var length = 0;
            foreach (var word in words)
            {
                var number = (uint)(word.Length == 0 ? End : table.Add(word));
                for (; number >= 0x80; number >>= 7)
                    bytes[length++] = (byte)(number | 0x80);
                bytes[length++] = (byte)number;
            }
            var whole = (length + 3) / 4;
            bytes[length..(whole * 4)].Clear();
            texts.Set(work, room.AsSpan(0, whole));
        }

        /// <summary>The column. The editor is done with.</summary>
        public WordColumn Finish() => new(table, texts.Finish());
    }
}
