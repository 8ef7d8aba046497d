using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A Zendle with two harvested databases, its curator and an outside of its own; shared by the tests of one class.
/// </summary>
public sealed class Harvested : IAsyncLifetime
{
    public OutsideHost Outside { get; private set; } = null!;

    public ZendleHost Host { get; private set; } = null!;

    public Visitor Ann { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Outside = await OutsideHost.Start();
        Host = new(Outside.Address.ToString());
        Ann = await Host.Curator();
        await Ann.Harvest(Outside.Oai("farnet"));
        await Ann.Harvest(Outside.Oai("meridian"), trusted: true);
    }

    public async ValueTask DisposeAsync()
    {
        await Host.DisposeAsync();
        await Outside.DisposeAsync();
    }
}
