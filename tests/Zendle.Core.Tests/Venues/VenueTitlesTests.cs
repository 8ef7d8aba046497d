using Zendle.Core.Venues;

namespace Zendle.Core.Tests.Venues;

public sealed class VenueTitlesTests
{
    [Theory]
    [InlineData("J. HEDGE ECOL.", "Journal of Hedge Ecology", "Journal of Hedge Ecology")]
    [InlineData("JOURNAL OF HEDGE ECOLOGY", "Journal of Hedge Ecology", "Journal of Hedge Ecology")]
    [InlineData("J Hedge Ecol", "Journal of Hedge Ecology", "Journal of Hedge Ecology")]
    [InlineData("Journal of Hedge Ecology", "JOURNAL OF HEDGE ECOLOGY", "Journal of Hedge Ecology")]
    [InlineData("Journal of Hedge Ecology", "J. Hedge Ecol.", "Journal of Hedge Ecology")]
    [InlineData("HEDGE", "Journal of Hedge Ecology", "HEDGE")] // another venue
    [InlineData("JHE", "Verge Papers", "JHE")]
    [InlineData("JOURNAL OF HEDGE ECOLOGY", null, "JOURNAL OF HEDGE ECOLOGY")] // nothing better is known, and nothing is made up
    public void The_whole_name_in_mixed_case_is_shown_where_one_is_known(string chosen, string? other, string shown) =>
        Assert.Equal(shown, VenueTitles.Best(chosen, [other]));
}
