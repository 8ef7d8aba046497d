using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Zendle.Store.Corpus;

namespace Zendle.Server.Tests;

/// <summary>
/// Runs of keys on a real SQLite file find what a plain table of pairs finds, however much was added, taken away and
/// merged.
/// </summary>
public sealed class KeyRunsTests : IAsyncLifetime
{
    private readonly SmallStore store = new();

    public async ValueTask InitializeAsync() => await store.Open();

    public ValueTask DisposeAsync() => store.DisposeAsync();

    private async Task<T> In<T>(Func<SqlSession, T> act, bool commit = true)
    {
        await using var context = store.Context();
        await context.Database.OpenConnectionAsync();
        await using var transaction = ((SqliteConnection)context.Database.GetDbConnection()).BeginTransaction();
        using var sql = new SqlSession((SqliteConnection)context.Database.GetDbConnection(), transaction);
        var result = act(sql);
        if (commit)
            await transaction.CommitAsync();
        return result;
    }

    private Task<int> Append(KeyRuns runs, params KeyChange[] changes) =>
        In(sql =>
        {
            runs.Append(sql, [.. changes]);
            return 0;
        });

    private Task<string> Find(KeyRuns runs, long key, params int[] pending) =>
        In(sql => string.Join(',', runs.Find(sql, key, pending).Order()));

    [Fact]
    public async Task A_key_is_found_with_what_came_left_and_is_not_written_yet()
    {
        var runs = new KeyRuns();
        await Append(runs, new(5, 1), new(5, 2), new(-7, 3), new(long.MaxValue, 4));
        await Append(runs, new(5, -1), new(5, 9));
        Assert.Equal("2,9", await Find(runs, 5));
        Assert.Equal("2,10", await Find(runs, 5, 10, -9));
        Assert.Equal("3", await Find(runs, -7));
        Assert.Equal("4", await Find(runs, long.MaxValue));
        Assert.Equal("", await Find(runs, 6));
        await Append(runs, new KeyChange(5, 1)); // it comes back
        Assert.Equal("1,2,9", await Find(new(), 5)); // as one who has just started reads it
    }

    [Fact]
    public async Task A_transaction_that_is_not_committed_leaves_nothing()
    {
        var runs = new KeyRuns();
        await Append(runs, new KeyChange(5, 1));
        await In(
            sql =>
            {
                runs.Append(sql, [new(5, 2)]);
                return 0;
            },
            commit: false
        );
        runs.Forget();
        Assert.Equal("1", await Find(runs, 5));
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public async Task Random_changes_are_found_as_in_a_plain_table_through_every_merge(int seed)
    {
        var (random, plain, runs) = (new Random(seed), new Dictionary<long, HashSet<int>>(), new KeyRuns());
        long Key() => (long)(random.Next(60) - 30) << 40 | 7;
        // Fifty runs are merged on two levels; one key fills several parts.
        for (var page = 0; page < 50; page++)
        {
            var changes = new List<KeyChange>();
            for (var i = 0; i < 200; i++)
            {
                var (key, record) = (i % 4 == 0 ? 7 : Key(), random.Next(1, 4_000));
                if (!plain.TryGetValue(key, out var there))
                    plain[key] = there = [];
                if (changes.Exists(c => c.Key == key && Math.Abs(c.Record) == record))
                    continue;
                changes.Add(new(key, there.Add(record) ? record : -record));
                if (changes[^1].Record < 0)
                    there.Remove(record);
            }
            await Append(runs, [.. changes]);
        }
        foreach (var read in new[] { runs, new KeyRuns() })
        foreach (var (key, there) in plain)
            Assert.Equal(string.Join(',', there.Order()), await Find(read, key));
        await using var context = store.Context();
        var written = await context.KeyParts.ToListAsync();
        Assert.InRange(written.Select(p => p.Run).Distinct().Count(), 2, 12);
    }

    [Fact]
    public async Task Runs_that_were_found_in_the_store_answer_alike_before_and_after_they_are_given_filters()
    {
        await Append(new(), [.. Enumerable.Range(0, 3_000).Select(i => new KeyChange(i * 1_000_003L, i + 1))]);
        await Append(new(), [.. Enumerable.Range(0, 10).Select(i => new KeyChange(-1 - i, 9_000 + i))]);
        var later = new KeyRuns();
        // The first run has three parts: after a dozen questions it is given a filter, which may say "perhaps" of a few
        // more, and never "no" of one that is there.
        for (var round = 0; round < 5; round++)
        {
            foreach (var there in new[] { 0L, 1_000_003L, 2_999 * 1_000_003L, -1, -10 })
                Assert.True(await In(sql => later.MayHave(sql, there)), $"{there} in round {round}");
            Assert.InRange(
                await In(sql => Enumerable.Range(0, 400).Count(i => later.MayHave(sql, i * 1_000_003L + 1))),
                0,
                20
            );
            Assert.Equal("2", await Find(later, 1_000_003L));
            Assert.Equal("9003", await Find(later, -4));
        }
        // What comes next is numbered behind what was found.
        await Append(later, new KeyChange(5, 77));
        Assert.Equal("77", await Find(new(), 5));
        Assert.Equal("2", await Find(new(), 1_000_003L));
    }
}
