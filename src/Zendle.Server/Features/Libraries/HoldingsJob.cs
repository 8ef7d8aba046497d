using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Fetch;
using Zendle.Core.Holdings;
using Zendle.Server.Events;
using Zendle.Server.Jobs;
using Zendle.Server.Libraries;
using Zendle.Store.Holdings;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Libraries;

/// <summary>
/// Fetches and reads the holdings of a library. Until the new ones are whole those before count, and when they cannot be
/// read those before stay.
/// </summary>
internal sealed class HoldingsJob(
    IDbContextFactory<ZendleContext> contexts,
    OutsideDocuments documents,
    LibraryShelf shelf,
    EventHub hub,
    TimeProvider clock
) : IJob
{
    /// <summary>The subject is the library.</summary>
    public static readonly JobKind Kind = new("holdings", JobOwner.Installation);

    /// <summary>Most bytes of a file of holdings, unpacked.</summary>
    public const long MostBytes = 2_000_000_000;

    private const int MostFaults = 5,
        Often = 50_000;

    private static readonly OutsideWish Wish = new(
        "a file of holdings",
        ["text/tab-separated-values", "text/plain", "*/*"],
        MostBytes,
        TimeSpan.FromMinutes(20)
    );

    /// <summary>Where a file that was brought for a library waits to be read.</summary>
    public static string Brought(LibraryShelf shelf, int library) => shelf.PathOf(library, 0) + ".brought";

    public async Task Run(JobRow job, Func<Task> save, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var library = await context.Libraries.SingleOrDefaultAsync(l => l.Id == job.Subject, cancel);
        if (library is null)
        {
            job.Message = "The library was removed.";
            return;
        }
        var (brought, came) = (Brought(shelf, library.Id), shelf.PathOf(library.Id, 0) + ".part");
        Directory.CreateDirectory(Path.GetDirectoryName(came)!);
        var file = File.Exists(brought) ? brought : came;
        (job.Done, job.Total) = (0, 0);
        try
        {
            if (file == came)
            {
                if (library.HoldingsAddress is not { } address)
                    throw new JobFaultException("There is no file of holdings. Add it again.");
                job.Message = "Fetching the holdings.";
                await save();
                await using var to = File.Create(came);
                await documents.Fetch(new(address), Wish, to, cancel);
            }
            await Read(library, file, job, save, cancel);
            await context.SaveChangesAsync(cancel);
            File.Delete(brought);
        }
        catch (OutsideFaultException e)
        {
            throw new JobFaultException($"{e.Message}{Before(library)}", e);
        }
        catch (FormatException e)
        {
            File.Delete(brought);
            throw new JobFaultException($"{e.Message}{Before(library)}", e);
        }
        finally
        {
            File.Delete(came);
        }
        shelf.Reload();
        foreach (var old in Directory.GetFiles(Path.GetDirectoryName(came)!, $"{library.Id}-*.db"))
            if (old != shelf.PathOf(library.Id, library.Load))
                File.Delete(old);
        hub.Tell(new("libraries"));
    }

    private static string Before(LibraryRow library) =>
        library.LoadedAt is { } at
            ? string.Create(CultureInfo.InvariantCulture, $" The holdings of {at:d MMM yyyy} stay.")
            : "";

    private async Task Read(LibraryRow library, string file, JobRow job, Func<Task> save, CancellationToken cancel)
    {
        var (unread, faults) = (0, new List<string>());
        var path = shelf.PathOf(library.Id, library.Load + 1);
        var part = path + ".part";
        using var text = HoldingsText.Open(file);
        var telling = Task.CompletedTask;
        var lines = await Task.Run(() => HoldingsFile.Write(part, Lines(), cancel), cancel);
        await telling;
        if (lines == 0)
        {
            File.Delete(part);
            throw new FormatException(
                unread == 0
                    ? "The file of holdings has no lines."
                    : $"No line of the file could be read; line {faults[0]}."
            );
        }
        File.Move(part, path, overwrite: true);
        (library.Load, library.LoadedAt, library.Lines, library.Unread, library.Faults) = (
            library.Load + 1,
            clock.GetUtcNow(),
            lines,
            unread,
            string.Join('\n', faults)
        );
        job.Message = string.Create(
            CultureInfo.InvariantCulture,
            $"{lines:N0} {(lines == 1 ? "line" : "lines")} of holdings read{(unread == 0 ? "" : $", {unread:N0} not")}."
        );

        IEnumerable<HoldingLine> Lines()
        {
            foreach (var row in KbartReader.Read(text))
            {
                if (++job.Done % Often == 0 && telling.IsCompleted)
                {
                    job.Message = string.Create(CultureInfo.InvariantCulture, $"{job.Done:N0} lines read.");
                    telling = save();
                }
                if (row.Line is { } line)
                    yield return line;
                else
                {
                    unread++;
                    if (faults.Count < MostFaults)
                        faults.Add(string.Create(CultureInfo.InvariantCulture, $"{row.Number}: {row.Fault}"));
                }
            }
        }
    }
}
