using System.Security.Claims;
using Zendle.Core.Merging;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Server.Features.References;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Trails;

/// <summary>In which order seeds are shown.</summary>
internal enum SeedOrder
{
    /// <summary>As they were given.</summary>
    Given,

    /// <summary>Those that bring most works no other seed is tied to come first.</summary>
    Alone,
}

/// <summary>A seed with its number and what it weighs.</summary>
/// <param name="Alone">How many works in view are tied to it and to no other seed; null where no trail is
/// followed.</param>
internal sealed record SeedDto(
    int Number,
    int WorkId,
    string Title,
    string People,
    int? Year,
    Stage Stage,
    int Cites,
    int Cited,
    int? Alone
);

/// <summary>How many works of a side are tied to at least so many seeds, all narrowings but this one kept.</summary>
internal sealed record TieLevelDto(int AtLeast, int Works);

/// <summary>One side of a trail.</summary>
/// <param name="InView">Works in view.</param>
/// <param name="Whole">Works before narrowing.</param>
/// <param name="Years">Works by year.</param>
/// <param name="Levels">Works by ties.</param>
internal sealed record TrailSideDto(
    int InView,
    int Whole,
    IReadOnlyList<YearCountDto> Years,
    IReadOnlyList<TieLevelDto> Levels
);

/// <summary>What stands around the lists of a trail: the seeds, and each side's measures.</summary>
/// <param name="SeedIds">All seeds.</param>
/// <param name="Seeds">The first of them, as they are shown.</param>
internal sealed record TrailDto(
    TrailWay Way,
    int AtLeast,
    int SeedCount,
    IReadOnlyList<int> SeedIds,
    IReadOnlyList<SeedDto> Seeds,
    TrailSideDto? Past,
    TrailSideDto? Future
);

/// <summary>A reference of seeds, with the numbers of those that list it.</summary>
internal sealed record SeedReferenceDto(CitedReferenceDto Reference, IReadOnlyList<int> Seeds);

/// <summary>References of the seeds that match no record.</summary>
/// <param name="Total">How many there are.</param>
/// <param name="References">The first of them, those that most seeds list before others.</param>
/// <param name="Resolved">References of the seeds of which a person said what they mean.</param>
internal sealed record UnmatchedListDto(
    int Total,
    IReadOnlyList<SeedReferenceDto> References,
    IReadOnlyList<SeedReferenceDto> Resolved
);

internal static class TrailEndpoints
{
    private const int MostSeedsShown = 60;
    private const int MostUnmatchedShown = 500;
    private const int FewSeeds = 9; // so few that "all of them" is worth a bar of its own
    public static readonly int[] Steps = [1, 2, 3, 5, 10, 20, 50];

    public static void MapTrails(this RouteGroupBuilder review)
    {
        review.MapGet("/steps/{stepId:int}/trail", Get).Produces<TrailDto>();
        review.MapGet("/steps/{stepId:int}/unmatched", Unmatched).Produces<UnmatchedListDto>();
    }

    private static IResult NoTrail() =>
        Problems.Of(
            404,
            "This step follows no trail.",
            "Follow one from a work: [ for what it cites, ] for what cites it."
        );

    private static async Task<IResult> Get(
        int reviewId,
        int stepId,
        SearchService search,
        WorkRows rows,
        CancellationToken cancel,
        SeedOrder seeds = SeedOrder.Given
    )
    {
        using var view = await search.View(reviewId, stepId);
        if (view?.State.Trail is not { } question || view.Answer.Trail is not { } trail)
            return NoTrail();
        return TypedResults.Ok(
            new TrailDto(
                question.Way,
                question.AtLeast,
                question.Seeds.Length,
                question.Seeds,
                await Seeds(view, rows, question, cancel, trail.Alone(view.Answer.InView), seeds),
                question.HasPast ? Side(view, trail.Past, TrailWay.Backward) : null,
                question.HasFuture ? Side(view, trail.Future, TrailWay.Forward) : null
            )
        );
    }

    /// <summary>The first seeds of a question, with their numbers.</summary>
    public static async Task<List<SeedDto>> Seeds(
        SearchView view,
        WorkRows rows,
        SeededQuestion question,
        CancellationToken cancel,
        int[]? alone = null,
        SeedOrder by = SeedOrder.Given
    )
    {
        var graph = view.Snapshot.Columns.Graph;
        var order = Enumerable.Range(0, question.Seeds.Length);
        if (alone is not null && by == SeedOrder.Alone)
            order = order.OrderByDescending(i => alone[i]);
        int[] first = [.. order.Take(MostSeedsShown)];
        var ordinal = first.ToDictionary(i => question.Seeds[i]);
        var shown = await rows.For(view, [.. first.Select(i => question.Seeds[i])], cancel);
        return
        [
            .. shown.Select(s => new SeedDto(
                ordinal[s.Id] + 1,
                s.Id,
                s.Title.Text,
                s.People,
                s.Year,
                s.Stage,
                graph.CitesCount(s.Id),
                graph.CitedByCount(s.Id),
                alone?[ordinal[s.Id]]
            )),
        ];
    }

    private static TrailSideDto Side(SearchView view, Trail.Side side, TrailWay way)
    {
        var question = view.State.Trail!;
        var withoutYears = view.Narrowed(side.Works(question.AtLeast), Core.Reviews.Facet.Year);
        var inView = view.InView(way);
        var steps = Steps
            .Append(question.Seeds.Length <= FewSeeds ? question.Seeds.Length : 1)
            .Where(n => n <= question.Seeds.Length)
            .Distinct()
            .Order();
        return new(
            inView.Count(),
            side.Works(1).Count(),
            SearchEndpoints.Years(view, withoutYears, inView),
            Levels(view, steps, side.Works)
        );
    }

    /// <summary>How many works are left at each level of a stair, as long as any are; all narrowings kept.</summary>
    /// <param name="view">The view.</param>
    /// <param name="steps">The levels, ascending from 1.</param>
    /// <param name="works">The works of a level, before narrowing.</param>
    public static IReadOnlyList<TieLevelDto> Levels(
        SearchView view,
        IEnumerable<int> steps,
        Func<int, WorkSet> works
    ) =>
        [
            .. steps
                .Select(n => new TieLevelDto(n, view.Narrowed(works(n)).Count()))
                .TakeWhile(l => l.AtLeast == 1 || l.Works > 0),
        ];

    /// <summary>
    /// References of the seeds that match no record; one that several databases print stands once, by its DOI, title or
    /// text.
    /// </summary>
    private static async Task<IResult> Unmatched(
        int reviewId,
        int stepId,
        SearchService search,
        ReferenceTeller teller,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, stepId);
        if (view?.State.Trail is not { } question || view.Answer.Trail is not { } trail)
            return NoTrail();
        if (!question.HasPast)
            return TypedResults.Ok(new UnmatchedListDto(0, [], []));
        var columns = view.Snapshot.Columns;
        var references = (await teller.ReferencesOf(question.Seeds, columns, cancel)).Where(r =>
            view.State.Databases.IsEmpty || view.State.Databases.Contains(r.Database)
        );
        var joined = ReferenceList.Join(references, columns.Means);
        var total = joined.Count(j => j.Match.Work == 0);
        return TypedResults.Ok(
            new UnmatchedListDto(
                total,
                await Told(joined.Where(j => j.Match.Work == 0)),
                await Told(joined.Where(j => j.Match.Evidence == ReferenceEvidence.Person))
            )
        );

        async Task<IReadOnlyList<SeedReferenceDto>> Told(IEnumerable<JoinedReference> some)
        {
            JoinedReference[] shown =
            [
                .. some.OrderByDescending(f => f.Citing.Count)
                    .ThenBy(f => f.Reference.Text, StringComparer.OrdinalIgnoreCase)
                    .Take(MostUnmatchedShown),
            ];
            var told = await teller.Tell(shown, view.Snapshot.ReporterNames, user, cancel);
            return
            [
                .. shown.Zip(
                    told,
                    (j, t) => new SeedReferenceDto(t, [.. j.Citing.Select(w => trail.NumberOf(w)!.Value).Order()])
                ),
            ];
        }
    }
}
