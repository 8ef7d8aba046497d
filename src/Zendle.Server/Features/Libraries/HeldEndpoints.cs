using System.Security.Claims;
using Zendle.Core.FullText;
using Zendle.Core.Holdings;
using Zendle.Core.Merging;
using Zendle.Server.Identity;
using Zendle.Server.Libraries;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Libraries;

/// <summary>Tells what the libraries of whoever asks hold of works, before any text is asked for.</summary>
internal static class HeldEndpoints
{
    private const int Most = 200;

    public static void MapHeld(this RouteGroupBuilder api) => api.MapGet("/held", Of).Produces<HeldDto[]>();

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
                return Problems.Of(400, "Works are given by their numbers.");
        if (ids.Count > Most)
            return Problems.Of(400, $"At most {Most} works can be asked for at once.");
        var libraries = await ways.Of(Access.AccountId(user), cancel);
        var records = await reader.OfWorks(ids, cancel);
        return TypedResults.Ok(
            ids.Distinct().Where(records.Contains).Select(id => One(id, [.. records[id]], libraries, shelf)).ToArray()
        );
    }

    private static HeldDto One(int id, SourcedRecord[] records, IReadOnlyList<LibraryRow> libraries, LibraryShelf shelf)
    {
        var chosen = ChosenFields.From(records);
        var rank = TextAtHand.Best(chosen.Copies);
        var best = shelf.Best(libraries, HeldItem.Of(records, chosen));
        var line = best?.Answer.Line;
        return new(
            id,
            TextAtHand.IsFree(rank),
            TextAtHand.IsSold(rank),
            best?.Library.Id,
            best?.Library.Name,
            best?.Answer.Coverage,
            line is { IsBook: false } ? line.First.Date?.Year : null,
            line is { IsBook: false } ? line.Last.Date?.Year : null,
            line?.EmbargoCode ?? "",
            best?.Answer.OpensOn
        );
    }
}
