using Zendle.Core.Records;

namespace Zendle.Connect.Harvest;

/// <summary>What a service gave in one of its formats.</summary>
/// <param name="Offered">The format as the service names it.</param>
/// <param name="Name">What people call it.</param>
/// <param name="Records">The first records, as they are read.</param>
/// <param name="Coverage">What they tell.</param>
/// <param name="Total">How many records there are, as far as the service says.</param>
/// <param name="Fault">Why nothing came, in a sentence; null when all went well.</param>
public sealed record TriedFormat(
    OaiFormat Offered,
    string Name,
    IReadOnlyList<Record> Records,
    RecordCoverage Coverage,
    int? Total,
    string? Fault
);

/// <summary>
/// Tries the formats that a service offers: its first hundred records in each, for what a service calls its best format
/// may carry less than bare Dublin Core does.
/// </summary>
public sealed class FormatTrial(OaiClient oai, TimeProvider clock)
{
    /// <summary>So many records of each format are looked at.</summary>
    public const int Size = 100;

    private const int MostPages = 5;

    /// <summary>How much a format that stands behind another in order has to tell more to be taken.</summary>
    private const double Clearly = 0.02;

    /// <summary>After so long no further format is asked for; a person waits.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(30);

    /// <summary>Tries formats one after another, gently.</summary>
    /// <param name="address">The service.</param>
    /// <param name="offered">What it offers.</param>
    /// <param name="set">setSpec, or null.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>Each format that can be read, in the order of <see cref="RecordReader.Formats"/>.</returns>
    public async Task<IReadOnlyList<TriedFormat>> Of(
        Uri address,
        IReadOnlyList<OaiFormat> offered,
        string? set,
        CancellationToken cancel
    )
    {
        var (tried, began) = (new List<TriedFormat>(), clock.GetTimestamp());
        foreach (var (format, readable) in RecordReader.Readable(offered))
            tried.Add(
                clock.GetElapsedTime(began) > Longest
                    ? Failed(format, readable.Name, "Not checked: the formats before it took too long.")
                    : await One(address, format, readable.Name, set, cancel)
            );
        return tried;
    }

    /// <summary>
    /// The format to take: the one whose records tell most, and of those that tell about as much the first in order.
    /// Null when none can be read.
    /// </summary>
    /// <param name="tried">Formats that were tried, in order.</param>
    public static TriedFormat? Best(IReadOnlyList<TriedFormat> tried)
    {
        TriedFormat? best = null;
        foreach (var format in tried.Where(t => t.Records.Count > 0))
            if (best is null || format.Coverage.Worth > best.Coverage.Worth + Clearly)
                best = format;
        // An empty database, or one that has a fault just now, is added by what it offers.
        return best ?? tried.FirstOrDefault(t => t.Fault is null) ?? (tried.Count > 0 ? tried[0] : null);
    }

    /// <summary>The prefix to harvest by, tried only where there is a choice; null when none can be read.</summary>
    /// <param name="address">The service.</param>
    /// <param name="offered">What it offers.</param>
    /// <param name="set">setSpec, or null.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<string?> Choose(
        Uri address,
        IReadOnlyList<OaiFormat> offered,
        string? set,
        CancellationToken cancel
    ) =>
        RecordReader.Readable(offered) is [var only]
            ? only.Offered.Prefix
            : Best(await Of(address, offered, set, cancel))?.Offered.Prefix;

    private async Task<TriedFormat> One(
        Uri address,
        OaiFormat format,
        string name,
        string? set,
        CancellationToken cancel
    )
    {
        var (records, token, total) = (new List<Record>(), (string?)null, (int?)null);
        try
        {
            for (var pages = 0; pages < MostPages && records.Count < Size; pages++)
            {
                var page = await oai.Records(address, format.Prefix, set, null, token, RecordReader.Read, null, cancel);
                records.AddRange(page.Records.OfType<Record>());
                total ??= page.Total ?? (page.Token is null && pages == 0 ? page.Records.Count : null);
                token = page.Token;
                if (token is null)
                    break;
            }
        }
        catch (HarvestFaultException e) when (records.Count == 0)
        {
            return Failed(format, name, e.Message);
        }
        catch (HarvestFaultException) { } // what came before the fault is enough to judge by
        records.RemoveRange(Math.Min(Size, records.Count), Math.Max(0, records.Count - Size));
        return new(format, name, records, RecordCoverage.Of(records), total, null);
    }

    private static TriedFormat Failed(OaiFormat format, string name, string fault) =>
        new(format, name, [], RecordCoverage.Of([]), null, fault);
}
