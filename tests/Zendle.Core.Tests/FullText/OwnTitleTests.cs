using Zendle.Core.FullText;

namespace Zendle.Core.Tests.FullText;

/// <summary>What a document that no work fits says of itself.</summary>
public sealed class OwnTitleTests
{
    private static DocumentFacts Of(params (string Text, int Page, double Size)[] lines) =>
        new()
        {
            Pages = 2,
            WordCount = 900,
            BodySize = 10,
            Lines = [.. lines.Select(l => new DocumentLine(l.Text, l.Page, l.Size, false))],
        };

    [Fact]
    public void The_title_is_the_first_run_of_the_largest_lines()
    {
        var own = OwnTitle.Of(
            Of(
                ("7", 1, 30),
                ("Journal of Dusk", 1, 9),
                ("Counting owls", 1, 18),
                ("by lamplight ", 1, 18.2),
                ("Una Quist", 1, 12),
                ("https://doi.org/10.5555/owl.1", 1, 9),
                ("Another heading of that size", 1, 18),
                ("References", 1, 12),
                ("Berg 2010 doi:10.5555/other.2", 1, 9),
                ("A second page's very large words", 2, 40)
            )
        );
        Assert.Equal(new OwnTitle("Counting owls by lamplight", "10.5555/owl.1"), own);
    }

    [Fact]
    public void Where_nothing_stands_out_there_is_no_title()
    {
        Assert.Equal(
            new OwnTitle("", null),
            OwnTitle.Of(Of(("Words of the text", 1, 10), ("and more of them", 1, 10.5)))
        );
        Assert.Equal(new OwnTitle("", null), OwnTitle.Of(Of()));
    }
}
