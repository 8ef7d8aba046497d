using Microsoft.Data.Sqlite;

namespace Zendle.Store.Sqlite;

/// <summary>Tells whether something failed because the disk is full.</summary>
public static class DiskFull
{
    /// <summary>The sentence for it, the same wherever a write fails so.</summary>
    public const string Sentence = "There is no room on the disk.";

    private const int SqliteFull = 13,
        SqliteIoError = 10;

    // ENOSPC and EDQUOT of Linux, as .NET hands errors of the system on.
    private const int NoSpace = 28,
        OverQuota = 122;

    /// <summary>Whether an exception, or one behind it, says that there is no room.</summary>
    /// <remarks>
    /// SQLite reports a write that the system refused for want of room as "full"; an error in extending the shared
    /// memory or the log may come as an I/O error.
    /// </remarks>
    public static bool Is(Exception e) =>
        e switch
        {
            SqliteException { SqliteErrorCode: SqliteFull } => true,
            SqliteException { SqliteErrorCode: SqliteIoError, SqliteExtendedErrorCode: var more } => (more >> 8)
                is 3
                    or 19
                    or 20, // writing; growing or mapping the shared memory
            IOException io
                when (io.HResult & 0xFFFF) is NoSpace or OverQuota
                    || io.Message.Contains("No space left", StringComparison.OrdinalIgnoreCase) => true,
            AggregateException many => many.InnerExceptions.Any(Is),
            _ => e.InnerException is { } inner && Is(inner),
        };
}
