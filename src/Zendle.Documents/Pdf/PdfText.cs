using System.Diagnostics;
using System.Text;
using System.Text.RegularExpressions;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Exceptions;
using Zendle.Core.FullText;
using Zendle.Core.Text;

namespace Zendle.Documents.Pdf;

/// <summary>Reads a PDF (ISO 32000-1) through to its end and says what stands in it.</summary>
public static partial class PdfText
{
    private const int FirstPages = 3;
    private const int MostHeadings = 200;
    private const int FewestLetters = 40;
    private const int LongestLineNumber = 5;
    private const double FurthestWithinWords = 0.8;

    /// <summary>A line of a page. Behind a number in the margin it has an own beginning.</summary>
    private readonly record struct Line(
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

    /// <summary>Reads the facts of a document.</summary>
    /// <param name="bytes">The whole file.</param>
    /// <param name="limits">When to give up.</param>
    /// <exception cref="DocumentFaultException">The file is no readable PDF.</exception>
    public static DocumentFacts Read(byte[] bytes, DocumentLimits limits)
    {
        CheckEnds(bytes);
        var watch = Stopwatch.StartNew();
        try
        {
            using var document = PdfDocument.Open(
                bytes,
                new ParsingOptions { UseLenientParsing = true, SkipMissingFonts = true }
            );
            if (document.NumberOfPages > limits.Pages)
                throw new DocumentFaultException(
                    DocumentFault.TooManyPages,
                    $"The file has {document.NumberOfPages:N0} pages; at most {limits.Pages:N0} are taken."
                );
            if (document.NumberOfPages == 0)
                throw Damaged(null);
            if (PdfScripts.In(document))
                throw new DocumentFaultException(
                    DocumentFault.Scripted,
                    "The file contains a script, or starts a program; it was refused."
                );
            return Read(document, limits, watch);
        }
        // A password for its owner alone keeps nobody from reading (ISO 32000-1, 7.6.3.1); only one that opening asks
        // for does.
        catch (PdfDocumentEncryptedException e)
        {
            throw new DocumentFaultException(DocumentFault.Encrypted, Encrypted().Message, e);
        }
        catch (Exception e) when (e is not (DocumentFaultException or OutOfMemoryException))
        {
            throw Damaged(e);
        }
    }

    private static DocumentFaultException Encrypted() => new(DocumentFault.Encrypted, "The file asks for a password.");

    private static DocumentFaultException Damaged(Exception? inner) =>
        new(DocumentFault.Damaged, "The file is cut off or broken: it does not parse to its end.", inner);

    /// <summary>
    /// A PDF begins with its version and ends with a mark; one without the mark was cut off on its way (ISO 32000-1,
    /// 7.5.5).
    /// </summary>
    private static void CheckEnds(byte[] bytes)
    {
        if (bytes.Length == 0)
            throw new DocumentFaultException(DocumentFault.Empty, "The file is empty.");
        if (bytes.AsSpan(0, Math.Min(1024, bytes.Length)).IndexOf("%PDF-"u8) < 0)
            throw new DocumentFaultException(DocumentFault.NotADocument, "The file is no PDF.");
        // Behind the mark anything may stand that a server or a mail put there, but no further part of the file: then
        // an earlier mark was found.
        var end = bytes.AsSpan().LastIndexOf("%%EOF"u8);
        if (end < 0 || HoldsObjects(bytes.AsSpan(end)))
            throw Damaged(null);
    }

    private static bool HoldsObjects(ReadOnlySpan<byte> rest)
    {
        for (var at = rest.IndexOf(" obj"u8); at >= 0; )
        {
            if (
                at >= 3
                && char.IsAsciiDigit((char)rest[at - 1])
                && rest[at - 2] == ' '
                && char.IsAsciiDigit((char)rest[at - 3])
            )
                return true;
            var next = rest[(at + 1)..].IndexOf(" obj"u8);
            at = next < 0 ? -1 : at + 1 + next;
        }
        return false;
    }

    private static DocumentFacts Read(PdfDocument document, DocumentLimits limits, Stopwatch watch)
    {
        var (first, all, words, letters, wide) = (new List<DocumentLine>(), new List<(Line Line, int Page)>(), 0, 0, 0);
        var (headings, sizes, numbered, lastNumber) = (
            new List<(Line Line, int Page)>(),
            new Dictionary<int, int>(),
            0,
            0
        );
        foreach (var page in document.GetPages())
        {
            if (watch.Elapsed > limits.Time)
                throw new DocumentFaultException(
                    DocumentFault.TooSlow,
                    $"Reading the file took longer than {limits.Time.TotalSeconds:0} seconds."
                );
            letters += page.Letters.Count;
            if (page.Letters.Count > limits.LettersOnPage)
                throw new DocumentFaultException(
                    DocumentFault.TooHeavy,
                    $"One page of the file has more than {limits.LettersOnPage:N0} letters; it was refused."
                );
            var lines = Lines(page).ToArray();
            var heads = HeadsOfTables(lines);
            foreach (var line in lines)
            {
                if (page.Number <= FirstPages)
                    first.Add(new(line.Text, page.Number, Math.Round(line.Size, 1), line.Bold));
                all.Add((line, page.Number));
                words += 1 + line.Text.Count(c => c == ' ');
                var size = (int)Math.Round(line.Size * 2);
                sizes[size] = sizes.GetValueOrDefault(size) + line.Text.Length;
                if (line.Text.Length is > 2 and < 90 && headings.Count < 5_000 && !heads.Contains(line))
                    headings.Add((line, page.Number));
                // A manuscript's lines count on, from one to the next.
                var space = line.Text.IndexOf(' ');
                if (space is > 0 and < 5 && int.TryParse(line.Text.AsSpan(0, space), out var n))
                {
                    if (n == lastNumber + 1)
                        numbered++;
                    lastNumber = n;
                }
            }
            if (page.Width > page.Height)
                wide++;
        }
        if (letters < FewestLetters)
            throw new DocumentFaultException(
                DocumentFault.NoLetters,
                "Its pages are pictures without letters; it cannot be checked or searched.",
                pages: document.NumberOfPages
            );
        // A long list of references may hold more letters than the text: the body is the largest of the common sizes.
        var most = sizes.Values.Max();
        var body = sizes.Where(s => s.Value * 2 >= most).Max(s => s.Key) / 2.0;
        var isNumbered = numbered >= 15;
        var ordered = ReadingOrder.Of([.. all.Select(l => l.Line.Placed(l.Page, isNumbered))]);
        var lists = ReferenceSection.Read(ordered);
        var citations = CitingSentences.In(ordered, lists);
        // Where a numbered list is cited by no number on the line, the numbers above it are meant.
        if (citations.Count == 0 && lists.IsNumbered)
        {
            var from = FirstOfBody(all);
            var raised = ReadingOrder.Of([
                .. all.Select(
                    (l, i) => i < from ? l.Line.Placed(l.Page, isNumbered) : l.Line.WithNumbers(l.Page, isNumbered)
                ),
            ]);
            citations = CitingSentences.In(raised, ReferenceSection.Read(raised));
        }
        return new()
        {
            Pages = document.NumberOfPages,
            Text = RunningText.Of(ordered, lists),
            Lines = first,
            BodySize = body,
            IsLandscape = wide * 2 > document.NumberOfPages,
            WordCount = words,
            LineNumbers = isNumbered,
            References = lists.Entries,
            Citations = citations,
            Headings =
            [
                .. headings
                    .Where(h => IsHeading(h.Line, body))
                    .Select(h => new DocumentHeading(WithoutNumber(h.Line.Text, isNumbered), h.Page))
                    .Where(h => h.Text.Length > 2)
                    .Take(MostHeadings),
            ],
        };
    }

    /// <summary>
    /// Where the text begins behind the people, whose names have raised numbers, too: at its abstract or introduction; at its
    /// first line where neither is headed on the first page.
    /// </summary>
    private static int FirstOfBody(List<(Line Line, int Page)> lines) =>
        Math.Max(0, lines.FindIndex(l => l.Page == 1 && BodyHead().IsMatch(l.Line.Text)));

    [GeneratedRegex(
        @"^\W*(?:\d{1,2}\W+)?(?:abstract|summary|introduction|background)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex BodyHead();

    /// <summary>Bold words at one height, three and more of them: the head of a table, whose cells head no section.</summary>
    private static HashSet<Line> HeadsOfTables(Line[] lines) =>
        [
            .. lines
                .Where(l => l.Bold)
                .GroupBy(l => (Math.Round(l.Base), l.Size))
                .Where(g => g.Count() > 2)
                .SelectMany(g => g),
        ];

    private static bool IsHeading(Line line, double body) =>
        line.Size >= body + 0.9
        && line.Size < body * 1.35
        && line.Bold
        && char.IsLetter(line.Text[0])
        && !line.Text.EndsWith('.');

    private static string WithoutNumber(string text, bool numbered) =>
        numbered ? text.TrimStart([.. "0123456789 "]) : text;

    /// <summary>
    /// The lines of a page as its content draws them: letters that go on at one height are one line, a wide step apart
    /// a space.
    /// </summary>
    private static IEnumerable<Line> Lines(Page page)
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

    private static Line? Finish(StringBuilder text, Drawn at)
    {
        var line = text.ToString().TrimEnd();
        var blanks = line.Length - line.TrimStart().Length;
        return line.Length == blanks
            ? null
            : new Line(
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
