using System.Runtime.CompilerServices;
using Zendle.Core.Merging;
using Zendle.Server.Corpus;
using Zendle.Store.Corpus;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Server.Tests;

/// <summary>
/// Works are put together from the stream of their records, some being looked at while the next are read.
/// </summary>
public sealed class WorkPartTests
{
    private static readonly Dictionary<int, int> Trust = new() { [1] = 1, [2] = 0 };
    private bool isClosed;

    private static StoredRecord Stored(int id, int work, int database = 1, string title = "Moths and lamps of a coast")
    {
        var record = new Record
        {
            Identifier = $"r{id}",
            Title = title,
            Year = 1990 + id % 30,
            People = [new("Berg", "Mei")],
            Venue = new("Hedge Ecology"),
            Type = Core.Records.DocumentType.Article,
        };
        return new(
            id,
            work,
            database,
            false,
            1,
            7,
            RecordCodec.Facts(record),
            MergeFactsCodec.Write(MergeFacts.Of(id, database, record)),
            []
        );
    }

    private async IAsyncEnumerable<StoredRecord> Stream(
        IEnumerable<StoredRecord> records,
        int? breaksAfter = null,
        [EnumeratorCancellation] CancellationToken cancel = default
    )
    {
        try
        {
            var told = 0;
            foreach (var record in records)
            {
                cancel.ThrowIfCancellationRequested();
                if (told++ == breaksAfter)
                    throw new InvalidDataException("broken off");
                if (told % 700 == 0)
                    await Task.Yield();
                yield return record;
            }
        }
        finally
        {
            isClosed = true;
        }
    }

    private IAsyncEnumerable<WorkPart> Parts(IEnumerable<StoredRecord> records, int? breaksAfter = null) =>
        WorkPart.Of(Stream(records, breaksAfter), Trust, CancellationToken.None);

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(1_023)]
    [InlineData(1_024)]
    [InlineData(1_025)]
    [InlineData(2_500)]
    public async Task Every_work_comes_once_with_all_its_records_wherever_the_portions_end(int works)
    {
        // Work w has one, two or three records.
        var records = Enumerable
            .Range(1, works)
            .SelectMany(w => Enumerable.Range(0, 1 + w % 3).Select(i => Stored(3 * w + i, w)))
            .ToArray();
        var parts = await Parts(records).ToArrayAsync();
        Assert.Equal(Enumerable.Range(1, works), parts.Select(p => p.Work));
        Assert.Equal(records.Select(r => r.Id), parts.SelectMany(p => p.Rows, (_, r) => r.Row.RecordId));
        Assert.All(parts, p => Assert.Equal((1 + p.Work % 3, 1), (p.Rows.Count, p.Mentions.Count)));
        Assert.True(isClosed);
    }

    [Fact]
    public async Task Every_record_is_shown_once_to_who_needs_them_all()
    {
        var seen = new System.Collections.Concurrent.ConcurrentBag<(int, string)>();
        var records = Enumerable.Range(1, 2_200).Select(i => Stored(i, 1 + i / 2, title: $"Moths {i}")).ToArray();
        await foreach (
            var _ in WorkPart.Of(
                Stream(records),
                Trust,
                CancellationToken.None,
                (id, record) => seen.Add((id, record.Title))
            )
        ) { }
        Assert.Equal(records.Select(r => (r.Id, $"Moths {r.Id}")), seen.Order());
    }

    [Fact]
    public async Task Who_is_shown_records_and_fails_ends_the_stream()
    {
        await Assert.ThrowsAsync<AggregateException>(async () =>
        {
            await foreach (
                var _ in WorkPart.Of(
                    Stream(Enumerable.Range(1, 3_000).Select(i => Stored(i, i))),
                    Trust,
                    CancellationToken.None,
                    (id, _) =>
                    {
                        if (id == 2_000)
                            throw new InvalidDataException("no");
                    }
                )
            ) { }
        });
        Assert.True(isClosed);
    }

    [Fact]
    public async Task A_work_shows_what_its_most_trusted_record_says_and_is_found_by_what_each_says()
    {
        var part = Assert.Single(
            await Parts([Stored(1, 9, 1, "Moths and lamps of a coast"), Stored(2, 9, 2, "Moths & lamps of the coast")])
                .ToArrayAsync()
        );
        Assert.Equal(("Hedge Ecology", 1992, true), (part.Venue?.Title, part.Shown.Year, part.IsItem));
        Assert.Equal([9, 9], part.Rows.Select(r => r.Findable.Work));
        Assert.Equal([1991, 1992], part.Rows.Select(r => r.Findable.Year));
        Assert.Contains(MergeKeys.PersonAndYear("berg", 1992), part.Rows[1].Findable.Keys);
        Assert.Contains(MergeKeys.Of("title", "moths and lamps of a coast"), part.Rows[0].Findable.Keys);
    }

    [Fact]
    public async Task Who_stops_early_leaves_nothing_open()
    {
        await foreach (var part in Parts(Enumerable.Range(1, 5_000).Select(i => Stored(i, i))))
            if (part.Work == 3)
                break;
        Assert.True(isClosed);
    }

    [Fact]
    public async Task A_stream_that_breaks_off_is_told_and_closed()
    {
        var seen = 0;
        await Assert.ThrowsAsync<InvalidDataException>(async () =>
        {
            await foreach (var _ in Parts(Enumerable.Range(1, 5_000).Select(i => Stored(i, i)), breaksAfter: 3_000))
                seen++;
        });
        Assert.InRange(seen, 0, 3_000);
        Assert.True(isClosed);
    }
}
