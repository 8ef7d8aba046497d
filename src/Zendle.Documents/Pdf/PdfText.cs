using System.Diagnostics;
using System.Text.RegularExpressions;
using UglyToad.PdfPig;
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
    private const int FewestNumbered = 15;

    /// <summary>In a manuscript with numbered lines at least one line in so many has a number.</summary>
    private const int NumberedShare = 3;

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
            using var document = PdfPage.Open(bytes);
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
            return Read(PdfPage.All(bytes, document, limits, watch));
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
        new(DocumentFault.Damaged, "The file is cut off or damaged: it cannot be read to its end.", inner);

    /// <summary>
    /// A PDF begins with its version and ends with a mark; one without the mark was cut off on its way (ISO 32000-1,
    /// 7.5.5).
    /// </summary>
    private static void CheckEnds(byte[] bytes)
    {
        if (bytes.Length == 0)
            throw new DocumentFaultException(DocumentFault.Empty, "The file is empty.");
        if (bytes.AsSpan(0, Math.Min(1024, bytes.Length)).IndexOf("%PDF-"u8) < 0)
            throw new DocumentFaultException(DocumentFault.NotADocument, "The file is not a PDF.");
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

    private static DocumentFacts Read(IReadOnlyList<PdfPage> pages)
    {
        var (first, all, words, letters, wide) = (
            new List<DocumentLine>(),
            new List<(PdfLine Line, int Page)>(),
            0,
            0,
            0
        );
        var (headings, sizes, numbered, lastNumber) = (
            new List<(PdfLine Line, int Page)>(),
            new Dictionary<int, int>(),
            0,
            0
        );
        foreach (var page in pages)
        {
            letters += page.Letters;
            var heads = HeadsOfTables(page.Lines);
            foreach (var line in page.Lines)
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
            if (page.IsWide)
                wide++;
        }
        if (letters < FewestLetters)
            throw new DocumentFaultException(
                DocumentFault.NoLetters,
                "Its pages are images without text; it cannot be checked or searched.",
                pages: pages.Count
            );
        // A long list of references may hold more letters than the text: the body is the largest of the common sizes.
        var most = sizes.Values.Max();
        var body = sizes.Where(s => s.Value * 2 >= most).Max(s => s.Key) / 2.0;
        // A list numbers its own entries; a manuscript most of what is in it.
        var isNumbered = numbered >= FewestNumbered && numbered * NumberedShare >= all.Count;
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
            Pages = pages.Count,
            Text = RunningText.Of(ordered, lists),
            Lines = first,
            BodySize = body,
            IsLandscape = wide * 2 > pages.Count,
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
    private static int FirstOfBody(List<(PdfLine Line, int Page)> lines) =>
        Math.Max(0, lines.FindIndex(l => l.Page == 1 && BodyHead().IsMatch(l.Line.Text)));

    [GeneratedRegex(
        @"^\W*(?:\d{1,2}\W+)?(?:abstract|summary|introduction|background)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex BodyHead();

    /// <summary>Bold words at one height, three and more of them: the head of a table, whose cells head no section.</summary>
    private static HashSet<PdfLine> HeadsOfTables(IReadOnlyList<PdfLine> lines) =>
        [
            .. lines
                .Where(l => l.Bold)
                .GroupBy(l => (Math.Round(l.Base), l.Size))
                .Where(g => g.Count() > 2)
                .SelectMany(g => g),
        ];

    private static bool IsHeading(PdfLine line, double body) =>
        line.Size >= body + 0.9
        && line.Size < body * 1.35
        && line.Bold
        && char.IsLetter(line.Text[0])
        && !line.Text.EndsWith('.');

    private static string WithoutNumber(string text, bool numbered) =>
        numbered ? text.TrimStart([.. "0123456789 "]) : text;
}
