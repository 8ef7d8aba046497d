using CsCheck;
using Zendle.Core.People;

namespace Zendle.Core.Tests.People;

/// <summary>Numbers and labels of people stay theirs, however people are told apart anew.</summary>
public sealed class PersonNumberingTests
{
    private static Mention Named(int work, string family, string given = "Kwame") =>
        new(
            work,
            0,
            new(family, given),
            Mention.GivenParts(given),
            Mention.FamilyParts(family),
            null,
            0,
            null,
            [],
            2000,
            []
        );

    private static Person Someone(string label, params int[] works) =>
        new(0, label, new("Berg", "Kwame"), null, [.. works.Select(w => NamedAt.Of(Named(w, "Berg")))], []);

    private static readonly GivenNumbers Nothing = new([], [], [], []);

    /// <summary>What a store holds after changes were written down one after another.</summary>
    private static GivenNumbers Stored(GivenNumbers before, GivenNumbers more)
    {
        static List<(TKey, TValue)> Put<TKey, TValue>(
            IEnumerable<(TKey Key, TValue Value)> a,
            IEnumerable<(TKey Key, TValue Value)> b
        )
            where TKey : notnull
        {
            var all = a.ToDictionary(x => x.Key, x => x.Value);
            foreach (var (key, value) in b)
                all[key] = value;
            return [.. all.Select(x => (x.Key, x.Value))];
        }
        return new(
            Put(before.Marks, more.Marks),
            Put(before.Labels, more.Labels),
            Put(before.Shown, more.Shown),
            [.. Put(before.Redirects, more.Redirects).Where(r => r.Item2 != 0)]
        );
    }

    [Fact]
    public void A_person_keeps_number_and_label_when_works_come()
    {
        var numbering = new PersonNumbering();
        var first = numbering.Number([Someone("Berg, K.", 1, 2), Someone("Berg, Kwame (Vessmark)", 5)]).People;
        var again = numbering.Number([Someone("Berg, Kwame (Orlund)", 5, 6), Someone("Berg, K.", 1, 2, 9)]).People;
        Assert.Equal([1, 2], first.Select(p => p.Id));
        Assert.Equal([2, 1], again.Select(p => p.Id));
        // The place that tells namesakes apart stays what it was.
        Assert.Equal(["Berg, Kwame (Vessmark)", "Berg, K."], again.Select(p => p.Label));
    }

    [Fact]
    public void A_person_known_more_fully_is_shown_so_and_found_under_both_labels()
    {
        var numbering = new PersonNumbering();
        numbering.Number([Someone("Berg, K.", 1, 2)]);
        var again = Assert.Single(numbering.Number([Someone("Berg, Kwame", 1, 2, 3)]).People);
        Assert.Equal((1, "Berg, Kwame"), (again.Id, again.Label));
        Assert.Equal("Berg, Kwame", numbering.Today("berg, k."));
        // Somebody else is never shown under a label that was another's.
        var third = numbering.Number([Someone("Berg, Kwame", 1, 2, 3), Someone("Berg, K.", 7)]).People[1];
        Assert.Equal((2, "Berg, K. (2)"), (third.Id, third.Label));
    }

    [Fact]
    public void Who_went_into_another_leads_there_and_stands_again_when_parted()
    {
        var numbering = new PersonNumbering();
        numbering.Number([Someone("Berg, K.", 1, 2, 3), Someone("Berg, Kwame", 5)]);
        var joined = Assert.Single(numbering.Number([Someone("Berg, Kwame", 1, 2, 3, 5)]).People);
        Assert.Equal((1, "Berg, Kwame"), (joined.Id, joined.Label));
        Assert.Equal("Berg, Kwame", numbering.Today("Berg, K."));
        var parted = numbering.Number([Someone("Berg, K.", 1, 2, 3), Someone("Berg, Kwame", 5)]).People;
        Assert.Equal([(1, "Berg, K."), (2, "Berg, Kwame")], parted.Select(p => (p.Id, p.Label)));
        Assert.Equal("Berg, Kwame", numbering.Today("Berg, Kwame"));
    }

    [Fact]
    public void One_that_vanished_comes_back_under_its_number()
    {
        var numbering = new PersonNumbering();
        numbering.Number([Someone("Berg, K.", 1), Someone("Lind, A.", 2)]);
        numbering.Number([Someone("Berg, K.", 1)]);
        Assert.Equal(
            [1, 2],
            numbering.Number([Someone("Berg, K.", 1), Someone("Lind, A.", 2)]).People.Select(p => p.Id)
        );
    }

    /// <summary>Ways to tell the people of up to nine works apart, one after another, each person with a label.</summary>
    private static readonly Gen<(int Group, int Label)[][]> Tellings = Gen.Select(Gen.Int[0, 3], Gen.Int[0, 4])
        .Array[1, 9]
        .Array[1, 7];

    [Fact]
    public void Whatever_happens_labels_tell_people_apart_and_never_change_whom_they_mean()
    {
        Tellings.Sample(
            iter: 2_000,
            assert: tellings =>
            {
                var (numbering, stored) = (new PersonNumbering(), Nothing);
                var meant = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
                foreach (var telling in tellings)
                {
                    var people = telling
                        .Select((t, work) => (t.Group, t.Label, Work: work))
                        .GroupBy(t => t.Group)
                        .Select(g => Someone($"Berg {g.Min(t => t.Label)}", [.. g.Select(t => t.Work)]))
                        .ToArray();
                    // What goes on from what was written down says the same as what goes on from memory.
                    var fresh = new PersonNumbering(stored).Number(people);
                    var (named, changes) = numbering.Number(people);
                    Assert.Equal(named.Select(p => (p.Id, p.Label)), fresh.People.Select(p => (p.Id, p.Label)));
                    stored = Stored(stored, changes);

                    Assert.Equal(named.Count, named.Select(p => p.Id).Distinct().Count());
                    Assert.Equal(named.Count, named.Select(p => p.Label.ToUpperInvariant()).Distinct().Count());
                    foreach (var p in named)
                        Assert.Equal(p.Label, numbering.Today(p.Label));
                    foreach (var (label, person) in changes.Labels)
                        Assert.True(meant.TryAdd(label, person), "a label is given once");
                }
                // Every label that was ever shown leads to somebody.
                Assert.All(meant.Keys, l => Assert.NotNull(numbering.Today(l)));
            }
        );
    }
}
