namespace Zendle.Server;

/// <summary>
/// A data folder that is ours as long as this lives: checked before anything is opened in it, and locked against a
/// second Zendle.
/// </summary>
/// <remarks>
/// The lock is an advisory one of the operating system on the open file (flock), so it ends with its process however
/// that ends: a killed Zendle leaves nothing behind that a later start would have to wait for.
/// </remarks>
internal sealed class DataFolder : IDisposable
{
    /// <summary>Bytes that must be free for a start.</summary>
    public const long LeastFree = 200_000_000;

    private const int MostTries = 20;
    private static readonly TimeSpan BetweenTries = TimeSpan.FromMilliseconds(50);
    private readonly FileStream? hold;

    private DataFolder(FileStream? hold) => this.hold = hold;

    /// <summary>A folder that nobody else can want: for describing the API, where nothing is opened.</summary>
    public static DataFolder OfNobody { get; } = new(null);

    /// <summary>Takes the folder.</summary>
    /// <param name="folder">The folder; made when it is not there.</param>
    /// <param name="whyNot">Why it cannot be used, in a sentence with a way out; null when it can.</param>
    /// <returns>The folder, to be disposed of when everything in it is closed; null when it cannot be used.</returns>
    public static DataFolder? Take(string folder, out string? whyNot)
    {
        whyNot = WhyNot(folder);
        if (whyNot is not null)
            return null;
        for (var tries = 1; ; tries++)
        {
            try
            {
                return new(
                    new FileStream(
                        Path.Combine(folder, "keys", "in-use"),
                        FileMode.OpenOrCreate,
                        FileAccess.ReadWrite,
                        FileShare.None
                    )
                );
            }
            // One that is just ending lets go at once; and a process that it was starting has the lock until it is
            // under way.
            catch (IOException) when (tries < MostTries)
            {
                Thread.Sleep(BetweenTries);
            }
            catch (IOException)
            {
                whyNot =
                    $"The data folder {folder} is in use by another Zendle. Stop that one first, or choose another folder with --data.";
                return null;
            }
        }
    }

    /// <summary>
    /// Why the folder cannot be used, in a sentence with a way out; null when it can. Nothing is locked.
    /// </summary>
    /// <param name="folder">The folder; made when it is not there.</param>
    /// <param name="leastFree">Bytes that must be free on its disk.</param>
    public static string? WhyNot(string folder, long leastFree = LeastFree)
    {
        try
        {
            Directory.CreateDirectory(Path.Combine(folder, "keys"));
            var probe = Path.Combine(folder, ".writable");
            File.WriteAllText(probe, "");
            File.Delete(probe);
            var free = new DriveInfo(folder).AvailableFreeSpace;
            if (free < leastFree)
                return $"The data folder {folder} has only {free / 1_000_000} MB left on its disk; Zendle needs "
                    + $"{leastFree / 1_000_000} MB to start. Free some, or choose another folder with --data.";
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return $"The data folder {folder} cannot be written to ({e.Message}). Choose another one with --data.";
        }
        return WhatIsLost(folder);
    }

    /// <summary>
    /// An empty <c>zendle.db</c> beside things that only come after it is no new beginning: something has emptied it.
    /// It is said, because going on would make a new installation without anyone's reviews.
    /// </summary>
    private static string? WhatIsLost(string folder)
    {
        var made = new FileInfo(Path.Combine(folder, "zendle.db"));
        var wal = new FileInfo(made.FullName + "-wal");
        if (!made.Exists || made.Length > 0 || wal is { Exists: true, Length: > 0 })
            return null;
        // A first start that was killed leaves an empty file and nothing else: zendle.db is set up before corpus.db is.
        var corpus = new FileInfo(Path.Combine(folder, "corpus.db"));
        var files = Path.Combine(folder, "files");
        var isUsed =
            corpus is { Exists: true, Length: > 0 }
            || (Directory.Exists(files) && Directory.EnumerateFileSystemEntries(files).Any());
        return isUsed
            ? $"{made.FullName} is empty (0 bytes), but the folder has been used: the accounts, reviews and "
                + "decisions that were in it are gone. "
                + "Put back a backup (./zendle restore), or delete the empty file to begin anew. Nothing was changed."
            : null;
    }

    /// <inheritdoc/>
    public void Dispose() => hold?.Dispose();
}
