using Zendle.Core.Venues;

namespace Zendle.Core.Tests.Venues;

/// <summary>Names of venues, written out and abbreviated.</summary>
public sealed class VenueNamesTests
{
    [Theory]
    [InlineData("Journal of Hedge Ecology", "J. Hedge Ecol.", true)]
    [InlineData("Journal of Hedge Ecology", "Journal Hedge Ecology", true)]
    [InlineData("Journal of Hedge Ecology", "Journal of Hedges", false)]
    [InlineData("Small Wings", "Small Wings and Lamps", false)]
    [InlineData("Annals of the Lamp", "Ann. Lamp", true)]
    [InlineData("Dusk", "Dawn", false)]
    public void Venues_agree_when_each_word_begins_the_other(string a, string b, bool agree)
    {
        Assert.Equal(agree, VenueNames.Agree(VenueNames.WordsOf(a), VenueNames.WordsOf(b)));
        Assert.Equal(agree, VenueNames.Agree(VenueNames.WordsOf(b), VenueNames.WordsOf(a)));
        if (agree)
            Assert.Equal(VenueNames.InitialsOf(a), VenueNames.InitialsOf(b));
    }
}
