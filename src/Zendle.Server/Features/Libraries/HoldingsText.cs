using System.Text;

namespace Zendle.Server.Features.Libraries;

/// <summary>Opens files of holdings whatever they are encoded in.</summary>
internal static class HoldingsText
{
    private const int AtOnce = 1 << 16;
    private static readonly UTF8Encoding StrictUtf8 = new(false, throwOnInvalidBytes: true);

    static HoldingsText() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>
    /// A reader of a file: by its byte order mark; else as UTF-8 where all of it is, as most are; else as Windows-1252, in which
    /// older systems write. O(bytes).
    /// </summary>
    public static StreamReader Open(string path)
    {
        var encoding = IsUtf8(path) ? Encoding.UTF8 : Encoding.GetEncoding(1252);
        return new(path, encoding, detectEncodingFromByteOrderMarks: true, AtOnce);
    }

    private static bool IsUtf8(string path)
    {
        using var reader = new StreamReader(path, StrictUtf8, detectEncodingFromByteOrderMarks: false, AtOnce);
        var letters = new char[AtOnce];
        try
        {
            while (reader.Read(letters) > 0) { }
            return true;
        }
        catch (DecoderFallbackException)
        {
            return false;
        }
    }
}
