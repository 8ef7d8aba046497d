using System.Text.Json;
using Zendle.Connect.Harvest;

namespace Zendle.Server.Events;

/// <summary>What a harvest has to tell beside its numbers.</summary>
/// <param name="SkippedCount">How many records could not be read.</param>
/// <param name="MendedCount">How many were no valid XML and were read as they were most likely meant.</param>
/// <param name="Vanished">How many were not told as deleted, but are not there any more.</param>
/// <param name="Doubted">How many would have vanished, had it been believed.</param>
/// <param name="Skipped">The first that could not be read, each with why.</param>
internal sealed record HarvestReport(
    int SkippedCount,
    int MendedCount,
    int Vanished,
    int Doubted,
    IReadOnlyList<SkippedRecord> Skipped
)
{
    private const int MostNamed = 200;

    /// <summary>Nothing to tell.</summary>
    public static HarvestReport Empty { get; } = new(0, 0, 0, 0, []);

    /// <summary>Reads one that was written down.</summary>
    public static HarvestReport Of(string written) =>
        written.Length == 0 ? Empty : JsonSerializer.Deserialize<HarvestReport>(written, StoredJson.Options)!;

    /// <summary>With what a page brought.</summary>
    public HarvestReport With(IReadOnlyList<SkippedRecord> skipped, int mended, int vanished, int doubted) =>
        new(
            SkippedCount + skipped.Count,
            MendedCount + mended,
            Vanished + vanished,
            Doubted + doubted,
            [.. Skipped, .. skipped.Take(MostNamed - Skipped.Count)]
        );

    /// <summary>As it is written down; empty when there is nothing to tell.</summary>
    public string Written() =>
        (SkippedCount, MendedCount, Vanished, Doubted) == default
            ? ""
            : JsonSerializer.Serialize(this, StoredJson.Options);

    /// <summary>A sentence about all of it; empty when there is nothing to tell.</summary>
    public string Sentence()
    {
        static string Records(int n) => n == 1 ? "1 record" : $"{n:N0} records";
        var parts = new List<string>();
        if (SkippedCount > 0)
            parts.Add($"{Records(SkippedCount)} could not be read.");
        if (MendedCount > 0)
            parts.Add(
                $"{Records(MendedCount)} had faults in the XML and {(MendedCount == 1 ? "was" : "were")} read as most likely meant."
            );
        if (Vanished > 0)
            parts.Add($"{Records(Vanished)} {(Vanished == 1 ? "is" : "are")} not there any more.");
        if (Doubted > 0)
            parts.Add(
                $"{Records(Doubted)} did not come, which is most of the database. That looks like a fault "
                    + $"of the service, so nothing was treated as deleted."
            );
        return string.Join(' ', parts);
    }
}
