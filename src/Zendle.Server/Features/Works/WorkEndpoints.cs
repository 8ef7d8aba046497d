using Microsoft.EntityFrameworkCore;
using Zendle.Core.Entries;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Works;

/// <param name="Label">Which person it is, among all who were told apart (the value of the field Person); null where
/// that is not certain.</param>
internal sealed record PersonDto(
    string Family,
    string Given,
    string? Orcid,
    string? Affiliation,
    string? Role,
    string? Label
);

/// <summary>A copy that databases list.</summary>
/// <param name="OpensOn">From which day anyone may read it, of one under embargo; null for none.</param>
internal sealed record CopyDto(string Address, string Host, string Access, string? Version, DateOnly? OpensOn);

/// <summary>A record of the work.</summary>
/// <param name="EntryId">The custom entry it is made of; null for a database's.</param>
internal sealed record WorkRecordDto(
    int Id,
    string Database,
    string Identifier,
    DateTimeOffset Datestamp,
    string Title,
    bool TitleIsTranslated,
    int? Year,
    string Type,
    string? Version,
    int? Cited,
    IReadOnlyList<string> Notes,
    int? EntryId
);

internal sealed record EvidenceDto(
    int First,
    int Second,
    IReadOnlyList<string> For,
    IReadOnlyList<string> Against,
    double Score
)
{
    public static EvidenceDto Of(MatchRow match)
    {
        var compared = Comparison.Unpack(match.Compared);
        return new(
            match.First,
            match.Second,
            EvidenceWords.For(compared),
            EvidenceWords.Against(compared),
            Math.Round(match.Score, 1)
        );
    }
}

internal sealed record DatabaseCountDto(string Database, int Cited);

/// <summary>Ties of a work to those of one year.</summary>
/// <param name="Cites">How many it cites.</param>
/// <param name="CitedBy">How many cite it.</param>
/// <param name="Kept">How many of both are kept.</param>
internal sealed record YearTieDto(int Year, int Cites, int CitedBy, int Kept);

internal sealed record JudgementDto(
    Stage Stage,
    string? Reason,
    IReadOnlyList<string> Tags,
    string? By,
    DateTimeOffset? At
);

/// <summary>The text of a work that is in hand in the review.</summary>
internal sealed record InHandDto(int TextId, string? Version, TextFormat Format, int Pages);

/// <summary>Where the work's journal stands in a subject category.</summary>
internal sealed record StandingDto(
    string Category,
    int Year,
    int Citations,
    int Items,
    double Ratio,
    int Rank,
    int Ranked,
    int Quartile,
    string? WhyNot
);

/// <summary>A tie the records declare: what a correction speaks of, the series of a book.</summary>
internal sealed record RelatedDto(string Kind, string? Title, string? Doi, int? WorkId);

/// <summary>An abstract beside the chosen one.</summary>
/// <param name="Language">Its language in words; null when nothing tells.</param>
internal sealed record OtherAbstractDto(string? Language, MarkedTextDto Text);

/// <summary>Everything the pane shows of a work.</summary>
/// <param name="OtherTitles">Titles that the records have beside this one; words in them are found, too.</param>
/// <param name="Withdrawn">Whether it is in no database any more, and here because people decided on it.</param>
internal sealed record WorkDto(
    int Id,
    MarkedTextDto Title,
    IReadOnlyList<PersonDto> People,
    int? Year,
    string Type,
    string? Language,
    string? Venue,
    string? Volume,
    string? Issue,
    string? Pages,
    string? Issn,
    string? Publisher,
    string? Doi,
    string? Isbn,
    MarkedTextDto Abstract,
    string? AbstractFrom,
    IReadOnlyList<MarkedTextDto> OtherTitles,
    IReadOnlyList<OtherAbstractDto> OtherAbstracts,
    IReadOnlyList<MarkedTextDto> Keywords,
    IReadOnlyList<MarkedTextDto> ControlledTerms,
    IReadOnlyList<string> Subjects,
    IReadOnlyList<string> Funders,
    IReadOnlyList<CopyDto> Copies,
    IReadOnlyList<WorkRecordDto> Records,
    IReadOnlyList<EvidenceDto> Evidence,
    int CitesCount,
    bool CitesByText,
    int CitedCount,
    double CitedPerYear,
    IReadOnlyList<DatabaseCountDto> CitedByDatabase,
    IReadOnlyList<YearTieDto> Ties,
    YearSpan Scale,
    HitsDto Hits,
    JudgementDto Judgement,
    InHandDto? InHand,
    bool OnlyCited,
    IReadOnlyList<StandingDto> Standings,
    IReadOnlyList<string> Contents,
    IReadOnlyList<RelatedDto> Related,
    bool Withdrawn
);

internal static class WorkEndpoints
{
    public static void MapWorks(this RouteGroupBuilder review) =>
        review.MapGet("/works/{workId:int}", Get).Produces<WorkDto>();

    private static async Task<IResult> Get(
        int reviewId,
        int workId,
        int? stepId,
        SearchService search,
        WorkRows rows,
        CorpusReader reader,
        ZendleContext context,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, stepId ?? 0) ?? await search.View(reviewId, 0);
        if (
            workId > 0
            && (workId >= view!.Snapshot.Columns.WorkSize || view.Snapshot.Columns.WorkFirstRecord[workId] == 0)
        )
            workId = await reader.Redirect(workId, cancel);
        var records = (await reader.OfWorks([workId], cancel))[workId].ToArray();
        if (records.Length == 0)
            return Problems.Of(404, "This work is not in any database any more.", "Its decisions are kept in the log.");
        var chosen = ChosenFields.From(records);
        var concepts = view!.Answer.Concepts;
        var names = view.Snapshot.DatabaseNames;
        var entries = (await reader.Databases(cancel)).Find(d => d.IsOfEntries)?.Id;
        var columns = view.Snapshot.Columns;
        var persons = columns.Of(Facet.Person) is var told ? told.Of(workId).ToArray().Select(n => told.Names[n]) : [];
        var row = (await rows.For(view, [workId], cancel))[0];
        var judgement = view.Fold.Of(workId);
        var by = judgement.By is null
            ? null
            : await context
                .Users.Where(u => u.Id == judgement.By)
                .Select(u => u.DisplayName)
                .SingleOrDefaultAsync(cancel);
        var venue = chosen.Venue.Value;
        var ids = await reader.IdsOf(workId, cancel);
        var text = (
            await context
                .Texts.AsNoTracking()
                .ThatCount()
                .Where(t => t.ReviewId == reviewId && ids.Contains(t.WorkId))
                .ToListAsync(cancel)
        )
            .BestFirst()
            .FirstOrDefault();
        return TypedResults.Ok(
            new WorkDto(
                workId,
                row.Title,
                [
                    .. chosen.People.Value.Select(p => new PersonDto(
                        p.Family,
                        p.Given,
                        p.Orcid,
                        p.Affiliation,
                        p.Role,
                        PersonLabel.Among(persons, new(p.Family, p.Given))
                    )),
                ],
                chosen.Year.Value,
                row.Type,
                chosen.Language.Value is { } l ? Languages.Name(l) : null,
                WorkRows.Venue(columns, workId, chosen),
                venue?.Volume,
                venue?.Issue,
                venue?.Pages(),
                venue?.Issn,
                chosen.Publisher.Value,
                chosen.Doi.Value,
                chosen.Isbn.Value,
                WorkRows.Mark(chosen.Abstract.Value, concepts, QueryField.Abstract),
                chosen.Abstract.Value.Length == 0
                    ? null
                    : WorkRows.Source(records.First(r => r.RecordId == chosen.Abstract.RecordId), names),
                [.. OtherTexts.Titles(records, chosen).Select(t => WorkRows.Mark(t, concepts, QueryField.Title))],
                [
                    .. OtherTexts
                        .AbstractsByLanguage(records, chosen)
                        .Select(a => new OtherAbstractDto(
                            a.Language is { } said ? Languages.Name(said) : null,
                            WorkRows.Mark(a.Text, concepts, QueryField.Abstract)
                        )),
                ],
                [.. chosen.Keywords.Value.Select(k => WorkRows.Mark(k, concepts, QueryField.Keywords))],
                [.. chosen.ControlledTerms.Select(k => WorkRows.Mark(k, concepts, QueryField.Keywords))],
                chosen.Subjects,
                [.. records.SelectMany(r => r.Record.Funders).Distinct()],
                [
                    .. chosen
                        .Copies.OrderBy(c => c.Access != CopyAccess.Free)
                        .ThenBy(c => WorkVersions.Rank(c.Version))
                        .Select(c => new CopyDto(
                            c.Address,
                            new Uri(c.Address).Authority,
                            c.Access.ToString().ToLowerInvariant(),
                            WorkVersions.Name(c.Version),
                            c.OpensOn
                        )),
                ],
                [
                    .. records.Select(r => new WorkRecordDto(
                        r.RecordId,
                        WorkRows.Source(r, names),
                        r.Record.Identifier,
                        r.Record.Datestamp,
                        r.Record.Title,
                        r.Record.TitleIsTranslated,
                        r.Record.Year,
                        DocumentTypes.Name(r.Record.Type),
                        WorkVersions.Name(r.Record.Version),
                        r.Record.CitedCount,
                        r.Record.Notes,
                        r.DatabaseId == entries ? CustomEntry.NumberOf(r.Record.Identifier) : null
                    )),
                ],
                [.. (await reader.MatchesAmong([.. records.Select(r => r.RecordId)], cancel)).Select(EvidenceDto.Of)],
                columns.Graph.CitesCount(workId),
                columns.CitesByItsText(workId),
                columns.Graph.CitedByCount(workId),
                WorkOrder.PerYear(columns.Graph.CitedByCount(workId), chosen.Year.Value ?? 0, clock.GetUtcNow().Year),
                [
                    .. columns
                        .DatabaseCited.Where(d => d.Value[workId] >= 0)
                        .OrderBy(d => d.Key)
                        .Select(d => new DatabaseCountDto(names[d.Key], d.Value[workId])),
                ],
                Ties(columns, view.Facts.Kept, workId),
                columns.Span,
                row.Hits,
                new(judgement.Stage, judgement.Reason, judgement.Tags, by, judgement.At),
                text is null ? null : new(text.Id, WorkVersions.Name(text.Version), text.Format, text.Pages),
                columns.OnlyCited.Contains(workId),
                Standings(columns, workId),
                [.. records.Select(r => r.Record.Contents).FirstOrDefault(c => c.Count > 0) ?? []],
                [
                    .. records
                        .SelectMany(r => r.Record.Related)
                        .DistinctBy(r => r.Doi ?? r.Title)
                        .Select(r => new RelatedDto(
                            r.Kind,
                            r.Title,
                            r.Doi,
                            r.Doi is null ? null
                                : columns.References.WithDoi(MergeKeys.Doi(r.Doi)) is > 0 and var tied ? tied
                                : null
                        )),
                ],
                row.Withdrawn
            )
        );
    }

    private static List<StandingDto> Standings(CorpusColumns columns, int work) =>
        columns.WorkVenue[work] is >= 0 and var venue && columns.Standings.TryGetValue(venue, out var standings)
            ?
            [
                .. standings.Select(s => new StandingDto(
                    s.Category,
                    s.Year,
                    s.Citations,
                    s.Items,
                    Math.Round(s.Ratio, 2),
                    s.Rank,
                    s.Ranked,
                    s.Quartile,
                    s.WhyNot
                )),
            ]
            : [];

    private static List<YearTieDto> Ties(CorpusColumns columns, WorkSet kept, int work)
    {
        var years = new SortedDictionary<int, (int Cites, int CitedBy, int Kept)>();
        Count(columns.Graph.Cites(work), 1, 0);
        Count(columns.Graph.CitedBy(work), 0, 1);
        return [.. years.Select(y => new YearTieDto(y.Key, y.Value.Cites, y.Value.CitedBy, y.Value.Kept))];

        void Count(ReadOnlySpan<int> tied, int cites, int citedBy)
        {
            foreach (var w in tied)
                if (columns.Year[w] is > 0 and var y)
                {
                    var (before, after, had) = years.GetValueOrDefault(y);
                    years[y] = (before + cites, after + citedBy, had + (kept.Contains(w) ? 1 : 0));
                }
        }
    }
}
