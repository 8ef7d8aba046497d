using Microsoft.Extensions.Logging.Abstractions;
using Zendle.Core.Queries;
using Zendle.Index.Questions;
using Zendle.Server.Corpus;
using Zendle.Store.Corpus;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Server.Tests;

/// <summary>The index keeps step with the store through harvests, restarts and a store put back.</summary>
public sealed class CorpusServiceTests : IAsyncLifetime
{
    private readonly SmallStore store = new();
    private readonly string data = Directory.CreateTempSubdirectory("zendle-index-").FullName;
    private CorpusWriter writer = null!;

    public async ValueTask InitializeAsync()
    {
        await store.Open();
        writer = store.NewWriter();
    }

    public async ValueTask DisposeAsync()
    {
        await store.DisposeAsync();
        Directory.Delete(data, recursive: true);
    }

    private Task<PageResult> Write(string id, string? title) =>
        writer.Write(
            1,
            [
                PreparedRecord.Of(
                    1,
                    new(
                        id,
                        DateTimeOffset.UnixEpoch,
                        title is null
                            ? null
                            : new Record
                            {
                                Identifier = id,
                                Title = title,
                                Year = 2000,
                            },
                        RecordCodec.Source($"{id} {title}")
                    )
                ),
            ],
            SmallStore.Mark,
            DateTimeOffset.UnixEpoch,
            CancellationToken.None
        );

    private async Task<CorpusService> Started()
    {
        var service = new CorpusService(
            store.Reader,
            new ColumnsBuild(store.Reader, store.NewWriter(), TimeProvider.System, new() { Data = data }),
            new NoMarks(),
            new() { Data = data },
            NullLogger<CorpusService>.Instance
        );
        await service.Start(CancellationToken.None);
        return service;
    }

    private static int[] Found(CorpusService service, string line)
    {
        using var snapshot = service.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        return [.. evaluator.Works(evaluator.Records(QueryReader.Read(line).Root!)).Members()];
    }

    [Fact]
    public async Task Nothing_can_be_asked_before_the_start_and_everything_after()
    {
        await Write("a", "Moths and lamps of a coast");
        using var early = new CorpusService(
            store.Reader,
            new ColumnsBuild(
                store.Reader,
                store.NewWriter(),
                TimeProvider.System,
                new() { Data = Path.Combine(data, "early") }
            ),
            new NoMarks(),
            new() { Data = Path.Combine(data, "early") },
            NullLogger<CorpusService>.Instance
        );
        Assert.False(early.IsReady);
        Assert.Throws<NotReadyException>(early.Snapshot);
        using var service = await Started();
        Assert.True(service.IsReady);
        Assert.Equal([1], Found(service, "lamps"));
    }

    [Fact]
    public async Task What_is_put_in_is_seen_after_a_refresh_and_not_before()
    {
        await Write("a", "Moths and lamps of a coast");
        using var service = await Started();
        var result = await Write("b", "Bats and lamps of the hills");
        service.Put(result.Changed);
        Assert.Equal([1], Found(service, "lamps"));
        await service.Refresh(CancellationToken.None);
        Assert.Equal([1, 2], Found(service, "lamps"));
        service.Put((await Write("a", null)).Changed);
        await service.Refresh(CancellationToken.None);
        Assert.Equal([2], Found(service, "lamps"));
    }

    [Fact]
    public async Task A_later_start_puts_in_what_the_store_has_beyond_the_index()
    {
        await Write("a", "Moths and lamps of a coast");
        (await Started()).Dispose();
        await Write("b", "Bats and lamps of the hills");
        await Write("a", "Moths in the dark of a coast");
        using var again = await Started();
        Assert.Equal([2], Found(again, "lamps"));
        Assert.Equal([1], Found(again, "dark"));
    }

    [Fact]
    public async Task A_store_put_back_to_an_older_state_takes_the_index_with_it()
    {
        await Write("a", "Moths and lamps of a coast");
        await Write("b", "Bats and lamps of the hills");
        (await Started()).Dispose();
        await using (var context = store.Context())
        {
            context.Records.RemoveRange(context.Records.Where(r => r.Identifier == "b"));
            await context.SaveChangesAsync();
        }
        using var again = await Started();
        Assert.Equal([1], Found(again, "lamps"));
    }

    [Fact]
    public async Task A_damaged_index_is_built_anew()
    {
        await Write("a", "Moths and lamps of a coast");
        (await Started()).Dispose();
        foreach (var file in Directory.EnumerateFiles(Path.Combine(data, "index"), "segments*"))
            await File.WriteAllTextAsync(file, "no index");
        using var again = await Started();
        Assert.Equal([1], Found(again, "lamps"));
    }

    [Fact]
    public async Task Whoever_holds_a_snapshot_keeps_it_through_refreshes()
    {
        await Write("a", "Moths and lamps of a coast");
        using var service = await Started();
        using var held = service.Snapshot();
        service.Put((await Write("b", "Bats and lamps of the hills")).Changed);
        await service.Refresh(CancellationToken.None);
        var evaluator = new QuestionEvaluator(held, null);
        Assert.Equal([1], evaluator.Works(evaluator.Records(QueryReader.Read("lamps").Root!)).Members());
        Assert.Equal([1, 2], Found(service, "lamps"));
    }

    [Fact]
    public async Task Refreshes_that_come_at_once_take_their_turns()
    {
        using var service = await Started();
        for (var i = 0; i < 6; i++)
            service.Put((await Write("r" + i, $"Lamps number {i} of a coast")).Changed);
        await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => service.Refresh(CancellationToken.None)));
        Assert.Equal(6, Found(service, "lamps").Length);
    }
}
