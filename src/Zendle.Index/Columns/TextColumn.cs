using System.Runtime.InteropServices;
using System.Text;
using Zendle.Core.Sets;

namespace Zendle.Index.Columns;

/// <summary>
/// A text by id, all as UTF-8 in one array (see <see cref="IdLists"/>): a million titles as objects of their own would
/// take three times the room.
/// </summary>
public sealed class TextColumn
{
    // Four bytes to a number; what is left over of the last is filled with a byte that no UTF-8 has.
    private const byte Filler = 0xFF;

    private TextColumn(IdLists texts) => Texts = texts;

    /// <summary>No texts.</summary>
    public static TextColumn Empty { get; } = new(IdLists.Empty);

    /// <summary>Ids are below this.</summary>
    public int Size => Texts.Size;

    /// <summary>The text of an id; null for none, an empty one included.</summary>
    public string? this[int id] => Utf8(id) is { IsEmpty: false } bytes ? Encoding.UTF8.GetString(bytes) : null;

    /// <summary>What the column is made of, for writing it down.</summary>
    internal IdLists Texts { get; }

    /// <summary>A column that was written down.</summary>
    internal static TextColumn From(IdLists texts) => new(texts);

    private ReadOnlySpan<byte> Utf8(int id) => MemoryMarshal.AsBytes(Texts.Of(id)).TrimEnd(Filler);

    /// <summary>Makes a column, from nothing or from the one before it.</summary>
    internal sealed class Editor(TextColumn? from, int size)
    {
        private readonly IdLists.Editor texts = (from ?? Empty).Texts.Edit(size);
        private int[] room = new int[64];

        /// <summary>Sets the text of an id; null or an empty one takes it away.</summary>
        public void Set(int id, string? text)
        {
            if (string.IsNullOrEmpty(text))
            {
                texts.Set(id, []);
                return;
            }
            var numbers = (Encoding.UTF8.GetMaxByteCount(text.Length) + 3) / 4;
            if (room.Length < numbers)
                room = new int[numbers];
            var bytes = MemoryMarshal.AsBytes(room.AsSpan());
            var length = Encoding.UTF8.GetBytes(text, bytes);
            var whole = (length + 3) / 4;
            bytes[length..(whole * 4)].Fill(Filler);
            texts.Set(id, room.AsSpan(0, whole));
        }

        /// <summary>The column. The editor is done with.</summary>
        public TextColumn Finish() => new(texts.Finish());
    }
}
