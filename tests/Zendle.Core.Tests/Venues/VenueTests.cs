using CsCheck;
using Zendle.Core.Records;
using Zendle.Core.Venues;

namespace Zendle.Core.Tests.Venues;

public sealed class VenueTests
{
    private static int[] Numbers(params (string Title, string? Issn)[] named)
    {
        VenuePart[] parts = [.. named.Select(n => new VenuePart(n.Title, n.Issn))];
        var resolver = new VenueResolver(parts);
        return [.. parts.Select(p => resolver.Of(p)!.Number)];
    }

    [Fact]
    public void An_issn_joins_spellings_and_a_title_without_one_follows()
    {
        var n = Numbers(
            ("Journal of Hedge Ecology", "9001-9180"),
            ("J HEDGE ECOL", "9001-9180"),
            ("Journal of Hedge Ecology", null),
            ("J. Hedge Ecol.", null)
        );
        Assert.Single(n.Distinct());
    }

    [Fact]
    public void An_abbreviation_that_fits_two_titles_joins_neither()
    {
        var n = Numbers(("Letters on Light", "9000-0015"), ("Lettres on Lights", "9000-0023"), ("Let. Lig.", null));
        Assert.Equal(3, n.Distinct().Count());
    }

    [Fact]
    public void The_shown_title_is_a_full_one_in_mixed_case()
    {
        var resolver = new VenueResolver(
            new VenuePart[]
            {
                new("JOURNAL OF HEDGE ECOLOGY", "9001-9180"),
                new("J. Hedge Ecol.", "9001-9180"),
                new("J. Hedge Ecol.", "9001-9180"),
                new("Journal of Hedge Ecology", "9001-9180"),
            }
        );
        Assert.Equal("Journal of Hedge Ecology", Assert.Single(resolver.All).Title);
        Assert.Null(resolver.Of(new("Nowhere to be found")));
    }

    [Theory]
    [InlineData("Journal of Hedge Ecology", "J. Hedge Ecol.", true)]
    [InlineData("Journal of Hedge Ecology", "Journal of Hedges", false)]
    [InlineData("The Trap Keeper", "Trap Keeper", true)]
    [InlineData("Orbit and Ground", "Orbit & Ground", true)]
    [InlineData("Small Wings", "Small Things", false)]
    public void Titles_agree_when_each_word_begins_the_other(string a, string b, bool agree) =>
        Assert.Equal(agree, VenueNames.Agree(VenueNames.WordsOf(a), VenueNames.WordsOf(b)));

    /// <summary>
    /// Eight journals with ten articles each in 2021, cited in 2023 by one work each: journal v is cited v times ten …
    /// by hand.
    /// </summary>
    private static IReadOnlyDictionary<int, IReadOnlyList<Standing>> Standings(
        int journals,
        int[] citations,
        int articles = 10
    )
    {
        var works = new List<VenueWork>();
        var of = new Dictionary<int, List<int>>();
        for (var v = 0; v < journals; v++)
        for (var i = 0; i < articles; i++)
        {
            if (i == 0)
                of[v] = [works.Count];
            works.Add(new(v, 2021, true));
        }
        var cites = new Dictionary<int, int[]>();
        for (var v = 0; v < journals; v++)
        for (var c = 0; c < citations[v]; c++)
        {
            cites[works.Count] = [of[v][0]];
            works.Add(new(-1, 2023, true));
        }
        // Cited in another year, from another time, or of a kind that does not count: all left out.
        cites[works.Count] = [0];
        works.Add(new(-1, 2024, true));
        return Quartiles.Of(
            works.Count,
            w => works[w],
            w => works[w].Venue < 0 ? [] : new[] { 0 },
            ["Ecology"],
            w => cites.GetValueOrDefault(w) ?? [],
            2023
        );
    }

    [Fact]
    public void A_quartile_is_four_times_rank_by_number_rounded_up_and_ties_share_the_better()
    {
        var s = Standings(8, [40, 30, 30, 20, 10, 5, 2, 0]);
        Assert.Equal([1, 2, 2, 4, 5, 6, 7, 8], Enumerable.Range(0, 8).Select(v => s[v][0].Rank));
        Assert.Equal([1, 1, 1, 2, 3, 3, 4, 4], Enumerable.Range(0, 8).Select(v => s[v][0].Quartile));
        Assert.Equal(
            ("Ecology", 2023, 40, 10, 4.0, 8),
            (s[0][0].Category, s[0][0].Year, s[0][0].Citations, s[0][0].Items, s[0][0].Ratio, s[0][0].Ranked)
        );
        Assert.Null(s[0][0].WhyNot);
    }

    [Fact]
    public void Too_few_items_or_journals_give_no_quartile_but_a_reason()
    {
        var few = Standings(7, [1, 2, 3, 4, 5, 6, 7]);
        Assert.Equal(
            (0, "not enough journals: 7 ranked in this category, 8 are needed"),
            (few[0][0].Quartile, few[0][0].WhyNot)
        );
        var small = Standings(8, [1, 2, 3, 4, 5, 6, 7, 8], articles: 9);
        Assert.Equal(
            (0, 0, "not enough items: 9 articles and reviews in five years, 10 are needed"),
            (small[0][0].Quartile, small[0][0].Rank, small[0][0].WhyNot)
        );
    }

    [Fact]
    public void Standings_are_what_counting_by_hand_gives()
    {
        var work = Gen.Select(
            Gen.Int[-1, 9],
            Gen.Int[2015, 2024],
            Gen.Bool,
            Gen.Int[0, 2].Array[0, 2],
            Gen.Int[0, 400].Array[0, 6]
        );
        Check.Sample(
            work.Array[0, 400],
            rows =>
            {
                var works = rows.Select(r => new VenueWork(r.Item1, r.Item2, r.Item3)).ToArray();
                int[] Cites(int w) => [.. rows[w].Item5.Where(c => c < works.Length)];
                var standings = Quartiles.Of(
                    works.Length,
                    w => works[w],
                    w => rows[w].Item4.Distinct().ToArray(),
                    ["Ecology", "Botany", "Physics"],
                    w => Cites(w),
                    2023
                );
                bool Item(VenueWork w, int venue) => w.Venue == venue && w.Counts && w.Year is >= 2018 and < 2023;
                foreach (var (venue, of) in standings)
                foreach (var s in of)
                {
                    Assert.Equal(works.Count(w => Item(w, venue)), s.Items);
                    Assert.Equal(
                        Enumerable
                            .Range(0, works.Length)
                            .Where(w => works[w].Year == 2023)
                            .SelectMany(Cites)
                            .Count(c => Item(works[c], venue)),
                        s.Citations
                    );
                    Assert.Equal(s.Quartile == 0, s.WhyNot is not null);
                    Assert.InRange(s.Quartile, 0, 4);
                    // Whoever is cited more for each item does not stand lower.
                    foreach (
                        var other in standings
                            .Values.SelectMany(o => o)
                            .Where(o => o.Category == s.Category && o.Rank > 0 && s.Rank > 0)
                    )
                        Assert.Equal(
                            Math.Sign(other.Ratio.CompareTo(s.Ratio)),
                            -Math.Sign(other.Rank.CompareTo(s.Rank))
                        );
                }
            },
            iter: 60
        );
    }
}
