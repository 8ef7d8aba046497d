using System.Security.Claims;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Zendle.Server.Features.Search.Senses;
using Zendle.Server.Features.Search.SetWords;
using Zendle.Server.Identity;
using Zendle.Server.Libraries;
using Zendle.Server.Reviews;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search;

internal sealed record ReadingRequest(string Text, int StepId);

/// <summary>Asks for a step.</summary>
/// <param name="ParentId">The step it goes on from; 0 for none.</param>
/// <param name="Act">What it does.</param>
/// <param name="OtherStepId">Compare: the step to hold against, whose acts are written down; null when the act brings
/// them. What starts from works: the step whose works it starts from; null when the act names them, or for all
/// kept.</param>
internal sealed record StepRequest(int ParentId, StepAct Act, int? OtherStepId = null);

/// <summary>Asks for another act in the place of a step's.</summary>
internal sealed record StepChangeRequest(StepAct Act);

/// <summary>Two steps held against each other, in works.</summary>
internal sealed record AgainstDto(
    string Here,
    string There,
    int HereCount,
    int ThereCount,
    int Both,
    int OnlyHere,
    int OnlyThere
);

internal sealed record StepTakenDto(int StepId);

internal sealed record StepNameRequest(string Name);

internal sealed record YearCountDto(int Year, int InView, int Before);

internal sealed record ConceptDto(string Letter, string Text);

/// <summary>What stands over the list for a step.</summary>
internal sealed record StepViewDto(
    int StepId,
    SearchStateDto State,
    int Count,
    int Before,
    LedgerDto Ledger,
    IReadOnlyList<YearCountDto> Years,
    IReadOnlyList<ConceptDto> Concepts,
    int Kept,
    int SetAside,
    int KeptMissed,
    IReadOnlyList<string> Problems
);

internal sealed record NarrowingDto(
    Facet Facet,
    IReadOnlyList<string> Values,
    IReadOnlyList<string> Excluded,
    IReadOnlyList<string> Each
);

internal sealed record SearchStateDto(
    string Expression,
    IReadOnlyList<int> Databases,
    int? From,
    int? To,
    IReadOnlyList<NarrowingDto> Narrowings,
    IReadOnlyList<string> Inside,
    TrailStateDto? Trail,
    NeighbourStateDto? Neighbours,
    RoundStateDto? Round,
    CitersStateDto? Citers,
    IReadOnlyList<string> Others,
    int? Among,
    string WhereItCites
)
{
    public static SearchStateDto Of(SearchState s) =>
        new(
            s.Expression,
            s.Databases,
            s.From,
            s.To,
            [.. s.Narrowings.Select(n => new NarrowingDto(n.Facet, n.Values, n.Excluded, n.Each))],
            s.Inside,
            s.Trail is { } t ? new(t.Way, t.AtLeast, t.Seeds.Length) : null,
            s.Neighbours is { } n ? new(n.Kinds, n.AtLeast, n.Seeds.Length) : null,
            s.Round is { } r ? new(r.Number, r.Kinds, r.AtLeast, r.Seeds.Length, r.Known.Length) : null,
            s.Citers is { } c ? new(c.Name, c.Persons, c.Printed, c.Self) : null,
            [.. (s.Others ?? []).Select(o => o.Said)],
            s.Among?.Count,
            s.WhereItCites
        );
}

internal sealed record TrailStateDto(TrailWay Way, int AtLeast, int Seeds);

/// <summary>A round in view.</summary>
/// <param name="Known">Works that its trails and neighbours lead to and were looked at before.</param>
internal sealed record RoundStateDto(int Number, IReadOnlyList<NeighbourKind> Kinds, int AtLeast, int Seeds, int Known);

/// <summary>A name whose citing works are in view.</summary>
internal sealed record CitersStateDto(
    string Name,
    IReadOnlyList<string> Persons,
    IReadOnlyList<string> Printed,
    SelfCitations Self
);

internal sealed record NeighbourStateDto(IReadOnlyList<NeighbourKind> Kinds, int AtLeast, int Seeds);

internal sealed record WorkPageDto(int Total, int Offset, IReadOnlyList<WorkRowDto> Works);

/// <summary>A value of a field with its count.</summary>
/// <param name="Value">The value.</param>
/// <param name="Count">Works of the set that have it.</param>
/// <param name="Chosen">Whether the step asks for it.</param>
/// <param name="Excluded">Whether the step leaves it out.</param>
/// <param name="Perhaps">Of a person: others who may be the same.</param>
internal sealed record FacetValueDto(
    string Value,
    int Count,
    bool Chosen,
    bool Excluded,
    IReadOnlyList<string> Perhaps
);

internal sealed record FacetDto(Facet Facet, int Values, IReadOnlyList<FacetValueDto> Shown);

/// <summary>References as they were pasted, line by line.</summary>
internal sealed record PastedRequest(IReadOnlyList<string> Lines);

internal static class SearchEndpoints
{
    private const int LongestPage = 200;
    private const int MostFacetValues = 60;
    private const int MostActBytes = 262_144;

    public static void MapSearch(this RouteGroupBuilder review)
    {
        review.MapPost("/reading", Read).Produces<ReadingDto>();
        review
            .MapPost(
                "/reading/board",
                IResult (int reviewId, BoardRequest request) =>
                    SearchBoard.Of(QueryReader.Read(request.Text).Root).With(request.Edit, out var whyNot) is { } board
                        ? TypedResults.Ok(new BoardEditedDto(board.Expression))
                        : Problems.Of(400, whyNot!, "The board is unchanged.")
            )
            .Produces<BoardEditedDto>();
        review.MapPost("/reading/words", Words).Produces<TermWordsDto>();
        review
            .MapPost(
                "/reading/missed",
                async Task<IResult> (int reviewId, ReadingRequest request, MissedKept missed, SearchService search) =>
                    await StateAt(reviewId, request.StepId, search) is { } state
                        ? TypedResults.Ok(await missed.Of(reviewId, request.Text, state))
                        : NoStep()
            )
            .Produces<MissedKeptDto>();
        review
            .MapPost(
                "/reading/complete",
                async Task<IResult> (
                    int reviewId,
                    CompleteRequest request,
                    Completions completions,
                    SearchService search
                ) =>
                    await StateAt(reviewId, request.StepId, search) is { } state
                        ? TypedResults.Ok(await completions.For(reviewId, request.Text, request.Caret, state))
                        : NoStep()
            )
            .Produces<IReadOnlyList<CompletionDto>>();
        review.MapPost("/pasted", Pasted).Produces<PastedDto>();
        review.MapGet("/paths", (int reviewId, PathService paths) => paths.Paths(reviewId));
        review
            .MapGet(
                "/steps/{stepId:int}/path",
                async Task<IResult> (int reviewId, int stepId, PathService paths) =>
                    await paths.Path(reviewId, stepId) is { } path ? TypedResults.Ok(path) : NoStep()
            )
            .Produces<PathDto>();
        review.MapPost("/steps", Take).Require(Role.Screener).Produces<StepTakenDto>();
        review.MapPut("/steps/{stepId:int}", Change).Require(Role.Screener);
        review.MapGet("/steps/{stepId:int}/against/{otherId:int}", Against).Produces<AgainstDto>();
        review.MapGet("/steps/{stepId:int}", View).Produces<StepViewDto>();
        review
            .MapGet(
                "/steps/{stepId:int}/senses",
                async Task<IResult> (int reviewId, int stepId, SenseService senses) =>
                    await senses.Of(reviewId, stepId) is { } found ? TypedResults.Ok(found) : NoStep()
            )
            .Produces<SensesDto>();
        review
            .MapGet(
                "/steps/{stepId:int}/words",
                async Task<IResult> (int reviewId, int stepId, SetWordsService words) =>
                    await words.Of(reviewId, stepId) is { } found ? TypedResults.Ok(SetWordsDto.Of(found)) : NoStep()
            )
            .Produces<SetWordsDto>();
        review
            .MapGet(
                "/steps/{stepId:int}/words.csv",
                async Task<IResult> (int reviewId, int stepId, SetWordsService words, CancellationToken cancel) =>
                    await words.Table(reviewId, stepId, cancel) is (var file, { } name)
                        ? TypedResults.File(file, "text/csv", name)
                        : NoStep()
            )
            .Produces(200, contentType: "text/csv");
        review.MapGet("/steps/{stepId:int}/works", List).Produces<WorkPageDto>();
        review.MapGet("/steps/{stepId:int}/facets/{facet}", Breakdown).Produces<FacetDto>();
        review
            .MapPatch(
                "/steps/{stepId:int}",
                async Task<IResult> (int reviewId, int stepId, StepNameRequest request, PathService paths) =>
                    request.Name.Trim().Length > 80 ? Problems.Of(400, "A name has at most 80 characters.")
                    : await paths.Rename(reviewId, stepId, request.Name.Trim()) ? TypedResults.NoContent()
                    : NoStep()
            )
            .Require(Role.Screener);
        review
            .MapDelete(
                "/steps/{stepId:int}",
                async Task<IResult> (int reviewId, int stepId, PathService paths, ClaimsPrincipal user) =>
                    await paths.Remove(reviewId, Access.AccountId(user), stepId) is { } next
                        ? TypedResults.Ok(new StepTakenDto(next))
                        : NoStep()
            )
            .Require(Role.Screener)
            .Produces<StepTakenDto>();
        review.MapPost(
            "/steps/{stepId:int}/visit",
            async Task<IResult> (
                int reviewId,
                int stepId,
                PathService paths,
                SearchService search,
                ClaimsPrincipal user
            ) =>
            {
                if (await search.StateOf(reviewId, stepId) is null)
                    return NoStep();
                await paths.Visit(reviewId, Access.AccountId(user), stepId);
                return TypedResults.NoContent();
            }
        );
    }

    /// <summary>What is said where a step is not there.</summary>
    internal static IResult NoStep() =>
        Problems.Of(404, "This step is not part of the review any more.", "Start from the path, or from a new search.");

    private static async Task<IResult> Read(
        int reviewId,
        ReadingRequest request,
        ReadingService reading,
        SearchService search,
        CancellationToken cancel
    )
    {
        return await StateAt(reviewId, request.StepId, search) is { } state
            ? TypedResults.Ok(await reading.Read(reviewId, request.Text, state, cancel))
            : NoStep();
    }

    /// <summary>The state of a step, of everything for step 0; null when the review has no such step.</summary>
    internal static async Task<SearchState?> StateAt(int reviewId, int stepId, SearchService search) =>
        stepId == 0 ? SearchState.Everything : await search.StateOf(reviewId, stepId);

    private static async Task<IResult> Words(
        int reviewId,
        TermWordsRequest request,
        TermWords words,
        SearchService search
    )
    {
        if (await StateAt(reviewId, request.StepId, search) is not { } state)
            return NoStep();
        return await words.Of(reviewId, request, state) is { } found
            ? TypedResults.Ok(found)
            : Problems.Of(400, "Only a term with * or ? stands for several words.");
    }

    private static async Task<IResult> Pasted(
        int reviewId,
        PastedRequest request,
        SearchService search,
        CancellationToken cancel
    )
    {
        using var view = (await search.View(reviewId, 0))!;
        return TypedResults.Ok(
            PastedFinder.Find(view.Snapshot, view.Evaluator, string.Join('\n', request.Lines), cancel)
        );
    }

    private static async Task<IResult> Take(
        int reviewId,
        StepRequest request,
        PathService paths,
        SearchService search,
        DecisionService decisions,
        ClaimsPrincipal user
    )
    {
        if (request is { Act: CompareAct compared, OtherStepId: { } other })
        {
            if (await search.ActsOf(reviewId, other) is not { } acts)
                return NoStep();
            request = request with { Act = compared with { Other = acts } };
        }
        if (request is { Act: SeedsAct { Seeds: null } fromList, OtherStepId: { } list })
        {
            using var view = await search.View(reviewId, list);
            if (view is null)
                return NoStep();
            request = request with { Act = fromList with { Seeds = view.Answer.InView.ToArray() } };
        }
        // All kept works of this moment, written down, so that the step means the same tomorrow.
        if (request.Act is SeedsAct { Seeds: null } fromKept)
            request = request with
            {
                Act = fromKept with { Seeds = (await decisions.Of(reviewId)).Facts.Kept.ToArray() },
            };
        if (Fault(request.Act) is { } fault)
            return fault;
        var before = request.ParentId == 0 ? SearchState.Everything : await search.StateOf(reviewId, request.ParentId);
        if (before is not null && !request.Act.SaysSomethingIn(before))
            return Problems.Of(
                400,
                request.Act is KindsAct or SharedAct
                    ? "There are no neighbours here to narrow."
                    : "There is no trail here to narrow.",
                "Start one from a work first."
            );
        return await paths.Take(reviewId, Access.AccountId(user), request.ParentId, request.Act) is { } id
            ? TypedResults.Ok(new StepTakenDto(id))
            : NoStep();
    }

    private static async Task<IResult> Change(
        int reviewId,
        int stepId,
        StepChangeRequest request,
        PathService paths,
        SearchService search,
        ClaimsPrincipal user
    ) =>
        await search.StateOf(reviewId, stepId) is null ? NoStep()
        : Fault(request.Act) is { } fault ? fault
        : await paths.Change(reviewId, Access.AccountId(user), stepId, request.Act) is { } whyNot
            ? Problems.Of(400, whyNot, "The path is unchanged.")
        : TypedResults.NoContent();

    private static async Task<IResult> Against(
        int reviewId,
        int stepId,
        int otherId,
        SearchService search,
        PathService paths
    )
    {
        if (await search.View(reviewId, stepId) is not { } here)
            return NoStep();
        using var first = here;
        if (await search.View(reviewId, otherId, here.Snapshot) is not { } there)
            return NoStep();
        using var second = there;
        var both = here.Answer.InView.CountWith(there.Answer.InView);
        var labels = await paths.Labels(reviewId, [stepId, otherId]);
        return TypedResults.Ok(
            new AgainstDto(
                labels[stepId],
                labels[otherId],
                here.Answer.Count,
                there.Answer.Count,
                both,
                here.Answer.Count - both,
                there.Answer.Count - both
            )
        );
    }

    /// <summary>
    /// What cannot be taken as a step: an expression with faults is mended first, so that the log holds only what was
    /// really asked.
    /// </summary>
    private static IResult? Fault(StepAct act)
    {
        if (act.Fault() is { } fault)
            return Problems.Of(400, fault.Sentence, fault.Advice);
        // Acts are handed on to everyone who looks at the path.
        return StoredActs.Write(act).Length > MostActBytes
            ? Problems.Of(
                400,
                $"One step holds at most {MostActBytes / 1_000:N0} kB.",
                "Do it in smaller parts; nothing was changed."
            )
            : null;
    }

    private static async Task<IResult> View(int reviewId, int stepId, SearchService search)
    {
        if (await search.View(reviewId, stepId) is not { } view)
            return NoStep();
        using var _ = view;
        var answer = view.Answer;
        var evaluator = view.Evaluator;
        var liftedYears = view.State.From is null && view.State.To is null ? answer.InView : Lifted(view, Facet.Year);
        var missed = view.Facts.Kept.Copy();
        missed.ExceptWith(answer.Before);
        return TypedResults.Ok(
            new StepViewDto(
                stepId,
                SearchStateDto.Of(view.State),
                answer.Count,
                answer.Before.Count(),
                view.Ledger(),
                Years(view, liftedYears, answer.InView),
                [.. answer.Concepts.Select(c => new ConceptDto(c.Letter.ToString(), QueryText.Print(c.Node)))],
                answer.InView.CountWith(view.Facts.Kept),
                answer.InView.CountWith(view.Facts.SetAside),
                missed.Count(),
                [.. answer.Reading.Problems.Select(p => p.Sentence)]
            )
        );
    }

    /// <summary>
    /// Works by the year they show, over the whole span: in view, and with the years' own narrowing lifted.
    /// </summary>
    public static List<YearCountDto> Years(SearchView view, Core.Sets.WorkSet lifted, Core.Sets.WorkSet narrowed)
    {
        var columns = view.Snapshot.Columns;
        var (all, inView) = (new SortedDictionary<int, int>(), new Dictionary<int, int>());
        foreach (var w in lifted.ToArray())
        {
            if (columns.Year[w] == 0)
                continue;
            all[columns.Year[w]] = all.GetValueOrDefault(columns.Year[w]) + 1;
            if (narrowed.Contains(w))
                inView[columns.Year[w]] = inView.GetValueOrDefault(columns.Year[w]) + 1;
        }
        if (all.Count == 0)
            return [];
        var (first, last) = (all.Keys.First(), all.Keys.Last());
        return
        [
            .. Enumerable
                .Range(first, last - first + 1)
                .Select(y => new YearCountDto(y, inView.GetValueOrDefault(y), all.GetValueOrDefault(y))),
        ];
    }

    public static Core.Sets.WorkSet Lifted(SearchView view, Facet facet) => view.Narrowed(view.Asked(), facet);

    private static async Task<IResult> List(
        int reviewId,
        int stepId,
        SortOrder? sort,
        bool? hideJudged,
        int? offset,
        int? limit,
        TrailWay? side,
        SearchService search,
        WorkRows rows,
        CancellationToken cancel
    )
    {
        if (await search.View(reviewId, stepId) is not { } view)
            return NoStep();
        using var _ = view;
        var order = search.Order(view, sort ?? SortOrder.Relevance, hideJudged ?? false, side ?? TrailWay.Both);
        var from = Math.Clamp(offset ?? 0, 0, order.Length);
        var page = order.AsSpan(from, Math.Min(Math.Clamp(limit ?? 50, 0, LongestPage), order.Length - from)).ToArray();
        return TypedResults.Ok(new WorkPageDto(order.Length, from, await rows.For(view, page, cancel)));
    }

    private static IEnumerable<(string Value, int Count)> Counted(FacetColumn column, WorkSet works) =>
        column.Count(works).Select(c => (column.Names[c.Value], c.Count));

    private static async Task<IResult> Breakdown(
        int reviewId,
        int stepId,
        Facet facet,
        string? find,
        SearchService search,
        LibraryShelf shelf
    )
    {
        if (await search.View(reviewId, stepId) is not { } view)
            return NoStep();
        using var _ = view;
        var set = Lifted(view, facet);
        var narrowing = view.State.Narrowings.FirstOrDefault(n => n.Facet == facet);
        IEnumerable<(string Value, int Count)> values = facet switch
        {
            Facet.Tag => view.Facts.Tags.Select(t => (t.Key, set.CountWith(t.Value))),
            Facet.Library => shelf.Labels.Select(l => (l, set.CountWith(view.Evaluator.With(Facet.Library, [l])))),
            Facet.Stage => new[] { Stage.Found, Stage.Kept, Stage.SetAside }.Select(s =>
                (Stages.Name(s), set.CountWith(view.Evaluator.With(Facet.Stage, [Stages.Name(s)])))
            ),
            _ => Counted(view.Snapshot.Columns.Of(facet), set),
        };
        var folded = Core.Text.Words.Fold(find?.Trim() ?? "");
        var chosen = (narrowing?.Values ?? [])
            .Concat(narrowing?.Each ?? [])
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var excluded = (narrowing?.Excluded ?? []).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var found = values.Where(v => v.Count > 0).ToArray();
        // What was chosen can be taken back even when nothing here has it.
        (string Value, int Count)[] fitting =
        [
            .. found,
            .. chosen
                .Union(excluded, chosen.Comparer)
                .Except(found.Select(f => f.Value), chosen.Comparer)
                .Select(v => (v, 0)),
        ];
        var shown = fitting
            .Where(v => folded.Length == 0 || Core.Text.Words.Fold(v.Value).Contains(folded, StringComparison.Ordinal))
            .OrderByDescending(v => chosen.Contains(v.Value) || excluded.Contains(v.Value))
            .ThenByDescending(v => v.Count)
            .ThenBy(v => v.Value, StringComparer.OrdinalIgnoreCase)
            .Take(MostFacetValues)
            .Select(v => new FacetValueDto(
                v.Value,
                v.Count,
                chosen.Contains(v.Value),
                excluded.Contains(v.Value),
                facet == Facet.Person ? view.Snapshot.Columns.PerhapsSame(v.Value) : []
            ));
        return TypedResults.Ok(new FacetDto(facet, fitting.Length, [.. shown]));
    }
}
