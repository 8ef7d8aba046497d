using Zendle.Core.Formats;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Index.Columns;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Export;

/// <summary>What exports and references say of works.</summary>
internal static class WorkCitations
{
    /// <summary>Citations of works, in order; those that are gone are left out.</summary>
    public static async Task<List<Citation>> Of(
        SearchView view,
        int[] ids,
        CorpusReader reader,
        CancellationToken cancel
    )
    {
        var records = await reader.OfWorks(ids, cancel);
        return
        [
            .. ids.Where(records.Contains)
                .Select(id =>
                {
                    var chosen = ChosenFields.From([.. records[id]]);
                    var judgement = view.Fold.Of(id);
                    var citation = Citation.Of(id, chosen);
                    return citation with
                    {
                        Venue = citation.Venue is { } venue
                            ? venue with
                            {
                                Title = view.Snapshot.Columns.VenueOf(id) ?? venue.Title,
                            }
                            : null,
                        Databases = records[id].All(r => r.IsWithdrawn)
                            ? [CorpusColumns.NoDatabaseName]
                            :
                            [
                                .. records[id]
                                    .Where(r => !r.IsWithdrawn)
                                    .Select(r => view.Snapshot.DatabaseNames[r.DatabaseId])
                                    .Distinct(),
                            ],
                        Stage = Stages.Name(judgement.Stage),
                        Reason = judgement.Reason,
                        Tags = judgement.Tags,
                        Cited = view.Snapshot.Columns.Graph.CitedByCount(id),
                    };
                }),
        ];
    }
}
