using Zendle.Core.People;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Text;

namespace Zendle.Server.Features.Search;

/// <summary>
/// Offers the persons behind a name that a line asks for: all works of one of them, under every name, instead of all
/// that print the name.
/// </summary>
internal static class PersonsOfNames
{
    private const int MostNames = 2;
    private const int MostPersons = 5;
    private const int LongestName = 80;
    private const int MostWordsOfAName = 5;

    /// <summary>The persons behind the names of a line, those of most works first, each with what taking it finds.</summary>
    public static IEnumerable<NoticeDto> In(SearchView view, OfferCounts offers, QueryNode root, string text)
    {
        foreach (var field in Names(root).Take(MostNames))
        {
            var term = (TermNode)field.Part;
            var persons = Persons(view, field, term);
            if (persons.Count == 0)
                continue;
            yield return new(
                "Persons",
                field.Span.Start,
                field.Span.Length,
                persons.Count == 1
                    ? $"One person is behind “{term.Written}”:"
                    : $"{persons.Count:N0} persons are behind “{term.Written}”:",
                [.. Ways(offers, persons, text[..field.Span.Start], text[field.Span.End..])],
                []
            );
        }
    }

    /// <summary>
    /// A line of nothing but words that authors are named by, too: "Mei Berg", "Berg MK", or one word with a capital.
    /// </summary>
    public static IEnumerable<NoticeDto> Typed(SearchView view, OfferCounts offers, string text)
    {
        var name = text.Trim();
        if (!LooksLikeAName(name))
            yield break;
        var line = $"author:\"{name}\"";
        if (QueryReader.Read(line) is not { IsSound: true, Root: FieldNode { Part: TermNode term } field })
            yield break;
        var persons = Persons(view, field, term);
        if (persons.Count > 0)
            yield return new(
                "TypedName",
                0,
                text.Length,
                $"“{name}” is also the name of authors:",
                [
                    WayDto.Written("anyone of this name", line, offers.Taken(line).Count()),
                    .. Ways(offers, persons, "", ""),
                ],
                []
            );
    }

    /// <summary>The persons whom a name may stand for, by label, those of most works first.</summary>
    public static IReadOnlyList<string> Named(SearchView view, string name) =>
        QueryReader.Read($"author:\"{name.Replace('"', ' ')}\"")
            is { IsSound: true, Root: FieldNode { Part: TermNode term } field }
            ? Persons(view, field, term)
            : [];

    private static bool LooksLikeAName(string text)
    {
        if (
            text.Length is < 3 or > LongestName
            || !text.All(c => char.IsLetter(c) || c is ' ' or '.' or ',' or '-' or '\'' or '’')
        )
            return false;
        var words = text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        // One word in small letters is a word to search for.
        return words.Length <= MostWordsOfAName
            && (words.Length > 1 || char.IsUpper(text[0]))
            && !words.Any(w => w is "AND" or "OR" or "NOT" or "NEAR");
    }

    private static IEnumerable<WayDto> Ways(OfferCounts offers, List<string> persons, string before, string after) =>
        persons
            .Take(MostPersons)
            .Select(label => (label, Line: $"{before}{Written(label)}{after}"))
            .Where(p => QueryReader.Read(p.Line).IsSound)
            .Select(p => WayDto.Written(p.label, p.Line, offers.Taken(p.Line).Count()));

    private static List<string> Persons(SearchView view, FieldNode field, TermNode term)
    {
        var evaluator = view.Evaluator;
        var column = view.Snapshot.Columns.Of(Facet.Person);
        var named = TypedName.Of(term.Written);
        return
        [
            .. column
                .Count(evaluator.Works(evaluator.Records(field)))
                .Select(p => (Label: column.Names[p.Value], p.Count))
                .Where(p => named?.Fits(PersonLabel.Read(p.Label)) == true)
                .OrderByDescending(p => p.Count)
                .ThenBy(p => p.Label, StringComparer.OrdinalIgnoreCase)
                .Select(p => p.Label),
        ];
    }

    private static string Written(string label) => $"person:\"{label.Replace('"', ' ')}\"";

    /// <summary>Fields that ask for one name each.</summary>
    private static IEnumerable<FieldNode> Names(QueryNode node) =>
        node switch
        {
            FieldNode { Field: QueryField.Author, Part: TermNode } name => [name],
            FieldNode field => Names(field.Part),
            AndNode and => and.Parts.SelectMany(Names),
            OrNode or => or.Parts.SelectMany(Names),
            _ => [],
        };
}
