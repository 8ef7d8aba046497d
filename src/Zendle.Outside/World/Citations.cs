namespace Zendle.Outside.World;

/// <summary>
/// Chooses what a work cites: by topic, by age (a peak a few years back, then a slow decay), by appeal and by fame
/// already won (the more cited, the more citable), by its own people. Weighted sampling without replacement by
/// exponential keys (Efraimidis, Spirakis 2006).
/// </summary>
public sealed class Citations(Dice world, Scenario scenario)
{
    // Shares of draws: from the topic, from lists of others, from the group; what is left comes from beside it. A few
    // draws from lists are enough for a tail with an exponent near 3.
    private const double FromTopic = 0.42;
    private const double FromLists = 0.04;
    private const double FromGroup = 0.455;

    private readonly List<int> inDegree = [];

    // For whom a work was drawn last: a draw meets many works again, and a set for each citing work costs more than all
    // else here.
    private readonly List<int> drawnFor = [];
    private readonly Dictionary<string, List<int>> byGroup = [];
    private readonly Dictionary<string, List<int>> byArea = [];

    // Every citation within a group once more, so that a draw meets a work as often as it was cited (Price 1976): what
    // is read in others' lists is cited again.
    private readonly Dictionary<string, List<int>> citedIn = [];

    // By the distance from the peak, three years after it appeared.
    private static readonly double[] Young = [.. Enumerable.Range(0, 200).Select(d => Math.Exp(-d / 5.0) + 0.04)];

    /// <summary>Numbers of the works it cites, ascending.</summary>
    public int[] Of(Work work, List<Work> earlier, Dictionary<string, List<int>> byTopic)
    {
        if (work.About >= 0 && work.Type is not "letter")
            return [work.About];
        if (earlier.Count < 5 || work.Type is "editorial" or "dataset")
            return [];
        var d = world.For("cites", work.Id);
        var wanted = Wanted(d, work);
        var (own, group) = (byTopic[work.Topic.Key], byGroup.GetValueOrDefault(Group(work)) ?? []);
        var best = new PriorityQueue<int, double>();
        var signed = work.People.Select(p => p.Person.Id).ToHashSet();
        for (var draws = wanted * 10; draws > 0; draws--)
        {
            if (Candidate(d, work, own, group) is not { } candidate || drawnFor[candidate] == work.Id)
                continue;
            drawnFor[candidate] = work.Id;
            var other = earlier[candidate];
            // The key with the largest −ln(u)/weight leaves first.
            best.Enqueue(candidate, Math.Log(Math.Max(d.Unit(), 1e-12)) / Weight(work, other, signed));
            if (best.Count > wanted)
                best.Dequeue();
        }
        IEnumerable<int> chosen = best.UnorderedItems.Select(i => i.Element);
        if (work.About >= 0)
            chosen = chosen.Append(work.About);
        return [.. chosen.Distinct().Order()];
    }

    /// <summary>Takes a finished work into account.</summary>
    public void Count(Work work)
    {
        inDegree.Add(0);
        drawnFor.Add(-1);
        if (!citedIn.TryGetValue(Group(work), out var lists))
            citedIn[Group(work)] = lists = [];
        foreach (var cited in work.Cites)
        {
            inDegree[cited]++;
            lists.Add(cited);
        }
        if (!byGroup.TryGetValue(Group(work), out var group))
            byGroup[Group(work)] = group = [];
        group.Add(work.Id);
        if (work.Topic.Friend)
            return;
        if (!byArea.TryGetValue(work.Topic.Area, out var area))
            byArea[work.Topic.Area] = area = [];
        area.Add(work.Id);
    }

    /// <summary>
    /// A work that may be cited: mostly of the topic or one beside it, now and then of a neighbouring area. Those that
    /// use the scenario's words in another sense stay among themselves. Null when a draw finds nothing.
    /// </summary>
    private int? Candidate(Dice d, Work work, List<int> own, List<int> group)
    {
        var roll = d.Unit();
        if (roll < FromTopic || work.Topic.Friend)
            return own.Count > 0 ? d.Of(own) : null;
        if (roll < FromTopic + FromLists && citedIn.GetValueOrDefault(Group(work)) is { Count: > 0 } lists)
            return d.Of(lists);
        if (roll < FromTopic + FromLists + FromGroup)
            return group.Count > 0 ? d.Of(group) : null;
        return byArea.GetValueOrDefault(d.Of(scenario.Words.Neighbours[work.Topic.Area])) is { Count: > 0 } near
            ? d.Of(near)
            : null;
    }

    /// <summary>The works of the scenario cite one another across subtopics; others stay within their area.</summary>
    private static string Group(Work work) => work.Topic.Core ? "core" : work.Topic.Area;

    private double Weight(Work work, Work other, HashSet<int> signed)
    {
        var age = work.Year - other.Year;
        var asleep = other.FoundIn > 0 && work.Year < other.FoundIn;
        var woken = other.FoundIn > 0 && work.Year >= other.FoundIn;
        var young = woken ? 1 : Young[Math.Min(Math.Abs(age - 3), Young.Length - 1)];
        var self = Array.Exists(other.People, p => signed.Contains(p.Person.Id)) ? 6 : 1;
        return young
            * other.Appeal
            * (1 + inDegree[other.Id] / 2.5)
            * self
            * (
                asleep ? 0.02
                : woken ? 12
                : 1
            );
    }

    /// <summary>How many works it cites: in an article 15 in 1970 and 40 in 2025, by kind in proportion.</summary>
    private static int Wanted(Dice d, Work work)
    {
        var share = work.Type switch
        {
            "review" or "systematic review" => 2,
            "thesis" => 1.1,
            "book" => 1.5,
            "chapter" => 0.7,
            "letter" => 0.2,
            "report" => 0.5,
            "conference paper" => 0.5,
            _ => 1.0,
        };
        var mean = share * (15 + 25 * Math.Pow(Math.Max(0, work.Year - 1970) / 55.0, 1.7));
        return Math.Clamp((int)Math.Round(mean * Math.Exp(0.4 * d.Bell() - 0.08)), 1, 260);
    }
}
