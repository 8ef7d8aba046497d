using System.Buffers;
using CsCheck;
using Zendle.Core.FullText;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.FullText;

/// <summary>Files are named by a template, and no name does harm.</summary>
public sealed class TextNamesTests
{
    private static readonly SearchValues<char> Harmful = SearchValues.Create("/\\:*?\"<>|\0\r\n\t");

    private static readonly NamedText Text = new(
        "Vossmann",
        2021,
        "What moths carry: a year at the lamps",
        WorkVersion.AcceptedManuscript,
        "Verge",
        "vossmann2021moths"
    );

    [Theory]
    [InlineData(TextNames.Usual, "Vossmann 2021 What moths carry (accepted manuscript).pdf")]
    [InlineData("{year}-{person}", "2021-Vossmann.pdf")]
    [InlineData("{key}", "vossmann2021moths.pdf")]
    [InlineData("{venue} [{year}] {title}", "Verge [2021] What moths carry.pdf")]
    [InlineData("../{title}/..", "What moths carry.pdf")]
    [InlineData("no part", "no part.pdf")]
    [InlineData("con", "_con.pdf")]
    [InlineData("...", "text.pdf")]
    public void Parts_are_put_in(string template, string name) => Assert.Equal(name, TextNames.Of(template, Text));

    [Theory]
    [InlineData(TextNames.Usual, "What moths carry.pdf")]
    [InlineData("{person}, {year} - {title}", "What moths carry.pdf")]
    [InlineData("{title} [{venue}] ({key})", "What moths carry.pdf")]
    public void What_is_not_known_leaves_nothing_behind(string template, string name) =>
        Assert.Equal(name, TextNames.Of(template, new(null, null, "What moths carry", null)));

    [Theory]
    [InlineData("{person} {year}", null)]
    [InlineData("{people}", "“{people}” is not a part")]
    [InlineData("{title", "A brace is open")]
    [InlineData("{{title}}", "A brace is open")]
    public void A_template_with_a_slip_says_so(string template, string? fault)
    {
        var told = TextNames.Fault(template);
        if (fault is null)
            Assert.Null(told);
        else
            Assert.StartsWith(fault, told, StringComparison.Ordinal);
    }

    [Fact]
    public void Of_equal_names_the_later_ones_bear_a_number() =>
        Assert.Equal(
            ["a.pdf", "A 2.pdf", "b.pdf", "a 3.pdf", "a 2 2.pdf"],
            TextNames.Apart(["a.pdf", "A.pdf", "b.pdf", "a.pdf", "a 2.pdf"])
        );

    [Fact]
    public void No_name_leads_elsewhere_or_is_refused_by_a_file_system() =>
        Gen.Select(Gen.String[0, 80], Gen.String[0, 60], Gen.String[0, 60])
            .Sample(
                (title, person, template) =>
                {
                    if (TextNames.Fault(template) is not null)
                        return;
                    var name = TextNames.Of(template + "{title}{person}", new(person, 2000, title, null));
                    Assert.EndsWith(".pdf", name, StringComparison.Ordinal);
                    Assert.InRange(name.Length, 5, 154);
                    Assert.Equal(-1, name.AsSpan().IndexOfAny(Harmful));
                    Assert.False(name[0] is '.' or ' ' or '-');
                    Assert.NotEqual("manifest.csv", name);
                },
                iter: 2_000
            );
}
