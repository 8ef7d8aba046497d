using System.Globalization;
using System.IO.Compression;
using System.Text;

namespace Zendle.Server.Tests;

/// <summary>
/// Documents that are made to end or to exhaust whoever reads them; small on disk, all of them with a page of honest
/// text where that is possible.
/// </summary>
internal static class HostilePdfs
{
    /// <summary>
    /// A PDF of numbered objects, the first the catalog; each is text or, with <c>stream</c>, raw bytes behind a
    /// dictionary.
    /// </summary>
    public static byte[] Of(params (string Text, byte[]? Stream)[] objects)
    {
        var to = new MemoryStream();
        void Put(string text) => to.Write(Encoding.Latin1.GetBytes(text));
        Put("%PDF-1.7\n");
        var offsets = new List<long>();
        for (var i = 0; i < objects.Length; i++)
        {
            offsets.Add(to.Position);
            Put(string.Create(CultureInfo.InvariantCulture, $"{i + 1} 0 obj\n"));
            if (objects[i].Stream is { } stream)
            {
                Put(
                    objects[i]
                        .Text.Replace(
                            "LENGTH",
                            stream.Length.ToString(CultureInfo.InvariantCulture),
                            StringComparison.Ordinal
                        )
                );
                Put("\nstream\n");
                to.Write(stream);
                Put("\nendstream");
            }
            else
                Put(objects[i].Text);
            Put("\nendobj\n");
        }
        var at = to.Position;
        Put(string.Create(CultureInfo.InvariantCulture, $"xref\n0 {objects.Length + 1}\n0000000000 65535 f \n"));
        foreach (var offset in offsets)
            Put(string.Create(CultureInfo.InvariantCulture, $"{offset:0000000000} 00000 n \n"));
        Put(
            string.Create(
                CultureInfo.InvariantCulture,
                $"trailer\n<< /Size {objects.Length + 1} /Root 1 0 R >>\nstartxref\n{at}\n%%EOF\n"
            )
        );
        return to.ToArray();
    }

    private const string Font = "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>";

    private static byte[] Text(int lines = 12) =>
        Encoding.Latin1.GetBytes(
            "BT /F1 12 Tf 40 750 Td 14 TL "
                + string.Concat(
                    Enumerable
                        .Range(1, lines)
                        .Select(i => $"(A line of text about moths under lamps, number {i}.) Tj T* ")
                )
                + "ET"
        );

    private static byte[] Deflated(long bytes, byte value)
    {
        var to = new MemoryStream();
        using (var zip = new ZLibStream(to, CompressionLevel.SmallestSize, leaveOpen: true))
        {
            var chunk = new byte[1 << 20];
            Array.Fill(chunk, value);
            for (var left = bytes; left > 0; left -= chunk.Length)
                zip.Write(chunk, 0, (int)Math.Min(left, chunk.Length));
        }
        return to.ToArray();
    }

    /// <summary>An honest document of one page, with more in its catalog or page when asked.</summary>
    public static byte[] Honest(string inCatalog = "", string onPage = "", params (string, byte[]?)[] more) =>
        Of([
            ($"<< /Type /Catalog /Pages 2 0 R {inCatalog} >>", null),
            ("<< /Type /Pages /Kids [3 0 R] /Count 1 >>", null),
            (
                $"<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> {onPage} >>",
                null
            ),
            ("<< /Length LENGTH >>", Text()),
            (Font, null),
            .. more,
        ]);

    /// <summary>A page tree whose list of pages, an object of its own, names the tree itself.</summary>
    public static byte[] TreeInItself() =>
        Of(
            ("<< /Type /Catalog /Pages 2 0 R >>", null),
            ("<< /Type /Pages /Kids 3 0 R /Count 1 >>", null),
            ("[2 0 R]", null)
        );

    /// <summary>
    /// Two nodes of the page tree that hold each other, one of them through an object that is only a reference.
    /// </summary>
    public static byte[] TreesInEachOther() =>
        Of(
            ("<< /Type /Catalog /Pages 2 0 R >>", null),
            ("<< /Type /Pages /Kids [3 0 R] /Count 1 >>", null),
            ("<< /Type /Pages /Kids 4 0 R /Count 1 /Parent 2 0 R >>", null),
            ("[5 0 R]", null),
            ("2 0 R", null)
        );

    /// <summary>Two forms that draw each other.</summary>
    public static byte[] FormsThatCallEachOther() =>
        Of(
            ("<< /Type /Catalog /Pages 2 0 R >>", null),
            ("<< /Type /Pages /Kids [3 0 R] /Count 1 >>", null),
            (
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 4 0 R /Resources << /XObject << /A 5 0 R >> >> >>",
                null
            ),
            ("<< /Length LENGTH >>", "/A Do"u8.ToArray()),
            (
                "<< /Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /B 6 0 R >> >> /Length LENGTH >>",
                "/B Do"u8.ToArray()
            ),
            (
                "<< /Type /XObject /Subtype /Form /BBox [0 0 9 9] /Resources << /XObject << /A 5 0 R >> >> /Length LENGTH >>",
                "/A Do"u8.ToArray()
            )
        );

    /// <summary>A chain of forms, each drawing the next so many times.</summary>
    public static byte[] ChainOfForms(int length, int each = 1)
    {
        var objects = new List<(string, byte[]?)>
        {
            ("<< /Type /Catalog /Pages 2 0 R >>", null),
            ("<< /Type /Pages /Kids [3 0 R] /Count 1 >>", null),
            (
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 4 0 R /Resources << /XObject << /N 5 0 R >> >> >>",
                null
            ),
            ("<< /Length LENGTH >>", "/N Do"u8.ToArray()),
        };
        var draw = Encoding.ASCII.GetBytes(string.Join(' ', Enumerable.Repeat("/N Do", each)));
        for (var i = 0; i < length; i++)
            objects.Add(
                (
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"<< /Type /XObject /Subtype /Form /BBox [0 0 9 9] "
                            + $"{(i + 1 < length ? $"/Resources << /XObject << /N {6 + i} 0 R >> >>" : "")} "
                            + $"/Length LENGTH >>"
                    ),
                    i + 1 < length ? draw : "q Q"u8.ToArray()
                )
            );
        return Of([.. objects]);
    }

    /// <summary>A font that gives one width to two thousand million characters.</summary>
    public static byte[] WidthsWithoutEnd() =>
        Of(
            ("<< /Type /Catalog /Pages 2 0 R >>", null),
            ("<< /Type /Pages /Kids [3 0 R] /Count 1 >>", null),
            (
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>",
                null
            ),
            ("<< /Length LENGTH >>", "BT /F1 12 Tf <0041> Tj ET"u8.ToArray()),
            ("<< /Type /Font /Subtype /Type0 /BaseFont /X /Encoding /Identity-H /DescendantFonts [6 0 R] >>", null),
            (
                "<< /Type /Font /Subtype /CIDFontType2 /BaseFont /X /CIDSystemInfo << /Registry (Adobe) "
                    + "/Ordering (Identity) /Supplement 0 >> /W [0 2147483647 500] /FontDescriptor 7 0 R >>",
                null
            ),
            (
                "<< /Type /FontDescriptor /FontName /X /Flags 4 /FontBBox [0 0 1 1] /ItalicAngle 0 /Ascent 1 "
                    + "/Descent 0 /CapHeight 1 /StemV 1 >>",
                null
            )
        );

    /// <summary>One page with so much text.</summary>
    public static byte[] TextWithoutEnd(int megabytes)
    {
        var line =
            "(A line of text about moths under lamps and under none, and so on for ever and ever.) Tj T* "u8.ToArray();
        var to = new MemoryStream();
        using (var zip = new ZLibStream(to, CompressionLevel.Fastest, leaveOpen: true))
        {
            zip.Write("BT /F1 12 Tf 40 750 Td 14 TL "u8);
            for (var n = 0; n < megabytes * 1_000_000 / line.Length; n++)
                zip.Write(line);
            zip.Write("ET"u8);
        }
        return Of(
            ("<< /Type /Catalog /Pages 2 0 R >>", null),
            ("<< /Type /Pages /Kids [3 0 R] /Count 1 >>", null),
            (
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>",
                null
            ),
            ("<< /Length LENGTH /Filter /FlateDecode >>", to.ToArray()),
            (Font, null)
        );
    }

    /// <summary>A stream that unfolds to so many bytes.</summary>
    public static byte[] Bomb(long bytes) =>
        Of(
            ("<< /Type /Catalog /Pages 2 0 R >>", null),
            ("<< /Type /Pages /Kids [3 0 R] /Count 1 >>", null),
            (
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>",
                null
            ),
            ("<< /Length LENGTH /Filter /FlateDecode >>", Deflated(bytes, (byte)' ')),
            (Font, null)
        );
}
