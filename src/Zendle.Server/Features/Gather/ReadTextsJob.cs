using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zendle.Documents;
using Zendle.Documents.Reading;
using Zendle.Server.Jobs;
using Zendle.Store.Files;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>Reads texts that were gathered before Zendle read reference lists, or read them by other rules.</summary>
internal sealed class ReadTextsJob(
    IDbContextFactory<ZendleContext> contexts,
    TextLists lists,
    DocumentReader documents,
    FileVault vault
) : IJob
{
    /// <summary>One for the installation; started by itself.</summary>
    public static readonly JobKind Kind = new("read-texts", JobOwner.Installation);

    private const int AtOnce = 100;

    public async Task Run(JobRow job, Func<Task> save, CancellationToken cancel)
    {
        var unread = await lists.Unread(cancel);
        (job.Done, job.Total) = (0, unread.Count);
        foreach (var chunk in unread.Chunk(AtOnce))
        {
            var works = new HashSet<int>();
            foreach (var hash in chunk)
            {
                await Read(hash, cancel);
                works.UnionWith(await lists.WorksOf(hash, cancel));
                job.Done++;
            }
            await lists.Show(works, cancel);
            job.Message = string.Create(CultureInfo.InvariantCulture, $"{job.Done} of {job.Total} texts read.");
            await save();
        }
    }

    private async Task Read(string hash, CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        try
        {
            var bytes = await File.ReadAllBytesAsync(vault.PathOf(hash), cancel);
            await TextLists.Note(made, hash, await documents.Read(bytes, cancel), cancel);
        }
        // A file that is away, or that no reader of today reads, has no list; it is not tried at every start.
        catch (Exception e) when (e is IOException or DocumentFaultException or UnauthorizedAccessException)
        {
            await TextLists.NoteNothing(made, hash, cancel);
        }
    }
}
