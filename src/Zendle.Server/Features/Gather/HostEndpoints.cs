using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Fetch;
using Zendle.Core.FullText;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>How attempts at a host ended, by one reason.</summary>
internal sealed record HostOutcomeDto(string Word, int Count);

/// <summary>A host of texts, as it has been met with.</summary>
/// <param name="Host">Scheme, name and port.</param>
/// <param name="Attempts">How often it was asked for a text, in all reviews.</param>
/// <param name="Got">How many of those gave one.</param>
/// <param name="NotGot">How the others ended, the commonest first.</param>
/// <param name="Waited">How long it asked to be left alone, in seconds, all together.</param>
/// <param name="Milliseconds">How long an attempt takes, the middle one.</param>
/// <param name="LastAt">When it was asked last.</param>
/// <param name="LastGotAt">When it gave a text last; null when never.</param>
/// <param name="Says">What its rules for programs come to; null when they were not read since the start.</param>
/// <param name="Rules">How many of them are about programs like this.</param>
/// <param name="RulesAt">When they were read.</param>
/// <param name="Delay">Seconds it wants between requests; 0 where it does not say.</param>
/// <param name="RestsUntil">Until when it is left alone because it failed again and again; null when it is not.</param>
internal sealed record HostDto(
    string Host,
    int Attempts,
    int Got,
    IReadOnlyList<HostOutcomeDto> NotGot,
    int Waited,
    int Milliseconds,
    DateTimeOffset LastAt,
    DateTimeOffset? LastGotAt,
    HostSays? Says,
    int Rules,
    DateTimeOffset? RulesAt,
    double Delay,
    DateTimeOffset? RestsUntil
);

/// <summary>All hosts, and what they read of whoever asks.</summary>
/// <param name="Contact">Where hosts can write to; null for nowhere.</param>
internal sealed record HostsDto(string? Contact, IReadOnlyList<HostDto> Hosts);

/// <summary>The hosts of texts with their manners, for curators.</summary>
internal static class HostEndpoints
{
    public static void MapHosts(this RouteGroupBuilder api) =>
        api.MapGet("/hosts", All).RequireCurator().Produces<HostsDto>();

    private static async Task<HostsDto> All(
        ZendleContext context,
        DocumentFetcher fetcher,
        ZendleOptions options,
        CancellationToken cancel
    )
    {
        var attempts = await context
            .Attempts.AsNoTracking()
            .Where(a => a.Route != RouteKind.Person)
            .Select(a => new
            {
                a.Address,
                a.Outcome,
                a.AskedToWait,
                a.Milliseconds,
                a.At,
            })
            .ToListAsync(cancel);
        return new(
            options.Contact,
            [
                .. attempts
                    .Select(a => (Attempt: a, At: Uri.TryCreate(a.Address, UriKind.Absolute, out var at) ? at : null))
                    .Where(a => a.At is not null)
                    .GroupBy(a => a.At!.GetLeftPart(UriPartial.Authority), a => a.Attempt)
                    .Select(host =>
                    {
                        var rules = fetcher.RulesOf(host.Key);
                        var times = host.Select(a => a.Milliseconds).Order().ToArray();
                        return new HostDto(
                            host.Key,
                            times.Length,
                            host.Count(a => a.Outcome == AttemptOutcome.Got),
                            [
                                .. host.Where(a => a.Outcome != AttemptOutcome.Got)
                                    .CountBy(a => AttemptWords.Of(a.Outcome))
                                    .OrderByDescending(o => o.Value)
                                    .ThenBy(o => o.Key, StringComparer.Ordinal)
                                    .Select(o => new HostOutcomeDto(o.Key, o.Value)),
                            ],
                            host.Sum(a => a.AskedToWait),
                            times[times.Length / 2],
                            host.Max(a => a.At),
                            host.Where(a => a.Outcome == AttemptOutcome.Got).Max(a => (DateTimeOffset?)a.At),
                            rules?.Says,
                            rules?.Rules.Rules.Count ?? 0,
                            rules?.ReadAt,
                            rules?.Rules.Delay.TotalSeconds ?? 0,
                            fetcher.RestsUntil(new(host.Key))
                        );
                    })
                    .OrderByDescending(h => h.Attempts)
                    .ThenBy(h => h.Host, StringComparer.Ordinal),
            ]
        );
    }
}
