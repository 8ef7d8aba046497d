using System.Globalization;
using SkiaSharp;
using Zendle.Outside.World;

namespace Zendle.Outside.Documents;

/// <summary>
/// Documents that carry the title of a work and are not the work: a letter that cites it, a reply to it, the contents
/// of its issue, a review of it, an erratum, a supplement, the slides of a talk. No two are laid out alike.
/// </summary>
public static class LookAlikes
{
    /// <summary>All kinds there are.</summary>
    public static readonly string[] Kinds =
    [
        "letter",
        "reply",
        "contents",
        "book-review",
        "erratum",
        "supplement",
        "slides",
    ];

    /// <summary>Prints one.</summary>
    /// <param name="kind">One of <see cref="Kinds"/>.</param>
    /// <param name="work">The work whose title it carries.</param>
    /// <param name="works">All works, for its own authors, text and neighbours.</param>
    /// <param name="scenario">Words and sentences.</param>
    /// <param name="variant">Which of many layouts.</param>
    public static byte[] Print(string kind, Work work, IReadOnlyList<Work> works, Scenario scenario, int variant)
    {
        var dice = new Dice(31).For("look-alike " + kind, work.Id * 97 + variant);
        var other = works[(work.Id * 13 + variant * 7 + 5) % works.Count];
        if (other.Id == work.Id)
            other = works[(work.Id + 1) % works.Count];
        string[] prose = [.. Paper.Of(other, works, scenario, Look.Preprint).Sections.SelectMany(s => s.Paragraphs)];
        using var page = new Sheet(isWide: kind == "slides");
        switch (kind)
        {
            case "letter":
                Letter(page, dice, work, other, works, prose);
                break;
            case "reply":
                Reply(page, dice, work, other, prose);
                break;
            case "contents":
                Contents(page, dice, work, works);
                break;
            case "book-review":
                Review(page, dice, work, other, prose);
                break;
            case "erratum":
                Erratum(page, dice, work, prose);
                break;
            case "supplement":
                Supplement(page, dice, work, prose);
                break;
            case "slides":
                Slides(page, dice, work, prose);
                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(kind));
        }
        return page.Done();
    }

    private static string Names(Work w, int most = 12) =>
        string.Join(", ", w.People.Take(most).Select(p => $"{p.Given} {p.Family}"));

    private static string Cited(Work w)
    {
        var people = string.Join(", ", w.People.Take(6).Select(p => $"{p.Family}, {p.Given[..1]}."));
        var source = w.Journal?.Title ?? w.Book?.Title ?? w.Publisher ?? "Report";
        var pages = w.Journal is null ? "" : FormattableString.Invariant($" {w.Volume}, {w.FirstPage}–{w.LastPage}");
        var doi = w.Doi is null ? "" : $" https://doi.org/{w.Doi}";
        return string.Create(CultureInfo.InvariantCulture, $"{people} ({w.Year}). {w.Title}. {source}{pages}.{doi}");
    }

    /// <summary>A DOI of its own, the work's, or none: all three are seen.</summary>
    private static string? DoiOf(Dice dice, Work work) =>
        dice.Unit() switch
        {
            < 0.4 => null,
            < 0.7 => $"https://doi.org/10.5555/other.{work.Id}",
            _ => work.Doi is null ? null : $"https://doi.org/{work.Doi}",
        };

    private static void Letter(Sheet page, Dice dice, Work work, Work other, IReadOnlyList<Work> works, string[] prose)
    {
        if (dice.Unit() < 0.7)
            page.Line(
                dice.Unit() < 0.5 ? "Letters to the Editor" : "Correspondence",
                dice.Unit() < 0.5 ? 14 : 10,
                bold: true
            );
        page.Line(
            dice.Unit() < 0.5 ? "What lamps can and cannot tell" : $"On the counts of {other.Study.Things}",
            15,
            bold: true
        );
        page.Line(Names(other, 3), 11);
        page.Text(
            $"In their article “{work.Title}”, {Names(work, 3)} and others report a finding that deserves a second look. {prose[0]}",
            10
        );
        for (var i = 1; i < Math.Min(prose.Length, 8); i++)
            page.Text(prose[i], 10);
        page.Line("References", 11, bold: true);
        page.Text(Cited(work), 9);
        foreach (var cited in other.Cites.Take(4))
            page.Text(Cited(works[cited]), 9);
    }

    private static void Reply(Sheet page, Dice dice, Work work, Work other, string[] prose)
    {
        var by = dice.Unit() < 0.5 ? work : other;
        if (DoiOf(dice, work) is { } doi && doi.Contains("other", StringComparison.Ordinal))
            page.Line(doi, 8);
        page.Title(
            dice.Between(0, 4 - 1) switch
            {
                0 => $"Reply to {work.People[0].Family} et al.: “{work.Title}”",
                1 => $"Comment on “{work.Title}”",
                2 => $"Response to: {work.Title}",
                _ => $"Re: {work.Title}",
            },
            dice.Between(13, 19 - 1)
        );
        page.Line(Names(by, 6), 11);
        for (var i = 0; i < Math.Min(prose.Length, 7); i++)
            page.Text(prose[i], 10);
        page.Line("References", 11, bold: true);
        page.Text(Cited(work), 9);
    }

    private static void Contents(Sheet page, Dice dice, Work work, IReadOnlyList<Work> works)
    {
        if (dice.Unit() < 0.7)
            page.Line($"{work.Journal?.Title ?? "Verge Papers"} {work.Volume}", 16, bold: true);
        if (dice.Unit() < 0.6)
            page.Line(dice.Unit() < 0.5 ? "Contents" : "In this issue", 13, bold: true);
        var (bold, dotted, large) = (dice.Unit() < 0.5, dice.Unit() < 0.4, dice.Unit() < 0.3);
        var place = dice.Between(0, 5 - 1);
        var number = 1;
        for (var i = 0; i < 5; i++)
        {
            var entry = i == place ? work : works[(work.Id + 3 + i * 11) % works.Count];
            page.Wrapped(dotted ? $"{entry.Title} ........ {number}" : entry.Title, large ? 12.5f : 10, bold);
            page.Line(
                dotted || dice.Unit() < 0.3
                    ? Names(entry, 6)
                    : string.Create(CultureInfo.InvariantCulture, $"{Names(entry, 6)}  {number}"),
                10
            );
            if (dice.Unit() < 0.5 && entry.Abstract.Length > 0)
                page.Text(entry.Abstract, 9);
            number += dice.Between(6, 19 - 1);
        }
        if (dice.Unit() < 0.5)
            page.Text(
                "Cover: a lit verge in late summer. The journal appears four times a year and is read by those "
                    + "who count what flies at night. Manuscripts are sent to the desk of the journal, with figures "
                    + "apart.",
                9
            );
    }

    private static void Review(Sheet page, Dice dice, Work work, Work other, string[] prose)
    {
        if (dice.Unit() < 0.7)
            page.Line(dice.Unit() < 0.5 ? "Book reviews" : "BOOK REVIEW", 12, bold: true);
        page.Title(work.Title, dice.Between(11, 17 - 1));
        page.Line($"By {Names(work, 4)}", 10);
        page.Line(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{work.Publisher ?? "Fjord & Daughters"}, {work.Year}. {dice.Between(120, 600 - 1)} pp. ISBN 978-3-16-148410-0"
            ),
            10
        );
        if (dice.Unit() < 0.6)
            page.Line($"Reviewed by {Names(other, 1)}", 10);
        for (var i = 0; i < Math.Min(prose.Length, 6); i++)
            page.Text(prose[i], 10);
        page.Line(Names(other, 1), 10);
    }

    private static void Erratum(Sheet page, Dice dice, Work work, string[] prose)
    {
        var label = dice.Between(0, 5 - 1) switch
        {
            0 => "Erratum",
            1 => "CORRECTION",
            2 => "Corrigendum",
            3 => "Author Correction",
            _ => "",
        };
        if (label.Length > 0)
            page.Line(label, dice.Between(9, 15 - 1), bold: dice.Unit() < 0.6);
        page.Title(
            label.Length > 0 && dice.Unit() < 0.6
                ? work.Title
                : $"{(dice.Unit() < 0.5 ? "Erratum to" : "Correction to")}: {work.Title}",
            dice.Between(13, 18 - 1)
        );
        page.Line(Names(work), 11);
        if (DoiOf(dice, work) is { } doi)
            page.Line(doi, 8);
        page.Text(
            $"In this article, published in {work.Year}, the counts of the second season were set in the "
                + "wrong column. The table should read as follows. The authors regret the error, which changes "
                + "no finding.",
            10
        );
        for (var i = 0; i < dice.Between(1, 4 - 1); i++)
            page.Text(prose[i % prose.Length], 10);
    }

    private static void Supplement(Sheet page, Dice dice, Work work, string[] prose)
    {
        var label = dice.Between(0, 4 - 1) switch
        {
            0 => "Supplementary Material",
            1 => "Supporting Information for",
            2 => "Electronic Supplementary Material",
            _ => "Appendix S1",
        };
        page.Line(label, dice.Between(9, 16 - 1), bold: dice.Unit() < 0.6);
        page.Title(work.Title, dice.Between(12, 18 - 1));
        page.Line(Names(work), 11);
        if (DoiOf(dice, work) is { } doi)
            page.Line(doi, 8);
        for (var i = 0; i < Math.Min(prose.Length, 30); i++)
        {
            if (i % 5 == 0)
                page.Line(string.Create(CultureInfo.InvariantCulture, $"Table S{1 + i / 5}"), 11, bold: true);
            page.Text(prose[i], 10);
        }
    }

    private static void Slides(Sheet page, Dice dice, Work work, string[] prose)
    {
        page.Line("", 60);
        page.Title(work.Title, dice.Between(26, 34 - 1));
        page.Line(Names(work, 6), 16);
        page.Line(work.People[0].Institute, 13);
        foreach (var paragraph in prose.Take(dice.Between(9, 22 - 1)))
        {
            page.NewPage();
            page.Line(paragraph.Split(' ').Take(4) is var head ? string.Join(' ', head) : "", 24, bold: true);
            foreach (var point in paragraph.Split(". ").Take(4))
                page.Text("• " + string.Join(' ', point.Split(' ').Take(14)), 17);
        }
    }

    /// <summary>Pages that are filled from the top.</summary>
    private sealed class Sheet : IDisposable
    {
        private readonly MemoryStream to = new();
        private readonly SKDocument document;
        private readonly SKPaint ink = new() { Color = SKColors.Black, IsAntialias = true };
        private readonly SKTypeface plain = PaperPrinter.Face("Regular"),
            strong = PaperPrinter.Face("Bold");
        private readonly float width,
            height;
        private SKCanvas canvas;
        private float y = 60;

        public Sheet(bool isWide)
        {
            (width, height) = isWide ? (842, 595) : (595, 842);
            document = SKDocument.CreatePdf(
                to,
                new SKDocumentPdfMetadata
                {
                    Creation = new(2026, 1, 1, 0, 0, 0, DateTimeKind.Utc),
                    Modified = new(2026, 1, 1, 0, 0, 0, DateTimeKind.Utc),
                    RasterDpi = 150,
                    EncodingQuality = 101,
                }
            );
            canvas = document.BeginPage(width, height);
        }

        public void NewPage()
        {
            document.EndPage();
            canvas = document.BeginPage(width, height);
            y = 60;
        }

        public void Line(string text, float size, bool bold = false)
        {
            if (y + size > height - 50)
                NewPage();
            y += size * 1.3f;
            if (text.Length == 0)
                return;
            using var font = new SKFont(bold ? strong : plain, size) { Subpixel = true };
            canvas.DrawText(text, 60, y, SKTextAlign.Left, font, ink);
        }

        public void Title(string text, float size)
        {
            Wrapped(text, size, bold: true);
            y += size * 0.4f;
        }

        public void Text(string text, float size)
        {
            Wrapped(text, size, bold: false);
            y += size * 0.5f;
        }

        public void Wrapped(string text, float size, bool bold)
        {
            foreach (var line in PaperPrinter.Lines(text, bold ? strong : plain, size, width - 120))
                Line(line, size, bold);
        }

        public byte[] Done()
        {
            document.EndPage();
            document.Close();
            return to.ToArray();
        }

        public void Dispose()
        {
            document.Dispose();
            ink.Dispose();
            plain.Dispose();
            strong.Dispose();
            to.Dispose();
        }
    }
}
