using System.Collections.Concurrent;
using System.Diagnostics;

namespace Zendle.Bench.Soak;

/// <summary>
/// The demo under people: one at first, then many at once, then again nobody. Prints memory as it goes, and how long
/// requests of many take beside those of one.
/// </summary>
internal static class SoakBench
{
    /// <summary>What the demo's account may do is what a curator may.</summary>
    private const string Demo = "demo";
    private const string DemoPassword = "night garden 26";
    private const string Password = "a long soak password";

    /// <summary>Runs it.</summary>
    /// <param name="folder">An empty folder.</param>
    /// <param name="binaries">Built projects, of this version or another.</param>
    /// <param name="minutes">How long in all; a fifth of it one person is alone.</param>
    /// <param name="people">How many at once.</param>
    /// <param name="pause">Mean pause of each between two acts; none makes a load that no people make.</param>
    /// <param name="seed">What they do.</param>
    public static async Task Run(string folder, string binaries, double minutes, int people, TimeSpan pause, int seed)
    {
        var start = Stopwatch.StartNew();
        using var server = await SoakedServer.Start(folder, binaries, port: 5690);
        Console.WriteLine($"people could sign in after {start.Elapsed.TotalSeconds:0.0} s");
        await server.Settled();
        Console.WriteLine($"the demo was ready after {start.Elapsed.TotalSeconds:0.0} s");
        await Task.Delay(12_000);
        Print(server, "at rest after the first harvest");
        ConcurrentBag<Timing> ofOne = [],
            ofMany = [];
        using var demo = await SoakPerson.SignIn(server.Address, Demo, DemoPassword, seed, ofOne.Add);
        using (var alone = new CancellationTokenSource(TimeSpan.FromMinutes(minutes / 5)))
            await Watched(server, "one person", [demo.Work(pause, alone.Token)]);
        var all = new List<SoakPerson>();
        for (var i = 1; i <= people; i++)
        {
            await demo.Invite($"soak{i}", Password);
            all.Add(await SoakPerson.SignIn(server.Address, $"soak{i}", Password, seed + i, ofMany.Add));
        }
        using (var together = new CancellationTokenSource(TimeSpan.FromMinutes(minutes * 4 / 5)))
            await Watched(server, $"{people} people", [.. all.Select(p => p.Work(pause, together.Token))]);
        all.ForEach(p => p.Dispose());
        await Task.Delay(20_000);
        Print(server, "at rest after all of it");
        Compare(ofOne, ofMany);
    }

    private static async Task Watched(SoakedServer server, string who, Task[] work)
    {
        var (all, peak) = (Task.WhenAll(work), 0);
        for (var half = 1; !all.IsCompleted; half++)
        {
            var due = Task.Delay(TimeSpan.FromSeconds(30));
            while (!due.IsCompleted && !all.IsCompleted)
            {
                peak = Math.Max(peak, server.Memory().Resident);
                await Task.WhenAny(all, Task.Delay(200));
            }
            if (half % 2 == 0)
                Print(server, $"{who}, minute {half / 2}");
        }
        await all;
        Print(server, $"{who}, at the end (most: {peak:N0} MB)");
    }

    private static void Print(SoakedServer server, string when)
    {
        var (resident, own) = server.Memory();
        Console.WriteLine($"{resident, 6:N0} MB resident, {own, 6:N0} MB its own: {when}");
    }

    private static void Compare(IReadOnlyCollection<Timing> one, IReadOnlyCollection<Timing> many)
    {
        Console.WriteLine(
            $"{"", -15} {"requests", 9} {"median", 9} {"95th", 9} of one; {"requests", 9} {"median", 9} {"95th", 9} of many; ratio of 95th"
        );
        foreach (
            var kind in many.Concat(one).Select(t => t.Kind).Distinct().Order(StringComparer.Ordinal).Append("all")
        )
        {
            var (a, b) = (Sorted(one, kind), Sorted(many, kind));
            if (a.Length == 0 || b.Length == 0)
                continue;
            Console.WriteLine($"{kind, -15} {Told(a)} {"", 7} {Told(b)} {"", 8} {At(b, .95) / At(a, .95):0.0}");
        }
    }

    private static string Told(double[] sorted) =>
        $"{sorted.Length, 9:N0} {At(sorted, .5), 6:N0} ms {At(sorted, .95), 6:N0} ms";

    private static double[] Sorted(IEnumerable<Timing> timings, string kind) =>
        [.. timings.Where(t => kind == "all" || t.Kind == kind).Select(t => t.Took.TotalMilliseconds).Order()];

    private static double At(double[] sorted, double share) => sorted[(int)(share * (sorted.Length - 1))];
}
