using Zendle.Core.Venues;

namespace Zendle.Bench.Measure;

/// <summary>
/// Compares venues with the true ones over pairs of the records that name one, each spelling in each database counted
/// once.
/// </summary>
internal static class VenueMeasure
{
    public static void Print(IReadOnlyList<HarvestedEntry> entries, WorldFiles world, TextWriter says)
    {
        var truth = world.Truth("venues.csv").ToDictionary(r => new RecordAt(r[0], r[1]), r => r[2]);
        var resolver = new VenueResolver(entries.Select(e => e.Record.Venue).OfType<Core.Records.VenuePart>());
        var named = entries
            .Where(e => e.Record.Venue is not null && truth.ContainsKey(e.At))
            .Select(e => (Found: resolver.Of(e.Record.Venue)!.Number, True: truth[e.At]))
            .ToArray();
        static long Both(IEnumerable<long> sizes) => sizes.Sum(n => n * (n - 1) / 2);
        var (found, real, both) = (
            Both(named.CountBy(n => n.Found).Select(c => (long)c.Value)),
            Both(named.CountBy(n => n.True).Select(c => (long)c.Value)),
            Both(named.CountBy(n => n).Select(c => (long)c.Value))
        );
        says.WriteLine($"venues, pairs of records      {new Pairs(both, found - both, real - both)}");
    }
}
