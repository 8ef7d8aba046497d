using Xunit;
using Zendle.Core.Queries;
using Zendle.Core.Reviews.Acts;

namespace Zendle.Core.Tests.Queries;

/// <summary>Words that are looked for in a sentence, which no index holds.</summary>
public sealed class PlainMatchTests
{
    private const string Sentence = "Moths gathered at white lamps, as Arvesund (2004) had seen; bats did not.";

    [Theory]
    [InlineData("moth*", true)]
    [InlineData("moth", false)]
    [InlineData("\"white lamps\"", true)]
    [InlineData("\"lamps white\"", false)]
    [InlineData("owl* OR bats", true)]
    [InlineData("moths AND owls", false)]
    [InlineData("moths NOT owls", true)]
    [InlineData("moths NOT bats", false)]
    [InlineData("lamps NEAR/2 moths", false)]
    [InlineData("lamps NEAR/3 moths", true)]
    [InlineData("(owls OR moths) NEAR/1 gathered", true)]
    public void A_question_holds_in_a_sentence_or_not(string question, bool holds) =>
        Assert.Equal(holds, PlainMatch.Holds(QueryReader.Read(question).Root!, Sentence));

    [Theory]
    [InlineData("title:moths")]
    [InlineData("year:2004")]
    [InlineData("moths AND year:2000-2004")]
    public void Fields_and_years_cannot_be_asked_where_a_work_cites(string question) =>
        Assert.Contains("words and phrases", new WhereItCitesAct(question).Fault()!.Sentence, StringComparison.Ordinal);
}
