using Zendle.Core.Reviews;
using Zendle.Core.Sets;

namespace Zendle.Index.Questions;

/// <summary>
/// What a review says of works, as far as questions ask for it: stages and tags. Never changed: <see cref="With"/> gives
/// new facts that share the sets in which nothing moved.
/// </summary>
public sealed class ReviewFacts
{
    private static long made;
    private readonly Dictionary<string, WorkSet> tags;
    private readonly SortedSet<int> gone;
    private readonly Func<int, bool>? isThere;
    private readonly int size;

    /// <summary>Reads them off a fold. O(works decided on + <paramref name="size"/> / 64).</summary>
    /// <param name="fold">The review's decisions.</param>
    /// <param name="size">Work ids are below this.</param>
    /// <param name="isThere">Whether a work is in the corpus; null when all are.</param>
    public ReviewFacts(DecisionFold fold, int size, Func<int, bool>? isThere = null)
        : this(size, isThere, new(size), new(size), new(StringComparer.OrdinalIgnoreCase), [])
    {
        foreach (var (work, judgement) in fold.Judgements)
            Put(work, judgement);
    }

    private ReviewFacts(
        int size,
        Func<int, bool>? isThere,
        WorkSet kept,
        WorkSet aside,
        Dictionary<string, WorkSet> tags,
        SortedSet<int> gone
    )
    {
        Version = Interlocked.Increment(ref made);
        (this.size, this.isThere, Kept, SetAside, this.tags, this.gone) = (size, isThere, kept, aside, tags, gone);
    }

    /// <summary>
    /// Kept works that are in no database any more; not among <see cref="Kept"/>, for nothing can be shown of them.
    /// </summary>
    public IReadOnlyCollection<int> KeptButGone => gone;

    /// <summary>Differs between any two readings.</summary>
    public long Version { get; }

    /// <summary>The full texts that the review has gathered; null for none.</summary>
    public ITextWords? Texts { get; private set; }

    /// <summary>The same facts with the full texts of the review.</summary>
    public ReviewFacts WithTexts(ITextWords? texts)
    {
        var same = (ReviewFacts)MemberwiseClone();
        same.Texts = texts;
        return same;
    }

    /// <summary>Kept works. Not to be changed.</summary>
    public WorkSet Kept { get; }

    /// <summary>Works set aside. Not to be changed.</summary>
    public WorkSet SetAside { get; }

    /// <summary>Tags with their works.</summary>
    public IReadOnlyDictionary<string, WorkSet> Tags => tags;

    /// <summary>Bytes that the sets take, those that are shared with other facts included.</summary>
    public long Bytes => (2 + tags.Count) * (size / 8L + 64) + (gone.Count * 64L);

    /// <summary>
    /// The facts after some works were judged anew. O(works · tags + <paramref name="now"/>.Count + size / 64), however
    /// many works were decided on before.
    /// </summary>
    /// <param name="before">The judgements these facts hold.</param>
    /// <param name="now">The judgements that hold from now on.</param>
    /// <param name="works">The works in which the two differ.</param>
    public ReviewFacts With(DecisionFold before, DecisionFold now, IReadOnlyCollection<int> works)
    {
        var moved = works
            .SelectMany(w => before.Of(w).Tags.Concat(now.Of(w).Tags))
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var next = new ReviewFacts(
            size,
            isThere,
            Kept.Copy(),
            SetAside.Copy(),
            tags.ToDictionary(
                t => t.Key,
                t => moved.Contains(t.Key) ? t.Value.Copy() : t.Value,
                StringComparer.OrdinalIgnoreCase
            ),
            [.. gone]
        );
        foreach (var work in works)
        {
            next.Take(work, before.Of(work));
            next.Put(work, now.Of(work));
        }
        // A tag that no work has any more is no tag of the review.
        foreach (var tag in moved.Where(t => next.tags.TryGetValue(t, out var set) && set.IsEmpty))
            next.tags.Remove(tag);
        return next;
    }

    private bool IsThere(int work) => (uint)work < (uint)size && work != 0 && isThere?.Invoke(work) != false;

    private void Put(int work, Judgement judgement)
    {
        if (!IsThere(work))
        {
            if (judgement.Stage == Stage.Kept)
                gone.Add(work);
            return;
        }
        if (judgement.Stage == Stage.Kept)
            Kept.Add(work);
        if (judgement.Stage == Stage.SetAside)
            SetAside.Add(work);
        foreach (var tag in judgement.Tags)
        {
            if (!tags.TryGetValue(tag, out var set))
                tags[tag] = set = new(size);
            set.Add(work);
        }
    }

    private void Take(int work, Judgement judgement)
    {
        gone.Remove(work);
        if (!IsThere(work))
            return;
        Kept.Remove(work);
        SetAside.Remove(work);
        foreach (var tag in judgement.Tags)
            if (tags.TryGetValue(tag, out var set))
                set.Remove(work);
    }
}
