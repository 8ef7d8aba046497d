using Zendle.Core.Records;

namespace Zendle.Core.Tests.Records;

/// <summary>What is taken from a printed reference.</summary>
public sealed class PrintedReferenceTests
{
    [Theory]
    [InlineData(
        "Berg, N. (2009). Water use and drainage in reed beds. Trends in Fauna, 62, 791.",
        "Water use and drainage in reed beds"
    )]
    // What makes it another work belongs to its title, wherever a style puts the stops.
    [InlineData(
        "Berg N, Lind A. Correction to: Water use and drainage in reed beds. Trends in Fauna. 2009;62(4):791.",
        "Correction to: Water use and drainage in reed beds"
    )]
    [InlineData(
        "Berg, N.; Lind, A. Correction to: Water Use and Drainage in Reed Beds. Trends in Fauna 2009, 62, 791.",
        "Correction to: Water Use and Drainage in Reed Beds"
    )]
    [InlineData(
        "Berg, N. (2009). Erratum: Water use and drainage in reed beds. Trends in Fauna, 62, 791.",
        "Erratum: Water use and drainage in reed beds"
    )]
    [InlineData(
        "Berg, N. (2009). Lamps, moths and a correction of maps: water use in reed beds. Trends in Fauna, 62, 791.",
        "Lamps, moths and a correction of maps: water use in reed beds"
    )]
    public void A_title_is_the_longest_sentence_with_what_makes_it_another_work(string text, string title) =>
        Assert.Equal(title, PrintedReference.Read(text).Title);
}
