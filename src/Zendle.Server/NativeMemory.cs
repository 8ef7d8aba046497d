using System.Runtime.InteropServices;

namespace Zendle.Server;

/// <summary>The C library's own memory, where it is glibc; elsewhere nothing happens.</summary>
internal static partial class NativeMemory
{
    private const int ArenaMax = -8; // M_ARENA_MAX of malloc.h

    /// <summary>
    /// Lets all threads share two heaps; SQLite and V8 take their memory there, and each heap keeps what was freed in it.
    /// Before threads begin.
    /// </summary>
    public static void OfFewArenas() => Try(() => _ = Mallopt(ArenaMax, 2));

    /// <summary>Gives freed pages back.</summary>
    public static void Trim() => Try(() => _ = MallocTrim(0));

    private static void Try(Action act)
    {
        if (!OperatingSystem.IsLinux())
            return;
        try
        {
            act();
        }
        catch (Exception e) when (e is DllNotFoundException or EntryPointNotFoundException) { } // another C library
    }

    [LibraryImport("libc", EntryPoint = "mallopt")]
    private static partial int Mallopt(int name, int value);

    [LibraryImport("libc", EntryPoint = "malloc_trim")]
    private static partial int MallocTrim(nuint pad);
}
