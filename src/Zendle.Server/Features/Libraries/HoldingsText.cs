using System.Text;
using System.Text.Unicode;

namespace Zendle.Server.Features.Libraries;

/// <summary>Opens files of holdings whatever they are encoded in.</summary>
internal static class HoldingsText
{
    /// <summary>
    /// A reader of a file: by its byte order mark; else as UTF-8 where all of it is, as most are; else as Latin 1, in which
    /// older systems write. O(bytes).
    /// </summary>
    public static StreamReader Open(string path)
    {
        var file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.Read, 1 << 16);
        var isUtf8 = IsUtf8(file);
        file.Position = 0;
        return new(file, isUtf8 ? Encoding.UTF8 : Encoding.Latin1, detectEncodingFromByteOrderMarks: true, 1 << 16);
    }

    private static bool IsUtf8(FileStream file)
    {
        var buffer = new byte[1 << 16];
        var kept = 0;
        for (int n; (n = file.Read(buffer, kept, buffer.Length - kept)) > 0; )
        {
            var there = buffer.AsSpan(0, kept + n);
            // A letter may be cut at the end of what was read.
            var whole = there.Length;
            while (whole > 0 && there.Length - whole < 4 && !IsWhole(there[..whole]))
                whole--;
            if (!Utf8.IsValid(there[..whole]))
                return false;
            there[whole..].CopyTo(buffer);
            kept = there.Length - whole;
        }
        return kept == 0;
    }

    private static bool IsWhole(ReadOnlySpan<byte> bytes)
    {
        var start = bytes.Length - 1;
        while (start >= 0 && bytes.Length - start < 4 && (bytes[start] & 0xC0) == 0x80)
            start--;
        if (start < 0)
            return true;
        var first = bytes[start];
        var length =
            first < 0x80 ? 1
            : first >= 0xF0 ? 4
            : first >= 0xE0 ? 3
            : first >= 0xC0 ? 2
            : 1;
        return bytes.Length - start >= length;
    }
}
