using OpenQA.Selenium;
using Zendle.Tests.Shared;

namespace Zendle.Browser.Tests;

/// <summary>From an empty installation to a first search, as the screens lead.</summary>
public sealed class EmptyInstallationTests : IAsyncLifetime
{
    private OutsideHost outside = null!;
    private ZendleHost host = null!;

    public async ValueTask InitializeAsync()
    {
        outside = await OutsideHost.Start(works: 200, seed: 5);
        host = new(outside.Address.ToString());
        await host.Curator();
        host = host.Restarted();
        await host.Served();
    }

    public async ValueTask DisposeAsync()
    {
        await host.DisposeAsync();
        await outside.DisposeAsync();
    }

    [Fact]
    public void It_leads_from_a_review_over_a_file_of_addresses_to_the_first_works()
    {
        using var b = new Browser(host.ClientOptions.BaseAddress);
        b.SignIn("ann", ZendleHost.Password);
        b.Sees("From here to your first search");
        Assert.Contains("Databases", b.TextOf("nav[aria-label=Stages]"), StringComparison.Ordinal);
        Assert.Empty(b.AxeFindings());
        b.Fill("form input", "Lamps and moths");
        b.Click("Begin");
        // With nothing to search yet, a database comes next.
        b.Until(() => b.Address.EndsWith("/databases", StringComparison.Ordinal), "the databases");
        b.Sees("OAI-PMH address");
        b.Click("Add several from a file");
        var file = System.IO.Path.Combine(System.IO.Path.GetTempPath(), $"addresses-{Guid.NewGuid():N}.txt");
        File.WriteAllText(
            file,
            $"# sources of our library\r\n{outside.Oai("farnet")}; far off\n\n{outside.Oai("farnet")}\n"
                + $"{new Uri(outside.Address, "/nothing/here")}\n"
        );
        b.On("input[type=file]", e => e.SendKeys(file));
        b.Until(() => b.All("[role=dialog] li").Count == 2, "each address once");
        b.Until(() => !b.TextOf("[role=dialog]").Contains("asking …", StringComparison.Ordinal), "the answers");
        Assert.Empty(b.AxeFindings());
        b.Click("Add and harvest 1");
        b.Until(() => b.TextOf("[role=dialog]").Contains("added", StringComparison.Ordinal), "it to be added");
        b.Click("Close");
        b.Until(() => b.Text.Contains("just now", StringComparison.Ordinal), "the harvest to end");
        b.Click("Search");
        b.Fill("input[role=combobox]", "moth*");
        b.Type(Keys.Enter);
        b.Until(() => b.All("article[data-work]").Count > 0, "the first works");
        File.Delete(file);
    }
}
