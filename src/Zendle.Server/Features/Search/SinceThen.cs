using Zendle.Core.Sets;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Search;

/// <summary>What a set has become since its works were written down.</summary>
internal sealed class SinceThen(CorpusReader reader)
{
    /// <summary>Holds a set against the works it had. O(works).</summary>
    /// <param name="now">The set today.</param>
    /// <param name="then">Ids of the works it had; those merged since stand for what they were merged into.</param>
    /// <returns>The works it had, as they are numbered today; those that came, ascending; and how many went.</returns>
    public async Task<(IReadOnlySet<int> Then, int[] Came, int Gone)> Of(WorkSet now, int[] then)
    {
        var redirects = await reader.Redirects(then, CancellationToken.None);
        HashSet<int> today = [.. then.Select(w => redirects.GetValueOrDefault(w, w))];
        return (today, [.. now.Members().Where(w => !today.Contains(w))], today.Count(w => !now.Contains(w)));
    }
}
