using Zendle.Core.Merging;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Text;
using Zendle.Index.Columns;

namespace Zendle.Server.Features.Search;

/// <summary>A work that the line names outright.</summary>
/// <param name="Person">Family name of its first person, by which works of one title are told apart.</param>
/// <param name="Why">How it is named, behind "One work": "has this DOI".</param>
internal sealed record DirectDto(int WorkId, string Title, string? Person, int? Year, string Why);

/// <summary>Works that a line names outright: by an identifier, by an address, or by the whole title.</summary>
internal static class NamedOutright
{
    private const int Most = 24,
        MostLooked = 200,
        LongestTitle = 600,
        FewestWords = 3;

    /// <summary>The works, some of them where there are many.</summary>
    public static List<DirectDto> In(SearchView view, string text, TypedIdentifier? identifier)
    {
        var columns = view.Snapshot.Columns;
        return identifier switch
        {
            { Kind: IdentifierKind.Doi } doi => columns.References.WithDoi(MergeKeys.Doi(doi.Value)) is > 0 and var work
                ? [Dto(columns, work, "has this DOI")]
                : [],
            { Kind: IdentifierKind.Isbn } isbn => Of(isbn.Expression, "has this ISBN"),
            { Kind: IdentifierKind.Url } url => Of(url.Expression, "has this address"),
            { Kind: IdentifierKind.Issn or IdentifierKind.Orcid } => [],
            _ => OfTitle(view, text),
        };
        List<DirectDto> Of(string expression, string why) =>
            [.. view.Evaluator.Works(expression).Members().Take(Most).Select(w => Dto(columns, w, why))];
    }

    /// <summary>What is said of an identifier beside the works it names.</summary>
    public static IEnumerable<NoticeDto> About(
        SearchView view,
        OfferCounts offers,
        string text,
        TypedIdentifier identifier,
        bool isNamed
    )
    {
        if (isNamed)
            yield break;
        if (identifier.Kind == IdentifierKind.Issn)
        {
            var works = offers.Taken(identifier.Expression);
            if (!works.IsEmpty)
            {
                var venue = view.Snapshot.Columns.VenueOf(works.Members().First()) ?? "a venue";
                yield return Said(
                    $"This is the ISSN of {venue}:",
                    [WayDto.Written("its works", identifier.Expression, works.Count())]
                );
                yield break;
            }
        }
        yield return Said(
            identifier.Kind switch
            {
                IdentifierKind.Doi => "This is a DOI. No work here has it.",
                IdentifierKind.Isbn => "This is an ISBN. No work here has it.",
                IdentifierKind.Issn => "This is an ISSN. No work here appeared under it.",
                IdentifierKind.Orcid => "This is the ORCID iD of a person. Works are found by the person’s name.",
                _ => "This is a web address. No work here has it.",
            },
            []
        );
        NoticeDto Said(string sentence, IReadOnlyList<WayDto> ways) =>
            new("Identifier", 0, text.Length, sentence, ways, []);
    }

    private static List<DirectDto> OfTitle(SearchView view, string text)
    {
        var columns = view.Snapshot.Columns;
        var bare = text.Replace('"', ' ').Replace('*', ' ').Replace('?', ' ').Trim();
        if (Words.AsWritten(bare).Take(FewestWords).Count() < FewestWords || bare.Length > LongestTitle)
            return [];
        return
        [
            .. view
                .Evaluator.Works($"title:\"{bare}\"")
                .Members()
                .Take(MostLooked)
                .Where(work => columns.HasTitle(work, bare))
                .Take(Most)
                .Select(work => Dto(columns, work, "has this title")),
        ];
    }

    private static DirectDto Dto(CorpusColumns columns, int work, string why) =>
        new(
            work,
            columns.SortTitle[work] ?? "",
            columns.SortPerson[work],
            columns.Year[work] == 0 ? null : columns.Year[work],
            why
        );
}
