using System.Globalization;
using Xunit;
using Zendle.Core.FullText;

namespace Zendle.Core.Tests.FullText;

/// <summary>Reference lists are found in documents and split, however they are set.</summary>
public sealed class ReferenceSectionTests
{
    private const double Size = 9,
        Letter = 4.5,
        Lead = 11;

    private enum Marks
    {
        Hanging,
        Bracketed,
        Dotted,
        Gaps,
    }

    /// <summary>Sets lines of a document by hand, as a printer would.</summary>
    private sealed class Page(int columns, double width)
    {
        private readonly List<PlacedLine> lines = [];
        private int page = 1,
            column;
        private double y = 700;

        public bool IsDrawnByRows { get; init; }
        public double FacingShift { get; init; }
        public string? RunningHead { get; init; }

        private double Left => 50 + column * (width + 20) + (page % 2 == 0 ? FacingShift : 0);

        public void Line(string text, double indent = 0, double size = Size, bool isBold = false)
        {
            if (y < 60)
                Next();
            lines.Add(new(text, page, Left + indent, Left + indent + text.Length * Letter, y, size, isBold));
            y -= Lead;
        }

        public void Gap(double points) => y -= points;

        private void Next()
        {
            (column, y) = (column + 1, 700);
            if (column < columns)
                return;
            (page, column) = (page + 1, 0);
        }

        public void Entry(string text, int number, Marks marks)
        {
            var marker = marks switch
            {
                Marks.Bracketed => string.Create(CultureInfo.InvariantCulture, $"[{number}] "),
                Marks.Dotted => string.Create(CultureInfo.InvariantCulture, $"{number}. "),
                _ => "",
            };
            var (line, isFirst) = ("", true);
            foreach (var word in (marker + text).Split(' '))
            {
                if (line.Length > 0 && (line.Length + 1 + word.Length) * Letter > width - 14)
                {
                    Line(line, isFirst || marks == Marks.Gaps ? 0 : 12);
                    (line, isFirst) = (word, false);
                }
                else
                    line = line.Length == 0 ? word : line + " " + word;
            }
            Line(line, isFirst || marks == Marks.Gaps ? 0 : 12);
            if (marks == Marks.Gaps)
                Gap(6);
        }

        public IReadOnlyList<ReadLine> Read()
        {
            var all = new List<PlacedLine>();
            foreach (var group in lines.GroupBy(l => l.Page))
            {
                if (RunningHead is not null)
                {
                    var text = string.Create(CultureInfo.InvariantCulture, $"{RunningHead} {group.Key}");
                    all.Add(new(text, group.Key, 50, 50 + text.Length * Letter, 760, Size, false));
                }
                all.AddRange(IsDrawnByRows ? group.OrderByDescending(l => l.Base).ThenBy(l => l.Left) : group);
                all.Add(new(group.Key.ToString(CultureInfo.InvariantCulture), group.Key, 290, 296, 30, Size, false));
            }
            return ReadingOrder.Of(all);
        }
    }

    private static string[] Entries(int count) =>
        [
            .. Enumerable
                .Range(0, count)
                .Select(i =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{Families[i % Families.Length]}, {(char)('A' + i % 26)}., and {Families[(i * 7 + 3) % Families.Length]}, K. "
                            + $"({1950 + i % 70}). What the {Things[i % Things.Length]} of plot {i} did when lamps were lit beside "
                            + $"the river{(i % 3 == 0 ? " and nobody had told them of it, in four seasons" : "")}. "
                            + $"Ledger of Moths {i % 40 + 1}, "
                            + $"{i + 11}–{i + 19}."
                    )
                ),
        ];

    private static readonly string[] Families =
    [
        "Arvesund",
        "Bellmoor",
        "Cattrick",
        "Dunvale",
        "Ekholt",
        "Farrisk",
        "Gellrin",
    ];
    private static readonly string[] Things = ["moths", "bats", "hoverflies", "orchids", "toads"];

    private static void Body(Page page)
    {
        page.Line("Results", size: 12, isBold: true);
        for (var i = 0; i < 70; i++)
            page.Line($"In the year {1990 + i % 20} lamps stood there, and moths came", size: 10);
    }

    public static TheoryData<int, bool, double, string> Layouts()
    {
        var data = new TheoryData<int, bool, double, string>();
        foreach (var columns in (int[])[1, 2])
        foreach (var byRows in (bool[])[false, true])
        foreach (var shift in (double[])[0, 18])
        foreach (var marks in Enum.GetNames<Marks>())
            data.Add(columns, byRows, shift, marks);
        return data;
    }

    [Theory]
    [MemberData(nameof(Layouts))]
    public void EntriesComeBackWholeHoweverAListIsSet(int columns, bool byRows, double shift, string marks)
    {
        var page = new Page(columns, columns == 1 ? 500 : 240)
        {
            IsDrawnByRows = byRows,
            FacingShift = shift,
            RunningHead = "Ledger of Moths 12 (3)",
        };
        Body(page);
        page.Line("References", size: 12, isBold: true);
        var entries = Entries(61);
        for (var i = 0; i < entries.Length; i++)
            page.Entry(entries[i], i + 1, Enum.Parse<Marks>(marks));
        page.Line("Appendix A. Counts by night", size: 12, isBold: true);
        for (var i = 0; i < 30; i++)
            page.Line($"Night {i} of 2004: 12 moths, 3 bats", size: 10);

        Assert.Equal(entries, ReferenceSection.In(page.Read()));
    }

    [Fact]
    public void AListOfNineHundredIsReadWhole()
    {
        var page = new Page(2, 240);
        Body(page);
        page.Line("REFERENCES", size: 11, isBold: true);
        var entries = Entries(900);
        for (var i = 0; i < entries.Length; i++)
            page.Entry(entries[i], i + 1, Marks.Bracketed);

        Assert.Equal(entries, ReferenceSection.In(page.Read()));
    }

    [Fact]
    public void NumbersThatWereLostAtPageBreaksEndNothing()
    {
        var page = new Page(1, 500);
        page.Line("Literature cited", size: 12, isBold: true);
        var entries = Entries(40);
        // Every tenth number was lost: its entry goes on from the one before, and only these two are one.
        for (var i = 0; i < entries.Length; i++)
            page.Entry(entries[i], i + 1, i % 10 == 9 ? Marks.Hanging : Marks.Dotted);

        var read = ReferenceSection.In(page.Read());

        Assert.Equal(36, read.Count);
        Assert.Equal(entries.Where((_, i) => i % 10 < 8), read.Where((_, i) => i % 9 != 8));
    }

    [Fact]
    public void AListForEachChapterIsRead()
    {
        var page = new Page(1, 500);
        var entries = Entries(24);
        for (var chapter = 0; chapter < 3; chapter++)
        {
            page.Line($"{chapter + 1} Chapter", size: 14, isBold: true);
            Body(page);
            page.Line("References", size: 12, isBold: true);
            for (var i = 0; i < 8; i++)
                page.Entry(entries[chapter * 8 + i], i + 1, Marks.Hanging);
        }

        Assert.Equal(entries, ReferenceSection.In(page.Read()));
    }

    [Fact]
    public void The_title_of_the_next_chapter_ends_a_list()
    {
        var page = new Page(1, 500);
        Body(page);
        page.Line("References", size: 11, isBold: true);
        var entries = Entries(6);
        for (var i = 0; i < entries.Length; i++)
            page.Entry(entries[i], i + 1, Marks.Hanging);
        page.Line("Governing noise complaints: bars and markets and curfew", size: 17, isBold: true);
        page.Line("Norisaka, Grirasko and Delphlova", size: 10);
        page.Line("Abstract", size: 11, isBold: true);
        Body(page);

        var lines = page.Read();
        var listed = ReferenceSection.Read(lines).Listed(lines.Count);
        Assert.Equal(entries, ReferenceSection.In(lines));
        Assert.DoesNotContain(
            lines.Where((_, i) => listed[i]),
            l =>
                l.Line.Text.Contains("curfew", StringComparison.Ordinal)
                || l.Line.Text.Contains("Norisaka", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void WhatIsNoListIsNone()
    {
        var page = new Page(1, 500);
        page.Line("Contents", size: 14, isBold: true);
        page.Line("Introduction");
        page.Line("References");
        page.Line("Appendix");
        Body(page);

        Assert.Empty(ReferenceSection.In(page.Read()));
        Assert.Empty(ReferenceSection.In([]));
    }

    [Fact]
    public void WhatFollowsAListIsNoPartOfIt()
    {
        foreach (var heading in (string[])["Acknowledgements", "Data availability", "Funding", "Competing interests"])
        {
            var page = new Page(1, 500);
            page.Line("References", size: 12, isBold: true);
            var entries = Entries(6);
            for (var i = 0; i < entries.Length; i++)
                page.Entry(entries[i], i + 1, Marks.Hanging);
            page.Line(heading, size: 12, isBold: true);
            page.Line("We thank the night watch of 2003 and all who lent us lamps.");

            Assert.Equal(entries, ReferenceSection.In(page.Read()));
        }
    }
}
