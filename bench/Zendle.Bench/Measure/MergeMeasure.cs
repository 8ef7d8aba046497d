using System.Globalization;
using Zendle.Core.Merging;

namespace Zendle.Bench.Measure;

/// <summary>Compares the works that came out with the true ones, over pairs of records.</summary>
internal static class MergeMeasure
{
    /// <summary>
    /// Prints precision, recall and F1 over all pairs, over harder slices of them, and of a plain rule beside; and how
    /// many works are wholly right.
    /// </summary>
    public static void Print(
        IReadOnlyList<HarvestedEntry> entries,
        IReadOnlyDictionary<RecordAt, (int Work, string Version)> truth,
        TextWriter says
    )
    {
        var facts = entries.ToDictionary(e => e.Id, e => MergeFacts.Of(e.Id, e.DatabaseId, e.Record));
        bool SharesIdentifier(HarvestedEntry a, HarvestedEntry b) =>
            Comparison.Of(facts[a.Id], facts[b.Id]).Identifier
                is IdentifierLevel.Same
                    or IdentifierLevel.DeclaredVersion;
        bool OtherVersion(HarvestedEntry a, HarvestedEntry b) =>
            VersionOf(truth[a.At].Version) != VersionOf(truth[b.At].Version);
        var all = Count(entries, truth, (_, _) => true);
        var bare = Count(entries, truth, (a, b) => !SharesIdentifier(a, b));
        var versions = Count(entries, truth, OtherVersion);
        says.WriteLine($"merging, all pairs            {all}");
        says.WriteLine($"merging, without identifier   {bare}");
        says.WriteLine($"merging, two versions         {versions}");
        bool Differ(HarvestedEntry a, HarvestedEntry b) =>
            MergeFacts.Plain(a.Record.Title) != MergeFacts.Plain(b.Record.Title) || a.Record.Year != b.Record.Year;
        says.WriteLine(
            "merging, no identifier, title "
                + $"or year differs {Count(entries, truth, (a, b) => Differ(a, b) && !SharesIdentifier(a, b))}"
        );
        says.WriteLine(
            $"merging, inside one database  {Count(entries, truth, (a, b) => a.DatabaseId == b.DatabaseId)}"
        );
        says.WriteLine($"merging, works wholly right   {Whole(entries, truth, e => e.WorkId)}");
        var plain = PlainGroups(entries);
        says.WriteLine(
            "merging, plain rule           "
                + $"{Count([.. entries.Select(e => e with { WorkId = plain[e.Id] })], truth, (_, _) => true)}; works "
                + $"wholly right {Whole(entries, truth, e => plain[e.Id])}"
        );
    }

    /// <summary>The share of true works whose records are one work, with no other's among them.</summary>
    private static string Whole(
        IReadOnlyList<HarvestedEntry> entries,
        IReadOnlyDictionary<RecordAt, (int Work, string Version)> truth,
        Func<HarvestedEntry, int> workOf
    )
    {
        var found = entries.GroupBy(workOf).ToDictionary(g => g.Key, g => g.Count());
        var works = entries.GroupBy(e => truth[e.At].Work).ToArray();
        var right = works.Count(w => w.Select(workOf).Distinct().Count() == 1 && found[workOf(w.First())] == w.Count());
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{100.0 * right / works.Length:0.00} % of {works.Length:N0}"
        );
    }

    /// <summary>The plain rule: one DOI, or one title in one year, one work.</summary>
    private static Dictionary<int, int> PlainGroups(IReadOnlyList<HarvestedEntry> entries)
    {
        var parent = entries.ToDictionary(e => e.Id, e => e.Id);
        int Root(int i)
        {
            while (parent[i] != i)
                i = parent[i] = parent[parent[i]];
            return i;
        }
        var first = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (var e in entries)
        foreach (
            var key in new[]
            {
                e.Record.Doi is { } doi ? "doi " + doi.ToLowerInvariant() : null,
                MergeFacts.Plain(e.Record.Title) is { Length: > 0 } title && e.Record.Year is { } year
                    ? $"{year} {title}"
                    : null,
            }.OfType<string>()
        )
            if (first.TryGetValue(key, out var other))
                parent[Root(e.Id)] = Root(other);
            else
                first[key] = e.Id;
        return entries.ToDictionary(e => e.Id, e => Root(e.Id));
    }

    /// <summary>
    /// How many pairs of companion studies, two works that differ in a word of the title, were taken for one.
    /// </summary>
    public static void Companions(
        IReadOnlyList<HarvestedEntry> entries,
        IReadOnlyDictionary<RecordAt, (int Work, string Version)> truth,
        WorldFiles world,
        TextWriter says
    )
    {
        var made = entries.ToLookup(e => truth[e.At].Work);
        var pairs = world
            .Truth("companions.csv")
            .Select(r =>
                (
                    Work: int.Parse(r[0], CultureInfo.InvariantCulture),
                    Companion: int.Parse(r[1], CultureInfo.InvariantCulture)
                )
            )
            .Where(p => made[p.Work].Any() && made[p.Companion].Any())
            .ToArray();
        if (pairs.Length == 0)
            return;
        var joined = pairs.Count(p =>
            made[p.Work].Select(e => e.WorkId).Intersect(made[p.Companion].Select(e => e.WorkId)).Any()
        );
        var bare = pairs.Where(p => made[p.Work].Concat(made[p.Companion]).All(e => e.Record.Doi is null)).ToArray();
        var bareJoined = bare.Count(p =>
            made[p.Work].Select(e => e.WorkId).Intersect(made[p.Companion].Select(e => e.WorkId)).Any()
        );
        says.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"companion studies             {joined} of {pairs.Length} pairs joined wrongly "
                    + $"({100.0 * joined / pairs.Length:0.0} %); without any DOI {bareJoined} of {bare.Length}"
            )
        );
    }

    /// <summary>Examples of what went wrong, for reading.</summary>
    public static void Examples(
        IReadOnlyList<HarvestedEntry> entries,
        IReadOnlyDictionary<RecordAt, (int Work, string Version)> truth,
        TextWriter says
    )
    {
        var facts = entries.ToDictionary(e => e.Id, e => MergeFacts.Of(e.Id, e.DatabaseId, e.Record));
        void Show(string what, HarvestedEntry a, HarvestedEntry b)
        {
            var compared = Comparison.Of(facts[a.Id], facts[b.Id]);
            var forbidden = Comparison.Forbids(facts[a.Id], facts[b.Id], compared) ? " forbidden" : "";
            var unmet = facts[a.Id].Blocking.Overlaps(facts[b.Id].Blocking) ? "" : " no key";
            says.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{what} {MergeWeights.Shipped.Score(compared):0.0}{forbidden}{unmet} {compared}"
                )
            );
            foreach (var e in new[] { a, b })
                says.WriteLine(
                    $"    {e.At.Database} {e.Record.Type} {e.Record.Year} "
                        + $"{string.Join("; ", e.Record.People.Take(4).Select(p => p.Short))} | {e.Record.Title} "
                        + $"| {e.Record.Venue?.Title} {e.Record.Venue?.Volume} {e.Record.Venue?.FirstPage} | "
                        + $"{e.Record.Doi}"
                );
        }
        foreach (
            var (a, b) in entries
                .GroupBy(e => e.WorkId)
                .SelectMany(g => All([.. g]))
                .Where(p => truth[p.A.At].Work != truth[p.B.At].Work)
                .Take(25)
        )
            Show("WRONG", a, b);
        foreach (
            var (a, b) in entries
                .GroupBy(e => truth[e.At].Work)
                .SelectMany(g => All([.. g]))
                .Where(p => p.A.WorkId != p.B.WorkId)
                .Take(200)
        )
            Show("MISSED", a, b);
    }

    private static Pairs Count(
        IReadOnlyList<HarvestedEntry> entries,
        IReadOnlyDictionary<RecordAt, (int Work, string Version)> truth,
        Func<HarvestedEntry, HarvestedEntry, bool> counts
    )
    {
        long right = 0,
            wrong = 0,
            missed = 0;
        foreach (var (a, b) in entries.GroupBy(e => e.WorkId).SelectMany(g => All([.. g])))
            if (counts(a, b))
                if (truth[a.At].Work == truth[b.At].Work)
                    right++;
                else
                    wrong++;
        foreach (var (a, b) in entries.GroupBy(e => truth[e.At].Work).SelectMany(g => All([.. g])))
            if (a.WorkId != b.WorkId && counts(a, b))
                missed++;
        return new(right, wrong, missed);
    }

    private static IEnumerable<(HarvestedEntry A, HarvestedEntry B)> All(HarvestedEntry[] group)
    {
        for (var i = 0; i < group.Length; i++)
        for (var j = i + 1; j < group.Length; j++)
            yield return (group[i], group[j]);
    }

    /// <summary>What no database says is the version of record.</summary>
    private static string VersionOf(string version) => version.Length == 0 ? "version of record" : version;
}
