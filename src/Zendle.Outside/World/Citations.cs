namespace Zendle.Outside.World;

/// <summary>
/// Chooses what a work cites: by topic, by age (a peak a few years back, then a slow decay), by appeal and by fame
/// already won (the more cited, the more citable), by its own people. Weighted sampling without replacement by
/// exponential keys (Efraimidis, Spirakis 2006).
/// </summary>
public sealed class Citations(Dice world)
{
    private readonly List<int> inDegree = [];
    private readonly Dictionary<string, List<int>> byGroup = [];

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
        var seen = new HashSet<int>();
        for (var draws = wanted * 7; draws > 0; draws--)
        {
            var roll = d.Unit();
            var candidate =
                roll < 0.5 && own.Count > 2 ? d.Of(own)
                : roll < 0.9 && group.Count > 5 ? d.Of(group)
                : d.Below(earlier.Count);
            if (!seen.Add(candidate))
                continue;
            var other = earlier[candidate];
            if (other.Topic.Friend != work.Topic.Friend && d.Chance(0.95))
                continue;
            // The key with the largest −ln(u)/weight leaves first.
            best.Enqueue(candidate, Math.Log(Math.Max(d.Unit(), 1e-12)) / Weight(work, other));
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
        foreach (var cited in work.Cites)
            inDegree[cited]++;
        if (!byGroup.TryGetValue(Group(work), out var group))
            byGroup[Group(work)] = group = [];
        group.Add(work.Id);
    }

    /// <summary>The works of the scenario cite one another across subtopics; others stay within their area.</summary>
    private static string Group(Work work) => work.Topic.Core ? "core" : work.Topic.Area;

    private double Weight(Work work, Work other)
    {
        var age = work.Year - other.Year;
        var asleep = other.FoundIn > 0 && work.Year < other.FoundIn;
        var woken = other.FoundIn > 0 && work.Year >= other.FoundIn;
        var young = woken ? 1 : Math.Exp(-Math.Abs(age - 3) / 9.0) + 0.04;
        var self = other.People.Any(p => work.People.Any(q => q.Person == p.Person)) ? 6 : 1;
        return young
            * other.Appeal
            * (1 + inDegree[other.Id] / 6.0)
            * self
            * (
                asleep ? 0.02
                : woken ? 12
                : 1
            );
    }

    private static int Wanted(Dice d, Work work)
    {
        var mean = work.Type switch
        {
            "review" or "systematic review" => 36,
            "thesis" => 36,
            "book" => 24,
            "letter" => 3,
            "report" => 8,
            "conference paper" => 8,
            _ => 11.0,
        };
        // Lists have grown longer: by half from 1970 to today.
        mean *= 0.62 + 0.38 * Math.Clamp((work.Year - 1958) / 60.0, 0, 1);
        return Math.Clamp((int)Math.Round(mean * Math.Exp(0.45 * d.Bell())), 1, 160);
    }
}
