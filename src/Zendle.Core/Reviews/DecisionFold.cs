namespace Zendle.Core.Reviews;

/// <summary>
/// The current state of a review's works: the fold of its decision events, those taken back left out. A work that
/// nobody decided on is not in it.
/// </summary>
public sealed class DecisionFold
{
    private readonly List<DecisionEvent> events = [];
    private readonly HashSet<Guid> undone = [];
    private readonly Func<DecisionEvent, int> workOf;
    private readonly Dictionary<int, List<DecisionEvent>> byWork = [];
    private readonly Dictionary<int, Judgement> judgements = [];

    /// <summary>Folds <paramref name="events"/> in their order.</summary>
    /// <param name="events">All events of one review, by sequence.</param>
    /// <param name="workOf">The work an event speaks of today, after merges and splits.</param>
    public DecisionFold(IEnumerable<DecisionEvent> events, Func<DecisionEvent, int> workOf)
    {
        this.workOf = workOf;
        foreach (var e in events)
            Put(e);
        foreach (var work in byWork.Keys)
            Judge(work);
    }

    /// <summary>All events, by sequence.</summary>
    public IReadOnlyList<DecisionEvent> Events => events;

    /// <summary>Sequence of the last event; 0 for none.</summary>
    public long LastSequence => events.Count == 0 ? 0 : events[^1].Sequence;

    /// <summary>Judgement of every work that was decided on.</summary>
    public IReadOnlyDictionary<int, Judgement> Judgements => judgements;

    /// <summary>Judgement of one work.</summary>
    public Judgement Of(int workId) => judgements.GetValueOrDefault(workId, Judgement.None);

    /// <summary>
    /// Adds an event that was written after all others. O(events on its work, or in the batch it takes back).
    /// </summary>
    public void Add(DecisionEvent e)
    {
        Put(e);
        if (e.Undoes is { } batch)
            foreach (var work in events.Where(x => x.Batch == batch).Select(workOf).Distinct())
                Judge(work);
        else
            Judge(workOf(e));
    }

    /// <summary>The last act of <paramref name="account"/> that is not taken back; null when there is none.</summary>
    public Guid? LastBatchOf(string account)
    {
        for (var i = events.Count - 1; i >= 0; i--)
            if (events[i].By == account && events[i].Undoes is null && !undone.Contains(events[i].Batch))
                return events[i].Batch;
        return null;
    }

    /// <summary>
    /// Why <paramref name="account"/> cannot take back <paramref name="batch"/>, in a sentence; null when it can. Undo
    /// is personal, and an act on which a later one stands (the same work judged again, the same tag moved again)
    /// stays.
    /// </summary>
    public string? WhyNotUndo(Guid batch, string account)
    {
        var own = events.Where(e => e.Batch == batch).ToArray();
        if (own.Length == 0)
            return "There is no such act in this review.";
        if (undone.Contains(batch))
            return "This act has been taken back already.";
        if (own[0].By != account)
            return "Another member did this; only they can take it back.";
        foreach (var e in own)
        {
            var later = byWork[workOf(e)]
                .FindLast(x => x.Sequence > e.Sequence && x.Batch != batch && Live(x) && Touches(x, e));
            if (later is not null)
                return later.By == account
                    ? "A later act of yours on the same work stands on this one; take that back first."
                    : "Another member has judged the same work since; their act stands on this one.";
        }
        return null;
    }

    private static bool Touches(DecisionEvent later, DecisionEvent earlier) =>
        IsTag(later.Act) == IsTag(earlier.Act) && (!IsTag(later.Act) || later.Value == earlier.Value);

    private static bool IsTag(DecisionAct act) => act is DecisionAct.Tag or DecisionAct.Untag;

    private bool Live(DecisionEvent e) => e.Undoes is null && !undone.Contains(e.Batch);

    private void Put(DecisionEvent e)
    {
        events.Add(e);
        if (e.Undoes is { } batch)
        {
            undone.Add(batch);
            return;
        }
        var work = workOf(e);
        if (!byWork.TryGetValue(work, out var list))
            byWork[work] = list = [];
        list.Add(e);
    }

    private void Judge(int work)
    {
        var (stage, reason, by, at) = (Stage.Found, (string?)null, (string?)null, (DateTimeOffset?)null);
        var tags = new List<string>();
        foreach (var e in byWork[work].Where(Live))
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
        judgements[work] = new(stage, reason, tags, by, at);
    }
}
