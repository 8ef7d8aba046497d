using Zendle.Store.Files;

namespace Zendle.Server;

/// <summary>The commands <c>backup DATA FILE</c> and <c>restore FILE DATA</c>.</summary>
internal static class BackupCommand
{
    /// <summary>Runs one.</summary>
    /// <returns>The process's exit code.</returns>
    public static int Run(string[] args)
    {
        if (args.Length != 3)
        {
            Console.Error.WriteLine("Usage: backup DATA FILE, or restore FILE DATA.");
            return 2;
        }
        try
        {
            if (args[0] == "backup")
            {
                var kept = Backup.Write(args[1], args[2]);
                Console.WriteLine($"{args[2]}: {kept.Bytes / 1_000_000.0:N1} MB, with {kept.Files:N0} gathered files.");
            }
            else
            {
                // A folder that a Zendle uses is not empty, so it is refused below.
                var kept = Backup.Restore(args[1], args[2]);
                Console.WriteLine(
                    $"{args[2]} is restored, with {kept.Files:N0} gathered files. The index is made anew at the first start."
                );
            }
            return 0;
        }
        catch (BackupFaultException e)
        {
            Console.Error.WriteLine(e.Message);
            return 1;
        }
    }
}
