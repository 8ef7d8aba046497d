using System.IO.Compression;
using System.Runtime.InteropServices;
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

    /// <summary>Two keys for each reference, packed.</summary>
    public static byte[] ReferenceKeys(IReadOnlyList<Reference> references)
    {
        var keys = new ulong[references.Count * 2];
        for (var i = 0; i < references.Count; i++)
        {
            keys[2 * i] = MergeKeys.Doi(references[i].Doi);
            keys[2 * i + 1] = MergeKeys.TitleAndPerson(references[i].Title, references[i].FirstPerson);
        }
        return MemoryMarshal.AsBytes(keys.AsSpan()).ToArray();
    }

    /// <summary>Unpacks reference keys.</summary>
    public static ulong[] ReferenceKeys(byte[] bytes) => MemoryMarshal.Cast<byte, ulong>(bytes).ToArray();

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

    /// <summary>Compresses the original XML.</summary>
    public static byte[] Source(string xml) => Squeeze(to => to.Write(Encoding.UTF8.GetBytes(xml)));

    /// <summary>The original XML.</summary>
    public static string Source(byte[] bytes) => Encoding.UTF8.GetString(Expand(bytes));

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
