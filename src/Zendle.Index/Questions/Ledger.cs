using System.Buffers;
using System.Collections.Immutable;
using Zendle.Core.Sets;
using Zendle.Index.Columns;

namespace Zendle.Index.Questions;

/// <summary>What each database has of an answer, and what they have together.</summary>
/// <param name="Databases">One line for each database.</param>
/// <param name="Records">Matching records in the chosen databases.</param>
/// <param name="Works">Works they describe.</param>
public sealed record Ledger(ImmutableArray<LedgerLine> Databases, int Records, int Works)
{
    /// <summary>Duplicates joined: records − works.</summary>
    public int Duplicates => Records - Works;

    /// <summary>Counts an answer. O(records + works of the corpus).</summary>
    /// <param name="snapshot">The corpus.</param>
    /// <param name="records">Matching records of all databases.</param>
    /// <param name="chosen">Ids of the databases chosen; empty for all.</param>
    public static Ledger Of(CorpusSnapshot snapshot, RecordSet records, ImmutableArray<int> chosen)
    {
        var columns = snapshot.Columns;
        var names = snapshot.DatabaseNames;
        // A kept work that is in no database any more has its own line, so that the sum is the sum.
        if (
            !columns.Withdrawn.IsEmpty
            && records.Members().Any(r => columns.RecordDatabase[r] == CorpusColumns.NoDatabase)
        )
            names = names
                .Append(new KeyValuePair<int, string>(CorpusColumns.NoDatabase, CorpusColumns.NoDatabaseName))
                .ToDictionary();
        var databases = names.Keys.Order().ToArray();
        if (databases.Length > 64)
            throw new InvalidOperationException("The ledger counts at most 64 databases.");
        var bit = new int[256];
        for (var i = 0; i < databases.Length; i++)
            bit[databases[i]] = i;
        var on = databases.Select(d => chosen.IsDefaultOrEmpty || chosen.Contains(d)).ToArray();
        // Held between calls, whatever stands in it: an array as long as the corpus takes longer to make than to use.
        var masks = ArrayPool<ulong>.Shared.Rent(columns.WorkSize);
        var recordCounts = new int[databases.Length];
        var works = new WorkSet(columns.WorkSize);
        foreach (var r in records)
        {
            var (d, work) = (bit[columns.RecordDatabase[r]], columns.RecordWork[r]);
            recordCounts[d]++;
            if (!works.Contains(work))
            {
                works.Add(work);
                masks[work] = 0;
            }
            masks[work] |= 1UL << d;
        }
        var only = new OnlyHere(databases, snapshot.Containers, d => chosen.IsDefaultOrEmpty || chosen.Contains(d));
        var (workCounts, total) = (new int[databases.Length], 0);
        foreach (var work in works)
        {
            var mask = masks[work];
            for (var m = mask; m != 0; m &= m - 1)
                workCounts[System.Numerics.BitOperations.TrailingZeroCount(m)]++;
            if (only.Take(mask))
                total++;
        }
        ArrayPool<ulong>.Shared.Return(masks);
        var recordsOn = 0;
        for (var i = 0; i < on.Length; i++)
            if (on[i])
                recordsOn += recordCounts[i];
        return new(
            [
                .. databases.Select(
                    (d, i) =>
                        new LedgerLine(
                            d,
                            names[d],
                            on[i],
                            recordCounts[i],
                            workCounts[i],
                            only.Counts[i],
                            snapshot.Containers.TryGetValue(d, out var container) ? container : null
                        )
                ),
            ],
            recordsOn,
            total
        );
    }
}

/// <summary>One database's share of an answer.</summary>
/// <param name="DatabaseId">The database.</param>
/// <param name="Name">Its name.</param>
/// <param name="Chosen">Whether it is searched.</param>
/// <param name="Records">Its matching records.</param>
/// <param name="Works">The works they describe.</param>
/// <param name="OnlyHere">Works that no other chosen database holds a matching record of: what would be missed without
/// it, its extracts counted together with it.</param>
/// <param name="PartOf">The database it is an extract of; null for none.</param>
public sealed record LedgerLine(
    int DatabaseId,
    string Name,
    bool Chosen,
    int Records,
    int Works,
    int OnlyHere,
    int? PartOf
);
