using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>A record of a test corpus with its place in it.</summary>
public sealed record Placed(int Id, int Work, int Database, Record Record);

/// <summary>A corpus in a folder of its own, indexed for real.</summary>
public sealed class SmallCorpus : IDisposable
{
    private readonly string folder = Path.Combine(Path.GetTempPath(), "zendle-index-" + Guid.NewGuid().ToString("N"));

    public static readonly IReadOnlyDictionary<int, string> Names = new Dictionary<int, string>
    {
        [1] = "Farnet",
        [2] = "Meridian Citations",
        [3] = "Harbour Repository",
    };

    public SmallCorpus(IReadOnlyList<Placed> records, IReadOnlyDictionary<int, int>? containers = null)
    {
        Records = records;
        Index = new(folder);
        foreach (var r in records)
            Index.Put(r.Id, r.Record);
        Index.Refresh(Columns(records), Names, 1, containers);
    }

    /// <summary>A corpus of so many works, each with one record of one database under the work's own number.</summary>
    /// <param name="works">How many.</param>
    /// <param name="record">The record of a work, by its place from 0.</param>
    public static SmallCorpus OneEach(int works, Func<int, Record> record) =>
        new([.. Enumerable.Range(0, works).Select(n => new Placed(n + 1, n + 1, 1, record(n)))]);

    public IReadOnlyList<Placed> Records { get; }

    public CorpusIndex Index { get; }

    public string Folder => folder;

    public static CorpusColumns Columns(IReadOnlyList<Placed> records)
    {
        var builder = new CorpusColumns.Builder(
            records.Count == 0 ? 1 : records.Max(r => r.Id) + 1,
            records.Count == 0 ? 1 : records.Max(r => r.Work) + 1,
            Names
        );
        var shown = records
            .GroupBy(p => p.Work)
            .ToDictionary(
                g => g.Key,
                g =>
                    WorkValues.Of(
                        ChosenFields.From([
                            .. g.Select(p => new SourcedRecord(p.Id, p.Database, p.Database == 2 ? 0 : 1, p.Record)),
                        ])
                    )
            );
        foreach (var (id, work, database, r) in records.OrderBy(p => p.Work))
            builder.Add(
                shown[work],
                new(
                    id,
                    work,
                    database,
                    r.Year,
                    r.Type,
                    [.. r.People.Select(p => p.Short)],
                    r.Subjects,
                    TextAtHand.Best(r.Copies),
                    r.CitedCount,
                    MergeKeys.Doi(r.Doi),
                    MergeKeys.TitleAndPerson(r.Title, r.People.Count > 0 ? r.People[0].Family : null),
                    [.. r.References.Select(ReferenceKeys.Of)],
                    r.IsOnlyCited,
                    new(
                        [.. r.People.Select(p => p.Affiliation).OfType<string>().Distinct()],
                        r.Places,
                        r.Funders,
                        [.. r.Keywords, .. r.ControlledTerms]
                    )
                )
            );
        return builder.Build();
    }

    public void Dispose()
    {
        Index.Dispose();
        Directory.Delete(folder, recursive: true);
    }
}
