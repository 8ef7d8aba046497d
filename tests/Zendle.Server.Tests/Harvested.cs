using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A Zendle with two harvested databases, and its curator; shared by the tests of one class. The outside behind it is
/// the one of other classes, too: its clock stays as it is.
/// </summary>
public sealed class Harvested : IAsyncLifetime
{
    public OutsideHost Outside { get; private set; } = null!;

    public ZendleHost Host { get; private set; } = null!;

    public Visitor Ann { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        var world = await HarvestedOnce.Of(works: 500, seed: 3);
        (Outside, Host) = (world.Outside, world.Copy());
        Ann = await Host.SignedIn();
    }

    public ValueTask DisposeAsync() => Host.DisposeAsync();
}

/// <summary>The same with an outside of its own, whose clock the tests of the class may move.</summary>
public sealed class HarvestedWithItsOutside : IAsyncLifetime
{
    public OutsideHost Outside { get; private set; } = null!;

    public ZendleHost Host { get; private set; } = null!;

    public Visitor Ann { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Outside = await OutsideHost.Start();
        Host = new(Outside.Address.ToString());
        Ann = await Host.Curator();
        await Ann.HarvestTwo(Outside);
    }

    public async ValueTask DisposeAsync()
    {
        await Host.DisposeAsync();
        await Outside.DisposeAsync();
    }
}
