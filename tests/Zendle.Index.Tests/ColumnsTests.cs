using System.Collections.Immutable;
using CsCheck;
using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>Columns and what is counted and sorted by them, held against plain lists.</summary>
public sealed class ColumnsTests
{
    private sealed record Row(int Work, int Database, int? Year, DocumentType Type, string[] Subjects, int Copy);

    private static readonly IReadOnlyDictionary<int, string> Names = new Dictionary<int, string>
    {
        [1] = "One",
        [2] = "Two",
    };

    private static readonly Gen<Row[]> Rows = Gen.Select(
        Gen.Int[1, 9],
        Gen.Int[1, 2],
        Gen.Int[1998, 2004],
        Gen.Int[1, 3],
        Gen.Int[0, 3].Array[0, 3],
        Gen.Int[0, 6],
        (work, database, year, type, subjects, copy) =>
            new Row(
                work,
                database,
                year == 1998 ? null : year,
                (DocumentType)type,
                [.. subjects.Select(s => "subject " + s).Distinct()],
                copy
            )
    ).Array[1, 20];

    private static CorpusColumns Columns(Row[] rows)
    {
        var builder = new CorpusColumns.Builder(rows.Length + 1, 10, Names);
        foreach (var i in Enumerable.Range(0, rows.Length).OrderBy(i => rows[i].Work))
        {
            var r = rows[i];
            builder.Add(
                Shown(rows, r.Work),
                new(i + 1, r.Work, r.Database, r.Year, r.Type, ["Berg, M."], r.Subjects, r.Copy, null, 0, 0, [])
            );
        }
        return builder.Build();
    }

    /// <summary>What was chosen for a work; here any rule will do, so the last record speaks.</summary>
    private static WorkValues Shown(Row[] rows, int work)
    {
        var last = Array.FindLast(rows, r => r.Work == work)!;
        return new(last.Year, last.Type, null, $"Title {work} of {last.Year}", "Berg", null);
    }

    [Fact]
    public void A_field_of_several_values_counts_works_of_which_a_record_has_it_one_of_single_values_what_they_show() =>
        Gen.Select(Rows, Gen.Int[1, 9].Array[0, 9])
            .Sample(
                (rows, some) =>
                {
                    var columns = Columns(rows);
                    var set = WorkSet.Of(columns.WorkSize, some);
                    foreach (
                        var (facet, values) in new (Facet, Func<Row, IEnumerable<string>>)[]
                        {
                            (Facet.Subject, r => r.Subjects),
                            (Facet.Type, r => [DocumentTypes.Name(Shown(rows, r.Work).Type)]),
                            (Facet.Database, r => [Names[r.Database]]),
                            (Facet.Year, r => Shown(rows, r.Work).Year is { } y ? [$"{y}"] : []),
                        }
                    )
                    {
                        var expected = rows.Where(r => set.Contains(r.Work))
                            .SelectMany(r => values(r).Select(v => (Value: v, r.Work)))
                            .Distinct()
                            .CountBy(v => v.Value)
                            .OrderBy(v => v.Key, StringComparer.Ordinal)
                            .ToArray();
                        var column = columns.Of(facet);
                        var counted = column
                            .Count(set)
                            .Select(c => KeyValuePair.Create(column.Names[c.Value], c.Count))
                            .OrderBy(v => v.Key, StringComparer.Ordinal);
                        Assert.Equal(expected, counted);
                        foreach (var (value, _) in expected)
                            Assert.Equal(
                                rows.Where(r => values(r).Contains(value)).Select(r => r.Work).Distinct().Order(),
                                column.With([value], columns.WorkSize).ToArray()
                            );
                    }
                    Assert.Empty(columns.Of(Facet.Subject).With(["nobody has this"], columns.WorkSize).ToArray());
                },
                iter: 300
            );

    [Fact]
    public void What_a_record_has_goes_into_a_byte_and_comes_out()
    {
        var builder = new CorpusColumns.Builder(64, 64, Names);
        var rows = (from type in Enum.GetValues<DocumentType>() from has in Enumerable.Range(0, 3) select (type, has))
            .Select((t, i) => (t.type, Abstract: t.has == 0, Keywords: t.has == 1, References: t.has == 2, Id: i + 1))
            .ToArray();
        Assert.True(rows.Length < 64);
        foreach (var r in rows)
            builder.Add(
                new(2000, r.type, null, "Title", null, null),
                new(
                    r.Id,
                    r.Id,
                    1,
                    2000,
                    r.type,
                    [],
                    [],
                    0,
                    null,
                    0,
                    0,
                    r.References ? [new(0, 7, 0)] : [],
                    Around: new([], [], [], r.Keywords ? ["moths"] : []),
                    HasAbstract: r.Abstract
                )
            );
        var columns = builder.Build();
        Assert.All(
            rows,
            r =>
                Assert.Equal(
                    (r.type, r.Abstract, r.Keywords, r.References),
                    columns.FieldsOf(r.Id) is var f ? (f.Type, f.HasAbstract, f.HasKeywords, f.HasReferences) : default
                )
        );
    }

    [Fact]
    public void A_field_of_one_value_each_counts_and_finds_like_any_other() =>
        Gen.Int[-1, 3]
            .Array[0, 70]
            .Sample(
                placeOf =>
                {
                    // Two of the names differ in case only: they are one value.
                    string[] names = ["North", "south", "NORTH", "West"];
                    var column = FacetColumn.OfOnes(names, placeOf);
                    Assert.Equal(["North", "south", "West"], column.Names);
                    string? Of(int work) => placeOf[work] < 0 ? null : names[placeOf[work]].ToUpperInvariant();
                    var all = Enumerable.Range(0, placeOf.Length).ToArray();
                    Assert.Equal(
                        all.Where(w => Of(w) is not null)
                            .CountBy(w => Of(w)!)
                            .OrderBy(c => c.Key, StringComparer.Ordinal),
                        column
                            .Count(WorkSet.Of(placeOf.Length, all))
                            .Select(c => KeyValuePair.Create(column.Names[c.Value].ToUpperInvariant(), c.Count))
                            .OrderBy(c => c.Key, StringComparer.Ordinal)
                    );
                    Assert.Equal(
                        all.Where(w => Of(w) is "NORTH" or "WEST"),
                        column.With(["north", "West", "nowhere"], placeOf.Length).ToArray()
                    );
                    Assert.True(column.Of(placeOf.Length).IsEmpty);
                    var (written, values, ones) = column.Parts;
                    Assert.Equal(
                        all.Select(w => column.Of(w).ToArray()),
                        all.Select(w => FacetColumn.From(written, values, ones).Of(w).ToArray())
                    );
                },
                iter: 200
            );

    [Fact]
    public void The_text_at_hand_of_a_work_is_its_best_copy_in_any_record() =>
        Rows.Sample(
            rows =>
            {
                var columns = Columns(rows);
                foreach (var work in rows.GroupBy(r => r.Work))
                {
                    var column = columns.Of(Facet.Text);
                    Assert.Equal(
                        TextAtHand.Words[work.Min(r => r.Copy)],
                        column.Names[Assert.Single(column.Of(work.Key).ToArray())]
                    );
                }
            },
            iter: 200
        );

    [Fact]
    public void Columns_hold_what_was_chosen_for_a_work_and_nothing_else() =>
        Rows.Sample(
            rows =>
            {
                var columns = Columns(rows);
                foreach (var work in rows.Select((r, i) => (Row: r, Id: i + 1)).GroupBy(r => r.Row.Work))
                {
                    var shown = Shown(rows, work.Key);
                    Assert.Equal((shown.Year ?? 0, shown.Title), (columns.Year[work.Key], columns.SortTitle[work.Key]));
                    Assert.Equal(work.Min(r => r.Id), columns.WorkFirstRecord[work.Key]);
                }
                Assert.Equal(rows.Select(r => r.Work).Distinct().Count(), columns.Works);
                Assert.Equal(rows.Length, columns.Records);
            },
            iter: 200
        );

    [Fact]
    public void A_trail_is_sorted_by_ties_then_by_citations_then_by_id()
    {
        // 5 cites 1, 2, 3; 6 cites 2, 3; 7 cites 3; the seeds are 5 and 6.
        using var corpus = new SmallCorpus([
            .. new (int Work, string[] Cites)[]
            {
                (1, []),
                (2, []),
                (3, []),
                (4, []),
                (5, ["1", "2", "3"]),
                (6, ["2", "3"]),
                (7, ["3"]),
            }.Select(w => new Placed(
                w.Work,
                w.Work,
                1,
                new Record
                {
                    Identifier = $"x{w.Work}",
                    Title = $"Work {w.Work}",
                    Year = 2000 + w.Work,
                    Doi = $"10.5555/{w.Work}",
                    People = [new("Berg", "Mei")],
                    References = [.. w.Cites.Select(c => new Reference(c, $"10.5555/{c}"))],
                }
            )),
        ]);
        using var snapshot = corpus.Index.Snapshot();
        var trail = Trail.Follow(
            snapshot.Columns.Graph,
            new(ImmutableArray.Create(5, 6), TrailWay.Backward),
            [],
            snapshot.Columns.WorkSize
        );
        int[] Sorted(SortOrder order) =>
            WorkOrder.Sort(
                snapshot,
                trail.Past.Works(1),
                order,
                [],
                new RecordSet(snapshot.Columns.RecordSize),
                2026,
                trail.Past.Ties
            );
        Assert.Equal([3, 2, 1], Sorted(SortOrder.Ties)); // 3 and 2 have two ties, 3 is cited once more
        Assert.Equal([3, 2, 1], Sorted(SortOrder.Relevance)); // without words to weigh, ties stand in for relevance
        Assert.Equal([1, 2, 3], Sorted(SortOrder.Oldest));
    }
}
