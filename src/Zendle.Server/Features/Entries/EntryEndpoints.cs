using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Citing;
using Zendle.Core.Entries;
using Zendle.Core.Records;
using Zendle.Server.Identity;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Entries;

/// <summary>A custom entry.</summary>
/// <param name="By">Who added it.</param>
/// <param name="MayChange">Whether the one who asks may change or remove it.</param>
internal sealed record EntryDto(
    int Id,
    EntryFields Fields,
    string By,
    DateTimeOffset At,
    bool IsRemoved,
    bool MayChange
);

/// <summary>An entry by its title.</summary>
/// <param name="WorkId">The work that it is.</param>
/// <param name="Type">Kind of document; empty where it is not said.</param>
internal sealed record EntryNameDto(int Id, int WorkId, string Title, string Type);

/// <summary>Entries to be added.</summary>
internal sealed record NewEntriesRequest(IReadOnlyList<EntryFields> Entries);

/// <summary>References as printed, one in each text.</summary>
internal sealed record PrintedRequest(IReadOnlyList<string> Texts);

/// <summary>Says whether an entry is removed.</summary>
internal sealed record RemovedRequest(bool IsRemoved);

/// <summary>The works that entries are now.</summary>
/// <param name="Works">The work of each, in their order; 0 for one that is removed.</param>
/// <param name="Joined">How many of those works databases have, too.</param>
internal sealed record EntryWorksDto(IReadOnlyList<int> Works, int Joined);

/// <summary>
/// Custom entries belong to the installation; the review in the address says in which role a person asks.
/// </summary>
internal static class EntryEndpoints
{
    public static void MapEntries(this RouteGroupBuilder review, RouteGroupBuilder signedIn)
    {
        signedIn.MapGet("/entries/kinds", () => DocumentTypes.All.Select(t => t.Name));
        signedIn.MapPost("/entries/read", Read).Produces<IReadOnlyList<EntryFields>>();
        review.MapPost("/entries", Add).Require(Role.Screener).Produces<EntryWorksDto>();
        review
            .MapGet(
                "/entries",
                (int reviewId, EntryService entries, CancellationToken cancel) => entries.Newest(cancel)
            )
            .Produces<IReadOnlyList<EntryNameDto>>();
        review.MapGet("/entries/{entryId:int}", Get).Produces<EntryDto>();
        review.MapPut("/entries/{entryId:int}", Put).Require(Role.Screener).Produces<EntryWorksDto>();
        review.MapPut("/entries/{entryId:int}/removed", Remove).Require(Role.Screener).Produces<EntryWorksDto>();
    }

    private static IResult Read(PrintedRequest request)
    {
        if (request.Texts.Count > EntryService.MostAtOnce)
            return TooMany();
        var read = request.Texts.Select(t => (Text: t, Filed: ReferenceFile.Read(t))).ToArray();
        if (Array.Find(read, t => t.Filed is null && t.Text.Length > PastedReferences.LongestEntry).Text is { } longer)
            return Problems.Of(
                400,
                $"A reference has at most {PastedReferences.LongestEntry:N0} characters; one has {longer.Length:N0}."
            );
        return TypedResults.Ok(
            read.Select(t => t.Filed is [var first, ..] ? first.Fields : PrintedEntry.Read(t.Text)).ToArray()
        );
    }

    private static async Task<IResult> Add(
        int reviewId,
        NewEntriesRequest request,
        EntryService entries,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (request.Entries.Count == 0)
            return Problems.Of(400, "There is no entry to add.");
        if (request.Entries.Count > EntryService.MostAtOnce)
            return TooMany();
        if (Fault(request.Entries) is { } fault)
            return fault;
        return await entries.Add(Access.AccountId(user), request.Entries, cancel) is { } works
            ? TypedResults.Ok(works)
            : Problems.Of(
                409,
                $"This Zendle holds at most {EntryService.Most:N0} custom entries.",
                "Nothing was added."
            );
    }

    private static async Task<IResult> Get(
        int reviewId,
        int entryId,
        EntryService entries,
        ZendleContext context,
        Access access,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (await entries.Find(entryId, cancel) is not { } row)
            return NoEntry();
        var by = await context
            .Users.Where(u => u.Id == row.AccountId)
            .Select(u => u.DisplayName)
            .SingleOrDefaultAsync(cancel);
        return TypedResults.Ok(
            new EntryDto(
                row.Id,
                EntryService.Fields(row),
                by ?? "",
                row.At,
                row.IsRemoved,
                await MayChange(row, access, user)
            )
        );
    }

    private static Task<IResult> Put(
        int reviewId,
        int entryId,
        EntryFields fields,
        EntryService entries,
        Access access,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        Fault([fields]) is { } fault
            ? Task.FromResult<IResult>(fault)
            : Change(entryId, row => row.Fields = EntryService.Written(fields), entries, access, user, cancel);

    private static Task<IResult> Remove(
        int reviewId,
        int entryId,
        RemovedRequest request,
        EntryService entries,
        Access access,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) => Change(entryId, row => row.IsRemoved = request.IsRemoved, entries, access, user, cancel);

    private static async Task<IResult> Change(
        int entryId,
        Action<EntryRow> put,
        EntryService entries,
        Access access,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (await entries.Find(entryId, cancel) is not { } row)
            return NoEntry();
        if (!await MayChange(row, access, user))
            return Problems.Of(
                403,
                "Only the person who added this entry, or a curator, can change it.",
                "Nothing was changed."
            );
        return await entries.Change(entryId, put, cancel) is { } works ? TypedResults.Ok(works) : NoEntry();
    }

    private static async Task<bool> MayChange(EntryRow row, Access access, ClaimsPrincipal user) =>
        row.AccountId == Access.AccountId(user) || await access.IsCurator(user);

    /// <summary>What is wrong, field by field, for the form to show at its fields; null for nothing.</summary>
    private static ProblemHttpResult? Fault(IReadOnlyList<EntryFields> entries)
    {
        for (var i = 0; i < entries.Count; i++)
            if (CustomEntry.Faults(entries[i]) is [var first, ..] faults)
                return TypedResults.Problem(
                    statusCode: 400,
                    title: entries.Count == 1 ? first.Sentence : $"Entry {i + 1:N0}: {first.Sentence}",
                    detail: "Nothing was saved yet.",
                    extensions: new Dictionary<string, object?>
                    {
                        ["fields"] = faults.ToDictionary(
                            f => char.ToLowerInvariant(f.Field[0]) + f.Field[1..],
                            f => f.Sentence
                        ),
                    }
                );
        return null;
    }

    private static ProblemHttpResult TooMany() =>
        Problems.Of(400, $"At most {EntryService.MostAtOnce:N0} entries are added at once.", "Nothing was added.");

    private static ProblemHttpResult NoEntry() => Problems.Of(404, "There is no such custom entry.");
}
