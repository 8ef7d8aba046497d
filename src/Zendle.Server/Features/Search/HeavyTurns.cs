using System.Collections.Concurrent;
using System.Runtime.CompilerServices;

namespace Zendle.Server.Features.Search;

/// <summary>
/// Lets each person have two heavy requests at once; a few more wait for their turn, and the rest are told to come
/// later.
/// </summary>
internal sealed class HeavyTurns
{
    private const int AtOnce = 2,
        MostWaiting = 8;
    private readonly ConcurrentDictionary<string, (SemaphoreSlim Turns, StrongBox<int> Waiting)> people = new(
        StringComparer.Ordinal
    );

    /// <summary>Waits for a turn of a person.</summary>
    /// <returns>What ends the turn.</returns>
    /// <exception cref="TooManyHeavyException">Too many of theirs wait already.</exception>
    public IDisposable Take(string account, CancellationToken cancel)
    {
        var person = people.GetOrAdd(account, _ => (new(AtOnce, AtOnce), new()));
        if (Interlocked.Increment(ref person.Waiting.Value) > MostWaiting)
        {
            Interlocked.Decrement(ref person.Waiting.Value);
            throw new TooManyHeavyException();
        }
        try
        {
            person.Turns.Wait(cancel);
        }
        finally
        {
            Interlocked.Decrement(ref person.Waiting.Value);
        }
        return new Turn(person.Turns);
    }

    private sealed class Turn(SemaphoreSlim turns) : IDisposable
    {
        private int isEnded;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref isEnded, 1) == 0)
                turns.Release();
        }
    }
}

/// <summary>A person asks too much at once.</summary>
internal sealed class TooManyHeavyException() : Exception("Several of your searches are still running.");
