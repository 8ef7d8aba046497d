using Microsoft.EntityFrameworkCore;
using Zendle.Core.Text;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search.Terms;

/// <summary>The terms that reviews do not want offered: said once, they stay refused, for all who see the review.</summary>
internal sealed class RefusedTerms(IDbContextFactory<ZendleContext> contexts, TimeProvider clock)
{
    /// <summary>Longest term that can be refused, in characters.</summary>
    public const int Longest = 200;

    private const int Most = 2_000;

    /// <summary>Those of a review, the newest first.</summary>
    public async Task<IReadOnlyList<RefusedTermDto>> Of(int reviewId, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var rows = await (
            from term in context.RefusedTerms.AsNoTracking()
            where term.ReviewId == reviewId
            join account in context.Users on term.AccountId equals account.Id
            select new
            {
                term.Text,
                account.UserName,
                term.At,
            }
        ).ToListAsync(cancel);
        return
        [
            .. rows.Select(r => new RefusedTermDto(r.Text, r.UserName ?? "", r.At))
                .OrderByDescending(r => r.At)
                .ThenBy(r => r.Text, StringComparer.Ordinal),
        ];
    }

    /// <summary>Refuses a term or lets it be offered again; what is so already stays as it is.</summary>
    /// <returns>False when a review has refused too many.</returns>
    public async Task<bool> Set(int reviewId, string accountId, string text, bool isRefused, CancellationToken cancel)
    {
        var folded = string.Join(' ', Words.AsWritten(text));
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var there = await context.RefusedTerms.FindAsync([reviewId, folded], cancel);
        if (isRefused && there is null)
        {
            if (await context.RefusedTerms.CountAsync(t => t.ReviewId == reviewId, cancel) >= Most)
                return false;
            context.RefusedTerms.Add(
                new()
                {
                    ReviewId = reviewId,
                    Text = folded,
                    AccountId = accountId,
                    At = clock.GetUtcNow(),
                }
            );
        }
        else if (!isRefused && there is not null)
            context.RefusedTerms.Remove(there);
        await context.SaveChangesAsync(cancel);
        return true;
    }
}
