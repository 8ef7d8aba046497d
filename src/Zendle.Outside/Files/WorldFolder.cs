using System.Globalization;
using System.Xml.Linq;
using Zendle.Outside.Oai;
using Zendle.Outside.World;
using Zendle.Outside.World.Databases;

namespace Zendle.Outside.Files;

/// <summary>
/// Writes a world to disk: each database as the pages its OAI-PMH service gives, and beside them the truth. The same
/// seed gives the same bytes.
/// </summary>
public static class WorldFolder
{
    private const int PageSize = 500;
    private const string Host = "http://outside.example";

    /// <summary>Runs <c>world --seed N --works M --noise K --out DIR</c>; prints the world's shape.</summary>
    public static int Run(string[] args, TextWriter says)
    {
        var given = new ConfigurationBuilder().AddCommandLine(args).Build();
        if (
            !ulong.TryParse(given["seed"] ?? "1", out var seed)
            || !int.TryParse(given["works"] ?? "12000", out var size)
            || size < 60
            || !double.TryParse(given["noise"] ?? "1", NumberStyles.Float, CultureInfo.InvariantCulture, out var noise)
            || noise is < 0 or > 5
        )
        {
            says.WriteLine("world --seed N --works M (60 or more) --noise K (0 to 5) --out DIR");
            return 2;
        }
        Write(given["out"], seed, size, noise, says);
        return 0;
    }

    /// <summary>Writes a world.</summary>
    /// <param name="folder">Where to; null to print its shape only.</param>
    /// <param name="seed">Seed.</param>
    /// <param name="size">How many works.</param>
    /// <param name="noise">How often things go wrong, 1 for as usual.</param>
    /// <param name="says">Where the shape is told.</param>
    public static void Write(string? folder, ulong seed, int size, double noise, TextWriter says)
    {
        var written = new List<Written>(size);
        var scenario = Scenario.Read(Path.Combine(AppContext.BaseDirectory, "demo"));
        var works = WorldMaker.Make(scenario, seed, size, (work, prose) => written.Add(new(work, prose)));
        works = Companions.With(works, seed, noise);
        var databases = DatabaseViews.Make(works, seed, noise);
        foreach (var line in WorldShape.Lines(works, databases, written, scenario))
            says.WriteLine(line);
        if (folder is null)
            return;
        var clock = new OutsideClock(new StillTime());
        foreach (var database in databases)
        {
            var to = Directory.CreateDirectory(Path.Combine(folder, "databases", database.Key)).FullName;
            var service = new OaiService(database, clock, PageSize);
            XDocument Ask(params (string, string)[] arguments) =>
                service.Reply(
                    [.. arguments.Select(a => KeyValuePair.Create(a.Item1, a.Item2))],
                    $"{Host}/{database.Key}/oai",
                    Host
                );
            Ask(("verb", "Identify")).Save(Path.Combine(to, "identify.xml"), SaveOptions.DisableFormatting);
            string? token = null;
            for (var page = 1; page == 1 || token is { Length: > 0 }; page++)
            {
                var reply = token is null
                    ? Ask(("verb", "ListRecords"), ("metadataPrefix", "mods"))
                    : Ask(("verb", "ListRecords"), ("resumptionToken", token));
                reply.Save(
                    Path.Combine(to, page.ToString("D4", CultureInfo.InvariantCulture) + ".xml"),
                    SaveOptions.DisableFormatting
                );
                token = reply.Descendants().FirstOrDefault(e => e.Name.LocalName == "resumptionToken")?.Value;
            }
        }
        Truth.Write(Path.Combine(folder, "truth"), works, databases, DatabaseViews.Start);
    }

    private sealed class StillTime : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => DateTimeOffset.UnixEpoch;
    }
}
