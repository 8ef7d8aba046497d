using Zendle.Core.Merging;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>
/// Leads references home that no key led there, by holding their text against the works it may mean. What came out is remembered with the keys that were asked for, so
/// that a reference is looked at again only when its own record changed or a work came, changed or went under one of those keys.
/// </summary>
internal sealed class OpenReferences(CorpusReader reader)
{
    private const int MostRemembered = 3_000_000;
    private readonly Dictionary<int, (long Sequence, Dictionary<int, (ulong[] Asked, int Cited)> Places)> known = [];
    private int remembered;

    /// <summary>The ties that the text of open references gives.</summary>
    /// <param name="open">The references, by record and place in its list.</param>
    /// <param name="sequences">Change sequence of each record.</param>
    /// <param name="matcher">The works.</param>
    /// <param name="changed">Keys under which works changed; null when everything may have.</param>
    /// <param name="remember">Whether to keep what came out for the next time.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<IReadOnlyList<(int Work, byte Database, int Cited)>> Match(IReadOnlyList<(int Record, int Work, byte Database, int Place)> open, IReadOnlyDictionary<int, long> sequences, ReferenceMatcher matcher, HashSet<ulong>? changed, bool remember, CancellationToken cancel)
    {
        if (changed is null || remembered > MostRemembered) Forget();
        var again = new HashSet<int>();
        foreach (var o in open)
            if (!known.TryGetValue(o.Record, out var of) || of.Sequence != sequences[o.Record] || !of.Places.TryGetValue(o.Place, out var place) || Array.Exists(place.Asked, changed!.Contains))
                again.Add(o.Record);
        var wanted = open.Where(o => again.Contains(o.Record)).ToLookup(o => o.Record, o => o.Place);
        foreach (var chunk in again.Chunk(2_000))
            foreach (var (record, references) in await reader.ReferencesIn(chunk, cancel))
            {
                // A harvest may go on meanwhile: a record that changed since its keys were read is left to the refresh that follows it.
                var places = wanted[record].Where(p => p < references.Count).AsParallel().WithCancellation(cancel).Select(p => (Place: p, Asked: remember ? ReferenceMatcher.AskedBy(references[p]) : [], Cited: matcher.Match(references[p]).Work))
                    .Where(p => remember || p.Cited != 0).ToDictionary(p => p.Place, p => (p.Asked, p.Cited));
                known[record] = (sequences[record], places);
                remembered += places.Count;
            }
        IReadOnlyList<(int, byte, int)> ties = [.. open.Select(o => (o.Work, o.Database, Cited: known.TryGetValue(o.Record, out var of) && of.Places.TryGetValue(o.Place, out var place) ? place.Cited : 0)).Where(t => t.Cited != 0)];
        if (!remember) Forget();
        return ties;
    }

    private void Forget()
    {
        known.Clear();
        remembered = 0;
    }
}
