namespace Zendle.Outside.World;

/// <summary>
/// Makes the people: labs that work on one topic at one place, each with a lead and members who come and go. Who writes
/// the next work is somebody new with a steady chance, else one of the lab in proportion to what each wrote before
/// (Simon 1955), so that most people have one work and a few have very many, as Lotka (1926) counted.
/// </summary>
public sealed class People
{
    /// <summary>
    /// Chance that a name on a work is new; in Simon's process it sets the share of people with one work.
    /// </summary>
    private const double Newcomer = 0.38;

    /// <summary>Nobody works longer than so many years.</summary>
    private const int LongestCareer = 46;

    private readonly SharedWords words;
    private readonly Dice d;
    private readonly int lastYear;
    private readonly FamilyNames families;
    private readonly List<Person> all = [];
    private readonly Dictionary<string, Lab[]> byTopic;
    private readonly Dictionary<string, Lab[]> byArea;

    /// <summary>Makes labs for a plan of works.</summary>
    /// <param name="words">Names and institutes.</param>
    /// <param name="dice">The world's dice.</param>
    /// <param name="plan">How many works each topic has.</param>
    /// <param name="lastYear">Last year of the world.</param>
    public People(SharedWords words, Dice dice, IReadOnlyDictionary<Topic, int> plan, int lastYear)
    {
        (this.words, this.lastYear, d, families) = (words, lastYear, dice.For("people"), new(words));
        var labs = new List<Lab>();
        foreach (var (topic, works) in plan)
            for (var left = works; left > 0; )
            {
                left -= Math.Min(left, d.Between(8, 34));
                var from = Math.Min(
                    lastYear - 4,
                    topic.Start + (int)((lastYear - topic.Start) * Math.Pow(d.Unit(), 0.7)) - 4
                );
                labs.Add(new(topic, from, Math.Min(lastYear, from + d.Between(14, 36)), d.Of(words.Institutes), []));
            }
        byTopic = labs.GroupBy(l => l.Topic.Key).ToDictionary(g => g.Key, g => g.ToArray());
        byArea = labs.GroupBy(l => l.Topic.Area).ToDictionary(g => g.Key, g => g.ToArray());
    }

    /// <summary>Everybody so far, by number.</summary>
    public IReadOnlyList<Person> All => all;

    /// <summary>
    /// Those who write a work of a topic in a year: members of one lab, the one who wrote most there last, now and then
    /// someone from elsewhere. Works are to be asked for in the order of their years.
    /// </summary>
    public Person[] Team(Dice d, Topic topic, int year, int count)
    {
        var labs = byTopic[topic.Key];
        var active = Array.FindAll(labs, l => l.From <= year && year <= l.To);
        var lab =
            active.Length > 0
                ? active[(int)(active.Length * d.Unit() * d.Unit())]
                : labs.MinBy(l => Math.Min(Math.Abs(l.From - year), Math.Abs(l.To - year)))!;
        var chosen = new List<Person>();
        for (var tries = 0; chosen.Count < count; tries++)
        {
            var person =
                // A consortium draws on everybody; so does nobody else.
                count > 30
                && d.Chance(0.7)
                    ? Known(d, all, year)
                : tries > 0 && d.Chance(0.08) ? Known(d, d.Of(byArea[topic.Area]).Signed, year)
                : d.Chance(Newcomer) && tries < count * 4 ? null
                : Known(d, lab.Signed, year);
            person ??= Make(d.Chance(0.88) ? lab.Institute : d.Of(words.Institutes), year);
            if (!chosen.Contains(person))
                chosen.Add(person);
        }
        // The one who has led the lab longest signs last.
        if (count > 1)
        {
            var lead = chosen.MinBy(p => p.From)!;
            chosen.Remove(lead);
            chosen.Add(lead);
        }
        lab.Signed.AddRange(chosen);
        return [.. chosen];
    }

    /// <summary>Somebody of a list who works in a year; null when a few draws find nobody.</summary>
    private static Person? Known(Dice d, List<Person> signed, int year)
    {
        for (var tries = 0; tries < 6 && signed.Count > 0; tries++)
            if (d.Of(signed) is var person && person.From <= year && year <= person.To)
                return person;
        return null;
    }

    private Person Make(string institute, int year)
    {
        // Most stay for a thesis or a project; few stay long.
        var to = Math.Min(lastYear, year + (d.Chance(0.55) ? d.Between(1, 6) : d.Between(6, LongestCareer)));
        var family = families.Next(d);
        if (d.Chance(0.04))
            family += "-" + families.Next(d);
        var given = d.Of(words.Givens) + (d.Chance(0.4) ? " " + (char)('A' + d.Below(22)) + "." : "");
        var renamed = d.Chance(0.03) && to - year > 8 ? d.Between(year + 3, to - 3) : 0;
        var moved = d.Chance(0.3) && to - year > 6 ? d.Between(year + 2, to - 2) : 0;
        var person = new Person(
            all.Count,
            family,
            given,
            renamed == 0 ? null
                : d.Chance(0.4) ? family + "-" + families.Next(d)
                : families.Next(d),
            renamed,
            to >= 2012 && d.Chance(0.45) ? CheckDigits.Orcid(9_0000_0000_0000 + all.Count) : null,
            institute,
            moved == 0 ? null : d.Of(words.Institutes),
            moved,
            year,
            to
        );
        all.Add(person);
        return person;
    }
}
