namespace Zendle.Tests.Shared;

/// <summary>
/// An outside and a data folder harvested from it (farnet, and meridian as the trusted one; the curator is ann), made
/// once a run for all classes of tests that name the same world: each works on a copy of the folder. The outside is one
/// for all of them, so nobody moves its clock.
/// </summary>
public sealed class HarvestedOnce
{
    private static readonly System.Collections.Concurrent.ConcurrentDictionary<
        (int Works, int Seed),
        Lazy<Task<HarvestedOnce>>
    > Worlds = new();
    private readonly string folder;

    private HarvestedOnce(OutsideHost outside, string folder) => (Outside, this.folder) = (outside, folder);

    public OutsideHost Outside { get; }

    /// <summary>The world of so many works; whoever asks first waits until it is made and harvested.</summary>
    public static Task<HarvestedOnce> Of(int works, int seed) =>
        Worlds.GetOrAdd((works, seed), world => new(() => Make(world.Works, world.Seed))).Value;

    /// <summary>A Zendle over a copy of the folder.</summary>
    public ZendleHost Copy() => ZendleHost.OverACopy(folder, Outside.Address.ToString());

    private static async Task<HarvestedOnce> Make(int works, int seed)
    {
        var outside = await OutsideHost.Start(works, seed);
        var host = new ZendleHost(outside.Address.ToString());
        var ann = await host.Curator();
        await ann.HarvestTwo(outside);
        var folder = await host.Left();
        AppDomain.CurrentDomain.ProcessExit += (_, _) => ZendleHost.Remove(folder);
        return new(outside, folder);
    }
}
