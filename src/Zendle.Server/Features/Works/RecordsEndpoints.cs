using System.Security.Claims;
using Zendle.Core.Merging;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Works;

internal sealed record RecordColumnDto(
    int Id,
    string Database,
    string Identifier,
    DateTimeOffset Datestamp,
    bool OnlyCited,
    IReadOnlyList<string> Notes
);

internal sealed record FieldRowDto(
    string Name,
    IReadOnlyList<string?> Values,
    IReadOnlyList<int> TakenFrom,
    IReadOnlyList<string?> Origins,
    bool Differs
);

internal sealed record RulingInForceDto(Guid Act, bool Same, int First, int Second, DateTimeOffset At);

/// <summary>The records of a work side by side, why they are one, and what curators ruled about them.</summary>
internal sealed record RecordsDto(
    int WorkId,
    string Title,
    IReadOnlyList<RecordColumnDto> Records,
    IReadOnlyList<FieldRowDto> Fields,
    IReadOnlyList<EvidenceDto> Evidence,
    IReadOnlyList<RulingInForceDto> Rulings,
    bool CanRule
);

internal sealed record SplitRequest(int[] Records, bool Preview);

internal sealed record JoinRequest(int[] Works, bool Preview);

internal sealed record OutcomeDto(int WorkId, string Title, IReadOnlyList<string> Records, bool IsNew);

internal sealed record RuledDto(Guid? Act, IReadOnlyList<OutcomeDto> Works);

internal static class RecordsEndpoints
{
    public static void MapRecords(this RouteGroupBuilder api)
    {
        api.MapGet("/works/{workId:int}/records", Get).Produces<RecordsDto>();
        api.MapPost(
                "/works/{workId:int}/split",
                async (
                    int workId,
                    SplitRequest asked,
                    RecordsService service,
                    CorpusReader reader,
                    ClaimsPrincipal user,
                    CancellationToken cancel
                ) =>
                    await service.Split(workId, asked.Records, Access.AccountId(user), asked.Preview, cancel)
                        is { } result
                        ? await Told(result, reader, cancel)
                        : Problems.Of(422, "Choose some of the work's records, but not all of them.")
            )
            .RequireCurator()
            .Produces<RuledDto>();
        api.MapPost(
                "/works/join",
                async (
                    JoinRequest asked,
                    RecordsService service,
                    CorpusReader reader,
                    ClaimsPrincipal user,
                    CancellationToken cancel
                ) =>
                    await service.Join(asked.Works, Access.AccountId(user), asked.Preview, cancel) is { } result
                        ? await Told(result, reader, cancel)
                        : Problems.Of(422, "Choose two or more works that are there.")
            )
            .RequireCurator()
            .Produces<RuledDto>();
        api.MapPost(
                "/rulings/{act}/undo",
                async Task<IResult> (
                    string act,
                    RecordsService service,
                    ClaimsPrincipal user,
                    CancellationToken cancel
                ) =>
                    Guid.TryParse(act, out var id) && await service.Undo(id, Access.AccountId(user), cancel)
                        ? TypedResults.NoContent()
                        : Problems.Of(
                            409,
                            "This cannot be undone any more.",
                            "A later split or join is about the same records; undo that one first."
                        )
            )
            .RequireCurator();
    }

    private static async Task<IResult> Get(
        int workId,
        RecordsService service,
        CorpusReader reader,
        Access access,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        workId = await reader.Redirect(workId, cancel);
        var records = (await reader.OfWorks([workId], cancel))[workId].ToArray();
        if (records.Length == 0)
            return Problems.Of(404, "This work is not in any database any more.");
        var names = (await reader.Databases(cancel)).ToDictionary(d => d.Id, d => d.Name);
        var chosen = ChosenFields.From(records);
        int[] ids = [.. records.Select(r => r.RecordId)];
        return TypedResults.Ok(
            new RecordsDto(
                workId,
                chosen.Title.Value,
                [
                    .. records.Select(r => new RecordColumnDto(
                        r.RecordId,
                        WorkRows.Source(r, names),
                        r.Record.Identifier,
                        r.Record.Datestamp,
                        r.Record.IsOnlyCited,
                        r.Record.Notes
                    )),
                ],
                [
                    .. SideBySide
                        .Of(records, chosen)
                        .Select(f => new FieldRowDto(f.Name, f.Values, f.TakenFrom, f.Origins, f.Differs)),
                ],
                [.. (await reader.MatchesAmong(ids, cancel)).Select(EvidenceDto.Of)],
                [
                    .. (await service.RulingsInForce(ids, cancel)).Select(r => new RulingInForceDto(
                        r.Act,
                        r.Same!.Value,
                        r.First,
                        r.Second,
                        r.At
                    )),
                ],
                await access.IsCurator(user)
            )
        );
    }

    private static async Task<IResult> Told(RulingResult result, CorpusReader reader, CancellationToken cancel)
    {
        var records = await reader.Records([.. result.Works.SelectMany(w => w.Records)], cancel);
        var names = (await reader.Databases(cancel)).ToDictionary(d => d.Id, d => d.Name);
        return TypedResults.Ok(
            new RuledDto(
                result.Act,
                [
                    .. result.Works.Select(w =>
                    {
                        SourcedRecord[] own = [.. w.Records.Where(records.ContainsKey).Select(r => records[r])];
                        return new OutcomeDto(
                            w.WorkId,
                            ChosenFields.From(own).Title.Value,
                            [.. own.Select(r => $"{WorkRows.Source(r, names)} {r.Record.Identifier}")],
                            w.WorkId == 0
                        );
                    }),
                ]
            )
        );
    }
}
