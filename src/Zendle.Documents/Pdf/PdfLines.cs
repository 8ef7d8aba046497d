using System.Text;
using UglyToad.PdfPig.Content;
using Zendle.Core.FullText;

namespace Zendle.Documents.Pdf;

/// <summary>A line of a page. Behind a number in the margin it has an own beginning.</summary>
internal readonly record struct PdfLine(
    string Text,
    double Size,
    bool Bold,
    double Left,
    double Right,
    double Base,
    int OwnAt,
    double OwnLeft,
    string? Numbers
)
{
    public PlacedLine Placed(int page, bool isNumbered) => Placed(Text, page, isNumbered);

    /// <summary>The same with its raised numbers in brackets.</summary>
    public PlacedLine WithNumbers(int page, bool isNumbered) => Placed(Numbers ?? Text, page, isNumbered);

    private PlacedLine Placed(string text, int page, bool isNumbered) =>
        isNumbered && OwnAt > 0
            ? new(text[OwnAt..].TrimStart(), page, OwnLeft, Right, Base, Size, Bold)
            : new(text, page, Left, Right, Base, Size, Bold);
}

/// <summary>Puts the letters of a page together to lines.</summary>
internal static class PdfLines
{
    private const int LongestLineNumber = 5;
    private const double FurthestWithinWords = 0.8;

    /// <summary>
    /// The lines of a page as its content draws them: letters that go on at one height are one line, a wide step apart
    /// a space.
    /// </summary>
    public static IEnumerable<PdfLine> Of(Page page)
    {
        var text = new StringBuilder();
        var at = new Drawn(double.NaN, 0, 0, 0, false, 0, 0);
        foreach (var letter in page.Letters)
        {
            if (letter.Value.Length == 0)
                continue;
            var start = letter.StartBaseLine;
            if (
                text.Length > 0
                && start.X >= at.Right - (letter.PointSize * 0.4)
                && start.X <= at.Right + letter.PointSize
                && RaisedText.Is(start.Y - at.Base, letter.PointSize, at.Size)
            )
            {
                RaisedText.Add(text, Written(letter));
                at = at with { Right = letter.EndBaseLine.X };
                continue;
            }
            var newLine =
                double.IsNaN(at.Base)
                || Math.Abs(start.Y - at.Base) > Math.Max(2, letter.PointSize * 0.5)
                || start.X < at.Right - letter.PointSize * 4
                || start.X > at.Right + letter.PointSize * 6;
            if (newLine)
            {
                if (Finish(text, at) is { } line)
                    yield return line;
                text.Clear();
                at = new(start.Y, start.X, start.X, letter.PointSize, IsBold(letter), 0, 0);
            }
            else if (
                at.OwnAt == 0
                && text.Length is > 0 and <= LongestLineNumber
                && start.X > at.Right + letter.PointSize * FurthestWithinWords
                && IsNumber(text)
            )
            {
                text.Append(' ');
                at = at with { OwnAt = text.Length, OwnLeft = start.X, Size = 0 };
            }
            else if (start.X > at.Right + letter.PointSize * 0.16 && text.Length > 0 && text[^1] != ' ')
                text.Append(' ');
            text.Append(Written(letter));
            at = at with { Right = letter.EndBaseLine.X, Size = Math.Max(at.Size, letter.PointSize) };
        }
        if (Finish(text, at) is { } last)
            yield return last;
    }

    private static string Written(Letter letter) =>
        string.IsNullOrWhiteSpace(letter.Value) ? " " : RaisedText.Plain(letter.Value);

    private static bool IsBold(Letter letter) =>
        letter.FontName?.Contains("Bold", StringComparison.OrdinalIgnoreCase) == true;

    private static bool IsNumber(StringBuilder text)
    {
        for (var i = 0; i < text.Length; i++)
            if (!char.IsAsciiDigit(text[i]))
                return false;
        return true;
    }

    /// <summary>How far a line is drawn.</summary>
    private readonly record struct Drawn(
        double Base,
        double Right,
        double Left,
        double Size,
        bool Bold,
        int OwnAt,
        double OwnLeft
    );

    private static PdfLine? Finish(StringBuilder text, Drawn at)
    {
        var line = text.ToString().TrimEnd();
        var blanks = line.Length - line.TrimStart().Length;
        return line.Length == blanks
            ? null
            : new PdfLine(
                RaisedText.Words(line[blanks..]),
                at.Size,
                at.Bold,
                at.Left,
                at.Right,
                at.Base,
                at.OwnAt > blanks && at.OwnAt < line.Length ? at.OwnAt - blanks : 0,
                at.OwnLeft,
                RaisedText.WithNumbers(line[blanks..])
            );
    }
}
