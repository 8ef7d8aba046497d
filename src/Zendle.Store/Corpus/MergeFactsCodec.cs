using System.Runtime.InteropServices;
using System.Text;
using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>
/// Turns merging facts into a few hundred bytes and back. A record is compared with those of other databases that were
/// stored long before; reading them in this form takes a tenth of the time of reading the whole record and working them
/// out again.
/// </summary>
public static class MergeFactsCodec
{
    [Flags]
    private enum Marks : byte
    {
        Translated = 1,
        BeforeReview = 2,
        OnlyCited = 4,

        /// <summary>The shown title has no subtitle: it is its own main part.</summary>
        WholeTitle = 8,
    }

    /// <summary>The facts but for the record's id, database and what follows from the rest (trigrams, keys).</summary>
    public static byte[] Write(MergeFacts facts)
    {
        using var bytes = new MemoryStream(512);
        using var to = new BinaryWriter(bytes, Encoding.UTF8);
        to.Write(facts.Stamp);
        to.Write((byte)facts.Type);
        var isWhole = facts.Titles.Length > 0 && facts.MainTitle == facts.Titles[0];
        to.Write(
            (byte)(
                (facts.IsTranslated ? Marks.Translated : 0)
                | (facts.IsBeforeReview ? Marks.BeforeReview : 0)
                | (facts.IsOnlyCited ? Marks.OnlyCited : 0)
                | (isWhole ? Marks.WholeTitle : 0)
            )
        );
        to.Write((short)(facts.Year ?? 0));
        List(to, facts.Titles.AsSpan());
        if (!isWhole)
            to.Write(facts.MainTitle);
        to.Write(facts.Numbers);
        to.Write(facts.Notice);
        List(to, facts.Families.AsSpan());
        foreach (var initial in facts.Initials)
            to.Write((ushort)initial);
        List(to, facts.Venue.AsSpan());
        List(to, [.. facts.OwnNumbers]);
        List(to, [.. facts.VersionDois]);
        foreach (var one in (ReadOnlySpan<string?>)[facts.Doi, facts.Isbn, facts.Issn, facts.Volume, facts.FirstPage])
            to.Write(one ?? "");
        to.Flush();
        return bytes.ToArray();
    }

    /// <summary>Reads facts.</summary>
    /// <param name="recordId">Id of the record.</param>
    /// <param name="databaseId">Its database.</param>
    /// <param name="facts">What <see cref="Write"/> gave.</param>
    public static MergeFacts Read(int recordId, int databaseId, byte[] facts)
    {
        using var from = new BinaryReader(new MemoryStream(facts), Encoding.UTF8);
        var (stamp, type, marks, year) = (
            from.ReadUInt64(),
            (DocumentType)from.ReadByte(),
            (Marks)from.ReadByte(),
            from.ReadInt16()
        );
        var titles = ImmutableCollectionsMarshal.AsImmutableArray(List(from));
        var main = marks.HasFlag(Marks.WholeTitle) ? titles[0] : from.ReadString();
        var (numbers, notice, families) = (from.ReadString(), from.ReadString(), List(from));
        var initials = new char[families.Length];
        for (var i = 0; i < initials.Length; i++)
            initials[i] = (char)from.ReadUInt16();
        return new()
        {
            RecordId = recordId,
            DatabaseId = databaseId,
            Stamp = stamp,
            Type = type,
            IsTranslated = marks.HasFlag(Marks.Translated),
            IsBeforeReview = marks.HasFlag(Marks.BeforeReview),
            IsOnlyCited = marks.HasFlag(Marks.OnlyCited),
            Year = year == 0 ? null : year,
            Titles = titles,
            MainTitle = main,
            Numbers = numbers,
            Notice = notice,
            Families = ImmutableCollectionsMarshal.AsImmutableArray(families),
            Initials = ImmutableCollectionsMarshal.AsImmutableArray(initials),
            Venue = ImmutableCollectionsMarshal.AsImmutableArray(List(from)),
            OwnNumbers = List(from),
            VersionDois = List(from),
            Doi = One(from),
            Isbn = One(from),
            Issn = One(from),
            Volume = One(from),
            FirstPage = One(from),
        };
    }

    private static void List(BinaryWriter to, ReadOnlySpan<string> texts)
    {
        to.Write7BitEncodedInt(texts.Length);
        foreach (var text in texts)
            to.Write(text);
    }

    private static string[] List(BinaryReader from)
    {
        var texts = new string[from.Read7BitEncodedInt()];
        for (var i = 0; i < texts.Length; i++)
            texts[i] = from.ReadString();
        return texts;
    }

    private static string? One(BinaryReader from) => from.ReadString() is { Length: > 0 } text ? text : null;
}
