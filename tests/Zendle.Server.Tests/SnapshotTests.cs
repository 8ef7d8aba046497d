using Microsoft.Extensions.DependencyInjection;
using Zendle.Server.Corpus;
using Zendle.Server.Features.Search;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>A request holds sets against each other; all of them are of one moment, whatever is harvested meanwhile.</summary>
public sealed class SnapshotTests
{
    [Fact]
    public async Task What_is_asked_of_an_older_moment_fits_it_in_every_set()
    {
        await using var outside = await OutsideHost.Start(works: 300, seed: 4);
        await using var host = new ZendleHost(outside.Address.ToString(), false);
        var ann = await host.Curator();
        await ann.Harvest(outside.Oai("lifeleaf"));
        var review = await ann.Review();
        var works = await ann.Works(review, await ann.Search(review, "light OR moth*"));
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = works[..3] });
        using var before = host.Services.GetRequiredService<CorpusService>().Snapshot();

        await ann.Harvest(outside.Oai("farnet"));

        var search = host.Services.GetRequiredService<SearchService>();
        using var now = (await search.View(review, 0))!;
        using var then = (await search.View(review, 0, before))!;
        Assert.True(now.Snapshot.Columns.WorkSize > before.Columns.WorkSize);
        foreach (var view in new[] { now, then })
        {
            var size = view.Snapshot.Columns.WorkSize;
            Assert.Equal((size, size, size), (view.Facts.Kept.Size, view.Facts.SetAside.Size, view.Answer.InView.Size));
            Assert.Equal(works[..3].Order(), view.Facts.Kept.Members());
        }
        Assert.Same(before, then.Snapshot);
    }

    [Fact]
    public async Task A_snapshot_that_nobody_uses_any_more_cannot_be_shared()
    {
        await using var outside = await OutsideHost.Start(works: 60, seed: 4);
        await using var host = new ZendleHost(outside.Address.ToString(), false);
        var ann = await host.Curator();
        await ann.Harvest(outside.Oai("lifeleaf"));
        var corpus = host.Services.GetRequiredService<CorpusService>();
        var old = corpus.Snapshot();
        await ann.Harvest(outside.Oai("farnet"));
        old.Dispose();
        Assert.Throws<ObjectDisposedException>(old.Share);
    }
}
