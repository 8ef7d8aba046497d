using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Server.Features.Gather;
using Zendle.Server.Identity;
using Zendle.Server.Reviews;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Reviews;

/// <summary>A review as a member sees it.</summary>
/// <param name="NotFound">Kept works that are in no database now; not counted as kept.</param>
internal sealed record ReviewDto(
    int Id,
    string Title,
    string Question,
    int BandLow,
    int BandHigh,
    Role Role,
    int Kept,
    int SetAside,
    DateTimeOffset CreatedAt,
    int? StepId,
    int TrailStepId,
    int WithText,
    int NeedYou,
    int NotFound,
    IReadOnlyList<TagDto> Tags
);

internal sealed record TagDto(string Tag, int Count);

internal sealed record NewReviewRequest(string Title, string? Question);

internal sealed record ReviewChangeRequest(string? Title, string? Question, int? BandLow, int? BandHigh);

internal sealed record MemberDto(string Name, string DisplayName, Role Role);

internal sealed record MemberRequest(string Name, Role Role);

internal static class ReviewEndpoints
{
    /// <summary>Members are changed one at a time, so that several wishes for one account make one member.</summary>
    private static readonly SemaphoreSlim Changing = new(1, 1);

    public static void MapReviews(this RouteGroupBuilder api, RouteGroupBuilder review)
    {
        api.MapGet("/reviews", List);
        api.MapPost("/reviews", Create).Produces<ReviewDto>();
        review.MapGet(
            "",
            async (int reviewId, ReviewService service, ClaimsPrincipal user) =>
                await service.Get(reviewId, Access.AccountId(user))
        );
        review.MapPatch("", Change).Require(Role.Owner).Produces<ReviewDto>();
        review.MapGet("/not-found", NotFound);
        review.MapGet("/members", Members);
        review.MapPut("/members", PutMember).Require(Role.Owner);
        review.MapDelete("/members/{name}", RemoveMember).Require(Role.Owner);
    }

    private static async Task<List<ReviewDto>> List(ReviewService service, ClaimsPrincipal user, Access access)
    {
        var reviews = new List<ReviewDto>();
        foreach (var id in (await access.ReviewIds(user)).Order())
            reviews.Add(await service.Get(id, Access.AccountId(user)));
        return reviews;
    }

    private static async Task<IResult> Create(NewReviewRequest request, ReviewService service, ClaimsPrincipal user)
    {
        var title = request.Title.Trim();
        if (title.Length is 0 or > 200)
            return Problems.Of(400, "A review needs a title of 1 to 200 characters.");
        if (request.Question?.Length > 2_000)
            return Problems.Of(400, "The question is longer than 2,000 characters.");
        var account = Access.AccountId(user);
        return TypedResults.Ok(
            await service.Get(await service.Create(title, request.Question?.Trim() ?? "", account), account)
        );
    }

    private static async Task<IResult> Change(
        int reviewId,
        ReviewChangeRequest request,
        ReviewService service,
        ClaimsPrincipal user,
        ZendleContext context,
        EventHub hub
    )
    {
        var review = await context.Reviews.SingleAsync(r => r.Id == reviewId);
        var band = new TargetBand(request.BandLow ?? review.BandLow, request.BandHigh ?? review.BandHigh);
        if (band.Fault is { } fault)
            return Problems.Of(400, fault);
        if (request.Title is { } title && title.Trim().Length is 0 or > 200)
            return Problems.Of(400, "A review needs a title of 1 to 200 characters.");
        if (request.Question?.Length > 2_000)
            return Problems.Of(400, "The question is longer than 2,000 characters.");
        (review.Title, review.Question, review.BandLow, review.BandHigh) = (
            request.Title?.Trim() ?? review.Title,
            request.Question?.Trim() ?? review.Question,
            band.Low,
            band.High
        );
        await context.SaveChangesAsync();
        hub.Tell(new("review", reviewId));
        return TypedResults.Ok(await service.Get(reviewId, Access.AccountId(user)));
    }

    /// <summary>Kept works that are in no database now, as they were when they were decided on.</summary>
    private static async Task<List<NotFoundWork>> NotFound(
        int reviewId,
        DecisionService decisions,
        MadeOn madeOn,
        CancellationToken cancel
    ) => await madeOn.Describe((await decisions.Of(reviewId)).Facts.KeptButGone, cancel);

    private static async Task<List<MemberDto>> Members(int reviewId, ZendleContext context) =>
        [
            .. (
                await context
                    .Members.Where(m => m.ReviewId == reviewId)
                    .Join(
                        context.Users,
                        m => m.AccountId,
                        u => u.Id,
                        (m, u) =>
                            new
                            {
                                u.UserName,
                                u.DisplayName,
                                m.Role,
                            }
                    )
                    .ToListAsync()
            ).Select(m => new MemberDto(m.UserName!, m.DisplayName, m.Role)),
        ];

    private static Task<IResult> PutMember(
        int reviewId,
        MemberRequest request,
        ZendleContext context,
        ClaimsPrincipal user,
        EventHub hub
    ) =>
        ChangeMember(
            reviewId,
            request.Name,
            context,
            user,
            hub,
            (account, member) =>
            {
                if (member is null)
                    context.Members.Add(
                        new()
                        {
                            ReviewId = reviewId,
                            AccountId = account,
                            Role = request.Role,
                        }
                    );
                else
                    member.Role = request.Role;
            }
        );

    private static Task<IResult> RemoveMember(
        int reviewId,
        string name,
        ZendleContext context,
        ClaimsPrincipal user,
        EventHub hub
    ) =>
        ChangeMember(
            reviewId,
            name,
            context,
            user,
            hub,
            (_, member) =>
            {
                if (member is not null)
                    context.Members.Remove(member);
            }
        );

    private static async Task<IResult> ChangeMember(
        int reviewId,
        string name,
        ZendleContext context,
        ClaimsPrincipal user,
        EventHub hub,
        Action<string, Member?> change
    )
    {
        var upper = name.Trim().ToUpperInvariant();
        var account = await context.Users.SingleOrDefaultAsync(u => u.NormalizedUserName == upper);
        if (account is null)
            return Problems.Of(404, "There is no account with this name.", "A curator can add one.");
        if (account.Id == Access.AccountId(user))
            return Problems.Of(409, "You cannot change your own role; another owner can.");
        await Changing.WaitAsync();
        try
        {
            change(
                account.Id,
                await context.Members.SingleOrDefaultAsync(m => m.ReviewId == reviewId && m.AccountId == account.Id)
            );
            await context.SaveChangesAsync();
        }
        finally
        {
            Changing.Release();
        }
        hub.Tell(new("members"));
        return TypedResults.NoContent();
    }
}

/// <summary>Makes reviews and says how they stand.</summary>
internal sealed class ReviewService(
    IDbContextFactory<ZendleContext> contexts,
    DecisionService decisions,
    GatherService gather,
    CorpusService corpus,
    TimeProvider clock
)
{
    public async Task<int> Create(string title, string question, string account)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var review = new Review
        {
            Title = title,
            Question = question,
            CreatedAt = clock.GetUtcNow(),
        };
        await using var transaction = await context.Database.BeginTransactionAsync();
        context.Reviews.Add(review);
        await context.SaveChangesAsync();
        context.Members.Add(
            new()
            {
                ReviewId = review.Id,
                AccountId = account,
                Role = Role.Owner,
            }
        );
        await context.SaveChangesAsync();
        await transaction.CommitAsync();
        return review.Id;
    }

    public async Task<ReviewDto> Get(int reviewId, string account)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var review = await context.Reviews.AsNoTracking().SingleAsync(r => r.Id == reviewId);
        var role = await context
            .Members.Where(m => m.ReviewId == reviewId && m.AccountId == account)
            .Select(m => m.Role)
            .SingleAsync();
        var place = await context
            .Places.AsNoTracking()
            .SingleOrDefaultAsync(p => p.ReviewId == reviewId && p.AccountId == account);
        // While the newest records are still put in, kept works among them are not lost.
        var (_, facts) = await decisions.Of(reviewId);
        var (withText, needYou) = await gather.Counts(reviewId);
        return new(
            review.Id,
            review.Title,
            review.Question,
            review.BandLow,
            review.BandHigh,
            role,
            facts.Kept.Count() + (corpus.IsBehind ? facts.KeptButGone.Count : 0),
            facts.SetAside.Count(),
            review.CreatedAt,
            place?.StepId,
            place?.TrailStepId ?? 0,
            withText,
            needYou,
            corpus.IsBehind ? 0 : facts.KeptButGone.Count,
            [
                .. facts
                    .Tags.Select(t => new TagDto(t.Key, t.Value.Count()))
                    .Where(t => t.Count > 0)
                    .OrderBy(t => t.Tag, StringComparer.OrdinalIgnoreCase),
            ]
        );
    }
}
