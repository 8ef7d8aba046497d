using System.Buffers.Binary;
using System.IO.Compression;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Xml;
using System.Xml.Linq;
using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>Turns records into bytes and back.</summary>
public static class RecordCodec
{
    /// <summary>The record without references, as UTF-8 JSON.</summary>
    public static byte[] Facts(Record record) =>
        JsonSerializer.SerializeToUtf8Bytes(record with { References = [] }, RecordJson.Default.Record);

    /// <summary>A record from its facts; references are read apart by <see cref="References(byte[])"/>.</summary>
    public static Record Facts(byte[] facts) => JsonSerializer.Deserialize(facts, RecordJson.Default.Record)!;

    /// <summary>References as compressed JSON; nothing for none.</summary>
    public static byte[] References(IReadOnlyList<Reference> references) =>
        references.Count == 0
            ? []
            : Squeeze(to => JsonSerializer.Serialize(to, [.. references], RecordJson.Default.ReferenceArray));

    /// <summary>References from compressed JSON.</summary>
    public static IReadOnlyList<Reference> References(byte[] bytes) =>
        bytes.Length == 0 ? [] : JsonSerializer.Deserialize(Expand(bytes), RecordJson.Default.ReferenceArray)!;

    /// <summary>What no key is: it tells that years follow behind the keys.</summary>
    private const ulong WithYears = ulong.MaxValue;

    /// <summary>
    /// The keys of references, packed: a mark, two keys of eight bytes for each reference, then its year in two, all
    /// little-endian.
    /// </summary>
    public static byte[] Keys(IReadOnlyList<Reference> references)
    {
        if (references.Count == 0)
            return [];
        var bytes = new byte[8 + references.Count * 18];
        var keys = bytes.AsSpan(8);
        var years = keys[(references.Count * 16)..];
        BinaryPrimitives.WriteUInt64LittleEndian(bytes, WithYears);
        for (var i = 0; i < references.Count; i++)
        {
            var of = ReferenceKeys.Of(references[i]);
            BinaryPrimitives.WriteUInt64LittleEndian(keys[(16 * i)..], of.Doi);
            BinaryPrimitives.WriteUInt64LittleEndian(keys[(16 * i + 8)..], of.Title);
            BinaryPrimitives.WriteInt16LittleEndian(years[(2 * i)..], (short)of.Year);
        }
        return bytes;
    }

    /// <summary>Unpacks keys of references, with or without years.</summary>
    public static ReferenceKeys[] Keys(ReadOnlySpan<byte> bytes)
    {
        if (bytes.IsEmpty)
            return [];
        var hasYears = BinaryPrimitives.ReadUInt64LittleEndian(bytes) == WithYears;
        var keys = hasYears ? bytes[8..] : bytes;
        var found = new ReferenceKeys[keys.Length / (hasYears ? 18 : 16)];
        for (var i = 0; i < found.Length; i++)
            found[i] = new(
                BinaryPrimitives.ReadUInt64LittleEndian(keys[(16 * i)..]),
                BinaryPrimitives.ReadUInt64LittleEndian(keys[(16 * i + 8)..]),
                hasYears ? BinaryPrimitives.ReadInt16LittleEndian(keys[(16 * found.Length + 2 * i)..]) : 0
            );
        return found;
    }

    /// <summary>Compresses the original XML; nothing for none.</summary>
    public static byte[] Source(XElement? xml)
    {
        if (xml is null)
            return [];
        return Squeeze(to =>
        {
            using var writer = XmlWriter.Create(
                to,
                new()
                {
                    OmitXmlDeclaration = true,
                    Encoding = Plain,
                    CheckCharacters = false,
                }
            );
            xml.WriteTo(writer);
        });
    }

    /// <summary>Compresses an original: XML, or the JSON of a custom entry.</summary>
    public static byte[] Source(string text) => Squeeze(to => to.Write(Encoding.UTF8.GetBytes(text)));

    /// <summary>The original XML.</summary>
    public static string Source(byte[] bytes) => Encoding.UTF8.GetString(Expand(bytes));

    /// <summary>Compresses a document as it came.</summary>
    public static byte[] Document(byte[] bytes) => Squeeze(to => to.Write(bytes));

    /// <summary>The document as it came.</summary>
    public static byte[] Opened(byte[] document) => Expand(document);

    /// <summary>Whether two compressed texts say the same, however they were compressed.</summary>
    public static bool IsSameSource(byte[] a, byte[] b) =>
        a.AsSpan().SequenceEqual(b) || Expand(a).AsSpan().SequenceEqual(Expand(b));

    private static UTF8Encoding Plain { get; } = new(encoderShouldEmitUTF8Identifier: false);

    /// <summary>
    /// zlib at its fastest: five times faster than Brotli at its own for texts of this size, and a fifth longer.
    /// </summary>
    private static byte[] Squeeze(Action<Stream> write)
    {
        using var to = new MemoryStream();
        using (var squeezed = new ZLibStream(to, CompressionLevel.Fastest, leaveOpen: true))
            write(squeezed);
        return to.ToArray();
    }

    private static byte[] Expand(byte[] bytes)
    {
        if (bytes.Length == 0)
            return [];
        // Older stores hold Brotli; no stream of theirs begins like one of zlib (RFC 1950), whose first byte would tell
        // of blocks above a megabyte.
        const byte ZLib = 0x78;
        using Stream from =
            bytes[0] == ZLib
                ? new ZLibStream(new MemoryStream(bytes), CompressionMode.Decompress)
                : new BrotliStream(new MemoryStream(bytes), CompressionMode.Decompress);
        using var to = new MemoryStream();
        from.CopyTo(to);
        return to.ToArray();
    }
}

// What follows from other fields is not written down.
[JsonSourceGenerationOptions(
    DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingDefault,
    IgnoreReadOnlyProperties = true
)]
[JsonSerializable(typeof(Record))]
[JsonSerializable(typeof(Reference[]))]
internal sealed partial class RecordJson : JsonSerializerContext;
