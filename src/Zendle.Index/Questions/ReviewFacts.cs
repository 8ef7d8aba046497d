using Zendle.Core.Reviews;
using Zendle.Core.Sets;

namespace Zendle.Index.Questions;

/// <summary>What a review says of works, as far as questions ask for it: stages and tags.</summary>
public sealed class ReviewFacts
{
    private readonly Dictionary<string, BitSet> tags = new(StringComparer.OrdinalIgnoreCase);
    private readonly BitSet kept,
        aside;
    private static long made;

    /// <summary>Reads them off a fold.</summary>
    /// <param name="fold">The review's decisions.</param>
    /// <param name="size">Work ids are below this.</param>
    /// <param name="isThere">Whether a work is in the corpus; null when all are.</param>
    public ReviewFacts(DecisionFold fold, int size, Func<int, bool>? isThere = null)
    {
        Version = Interlocked.Increment(ref made);
        (kept, aside) = (new(size), new(size));
        var gone = new List<int>();
        foreach (var (work, judgement) in fold.Judgements)
        {
            if ((uint)work >= (uint)size || work == 0 || isThere?.Invoke(work) == false)
            {
                if (judgement.Stage == Stage.Kept)
                    gone.Add(work);
                continue;
            }
            if (judgement.Stage == Stage.Kept)
                kept.Add(work);
            if (judgement.Stage == Stage.SetAside)
                aside.Add(work);
            foreach (var tag in judgement.Tags)
            {
                if (!tags.TryGetValue(tag, out var set))
                    tags[tag] = set = new(size);
                set.Add(work);
            }
        }
        KeptButGone = gone;
    }

    /// <summary>
    /// Kept works that are in no database any more; not among <see cref="Kept"/>, for nothing can be shown of them.
    /// </summary>
    public IReadOnlyList<int> KeptButGone { get; }

    /// <summary>Differs between any two readings.</summary>
    public long Version { get; }

    /// <summary>Kept works. Not to be changed.</summary>
    public BitSet Kept => kept;

    /// <summary>Works set aside. Not to be changed.</summary>
    public BitSet SetAside => aside;

    /// <summary>Tags with their works.</summary>
    public IReadOnlyDictionary<string, BitSet> Tags => tags;
}
