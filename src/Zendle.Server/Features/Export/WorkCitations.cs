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
    public static async Task<List<Citation>> Of(SearchView view, int[] ids, CorpusReader reader, CancellationToken cancel)
    {
        var records = await reader.OfWorks(ids, cancel);
        return [.. ids.Where(records.Contains).Select(id =>
        {
            var chosen = ChosenFields.From([.. records[id]]);
            var judgement = view.Fold.Of(id);
            return new Citation
            {
                WorkId = id, Title = chosen.Title.Value, People = chosen.People.Value, Year = chosen.Year.Value, Type = chosen.Type.Value, Language = chosen.Language.Value, Venue = chosen.Venue.Value,
                Publisher = chosen.Publisher.Value, Doi = chosen.Doi.Value, Isbn = chosen.Isbn.Value, Abstract = chosen.Abstract.Value, Keywords = chosen.Keywords.Value,
                Copies = [.. chosen.Copies.OrderBy(c => c.Access != CopyAccess.Free)], Databases = records[id].All(r => r.IsWithdrawn) ? [CorpusColumns.NoDatabaseName] : [.. records[id].Where(r => !r.IsWithdrawn).Select(r => view.Snapshot.DatabaseNames[r.DatabaseId]).Distinct()],
                Stage = Stages.Name(judgement.Stage), Reason = judgement.Reason, Tags = judgement.Tags, Cited = view.Snapshot.Columns.Graph.CitedBy(id).Length,
            };
        })];
    }
}
