using CsCheck;
using Zendle.Core.Queries;

namespace Zendle.Core.Tests.Queries;

public sealed class BegunWordTests
{
    /// <summary>The caret stands where | is.</summary>
    private static BegunWord? At(string line) =>
        BegunWord.At(line.Replace("|", "", StringComparison.Ordinal), line.IndexOf('|', StringComparison.Ordinal));

    [Theory]
    [InlineData("mot|", 0, "mot", null, false)]
    [InlineData("light AND Mót|", 10, "mot", null, false)]
    [InlineData("(moth* OR bat|) AND light", 10, "bat", null, false)]
    [InlineData("author:Lind|", 0, "lind", QueryField.Author, false)]
    [InlineData("venue:\"Journal of V|", 0, "journal of v", QueryField.Venue, true)]
    [InlineData("light AND \"flower vis|", 10, "flower vis", null, true)]
    [InlineData("type:a|", 0, "a", QueryField.Type, false)]
    [InlineData("\"seed set\" AND po|", 15, "po", null, false)]
    public void What_is_begun_is_found_with_its_field_and_quotation_mark(
        string line,
        int start,
        string letters,
        QueryField? field,
        bool quoted
    )
    {
        var begun = At(line)!;
        Assert.Equal((start, letters, field, quoted), (begun.Start, begun.Letters, begun.Field, begun.IsQuoted));
        Assert.Equal(line.IndexOf('|', StringComparison.Ordinal), begun.End);
    }

    [Theory]
    [InlineData("|")]
    [InlineData("moth |")]
    [InlineData("m|")]
    [InlineData("mo|th")]
    [InlineData("mot*|")]
    [InlineData("moth AND|")]
    [InlineData("nosuchfield:mo|")]
    [InlineData("title:|")]
    [InlineData("(|")]
    public void Where_nothing_is_begun_nothing_is_offered(string line) => Assert.Null(At(line));

    [Fact]
    public void Any_line_and_any_caret_is_taken() =>
        Gen.Select(Gen.String[Gen.Char["ab \"(:*)ANDé-"], 0, 20], Gen.Int[-1, 22])
            .Sample(
                (line, caret) =>
                {
                    if (BegunWord.At(line, caret) is not { } begun)
                        return;
                    Assert.True(
                        begun.Start >= 0 && begun.Start < begun.End && begun.End == caret && begun.Letters.Length > 0
                    );
                }
            );
}
