using System.Security.Claims;
using Zendle.Core.FullText;
using Zendle.Core.Holdings;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Server.Identity;
using Zendle.Server.Libraries;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Libraries;

/// <summary>Tells how the texts of works can be had by whoever asks, before anything is asked for.</summary>
internal static class TextWays
{
    private const int Most = 200;

    public static void MapTextWays(this RouteGroupBuilder api) => api.MapGet("/text-ways", Of).Produces<TextWayDto[]>();

    /// <param name="works">Ids of works, at most two hundred, parted by commas.</param>
    private static async Task<IResult> Of(
        string works,
        CorpusReader reader,
        LibraryWays ways,
        LibraryShelf shelf,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        var ids = new List<int>();
        foreach (var word in works.Split(',', StringSplitOptions.RemoveEmptyEntries))
            if (int.TryParse(word, System.Globalization.CultureInfo.InvariantCulture, out var id) && id > 0)
                ids.Add(id);
            else
                return Problems.Of(400, "Works are told by their numbers.");
        if (ids.Count > Most)
            return Problems.Of(400, $"At most {Most} works can be asked for at once.");
        var libraries = await ways.Of(Access.AccountId(user), cancel);
        var records = await reader.OfWorks(ids, cancel);
        return TypedResults.Ok(
            ids.Distinct().Where(records.Contains).Select(id => One(id, [.. records[id]], libraries, shelf)).ToArray()
        );
    }

    private static TextWayDto One(
        int id,
        SourcedRecord[] records,
        IReadOnlyList<LibraryRow> libraries,
        LibraryShelf shelf
    )
    {
        var chosen = ChosenFields.From(records);
        var rank = TextAtHand.Best(chosen.Copies);
        var free = TextAtHand.BestFree(chosen.Copies);
        var best = shelf.Best(libraries, HeldItem.Of(records, chosen));
        var way = free is not null
            ? free.Version is null
                ? TextWay.FreeOther
                : WorkVersions.IsOfRecord(free.Version)
                    ? TextWay.FreeOfRecord
                    : TextWay.FreeManuscript
            : best?.Answer.IsOfUse == true
                ? TextWay.Library
                : TextAtHand.IsClosed(rank)
                    ? TextWay.LoanOnly
                    : TextWay.Unknown;
        var line = best?.Answer.Line;
        return new(
            id,
            way,
            free?.Address,
            best?.Library.Id,
            best?.Library.Name,
            best?.Answer.Verdict,
            line is { IsBook: false } ? line.First.Date?.Year : null,
            line is { IsBook: false } ? line.Last.Date?.Year : null,
            line?.EmbargoCode ?? "",
            best?.Answer.OpensOn
        );
    }
}
