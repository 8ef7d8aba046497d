using System.Globalization;
using Zendle.Server.Jobs;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.TieTables;

/// <summary>Puts the citations of a table into the corpus. One that was broken off begins anew; nothing stands twice.</summary>
internal sealed class TieTableJob(TieTableService tables, CorpusReader reader, CorpusWriter writer, CorpusChange change)
    : IJob
{
    /// <summary>The subject is the source.</summary>
    public static readonly JobKind Kind = new("tie-table", JobOwner.Installation);

    public async Task Run(JobRow job, Func<Task> save, CancellationToken cancel)
    {
        var staged = tables.StagedAt(job.Subject);
        if (!File.Exists(staged))
            throw new InvalidOperationException(
                "The rows of this table are not there any more. Remove it and add it again."
            );
        var source = (await reader.TieSources(cancel)).Single(s => s.Id == job.Subject);
        (job.Done, job.Changed, job.Total) = (0, 0, source.Rows - source.Unread);
        await writer.RemoveLists(source.Id, cancel);
        using (var staging = TieStaging.Open(staged))
            foreach (var lists in staging.Lists())
            {
                job.Changed += await writer.Add(source.Id, lists, cancel);
                job.Done += lists.Sum(l => l.Count);
                job.Message = string.Create(CultureInfo.InvariantCulture, $"{job.Done:N0} citations taken.");
                await save();
            }
        job.Message = "Matching them with works.";
        await save();
        await change.Show(isLast: true, cancel);
        job.Message = string.Create(
            CultureInfo.InvariantCulture,
            $"{job.Done:N0} citations of {job.Changed:N0} works taken."
        );
        File.Delete(staged);
    }
}
