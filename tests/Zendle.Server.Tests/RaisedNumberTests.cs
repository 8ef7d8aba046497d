using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Fonts.Standard14Fonts;
using UglyToad.PdfPig.Writer;
using Zendle.Core.FullText;
using Zendle.Documents;
using Zendle.Documents.Pdf;

namespace Zendle.Server.Tests;

/// <summary>Numbers raised above the line cite the entries of a numbered list; powers and marks behind names do not.</summary>
public sealed class RaisedNumberTests
{
    private const double Size = 10;

    /// <summary>Prints lines; what stands between carets is raised, as "moths^3^ fly".</summary>
    private static DocumentFacts Printed(params string[] lines)
    {
        var builder = new PdfDocumentBuilder();
        var page = builder.AddPage(PageSize.A4);
        var (plain, bold) = (
            builder.AddStandard14Font(Standard14Font.Helvetica),
            builder.AddStandard14Font(Standard14Font.HelveticaBold)
        );
        var y = 780.0;
        foreach (var line in lines)
        {
            var isHead = line.StartsWith('#');
            var x = 60.0;
            foreach (var (part, i) in line.TrimStart('#').Split('^').Select((p, i) => (p, i)))
            {
                if (part.Length == 0)
                    continue;
                var letters = page.AddText(
                    part,
                    i % 2 == 1 ? 6
                        : isHead ? 13
                        : Size,
                    new PdfPoint(x, i % 2 == 1 ? y + 3.6 : y),
                    isHead ? bold : plain
                );
                x = letters[^1].EndBaseLine.X;
            }
            y -= isHead ? 22 : 13;
        }
        return PdfText.Read(builder.Build(), DocumentLimits.Usual);
    }

    private static readonly string[] List =
    [
        "#References",
        "1. Berg M. 2010. Lamps and moths. Dusk Letters 2: 11-19.",
        "2. Lind B. 2003. Night flowers of the coast. Journal of Dusk 4: 1-9.",
        "3. Vik A. 2005. Pollen at night. Journal of Dusk 6: 21-29.",
        "4. Fjord C. 2007. Verges and their moths. Hedge Notes 8: 31-39.",
    ];

    [Fact]
    public void Raised_numbers_cite_behind_words_and_behind_stops()
    {
        var facts = Printed([
            "#What moths carry",
            "Ada Vossmann^1^ and Bo Lind^2,*^",
            "#Introduction",
            "Moths visit flowers at night.^1,3^ Lamps draw them away^2^ from verges.",
            "We counted 40 m^2^ of verge, and 10^3^ moths. Nobody knows why^2–4^.",
            "On the 4^th^ night it rained.",
            .. List,
        ]);
        Assert.Equal(4, facts.References.Count);
        Assert.Equal(
            ["Moths visit flowers at night.[1,3]", "Lamps draw them away[2] from verges.", "Nobody knows why[2–4]."],
            facts.Citations.Select(c => c.Text)
        );
        Assert.Equal(
            [
                [0, 2],
                [1],
                [1, 2, 3],
            ],
            facts.Citations.Select(c => c.Entries.ToArray())
        );
        // The words themselves have neither numbers nor marks, and lines are whole.
        Assert.Contains("Ada Vossmann and Bo Lind", facts.FirstLines);
        Assert.Contains("On the 4th night it rained.", facts.FirstLines);
        Assert.Contains("Moths visit flowers at night. Lamps draw them away from verges.", facts.FirstLines);
    }

    [Fact]
    public void Where_numbers_stand_on_the_line_raised_ones_are_something_else()
    {
        var facts = Printed([
            "#What moths carry",
            "#Introduction",
            "Moths visit flowers at night [1]. Lamps draw them away^2^ from verges.",
            .. List,
        ]);
        Assert.Equal("Moths visit flowers at night [1].", Assert.Single(facts.Citations).Text);
        Assert.Equal([0], facts.Citations[0].Entries);
    }

    [Fact]
    public void Letters_of_private_use_are_no_marks()
    {
        Assert.Equal("a\uFFFDb\uFFFD", RaisedText.Plain("a\uE010b\uE011"));
        Assert.Equal("\uF0B7", RaisedText.Plain("\uF0B7"));
        var line = new System.Text.StringBuilder("moths");
        RaisedText.Add(line, RaisedText.Plain("\uE011"));
        RaisedText.Add(line, "3");
        Assert.Equal("moths", RaisedText.Words(line.ToString()));
    }

    [Theory]
    [InlineData(3.6, 6, 10, true)]
    [InlineData(0, 6, 10, false)]
    [InlineData(-2, 6, 10, false)]
    [InlineData(3.6, 9, 10, false)]
    [InlineData(9, 6, 10, false)]
    public void A_letter_is_raised_when_it_is_smaller_and_stands_a_little_higher(
        double rise,
        double size,
        double line,
        bool isRaised
    ) => Assert.Equal(isRaised, RaisedText.Is(rise, size, line));
}
