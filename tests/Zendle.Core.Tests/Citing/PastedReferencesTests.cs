using CsCheck;
using Zendle.Core.Citing;

namespace Zendle.Core.Tests.Citing;

/// <summary>Lists of references, as people paste them, fall into their entries.</summary>
public sealed class PastedReferencesTests
{
    private const string Berg = "Berg, M. K., & Voss, A. (2014). Moths at lit verges. Hedge Ecology, 12(3), 118-131.",
        Lind = "Lind T, Ilo N. Lamps and the seed set of campions. Verge Studies. 2009;4:10-19.",
        Tanaka = "Tanaka-Moe, S. 2021. Night pollinators of field margins: a review. Lamp Letters 7, e45.";

    private static string[] Split(string text) => [.. PastedReferences.Split(text)];

    public static TheoryData<string, string> Lists() =>
        new()
        {
            { "one a line", $"{Berg}\n{Lind}\n{Tanaka}" },
            { "lines of another system", $"{Berg}\r\n{Lind}\r\n\r\n{Tanaka}\r\n" },
            { "a heading above", $"References\n\n{Berg}\n{Lind}\n{Tanaka}" },
            { "numbers in brackets", $"[1] {Berg}\n[2] {Lind}\n[3] {Tanaka}" },
            { "numbers with full stops", $"1. {Berg}\n2. {Lind}\n3. {Tanaka}" },
            { "numbers alone", $"1 {Berg}\n2 {Lind}\n3 {Tanaka}" },
            { "bullets", $"• {Berg}\n• {Lind}\n• {Tanaka}" },
            {
                "numbered over several lines",
                "1. Berg, M. K., & Voss, A. (2014). Moths at lit\n   verges. Hedge Ecology, 12(3), 118-131.\n"
                    + "2. Lind T, Ilo N. Lamps and the\n"
                    + $"   seed set of campions. Verge Studies. 2009;4:10-19.\n3. {Tanaka}"
            },
            {
                "a hanging indent",
                "Berg, M. K., & Voss, A. (2014). Moths at lit verges.\n    Hedge Ecology, 12(3), 118-131.\n"
                    + "Lind T, Ilo N. Lamps and the seed\n"
                    + "    set of campions. Verge Studies. 2009;4:10-19.\n"
                    + "Tanaka-Moe, S. 2021. Night pollinators of field margins:\n    a review. Lamp Letters 7, e45."
            },
            {
                "words divided at line ends",
                "Berg, M. K., & Voss, A. (2014). Moths at lit ver-\nges. Hedge Ecology, 12(3), 118-131.\n"
                    + "Lind T, Ilo N. Lamps and the seed set of cam-\n"
                    + "pions. Verge Studies. 2009;4:10-19.\nTanaka-Moe, S. 2021. Night pollinators of field "
                    + "mar-\ngins: a review. Lamp Letters 7, e45."
            },
            {
                "blank lines between",
                "Berg, M. K., & Voss, A. (2014). Moths at lit verges.\nHedge Ecology, 12(3), 118-131.\n\n"
                    + "Lind T, Ilo N. Lamps and the seed set of campions.\n"
                    + "Verge Studies. 2009;4:10-19.\n\nTanaka-Moe, S. 2021. Night pollinators of field "
                    + "margins:\na review. Lamp Letters 7, e45."
            },
            {
                "a manuscript with line numbers",
                "201 Berg, M. K., & Voss, A. (2014). Moths at lit\n202 verges. Hedge Ecology, 12(3), "
                    + "118-131.\n203 Lind T, Ilo N. Lamps and the seed\n"
                    + "204 set of campions. Verge Studies. 2009;4:10-19.\n205 Tanaka-Moe, S. 2021. Night "
                    + "pollinators of\n206 field margins: a review. Lamp Letters 7, e45."
            },
        };

    [Theory]
    [MemberData(nameof(Lists))]
    public void A_list_falls_into_its_entries(string how, string text)
    {
        Assert.NotEmpty(how);
        Assert.Equal([Berg, Lind, Tanaka], Split(text));
    }

    [Fact]
    public void Two_columns_side_by_side_are_read_one_after_the_other() =>
        Assert.Equal(
            [
                "Berg, M. (2014). Moths at lit verges. Hedge Ecology, 12, 118.",
                "Lind, T. (2009). Lamps and campions. Verge Studies, 4, 10.",
                "Ilo, N. (2011). Bats of hedges. Lamp Letters, 2, 7.",
                "Voss, A. (2020). Dark lanes. Hedge Ecology, 18, 1.",
            ],
            Split(
                """
                Berg, M. (2014). Moths at lit       Ilo, N. (2011). Bats of
                    verges. Hedge Ecology,              hedges. Lamp Letters,
                    12, 118.                            2, 7.
                Lind, T. (2009). Lamps and          Voss, A. (2020). Dark
                    campions. Verge Studies,            lanes. Hedge Ecology,
                    4, 10.                              18, 1.
                """
            )
        );

    [Fact]
    public void Identifiers_a_line_each_are_entries_too() =>
        Assert.Equal(
            ["10.5555/a.1", "https://doi.org/10.5555/b.2", "doi:10.5555/c.3", "978-9-9999-9999-1"],
            Split("10.5555/a.1\nhttps://doi.org/10.5555/b.2\ndoi:10.5555/c.3\n978-9-9999-9999-1\n")
        );

    [Theory]
    // A numbered list whose lines a copy put together, in brackets and with stops; a number inside a title is none of it.
    [InlineData(
        "[1] Berg, M. Lamps and moths. J Dusk 2019;4:10-20. [2] Lind, P. Bats in barns. J Dusk "
            + "2020;5:1-9. [3] Okoro, T. Hedges. Ann Hedge 2011;1:2-3.",
        "Berg, M. Lamps and moths. J Dusk 2019;4:10-20.|Lind, P. Bats in barns. J Dusk 2020;5:1-9.|Okoro, T. Hedges. Ann Hedge 2011;1:2-3."
    )]
    [InlineData(
        "1. Berg M. Lamps and moths, part 2. Moths. J Dusk 2019;4:10-20. 2. Lind P. Bats in barns at night. J Dusk 2020;5:1-9.",
        "Berg M. Lamps and moths, part 2. Moths. J Dusk 2019;4:10-20.|Lind P. Bats in barns at night. J Dusk 2020;5:1-9."
    )]
    // Far in, with the next number near the end of the line.
    [InlineData(
        "                                                                        [1] Berg M. Lamps and moths. 2019. [2] L",
        "Berg M. Lamps and moths. 2019."
    )]
    // The people of the next reference, in two styles.
    [InlineData(
        "Berg, M. K., & Lind, P. (2019). Lamps and moths. Journal of Dusk, 12, 45–67. "
            + "Okoro, T. (2011). Hedges. Annals of Hedges, 1, 2–3.",
        "Berg, M. K., & Lind, P. (2019). Lamps and moths. Journal of Dusk, 12, 45–67."
            + "|Okoro, T. (2011). Hedges. Annals of Hedges, 1, 2–3."
    )]
    [InlineData(
        "Berg MK, Lind P. Lamps and moths at night. J Dusk. 2019;12:45-67. Okoro T, et al. Hedges in towns. Ann Hedge. 2011;1:2-3.",
        "Berg MK, Lind P. Lamps and moths at night. J Dusk. 2019;12:45-67.|Okoro T, et al. Hedges in towns. Ann Hedge. 2011;1:2-3."
    )]
    // DOIs in one line, in a sentence, and twice the same for one reference.
    [InlineData(
        "10.5555/a1, 10.5555/b2,10.5555/c3; https://doi.org/10.5555/d4",
        "10.5555/a1,|10.5555/b2|10.5555/c3|https://doi.org/10.5555/d4"
    )]
    [InlineData(
        "Berg, M. (2019). Lamps. J Dusk. doi:10.5555/a1 https://doi.org/10.5555/A1",
        "Berg, M. (2019). Lamps. J Dusk. doi:10.5555/a1 https://doi.org/10.5555/A1"
    )]
    // List elements of a page.
    [InlineData(
        "<ul><li>Berg M. <i>Lamps</i>. 2019.</li><li>Lind P. <i>Bats</i>. 2020.</li></ul>",
        "Berg M. Lamps. 2019.|Lind P. Bats. 2020."
    )]
    // Rows of a table without a head.
    [InlineData(
        "Lamps and moths\tBerg, M.\t2019\nBats in barns\tLind, P.\t2020",
        "Lamps and moths. Berg, M. 2019|Bats in barns. Lind, P. 2020"
    )]
    // What was cut short.
    [InlineData(
        "Berg et al., Lamps and moths in the parks of …\nLind et al., Bats in the barns of the...",
        "Berg et al., Lamps and moths in the parks of …|Lind et al., Bats in the barns of the..."
    )]
    public void References_that_ran_together_are_taken_apart(string text, string entries) =>
        Assert.Equal(entries.Split('|'), PastedReferences.Split(text));

    [Theory]
    [InlineData("Berg, M. (2019). Lamps, moths and the work of Lind, P. (1984) revisited. Journal of Dusk, 12, 45–67.")]
    [InlineData("Berg, M. (2019). A comment on “Bats in barns” by P. Lind. Journal of Dusk, 12, 45–67.")]
    [InlineData("[7] Berg, M. (2019). Lamps [8] and moths. Journal of Dusk, 12, 45–67.")]
    public void One_reference_stays_one(string text) => Assert.Single(PastedReferences.Split(text));

    [Fact]
    public void An_entry_keeps_its_lines_where_nothing_tells_that_they_are_one()
    {
        var titles = PastedReferences.Laid(
            "Moths at the lit verges of northern roads\nLamps and the seed set of campions"
        );
        Assert.Equal(
            ["Moths at the lit verges of northern roads", "Lamps and the seed set of campions"],
            titles.SelectMany(e => e.Lines)
        );
        Assert.Empty(
            Assert
                .Single(
                    PastedReferences.Laid(
                        "Berg, M. (2019). Lamps and moths, and what the\n  parks of the north make of them. J Dusk."
                    )
                )
                .Lines
        );
        Assert.Empty(
            Assert.Single(PastedReferences.Laid("[1] Moths at the lit verges of\nnorthern roads. J Dusk.")).Lines
        );
    }

    [Fact]
    public void Lines_that_all_begin_as_titles_and_have_no_years_are_titles()
    {
        string[] titles = [.. Enumerable.Range(0, 3_000).Select(i => $"Moths and lamps of {i} towns by the sea")];
        Assert.Equal(titles, Split(string.Join('\n', titles)));
        // A title that is broken at a margin goes on with a small letter.
        Assert.Single(Split("Moths at the lit verges of the\nnorthern roads and what\nThey do there"));
    }

    [Fact]
    public void An_issue_at_the_beginning_of_a_line_is_no_number_of_the_list() =>
        Assert.Equal(
            [
                "Berg, M. Lamps and moths. J Dusk 2019, 49 (2), 658–664.",
                "Lind, P. Bats. J Dusk 2020, 5, 1–9.",
                "Okoro, T. Hedges. 2011.",
            ],
            Split(
                "[1] Berg, M. Lamps and moths. J Dusk 2019, 49\n(2), 658–664.\n[2] Lind, P. Bats. J Dusk "
                    + "2020, 5, 1–9.\n[3] Okoro, T. Hedges. 2011."
            )
        );

    [Fact]
    public void Titles_a_line_each_are_entries_also_among_references() =>
        Assert.Equal(
            [Berg, "Moths at lit verges", "Lamps and the seed set of campions", Lind, "Night pollinators of margins"],
            Split(
                $"{Berg}\nMoths at lit verges\nLamps and the seed set of campions\n{Lind}\nNight pollinators of margins\n"
            )
        );

    [Theory]
    [InlineData("moth* AND light", false)]
    [InlineData("artificial light pollination 2015", false)]
    [InlineData("Does light at night change what moths do, and with it the pollination of crops?", false)]
    [InlineData(Berg, true)]
    [InlineData(Lind, true)]
    [InlineData($"{Berg}\n{Lind}", true)]
    public void References_are_told_from_words_to_search_for(string text, bool are) =>
        Assert.Equal(are, PastedReferences.LooksLikeSome(text));

    [Fact]
    public void Anything_that_is_pasted_is_split_soon_and_nothing_of_it_is_made_up() =>
        Gen.OneOf(
                Gen.Const("\n"),
                Gen.Const("\n\n"),
                Gen.Const("    "),
                Gen.Const("[3] "),
                Gen.Const("12. "),
                Gen.Const("• "),
                Gen.Const("-\n"),
                Gen.Const(Berg),
                Gen.Const("Lind T"),
                Gen.Const("\u00AD"),
                Gen.String[0, 12]
            )
            .Array[0, 30]
            .Sample(
                iter: 3_000,
                assert: parts =>
                {
                    var text = string.Concat(parts);
                    var letters = text.Where(char.IsLetter).ToHashSet();
                    Assert.All(
                        PastedReferences.Split(text),
                        e => Assert.All(e.Where(char.IsLetter), c => Assert.Contains(c, letters))
                    );
                }
            );

    [Fact]
    public void Three_thousand_are_taken_and_a_page_of_text_is_cut()
    {
        var many = string.Join('\n', Enumerable.Range(0, 4_000).Select(i => $"[{i}] {Berg} {i}"));
        Assert.Equal(PastedReferences.Most, Split(many).Length);
        Assert.Equal(PastedReferences.LongestEntry, Assert.Single(Split(new string('a', 9_000))).Length);
        Assert.Empty(Split(" \n\t\n 12 \n"));
    }

    /// <summary>
    /// Broken at a margin without an indent: years at the beginnings of lines are no numbers of a list, a publisher there is
    /// no name, and an address goes with the entry before it.
    /// </summary>
    [Fact]
    public void A_list_broken_at_a_margin_is_told_by_how_its_first_names_are_written()
    {
        string[] entries =
        [
            "Abbwimba, Priya, Clara Yilma, and Piotr Vongsbakka. 2021. ‘Lessons from 132 Reports on Ripple Current and "
                + "Ballasts’. Glare 80 (4): 95–100. http://outside.example/item/11562.",
            "Brandigora, K., and Priya Beaum. 2022. Where Artificial Light at Night Meets Moths. Upper Kellow: Quillmere "
                + "Press. Available from: http://outside.example/item/9",
            "Corvini, Hana F. 2024. ‘Moths of the River Isk and of the Long Valleys Behind It’. Under Glass 67 (2): 659–60. "
                + "http://outside.example/item/7226",
            "Dalmo, Bertil. 2025. ‘A Lamp on Every Wall of a Town by the Northern Sea’. Hedgerow 12 (1): 3–9.",
        ];
        string[] lines =
        [
            "Abbwimba, Priya, Clara Yilma, and Piotr Vongsbakka.",
            "2021. ‘Lessons from 132 Reports on Ripple Current and",
            "Ballasts’. Glare 80 (4): 95–100.",
            "http://outside.example/item/11562.",
            "Brandigora, K., and Priya Beaum.",
            "2022. Where Artificial Light at Night Meets Moths. Upper",
            "Kellow: Quillmere Press.",
            "Available from: http://outside.example/item/9",
            "Corvini, Hana F. 2024. ‘Moths of the River Isk and of the",
            "Long Valleys Behind It’. Under Glass 67 (2): 659–60.",
            "http://outside.example/item/7226",
            "Dalmo, Bertil. 2025. ‘A Lamp on Every Wall of a Town by",
            "the Northern Sea’. Hedgerow 12 (1): 3–9.",
        ];
        Assert.Equal(entries, Split(string.Join('\n', lines)));
        Assert.Equal(entries, Split(string.Join('\n', lines.Select((l, i) => $"{i + 40} {l}"))));
    }
}
