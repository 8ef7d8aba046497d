using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Trails;
using Zendle.Server.Events;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Trails;

/// <summary>How many neighbours of one kind there are.</summary>
/// <param name="Works">Works that this kind alone brings, all narrowings kept.</param>
/// <param name="Chosen">Whether the question asks for it.</param>
internal sealed record KindCountDto(NeighbourKind Kind, int Works, bool Chosen);

/// <summary>What stands around the list of neighbours.</summary>
/// <param name="InView">Works in view.</param>
/// <param name="Whole">Works before narrowing.</param>
/// <param name="Levels">Works by how much they have in common.</param>
/// <param name="NewerThan">The year of the newest seed; null where no seed has one.</param>
/// <param name="Type">The kind of document that all seeds are; null where they differ.</param>
/// <param name="NotJudged">Works in view that nobody decided on.</param>
internal sealed record NeighboursAskedDto(
    int AtLeast,
    int InView,
    int Whole,
    IReadOnlyList<TieLevelDto> Levels,
    int? NewerThan,
    string? Type,
    int NotJudged
);

/// <summary>The neighbours of the seeds of a step.</summary>
/// <param name="SeedIds">All seeds.</param>
/// <param name="Seeds">The first of them, as they are shown.</param>
/// <param name="Counts">By kind.</param>
/// <param name="Weights">What the reasons weigh in this review.</param>
/// <param name="UsualWeights">What they weigh as long as nobody moves them.</param>
/// <param name="Asked">What the list is about; null where the step follows a trail.</param>
internal sealed record NeighboursDto(
    int SeedCount,
    IReadOnlyList<int> SeedIds,
    IReadOnlyList<SeedDto> Seeds,
    IReadOnlyList<KindCountDto> Counts,
    NeighbourWeights Weights,
    NeighbourWeights UsualWeights,
    NeighboursAskedDto? Asked
);

/// <summary>A work that a neighbour and seeds have in common.</summary>
/// <param name="Seeds">Numbers of the seeds, at most twelve.</param>
/// <param name="OfSeeds">How many seeds.</param>
internal sealed record SharedWorkDto(
    int WorkId,
    string Title,
    string People,
    int? Year,
    Stage Stage,
    IReadOnlyList<int> Seeds,
    int OfSeeds
);

/// <summary>Works that a neighbour and seeds have in common, those of most seeds first.</summary>
/// <param name="Total">How many.</param>
/// <param name="Works">The first of them.</param>
internal sealed record SharedWorksDto(int Total, IReadOnlyList<SharedWorkDto> Works);

/// <summary>A word that a neighbour and the seeds have in common.</summary>
/// <param name="Works">Works that have it.</param>
internal sealed record SharedTermDto(string Term, string Expression, int Works);

/// <summary>A person that a neighbour and seeds have in common.</summary>
/// <param name="Seeds">Numbers of the seeds, at most twelve.</param>
internal sealed record SharedPersonDto(string Person, IReadOnlyList<int> Seeds);

/// <summary>What makes a work a neighbour.</summary>
internal sealed record NeighbourEvidenceDto(
    SharedWorksDto References,
    SharedWorksDto Together,
    IReadOnlyList<SharedTermDto> Terms,
    IReadOnlyList<SharedPersonDto> People
);

internal static class NeighbourEndpoints
{
    private const int MostShown = 100,
        MostNumbers = 12;

    public static void MapNeighbours(this RouteGroupBuilder review)
    {
        review.MapGet("/steps/{stepId:int}/neighbours", Get).Produces<NeighboursDto>();
        review.MapGet("/steps/{stepId:int}/neighbours/{workId:int}", Evidence).Produces<NeighbourEvidenceDto>();
        review.MapPut("/neighbour-weights", PutWeights).Require(Role.Screener);
    }

    private static IResult NoSeeds() =>
        Problems.Of(404, "This step starts from no works.", "Press = on a work for its neighbours.");

    private static async Task<IResult> Get(
        int reviewId,
        int stepId,
        SearchService search,
        NeighbourFinder neighbours,
        WorkRows rows,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, stepId);
        if (view?.State.Question is not SeededQuestion question)
            return NoSeeds();
        var asked = question as NeighbourQuestion;
        var counts = NeighbourQuestion.AllKinds.Select(kind => new KindCountDto(
            kind,
            Alone(view, neighbours.Of(view.Snapshot, kind, question.Seeds), asked).Count(),
            asked?.Kinds.Contains(kind) == true
        ));
        return TypedResults.Ok(
            new NeighboursDto(
                question.Seeds.Length,
                question.Seeds,
                await TrailEndpoints.Seeds(view, rows, question, cancel),
                [.. counts],
                view.Weights,
                NeighbourWeights.Usual,
                asked is null ? null : Asked(view, asked)
            )
        );
    }

    /// <summary>What one kind alone would bring.</summary>
    private static WorkSet Alone(SearchView view, NeighbourList list, NeighbourQuestion? asked)
    {
        var evaluator = view.Evaluator;
        var works = new WorkSet(view.Snapshot.Columns.WorkSize);
        list.AddTo(works, asked?.AtLeast ?? 1);
        evaluator.LeaveOutWithdrawn(works);
        if (asked is null)
            return works;
        if (!view.State.Databases.IsEmpty)
            works = evaluator.Works(evaluator.RecordsOf(works), view.State.Databases);
        return view.Narrowed(works);
    }

    private static NeighboursAskedDto Asked(SearchView view, NeighbourQuestion asked)
    {
        var columns = view.Snapshot.Columns;
        var types = columns.Of(Facet.Type);
        string[] ofSeeds =
        [
            .. asked.Seeds.SelectMany(s => types.Of(s).ToArray()).Distinct().Select(t => types.Names[t]),
        ];
        var years = asked.Seeds.Where(s => s < columns.WorkSize).Select(s => (int)columns.Year[s]).Where(y => y > 0);
        var judged = view.Answer.InView.CountWith(view.Facts.Kept) + view.Answer.InView.CountWith(view.Facts.SetAside);
        return new(
            asked.AtLeast,
            view.Answer.Count,
            view.Answer.Before.Count(),
            TrailEndpoints.Levels(view, TrailEndpoints.Steps, view.InCommon),
            years.Any() ? years.Max() : null,
            ofSeeds is [var one] ? one : null,
            view.Answer.Count - judged
        );
    }

    private static async Task<IResult> Evidence(
        int reviewId,
        int stepId,
        int workId,
        SearchService search,
        WorkRows rows,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, stepId);
        if (view?.State.Question is not SeededQuestion { Seeds: var seeds })
            return NoSeeds();
        var (columns, graph) = (view.Snapshot.Columns, view.Snapshot.Columns.Graph);
        var people = columns.Of(Facet.Person);
        return TypedResults.Ok(
            new NeighbourEvidenceDto(
                await Shared(Neighbours.Evidence(seeds, workId, w => graph.Cites(w))),
                await Shared(Neighbours.Evidence(seeds, workId, w => graph.CitedBy(w))),
                [
                    .. new NeighbourLists(view.Snapshot)
                        .Telling.Of(seeds)
                        .Where(t => t.Works.Contains(workId))
                        .Select(t => new SharedTermDto(t.Word, t.Expression, t.Works.Count())),
                ],
                [
                    .. Neighbours
                        .Evidence(seeds, workId, w => people.Of(w))
                        .Select(p => new SharedPersonDto(people.Names[p.Thing], [.. p.Seeds.Take(MostNumbers)])),
                ]
            )
        );

        async Task<SharedWorksDto> Shared(IReadOnlyList<(int Thing, ImmutableArray<int> Seeds)> found)
        {
            var first = found.Take(MostShown).ToDictionary(f => f.Thing, f => f.Seeds);
            var shown = await rows.For(view, [.. found.Take(MostShown).Select(f => f.Thing)], cancel);
            return new(
                found.Count,
                [
                    .. shown.Select(s => new SharedWorkDto(
                        s.Id,
                        s.Title.Text,
                        s.People,
                        s.Year,
                        s.Stage,
                        [.. first[s.Id].Take(MostNumbers)],
                        first[s.Id].Length
                    )),
                ]
            );
        }
    }

    private static async Task<IResult> PutWeights(
        int reviewId,
        NeighbourWeights weights,
        ZendleContext context,
        EventHub hub
    )
    {
        if (weights.Fault() is { } fault)
            return Problems.Of(400, fault, "The order is unchanged.");
        await context
            .Reviews.Where(r => r.Id == reviewId)
            .ExecuteUpdateAsync(u => u.SetProperty(r => r.NeighbourWeights, weights.ToString()));
        hub.Tell(new("review", reviewId));
        return TypedResults.NoContent();
    }
}
