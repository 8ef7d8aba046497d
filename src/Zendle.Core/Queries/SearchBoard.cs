using System.Collections.Immutable;
using System.Globalization;

namespace Zendle.Core.Queries;

/// <summary>What a card of the board stands for.</summary>
public enum CardKind
{
    /// <summary>A concept: terms, any of which is enough, or which must stand near each other.</summary>
    Concept,

    /// <summary>A concept that is not a list of terms; it stands as one block of text.</summary>
    Block,

    /// <summary>What must not hold.</summary>
    Without,

    /// <summary>A limit by a field that holds one value: years, type, language, identifiers.</summary>
    Limit,
}

/// <summary>A card of the board.</summary>
/// <param name="Kind">What it stands for.</param>
/// <param name="Scope">Where its terms are looked for.</param>
/// <param name="Near">At most so many words between neighbouring terms; null when any term is enough.</param>
/// <param name="Terms">Its rows as expressions; one for a block or a limit.</param>
public sealed record BoardCard(CardKind Kind, QueryField Scope, int? Near, ImmutableArray<string> Terms)
{
    /// <summary>The card as an expression; empty for a card without terms.</summary>
    public string Expression
    {
        get
        {
            if (Terms.IsEmpty)
                return "";
            if (Kind is CardKind.Block or CardKind.Limit)
                return Terms[0];
            var joined = string.Join(
                Near is { } n && Terms.Length > 1 ? string.Create(CultureInfo.InvariantCulture, $" NEAR/{n} ") : " OR ",
                Terms
            );
            if (Kind == CardKind.Without)
                return Terms.Length == 1 ? $"NOT {joined}" : $"NOT ({joined})";
            // A row that names a field of its own is not looked for in the card's.
            if (Scope != QueryField.About && !(Terms.Length == 1 && NamesField(joined)))
                return Terms.Length == 1
                    ? $"{QueryFields.Name(Scope)}:{joined}"
                    : $"{QueryFields.Name(Scope)}:({joined})";
            return Terms.Length == 1 ? joined : $"({joined})";
        }
    }

    /// <summary>The terms of its rows that are looked for in running words.</summary>
    public IEnumerable<TermNode> TextTerms =>
        Terms
            .Select(t => QueryReader.Read(t).Root)
            .OfType<QueryNode>()
            .SelectMany(n => Concepts.Terms(n, Scope))
            .Where(t => Concepts.IsText(t.Field))
            .Select(t => t.Term);

    private static bool NamesField(string term) =>
        term.Contains(':', StringComparison.Ordinal) && QueryReader.Read(term).Root is FieldNode or YearsNode;
}

/// <summary>An act on the board.</summary>
/// <param name="Kind">What is done.</param>
/// <param name="Card">The card it is done to; one behind the last for a new concept.</param>
/// <param name="Term">The row; −1 where none is meant.</param>
/// <param name="Text">What is written, for adding and changing.</param>
/// <param name="To">The card a row moves to; one behind the last for a new concept; −1 for "without".</param>
/// <param name="Scope">The new scope.</param>
/// <param name="Near">The new nearness; null for any of the terms.</param>
public sealed record BoardEdit(
    BoardEditKind Kind,
    int Card,
    int Term = -1,
    string Text = "",
    int To = 0,
    QueryField Scope = QueryField.About,
    int? Near = null
);

/// <summary>What can be done on the board.</summary>
public enum BoardEditKind
{
    /// <summary>A term is added to a card, a new concept, or (card −1) to what must not hold.</summary>
    Add,

    /// <summary>A row is written anew.</summary>
    Change,

    /// <summary>A row, or without a row the card, is taken out.</summary>
    Remove,

    /// <summary>A row goes to another card.</summary>
    Move,

    /// <summary>The card's terms are looked for elsewhere.</summary>
    Scope,

    /// <summary>The card's terms must stand near each other, or any is enough.</summary>
    Near,
}

/// <summary>
/// An expression laid out as cards that all must hold. Board and expression are two views of one search: every
/// expression has a board, and the board's expression finds what that one found.
/// </summary>
/// <param name="Cards">The cards in the order of the expression; at most one of kind <see cref="CardKind.Without"/>,
/// the last.</param>
public sealed record SearchBoard(ImmutableArray<BoardCard> Cards)
{
    /// <summary>Nearest and farthest a card's terms may be asked to stand.</summary>
    public const int MostNear = 50;

    /// <summary>Lays an expression out. What is no list of terms stands as one block. O(nodes).</summary>
    public static SearchBoard Of(QueryNode? root)
    {
        var cards = ImmutableArray.CreateBuilder<BoardCard>();
        var without = ImmutableArray.CreateBuilder<string>();
        Visit(root, QueryField.About);
        if (without.Count > 0)
            cards.Add(new(CardKind.Without, QueryField.About, null, [.. without.Distinct()]));
        return new(cards.ToImmutable());

        void Visit(QueryNode? node, QueryField scope)
        {
            switch (node)
            {
                case null or AllNode:
                    break;
                case AndNode and:
                    foreach (var part in and.Parts)
                        Visit(part, scope);
                    break;
                case FieldNode { Part: AndNode inner } f when Concepts.IsText(f.Field):
                    Visit(inner, f.Field);
                    break;
                case NotNode not:
                    without.AddRange(Rows(not.Part, scope) ?? [Row(not.Part, scope)]);
                    break;
                case YearsNode:
                    cards.Add(new(CardKind.Limit, QueryField.About, null, [QueryText.Print(node)]));
                    break;
                case FieldNode f when !Concepts.IsText(f.Field):
                    cards.Add(new(CardKind.Limit, QueryField.About, null, [QueryText.Print(f)]));
                    break;
                case OrNode or NearNode when !Concepts.Terms(node, scope).Any(t => Concepts.IsText(t.Field)):
                    // Years or types with OR between them say nothing in words: a limit, not a concept.
                    cards.Add(new(CardKind.Limit, QueryField.About, null, [Row(node, QueryField.About)]));
                    break;
                case FieldNode f:
                    cards.Add(Card(f.Part, f.Field) ?? Block(f, QueryField.About));
                    break;
                default:
                    cards.Add(Card(node, scope) ?? Block(node, scope));
                    break;
            }
        }
    }

    /// <summary>The expression that finds what the board asks for; empty for an empty board.</summary>
    public string Expression => string.Join(" AND ", Cards.Select(c => c.Expression).Where(e => e.Length > 0));

    /// <summary>The board after an act; null with a sentence when it cannot be done.</summary>
    public SearchBoard? With(BoardEdit edit, out string? whyNot)
    {
        var after = After(edit, out whyNot);
        // Whatever the act was, on a card of near words only plain terms can stand.
        if (
            after is null
            || !after.Cards.Any(c =>
                c is { Near: not null, Kind: CardKind.Concept }
                && c.Terms.Any(t => QueryReader.Read(t).Root is not TermNode)
            )
        )
            return after;
        whyNot = "Only plain terms can stand near each other; one of these has a field of its own.";
        return null;
    }

    private SearchBoard? After(BoardEdit edit, out string? whyNot)
    {
        whyNot = null;
        var card = edit.Card >= 0 && edit.Card < Cards.Length ? Cards[edit.Card] : null;
        var isNew = edit.Card == Cards.Length || edit.Card == -1;
        var hasRow = card is not null && edit.Term >= 0 && edit.Term < card.Terms.Length;
        switch (edit.Kind)
        {
            case BoardEditKind.Add when card is not null || isNew:
                if (RowsOf(edit.Text, out whyNot) is not { } added)
                    return null;
                return Put(edit.Card, added);
            case BoardEditKind.Change when hasRow:
                if (card!.Kind is CardKind.Block or CardKind.Limit)
                    return Changed(edit.Card, card with { Terms = [edit.Text.Trim()] }, out whyNot);
                if (RowsOf(edit.Text, out whyNot) is not { } written)
                    return null;
                return Replace(
                    edit.Card,
                    card with
                    {
                        Terms = [.. card.Terms.RemoveAt(edit.Term).InsertRange(edit.Term, written).Distinct()],
                    }
                );
            case BoardEditKind.Remove when card is not null && edit.Term < 0:
                return new(Cards.RemoveAt(edit.Card));
            case BoardEditKind.Remove when hasRow:
                return Replace(edit.Card, card! with { Terms = card.Terms.RemoveAt(edit.Term) });
            case BoardEditKind.Move when hasRow && edit.To >= -1 && edit.To <= Cards.Length && edit.To != edit.Card:
                if (
                    card!.Kind is CardKind.Block or CardKind.Limit
                    || (
                        edit.To >= 0
                        && edit.To < Cards.Length
                        && Cards[edit.To].Kind is CardKind.Block or CardKind.Limit
                    )
                )
                {
                    whyNot = "A block or a limit holds no rows; change its text instead.";
                    return null;
                }
                if (card.Kind == CardKind.Without && edit.To == -1)
                    return this; // it stands there already
                // The row is put there first, so that the numbers of the cards still hold.
                var moved = Put(edit.To, [Scoped(card, card.Terms[edit.Term])]);
                return moved.Replace(moved.Find(card), card with { Terms = card.Terms.RemoveAt(edit.Term) });
            case BoardEditKind.Scope when card is { Kind: CardKind.Concept }:
                if (!Concepts.IsText(edit.Scope))
                {
                    whyNot = "Terms are looked for in running words; this field holds one value.";
                    return null;
                }
                return Replace(edit.Card, card with { Scope = edit.Scope });
            case BoardEditKind.Near when card is { Kind: CardKind.Concept }:
                if (edit.Near is < 0 or > MostNear)
                {
                    whyNot = $"The distance between words is 0 to {MostNear}.";
                    return null;
                }
                return Replace(edit.Card, card with { Near = edit.Near });
            default:
                whyNot = "The board has changed in the meantime. Look again.";
                return null;
        }
    }

    private int Find(BoardCard card) => Cards.IndexOf(card);

    /// <summary>A row that keeps its card's scope where it goes.</summary>
    private static string Scoped(BoardCard from, string row) =>
        from.Scope == QueryField.About || row.Contains(':', StringComparison.Ordinal)
            ? row
            : $"{QueryFields.Name(from.Scope)}:{row}";

    private SearchBoard Put(int at, IReadOnlyList<string> rows)
    {
        if (at == -1)
        {
            var without = Cards.Length > 0 && Cards[^1].Kind == CardKind.Without ? Cards.Length - 1 : -1;
            return without >= 0
                ? Replace(without, Cards[without] with { Terms = [.. Cards[without].Terms.Concat(rows).Distinct()] })
                : new(Cards.Add(new(CardKind.Without, QueryField.About, null, [.. rows.Distinct()])));
        }
        if (at < Cards.Length && Cards[at].Kind is CardKind.Concept or CardKind.Without)
        {
            var card = Cards[at];
            // A row that says the card's own scope again need not say it.
            var own = QueryFields.Name(card.Scope) + ":";
            return Replace(
                at,
                card with
                {
                    Terms =
                    [
                        .. card
                            .Terms.Concat(
                                rows.Select(r =>
                                    card.Kind == CardKind.Concept
                                    && card.Scope != QueryField.About
                                    && r.StartsWith(own, StringComparison.Ordinal)
                                        ? r[own.Length..]
                                        : r
                                )
                            )
                            .Distinct(),
                    ],
                }
            );
        }
        var end = Cards.Length > 0 && Cards[^1].Kind == CardKind.Without ? Cards.Length - 1 : Cards.Length;
        return new(Cards.Insert(end, new(CardKind.Concept, QueryField.About, null, [.. rows.Distinct()])));
    }

    private SearchBoard Replace(int at, BoardCard card) =>
        new(card.Terms.IsEmpty ? Cards.RemoveAt(at) : Cards.SetItem(at, card));

    private SearchBoard? Changed(int at, BoardCard card, out string? whyNot)
    {
        whyNot = null;
        if (card.Terms[0].Length == 0)
            return new(Cards.RemoveAt(at));
        var read = QueryReader.Read(card.Terms[0]);
        if (read.IsSound && read.Root is not null)
            return new(
                Of(read.Root).Cards is [var only]
                    ? Cards.SetItem(at, only)
                    : Cards.SetItem(at, card with { Kind = CardKind.Block, Terms = [$"({card.Terms[0]})"] })
            );
        whyNot = read.Problems.Length > 0 ? read.Problems[0].Sentence : "This cannot be read.";
        return null;
    }

    /// <summary>
    /// What a person wrote as rows: a term, several joined by OR, words side by side as a phrase; null with a sentence
    /// for anything else.
    /// </summary>
    private static IReadOnlyList<string>? RowsOf(string text, out string? whyNot)
    {
        whyNot = null;
        var read = QueryReader.Read(text.Trim());
        if (!read.IsSound || read.Root is null or AllNode)
        {
            whyNot =
                read.Problems.Length > 0
                    ? read.Problems[0].Sentence
                    : "Write a term: a word, words in a row, or a beginning with *.";
            return null;
        }
        if (Rows(read.Root, QueryField.About) is { } rows)
            return rows;
        // Words side by side on one row are meant in a row.
        if (
            read.Root is AndNode and
            && and.Parts.All(p => p is TermNode { Quoted: false })
            && !text.Contains(" AND ", StringComparison.Ordinal)
        )
            return [$"\"{string.Join(' ', and.Parts.Select(QueryText.Print))}\""];
        whyNot =
            "A row holds one term, or several joined by OR. AND goes between cards, and terms to exclude go under “without”.";
        return null;
    }

    private static BoardCard? Card(QueryNode node, QueryField scope)
    {
        if (node is NearNode near && near.Distances.Distinct().Count() == 1 && near.Parts.All(p => p is TermNode))
            return new(CardKind.Concept, scope, near.Distances[0], [.. near.Parts.Select(QueryText.Print)]);
        return Rows(node, QueryField.About) is { } rows
            ? new(CardKind.Concept, scope, null, [.. rows.Distinct()])
            : null;
    }

    private static BoardCard Block(QueryNode node, QueryField scope) =>
        new(CardKind.Block, QueryField.About, null, [Row(node, scope)]);

    /// <summary>A node as one row: in parentheses, under its scope.</summary>
    private static string Row(QueryNode node, QueryField scope) =>
        scope == QueryField.About || node is FieldNode or YearsNode
            ? node is TermNode or FieldNode or YearsNode
                ? QueryText.Print(node)
                : $"({QueryText.Print(node)})"
            : QueryText.Print(new FieldNode(node.Span, scope, node));

    /// <summary>The rows of a term or a list of terms; null when it is neither.</summary>
    private static IReadOnlyList<string>? Rows(QueryNode node, QueryField scope) =>
        node switch
        {
            TermNode or FieldNode { Part: TermNode } => [Row(node, scope)],
            OrNode either when either.Parts.All(p => p is TermNode or FieldNode { Part: TermNode }) =>
            [
                .. either.Parts.Select(p => Row(p, scope)),
            ],
            FieldNode { Part: OrNode inner } f when Concepts.IsText(f.Field) && inner.Parts.All(p => p is TermNode) =>
            [
                .. inner.Parts.Select(p => Row(p, f.Field)),
            ],
            _ => null,
        };
}
