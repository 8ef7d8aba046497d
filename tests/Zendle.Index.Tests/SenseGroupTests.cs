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

    [Fact]
    public void What_comes_goes_to_the_group_it_is_linked_with_and_moves_nobody()
    {
        using var corpus = Corpus();
        using var snapshot = corpus.Index.Snapshot();
        var (groups, size) = (new SenseGroups(snapshot), snapshot.Columns.WorkSize);
        // Without works 11, 12 and 41 to 45 at first; work 7 goes, and 51 belongs to nobody.
        var then = WorkSet.Of(size, Enumerable.Range(1, 50).Except([11, 12, 41, 42, 43, 44, 45]));
        var now = WorkSet.Of(size, Enumerable.Range(1, 51).Except([7]));
        var found = groups.Part(then, Budget.Current, Fineness.Fields);
        var grown = groups.Grown(found, then, now, Budget.Current);
        foreach (var (before, after) in found.Groups.Zip(grown.Groups))
        {
            Assert.Equal(before.Works.Except([7]), after.Works.Where(w => then.Contains(w)));
            Assert.Single(after.Works.Select(w => w <= 30).Distinct());
        }
        int[] came = [11, 12, 41, 42, 43, 44, 45];
        Assert.Equal(came, grown.Groups.SelectMany(g => g.Works).Where(w => !then.Contains(w)).Order());
        Assert.Equal(found.Groups.Select(g => g.Terms), grown.Groups.Select(g => g.Terms));
        // The same set, put together piece by piece, is the same.
        Assert.Equal(
            found.Groups.Select(g => g.Works),
            groups.Grown(found, then, then, Budget.Current).Groups.Select(g => g.Works)
        );
    }

    [Fact]
    public void Groups_keep_their_order_where_a_smaller_one_outgrows_a_larger()
    {
        using var corpus = Corpus();
        using var snapshot = corpus.Index.Snapshot();
        var (groups, size) = (new SenseGroups(snapshot), snapshot.Columns.WorkSize);
        var then = WorkSet.Of(size, [.. Enumerable.Range(1, 12), .. Enumerable.Range(31, 8)]);
        var now = WorkSet.Of(size, [.. Enumerable.Range(1, 12), .. Enumerable.Range(31, 20)]);
        var found = groups.Part(then, Budget.Current, Fineness.Fields);
        Assert.Equal([12, 8], found.Groups.Select(g => g.Works.Count));
        Assert.Equal([12, 20], groups.Grown(found, then, now, Budget.Current).Groups.Select(g => g.Works.Count));
    }
}
