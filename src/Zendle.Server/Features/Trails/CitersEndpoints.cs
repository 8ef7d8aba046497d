using Zendle.Core.People;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Trails;
using Zendle.Index.Trails;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Trails;

/// <summary>A person whom a name may stand for.</summary>
/// <param name="Works">How many works are by them.</param>
/// <param name="CitedBy">How many works cite one of those.</param>
/// <param name="Perhaps">Others who may be the same.</param>
/// <param name="IsDoubtful">Whether the person's name says less than what was typed.</param>
internal sealed record CitedPersonDto(
    string Label,
    int Works,
    int CitedBy,
    IReadOnlyList<string> Perhaps,
    bool IsDoubtful
);

/// <summary>A name in references that match no work.</summary>
/// <param name="Works">How many works print such a reference.</param>
/// <param name="IsDoubtful">Whether it says less than what was typed.</param>
internal sealed record CitedPrintDto(string Name, int Works, bool IsDoubtful);

/// <summary>Whom a name may stand for; the first of them, where there are very many.</summary>
/// <param name="PersonCount">Persons in all.</param>
/// <param name="PrintedCount">Printed variants in all.</param>
internal sealed record CitedNamesDto(
    string Name,
    int PersonCount,
    IReadOnlyList<CitedPersonDto> Persons,
    int PrintedCount,
    IReadOnlyList<CitedPrintDto> Printed
);

/// <summary>Variants of a name that are ticked.</summary>
internal sealed record CitersRequest(string Name, IReadOnlyList<string> Persons, IReadOnlyList<string> Printed);

/// <summary>How many works cite a name.</summary>
/// <param name="With">All of them.</param>
/// <param name="Only">Those that are by the person themselves.</param>
internal sealed record CitersCountDto(int With, int Without, int Only);

internal static class CitersEndpoints
{
    private const int MostShown = 300,
        LongestName = 200;

    public static void MapCiters(this RouteGroupBuilder review)
    {
        review.MapGet("/cited-names", Names).Produces<CitedNamesDto>();
        review.MapPost("/cited-names/count", Count).Require(Role.Reader).Produces<CitersCountDto>();
        review.MapGet("/steps/{stepId:int}/citers", OfStep).Produces<CitersCountDto>();
    }

    private static async Task<IResult> Names(int reviewId, string name, SearchService search)
    {
        if (name.Length <= LongestName && TypedName.AreSeveral(name))
            return Problems.Of(400, "This is more than one name.", "Look for one name at a time.");
        if (name.Length > LongestName || TypedName.Of(name) is not { } typed)
            return Problems.Of(400, $"“{(name.Length > 40 ? name[..40] + "…" : name)}” cannot be read as a name.");
        using var view = (await search.View(reviewId, 0))!;
        var columns = view.Snapshot.Columns;
        var persons = PersonsOfNames.Named(view, typed.Written);
        var printed = NameCiters.Variants(columns, n => typed.Fits(PersonLabel.Read(n)));
        return TypedResults.Ok(
            new CitedNamesDto(
                typed.Written,
                persons.Count,
                [
                    .. persons
                        .Take(MostShown)
                        .Select(p =>
                        {
                            var by = NameCiters.By(columns, [p]);
                            return new CitedPersonDto(
                                p,
                                by.Count(),
                                NameCiters.Citing(columns, by).Count(),
                                columns.PerhapsSame(p),
                                typed.IsDoubtful(PersonLabel.Read(p))
                            );
                        }),
                ],
                printed.Count,
                [
                    .. printed
                        .Take(MostShown)
                        .Select(v => new CitedPrintDto(v.Name, v.Works, typed.IsDoubtful(PersonLabel.Read(v.Name)))),
                ]
            )
        );
    }

    private static async Task<IResult> Count(int reviewId, CitersRequest request, SearchService search)
    {
        if (new CitersAct(request.Name, request.Persons, request.Printed).Fault() is { } fault)
            return Problems.Of(400, fault.Sentence, fault.Advice);
        using var view = (await search.View(reviewId, 0))!;
        var question = new CitersQuestion(request.Name, [.. request.Persons], [.. request.Printed]);
        var with = NameCiters.Of(view.Snapshot.Columns, question);
        view.Evaluator.LeaveOutWithdrawn(with);
        var only = NameCiters.Left(view.Snapshot.Columns, question with { Self = SelfCitations.Only }, with);
        return TypedResults.Ok(Counted(with.Count(), only.Count()));
    }

    private static async Task<IResult> OfStep(int reviewId, int stepId, SearchService search)
    {
        using var view = await search.View(reviewId, stepId);
        return view?.State.Citers is null
            ? Problems.Of(404, "This step does not ask who cites a name.", "Ask from the start of the trails.")
            : TypedResults.Ok(
                Counted(
                    view.Narrowed(view.Citing(SelfCitations.With)).Count(),
                    view.Narrowed(view.Citing(SelfCitations.Only)).Count()
                )
            );
    }

    private static CitersCountDto Counted(int with, int only) => new(with, with - only, only);
}
