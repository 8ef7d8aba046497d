using System.Collections.Immutable;

namespace Zendle.Core.Queries;

/// <summary>One idea of a question: the terms that stand for it, told apart by letter.</summary>
/// <param name="Letter">A, B, C … in the order of the expression.</param>
/// <param name="Node">The part of the tree that stands for it.</param>
/// <param name="Terms">Its terms with the field each is looked for in.</param>
public sealed record Concept(char Letter, QueryNode Node, ImmutableArray<ScopedTerm> Terms);

/// <summary>A term with the field it is looked for in.</summary>
/// <param name="Term">The term.</param>
/// <param name="Field">The field.</param>
public readonly record struct ScopedTerm(TermNode Term, QueryField Field);

/// <summary>Sees the concepts in a tree: the parts that AND joins at its top, those under NOT left out.</summary>
public static class Concepts
{
    /// <summary>
    /// The concepts of <paramref name="root"/>; empty for a question without terms. Loose words and near words count as
    /// one concept each.
    /// </summary>
    public static ImmutableArray<Concept> Of(QueryNode? root)
    {
        var concepts = ImmutableArray.CreateBuilder<Concept>();
        Visit(root, QueryField.About);
        return concepts.ToImmutable();

        void Visit(QueryNode? node, QueryField field)
        {
            switch (node)
            {
                case AndNode and:
                    foreach (var part in and.Parts)
                        Visit(part, field);
                    break;
                case FieldNode { Part: AndNode inner } f:
                    Visit(inner, f.Field);
                    break;
                case null or NotNode:
                    break;
                default:
                    var terms = Terms(node, field).Where(t => IsText(t.Field)).ToImmutableArray();
                    if (!terms.IsEmpty)
                        concepts.Add(new((char)('A' + Math.Min(concepts.Count, 25)), node, terms));
                    break;
            }
        }
    }

    /// <summary>The terms below a node that must or may hold; those under NOT are left out.</summary>
    public static IEnumerable<ScopedTerm> Terms(QueryNode node, QueryField field) =>
        node switch
        {
            TermNode t => [new(t, field)],
            FieldNode f => Terms(f.Part, f.Field),
            AndNode a => a.Parts.SelectMany(p => Terms(p, field)),
            OrNode o => o.Parts.SelectMany(p => Terms(p, field)),
            NearNode n => n.Parts.SelectMany(p => Terms(p, field)),
            _ => [],
        };

    /// <summary>Whether a field holds running words (and so can be marked), rather than one value.</summary>
    public static bool IsText(QueryField field) =>
        field
            is QueryField.Title
                or QueryField.Abstract
                or QueryField.Keywords
                or QueryField.About
                or QueryField.Anywhere
                or QueryField.Author
                or QueryField.Venue
                or QueryField.Subject
                or QueryField.Affiliation
                or QueryField.Funder
                or QueryField.Text;
}
