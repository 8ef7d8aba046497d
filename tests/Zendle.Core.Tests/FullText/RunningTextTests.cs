using Zendle.Core.FullText;
using Zendle.Core.Text;

namespace Zendle.Core.Tests.FullText;

public sealed class RunningTextTests
{
    private static ReadLine Line(string text, int page) => new(new(text, page, 50, 300, 100, 10, false), 0);

    [Fact]
    public void Pages_are_one_text_each_without_the_lists_of_others_words()
    {
        var pages = RunningText.Of(
            [
                Line("Lamps change pollina-", 1),
                Line("tion at night-", 1),
                Line("time near  ", 1),
                Line("hedges.", 2),
                Line("References", 2),
                Line("Berg M. Of moths. 1999.", 2),
                Line("Thanks are due.", 3),
            ],
            new(["Berg M. Of moths. 1999."], [4..6], false)
        );
        Assert.Equal([1, 2, 3], pages.Select(p => p.Page));
        Assert.Equal("Lamps change pollina-tion at night-time near", pages[0].Text);
        Assert.Equal("hedges.", pages[1].Text);
        // A word that was broken at the end of a line is found whole, and one that has a hyphen of its own in both ways.
        var words = Words.Of(pages[0].Text).Select(w => w.Text).ToArray();
        Assert.Contains("pollination", words);
        Assert.Contains("nighttime", words);
        Assert.Contains("night", words);
    }

    [Fact]
    public void A_document_without_lines_has_no_text() => Assert.Empty(RunningText.Of([], new([], [], false)));
}
