using System.Globalization;
using SkiaSharp;
using Zendle.Outside.World;

namespace Zendle.Outside.Documents;

/// <summary>
/// Draws a paper as PDF: A4 pages, its running text, one table, one figure, its references. The same paper gives the
/// same bytes.
/// </summary>
public sealed class PaperPrinter : IDisposable
{
    private const float Width = 595,
        Height = 842;
    private static readonly DateTime Made = new(2026, 1, 1, 0, 0, 0, DateTimeKind.Utc);

    private readonly SKTypeface plain,
        bold,
        italic;
    private readonly Paper paper;
    private readonly SKDocument document;
    private readonly SKPaint ink = new() { Color = SKColors.Black, IsAntialias = true };
    private readonly bool typeset;
    private readonly float left,
        columnWidth,
        gap,
        top = 74,
        bottom = 780,
        size,
        lead;
    private SKCanvas canvas = null!;
    private int page,
        column,
        line;
    private float y;

    private PaperPrinter(Paper paper, SKDocument document)
    {
        (this.paper, this.document) = (paper, document);
        (plain, bold, italic) = (Face("Regular"), Face("Bold"), Face("Italic"));
        typeset = paper.Look == Look.Typeset;
        (left, columnWidth, gap) = typeset ? (50f, 238f, 19f) : (80f, 440f, 0f);
        (size, lead) = typeset ? (9.2f, 12f) : (11f, 22f);
    }

    /// <summary>A document to print into; close it when all is printed.</summary>
    internal static SKDocument Document(Stream to, string title, IEnumerable<Signature> people) =>
        SKDocument.CreatePdf(
            to,
            new SKDocumentPdfMetadata
            {
                Title = title,
                Author = string.Join("; ", people.Take(6).Select(p => $"{p.Given} {p.Family}")),
                Creation = Made,
                Modified = Made,
                RasterDpi = 150,
                EncodingQuality = 101,
            }
        );

    /// <summary>Prints a paper.</summary>
    public static byte[] Print(Paper paper)
    {
        using var to = new MemoryStream();
        using (var document = Document(to, paper.Title, paper.Work.People))
        {
            Print(paper, document);
            document.Close();
        }
        return to.ToArray();
    }

    /// <summary>Prints a paper into a document, behind what is in it.</summary>
    internal static void Print(Paper paper, SKDocument document)
    {
        using var printer = new PaperPrinter(paper, document);
        printer.Print();
    }

    internal static SKTypeface Face(string style) =>
        SKTypeface.FromFile(Path.Combine(AppContext.BaseDirectory, "fonts", $"LiberationSans-{style}.ttf"))
        ?? throw new InvalidOperationException(
            "The font of the outside is missing; build it after the interface's packages are there."
        );

    private void Print()
    {
        if (paper.Look == Look.Manuscript)
            CoverSheet();
        else if (paper.HasTitlePage)
            TitlePage();
        NewPage();
        FrontMatter();
        foreach (var section in paper.Sections)
        {
            Heading(section.Heading);
            foreach (var paragraph in section.Paragraphs)
                Paragraph(paragraph, plain, size);
            if (section.Heading == "Methods")
                Table();
            if (section.Heading == "Results")
                Figure();
        }
        if (paper.References.Count > 0)
        {
            Heading("References");
            foreach (var reference in paper.References)
                Paragraph(reference, plain, size - 0.8f, hanging: true);
        }
        if (typeset && !paper.HasTitlePage)
            Appendix(paper.Work.LastPage - paper.Work.FirstPage + 1);
        document.EndPage();
    }

    /// <summary>The repository's sheet before a manuscript: what it is, whose it is, how to cite it.</summary>
    private void CoverSheet()
    {
        canvas = document.BeginPage(Width, Height);
        var w = paper.Work;
        var at = 120f;
        Text(Deposit.NameOf(w), bold, 15, 80, at);
        at += 30;
        Text("This is the accepted manuscript of a work that was later published.", plain, 11, 80, at);
        at += 36;
        foreach (var row in Lines(paper.Title, bold, 16, 440))
        {
            Text(row, bold, 16, 80, at);
            at += 21;
        }
        at += 8;
        foreach (
            var row in Lines(string.Join(", ", w.People.Take(12).Select(p => $"{p.Given} {p.Family}")), plain, 11, 440)
        )
        {
            Text(row, plain, 11, 80, at);
            at += 16;
        }
        at += 20;
        Text("Version: accepted manuscript, after peer review", plain, 11, 80, at);
        at += 18;
        if (w.Journal is { } journal)
            Text(
                string.Create(CultureInfo.InvariantCulture, $"Published in: {journal.Title} {w.Volume} ({w.Year})"),
                plain,
                11,
                80,
                at
            );
        at += 18;
        if (paper.Doi is { } doi)
            Text("DOI of the published version: " + doi, plain, 11, 80, at);
        at += 18;
        Text(
            "Deposited under the terms of the repository; the publisher's layout is not part of it.",
            plain,
            10,
            80,
            at
        );
        document.EndPage();
    }

    /// <summary>The front of a thesis, a report or a book: whose it is, where and when, and what it holds.</summary>
    private void TitlePage()
    {
        canvas = document.BeginPage(Width, Height);
        var w = paper.Work;
        var at = 150f;
        void Middle(string text, SKTypeface face, float points, float after)
        {
            foreach (var row in Lines(text, face, points, 420))
            {
                Centred(row, face, points, at);
                at += points * 1.35f;
            }
            at += after;
        }
        Middle(w.Type == "book" ? w.Publisher ?? "" : w.People[0].Institute, plain, 12, 60);
        Middle(paper.Title, bold, 21, 24);
        Middle(string.Join(", ", w.People.Select(p => $"{p.Given} {p.Family}")), plain, 13, 30);
        Middle(
            w.Type switch
            {
                "thesis" => "A thesis submitted for the degree of doctor",
                "report" => "Report",
                _ => w.Proceedings ?? "",
            },
            italic,
            12,
            40
        );
        Middle(w.Year.ToString(CultureInfo.InvariantCulture), plain, 12, 60);
        if (paper.Doi is { } doi)
            Middle("https://doi.org/" + doi, plain, 10, 30);
        if (w.Isbn is { } isbn)
            Middle("ISBN " + isbn, plain, 10, 30);
        Middle("Contents", bold, 12, 4);
        for (var i = 0; i < paper.Sections.Count; i++)
            Middle(string.Create(CultureInfo.InvariantCulture, $"{i + 1}  {paper.Sections[i].Heading}"), plain, 11, 0);
        document.EndPage();
    }

    private void Centred(string text, SKTypeface face, float points, float baseline)
    {
        using var font = new SKFont(face, points) { Subpixel = true };
        canvas.DrawText(text, Width / 2, baseline, SKTextAlign.Center, font, ink);
    }

    /// <summary>What stands above each page: the source with volume and pages, or the first person and the year.</summary>
    private static string RunningHead(Work w)
    {
        var pages = FormattableString.Invariant($"{w.Year}, {w.FirstPage}–{w.LastPage}");
        return w.Journal is { } journal ? FormattableString.Invariant($"{journal.Title} {w.Volume} ({w.Issue}) {pages}")
            : w.Book is { } book
                ? FormattableString.Invariant($"In: {book.Title}, {book.Year}, {w.FirstPage}–{w.LastPage}")
            : w.Proceedings is { } proceedings && w.Type != "book" ? $"{proceedings}, {pages}"
            : FormattableString.Invariant($"{w.People[0].Family}, {w.Year}");
    }

    private void NewPage()
    {
        if (page > 0)
            document.EndPage();
        page++;
        (column, line) = (0, 0);
        canvas = document.BeginPage(Width, Height);
        var w = paper.Work;
        if (typeset)
        {
            var number = paper.HasTitlePage ? page : w.FirstPage + page - 1;
            Text(RunningHead(w), italic, 8.5f, left, 46);
            Text(number.ToString(CultureInfo.InvariantCulture), plain, 8.5f, Width - 70, 46);
            canvas.DrawLine(left, 52, Width - left, 52, ink);
        }
        else
        {
            if (paper.Look == Look.Preprint)
                Text("PREPRINT — not peer reviewed" + (paper.Doi is { } doi ? " — " + doi : ""), bold, 9, left, 40);
            Text(page.ToString(CultureInfo.InvariantCulture), plain, 9, Width / 2, 812);
        }
        y = top;
    }

    private void FrontMatter()
    {
        var w = paper.Work;
        var wide = typeset ? columnWidth * 2 + gap : columnWidth;
        foreach (var row in Lines(paper.Title, bold, 17, wide))
        {
            Text(row, bold, 17, left, y + 12);
            y += 22;
        }
        y += 6;
        foreach (var row in Lines(string.Join(", ", w.People.Select(p => $"{p.Given} {p.Family}")), plain, 11, wide))
        {
            Text(row, plain, 11, left, y + 8);
            y += 15;
        }
        foreach (
            var row in Lines(string.Join("; ", w.People.Select(p => p.Institute).Distinct().Take(3)), italic, 9, wide)
        )
        {
            Text(row, italic, 9, left, y + 8);
            y += 13;
        }
        if (typeset)
        {
            if (!paper.HasTitlePage)
            {
                Text(paper.Dates, plain, 8.5f, left, y + 10);
                y += 14;
            }
            if (paper.Doi is { } doi)
            {
                Text("https://doi.org/" + doi, plain, 8.5f, left, y + 10);
                y += 14;
            }
            if (w.Journal is { Open: true })
            {
                Text("Open access under a Creative Commons Attribution licence.", plain, 8.5f, left, y + 10);
                y += 14;
            }
        }
        y += 8;
        if (w.Abstract.Length > 0)
        {
            Text("Abstract", bold, 10.5f, left, y + 10);
            y += 18;
            foreach (var row in Lines(w.Abstract, plain, 10, wide))
            {
                Text(row, plain, 10, left, y + 8);
                y += 14;
            }
            y += 4;
            foreach (var row in Lines("Keywords: " + string.Join("; ", w.Keywords), italic, 9.5f, wide))
            {
                Text(row, italic, 9.5f, left, y + 8);
                y += 13;
            }
        }
        y += 14;
        columnTop = y;
    }

    private float columnTop = 74;

    private void Need(float height)
    {
        if (y + height <= bottom)
            return;
        if (typeset && column == 0)
        {
            column = 1;
            y = page == 1 ? columnTop : top;
            return;
        }
        NewPage();
        columnTop = top;
    }

    private float X => left + column * (columnWidth + gap);

    private void Heading(string text)
    {
        y += typeset ? 6 : 10;
        Need(lead * 3);
        Text(text, bold, size + 1.5f, X, y + size);
        y += lead + 3;
    }

    private void Paragraph(string text, SKTypeface face, float points, bool hanging = false)
    {
        var first = true;
        foreach (var row in Lines(text, face, points, columnWidth - (hanging ? 10 : 0)))
        {
            Need(lead);
            if (!typeset)
                Text((++line).ToString(CultureInfo.InvariantCulture), plain, 8, left - 30, y + points);
            Text(row, face, points, X + (hanging && !first ? 10 : 0), y + points);
            y += lead;
            first = false;
        }
        y += typeset ? 4 : 2;
    }

    private void Table()
    {
        Need(lead * 7 + 20);
        Text("Table 1. Counts by season.", bold, size, X, y + size);
        y += lead + 2;
        Row("season", paper.Counts.Without, paper.Counts.With, bold);
        canvas.DrawLine(X, y + 1, X + columnWidth, y + 1, ink);
        foreach (var row in paper.Counts.Rows)
            Row(
                row.Season,
                row.Without.ToString(CultureInfo.InvariantCulture),
                row.With.ToString(CultureInfo.InvariantCulture),
                plain
            );
        canvas.DrawLine(X, y + 2, X + columnWidth, y + 2, ink);
        y += 12;

        void Row(string a, string b, string c, SKTypeface face)
        {
            Text(a, face, size, X, y + size);
            Text(b, face, size, X + columnWidth * 0.45f, y + size);
            Text(c, face, size, X + columnWidth * 0.75f, y + size);
            y += lead;
        }
    }

    /// <summary>
    /// Samples site by site, over as many pages as the record says the paper has: what is printed and what is cited are
    /// one length.
    /// </summary>
    private void Appendix(int pages)
    {
        if (page >= pages)
            return;
        NewPage();
        var figures = paper.Work.Study.Figures;
        var dice = new Dice(9).For("appendix", paper.Work.Study.Id);
        var heading = "Appendix. Samples by site (site/sample).";
        for (var row = 0; ; row++)
        {
            // A page is full when both columns are.
            if (y + lead > bottom && column == 1 && page == pages)
                return;
            Need(lead);
            if (y <= top + 1)
            {
                Text(heading, bold, size, X, y + size);
                y += lead + 2;
            }
            // When all samples are told they are told as counted again, for as long as there are pages.
            var (site, sample, count) = (
                row % figures.Sites + 1,
                row / figures.Sites % figures.PerSite + 1,
                row / figures.Samples + 1
            );
            Text(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"site {site}/{sample}, count {count}: {dice.Between(0, 9)}"
                ),
                plain,
                size,
                X,
                y + size
            );
            y += lead;
        }
    }

    private void Figure()
    {
        Need(140);
        var most = paper.Counts.Rows.Max(r => Math.Max(r.Without, r.With));
        using var dark = new SKPaint { Color = new SKColor(60, 60, 60) };
        using var lit = new SKPaint { Color = new SKColor(190, 170, 110) };
        var slot = columnWidth / paper.Counts.Rows.Count;
        for (var i = 0; i < paper.Counts.Rows.Count; i++)
        {
            var row = paper.Counts.Rows[i];
            var (a, b) = (90f * row.Without / most, 90f * row.With / most);
            canvas.DrawRect(X + i * slot + slot * 0.15f, y + 96 - a, slot * 0.3f, a, dark);
            canvas.DrawRect(X + i * slot + slot * 0.5f, y + 96 - b, slot * 0.3f, b, lit);
            Text(row.Season, plain, 7.5f, X + i * slot + slot * 0.3f, y + 106);
        }
        canvas.DrawLine(X, y + 96, X + columnWidth, y + 96, ink);
        y += 112;
        Paragraph(
            $"Figure 1. Counts {paper.Counts.Without} (dark bars) and {paper.Counts.With} (pale bars) by season.",
            italic,
            size - 0.6f
        );
    }

    private void Text(string text, SKTypeface face, float points, float x, float baseline)
    {
        using var font = new SKFont(face, points) { Subpixel = true };
        canvas.DrawText(text, x, baseline, SKTextAlign.Left, font, ink);
    }

    internal static List<string> Lines(string text, SKTypeface face, float points, float width)
    {
        using var font = new SKFont(face, points) { Subpixel = true };
        var (lines, line) = (new List<string>(), "");
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var longer = line.Length == 0 ? word : line + " " + word;
            if (line.Length > 0 && font.MeasureText(longer) > width)
            {
                lines.Add(line);
                line = word;
            }
            else
                line = longer;
        }
        if (line.Length > 0)
            lines.Add(line);
        return lines;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        ink.Dispose();
        plain.Dispose();
        bold.Dispose();
        italic.Dispose();
    }
}
