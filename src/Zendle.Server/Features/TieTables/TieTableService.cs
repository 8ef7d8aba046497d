using System.Text;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Trails;
using Zendle.Server.Corpus;
using Zendle.Server.Jobs;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.TieTables;

/// <summary>A table that was not taken; the message is a sentence for a person.</summary>
internal sealed class TieTableFaultException(string sentence) : Exception(sentence);

/// <summary>
/// Tables of citations that curators add: a citing and a cited DOI in each row. A table is read while it comes, sorted in a
/// file of its own, and then put into the corpus by a job.
/// </summary>
internal sealed class TieTableService(
    IDbContextFactory<CorpusContext> corpora,
    CorpusIdentity identities,
    CorpusWriter writer,
    CorpusChange change,
    JobRunner jobs,
    ZendleOptions options,
    TimeProvider clock
)
{
    private const int LongestName = 80;
    private static readonly SemaphoreSlim Adding = new(1, 1);

    /// <summary>Where the rows of a table wait to be put in.</summary>
    public string StagedAt(int source) =>
        Path.Combine(Folder, string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{source}.ties"));

    private string Folder => Path.Combine(options.Data, "staging");

    /// <summary>At the start: tables that were broken off on their way are thrown away.</summary>
    public void ForgetHalves()
    {
        if (Directory.Exists(Folder))
            foreach (var half in Directory.GetFiles(Folder, "*.part*"))
                File.Delete(half);
    }

    /// <summary>Takes a table in; its citations are seen when the job has ended.</summary>
    /// <param name="name">What it is called.</param>
    /// <param name="table">The table, in UTF-8 or with a byte order mark.</param>
    /// <param name="cancel">Stops; nothing is taken in then.</param>
    /// <exception cref="TieTableFaultException">It was not taken.</exception>
    public async Task<JobRow> Add(string name, Stream table, CancellationToken cancel)
    {
        name = string.Join(' ', name.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        if (name.Length is 0 or > LongestName)
            throw new TieTableFaultException($"A table needs a name of at most {LongestName} letters.");
        Directory.CreateDirectory(Folder);
        var came = Path.Combine(Folder, $"{Guid.NewGuid():N}.part");
        var staged = came + ".ties";
        try
        {
            // However slowly it comes, nothing waits for it.
            await using (var to = File.Create(came))
                await table.CopyToAsync(to, cancel);
            var (rows, unread) = await Task.Run(() => Stage(staged, came, cancel), cancel);
            return await Add(name, staged, rows, unread, cancel);
        }
        finally
        {
            File.Delete(came);
            File.Delete(staged);
        }
    }

    private static (int Rows, int Unread) Stage(string staged, string came, CancellationToken cancel)
    {
        var (rows, unread) = (0, 0);
        using var table = File.OpenRead(came);
        using var staging = TieStaging.Open(staged);
        // Strict about the encoding would refuse a table for one letter of a column that nobody asks for.
        using var reader = new StreamReader(table, Encoding.UTF8, detectEncodingFromByteOrderMarks: true, 1 << 16);
        try
        {
            staging.Put(Pairs(), cancel);
        }
        catch (FormatException e)
        {
            throw new TieTableFaultException(e.Message);
        }
        return rows > unread
            ? (rows, unread)
            : throw new TieTableFaultException("No row of the table holds a citing and a cited DOI.");

        IEnumerable<(string, string)> Pairs()
        {
            foreach (var row in TieTable.Read(reader))
            {
                rows++;
                if (row.IsRead)
                    yield return (row.Citing!, row.Cited!);
                else
                    unread++;
            }
        }
    }

    private async Task<JobRow> Add(string name, string staged, int rows, int unread, CancellationToken cancel)
    {
        await Adding.WaitAsync(cancel);
        try
        {
            await using var corpus = await corpora.CreateDbContextAsync(cancel);
            if (
                await corpus.TieSources.AnyAsync(s => s.Name == name, cancel)
                || await corpus.Databases.AnyAsync(d => d.Name == name, cancel)
            )
                throw new TieTableFaultException(
                    $"There is a source called {name} already. Give the table another name."
                );
            if (
                await corpus.Databases.CountAsync(cancel) + await corpus.TieSources.CountAsync(cancel)
                >= DatabaseRow.Most
            )
                throw new TieTableFaultException(
                    $"An installation holds at most {DatabaseRow.Most} databases and tables of citations."
                );
            var address = TieSourceRow.OfTables + name;
            var row = new TieSourceRow
            {
                Id = await identities.NumberFor(address, null, name, cancel),
                Address = address,
                Name = name,
                Rows = rows,
                Unread = unread,
                At = clock.GetUtcNow(),
            };
            File.Move(staged, StagedAt(row.Id), overwrite: true);
            corpus.TieSources.Add(row);
            await corpus.SaveChangesAsync(cancel);
            return await jobs.Ask(TieTableJob.Kind, row.Id);
        }
        finally
        {
            Adding.Release();
        }
    }

    /// <summary>Takes a table away, with all that it alone reported; false when there is none of this number.</summary>
    public async Task<bool> Remove(int source, CancellationToken cancel)
    {
        await using var corpus = await corpora.CreateDbContextAsync(cancel);
        if (
            await corpus.TieSources.SingleOrDefaultAsync(
                s => s.Id == source && s.Address != TieSourceRow.OfTexts,
                cancel
            )
            is not { } row
        )
            return false;
        foreach (var job in await jobs.Running(TieTableJob.Kind, source))
        {
            await jobs.Stop(job);
            await jobs.Ended(job);
        }
        await change.Make(
            async () =>
            {
                await writer.RemoveLists(source, CancellationToken.None);
                corpus.TieSources.Remove(row);
                await corpus.SaveChangesAsync(CancellationToken.None);
            },
            CancellationToken.None
        );
        await identities.Forget(source, CancellationToken.None);
        File.Delete(StagedAt(source));
        return true;
    }
}
