using Zendle.Core.Reviews;
using Zendle.Core.Sets;

namespace Zendle.Index.Questions;

/// <summary>What a review says of works, as far as questions ask for it: stages and tags.</summary>
public sealed class ReviewFacts
{
    private readonly Dictionary<string, BitSet> tags = new(StringComparer.OrdinalIgnoreCase);
    private readonly BitSet kept, aside;

    /// <summary>Reads them off a fold.</summary>
    /// <param name="fold">The review's decisions.</param>
    /// <param name="size">Work ids are below this.</param>
    public ReviewFacts(DecisionFold fold, int size)
    {
        Version = fold.LastSequence;
        (kept, aside) = (new(size), new(size));
        foreach (var (work, judgement) in fold.Judgements)
        {
            if ((uint)work >= (uint)size || work == 0) continue;
            if (judgement.Stage == Stage.Kept) kept.Add(work);
            if (judgement.Stage == Stage.SetAside) aside.Add(work);
            foreach (var tag in judgement.Tags)
            {
                if (!tags.TryGetValue(tag, out var set)) tags[tag] = set = new(size);
                set.Add(work);
            }
        }
    }

    /// <summary>Changes with every decision.</summary>
    public long Version { get; }

    /// <summary>Kept works. Not to be changed.</summary>
    public BitSet Kept => kept;

    /// <summary>Works set aside. Not to be changed.</summary>
    public BitSet SetAside => aside;

    /// <summary>Tags with their works.</summary>
    public IReadOnlyDictionary<string, BitSet> Tags => tags;
}
