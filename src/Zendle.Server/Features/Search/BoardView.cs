using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Index.Questions;

namespace Zendle.Server.Features.Search;

/// <summary>A row of a card: a term, or a block's or a limit's whole text.</summary>
/// <param name="Text">The row as an expression.</param>
/// <param name="Meaning">What it asks for, in words.</param>
/// <param name="Count">Works it finds by itself in the chosen databases.</param>
/// <param name="OnlyIt">Works that only it brings in; under "without", works that only it takes away. Null where it cannot be told.</param>
/// <param name="KeptHit">Under "without": kept works among those it takes away.</param>
/// <param name="Stays">Under "without": works that stay although it stands in one of their records, through another record.</param>
internal sealed record BoardRowDto(string Text, string Meaning, int Count, int? OnlyIt, int KeptHit, int Stays);

/// <summary>A card of the board; acts name it by its place.</summary>
/// <param name="Kind">"Concept", "Block", "Without" or "Limit".</param>
/// <param name="Letter">Letter of the concept; null for other cards.</param>
/// <param name="Scope">Name of the field its terms are looked for in.</param>
/// <param name="Near">At most so many words between its terms; null when any is enough.</param>
/// <param name="Count">Works it finds; under "without", works it takes away.</param>
/// <param name="Rows">Its rows.</param>
internal sealed record BoardCardDto(CardKind Kind, string? Letter, string Scope, int? Near, int Count, IReadOnlyList<BoardRowDto> Rows);

/// <summary>Asks for what an act on the board makes of a line.</summary>
internal sealed record BoardRequest(string Text, BoardEdit Edit);

/// <summary>The line after an act on the board.</summary>
internal sealed record BoardEditedDto(string Text);

/// <summary>Counts the rows of a board. What a row alone brings in is asked of the very node it was printed from.</summary>
internal sealed class BoardView(QuestionEvaluator evaluator, SearchState state, QueryNode root, BitSet kept)
{
    private const int MostRows = 80;
    private int rows;

    private BitSet Works(BitSet records) => evaluator.Works(records, state.Databases);

    /// <summary>The cards with their counts.</summary>
    public IReadOnlyList<BoardCardDto> Cards()
    {
        var whole = Works(evaluator.Records(root));
        var concepts = Concepts.Of(root);
        var (next, cards) = (0, new List<BoardCardDto>());
        foreach (var card in SearchBoard.Of(root).Cards)
        {
            var concept = card.Kind is CardKind.Concept or CardKind.Block && next < concepts.Length ? concepts[next++] : null;
            var nodes = card.Kind == CardKind.Without ? Refused(root).ToArray() : concept is null ? [] : [.. concept.Terms.Select(t => t.Term)];
            var asked = QueryReader.Read(card.Kind == CardKind.Without ? card.Expression[4..] : card.Expression).Root!;
            var count = card.Kind == CardKind.Without ? Gone(asked, whole) : Works(evaluator.Records(asked)).Count();
            cards.Add(new(card.Kind, concept?.Letter.ToString(), QueryFields.Name(card.Scope), card.Near, count, [.. card.Terms.TakeWhile(_ => rows++ < MostRows).Select(t => Row(card, t, nodes, whole))]));
        }
        return cards;
    }

    private BoardRowDto Row(BoardCard card, string text, TermNode[] nodes, BitSet whole)
    {
        var asked = QueryReader.Read(text).Root!;
        var node = nodes.FirstOrDefault(n => QueryText.Print(n) == (asked is FieldNode { Part: TermNode inner } ? QueryText.Print(inner) : text));
        var found = Works(evaluator.Records(asked, card.Scope));
        if (node is null) return new(text, QueryText.Meaning(asked, card.Scope), found.Count(), null, 0, 0);
        var others = ReferenceEquals(node, root) ? new BitSet(whole.Size) : Works(evaluator.Records(root, QueryField.About, without: node));
        if (card.Kind != CardKind.Without) return new(text, QueryText.Meaning(asked, card.Scope), found.Count(), Less(whole, others).Count(), 0, 0);
        var gone = Less(others, whole);
        return new(text, QueryText.Meaning(asked, card.Scope), found.Count(), gone.Count(), gone.CountWith(kept), found.CountWith(whole));
    }

    /// <summary>Works that the rest of the line finds and the card takes away.</summary>
    private int Gone(QueryNode asked, BitSet whole)
    {
        var rest = string.Join(" AND ", SearchBoard.Of(root).Cards.Where(c => c.Kind != CardKind.Without).Select(c => c.Expression));
        var found = rest.Length == 0 ? Works(evaluator.Records(asked)) : Works(evaluator.Records(QueryReader.Read(rest).Root!));
        return Less(found, whole).Count();
    }

    private static BitSet Less(BitSet from, BitSet what)
    {
        var left = from.Copy();
        left.ExceptWith(what);
        return left;
    }

    /// <summary>The terms under NOT.</summary>
    private static IEnumerable<TermNode> Refused(QueryNode node) => node switch
    {
        AndNode a => a.Parts.SelectMany(Refused),
        FieldNode f => Refused(f.Part),
        NotNode n => Concepts.Terms(n.Part, QueryField.About).Select(t => t.Term),
        _ => [],
    };
}
