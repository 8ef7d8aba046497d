namespace Zendle.Tests.Shared;

/// <summary>A Zendle and its curator beside a service that behaves as it is told; each test has its own.</summary>
public abstract class OddHost : IAsyncLifetime
{
    private protected OddService odd = null!;
    private protected ZendleHost host = null!;
    private protected Visitor ann = null!;

    public virtual async ValueTask InitializeAsync()
    {
        odd = await OddService.Start();
        host = new(odd.Root);
        ann = await host.Curator();
    }

    public async ValueTask DisposeAsync()
    {
        await host.DisposeAsync();
        await odd.DisposeAsync();
        GC.SuppressFinalize(this);
    }
}
