using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A field of one value for each work is the same wherever it stands: what a bar or a row of the breakdown counts is
/// what narrowing to it leaves, and what the rows of the list show, recounted here one by one.
/// </summary>
public sealed class SingleValueTests(Harvested harvested) : IClassFixture<Harvested>
{
    private Visitor Ann => harvested.Ann;

    private async Task<JsonNode[]> Rows(int review, int step, string sort = "Newest")
    {
        var rows = new List<JsonNode>();
        while (true)
        {
            var page = await Ann.Get(
                $"/api/reviews/{review}/steps/{step}/works?limit=200&offset={rows.Count}&sort={sort}"
            );
            rows.AddRange(page.List("works"));
            if (rows.Count >= page.Int("total"))
                return [.. rows];
        }
    }

    [Fact]
    public async Task A_bar_is_as_high_as_what_brushing_it_leaves()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light OR moths OR soil");
        var bars = (await Ann.Get($"/api/reviews/{review}/steps/{step}"))
            .List("years")
            .ToDictionary(y => y.Int("year"), y => y.Int("inView"));
        var rows = await Rows(review, step);
        Assert.True(rows.Length > 60);
        var shown = rows.Where(r => r["year"] is not null).CountBy(r => r.Int("year")).ToDictionary();
        Assert.Equal(shown.OrderBy(y => y.Key), bars.Where(b => b.Value > 0).OrderBy(y => y.Key));
        foreach (var year in shown.Keys.Order())
        {
            var brushed = await Ann.Step(
                review,
                step,
                new
                {
                    kind = "Years",
                    from = year,
                    to = year,
                }
            );
            Assert.Equal(shown[year], await Ann.Count(review, brushed));
            var oldest = await Rows(review, brushed);
            Assert.All(oldest, r => Assert.Equal(year, r.Int("year")));
        }
    }

    [Theory]
    [InlineData("Oldest", 1)]
    [InlineData("Newest", -1)]
    public async Task A_list_by_age_never_turns_back(string sort, int way)
    {
        var review = await Ann.Review();
        var rows = await Rows(review, await Ann.Search(review, "light OR moths OR soil"), sort);
        var years = rows.Where(r => r["year"] is not null).Select(r => r.Int("year") * way).ToArray();
        Assert.Equal(years.Order(), years);
    }

    [Theory]
    [InlineData("Type", "type")]
    [InlineData("Language", "language")]
    [InlineData("Venue", "venue")]
    public async Task A_row_of_the_breakdown_counts_what_rows_show_and_narrowing_leaves(string facet, string field)
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light OR moths OR soil");
        var shown = (await Rows(review, step))
            .Where(r => r[field] is not null)
            .CountBy(r => r.Text(field))
            .ToDictionary();
        var breakdown = await Ann.Get($"/api/reviews/{review}/steps/{step}/facets/{facet}");
        var values = breakdown.List("shown").ToArray();
        Assert.NotEmpty(values);
        foreach (var value in values.Take(40))
        {
            var (name, count) = (value.Text("value"), value.Int("count"));
            if (facet != "Language")
                Assert.Equal(shown.GetValueOrDefault(name), count);
            var narrowed = await Ann.Step(
                review,
                step,
                new
                {
                    kind = "Narrow",
                    facet,
                    values = new[] { name },
                }
            );
            Assert.Equal(count, await Ann.Count(review, narrowed));
        }
    }
}
