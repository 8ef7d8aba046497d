using Zendle.Core.People;

namespace Zendle.Core.Tests.People;

/// <summary>Given names that can be one person's, and what that is worth.</summary>
public sealed class GivenNamesTests
{
    [Theory]
    [InlineData("Marisol K.", "M.", true)]
    [InlineData("Marisol K.", "Marisol", true)]
    [InlineData("Marisol K.", "Marisol B.", false)]
    [InlineData("Marisol", "Miriam", false)]
    [InlineData("Marisol", "T.", false)]
    [InlineData("", "Marisol", true)]
    public void Given_names_can_be_one_unless_a_part_contradicts(string a, string b, bool can)
    {
        var (x, y) = (Mention.GivenParts(a), Mention.GivenParts(b));
        Assert.Equal(can, GivenNames.Compatible(x, y));
        Assert.Equal(can, GivenNames.Compatible(y, x));
        Assert.Equal(GivenNames.Worth(x, y, PersonWeights.Shipped), GivenNames.Worth(y, x, PersonWeights.Shipped));
    }

    [Fact]
    public void A_full_name_in_common_is_worth_more_than_an_initial_and_a_middle_one_adds()
    {
        double Worth(string a, string b) =>
            GivenNames.Worth(Mention.GivenParts(a), Mention.GivenParts(b), PersonWeights.Shipped);
        Assert.True(Worth("Marisol", "Marisol") > Worth("M.", "M."));
        Assert.True(Worth("Marisol K.", "Marisol K.") > Worth("Marisol", "Marisol"));
        Assert.True(Worth("Marisol K.", "Marisol") < Worth("Marisol", "Marisol"));
        Assert.Equal(0, Worth("", "Marisol"));
    }
}
