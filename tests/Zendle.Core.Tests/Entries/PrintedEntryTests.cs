using Xunit;
using Zendle.Core.Entries;

namespace Zendle.Core.Tests.Entries;

public class PrintedEntryTests
{
    [Fact]
    public void An_article_fills_its_fields()
    {
        var read = PrintedEntry.Read(
            "Berg, M. K., & Lind, P. (2014). Moths at the lamps of small harbours. Night Letters, 12(3), 45–67. "
                + "https://doi.org/10.5555/nl.2014.7"
        );
        Assert.Equal("Moths at the lamps of small harbours", read.Title);
        Assert.Equal("article", read.Type);
        Assert.Equal("Berg, M. K.\nLind, P.", read.People);
        Assert.Equal("2014", read.Year);
        Assert.Equal(("Night Letters", "12", "3", "45–67"), (read.Venue, read.Volume, read.Issue, read.Pages));
        Assert.Equal("10.5555/nl.2014.7", read.Doi);
        Assert.Equal("", read.Address);
    }

    [Theory]
    [InlineData(
        "Berg MK, Lind P. Moths at the lamps of small harbours. Night Letters. 2014;12(3):45-67.",
        "Night Letters",
        "12"
    )]
    [InlineData(
        "M. K. Berg and P. Lind, “Moths at the lamps of small harbours,” Night Letters, vol. 12, no. 3, pp. 45–67, 2014.",
        "Night Letters",
        "12"
    )]
    [InlineData(
        "BERG, M. K. and LIND, P., 2014. Moths at the lamps of small harbours. Night Letters, 12(3), pp. 45-67.",
        "Night Letters",
        "12"
    )]
    public void Other_styles_fill_them_too(string printed, string venue, string volume)
    {
        var read = PrintedEntry.Read(printed);
        Assert.Equal("Moths at the lamps of small harbours", read.Title);
        Assert.Equal(("2014", venue, volume), (read.Year, read.Venue, read.Volume));
        Assert.Equal(2, read.People.Split('\n').Length);
    }

    [Theory]
    [InlineData("Lind, P. (2009). Bats over canals at dusk [Doctoral thesis, Farnhaven College].", "thesis")]
    [InlineData("Lind, P. (2019). Street lamps and beetles of the coast. Report 12, Agency of Night Skies.", "report")]
    [InlineData("Lind, P. Beetles under red light along roads. Manuscript in preparation.", "manuscript")]
    public void The_kind_is_read_where_it_is_said(string printed, string type)
    {
        var read = PrintedEntry.Read(printed);
        Assert.Equal(type, read.Type);
        Assert.Equal("Lind, P.", read.People);
        Assert.NotEqual("", read.Title);
    }

    [Fact]
    public void A_body_may_stand_for_people()
    {
        var read = PrintedEntry.Read("Agency of Night Skies (2019). Street lamps and beetles of the coast. Report 12.");
        Assert.Equal(
            ("Agency of Night Skies", "Street lamps and beetles of the coast", "2019", "", ""),
            (read.People, read.Title, read.Year, read.Venue, read.Publisher)
        );
    }

    [Theory]
    [InlineData("Moths")]
    [InlineData("10.5555/abc")]
    [InlineData("夜間照明と蛾の研究")]
    public void What_shows_no_title_is_one(string text) => Assert.NotEqual("", PrintedEntry.Read(text).Title);

    [Fact]
    public void Whatever_is_read_can_be_kept() =>
        CsCheck.Check.Sample(
            CsCheck.Gen.String[CsCheck.Gen.Char[" .,;:()[]&0129abcABC10/-–“”\n\t"], 1, 200],
            text =>
            {
                if (text.Any(char.IsLetterOrDigit))
                    Assert.Empty(CustomEntry.Faults(PrintedEntry.Read(text)));
            },
            iter: 2_000
        );
}
