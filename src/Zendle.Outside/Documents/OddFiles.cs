using System.Globalization;
using System.Text;
using SkiaSharp;

namespace Zendle.Outside.Documents;

/// <summary>
/// Files that are PDFs of a kind nobody wants: encrypted, scripted, without text, with thousands of pages.
/// </summary>
public static class OddFiles
{
    /// <summary>
    /// A PDF that asks for a password (ISO 32000-1, 7.6): its trailer names an encryption that no empty password opens.
    /// </summary>
    public static byte[] Encrypted() =>
        Written(
            [
                "<< /Type /Catalog /Pages 2 0 R >>",
                "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] >>",
                $"<< /Filter /Standard /V 1 /R 2 /Length 40 /P -64 /O <{new string('A', 64)}> /U <{new string('B', 64)}> >>",
            ],
            "/Encrypt 4 0 R /ID [<00112233445566778899AABBCCDDEEFF> <00112233445566778899AABBCCDDEEFF>]"
        );

    /// <summary>A PDF that runs a script when it is opened (ISO 32000-1, 12.6.4.16).</summary>
    public static byte[] Scripted() =>
        Written(
            [
                "<< /Type /Catalog /Pages 2 0 R /OpenAction << /S /JavaScript /JS (app.alert\\(1\\)) >> >>",
                "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] >>",
            ],
            ""
        );

    /// <summary>A scan: three pages that hold a grey picture each and no letter.</summary>
    public static byte[] Scanned() =>
        Drawn(
            3,
            canvas =>
            {
                using var grey = new SKPaint { Color = new SKColor(225, 225, 220) };
                canvas.DrawRect(60, 60, 475, 720, grey);
                for (var line = 0; line < 40; line++)
                    canvas.DrawRect(80, 90 + line * 16, 420 - line % 7 * 20, 5, grey);
            }
        );

    /// <summary>A PDF with so many empty pages.</summary>
    public static byte[] Pages(int count) => Drawn(count, _ => { });

    private static byte[] Drawn(int pages, Action<SKCanvas> draw)
    {
        using var to = new MemoryStream();
        using (var document = SKDocument.CreatePdf(to))
        {
            for (var i = 0; i < pages; i++)
            {
                draw(document.BeginPage(595, 842));
                document.EndPage();
            }
            document.Close();
        }
        return to.ToArray();
    }

    /// <summary>A small PDF with a cross-reference table, from the bodies of its objects.</summary>
    private static byte[] Written(string[] objects, string trailer)
    {
        var text = new StringBuilder("%PDF-1.4\n");
        var offsets = new List<int>();
        for (var i = 0; i < objects.Length; i++)
        {
            offsets.Add(text.Length);
            text.Append(CultureInfo.InvariantCulture, $"{i + 1} 0 obj\n{objects[i]}\nendobj\n");
        }
        var at = text.Length;
        text.Append(CultureInfo.InvariantCulture, $"xref\n0 {objects.Length + 1}\n0000000000 65535 f \n");
        foreach (var offset in offsets)
            text.Append(CultureInfo.InvariantCulture, $"{offset:D10} 00000 n \n");
        text.Append(
            CultureInfo.InvariantCulture,
            $"trailer\n<< /Size {objects.Length + 1} /Root 1 0 R {trailer} >>\nstartxref\n{at}\n%%EOF\n"
        );
        return Encoding.ASCII.GetBytes(text.ToString());
    }
}
