using Microsoft.EntityFrameworkCore;
using Zendle.Core.Merging;
using Zendle.Store.Corpus;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Server.Tests;

/// <summary>
/// Pages written one after another, on a real SQLite file, give the works that merging all records at once gives.
/// </summary>
public sealed class CorpusWriterTests : IAsyncLifetime
{
    private readonly SmallStore store = new();
    private CorpusWriter writer = null!;
    private CorpusReader reader = null!;

    public async ValueTask InitializeAsync()
    {
        await store.Open();
        (writer, reader) = (store.NewWriter(), store.Reader);
    }

    public ValueTask DisposeAsync() => store.DisposeAsync();

    private CorpusContext Context() => store.Context();

    private static HarvestedRecord Harvested(
        string id,
        string? doi,
        string title,
        int year = 2000,
        bool deleted = false,
        string? version = null
    )
    {
        var record = new Record
        {
            Identifier = id,
            Title = title,
            Year = year,
            Doi = doi,
            People = [new("Berg", "Mei")],
            Versions = version is null ? [] : [new(version)],
        };
        return new(
            id,
            DateTimeOffset.UnixEpoch,
            deleted ? null : record,
            RecordCodec.Source($"{id}|{doi}|{title}|{year}|{deleted}|{version}")
        );
    }

    private Task<PageResult> Write(int database, params HarvestedRecord[] page) =>
        writer.Write(
            database,
            [.. page.Select(r => PreparedRecord.Of(database, r))],
            SmallStore.Mark,
            DateTimeOffset.UnixEpoch,
            CancellationToken.None
        );

    /// <summary>The works as sets of identifiers, whatever their ids.</summary>
    private async Task<string> Works()
    {
        await using var context = Context();
        var rows = await context
            .Records.Where(r => r.WorkId > 0)
            .Select(r => new { r.WorkId, r.Identifier })
            .ToListAsync();
        return string.Join(
            " | ",
            rows.GroupBy(r => r.WorkId)
                .Select(g => string.Join(',', g.Select(r => r.Identifier).Order(StringComparer.Ordinal)))
                .Order(StringComparer.Ordinal)
        );
    }

    private async Task<int> WorkOf(string id)
    {
        await using var context = Context();
        return await context.Records.Where(r => r.Identifier == id).Select(r => r.WorkId).SingleAsync();
    }

    [Fact]
    public async Task A_record_that_ties_two_works_joins_them_under_the_oldest_id_and_its_deletion_parts_them_again()
    {
        await Write(1, Harvested("a", "10.5555/a", "One title of a work"));
        await Write(1, Harvested("b", "10.5555/b", "Another title of a work"));
        var (a, b) = (await WorkOf("a"), await WorkOf("b"));
        Assert.NotEqual(a, b);
        await Write(2, Harvested("c", "10.5555/b", "Another title of a work", version: "10.5555/a"));
        Assert.Equal("a,b,c", await Works());
        Assert.Equal((a, a), (await WorkOf("b"), await reader.Redirect(b, CancellationToken.None)));
        await using (var context = Context())
            Assert.Equal(
                2,
                (
                    await reader.MatchesAmong(
                        await context.Records.Select(r => r.Id).ToListAsync(),
                        CancellationToken.None
                    )
                ).Count
            );
        await Write(2, Harvested("c", null, "", deleted: true));
        Assert.Equal("a | b", await Works());
        Assert.Equal(a, await WorkOf("a"));
    }

    [Fact]
    public async Task A_record_that_stands_twice_on_a_page_is_one_record_as_the_later_says()
    {
        var result = await Write(
            1,
            Harvested("a", null, "One title of a work"),
            Harvested("b", null, "Bats in old barns of the coast"),
            Harvested("a", "10.5555/a", "One title of a work, mended")
        );
        Assert.Equal(2, result.Changed.Count);
        await using var context = Context();
        Assert.Equal(
            "10.5555/a",
            RecordCodec.Facts((await context.Records.SingleAsync(r => r.Identifier == "a")).Facts).Doi
        );
        Assert.Equal("a | b", await Works());
    }

    [Fact]
    public async Task What_is_as_before_changes_nothing_and_the_sequence_stands_still()
    {
        var first = await Write(1, Harvested("a", null, "One title of a work"));
        Assert.Single(first.Changed);
        var again = await Write(1, Harvested("a", null, "One title of a work"));
        Assert.Empty(again.Changed);
        Assert.Equal(first.Sequence, again.Sequence);
        var changed = await Write(1, Harvested("a", null, "One title of a work, mended"));
        Assert.Equal(first.Sequence + 1, changed.Sequence);
        Assert.Empty((await Write(1, Harvested("never seen", null, "", deleted: true))).Changed);
    }

    [Fact]
    public async Task The_mark_of_a_run_travels_with_its_pages()
    {
        await Write(1, Harvested("a", null, "One title of a work"));
        var row = (await reader.Databases(CancellationToken.None))[0];
        Assert.Equal(("more", 1, 1), (row.Token, row.RunDone, row.RunChanged));
        var (started, ended) = (
            new DateTimeOffset(2026, 1, 2, 3, 4, 5, TimeSpan.Zero),
            new DateTimeOffset(2026, 1, 2, 4, 0, 0, TimeSpan.Zero)
        );
        await writer.Write(1, [], new(null, started), ended, CancellationToken.None);
        row = (await reader.Databases(CancellationToken.None))[0];
        Assert.Equal(
            (null, (DateTimeOffset?)started, (DateTimeOffset?)ended, null, 0),
            (row.Token, row.HarvestedUntil, row.HarvestedAt, row.RunStarted, row.RunDone)
        );
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public async Task Any_order_of_arrival_updates_and_deletions_ends_where_merging_from_nothing_ends(int seed)
    {
        var random = new Random(seed);
        var latest = new Dictionary<string, (int Database, HarvestedRecord Record)>();
        for (var act = 0; act < 120; act++)
        {
            var id = "r" + random.Next(24).ToString("D2", System.Globalization.CultureInfo.InvariantCulture);
            var database = latest.TryGetValue(id, out var known) ? known.Database : random.Next(1, 3);
            var doi = random.Next(3) == 0 ? null : "10.5555/" + "abcdef"[random.Next(6)];
            var record = Harvested(
                id,
                doi,
                "A title of work " + random.Next(6),
                2000 + random.Next(3),
                random.Next(7) == 0,
                random.Next(8) == 0 ? "10.5555/" + "abcdef"[random.Next(6)] : null
            );
            latest[id] = (database, record);
            await Write(database, record);
        }
        var grown = await Works();
        Assert.Equal(
            latest.Where(r => r.Value.Record.Record is not null).Select(r => r.Key).Order(StringComparer.Ordinal),
            grown.Split(" | ").SelectMany(w => w.Split(',')).Order(StringComparer.Ordinal)
        );
        // The same records into an empty corpus, in another order, a few at a time.
        var rest = latest.Values.OrderBy(_ => random.Next()).ToArray();
        await Empty();
        foreach (var page in rest.Chunk(5))
        foreach (var part in page.GroupBy(r => r.Database))
            await Write(part.Key, [.. part.Select(r => r.Record)]);
        Assert.Equal(grown, await Works());
        // And joined anew where they stand.
        await using (var context = Context())
            await context.Database.ExecuteSqlRawAsync("PRAGMA user_version = 0; DELETE FROM MergeFacts");
        Assert.Equal(
            latest.Count(r => r.Value.Record.Record is not null),
            await writer.BringUpToDate(CancellationToken.None)
        );
        Assert.Equal(grown, await Works());
        Assert.Equal(0, await writer.BringUpToDate(CancellationToken.None));
    }

    private async Task Empty()
    {
        await using var context = Context();
        await context.Database.ExecuteSqlRawAsync(
            "DELETE FROM Records; DELETE FROM KeyParts; DELETE FROM Matches; DELETE FROM Works; DELETE FROM Rulings;"
        );
        // A writer that remembers what is gone would be none.
        writer = store.NewWriter();
    }

    [Fact]
    public async Task A_key_that_grows_too_wide_proposes_nothing_and_when_it_narrows_again_it_does()
    {
        // Fifty editorials of one person share their title, and nothing tells them apart but the year.
        HarvestedRecord Editorial(int n) => Harvested($"e{n:D2}", null, "From the editors of this journal", 1900 + n);
        for (var n = 0; n < 60; n++)
            await Write(1, Editorial(n));
        await Write(2, Harvested("twin", null, "From the editors of this journal", 1930));
        Assert.EndsWith("e59 | twin", await Works(), StringComparison.Ordinal);
        for (var n = 0; n < 25; n++)
            await Write(1, Harvested($"e{n:D2}", null, "", deleted: true));
        Assert.Matches(@"e30[^|]*,twin", await Works());
    }

    [Fact]
    public async Task What_a_curator_ruled_is_respected_by_later_harvests_and_undone_exactly()
    {
        await Write(
            1,
            Harvested("a", "10.5555/a", "One title of a work"),
            Harvested("z", "10.5555/z", "Bats in old barns of the coast")
        );
        await Write(2, Harvested("b", "10.5555/a", "One title of a work"));
        var before = await Works();
        await using var context = Context();
        var ids = await context.Records.ToDictionaryAsync(r => r.Identifier, r => r.Id);
        Assert.Equal("a,b | z", before);
        Assert.Equal(
            ["1,", "2,"],
            (await writer.Preview([new(ids["a"], ids["b"], false)], [], CancellationToken.None)).Select(
                (w, i) => $"{i + 1},"
            )
        );
        Assert.Equal(before, await Works()); // a preview changes nothing
        await writer.Rule(
            [(ids["a"], ids["b"], false)],
            Guid.NewGuid(),
            "ann",
            DateTimeOffset.UnixEpoch,
            CancellationToken.None
        );
        Assert.Equal("a | b | z", await Works());
        await Write(2, Harvested("b", "10.5555/a", "One title of a work, changed a little"));
        Assert.Equal("a | b | z", await Works());
        await writer.Rule(
            [(ids["a"], ids["b"], null)],
            Guid.NewGuid(),
            "ann",
            DateTimeOffset.UnixEpoch,
            CancellationToken.None
        );
        Assert.Equal("a,b | z", await Works());
        await writer.Rule(
            [(ids["a"], ids["z"], true)],
            Guid.NewGuid(),
            "ann",
            DateTimeOffset.UnixEpoch,
            CancellationToken.None
        );
        Assert.Equal("a,b,z", await Works());
    }

    [Fact]
    public async Task Bytes_come_back_as_the_record_that_went_in()
    {
        await Write(
            1,
            new HarvestedRecord(
                "a",
                DateTimeOffset.UnixEpoch,
                new Record
                {
                    Identifier = "a",
                    Title = "Lumière & nuit",
                    References = [new("Berg 1990", "10.5555/z", null, "Berg", 1990)],
                    Keywords = ["é"],
                },
                RecordCodec.Source("<mods>ü</mods>")
            )
        );
        await using var context = Context();
        var row = await context.Records.SingleAsync();
        Assert.Equal(
            ("Lumière & nuit", "é", 0),
            (
                RecordCodec.Facts(row.Facts).Title,
                RecordCodec.Facts(row.Facts).Keywords.Single(),
                RecordCodec.Facts(row.Facts).References.Count
            )
        );
        Assert.Equal(
            new Zendle.Core.Records.Reference("Berg 1990", "10.5555/z", null, "Berg", 1990),
            Assert.Single(RecordCodec.References(row.References))
        );
        Assert.Equal([new(MergeKeys.Doi("10.5555/z"), 0UL, 1990)], RecordCodec.Keys(row.ReferenceKeys));
        Assert.Equal("<mods>ü</mods>", RecordCodec.Source(row.Source));
    }
}
