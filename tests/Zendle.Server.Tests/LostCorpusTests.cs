using Microsoft.Data.Sqlite;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// When corpus.db is lost, or another's is put in its place, decisions never move to other works: they wait until their
/// works come back by identifier, DOI or title.
/// </summary>
public sealed class LostCorpusTests : IAsyncLifetime
{
    private OutsideHost outside = null!;

    public async ValueTask InitializeAsync() => outside = await OutsideHost.Start(works: 400, seed: 6);

    public async ValueTask DisposeAsync() => await outside.DisposeAsync();

    /// <summary>Titles of the kept works, and of those that are listed as not found.</summary>
    private static async Task<(string[] Kept, string[] NotFound)> Stand(Visitor visitor, int review)
    {
        var step = await visitor.Search(review, "stage:kept");
        var kept = (await visitor.Get($"/api/reviews/{review}/steps/{step}/works?limit=200"))
            .List("works")
            .Select(w => w["title"]!["text"]!.GetValue<string>());
        return (
            [.. kept.Order()],
            [.. (await visitor.Get($"/api/reviews/{review}/not-found")).AsArray().Select(w => w!.Text("title")).Order()]
        );
    }

    private static bool Alike(string was, string now)
    {
        static HashSet<string> Of(string title) =>
            [.. title.ToLowerInvariant().Split([' ', ':', ',', '?', '-'], StringSplitOptions.RemoveEmptyEntries)];
        var (a, b) = (Of(was), Of(now));
        return a.Count(b.Contains) >= 0.6 * Math.Min(a.Count, b.Count);
    }

    private static void Lose(string data)
    {
        SqliteConnection.ClearAllPools();
        foreach (var file in Directory.GetFiles(data, "corpus.db*"))
            File.Delete(file);
    }

    /// <summary>Two databases, a review, and the works of its question.</summary>
    private async Task<(ZendleHost Host, Visitor Ann, int Review, int[] Works)> Harvested()
    {
        var host = new ZendleHost(outside.Address.ToString());
        var ann = await host.Curator();
        await ann.HarvestTwo(outside);
        var review = await ann.Review();
        return (host, ann, review, await ann.Works(review, await ann.Search(review, "light OR moth* OR night")));
    }

    [Fact]
    public async Task Decisions_find_their_works_again_though_the_databases_come_in_another_order()
    {
        var (host, ann, review, all) = await Harvested();
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = all[..20] });
        await ann.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new
            {
                act = "Tag",
                works = all[..5],
                value = "anchor",
            }
        );
        await ann.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new
            {
                act = "SetAside",
                works = all[20..25],
                value = "another field",
            }
        );
        var trail = await ann.Step(
            review,
            0,
            new
            {
                kind = "Trail",
                seeds = all[..3],
                way = "Backward",
            }
        );
        var (keptBefore, _) = await Stand(ann, review);
        var trailBefore = (await ann.Works(review, trail)).Length;
        Assert.Equal(20, keptBefore.Length);

        host = host.Restarted(() => Lose(host.Data));
        ann = await host.SignedIn();
        // Said to everyone, with what to do; nothing is kept that is not there, and nothing is forgotten.
        var said = (await ann.Get("/api/me"))["announcement"]!.Text("text");
        Assert.Contains("corpus.db was missing", said, StringComparison.Ordinal);
        Assert.Contains(outside.Oai("farnet"), said, StringComparison.Ordinal);
        var (none, lost) = await Stand(ann, review);
        Assert.Empty(none);
        Assert.Equal(keptBefore, lost);
        Assert.Equal(
            (0, 20),
            (
                (await ann.Get($"/api/reviews/{review}")).Int("kept"),
                (await ann.Get($"/api/reviews/{review}")).Int("notFound")
            )
        );

        // The other way round: what was first is second now.
        await ann.Harvest(outside.Oai("meridian"), trusted: true);
        var (some, still) = await Stand(ann, review);
        Assert.Equal(20, some.Length + still.Length);
        Assert.NotEmpty(some);
        await ann.Harvest(outside.Oai("farnet"));
        var (kept, rest) = await Stand(ann, review);
        // The other database speaks first now, and may spell a title otherwise.
        Assert.Equal(20, kept.Length);
        Assert.All(keptBefore, was => Assert.Contains(kept, now => Alike(was, now)));
        Assert.Empty(rest);
        Assert.Equal(5, await ann.Count(review, await ann.Search(review, "tag:anchor")));
        Assert.Equal(5, await ann.Count(review, await ann.Search(review, "stage:\"set aside\"")));
        Assert.Equal(trailBefore, (await ann.Works(review, trail)).Length);
        // Databases have the numbers they had, so that steps that chose them mean the same.
        Assert.Equal(
            ["farnet", "meridian"],
            (await ann.Get("/api/databases"))
                .List("databases")
                .OrderBy(d => d.Int("id"))
                .Select(d => new Uri(d.Text("address")).AbsolutePath.Split('/')[1])
        );
        // No number was given again.
        var today = await ann.Works(review, await ann.Search(review, "light OR moth* OR night"));
        Assert.Empty(today.Intersect(all));
        Assert.Equal(0, (await ann.Send("POST", "/api/announcement/put-away")).Status - 204);
        Assert.Null((await ann.Get("/api/me"))["announcement"]);
        await host.DisposeAsync();
    }

    [Fact]
    public async Task Seeds_and_written_lists_that_nobody_kept_mean_the_same_works_again()
    {
        var (host, ann, review, all) = await Harvested();
        var trail = await ann.Step(
            review,
            0,
            new
            {
                kind = "Trail",
                seeds = all[..4],
                way = "Both",
            }
        );
        var listed = await ann.Step(review, 0, new { kind = "Search", expression = "light OR moth* OR night" });
        var among = await ann.Step(
            review,
            listed,
            new
            {
                kind = "Among",
                works = all[10..17],
                said = "seven of them",
            }
        );
        var compared = await ann.Step(
            review,
            listed,
            new
            {
                kind = "Compare",
                other = new object[] { new { kind = "Trail", seeds = all[..4] } },
                apart = true,
                said = "not in the trail",
            }
        );
        async Task<string[]> Titles(int step) =>
            [
                .. (await ann.Get($"/api/reviews/{review}/steps/{step}/works?limit=200"))
                    .List("works")
                    .Select(w => w["title"]!["text"]!.GetValue<string>())
                    .Order(),
            ];
        var before = (await Titles(trail), await Titles(among), await ann.Count(review, compared));
        Assert.Equal(7, before.Item2.Length);
        host = host.Restarted(() => Lose(host.Data));
        ann = await host.SignedIn();
        await ann.Harvest(outside.Oai("meridian"), trusted: true);
        await ann.Harvest(outside.Oai("farnet"));
        var after = (await Titles(trail), await Titles(among), await ann.Count(review, compared));
        Assert.Equal(before.Item1, after.Item1);
        Assert.Equal(before.Item2, after.Item2);
        Assert.Equal(before.Item3, after.Item3);
        await host.DisposeAsync();
    }

    [Fact]
    public async Task A_work_that_only_another_database_holds_now_is_found_by_doi_or_title_and_one_that_none_holds_stays_listed()
    {
        var host = new ZendleHost(outside.Address.ToString());
        var ann = await host.Curator();
        await ann.Harvest(outside.Oai("meridian"), trusted: true);
        var review = await ann.Review();
        var all = await ann.Works(review, await ann.Search(review, "light OR moth* OR night"));
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = all });
        var (keptBefore, _) = await Stand(ann, review);
        host = host.Restarted(() => Lose(host.Data));
        ann = await host.SignedIn();
        await ann.Harvest(outside.Oai("farnet"));
        var (kept, lost) = await Stand(ann, review);
        Assert.NotEmpty(kept);
        Assert.Equal(all.Length, kept.Length + lost.Length);
        // The other database spells some titles its own way; most are the same, and none is a title that was not kept.
        Assert.True(
            kept.Count(t => keptBefore.Contains(t, StringComparer.OrdinalIgnoreCase)) * 10 >= kept.Length * 7,
            string.Join('\n', kept.Except(keptBefore))
        );
        await host.DisposeAsync();
    }

    [Fact]
    public async Task Another_installations_corpus_is_set_aside()
    {
        var other = new ZendleHost(outside.Address.ToString());
        await (await other.Curator()).Harvest(outside.Oai("meridian"), trusted: true);
        var host = new ZendleHost(outside.Address.ToString());
        var ann = await host.Curator();
        await ann.Harvest(outside.Oai("farnet"));
        var review = await ann.Review();
        var all = await ann.Works(review, await ann.Search(review, "moth*"));
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = all[..4] });
        var (keptBefore, _) = await Stand(ann, review);
        using var foreign = other.Restarted();
        host = host.Restarted(() =>
        {
            Lose(host.Data);
            File.Copy(Path.Combine(foreign.Data, "corpus.db"), Path.Combine(host.Data, "corpus.db"));
        });
        ann = await host.SignedIn();
        Assert.Contains(
            "set aside as corpus-set-aside-1.db",
            (await ann.Get("/api/me"))["announcement"]!.Text("text"),
            StringComparison.Ordinal
        );
        Assert.True(File.Exists(Path.Combine(host.Data, "corpus-set-aside-1.db")));
        Assert.Equal(keptBefore, (await Stand(ann, review)).NotFound);
        await ann.Harvest(outside.Oai("farnet"));
        Assert.Equal(keptBefore, (await Stand(ann, review)).Kept);
        await host.DisposeAsync();
    }

    [Fact]
    public async Task An_older_copy_of_the_corpus_gives_no_number_again()
    {
        var host = new ZendleHost(outside.Address.ToString());
        var ann = await host.Curator();
        await ann.Harvest(outside.Oai("farnet"));
        host = host.Restarted(() =>
        {
            SqliteConnection.ClearAllPools();
            File.Copy(Path.Combine(host.Data, "corpus.db"), Path.Combine(host.Data, "older"));
        });
        ann = await host.SignedIn();
        await ann.Harvest(outside.Oai("meridian"), trusted: true);
        var review = await ann.Review();
        var young = (
            await ann.Works(review, await ann.Search(review, "database:meridian AND (light OR moth* OR night)"))
        ).Max();
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = new[] { young } });
        var (keptBefore, _) = await Stand(ann, review);
        host = host.Restarted(() =>
        {
            Lose(host.Data);
            File.Move(Path.Combine(host.Data, "older"), Path.Combine(host.Data, "corpus.db"));
        });
        ann = await host.SignedIn();
        Assert.Equal(keptBefore, (await Stand(ann, review)).NotFound);
        await ann.Harvest(outside.Oai("harbour"));
        await ann.Harvest(outside.Oai("meridian"), trusted: true);
        Assert.Equal(keptBefore, (await Stand(ann, review)).Kept);
        await host.DisposeAsync();
    }
}
