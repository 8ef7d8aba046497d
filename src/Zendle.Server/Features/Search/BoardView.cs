using Zendle.Core.Queries;
using Zendle.Core.Sets;

namespace Zendle.Server.Features.Search;

/// <summary>A row of a card: a term, or a block's or a limit's whole text.</summary>
/// <param name="Text">The row as an expression.</param>
/// <param name="Meaning">What it asks for, in words.</param>
/// <param name="Count">Works it finds by itself in the chosen databases.</param>
/// <param name="OnlyIt">Works that only it brings in; under "without", works that only it takes away. Null where it
/// cannot be told.</param>
/// <param name="ByKeywords">Works in whose authors' keywords it stands; null for a row that looks elsewhere.</param>
/// <param name="ByControlled">Works in whose controlled terms it stands; null likewise.</param>
/// <param name="KeptHit">Under "without": kept works among those it takes away.</param>
/// <param name="Stays">Under "without": works that stay although it stands in one of their records, through another
/// record.</param>
internal sealed record BoardRowDto(
    string Text,
    string Meaning,
    int Count,
    int? OnlyIt,
    int? ByKeywords,
    int? ByControlled,
    int KeptHit,
    int Stays
);

/// <summary>A card of the board; acts name it by its place.</summary>
/// <param name="Kind">"Concept", "Block", "Without" or "Limit".</param>
/// <param name="Letter">Letter of the concept; null for other cards.</param>
/// <param name="Scope">Name of the field its terms are looked for in.</param>
/// <param name="Near">At most so many words between its terms; null when any is enough.</param>
/// <param name="Count">Works it finds; under "without", works it takes away.</param>
/// <param name="KeptHit">Under "without": kept works among those it takes away.</param>
/// <param name="Stays">Under "without": works that stay although one of its terms stands in one of their records,
/// through another record.</param>
/// <param name="Rows">Its rows.</param>
internal sealed record BoardCardDto(
    CardKind Kind,
    string? Letter,
    string Scope,
    int? Near,
    int Count,
    int KeptHit,
    int Stays,
    IReadOnlyList<BoardRowDto> Rows
);

/// <summary>Asks for what an act on the board makes of a line.</summary>
internal sealed record BoardRequest(string Text, BoardEdit Edit);

/// <summary>The line after an act on the board.</summary>
internal sealed record BoardEditedDto(string Text);

/// <summary>
/// Counts the rows of a board. What a row alone brings in is asked of the very node it was printed from.
/// </summary>
internal sealed class BoardView(PartCounts counts, WorkSet kept)
{
    private const int MostRows = 80;
    private int rows;

    /// <summary>The cards with their counts.</summary>
    public IReadOnlyList<BoardCardDto> Cards()
    {
        var board = SearchBoard.Of(counts.Root);
        var concepts = new Queue<Concept>(Concepts.Of(counts.Root));
        return
        [
            .. board.Cards.Select(card =>
                card.Kind switch
                {
                    CardKind.Without => Without(card, board),
                    CardKind.Limit => Card(card, null),
                    _ => Card(card, concepts.Dequeue()),
                }
            ),
        ];
    }

    private BoardCardDto Card(BoardCard card, Concept? concept)
    {
        TermNode[] nodes = concept is null ? [] : [.. concept.Terms.Select(t => t.Term)];
        return new(
            card.Kind,
            concept?.Letter.ToString(),
            QueryFields.Name(card.Scope),
            card.Near,
            counts.Works(Read(card.Expression)).Count(),
            0,
            0,
            [.. Shown(card).Select(text => Row(card, text, nodes))]
        );
    }

    private BoardRowDto Row(BoardCard card, string text, TermNode[] nodes)
    {
        var asked = Read(text);
        var node = NodeOf(asked, nodes);
        var (term, field) = asked is FieldNode { Part: TermNode inner, Field: var named }
            ? (inner, named)
            : (asked as TermNode, card.Scope);
        var looksInKeywords = term is not null && field is QueryField.About or QueryField.Keywords;
        return new(
            text,
            QueryText.Meaning(asked, card.Scope),
            node is null || asked is FieldNode
                ? counts.Works(asked, card.Scope).Count()
                : counts.Count(node, card.Scope),
            node is null ? null : counts.OnlyIt(node),
            looksInKeywords ? counts.InKeywords(term!, isControlled: false) : null,
            looksInKeywords ? counts.InKeywords(term!, isControlled: true) : null,
            0,
            0
        );
    }

    private BoardCardDto Without(BoardCard card, SearchBoard board)
    {
        var (refused, rest) = (
            counts.Works(Read(card.Expression["NOT ".Length..])),
            new SearchBoard(board.Cards.Remove(card)).Expression
        );
        var gone = Less(rest.Length == 0 ? refused : counts.Works(Read(rest)), counts.Whole);
        var nodes = Refused(counts.Root).ToArray();
        return new(
            card.Kind,
            null,
            QueryFields.Name(card.Scope),
            null,
            gone.Count(),
            gone.CountWith(kept),
            refused.CountWith(counts.Whole),
            [.. Shown(card).Select(text => RefusedRow(text, nodes))]
        );
    }

    private BoardRowDto RefusedRow(string text, TermNode[] nodes)
    {
        var asked = Read(text);
        var (node, found) = (NodeOf(asked, nodes), counts.Works(asked));
        var gone = node is null ? null : Less(counts.Without(node), counts.Whole);
        return new(
            text,
            QueryText.Meaning(asked),
            found.Count(),
            gone?.Count(),
            null,
            null,
            gone?.CountWith(kept) ?? 0,
            found.CountWith(counts.Whole)
        );
    }

    private IEnumerable<string> Shown(BoardCard card) => card.Terms.TakeWhile(_ => rows++ < MostRows);

    private static QueryNode Read(string expression) => QueryReader.Read(expression).Root!;

    /// <summary>The term of the line that a row was printed from; null for a row that is no term.</summary>
    private static TermNode? NodeOf(QueryNode asked, TermNode[] nodes)
    {
        var text = QueryText.Print(asked is FieldNode { Part: TermNode inner } ? inner : asked);
        return Array.Find(nodes, n => QueryText.Print(n) == text);
    }

    private static WorkSet Less(WorkSet from, WorkSet what)
    {
        var left = from.Copy();
        left.ExceptWith(what);
        return left;
    }

    /// <summary>The terms under NOT.</summary>
    private static IEnumerable<TermNode> Refused(QueryNode node) =>
        node switch
        {
            AndNode a => a.Parts.SelectMany(Refused),
            FieldNode f => Refused(f.Part),
            NotNode n => Concepts.Terms(n.Part, QueryField.About).Select(t => t.Term),
            _ => [],
        };
}
