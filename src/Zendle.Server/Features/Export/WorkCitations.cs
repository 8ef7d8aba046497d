using System.Globalization;
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
                    return new Citation
                    {
                        WorkId = id,
                        // Exports give keys that last; what stays on the screen needs one for the moment only.
                        Key = string.Create(CultureInfo.InvariantCulture, $"work-{id}"),
                        Title = chosen.Title.Value,
                        Authors = [.. chosen.People.Value.Where(p => p.Role is null)],
                        Editors = [.. chosen.People.Value.Where(p => p.Role == "editor"), .. chosen.Editors],
                        Year = chosen.Year.Value,
                        Date = chosen.Date,
                        Type = chosen.Type.Value,
                        Genre = chosen.Genre,
                        Language = chosen.Language.Value,
                        Venue = chosen.Venue.Value is { } venue
                            ? venue with
                            {
                                Title = view.Snapshot.Columns.VenueOf(id) ?? venue.Title,
                            }
                            : null,
                        Publisher = chosen.Publisher.Value,
                        Series = chosen.Series,
                        Funders = chosen.Funders,
                        Licence = chosen.Licence,
                        Doi = chosen.Doi.Value,
                        Isbn = chosen.Isbn.Value,
                        Abstract = chosen.Abstract.Value,
                        Keywords =
                        [
                            .. chosen
                                .Keywords.Value.Concat(chosen.ControlledTerms)
                                .Distinct(StringComparer.OrdinalIgnoreCase),
                        ],
                        Copies = [.. chosen.Copies.OrderBy(c => c.Access != CopyAccess.Free)],
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
                        Cited = view.Snapshot.Columns.Graph.CitedBy(id).Length,
                    };
                }),
        ];
    }
}
