using System.Globalization;
using Zendle.Bench;

// ./zendle bench [search|shapes|words|fuzz|trails|rounds|documents|gather|holdings|cite|corpus|people|blocks|keep]
// [--works N] [--seed N] [--cache DIR]
// [--store DIR]; without a name, all of them. Milliseconds on shared machines only orient; the ratios, measured side by
// side in one run, are what counts.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["measure", ..])
    return await Zendle.Bench.Measure.MeasureCommand.Run(args[1..]);

// What the corpus bench runs in processes of their own.
if (args is ["start" or "harvest", ..])
{
    await (
        args[0] == "start"
            ? CorpusBench.Start(Text("--store")!)
            : CorpusBench.Harvest(Text("--store")!, Text("--page")!)
    );
    return 0;
}

// The demo under people: ./zendle bench soak [--minutes N] [--people N] [--pause SECONDS] [--binaries artifacts/app]
if (args is ["soak", ..])
{
    var data = Directory.CreateTempSubdirectory("zendle-soak-").FullName;
    try
    {
        await Zendle.Bench.Soak.SoakBench.Run(
            data,
            Binaries(),
            Option("--minutes", 60),
            Option("--people", 10),
            TimeSpan.FromSeconds(Option("--pause", 1)),
            Option("--seed", 1)
        );
    }
    finally
    {
        Directory.Delete(data, recursive: true);
    }
    return 0;
}
string[] all =
[
    "search",
    "shapes",
    "words",
    "fuzz",
    "trails",
    "rounds",
    "maps",
    "documents",
    "gather",
    "holdings",
    "cite",
    "corpus",
    "people",
    "blocks",
    "keep",
];
var named = args.Length > 0 && !args[0].StartsWith('-') ? args[..1] : all;
var works = Option("--works", 100_000);
var seed = Option("--seed", 1);
if (!all.Contains(named[0]))
{
    Console.Error.WriteLine($"There is no bench “{named[0]}”; choose {string.Join(", ", all)}.");
    return 1;
}
var folder = Directory.CreateTempSubdirectory("zendle-bench-").FullName;
var cache =
    Text("--cache")
    ?? Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.UserProfile), ".cache", "zendle-bench");
var needed = works * (named.Contains("corpus") ? 25_000L : 6_000L);
if (new DriveInfo(folder).AvailableFreeSpace < needed)
{
    Console.Error.WriteLine(
        $"The bench needs about {needed / 1_000_000} MB free in {folder}; choose fewer works with --works."
    );
    return 1;
}
try
{
    foreach (var name in named)
    {
        Console.WriteLine($"— {name}");
        var own = Directory.CreateDirectory(Path.Combine(folder, name)).FullName;
        switch (name)
        {
            case "search":
                SearchBench.Run(own, works, seed);
                break;
            case "shapes":
                ShapesBench.Run(own, works, seed);
                break;
            case "words":
                WordsBench.Run(own, works, seed);
                break;
            case "fuzz":
                FuzzBench.Run(seed);
                break;
            case "trails":
                TrailBench.Run(own, works, seed);
                break;
            case "rounds":
                RoundsBench.Run(own, works, seed);
                break;
            case "maps":
                MapBench.Run(seed);
                break;
            case "documents":
                await DocumentBench.Run(seed, Binaries());
                break;
            case "gather":
                await GatherBench.Run(own, seed);
                break;
            case "holdings":
                HoldingsBench.Run(own, works, seed);
                break;
            case "corpus":
                await CorpusBench.Run(
                    Text("--store") is { } kept ? Directory.CreateDirectory(kept).FullName : own,
                    cache,
                    works,
                    seed
                );
                break;
            case "people":
                PeopleBench.Run(works, seed);
                break;
            case "blocks":
                PeopleBench.Follow(works, seed);
                break;
            case "keep":
                KeepBench.Run(works, seed);
                break;
            case "cite":
                await CiteBench.Run(seed);
                break;
        }
    }
    return 0;
}
finally
{
    Directory.Delete(folder, recursive: true);
}

int Option(string name, int otherwise) => int.TryParse(Text(name), out var value) ? value : otherwise;

string? Text(string name) => Array.IndexOf(args, name) is >= 0 and var at && at + 1 < args.Length ? args[at + 1] : null;

// What people run: the built projects, or with --binaries those of another version.
string Binaries() => Path.GetFullPath(Text("--binaries") ?? Path.Combine(AppContext.BaseDirectory, "../../../app"));
