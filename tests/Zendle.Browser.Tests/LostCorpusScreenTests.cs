using OpenQA.Selenium;
using Zendle.Tests.Shared;

namespace Zendle.Browser.Tests;

/// <summary>
/// A researcher whose harvested records were lost is told so, sees which kept works are not found, and sees them come
/// back.
/// </summary>
public sealed class LostCorpusScreenTests : IAsyncLifetime
{
    private OutsideHost outside = null!;
    private ZendleHost host = null!;
    private Visitor ann = null!;

    public async ValueTask InitializeAsync()
    {
        outside = await OutsideHost.Start(works: 400, seed: 6);
        host = new(outside.Address.ToString());
        ann = await host.Curator();
        await ann.Harvest(outside.Oai("meridian"), trusted: true);
        var review = await ann.Review("Lamps and moths");
        var works = await ann.Works(review, await ann.Search(review, "light OR moth*"));
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = works[..6] });
        host = host.Restarted(() =>
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            foreach (var file in Directory.GetFiles(host.Data, "corpus.db*"))
                File.Delete(file);
        });
        ann = await (await host.Served()).SignedIn();
    }

    public async ValueTask DisposeAsync()
    {
        await host.DisposeAsync();
        await outside.DisposeAsync();
    }

    [Fact]
    public async Task What_was_lost_is_said_and_comes_back_before_ones_eyes()
    {
        using var b = new Browser(host.ClientOptions.BaseAddress);
        b.SignIn("ann", ZendleHost.Password);
        b.Sees("The file corpus.db was missing");
        b.Sees(outside.Oai("meridian"));
        b.Until(() => b.TextOf("header").Contains("6 not found", StringComparison.Ordinal), "six not found");
        Assert.Empty(b.AxeFindings());
        b.Look("lost");
        b.Click("6 not found");
        b.Sees("Kept, but in no database now");
        b.Until(() => b.All("[role=dialog] li").Count == 6, "six works with their titles");
        Assert.Empty(b.AxeFindings());
        b.Look("lost-sheet");
        b.Press(Keys.Escape);
        b.Size(1024, 768);
        b.Look("lost-1024");
        b.Size(1280, 800);
        await ann.Harvest(outside.Oai("meridian"), trusted: true);
        // The page is told; nothing has to be loaded again.
        b.Until(
            () =>
                b.TextOf("header") is var t
                && t.Contains("6 kept", StringComparison.Ordinal)
                && !t.Contains("not found", StringComparison.Ordinal),
            "six kept"
        );
        b.Click("I have read it");
        b.Until(
            () => b.All("[role=status]").All(s => !s.Text.Contains("corpus.db", StringComparison.Ordinal)),
            "nothing more to be told"
        );
        b.Look("lost-after");
        Assert.Empty(b.Complaints());
    }
}
