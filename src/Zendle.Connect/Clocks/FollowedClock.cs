using System.Globalization;
using Zendle.Connect.Fetch;

namespace Zendle.Connect.Clocks;

/// <summary>
/// The clock that schedules follow: the system's, or in the demo that of the simulated outside, which can be moved on so
/// that nights pass at once. While that cannot be asked, it is taken to go on as it did when it was asked last.
/// </summary>
public sealed class FollowedClock : IDisposable
{
    private const int MostBytes = 64;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);
    private readonly TimeProvider own;
    private readonly HttpClient? http;
    private readonly Uri? address;
    private TimeSpan ahead;

    /// <summary>Follows a clock.</summary>
    /// <param name="own">The system's clock.</param>
    /// <param name="outside">Address of the simulated outside; null to follow the system's clock.</param>
    /// <param name="policy">What may be asked.</param>
    public FollowedClock(TimeProvider own, Uri? outside, AddressPolicy policy)
    {
        this.own = own;
        if (outside is null)
            return;
        (address, http) = (new(outside, "/clock"), OutsideHttp.Client(policy, "clock"));
        http.MaxResponseContentBufferSize = MostBytes;
    }

    /// <summary>Whether it may be moved on, and so is worth asking often.</summary>
    public bool IsMoved => address is not null;

    /// <summary>What time it is, UTC.</summary>
    public async Task<DateTimeOffset> Now(CancellationToken cancel)
    {
        if (http is null)
            return own.GetUtcNow();
        try
        {
            using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            patience.CancelAfter(Patience);
            var text = await http.GetStringAsync(address, patience.Token);
            if (
                DateTimeOffset.TryParse(
                    text,
                    CultureInfo.InvariantCulture,
                    DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal,
                    out var told
                )
            )
                ahead = told - own.GetUtcNow();
        }
        catch (Exception e)
            when (e is HttpRequestException or IOException
                || e is OperationCanceledException && !cancel.IsCancellationRequested
            ) { }
        return own.GetUtcNow() + ahead;
    }

    /// <summary>What day it is, UTC.</summary>
    public async Task<DateOnly> Today(CancellationToken cancel) =>
        DateOnly.FromDateTime((await Now(cancel)).UtcDateTime);

    /// <inheritdoc/>
    public void Dispose() => http?.Dispose();
}
