using System.Collections.Immutable;

namespace Zendle.Core.Reviews;

/// <summary>
/// The current state of a review's works: the fold of its decision events, those taken back left out. A work that
/// nobody decided on is not in it.
/// </summary>
/// <remarks>
/// Never changed: <see cref="With"/> gives a new fold that shares with this one all that the new events do not touch, so
/// that whoever reads this one is not disturbed. Memory is O(events).
/// </remarks>
public sealed class DecisionFold
{
    private readonly Func<DecisionEvent, int> workOf;
    private readonly ImmutableDictionary<Guid, ImmutableList<DecisionEvent>> batches;
    private readonly ImmutableDictionary<string, ImmutableStack<Guid>> batchesOf;
    private readonly ImmutableHashSet<Guid> undone;
    private readonly ImmutableDictionary<int, ImmutableList<DecisionEvent>> byWork;
    private readonly ImmutableDictionary<int, Judgement> judgements;

    /// <summary>Folds <paramref name="events"/> in their order. O(events).</summary>
    /// <param name="events">All events of one review, by sequence.</param>
    /// <param name="workOf">The work an event speaks of today, after merges and splits.</param>
    public DecisionFold(IEnumerable<DecisionEvent> events, Func<DecisionEvent, int> workOf)
        : this(new Next(workOf).Take(events)) { }

    private DecisionFold(Next next)
    {
        (workOf, LastSequence) = (next.WorkOf, next.LastSequence);
        (batches, batchesOf) = (next.Batches.ToImmutable(), next.BatchesOf.ToImmutable());
        (undone, byWork) = (next.Undone.ToImmutable(), next.ByWork.ToImmutable());
        judgements = next.Judgements.ToImmutable();
    }

    /// <summary>Sequence of the last event; 0 for none.</summary>
    public long LastSequence { get; }

    /// <summary>Judgement of every work that was decided on.</summary>
    public IReadOnlyDictionary<int, Judgement> Judgements => judgements;

    /// <summary>Judgement of one work.</summary>
    public Judgement Of(int workId) => judgements.GetValueOrDefault(workId, Judgement.None);

    /// <summary>The events of one act, by sequence; none when there is no such act.</summary>
    public IReadOnlyList<DecisionEvent> Batch(Guid batch) => batches.GetValueOrDefault(batch, []);

    /// <summary>The works an act speaks of today, those it takes back included. O(events of the act).</summary>
    public IReadOnlyCollection<int> WorksOf(IEnumerable<DecisionEvent> events) =>
        [.. events.SelectMany(e => e.Undoes is { } taken ? Batch(taken) : [e]).Select(workOf).Distinct()];

    /// <summary>
    /// The fold with events that were written after all others. O((events + those on their works, or in the batch that is
    /// taken back) · log(all events)).
    /// </summary>
    public DecisionFold With(IReadOnlyCollection<DecisionEvent> events) => new(new Next(this).Take(events));

    /// <summary>The last act of <paramref name="account"/> that is not taken back; null when there is none.</summary>
    public Guid? LastBatchOf(string account)
    {
        var own = batchesOf.GetValueOrDefault(account, []);
        while (!own.IsEmpty && undone.Contains(own.Peek()))
            own = own.Pop();
        return own.IsEmpty ? null : own.Peek();
    }

    /// <summary>
    /// Why <paramref name="account"/> cannot take back <paramref name="batch"/>, in a sentence; null when it can. Undo
    /// is personal, and an act on which a later one stands (the same work judged again, the same tag moved again)
    /// stays.
    /// </summary>
    public string? WhyNotUndo(Guid batch, string account)
    {
        var own = Batch(batch);
        if (own.Count == 0)
            return "There is no such decision in this review.";
        if (undone.Contains(batch))
            return "This decision has been undone already.";
        if (own[0].By != account)
            return "Another member did this; only they can undo it.";
        foreach (var e in own)
        {
            var later = byWork[workOf(e)]
                .FindLast(x =>
                    x.Sequence > e.Sequence && x.Batch != batch && !undone.Contains(x.Batch) && Touches(x, e)
                );
            if (later is not null)
                return later.By == account
                    ? "You decided on the same work again later; undo that first."
                    : "Another member has decided on the same work since; this cannot be undone any more.";
        }
        return null;
    }

    private static bool Touches(DecisionEvent later, DecisionEvent earlier) =>
        IsTag(later.Act) == IsTag(earlier.Act) && (!IsTag(later.Act) || later.Value == earlier.Value);

    private static bool IsTag(DecisionAct act) => act is DecisionAct.Tag or DecisionAct.Untag;

    /// <summary>A fold on its way: what is there, and what comes on top.</summary>
    private sealed class Next(Func<DecisionEvent, int> workOf)
    {
        private readonly HashSet<int> touched = [];

        public Next(DecisionFold before)
            : this(before.workOf)
        {
            LastSequence = before.LastSequence;
            (Batches, BatchesOf) = (before.batches.ToBuilder(), before.batchesOf.ToBuilder());
            (Undone, ByWork) = (before.undone.ToBuilder(), before.byWork.ToBuilder());
            Judgements = before.judgements.ToBuilder();
        }

        public Func<DecisionEvent, int> WorkOf => workOf;

        public long LastSequence { get; private set; }

        public ImmutableDictionary<Guid, ImmutableList<DecisionEvent>>.Builder Batches { get; } =
            ImmutableDictionary.CreateBuilder<Guid, ImmutableList<DecisionEvent>>();

        public ImmutableDictionary<string, ImmutableStack<Guid>>.Builder BatchesOf { get; } =
            ImmutableDictionary.CreateBuilder<string, ImmutableStack<Guid>>(StringComparer.Ordinal);

        public ImmutableHashSet<Guid>.Builder Undone { get; } = ImmutableHashSet.CreateBuilder<Guid>();

        public ImmutableDictionary<int, ImmutableList<DecisionEvent>>.Builder ByWork { get; } =
            ImmutableDictionary.CreateBuilder<int, ImmutableList<DecisionEvent>>();

        public ImmutableDictionary<int, Judgement>.Builder Judgements { get; } =
            ImmutableDictionary.CreateBuilder<int, Judgement>();

        public Next Take(IEnumerable<DecisionEvent> events)
        {
            foreach (var e in events)
                Put(e);
            foreach (var work in touched)
                Judgements[work] = Judged(ByWork[work].Where(e => !Undone.Contains(e.Batch)));
            return this;
        }

        private void Put(DecisionEvent e)
        {
            LastSequence = e.Sequence;
            if (e.Undoes is { } batch)
            {
                Undone.Add(batch);
                touched.UnionWith(Batches.GetValueOrDefault(batch, [])!.Select(workOf));
                return;
            }
            if (!Batches.TryGetValue(e.Batch, out var act))
            {
                act = [];
                BatchesOf[e.By] = BatchesOf.GetValueOrDefault(e.By, [])!.Push(e.Batch);
            }
            Batches[e.Batch] = act.Add(e);
            var work = workOf(e);
            ByWork[work] = ByWork.GetValueOrDefault(work, [])!.Add(e);
            touched.Add(work);
        }

        private static Judgement Judged(IEnumerable<DecisionEvent> live)
        {
            var (stage, reason, by, at) = (Stage.Found, (string?)null, (string?)null, (DateTimeOffset?)null);
            var tags = new List<string>();
            foreach (var e in live)
            {
                switch (e.Act)
                {
                    case DecisionAct.Tag:
                        if (!tags.Contains(e.Value!))
                            tags.Add(e.Value!);
                        continue;
                    case DecisionAct.Untag:
                        tags.Remove(e.Value!);
                        continue;
                    case DecisionAct.Keep:
                        (stage, reason) = (Stage.Kept, null);
                        break;
                    case DecisionAct.SetAside:
                        (stage, reason) = (Stage.SetAside, e.Value);
                        break;
                    case DecisionAct.Clear:
                        (stage, reason) = (Stage.Found, null);
                        break;
                }
                (by, at) = (e.By, e.At);
            }
            return new(stage, reason, tags, by, at);
        }
    }
}
