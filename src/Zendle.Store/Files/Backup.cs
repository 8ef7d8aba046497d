using System.Formats.Tar;
using System.Globalization;
using System.IO.Compression;
using Microsoft.Data.Sqlite;

namespace Zendle.Store.Files;

/// <summary>
/// One file with everything of a data folder that cannot be made again: both databases, the gathered files, the keys of
/// cookies. A gzipped tar archive, so that it can be opened without Zendle. The index is left out: it is made anew.
/// </summary>
public static class Backup
{
    private static readonly string[] Databases = ["zendle.db", "corpus.db"];
    private static readonly string[] Folders = ["files", "keys", "holdings"];

    /// <summary>What a backup holds.</summary>
    /// <param name="Bytes">Size of the archive.</param>
    /// <param name="Files">Gathered files in it.</param>
    public sealed record Kept(long Bytes, int Files);

    /// <summary>
    /// Writes a backup while Zendle may run: SQLite copies each database at one moment. zendle.db first: what it speaks
    /// of is then in corpus.db and among the files, for those are only added to.
    /// </summary>
    /// <param name="data">The data folder.</param>
    /// <param name="to">The archive; written aside and put in place when it is whole.</param>
    /// <exception cref="BackupFaultException">It cannot be done; the message is a sentence for a person.</exception>
    public static Kept Write(string data, string to)
    {
        if (!File.Exists(Path.Combine(data, "zendle.db")))
            throw new BackupFaultException($"There is no zendle.db in {data}; it is not a data folder of Zendle.");
        if (
            Path.GetFullPath(to)
                .StartsWith(Path.GetFullPath(data) + Path.DirectorySeparatorChar, StringComparison.Ordinal)
        )
            throw new BackupFaultException(
                "The backup must not lie in the data folder itself. Choose another place with --to."
            );
        var aside = to + ".part";
        try
        {
            Directory.CreateDirectory(Path.GetDirectoryName(Path.GetFullPath(to))!);
            var files = 0;
            using (var file = new FileStream(aside, FileMode.Create, FileAccess.Write))
            {
                using (var zip = new GZipStream(file, CompressionLevel.Fastest, leaveOpen: true))
                using (var tar = new TarWriter(zip, TarEntryFormat.Pax))
                {
                    foreach (var name in Databases.Where(d => File.Exists(Path.Combine(data, d))))
                        AddDatabase(tar, data, name, aside);
                    foreach (var folder in Folders.Where(f => Directory.Exists(Path.Combine(data, f))))
                    foreach (
                        var path in Directory
                            .EnumerateFiles(Path.Combine(data, folder), "*", SearchOption.AllDirectories)
                            .Order(StringComparer.Ordinal)
                    )
                    {
                        if (path.EndsWith(".part", StringComparison.Ordinal) || Path.GetFileName(path) == "in-use")
                            continue;
                        if (!Add(tar, path, Path.GetRelativePath(data, path)))
                            continue;
                        if (folder == "files")
                            files++;
                    }
                }
                file.Flush(flushToDisk: true);
            }
            File.Move(aside, to, overwrite: true);
            return new(new FileInfo(to).Length, files);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException or SqliteException)
        {
            File.Delete(aside);
            throw new BackupFaultException(
                $"The backup could not be written: {e.Message} An older one at {to} is unchanged.",
                e
            );
        }
    }

    private static void AddDatabase(TarWriter tar, string data, string name, string aside)
    {
        var copy = $"{aside}.{name}";
        try
        {
            File.Delete(copy);
            using (
                var from = new SqliteConnection(
                    new SqliteConnectionStringBuilder
                    {
                        DataSource = Path.Combine(data, name),
                        Mode = SqliteOpenMode.ReadWrite,
                        Pooling = false,
                    }.ToString()
                )
            )
            {
                from.Open();
                using (var wait = from.CreateCommand())
                {
                    wait.CommandText = "PRAGMA busy_timeout=20000";
                    wait.ExecuteNonQuery();
                }
                // VACUUM INTO reads one state from its beginning to its end, however much is written meanwhile; the
                // page-wise copy would begin again at each write.
                using var vacuum = from.CreateCommand();
                vacuum.CommandText = "VACUUM INTO $0";
                vacuum.Parameters.AddWithValue("$0", copy);
                vacuum.CommandTimeout = 0;
                vacuum.ExecuteNonQuery();
            }
            tar.WriteEntry(copy, name);
        }
        finally
        {
            File.Delete(copy);
        }
    }

    /// <returns>False when the file has gone meanwhile.</returns>
    private static bool Add(TarWriter tar, string path, string name)
    {
        try
        {
            tar.WriteEntry(path, name);
            return true;
        }
        catch (FileNotFoundException)
        {
            return false;
        }
    }

    /// <summary>Makes a data folder of a backup.</summary>
    /// <param name="from">The archive.</param>
    /// <param name="data">The folder; not there yet, or empty.</param>
    /// <exception cref="BackupFaultException">It cannot be done; nothing is left behind.</exception>
    public static Kept Restore(string from, string data)
    {
        if (!File.Exists(from))
            throw new BackupFaultException($"There is no file {from}.");
        if (Directory.Exists(data) && Directory.EnumerateFileSystemEntries(data).Any())
            throw new BackupFaultException(
                $"The folder {data} is not empty. Choose another one with --data, or move what is in it away; nothing was changed."
            );
        var aside = data.TrimEnd(Path.DirectorySeparatorChar) + ".restoring";
        try
        {
            if (Directory.Exists(aside))
                Directory.Delete(aside, recursive: true);
            Directory.CreateDirectory(aside);
            var files = Extract(from, aside);
            if (!File.Exists(Path.Combine(aside, "zendle.db")))
                throw new BackupFaultException($"{from} is not a backup of Zendle: there is no zendle.db in it.");
            foreach (var name in Databases.Where(d => File.Exists(Path.Combine(aside, d))))
                CheckSound(Path.Combine(aside, name), name);
            if (Directory.Exists(data))
                Directory.Delete(data);
            Directory.Move(aside, data);
            return new(new FileInfo(from).Length, files);
        }
        catch (Exception e)
            when (e
                    is IOException
                        or UnauthorizedAccessException
                        or SqliteException
                        or FormatException
                        or InvalidDataException
            )
        {
            throw new BackupFaultException($"{from} could not be restored: {e.Message} Nothing was changed.", e);
        }
        finally
        {
            if (Directory.Exists(aside))
                Directory.Delete(aside, recursive: true);
        }
    }

    private static int Extract(string from, string folder)
    {
        var files = 0;
        using var zip = new GZipStream(File.OpenRead(from), CompressionMode.Decompress);
        using var tar = new TarReader(zip);
        while (tar.GetNextEntry() is { } entry)
        {
            if (entry.EntryType is not (TarEntryType.RegularFile or TarEntryType.V7RegularFile))
                continue;
            var parts = entry.Name.Split('/');
            var isOurs =
                parts.Length == 1
                    ? Databases.Contains(parts[0])
                    : Folders.Contains(parts[0]) && parts.All(p => p.Length > 0 && p is not ("." or ".."));
            if (!isOurs)
                throw new BackupFaultException(
                    $"The archive holds “{entry.Name[..Math.Min(80, entry.Name.Length)]}”, which no backup "
                        + "of Zendle does. Nothing was changed."
                );
            var path = Path.Combine([folder, .. parts]);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            entry.ExtractToFile(path, overwrite: false);
            if (parts[0] == "files")
                files++;
        }
        return files;
    }

    private static void CheckSound(string file, string name)
    {
        using var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder { DataSource = file, Pooling = false }.ToString()
        );
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA integrity_check(1)";
        if (Convert.ToString(command.ExecuteScalar(), CultureInfo.InvariantCulture) is not "ok" and var said)
            throw new BackupFaultException($"{name} in the backup is damaged: {said}. Nothing was changed.");
    }
}

/// <summary>A backup cannot be written or restored; the message is a sentence for a person.</summary>
public sealed class BackupFaultException(string sentence, Exception? inner = null) : Exception(sentence, inner);
