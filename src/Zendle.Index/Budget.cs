using System.Diagnostics;

namespace Zendle.Index;

/// <summary>
/// What one request may cost: so much time, as long as somebody waits for it. Every evaluation looks at the budget of
/// the request it works for (<see cref="Current"/>), so that none goes on when the request is over, however deep it is
/// in postings; see docs/decisions/0013.
/// </summary>
public sealed class Budget : IDisposable
{
    private static readonly AsyncLocal<Budget?> Ambient = new();

    private readonly Stopwatch watch = Stopwatch.StartNew();
    private readonly Lock gate = new();
    private readonly TimeSpan time,
        light;
    private readonly CancellationToken cancel;
    private readonly Func<CancellationToken, IDisposable>? takeTurn;
    private IDisposable? turn;
    private long held;
    private bool isTaken;

    /// <summary>Makes a budget.</summary>
    /// <param name="time">After so long evaluation is given up.</param>
    /// <param name="cancel">Is set when nobody waits any more.</param>
    /// <param name="light">After so long the request counts as a heavy one and needs a turn.</param>
    /// <param name="takeTurn">Waits for a turn among heavy requests and gives what ends it; null when there are none to
    /// be had.</param>
    public Budget(
        TimeSpan time,
        CancellationToken cancel,
        TimeSpan light = default,
        Func<CancellationToken, IDisposable>? takeTurn = null
    ) => (this.time, this.cancel, this.light, this.takeTurn) = (time, cancel, light, takeTurn);

    /// <summary>Most numbers that positions of words may take in one request, 8 bytes each: 32 million words.</summary>
    public static long MostPositions { get; } = 32_000_000;

    /// <summary>The budget of the request under way; one without end outside requests.</summary>
    public static Budget Current => Ambient.Value ?? Endless;

    private static Budget Endless { get; } = new(Timeout.InfiniteTimeSpan, CancellationToken.None);

    /// <summary>Makes this the budget of all that is called from here on.</summary>
    public void Begin() => Ambient.Value = this;

    /// <summary>Looks whether to go on. Cheap, but not for every posting: see <see cref="Every"/>.</summary>
    /// <exception cref="OperationCanceledException">Nobody waits any more.</exception>
    /// <exception cref="BudgetSpentException">It has taken too long.</exception>
    public void Check()
    {
        cancel.ThrowIfCancellationRequested();
        if (time == Timeout.InfiniteTimeSpan)
            return;
        var spent = watch.Elapsed;
        if (spent > time)
            throw new BudgetSpentException("This search takes longer than one search may.");
        if (takeTurn is null || isTaken || spent <= light)
            return;
        lock (gate)
        {
            if (isTaken)
                return;
            turn = takeTurn(cancel);
            isTaken = true;
        }
    }

    /// <summary>Looks whether to go on at every 1,024th call.</summary>
    /// <param name="count">Counts the calls.</param>
    public void Every(ref int count)
    {
        if ((++count & 1023) == 0)
            Check();
    }

    /// <summary>Notes that positions of words are held in memory.</summary>
    /// <param name="positions">How many.</param>
    /// <exception cref="BudgetSpentException">They are too many.</exception>
    public void Hold(int positions)
    {
        if (time == Timeout.InfiniteTimeSpan)
            return;
        if (Interlocked.Add(ref held, positions) > MostPositions)
            throw new BudgetSpentException(
                "The words of this search occur in too many places to compare where they stand."
            );
        Check();
    }

    /// <summary>Ends the turn, if one was taken.</summary>
    public void Dispose()
    {
        lock (gate)
        {
            isTaken = true;
            turn?.Dispose();
            turn = null;
        }
    }
}

/// <summary>A question asks for more than one question may cost; the message is a sentence for a person.</summary>
/// <param name="sentence">What it asks too much of.</param>
public sealed class BudgetSpentException(string sentence) : Exception(sentence);
