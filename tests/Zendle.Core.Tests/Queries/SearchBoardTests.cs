using Zendle.Core.Queries;

namespace Zendle.Core.Tests.Queries;

public sealed class SearchBoardTests
{
    private static SearchBoard Board(string line) => SearchBoard.Of(QueryReader.Read(line).Root);

    private static string Told(SearchBoard board) =>
        string.Join(
            " / ",
            board.Cards.Select(c =>
                $"{c.Kind}{(c.Scope == QueryField.About ? "" : " " + QueryFields.Name(c.Scope))}{(c.Near is { } n ? $" near {n}" : "")}: "
                + $"{string.Join(", ", c.Terms)}"
            )
        );

    private static string After(string line, BoardEdit edit)
    {
        var board = Board(line).With(edit, out var whyNot);
        Assert.Equal(board is null, whyNot is not null);
        return board?.Expression ?? whyNot!;
    }

    [Theory]
    [InlineData("moth*", "Concept: moth*")]
    [InlineData(
        "(moth* OR \"night flight\") AND (lamp* OR light)",
        "Concept: moth*, \"night flight\" / Concept: lamp*, light"
    )]
    [InlineData("moth lamp", "Concept: moth / Concept: lamp")]
    [InlineData(
        "title:(moth OR bee) AND year:2010-2020 AND type:review",
        "Concept title: moth, bee / Limit: year:2010-2020 / Limit: type:review"
    )]
    [InlineData("title:(moth AND lamp)", "Concept title: moth / Concept title: lamp")]
    [InlineData("moth NEAR/3 lamp AND bat", "Concept near 3: moth, lamp / Concept: bat")]
    [InlineData("moth AND NOT (bat OR owl) AND NOT title:bird", "Concept: moth / Without: bat, owl, title:bird")]
    [InlineData("(moth OR title:bee) AND x", "Concept: moth, title:bee / Concept: x")]
    [InlineData("(moth AND lamp) OR bat", "Block: ((moth AND lamp) OR bat)")]
    [InlineData("(moth OR bee) NEAR/4 lamp", "Block: ((moth OR bee) NEAR/4 lamp)")]
    [InlineData("NOT (moth AND lamp)", "Without: (moth AND lamp)")]
    [InlineData("author:berg AND doi:10.5555/a", "Concept author: berg / Limit: doi:10.5555/a")]
    [InlineData("moth AND (year:1992 OR type:review)", "Concept: moth / Limit: (year:1992 OR type:review)")]
    [InlineData("", "")]
    public void An_expression_is_laid_out_as_cards(string line, string cards) => Assert.Equal(cards, Told(Board(line)));

    [Theory]
    [InlineData("(moth* OR \"night flight\") AND lamp* AND NOT (bat OR owl)")]
    [InlineData("title:(moth OR bee) AND year:2010-2020 AND (x NEAR/3 y)")]
    [InlineData("((moth AND lamp) OR bat) AND title:x")]
    public void A_board_gives_the_expression_it_was_made_from(string line)
    {
        Assert.Equal(line, Board(line).Expression);
        Assert.Equal(Told(Board(line)), Told(Board(Board(line).Expression)));
    }

    [Fact]
    public void Terms_are_added_to_a_card_a_new_concept_or_without()
    {
        Assert.Equal("(moth OR bee) AND lamp", After("moth AND lamp", new(BoardEditKind.Add, 0, Text: "bee")));
        Assert.Equal(
            "(moth OR bee OR wasp) AND lamp",
            After("moth AND lamp", new(BoardEditKind.Add, 0, Text: "bee OR wasp OR moth"))
        );
        Assert.Equal("moth AND lamp AND dusk", After("moth AND lamp", new(BoardEditKind.Add, 2, Text: "dusk")));
        Assert.Equal("moth AND dusk AND NOT owl", After("moth AND NOT owl", new(BoardEditKind.Add, 2, Text: "dusk")));
        Assert.Equal("moth AND NOT (owl OR bat)", After("moth AND NOT owl", new(BoardEditKind.Add, -1, Text: "bat")));
        Assert.Equal("moth AND NOT bat", After("moth", new(BoardEditKind.Add, -1, Text: "bat")));
        Assert.Equal("dusk", After("", new(BoardEditKind.Add, 0, Text: "dusk")));
    }

    [Fact]
    public void Words_side_by_side_on_a_row_are_words_in_a_row()
    {
        Assert.Equal("(moth OR \"street light\")", After("moth", new(BoardEditKind.Add, 0, Text: "street light")));
        Assert.Equal(
            "(moth OR \"street light*\")",
            After("moth", new(BoardEditKind.Add, 0, Text: "\"street light*\""))
        );
    }

    [Theory]
    [InlineData("bee AND wasp", "A row holds one term")]
    [InlineData("NOT bee", "A row holds one term")]
    [InlineData("(bee", "parenthesis")]
    [InlineData("", "Write a term")]
    public void What_is_no_row_is_refused_with_a_sentence(string text, string says) =>
        Assert.Contains(says, After("moth", new(BoardEditKind.Add, 0, Text: text)), StringComparison.Ordinal);

    [Fact]
    public void A_row_is_changed_in_its_place_or_taken_out_and_an_empty_card_goes()
    {
        Assert.Equal(
            "(moth OR hawkmoth* OR bee) AND lamp",
            After("(moth OR wasp OR bee) AND lamp", new(BoardEditKind.Change, 0, 1, "hawkmoth*"))
        );
        Assert.Equal(
            "(moth OR bee) AND lamp",
            After("(moth OR wasp OR bee) AND lamp", new(BoardEditKind.Remove, 0, 1))
        );
        Assert.Equal("lamp", After("moth AND lamp", new(BoardEditKind.Remove, 0, 0)));
        Assert.Equal("lamp", After("(moth OR bee) AND lamp", new(BoardEditKind.Remove, 0)));
        Assert.Equal(
            "moth AND year:2015",
            After("moth AND year:2010-2020", new(BoardEditKind.Change, 1, 0, "year:2015"))
        );
        Assert.Equal("moth", After("moth AND year:2010-2020", new(BoardEditKind.Change, 1, 0, "")));
    }

    [Fact]
    public void Rows_move_between_cards_and_keep_their_scope()
    {
        Assert.Equal("moth AND (lamp OR bee)", After("(moth OR bee) AND lamp", new(BoardEditKind.Move, 0, 1, To: 1)));
        Assert.Equal("lamp AND moth", After("moth AND lamp", new(BoardEditKind.Move, 0, 0, To: 2)));
        Assert.Equal("(lamp OR moth)", After("moth AND lamp", new(BoardEditKind.Move, 0, 0, To: 1)));
        Assert.Equal(
            "moth AND lamp AND NOT bee",
            After("(moth OR bee) AND lamp", new(BoardEditKind.Move, 0, 1, To: -1))
        );
        Assert.Equal("(moth OR owl)", After("moth AND NOT owl", new(BoardEditKind.Move, 1, 0, To: 0)));
        Assert.Equal(
            "title:moth AND (lamp OR title:bee)",
            After("title:(moth OR bee) AND lamp", new(BoardEditKind.Move, 0, 1, To: 1))
        );
        Assert.Equal(
            "title:(moth OR bee) AND lamp",
            After("title:moth AND (lamp OR title:bee)", new(BoardEditKind.Move, 1, 1, To: 0))
        );
        Assert.StartsWith(
            "A block or a limit",
            After("moth AND year:2010", new(BoardEditKind.Move, 0, 0, To: 1)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Scope_and_nearness_are_the_cards()
    {
        Assert.Equal(
            "title:(moth OR bee) AND lamp",
            After("(moth OR bee) AND lamp", new(BoardEditKind.Scope, 0, Scope: QueryField.Title))
        );
        Assert.Equal(
            "(moth OR bee)",
            After("title:(moth OR bee)", new(BoardEditKind.Scope, 0, Scope: QueryField.About))
        );
        Assert.Equal(
            "(moth NEAR/5 bee) AND lamp",
            After("(moth OR bee) AND lamp", new(BoardEditKind.Near, 0, Near: 5))
        );
        Assert.Equal("(moth OR bee)", After("moth NEAR/5 bee", new(BoardEditKind.Near, 0, Near: null)));
        Assert.Contains("is 0 to 50", After("moth", new(BoardEditKind.Near, 0, Near: 51)), StringComparison.Ordinal);
        Assert.Contains(
            "running words",
            After("moth", new(BoardEditKind.Scope, 0, Scope: QueryField.Doi)),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "field of its own",
            After("(moth OR title:bee)", new(BoardEditKind.Near, 0, Near: 5)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void An_act_on_a_board_that_has_changed_is_refused() =>
        Assert.StartsWith(
            "The board has changed",
            After("moth", new(BoardEditKind.Remove, 4, 1)),
            StringComparison.Ordinal
        );
}
