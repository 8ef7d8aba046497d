using Zendle.Core.Citing;

namespace Zendle.Core.Tests.Citing;

/// <summary>Works as texts cite them by name and year.</summary>
public sealed class NameAndYearTests
{
    [Theory]
    [InlineData("Berg 2019", "Berg", null, "2019")]
    [InlineData("Berg et al. (2019a)", "Berg", null, "2019")]
    [InlineData("Berg and colleagues, 2019", "Berg", null, "2019")]
    [InlineData("(Berg & Lind, 2019)", "Berg", "Lind", "2019")]
    [InlineData("van der Berg and Ruiz-Vidal 1998;", "van der Berg", "Ruiz-Vidal", "1998")]
    [InlineData("O'Neill, 2003b", "O'Neill", null, "2003")]
    public void A_citation_has_one_name_or_two_and_a_year(string text, string first, string? second, string year) =>
        Assert.Equal(new(first, second, year), NameAndYear.Of(text));

    [Theory]
    [InlineData("moths 2019")]
    [InlineData("Berg")]
    [InlineData("Berg 20190")]
    [InlineData("Berg, M. (2019). Lamps and moths. Journal of Dusk, 12.")]
    [InlineData("")]
    public void Anything_else_is_none(string text) => Assert.Null(NameAndYear.Of(text));
}
