using System.Security.Cryptography;

namespace Zendle.Store.Files;

/// <summary>
/// Files by content address: the name of a file is the SHA-256 of its bytes, so the same document is stored once and a
/// half-written one never has a name. Writing goes to a temporary file first, is flushed to the disk, then renamed.
/// </summary>
public sealed class FileVault
{
    private readonly string folder;
    private readonly long leastFree;
    private readonly Func<long> free;

    /// <summary>Opens the vault in a data folder.</summary>
    /// <param name="data">The data folder.</param>
    /// <param name="leastFree">Bytes that are left free for everything else.</param>
    /// <param name="free">How many bytes are free on the disk; null to ask the system.</param>
    public FileVault(string data, long leastFree = 100_000_000, Func<long>? free = null)
    {
        (folder, this.leastFree) = (Path.Combine(data, "files"), leastFree);
        this.free = free ?? (() => new DriveInfo(data).AvailableFreeSpace);
        Directory.CreateDirectory(folder);
        // What a kill left half-written has no name and is of no use.
        foreach (var rest in Directory.GetFiles(folder, "*.part"))
            File.Delete(rest);
    }

    /// <summary>Stores a file and gives its address. Storing it again changes nothing.</summary>
    /// <exception cref="NoRoomException">The disk is full; nothing was stored.</exception>
    public string Put(byte[] bytes)
    {
        var hash = Convert.ToHexStringLower(SHA256.HashData(bytes));
        var path = PathOf(hash);
        if (File.Exists(path))
            return hash;
        var part = Path.Combine(folder, $"{Guid.NewGuid():N}.part");
        try
        {
            if (free() - bytes.Length < leastFree)
                throw new NoRoomException(null);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            using (var to = new FileStream(part, FileMode.CreateNew, FileAccess.Write))
            {
                to.Write(bytes);
                to.Flush(flushToDisk: true);
            }
            File.Move(part, path, overwrite: true);
            return hash;
        }
        catch (IOException e) when (e is not NoRoomException)
        {
            try
            {
                File.Delete(part);
            }
            catch (IOException) { }
            throw new NoRoomException(e);
        }
    }

    /// <summary>Where a file lies; it is there when <see cref="Has"/> says so.</summary>
    public string PathOf(string hash)
    {
        if (hash.Length != 64 || !hash.All(char.IsAsciiHexDigitLower))
            throw new ArgumentException("A content address is 64 hexadecimal digits.", nameof(hash));
        return Path.Combine(folder, hash[..2], hash[2..]);
    }

    /// <summary>Whether a file is there.</summary>
    public bool Has(string hash) => File.Exists(PathOf(hash));

    /// <summary>Takes a file out.</summary>
    public void Remove(string hash) => File.Delete(PathOf(hash));
}

/// <summary>There was no room for a file, or it could not be written.</summary>
public sealed class NoRoomException(Exception? inner)
    : IOException("There is no room on the disk for this file; nothing of it was stored.", inner);
