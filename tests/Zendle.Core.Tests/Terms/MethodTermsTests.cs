using Zendle.Core.Terms;

namespace Zendle.Core.Tests.Terms;

public class MethodTermsTests
{
    [Theory]
    [InlineData("field experiment", true)]
    [InlineData("randomised controlled trial", true)]
    [InlineData("case study", true)]
    [InlineData("light trapping", true)]
    [InlineData("questionnaire", true)]
    [InlineData("long term monitoring", true)]
    [InlineData("linear mixed models", true)]
    [InlineData("mark and recapture", false)]
    [InlineData("present study", false)]
    [InlineData("two experiments", false)]
    [InlineData("study", false)]
    [InlineData("experiment station", false)]
    [InlineData("street lamps", false)]
    public void A_method_is_told_by_its_last_noun(string term, bool isOne) =>
        Assert.Equal(isOne, MethodTerms.Is(term.Split(' ')));
}
