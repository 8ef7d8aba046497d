using System.Globalization;

namespace Zendle.Core.People;

/// <summary>
/// What numbering gave: all of it, as it is written down, or what came or changed at once. Nothing that was given is ever
/// taken back.
/// </summary>
/// <param name="Marks">Names on works with the number of their person.</param>
/// <param name="Labels">Labels with the number they stand for from now on for ever.</param>
/// <param name="Shown">By number: the label that is shown.</param>
/// <param name="Redirects">By number: the number it went into; among changes 0 for one that stands by itself again.</param>
public sealed record GivenNumbers(
    IReadOnlyList<(PersonMark Mark, int Person)> Marks,
    IReadOnlyList<(string Label, int Person)> Labels,
    IReadOnlyList<(int Person, string Label)> Shown,
    IReadOnlyList<(int Person, int Into)> Redirects
)
{
    /// <summary>Whether nothing is in it.</summary>
    public bool IsEmpty => Marks.Count == 0 && Labels.Count == 0 && Shown.Count == 0 && Redirects.Count == 0;
}

/// <summary>Where numbering looks up what was given before and it does not hold itself.</summary>
public interface INumbersGiven
{
    /// <summary>The highest number given; 0 for none.</summary>
    int Last { get; }

    /// <summary>The number of the person a name was taken for last; 0 for none.</summary>
    int PersonOf(PersonMark mark);

    /// <summary>The number a label stands for, told apart without regard to case; 0 for none.</summary>
    int PersonOf(string label);

    /// <summary>The label a number is shown under; null for one that was never given.</summary>
    string? Shown(int person);

    /// <summary>The number another went into; 0 for one that stands by itself.</summary>
    int Into(int person);
}

/// <summary>
/// Gives persons numbers and labels that stay theirs, however often and from whatever people are told apart anew. Who
/// holds most of the names that a number had keeps it; a person that went into another leads there; a label, once
/// shown, never comes to mean somebody else.
/// </summary>
public sealed class PersonNumbering
{
    private readonly Dictionary<PersonMark, int> numberOf = [];
    private readonly Dictionary<string, int> labelled = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<int, string> shown = [];
    private readonly Dictionary<int, int> into = [];
    private readonly INumbersGiven? before;
    private int last;

    /// <summary>Goes on from what was given before, looked up where it is asked for; null to begin with nobody.</summary>
    public PersonNumbering(INumbersGiven? before = null) => (this.before, last) = (before, before?.Last ?? 0);

    /// <summary>Goes on from all that was given before.</summary>
    public PersonNumbering(GivenNumbers known)
    {
        numberOf = known.Marks.ToDictionary(m => m.Mark, m => m.Person);
        labelled = known.Labels.ToDictionary(l => l.Label, l => l.Person, StringComparer.OrdinalIgnoreCase);
        shown = known.Shown.ToDictionary(s => s.Person, s => s.Label);
        into = known.Redirects.ToDictionary(r => r.Person, r => r.Into);
        last = shown.Keys.Concat(numberOf.Values).Concat(labelled.Values).DefaultIfEmpty(0).Max();
    }

    /// <summary>The label that is shown for whom a label stands; null for one that was never given.</summary>
    public string? Today(string label) => PersonOf(label) is > 0 and var number ? ShownAs(Current(number)) : null;

    /// <summary>Numbers persons and labels them for good. O(their mentions).</summary>
    /// <param name="people">The persons, each with the label that suits it best.</param>
    /// <param name="held">Numbers that others hold now, which are given to nobody here; those given are added. Null when
    /// these are all persons there are.</param>
    /// <returns>The persons with number and label, in their order, and what has to be written down.</returns>
    public (IReadOnlyList<Person> People, GivenNumbers Changes) Number(
        IReadOnlyList<Person> people,
        HashSet<int>? held = null
    )
    {
        held ??= [];
        var marks = people.Select(p => p.Mentions.Select(m => m.Mark).Distinct().ToArray()).ToArray();
        var numbers = Kept(marks, held);
        for (var i = 0; i < people.Count; i++)
            if (numbers[i] == 0)
                held.Add(numbers[i] = ++last);
        var redirects = Redirected(marks, numbers, held);
        var moved = new List<(PersonMark, int)>();
        for (var i = 0; i < people.Count; i++)
            // A name whose person went into another keeps the number it had, so that both can part again.
            foreach (var mark in marks[i])
                if (PersonOf(mark) is var had && (had == 0 || Current(had) != numbers[i]))
                {
                    numberOf[mark] = numbers[i];
                    moved.Add((mark, numbers[i]));
                }
        var (labels, shows) = (new List<(string, int)>(), new List<(int, string)>());
        var named = new Person[people.Count];
        // Who is here longest is asked first, whatever order people came in.
        foreach (var i in Enumerable.Range(0, people.Count).OrderBy(i => numbers[i]))
        {
            var label = LabelFor(numbers[i], people[i].Label);
            if (PersonOf(label) == 0)
            {
                labelled[label] = numbers[i];
                labels.Add((label, numbers[i]));
            }
            if (ShownAs(numbers[i]) != label)
            {
                shown[numbers[i]] = label;
                shows.Add((numbers[i], label));
            }
            named[i] = people[i] with { Id = numbers[i], Label = label };
        }
        return (named, new(moved, labels, shows, redirects));
    }

    /// <summary>By person: the number it had, by the names it holds; 0 for none.</summary>
    private int[] Kept(PersonMark[][] marks, HashSet<int> held)
    {
        var numbers = new int[marks.Length];
        foreach (
            var (person, number, _) in marks
                .SelectMany(
                    (of, i) =>
                        of.Select(PersonOf)
                            .Where(n => n > 0)
                            .CountBy(n => n)
                            .Select(c => (Person: i, Number: c.Key, Held: c.Value))
                )
                .OrderByDescending(v => v.Held)
                .ThenBy(v => v.Number)
                .ThenBy(v => v.Person)
        )
            if (numbers[person] == 0 && held.Add(number))
                numbers[person] = number;
        return numbers;
    }

    /// <summary>Numbers that nobody kept lead to who holds most of their names; one that is back leads nowhere.</summary>
    private List<(int, int)> Redirected(PersonMark[][] marks, int[] numbers, HashSet<int> held)
    {
        var changes = new List<(int, int)>();
        foreach (
            var (was, now) in marks
                .SelectMany((of, i) => of.Select(m => (Was: PersonOf(m), Now: numbers[i])))
                .Where(m => m.Was > 0 && !held.Contains(m.Was))
                .CountBy(m => m)
                .GroupBy(m => m.Key.Was)
                .Select(g => (g.Key, g.OrderByDescending(c => c.Value).ThenBy(c => c.Key.Now).First().Key.Now))
        )
            if (Into(was) != now)
            {
                into[was] = now;
                changes.Add((was, now));
            }
        foreach (var back in numbers)
            if (Into(back) != 0)
            {
                into[back] = 0;
                changes.Add((back, 0));
            }
        return changes;
    }

    private int Current(int number)
    {
        // A chain is as long as people were joined one after another.
        while (Into(number) is not 0 and var next)
            number = next;
        return number;
    }

    private int PersonOf(PersonMark mark) =>
        numberOf.TryGetValue(mark, out var number) ? number : before?.PersonOf(mark) ?? 0;

    private int PersonOf(string label) =>
        labelled.TryGetValue(label, out var number) ? number : before?.PersonOf(label) ?? 0;

    private string? ShownAs(int number) => shown.TryGetValue(number, out var label) ? label : before?.Shown(number);

    private int Into(int number) => into.TryGetValue(number, out var next) ? next : before?.Into(number) ?? 0;

    private string LabelFor(int number, string wanted)
    {
        // The institution or the years that tell namesakes apart may stay what they were; that they are told may not.
        if (
            ShownAs(number) is { } had
            && Current(PersonOf(had)) == number
            && PersonLabel.NameIn(had) == PersonLabel.NameIn(wanted)
            && PersonLabel.TellsApart(had) == PersonLabel.TellsApart(wanted)
        )
            return had;
        for (var n = 1; ; n++)
        {
            var label = n == 1 ? wanted : PersonLabel.With(wanted, n.ToString(CultureInfo.InvariantCulture));
            if (PersonOf(label) is var other && (other == 0 || Current(other) == number))
                return label;
        }
    }
}
