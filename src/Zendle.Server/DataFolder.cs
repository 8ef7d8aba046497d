namespace Zendle.Server;

/// <summary>Checks the data folder before anything is opened in it.</summary>
internal static class DataFolder
{
    public const long LeastFree = 200_000_000;

    /// <summary>Why the folder cannot be used, in a sentence with a way out; null when it can.</summary>
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
            return free < leastFree ? $"The data folder {folder} has only {free / 1_000_000} MB left on its disk; Zendle needs {leastFree / 1_000_000} MB to start. Free some, or choose another folder with --data." : null;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return $"The data folder {folder} cannot be written to ({e.Message}). Choose another one with --data.";
        }
    }
}
