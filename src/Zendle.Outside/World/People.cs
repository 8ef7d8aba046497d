namespace Zendle.Outside.World;

/// <summary>
/// Makes the people: labs that work on one topic at one place, each with a lead and members who come and go.
/// </summary>
public sealed class People
{
    private readonly Dictionary<string, Lab[]> byTopic;
    private readonly Dictionary<string, Lab[]> byArea;

    /// <summary>Makes labs for a plan of works.</summary>
    /// <param name="words">Names and institutes.</param>
    /// <param name="dice">The world's dice.</param>
    /// <param name="plan">How many works each topic has.</param>
    /// <param name="lastYear">Last year of the world.</param>
    public People(SharedWords words, Dice dice, IReadOnlyDictionary<Topic, int> plan, int lastYear)
    {
        var d = dice.For("people");
        var all = new List<Person>();
        Person Make(string institute, int from, int to)
        {
            var family = Family(words, d);
            if (d.Chance(0.06))
                family += "-" + Family(words, d);
            var given = d.Of(words.Givens) + (d.Chance(0.45) ? " " + (char)('A' + d.Below(22)) + "." : "");
            var renamed = d.Chance(0.03) && to - from > 8 ? d.Between(from + 3, to - 3) : 0;
            var moved = d.Chance(0.3) && to - from > 6 ? d.Between(from + 2, to - 2) : 0;
            var person = new Person(
                all.Count,
                family,
                given,
                renamed == 0 ? null
                    : d.Chance(0.4) ? family + "-" + Family(words, d)
                    : Family(words, d),
                renamed,
                to >= 2012 && d.Chance(0.45) ? CheckDigits.Orcid(9_0000_0000_0000 + all.Count) : null,
                institute,
                moved == 0 ? null : d.Of(words.Institutes),
                moved,
                from,
                to
            );
            all.Add(person);
            return person;
        }
        var labs = new List<Lab>();
        foreach (var (topic, works) in plan)
        {
            for (var left = works; left > 0; )
            {
                var share = Math.Min(left, d.Between(10, 40));
                left -= share;
                var from = Math.Min(
                    lastYear - 4,
                    topic.Start + (int)((lastYear - topic.Start) * Math.Pow(d.Unit(), 0.7)) - 4
                );
                var to = Math.Min(lastYear, from + d.Between(14, 34));
                var institute = d.Of(words.Institutes);
                var lead = Make(institute, from, to);
                var members = Enumerable
                    .Range(0, Math.Max(3, share * 19 / 20))
                    .Select(_ =>
                    {
                        var start = d.Between(from, to);
                        // Most stay for a thesis or a project; few stay long.
                        return Make(
                            d.Chance(0.85) ? institute : d.Of(words.Institutes),
                            start,
                            Math.Min(lastYear, start + (d.Chance(0.7) ? d.Between(1, 5) : d.Between(6, 24)))
                        );
                    });
                labs.Add(new(topic, from, to, lead, [.. members]));
            }
        }
        byTopic = labs.GroupBy(l => l.Topic.Key).ToDictionary(g => g.Key, g => g.ToArray());
        byArea = labs.GroupBy(l => l.Topic.Area).ToDictionary(g => g.Key, g => g.ToArray());
        All = all;
    }

    /// <summary>Everybody, by number.</summary>
    public IReadOnlyList<Person> All { get; }

    /// <summary>
    /// Those who write a work of a topic in a year: members of one lab, its lead last, now and then someone from
    /// elsewhere.
    /// </summary>
    public Person[] Team(Dice d, Topic topic, int year, int count)
    {
        var labs = byTopic[topic.Key];
        var active = Array.FindAll(labs, l => l.From <= year && year <= l.To);
        var lab =
            active.Length > 0
                ? active[(int)(active.Length * d.Unit() * d.Unit())]
                : labs.MinBy(l => Math.Min(Math.Abs(l.From - year), Math.Abs(l.To - year)))!;
        var near = lab.Members.Where(m => m.From <= year && year <= m.To).ToList();
        if (near.Count == 0)
            near = [lab.Lead];
        var chosen = new List<Person>();
        for (var tries = 0; chosen.Count < count && tries < count * 8; tries++)
        {
            var person =
                chosen.Count == count - 1 && count > 1 && !chosen.Contains(lab.Lead) ? lab.Lead
                : tries > 0 && (near.Count <= chosen.Count || d.Chance(0.18)) ? Guest(d, topic, year, count)
                : d.Of(near);
            if (!chosen.Contains(person))
                chosen.Add(person);
        }
        return [.. chosen];
    }

    private Person Guest(Dice d, Topic topic, int year, int count)
    {
        // A consortium draws on everybody.
        if (count > 30)
            return d.Of(All);
        var lab = d.Of(byArea[topic.Area]);
        var there = lab.Members.Where(m => m.From <= year && year <= m.To).ToArray();
        return there.Length > 0 ? d.Of(there) : lab.Lead;
    }

    /// <summary>
    /// A family name from two halves; never the two that stand side by side in the list, for those are the ones that
    /// make names in use. Some names are common.
    /// </summary>
    private static string Family(SharedWords words, Dice d)
    {
        var first = (int)(words.Families1.Length * Math.Pow(d.Unit(), 1.3));
        var second =
            (first + 1 + (int)((words.Families2.Length - 1) * Math.Pow(d.Unit(), 1.3))) % words.Families2.Length;
        return words.Families1[first] + words.Families2[second];
    }
}
