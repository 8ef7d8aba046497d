using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Abbreviations are offered for the terms of a board as works explain them, and what they stand for.</summary>
public sealed class AbbreviatedTermTests : OddHost
{
    private static readonly string[] Titles =
    [
        "What artificial light at night (ALAN) does to moths",
        "Artificial light at night (ALAN) and the hedges of Quillmere",
        "ALAN (artificial light at night) in towns by the sea",
        "ALAN and bats over the river Isk",
        "A city without artificial light at night",
        "Another light (OAL) explained once only",
        "Moth counts at night and the moon",
    ];

    private int review;

    private async Task<IReadOnlyList<System.Text.Json.Nodes.JsonNode>> Offered(string line) =>
        [
            .. (
                await ann.Ok(
                    "POST",
                    $"/api/reviews/{review}/terms",
                    new
                    {
                        text = line,
                        stepId = await ann.Search(review, line),
                        source = "Kept",
                        works = Array.Empty<int>(),
                    }
                )
            ).List("abbreviated"),
        ];

    [Fact]
    public async Task An_abbreviation_for_its_long_form_and_the_long_form_for_it()
    {
        odd.Pages.Add(
            OddService.Around(
                string.Concat(
                    Titles.Select(
                        (t, i) => OddService.Dc(i + 1, $"<dc:title>{t}</dc:title><dc:date>{2001 + i}</dc:date>")
                    )
                )
            )
        );
        await ann.Harvest(odd.Address);
        review = await ann.Review();

        // Four works have the long form; a fifth has the abbreviation alone.
        var brief = Assert.Single(await Offered("\"artificial light at night\""));
        Assert.Equal(("ALAN", "ALAN"), (brief.Text("text"), brief.Text("expression").ToUpperInvariant()));
        Assert.Equal(
            ("artificial light at night", 4, 1),
            (brief.Text("standsFor").ToLowerInvariant(), brief.Int("all"), brief.Int("adds"))
        );
        var whole = Assert.Single(await Offered("ALAN"));
        Assert.Equal(
            ("\"artificial light at night\"", "ALAN", 1),
            (whole.Text("expression"), whole.Text("shortFor"), whole.Int("adds"))
        );
        // Taken, the line finds what was told.
        Assert.Equal(5, await ann.Count(review, await ann.Search(review, "ALAN OR \"artificial light at night\"")));

        // On the board already it is not offered; nor what one work alone explains; nor what was refused.
        Assert.Empty(await Offered("ALAN OR \"artificial light at night\""));
        Assert.Empty(await Offered("\"another light\""));
        await ann.Ok("PUT", $"/api/reviews/{review}/terms/refused", new { text = "ALAN", isRefused = true });
        Assert.Empty(await Offered("\"artificial light at night\""));
    }
}
