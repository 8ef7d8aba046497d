using CsCheck;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Merging;
using Zendle.Store.Corpus;
using Zendle.Store.Sqlite;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Server.Tests;

/// <summary>
/// Reading the corpus: what changed, what stands together, what an id stands for today, and one moment for several
/// reads.
/// </summary>
public sealed class StoreReadsTests : IAsyncLifetime
{
    private readonly SmallStore store = new();
    private CorpusWriter writer = null!;

    private CorpusReader Reader => store.Reader;

    public async ValueTask InitializeAsync()
    {
        await store.Open();
        writer = store.NewWriter();
    }

    public ValueTask DisposeAsync() => store.DisposeAsync();

    private Task<PageResult> Write(int database, string id, string? title, string? doi = null, string? version = null)
    {
        var record = title is null
            ? null
            : new Record
            {
                Identifier = id,
                Title = title,
                Year = 2000,
                Doi = doi,
                People = [new("Berg", "Mei")],
                Versions = version is null ? [] : [new(version)],
            };
        return writer.Write(
            database,
            [
                PreparedRecord.Of(
                    database,
                    new(id, DateTimeOffset.UnixEpoch, record, RecordCodec.Source($"{id} {title} {doi} {version}"))
                ),
            ],
            SmallStore.Mark,
            DateTimeOffset.UnixEpoch,
            CancellationToken.None
        );
    }

    private static async Task<string[]> Told(IAsyncEnumerable<StoredRecord> records)
    {
        var told = new List<string>();
        await foreach (var r in records)
            told.Add($"{r.WorkId}:{r.Record().Identifier}");
        return [.. told];
    }

    [Fact]
    public async Task Records_of_one_work_come_together_and_only_up_to_the_sequence_asked_for()
    {
        await Write(1, "a", "Moths and lamps of a northern coast", "10.5555/a");
        await Write(1, "b", "Bats in old barns of the hills", "10.5555/b");
        var sequence = await Reader.Sequence(CancellationToken.None);
        await Write(2, "c", "Moths and lamps of a northern coast", "10.5555/a");
        Assert.Equal(
            ["1:a", "1:c", "2:b"],
            await Told(Reader.All(await Reader.Sequence(CancellationToken.None), CancellationToken.None))
        );
        Assert.Equal(["1:a", "2:b"], await Told(Reader.All(sequence, CancellationToken.None)));
        Assert.Equal(["1:a", "1:c"], await Told(Reader.Some([1, 99], long.MaxValue, CancellationToken.None)));
        Assert.Empty(await Told(Reader.Some([], long.MaxValue, CancellationToken.None)));
        Assert.Equal((4, 3), await Reader.Sizes(CancellationToken.None));
    }

    [Fact]
    public async Task What_changed_is_told_with_its_work_also_when_only_the_work_became_another()
    {
        await Write(1, "a", "Moths and lamps of a northern coast", "10.5555/a");
        await Write(1, "b", "Bats in old barns of the hills", "10.5555/b");
        var before = await Reader.Sequence(CancellationToken.None);
        // A third record ties the two; the second goes into the first's work without a change of its own.
        await Write(2, "c", "Bats in old barns of the hills", "10.5555/b", version: "10.5555/a");
        Assert.Equal([(2, 1), (3, 1)], (await Reader.Touched(before, long.MaxValue, CancellationToken.None)).Order());
        var after = await Reader.Sequence(CancellationToken.None);
        await Write(2, "c", null);
        // Parted again, the second has a work of its own, and the third none.
        Assert.Equal([(2, 3), (3, 0)], (await Reader.Touched(after, long.MaxValue, CancellationToken.None)).Order());
        Assert.Empty(
            await Reader.Touched(await Reader.Sequence(CancellationToken.None), long.MaxValue, CancellationToken.None)
        );
    }

    [Fact]
    public async Task An_id_that_was_merged_away_stands_for_the_work_it_went_into()
    {
        await Write(1, "a", "Moths and lamps of a northern coast", "10.5555/a");
        await Write(1, "b", "Bats in old barns of the hills", "10.5555/b");
        Assert.Equal(2, await Reader.Redirect(2, CancellationToken.None));
        await Write(2, "c", "Bats in old barns of the hills", "10.5555/b", version: "10.5555/a");
        Assert.Equal(
            (1, 1, 77),
            (
                await Reader.Redirect(2, CancellationToken.None),
                await Reader.Redirect(1, CancellationToken.None),
                await Reader.Redirect(77, CancellationToken.None)
            )
        );
        Assert.Equal([1, 2], (await Reader.IdsOf(1, CancellationToken.None)).Order());
        Assert.Equal(
            ["a", "b", "c"],
            (await Reader.OfWorks([1], CancellationToken.None))[1].Select(r => r.Record.Identifier)
        );
        Assert.Equal(
            ["b"],
            (await Reader.Records([2, 99], CancellationToken.None)).Values.Select(r => r.Record.Identifier)
        );
    }

    [Fact]
    public async Task Changed_records_are_replayed_with_their_facts_and_deleted_ones_without()
    {
        await Write(1, "a", "Moths and lamps of a northern coast");
        await Write(1, "b", "Bats in old barns of the hills");
        await Write(1, "a", null);
        var told = new List<string>();
        await foreach (var (id, facts) in Reader.Changed(0, long.MaxValue, CancellationToken.None))
            told.Add($"{id} {(facts is null ? "gone" : RecordCodec.Facts(facts).Title)}");
        Assert.Equal(["1 gone", "2 Bats in old barns of the hills"], told);
    }

    [Fact]
    public async Task Reads_of_one_moment_see_one_state_while_a_writer_goes_on()
    {
        await Write(1, "a", "Moths and lamps of a northern coast");
        await using var context = store.Context();
        await using (await ReadMoment.Of(context, CancellationToken.None))
        {
            Assert.Equal(1, await context.Records.CountAsync());
            await Write(1, "b", "Bats in old barns of the hills");
            Assert.Equal(1, await context.Records.CountAsync());
        }
        // The moment is over, for the same context too.
        Assert.Equal(2, await context.Records.CountAsync());
        context.Databases.Add(
            new()
            {
                Name = "three",
                Address = "http://x.example/three",
                Format = "mods",
                Granularity = "YYYY-MM-DD",
            }
        );
        await context.SaveChangesAsync();
        await using var other = store.Context();
        Assert.Equal(3, await other.Databases.CountAsync());
    }

    [Fact]
    public void Compressed_text_comes_back_and_nothing_is_nothing()
    {
        Gen.String.Sample(xml => Assert.Equal(xml, RecordCodec.Source(RecordCodec.Source(xml))));
        Gen.Select(Gen.Int[1, 99], Gen.Int[0, 2100], Gen.Bool)
            .Array[0, 40]
            .Sample(asked =>
            {
                var references = asked
                    .Select(a => new Zendle.Core.Records.Reference(
                        "x",
                        a.Item3 ? $"10.5555/{a.Item1}" : null,
                        $"Moths {a.Item1}",
                        "Berg",
                        a.Item2 == 0 ? null : a.Item2
                    ))
                    .ToArray();
                var keys = RecordCodec.Keys(RecordCodec.Keys(references));
                Assert.Equal(references.Select(ReferenceKeys.Of), keys);
                Assert.Equal(asked.Select(a => a.Item2), keys.Select(k => k.Year));
                // What was written down before years were kept: two keys for each reference, nothing else.
                ulong[] bare = [.. keys.SelectMany(k => new[] { k.Doi, k.Title })];
                Assert.Equal(
                    keys.Select(k => k with { Year = 0 }),
                    RecordCodec.Keys(System.Runtime.InteropServices.MemoryMarshal.AsBytes<ulong>(bare))
                );
            });
        Assert.Empty(RecordCodec.References(Array.Empty<byte>()));
        Assert.Empty(RecordCodec.References(Array.Empty<Zendle.Core.Records.Reference>()));
        Assert.Equal("", RecordCodec.Source(RecordCodec.Source((System.Xml.Linq.XElement?)null)));
        Assert.Equal(
            "<a>é &lt; ü</a>",
            RecordCodec.Source(RecordCodec.Source(System.Xml.Linq.XElement.Parse("<a>é &lt; ü</a>")))
        );
    }

    [Fact]
    public void What_an_older_store_compressed_is_read_too() =>
        Gen.String[0, 400]
            .Sample(xml =>
            {
                // As it was written before: Brotli, quality 1, window 16.
                var plain = System.Text.Encoding.UTF8.GetBytes(xml);
                var room = new byte[System.IO.Compression.BrotliEncoder.GetMaxCompressedLength(plain.Length)];
                Assert.True(System.IO.Compression.BrotliEncoder.TryCompress(plain, room, out var length, 1, 16));
                Assert.Equal(System.Text.Encoding.UTF8.GetString(plain), RecordCodec.Source(room[..length]));
                // A record that was kept so and comes again is the same record.
                Assert.True(RecordCodec.IsSameSource(room[..length], RecordCodec.Source(xml)));
                Assert.False(RecordCodec.IsSameSource(room[..length], RecordCodec.Source(xml + "x")));
            });
}
