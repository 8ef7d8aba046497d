using System.Runtime.CompilerServices;
using Zendle.Core.Records;
using Zendle.Core.Sets;
using Zendle.Index.Columns;
using Zendle.Index.Questions;

namespace Zendle.Server.Features.Databases;

/// <summary>
/// What the records of each database show, counted once for each snapshot of the corpus: O(records) then, O(databases)
/// ever after.
/// </summary>
internal sealed class DatabaseCounts
{
    private static readonly ConditionalWeakTable<CorpusSnapshot, DatabaseCounts> Counted = [];
    private static readonly DatabaseCount Empty = new();
    private readonly Dictionary<int, DatabaseCount> counts;
    private readonly Dictionary<(int, int), int> overlaps = [];

    private DatabaseCounts(CorpusSnapshot snapshot)
    {
        var columns = snapshot.Columns;
        int[] databases = [.. snapshot.DatabaseNames.Keys.Where(d => d != CorpusColumns.NoDatabase).Order()];
        counts = databases.ToDictionary(d => d, _ => new DatabaseCount());
        var works = databases.ToDictionary(d => d, _ => new WorkSet(columns.WorkSize));
        var ordinal = databases.Index().ToDictionary(d => d.Item, d => d.Index);
        var held = new ulong[columns.WorkSize];
        for (var r = 0; r < columns.RecordSize; r++)
        {
            var (work, database) = (columns.RecordWork[r], columns.RecordDatabase[r]);
            if (work == 0 || !counts.TryGetValue(database, out var count))
                continue;
            count.Add(columns.FieldsOf(r), columns.RecordYear[r]);
            works[database].Add(work);
            held[work] |= 1UL << ordinal[database];
        }
        var only = new OnlyHere(databases, snapshot.Containers, _ => true);
        foreach (var mask in held)
            only.Take(mask);
        foreach (var one in databases)
        {
            counts[one].Works = works[one].Count();
            counts[one].OnlyHere = only.Counts[ordinal[one]];
            foreach (var other in databases.Where(d => d > one))
                overlaps[(one, other)] = overlaps[(other, one)] = works[one].CountWith(works[other]);
        }
    }

    /// <summary>The counts of a snapshot.</summary>
    public static DatabaseCounts Of(CorpusSnapshot snapshot) => Counted.GetValue(snapshot, s => new(s));

    /// <summary>The counts of a database; nothing for one whose first record has not come yet.</summary>
    public DatabaseCount this[int database] => counts.GetValueOrDefault(database, Empty);

    /// <summary>Works that two databases both hold.</summary>
    public int Both(int one, int other) => overlaps.GetValueOrDefault((one, other));
}

/// <summary>What the records of one database hold.</summary>
internal sealed class DatabaseCount
{
    /// <summary>How many records it holds.</summary>
    public int Records { get; private set; }

    /// <summary>How many works they describe.</summary>
    public int Works { get; set; }

    /// <summary>Works that would be lost without it.</summary>
    public int OnlyHere { get; set; }

    /// <summary>Records with an abstract.</summary>
    public int Abstract { get; private set; }

    /// <summary>Records with keywords.</summary>
    public int Keywords { get; private set; }

    /// <summary>Records with references.</summary>
    public int References { get; private set; }

    /// <summary>Records by type.</summary>
    public Dictionary<DocumentType, int> Types { get; } = [];

    /// <summary>Records by the year they print.</summary>
    public SortedDictionary<int, int> Years { get; } = [];

    /// <summary>Takes a record into account.</summary>
    public void Add(RecordFields fields, int year)
    {
        Records++;
        if (fields.HasAbstract)
            Abstract++;
        if (fields.HasKeywords)
            Keywords++;
        if (fields.HasReferences)
            References++;
        Types[fields.Type] = Types.GetValueOrDefault(fields.Type) + 1;
        if (year > 0)
            Years[year] = Years.GetValueOrDefault(year) + 1;
    }
}
