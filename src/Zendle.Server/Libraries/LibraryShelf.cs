using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Clocks;
using Zendle.Core.Holdings;
using Zendle.Core.Merging;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Store.Corpus;
using Zendle.Store.Holdings;
using Zendle.Store.Made;

namespace Zendle.Server.Libraries;

/// <summary>
/// The libraries of the installation with their holdings: answers for single works, and the set of all works that one holds.
/// Embargoes count from the day that the followed clock tells.
/// </summary>
internal sealed class LibraryShelf(
    IDbContextFactory<ZendleContext> contexts,
    CorpusReader reader,
    FollowedClock clock,
    ZendleOptions options,
    TimeProvider own
) : IHeldWorks, IDisposable
{
    private const int AtOnce = 500;
    private static readonly TimeSpan Fresh = TimeSpan.FromMinutes(1);
    private readonly Lock gate = new();
    private readonly Dictionary<int, HoldingsFile> files = [];
    private readonly Dictionary<string, (long Generation, long Version, WorkSet Works)> sets = new(
        StringComparer.OrdinalIgnoreCase
    );
    private HoldingsFile[] retired = [];
    private LibraryRow[]? rows;
    private DateOnly today = DateOnly.FromDateTime(own.GetUtcNow().UtcDateTime);
    private DateTimeOffset toldAt;

    /// <summary>Grows when what libraries hold has changed, and when a day has passed.</summary>
    public long Version { get; private set; }

    /// <summary>The day from which embargoes count.</summary>
    public DateOnly Today => today;

    /// <summary>All libraries, in the order they were added.</summary>
    public IReadOnlyList<LibraryRow> All
    {
        get
        {
            lock (gate)
                return Rows();
        }
    }

    /// <summary>What libraries are called where works are narrowed by them.</summary>
    public IEnumerable<string> Labels => All.Select(Label);

    /// <summary>What a library is called where works are narrowed by it: its name, and where it is.</summary>
    public static string Label(LibraryRow library) =>
        library.Town.Length == 0 ? library.Name : $"{library.Name}, {library.Town}";

    /// <summary>Where the holdings of a library lie.</summary>
    public string PathOf(int library, int load) =>
        Path.Combine(options.Data, "holdings", string.Create(CultureInfo.InvariantCulture, $"{library}-{load}.db"));

    private LibraryRow[] Rows()
    {
        if (rows is not null)
            return rows;
        using var context = contexts.CreateDbContext();
        return rows = [.. context.Libraries.AsNoTracking().OrderBy(l => l.Id)];
    }

    /// <summary>Looks at the libraries anew: one was added, changed or removed.</summary>
    public void Reload()
    {
        lock (gate)
        {
            rows = null;
            // Whoever still asks one of them is given until the next change.
            foreach (var file in retired)
                file.Dispose();
            retired = [.. files.Values];
            files.Clear();
            sets.Clear();
            Version++;
        }
    }

    /// <summary>Looks at the clock, at most once a minute.</summary>
    public async Task Freshen(CancellationToken cancel)
    {
        if (own.GetUtcNow() - toldAt < Fresh)
            return;
        toldAt = own.GetUtcNow();
        var now = await clock.Today(cancel);
        lock (gate)
        {
            if (now == today)
                return;
            today = now;
            sets.Clear();
            Version++;
        }
    }

    /// <summary>What a library's holdings say of a work. O(lines that name it).</summary>
    public HoldingAnswer Answer(int library, HeldItem item)
    {
        HoldingsFile? file;
        lock (gate)
            file = FileOf(library);
        return file is null ? HoldingAnswer.NotListed : HoldingAnswer.Of(item, item.Keys.SelectMany(file.Find), today);
    }

    /// <summary>The best answer of several libraries, the first one's before another's; null when none holds it.</summary>
    public (LibraryRow Library, HoldingAnswer Answer)? Best(IReadOnlyList<LibraryRow> libraries, HeldItem item)
    {
        (LibraryRow Library, HoldingAnswer Answer)? best = null;
        foreach (var library in libraries)
            if (
                Answer(library.Id, item) is var answer
                && (best is null || answer.Coverage < best.Value.Answer.Coverage)
            )
                best = (library, answer);
        return best;
    }

    private HoldingsFile? FileOf(int library)
    {
        if (files.TryGetValue(library, out var open))
            return open;
        var row = Array.Find(Rows(), r => r.Id == library);
        return row is { Load: > 0 } && PathOf(library, row.Load) is var path && File.Exists(path)
            ? files[library] = HoldingsFile.Open(path)
            : null;
    }

    /// <inheritdoc/>
    public WorkSet Of(CorpusSnapshot snapshot, string library)
    {
        LibraryRow? row;
        long version;
        lock (gate)
        {
            if (
                sets.TryGetValue(library, out var known)
                && known.Generation == snapshot.Generation
                && known.Version == Version
            )
                return known.Works;
            row = Array.Find(Rows(), r => string.Equals(Label(r), library, StringComparison.OrdinalIgnoreCase));
            version = Version;
        }
        var works = row is null ? new(snapshot.Columns.WorkSize) : Held(snapshot, row.Id);
        lock (gate)
            if (version == Version)
                sets[library] = (snapshot.Generation, version, works);
        return works;
    }

    private WorkSet Held(CorpusSnapshot snapshot, int library)
    {
        HoldingsFile? file;
        lock (gate)
            file = FileOf(library);
        if (file is null)
            return new(snapshot.Columns.WorkSize);
        var (held, unsure) = HeldWorks.Of(snapshot, file.Find, today);
        foreach (var some in unsure.Chunk(AtOnce))
        {
            var records = reader.OfWorks(some, CancellationToken.None).GetAwaiter().GetResult();
            foreach (var work in some)
            {
                SourcedRecord[] of = [.. records[work]];
                if (of.Length == 0)
                    continue;
                var item = HeldItem.Of(of, ChosenFields.From(of));
                if (HoldingAnswer.Of(item, item.Keys.SelectMany(file.Find), today).IsOfUse)
                    held.Add(work);
            }
        }
        return held;
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        Reload();
        foreach (var file in retired)
            file.Dispose();
    }
}
