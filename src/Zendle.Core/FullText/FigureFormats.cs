namespace Zendle.Core.FullText;

/// <summary>Pictures that are shown in texts: those that hold nothing but a picture.</summary>
public static class FigureFormats
{
    /// <summary>
    /// The media type of a picture by its first bytes (PNG, JPEG, GIF or WebP); null for anything else, whatever it is
    /// called. SVG is not among them: it may hold scripts and links.
    /// </summary>
    public static string? TypeOf(ReadOnlySpan<byte> file) =>
        file.StartsWith((ReadOnlySpan<byte>)[0x89, (byte)'P', (byte)'N', (byte)'G', 0x0D, 0x0A, 0x1A, 0x0A])
            ? "image/png"
        : file.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF]) ? "image/jpeg"
        : file.StartsWith("GIF87a"u8) || file.StartsWith("GIF89a"u8) ? "image/gif"
        : file.StartsWith("RIFF"u8) && file.Length > 12 && file[8..].StartsWith("WEBP"u8) ? "image/webp"
        : null;

    /// <summary>What the names of files of a media type end with, without a dot; its type is one of <see cref="TypeOf"/>.</summary>
    /// <exception cref="ArgumentOutOfRangeException">It is another type.</exception>
    public static string EndingOf(string mediaType) =>
        mediaType switch
        {
            "image/png" => "png",
            "image/jpeg" => "jpg",
            "image/gif" => "gif",
            "image/webp" => "webp",
            _ => throw new ArgumentOutOfRangeException(nameof(mediaType)),
        };
}
