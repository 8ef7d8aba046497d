using System.Security.Claims;
using Zendle.Core.Merging;
using Zendle.Index.Columns;
using Zendle.Server.Identity;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.References;

/// <summary>A reference as printed, with the work it means and why.</summary>
/// <param name="Listed">Where lists have it: once for each of its names.</param>
/// <param name="Resolution">What a person said it means; null when nobody did.</param>
internal sealed record CitedReferenceDto(
    string Text,
    string? Doi,
    IReadOnlyList<string> Databases,
    IReadOnlyList<ListedAtDto> Listed,
    int? WorkId,
    string? Title,
    string? Evidence,
    double Sure,
    ResolutionDto? Resolution
);

/// <summary>Tells of references as they are shown: of a work, or of the seeds of a trail.</summary>
internal sealed class ReferenceTeller(ResolutionService resolutions, CorpusReader reader, Access access)
{
    /// <summary>
    /// What some works cite, as each database has it, and the lists that no record has and that count for them.
    /// </summary>
    public Task<List<ListedReference>> ReferencesOf(
        IReadOnlyCollection<int> works,
        CorpusColumns columns,
        CancellationToken cancel
    )
    {
        var there = works.Where(w => w > 0 && w < columns.WorkSize).Distinct();
        return reader.ReferencesOf(
            works,
            there
                .SelectMany(w => columns.AddedListsOf(w).Select(l => (List: l, Work: w)))
                .ToDictionary(l => l.List, l => l.Work),
            cancel
        );
    }

    /// <summary>What is shown of some references, in their order.</summary>
    /// <param name="joined">The references.</param>
    /// <param name="databases">Names of databases by id.</param>
    /// <param name="user">Who asks.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<List<CitedReferenceDto>> Tell(
        IReadOnlyList<JoinedReference> joined,
        IReadOnlyDictionary<int, string> databases,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        var works = await reader.OfWorks([.. joined.Select(j => j.Match.Work).Where(w => w != 0)], cancel);
        var said = joined.Any(j => j.Match.Evidence == ReferenceEvidence.Person)
            ? await resolutions.InForce(cancel)
            : new Dictionary<ulong, ResolutionRow>();
        ResolutionRow?[] by = [.. joined.Select(j => Said(j, said))];
        var people = await resolutions.People(by.OfType<ResolutionRow>().Select(r => r.AccountId), cancel);
        var (asks, isCurator) = (Access.AccountId(user), await access.IsCurator(user));
        return
        [
            .. joined.Select(
                (j, i) =>
                    new CitedReferenceDto(
                        j.Reference.Text,
                        j.Reference.Doi,
                        [.. j.Databases.Select(d => databases.GetValueOrDefault(d, "?"))],
                        [.. j.Listed.Select(l => new ListedAtDto(l.Record, l.Ordinal))],
                        j.Match.Work == 0 ? null : j.Match.Work,
                        j.Match.Work == 0 || !works.Contains(j.Match.Work)
                            ? null
                            : ChosenFields.From([.. works[j.Match.Work]]).Title.Value,
                        ReferenceList.Words(j.Match.Evidence),
                        Math.Round(j.Match.Confidence, 2),
                        by[i] is { } row ? ResolutionDto.Of(row, people, asks, isCurator) : null
                    )
            ),
        ];
    }

    private static ResolutionRow? Said(JoinedReference joined, IReadOnlyDictionary<ulong, ResolutionRow> said) =>
        joined.Match.Evidence == ReferenceEvidence.Person
            ? joined
                .Listed.SelectMany(l => l.Names)
                .Select(n => said.GetValueOrDefault(n))
                .FirstOrDefault(r => r is not null)
            : null;
}
