using System.Security.Claims;
using Zendle.Core.Citing;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Index.Columns;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.References;

/// <summary>Where a list has a reference: that of a record, at an ordinal from 0.</summary>
internal sealed record ListedAtDto(int Record, int Ordinal);

/// <summary>Asks which works a reference may mean.</summary>
/// <param name="Listed">Where lists have it.</param>
/// <param name="Text">The reference as a person mended it, a title or an identifier; null for as it is printed.</param>
internal sealed record ChoicesRequest(IReadOnlyList<ListedAtDto> Listed, string? Text);

/// <summary>The works that a reference may mean.</summary>
/// <param name="Found">The works, the likeliest first.</param>
/// <param name="Printed">How many works print the reference: for all of them it is resolved.</param>
internal sealed record ChoicesDto(PastedReferenceDto Found, int Printed);

/// <summary>Says that a reference means a work.</summary>
internal sealed record ResolutionRequest(IReadOnlyList<ListedAtDto> Listed, int WorkId);

/// <summary>What somebody said a reference means.</summary>
/// <param name="MayUndo">Whether the one who asks may take it back.</param>
internal sealed record ResolutionDto(int Id, string By, DateTimeOffset At, bool MayUndo)
{
    /// <summary>How what was said is told to the one who asks.</summary>
    public static ResolutionDto Of(
        ResolutionRow row,
        IReadOnlyDictionary<string, string> people,
        string asks,
        bool isCurator
    ) => new(row.Id, people.GetValueOrDefault(row.AccountId, ""), row.At, isCurator || row.AccountId == asks);
}

/// <summary>
/// References belong to the installation; the review in the address says in which role a person asks.
/// </summary>
internal static class ResolutionEndpoints
{
    /// <summary>A reference has few names, and is given once for each.</summary>
    private const int MostListed = 64;

    public static void MapResolutions(this RouteGroupBuilder review)
    {
        review.MapPost("/references/choices", Choices).Require(Role.Reader).Produces<ChoicesDto>();
        review.MapPost("/resolutions", Resolve).Require(Role.Screener).Produces<ResolutionDto>();
        review.MapDelete("/resolutions/{resolutionId:int}", Undo).Require(Role.Screener).Produces(204);
    }

    private static async Task<IResult> Choices(
        int reviewId,
        ChoicesRequest request,
        SearchService search,
        CorpusReader reader,
        CancellationToken cancel
    )
    {
        if (request.Text?.Length > PastedReferences.LongestEntry)
            return Problems.Of(
                400,
                $"A reference has at most {PastedReferences.LongestEntry:N0} characters; this has {request.Text.Length:N0}."
            );
        if (await Printed(request.Listed, reader, cancel) is not { } printed)
            return NoReference();
        using var view = (await search.View(reviewId, 0))!;
        var reference = string.IsNullOrWhiteSpace(request.Text)
            ? printed.Reference
            : PrintedReference.Read(request.Text.Trim());
        return TypedResults.Ok(
            new ChoicesDto(
                PastedFinder.Choose(view.Snapshot, view.Evaluator, reference),
                await Works(view.Snapshot.Columns, reader, printed.Names, cancel)
            )
        );
    }

    private static async Task<IResult> Resolve(
        int reviewId,
        ResolutionRequest request,
        ResolutionService resolutions,
        SearchService search,
        CorpusReader reader,
        Access access,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (await Printed(request.Listed, reader, cancel) is not { } printed)
            return NoReference();
        if (printed.Names.Count == 0)
            return Problems.Of(400, "This reference has too little in it to recognise it elsewhere.");
        using (var view = (await search.View(reviewId, 0))!)
            if (
                request.WorkId <= 0
                || request.WorkId >= view.Snapshot.Columns.WorkSize
                || view.Snapshot.Columns.WorkFirstRecord[request.WorkId] == 0
            )
                return Problems.Of(404, "This work is not here any more.", "Look for it again.");
        var account = Access.AccountId(user);
        if (
            await resolutions.Add(account, printed.Reference.Text, printed.Names, request.WorkId, cancel) is not { } row
        )
            return Problems.Of(
                409,
                $"This Zendle holds at most {ResolutionService.Most:N0} resolved references.",
                "Nothing was changed."
            );
        return TypedResults.Ok(
            ResolutionDto.Of(row, await resolutions.People([account], cancel), account, await access.IsCurator(user))
        );
    }

    private static async Task<IResult> Undo(
        int reviewId,
        int resolutionId,
        ResolutionService resolutions,
        Access access,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (await resolutions.Find(resolutionId, cancel) is not { } row)
            return Problems.Of(404, "This has already been undone.");
        if (row.AccountId != Access.AccountId(user) && !await access.IsCurator(user))
            return Problems.Of(
                403,
                "Only the person who matched this reference, or a curator, can undo it.",
                "Nothing was changed."
            );
        await resolutions.Undo(resolutionId, cancel);
        return TypedResults.NoContent();
    }

    /// <summary>What lists have there, and all its names; null when nothing does.</summary>
    private static async Task<(Reference Reference, HashSet<ulong> Names)?> Printed(
        IReadOnlyList<ListedAtDto> listed,
        CorpusReader reader,
        CancellationToken cancel
    )
    {
        var (fullest, names) = ((Reference?)null, new HashSet<ulong>());
        foreach (var at in listed.Take(MostListed))
        {
            if (
                await reader.ReferencesOfRecord(at.Record, cancel) is not { } list
                || at.Ordinal < 0
                || at.Ordinal >= list.Count
            )
                continue;
            var reference = list[at.Ordinal];
            names.UnionWith(ReferenceKeys.Of(reference).Names(reference.Text));
            if (fullest is null || reference.Text.Length > fullest.Text.Length)
                fullest = reference with { Doi = reference.Doi ?? fullest?.Doi };
        }
        return fullest is null ? null : (fullest, names);
    }

    /// <summary>How many works print a reference of some names.</summary>
    private static async Task<int> Works(
        CorpusColumns columns,
        CorpusReader reader,
        HashSet<ulong> names,
        CancellationToken cancel
    )
    {
        var records = columns.RecordsWithKeys(names.Select(n => unchecked((int)n)).ToHashSet());
        return (await reader.ReferencesIn(records, cancel))
            .Where(l => l.References.Any(r => ReferenceKeys.Of(r).Names(r.Text).Any(names.Contains)))
            .Select(l => columns.ListerOf(l.Record))
            .Where(w => w > 0)
            .Distinct()
            .Count();
    }

    private static IResult NoReference() =>
        Problems.Of(
            404,
            "This reference is not in the databases any more.",
            "Close the list and open it again to see the current state."
        );
}
