using System.Buffers;
using System.IO.Compression;
using System.Runtime.InteropServices;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>Turns records into bytes and back.</summary>
public static class RecordCodec
{
    /// <summary>The record without references, as UTF-8 JSON.</summary>
    public static byte[] Facts(Record record) => JsonSerializer.SerializeToUtf8Bytes(record with { References = [] }, RecordJson.Default.Record);

    /// <summary>A record from its facts; references are read apart by <see cref="References(byte[])"/>.</summary>
    public static Record Facts(byte[] facts) => JsonSerializer.Deserialize(facts, RecordJson.Default.Record)!;

    /// <summary>References as compressed JSON; nothing for none.</summary>
    public static byte[] References(IReadOnlyList<Reference> references) =>
        references.Count == 0 ? [] : Squeeze(JsonSerializer.SerializeToUtf8Bytes([.. references], RecordJson.Default.ReferenceArray));

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

    /// <summary>Compresses the original XML.</summary>
    public static byte[] Source(string xml) => Squeeze(Encoding.UTF8.GetBytes(xml));

    /// <summary>The original XML.</summary>
    public static string Source(byte[] bytes) => Encoding.UTF8.GetString(Expand(bytes));

    /// <summary>Brotli at its fastest, with a window no larger than the records it is for: setting up a large one takes longer than squeezing one of them.</summary>
    private static byte[] Squeeze(byte[] bytes)
    {
        const int Quality = 1, Window = 16;
        var room = ArrayPool<byte>.Shared.Rent(BrotliEncoder.GetMaxCompressedLength(bytes.Length));
        try
        {
            return BrotliEncoder.TryCompress(bytes, room, out var length, Quality, Window) ? room[..length] : throw new InvalidOperationException("A record could not be compressed.");
        }
        finally { ArrayPool<byte>.Shared.Return(room); }
    }

    private static byte[] Expand(byte[] bytes)
    {
        using var brotli = new BrotliStream(new MemoryStream(bytes), CompressionMode.Decompress);
        using var to = new MemoryStream();
        brotli.CopyTo(to);
        return to.ToArray();
    }
}

[JsonSourceGenerationOptions(DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingDefault)]
[JsonSerializable(typeof(Record))]
[JsonSerializable(typeof(Reference[]))]
internal sealed partial class RecordJson : JsonSerializerContext;
