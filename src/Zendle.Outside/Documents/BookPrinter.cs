using SkiaSharp;
using Zendle.Outside.World;

namespace Zendle.Outside.Documents;

/// <summary>Prints a whole book: title page, table of contents, and its chapters one after another.</summary>
public static class BookPrinter
{
    private const float Width = 595,
        Height = 842,
        Left = 70;

    /// <summary>Prints a book.</summary>
    /// <param name="book">The book.</param>
    /// <param name="chapters">Its chapters as printed, in order.</param>
    public static byte[] Print(Work book, IReadOnlyList<Paper> chapters)
    {
        using var to = new MemoryStream();
        using (var document = PaperPrinter.Document(to, book.Title, book.People))
        {
            Front(document, book, chapters);
            foreach (var chapter in chapters)
                PaperPrinter.Print(chapter, document);
            document.Close();
        }
        return to.ToArray();
    }

    private static void Front(SKDocument document, Work book, IReadOnlyList<Paper> chapters)
    {
        using var plain = PaperPrinter.Face("Regular");
        using var bold = PaperPrinter.Face("Bold");
        using var ink = new SKPaint { Color = SKColors.Black, IsAntialias = true };
        void Text(SKCanvas canvas, string text, SKTypeface face, float size, float x, float y)
        {
            using var font = new SKFont(face, size);
            canvas.DrawText(text, x, y, SKTextAlign.Left, font, ink);
        }
        var canvas = document.BeginPage(Width, Height);
        Text(canvas, book.Publisher ?? "", plain, 12, Left, 150);
        var y = 220f;
        foreach (var row in Rows(book.Title, 44))
        {
            Text(canvas, row, bold, 20, Left, y);
            y += 28;
        }
        foreach (var row in Rows(string.Join(", ", book.People.Select(p => $"{p.Given} {p.Family}")) + " (eds.)", 70))
        {
            Text(canvas, row, plain, 13, Left, y + 12);
            y += 18;
        }
        Text(canvas, FormattableString.Invariant($"{book.Year}"), plain, 12, Left, y + 40);
        document.EndPage();
        canvas = document.BeginPage(Width, Height);
        Text(canvas, "Contents", bold, 16, Left, 90);
        y = 130;
        foreach (var chapter in chapters)
        {
            foreach (var row in Rows(chapter.Title, 74))
            {
                Text(canvas, row, plain, 11, Left, y);
                y += 15;
            }
            Text(
                canvas,
                FormattableString.Invariant(
                    $"{string.Join(", ", chapter.Work.People.Take(3).Select(p => p.Family))}  {chapter.Work.FirstPage}"
                ),
                plain,
                10,
                Left + 14,
                y
            );
            y += 22;
            if (y > 780)
            {
                document.EndPage();
                canvas = document.BeginPage(Width, Height);
                y = 90;
            }
        }
        document.EndPage();
    }

    private static IEnumerable<string> Rows(string text, int letters)
    {
        var row = "";
        foreach (var word in text.Split(' '))
        {
            if (row.Length + word.Length + 1 > letters && row.Length > 0)
            {
                yield return row;
                row = "";
            }
            row += row.Length == 0 ? word : " " + word;
        }
        if (row.Length > 0)
            yield return row;
    }
}
