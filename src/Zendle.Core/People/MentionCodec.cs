using System.Buffers.Binary;
using System.Text;
using Zendle.Core.Records;

namespace Zendle.Core.People;

/// <summary>
/// The mentions of one work as bytes: some 60 for each, where objects take 500. Each can be read by itself, and the keys of
/// all without reading any.
/// </summary>
/// <remarks>
/// Layout: how many (4 bytes); two keys each (16); then what mentions share (topics; co-authors, of which each mention tells
/// in bits which are its own); then each mention, its length before it. Given and family names in parts follow from the
/// name and are not written.
/// </remarks>
internal static class MentionCodec
{
    private const int HeadSize = 4,
        KeysSize = 16;

    /// <summary>Packs the mentions of a work; one at least.</summary>
    public static byte[] Write(IReadOnlyList<Mention> mentions)
    {
        using var bytes = new MemoryStream(64 + mentions.Count * 80);
        using var to = new BinaryWriter(bytes, Encoding.UTF8);
        to.Write(mentions.Count);
        foreach (var keys in mentions.Select(PeopleBlocks.KeysOf))
        {
            to.Write(keys.Family);
            to.Write(keys.Orcid);
        }
        var topics = mentions[0].Topics;
        int[] coAuthors = [.. mentions.SelectMany(m => m.CoAuthors).Distinct().Order()];
        Write(to, topics);
        Write(to, coAuthors);
        foreach (var mention in mentions)
        {
            var one = One(mention, topics, coAuthors);
            to.Write7BitEncodedInt(one.Length);
            to.Write(one);
        }
        to.Flush();
        return bytes.ToArray();
    }

    /// <summary>How many mentions are packed.</summary>
    public static int Count(byte[] packed) => BinaryPrimitives.ReadInt32LittleEndian(packed);

    /// <summary>The keys of a mention, by its ordinal among those packed.</summary>
    public static PeopleBlocks.Keys KeysOf(byte[] packed, int ordinal)
    {
        var at = packed.AsSpan(HeadSize + ordinal * KeysSize, KeysSize);
        return new(BinaryPrimitives.ReadUInt64LittleEndian(at), BinaryPrimitives.ReadUInt64LittleEndian(at[8..]));
    }

    /// <summary>One mention, by its ordinal among those packed.</summary>
    /// <param name="packed">The mentions of a work.</param>
    /// <param name="workId">The work.</param>
    /// <param name="ordinal">The ordinal.</param>
    /// <exception cref="EndOfStreamException">The bytes are not what <see cref="Write(IReadOnlyList{Mention})"/>
    /// made.</exception>
    public static Mention Read(byte[] packed, int workId, int ordinal)
    {
        using var from = new BinaryReader(new MemoryStream(packed), Encoding.UTF8);
        from.BaseStream.Position = HeadSize + Count(packed) * KeysSize;
        var shared = Numbers(from);
        var coAuthors = Numbers(from);
        for (var i = 0; i < ordinal; i++)
            from.BaseStream.Seek(from.Read7BitEncodedInt(), SeekOrigin.Current);
        from.Read7BitEncodedInt();
        var position = from.Read7BitEncodedInt();
        var name = new PersonName(from.ReadString(), from.ReadString());
        var (orcid, affiliation) = (OrNull(from.ReadString()), OrNull(from.ReadString()));
        var (institution, year) = (from.ReadInt32(), from.Read7BitEncodedInt());
        var own = from.ReadBytes((coAuthors.Length + 7) / 8);
        var topics = from.ReadBoolean() ? shared : Numbers(from);
        return new(
            workId,
            position,
            name,
            Mention.GivenParts(name.Given),
            Mention.FamilyParts(name.Family),
            orcid,
            institution,
            affiliation,
            [.. coAuthors.Where((_, i) => (own[i / 8] & 1 << i % 8) != 0)],
            year,
            topics
        );
    }

    private static byte[] One(Mention mention, int[] topics, int[] coAuthors)
    {
        using var bytes = new MemoryStream(96);
        using var to = new BinaryWriter(bytes, Encoding.UTF8);
        to.Write7BitEncodedInt(mention.Position);
        to.Write(mention.Name.Family);
        to.Write(mention.Name.Given);
        to.Write(mention.Orcid ?? "");
        to.Write(mention.Affiliation ?? "");
        to.Write(mention.Institution);
        to.Write7BitEncodedInt(mention.Year);
        var own = new byte[(coAuthors.Length + 7) / 8];
        foreach (var coAuthor in mention.CoAuthors)
        {
            var i = Array.BinarySearch(coAuthors, coAuthor);
            own[i / 8] |= (byte)(1 << i % 8);
        }
        to.Write(own);
        var isShared = ReferenceEquals(mention.Topics, topics) || mention.Topics.AsSpan().SequenceEqual(topics);
        to.Write(isShared);
        if (!isShared)
            Write(to, mention.Topics);
        to.Flush();
        return bytes.ToArray();
    }

    private static string? OrNull(string text) => text.Length == 0 ? null : text;

    private static void Write(BinaryWriter to, int[] numbers)
    {
        to.Write7BitEncodedInt(numbers.Length);
        foreach (var number in numbers)
            to.Write(number);
    }

    private static int[] Numbers(BinaryReader from)
    {
        var numbers = new int[from.Read7BitEncodedInt()];
        for (var i = 0; i < numbers.Length; i++)
            numbers[i] = from.ReadInt32();
        return numbers;
    }
}
