using Zendle.Core.Records;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Index.Senses;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>Works that use a word in different company fall into groups that their own words name.</summary>
public sealed class SenseGroupTests
{
    private static readonly string[][] Keywords =
    [
        ["moths", "flowers", "nectar", "dusk"],
        ["alloys", "welding", "fatigue", "stiffness"],
    ];

    /// <summary>
    /// Thirty works on light for moths and twenty on light alloys, linked by three keywords of four each; and one on its own.
    /// </summary>
    private static SmallCorpus Corpus() =>
        SmallCorpus.OneEach(
            51,
            n =>
            {
                var field = n < 30 ? 0 : 1;
                return new Record
                {
                    Identifier = $"oai:a:{n}",
                    Title = n == 50 ? "Light" : $"Light and {Keywords[field][n % 4]}, part {n}",
                    Keywords = n == 50 ? [] : [.. Keywords[field].Where((_, k) => k != n % 4)],
                    Subjects = n == 50 ? [] : [field == 0 ? "Ecology" : "Materials"],
                    Year = 1980 + n,
                    Type = DocumentType.Article,
                    People = [new($"Person{n}", "A.")],
                };
            }
        );

    [Fact]
    public void Two_senses_of_one_word_are_two_groups()
    {
        using var corpus = Corpus();
        using var snapshot = corpus.Index.Snapshot();
        var all = new QuestionEvaluator(snapshot, null).Everything();
        var groups = new SenseGroups(snapshot).Of(all, Budget.Current);
        Assert.Equal(2, groups.Count);
        Assert.Equal(Enumerable.Range(1, 30), groups[0].Works);
        Assert.Equal(Enumerable.Range(31, 20), groups[1].Works);
        Assert.Equal(["Ecology"], groups[0].Subjects);
        Assert.Equal(["Materials"], groups[1].Subjects);
        Assert.Equal((1980, 2009), (groups[0].From, groups[0].To));
        Assert.All(groups[0].Terms, t => Assert.DoesNotContain("alloys", t, StringComparison.Ordinal));
        Assert.Contains(groups[1].Terms, t => Keywords[1].Any(k => t.Contains(k, StringComparison.Ordinal)));
        Assert.Equal(3, groups[0].Examples.Count);
    }

    [Fact]
    public void Few_works_and_works_without_links_have_no_groups()
    {
        using var corpus = Corpus();
        using var snapshot = corpus.Index.Snapshot();
        var groups = new SenseGroups(snapshot);
        var size = snapshot.Columns.WorkSize;
        Assert.Empty(groups.Of(new WorkSet(size), Budget.Current));
        Assert.Empty(groups.Of(WorkSet.Of(size, [1, 2, 51]), Budget.Current));
        Assert.Empty(groups.Of(WorkSet.Of(size, [1, 31, 51]), Budget.Current));
    }
}
