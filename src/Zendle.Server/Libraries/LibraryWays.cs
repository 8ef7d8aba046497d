using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Fetch;
using Zendle.Core.FullText;
using Zendle.Core.Holdings;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Store.Made;

namespace Zendle.Server.Libraries;

/// <summary>Which ways to a text a person's libraries open.</summary>
internal sealed class LibraryWays(
    IDbContextFactory<ZendleContext> contexts,
    LibraryShelf shelf,
    LibrarySessions sessions,
    ZendleOptions options
)
{
    /// <summary>The libraries a person uses, in their order.</summary>
    public async Task<IReadOnlyList<LibraryRow>> Of(string account, CancellationToken cancel)
    {
        await shelf.Freshen(cancel);
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var ids = await context
            .UsedLibraries.Where(u => u.AccountId == account)
            .OrderBy(u => u.Rank)
            .Select(u => u.LibraryId)
            .ToListAsync(cancel);
        var all = shelf.All.ToDictionary(l => l.Id);
        return [.. ids.Select(i => all.GetValueOrDefault(i)).OfType<LibraryRow>()];
    }

    /// <summary>The ways to a work through a person's libraries that hold it, or may.</summary>
    /// <param name="libraries">The libraries, in order.</param>
    /// <param name="records">The work's records.</param>
    /// <param name="chosen">What was chosen from them.</param>
    public IReadOnlyList<LibraryWay> To(
        IReadOnlyList<LibraryRow> libraries,
        IReadOnlyList<SourcedRecord> records,
        ChosenFields chosen
    )
    {
        if (libraries.Count == 0)
            return [];
        var item = HeldItem.Of(records, chosen);
        string[] issns = [.. records.Select(r => r.Record.Venue?.Issn).OfType<string>().Distinct()];
        return
        [
            .. libraries
                .Where(l => shelf.Answer(l.Id, item).IsOfUse)
                .Select(l =>
                {
                    var pass = new LibraryPass(Address(l.ProxyPrefix), null);
                    return new LibraryWay(
                        l.Id,
                        Address(l.Resolver) is { } resolver ? OpenUrl.For(resolver, chosen, issns) : null,
                        pass.Proxy is null ? null : target => pass.Through(target)!
                    );
                }),
        ];
    }

    /// <summary>What lets a fetch go through a library for a person.</summary>
    /// <param name="account">The person.</param>
    /// <param name="library">The library.</param>
    /// <param name="work">What is known of the work.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<LibraryPass> Pass(string account, int library, Sought work, CancellationToken cancel) =>
        new(
            Address(shelf.All.FirstOrDefault(l => l.Id == library)?.ProxyPrefix),
            await sessions.Open(account, library, cancel)
        )
        {
            Hosts =
            [
                .. work
                    .Copies.Where(c => WorkVersions.IsOfRecord(c.Version))
                    .Select(c => Address(c.Address)?.Host)
                    .Append(options.DoiResolver?.Host)
                    .OfType<string>(),
            ],
        };

    private static Uri? Address(string? address) => Uri.TryCreate(address, UriKind.Absolute, out var at) ? at : null;
}
