using System.Collections.Immutable;
using Zendle.Core.Queries;

namespace Zendle.Server.Features.Search;

/// <summary>
/// Says why a sound line finds nothing: which of its words stand nowhere, or that each stands somewhere and no record
/// has them all; and what it finds without each part or in the databases that are switched off, one click each.
/// </summary>
internal static class NothingFound
{
    private const int MostWays = 6;

    /// <summary>What there is to say; nothing when the line finds something.</summary>
    /// <param name="counts">Counts of the line's parts.</param>
    /// <param name="offers">Counts of what taking a line brings, with every limit.</param>
    /// <param name="text">The line as it stands.</param>
    public static IEnumerable<NoticeDto> In(PartCounts counts, OfferCounts offers, string text)
    {
        if (counts.Root is AllNode || offers.Taken(text).Count() > 0)
            yield break;
        WayDto[] ways =
        [
            // Where the very line finds something comes before lines that ask for less.
            .. Elsewhere(offers, text),
            .. Ways(counts.Root, offers, text),
        ];
        var searched = offers.Databases.IsEmpty ? "" : " in the databases that are searched";
        if (!counts.Whole.IsEmpty)
        {
            // The limits rule it all out; the chips beside the line say which.
            yield return new(
                "Nothing",
                0,
                text.Length,
                $"The line finds {Works(counts.Whole.Count())}, but the limits in force leave none.",
                ways,
                []
            );
            yield break;
        }
        var missing = Missing(counts.Root, QueryField.About, counts).ToArray();
        var sentence = missing.Length switch
        {
            0 when counts.Root is TermNode => $"No record{searched} has it.",
            0 => $"Every part finds something{searched}, but no record has them together.",
            _ => string.Join(
                " ",
                missing.Take(3).Select(m => $"“{m.Term.Written}” is in no {Place(m.Field)}{searched}.")
            ),
        };
        var at = missing.Length > 0 ? missing[0].Term.Span : counts.Root.Span;
        yield return new("Nothing", at.Start, at.Length, sentence, ways, []);
    }

    /// <summary>The line in each database that is switched off, beside those that are on, and in all; where it finds something.</summary>
    private static IEnumerable<WayDto> Elsewhere(OfferCounts offers, string text)
    {
        var off = offers.SwitchedOff;
        var ways = off.Select(d => Way($"with {d.Name}", off.Count == 1 ? [] : offers.Databases.Add(d.Id)));
        return (off.Count > 1 ? ways.Append(Way("in all databases", [])) : ways).Where(w => w.Count > 0);

        WayDto Way(string label, ImmutableArray<int> databases) =>
            new(label, text, offers.Taken(text, databases).Count(), databases);
    }

    /// <summary>What the line finds without each of its parts, and of a phrase with its words near or apart.</summary>
    private static WayDto[] Ways(QueryNode root, OfferCounts offers, string text)
    {
        var lines = new List<(string Label, string Line)>();
        if (root is AndNode all)
            for (var i = 0; i < all.Parts.Length; i++)
                lines.Add(
                    (
                        $"without {Brief(QueryText.Print(all.Parts[i]))}",
                        QueryText.Print(
                            all.Parts.Length == 2 ? all.Parts[1 - i] : all with { Parts = all.Parts.RemoveAt(i) }
                        )
                    )
                );
        foreach (
            var (term, _) in Concepts
                .Terms(root, QueryField.About)
                .Where(t => t.Term is { IsPhrase: true, Quoted: true } && Concepts.IsText(t.Field))
                .Take(2)
        )
        {
            var (before, after) = (text[..term.Span.Start], text[term.Span.End..]);
            lines.Add(($"“{term.Written}” near", $"{before}({string.Join(" NEAR/5 ", term.Slots)}){after}"));
            lines.Add(($"“{term.Written}” apart", $"{before}({string.Join(" AND ", term.Slots)}){after}"));
        }
        if (root is FieldNode { Part: var part, Field: not QueryField.Year } field && Concepts.IsText(field.Field))
            lines.Add(("anywhere", $"anywhere:({QueryText.Print(part)})"));
        return
        [
            .. lines
                .Where(l => QueryReader.Read(l.Line).IsSound)
                .Select(l => WayDto.Written(l.Label, l.Line, offers.Taken(l.Line).Count()))
                .Where(w => w.Count > 0)
                .DistinctBy(w => w.Text)
                .OrderByDescending(w => w.Count)
                .Take(MostWays),
        ];
    }

    /// <summary>The terms that no record has, where the line asks for them; what stands under NOT asks for none.</summary>
    private static IEnumerable<(TermNode Term, QueryField Field)> Missing(
        QueryNode node,
        QueryField field,
        PartCounts counts
    ) =>
        node switch
        {
            TermNode term when counts.Count(term, field) == 0 => [(term, field)],
            AndNode all => all.Parts.SelectMany(p => Missing(p, field, counts)),
            // Of alternatives one that is missing explains nothing; all of them do.
            OrNode any when counts.Works(any, field).IsEmpty => any.Parts.SelectMany(p => Missing(p, field, counts)),
            NearNode near => near.Parts.SelectMany(p => Missing(p, field, counts)),
            FieldNode inner => Missing(inner.Part, inner.Field, counts),
            _ => [],
        };

    private static string Place(QueryField field) =>
        field switch
        {
            QueryField.About => "title, abstract or keyword",
            QueryField.Anywhere => "record",
            QueryField.Keywords => "keyword or controlled term",
            QueryField.Author => "name",
            QueryField.Person => "person that is told apart",
            _ => QueryFields.Name(field),
        };

    private static string Works(int count) => count == 1 ? "1 work" : $"{count:N0} works";

    private static string Brief(string text) => text.Length > 40 ? text[..39] + "…" : text;
}
