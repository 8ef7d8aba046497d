using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Merging;

public sealed class ReferenceMatcherTests
{
    private static readonly ReferenceMatcher Matcher = Filled();

    private static ReferenceMatcher Filled()
    {
        var matcher = ReferenceMatcher.Empty.Edit(20);
        void Add(
            int work,
            string title,
            string family,
            int year,
            string? doi = null,
            string? volume = null,
            string? page = null,
            string? other = null
        )
        {
            var record = new Core.Records.Record
            {
                Identifier = "w" + work,
                Title = title,
                OtherTitles = other is null ? [] : [other],
                Year = year,
                Doi = doi,
                People = [new(family, "Mei K."), new("Ilo", "T.")],
                Venue = new("Journal of Hedge Ecology", null, volume, null, page),
            };
            matcher.Put(
                work,
                Findable.Of(
                    work,
                    MergeKeys.Doi(doi),
                    MergeKeys.TitleAndPerson(title, family),
                    year,
                    MergeFacts.Of(work, 1, record)
                )
            );
        }
        Add(1, "Night visits to campion under sodium lamps: a field trial", "Berg", 1998, "10.5555/n.1", "12", "118");
        Add(2, "Night visits to campion", "Berg", 1996); // the conference paper before it
        Add(3, "Pollen transport by settling moths", "Ostström-Lin", 2004, null, "31", "7");
        Add(4, "Pollen transport by settling moths", "Ostström-Lin", 2006, null, "33", "90"); // the same title, two years on
        Add(5, "Nachtfalter an Straßenlampen", "Voss", 1987, null, "4", "55", "Moths at street lamps");
        Add(6, "Correction to: Pollen transport by settling moths", "Ostström-Lin", 2004);
        Add(7, "Dusk counts of sphinx moths at a hedge", "Falk", 2011, null, "40");
        return matcher.Finish();
    }

    private static (int, ReferenceEvidence) Found(string text)
    {
        var match = Matcher.Match(PrintedReference.Read(text));
        return (match.Work, match.Evidence);
    }

    [Theory]
    [InlineData("somebody. something. doi:10.5555/N.1", 1, ReferenceEvidence.Doi)]
    [InlineData(
        "Berg, M. K. & Ilo, T. (1998). Night visits to campion under sodium lamps: a field trial. Journal of Hedge Ecology 12, 118–131.",
        1,
        ReferenceEvidence.TitleAndPerson
    )]
    [InlineData(
        "Berg MK, Ilo T. Night visits to campion under sodium lanps: a field trial. J. Hedge Ecol. 1998;12:118-131.",
        1,
        ReferenceEvidence.Words
    )] // a misprint
    [InlineData(
        "Berg, M. K., T. Ilo: Night visits to campion under sodium lamps. In: J. Hedge Ecol. 12 (1998) 118-131.",
        1,
        ReferenceEvidence.Words
    )] // the subtitle lost
    [InlineData("Berg, M. K.; Ilo, T., J. Hedge Ecol. 12, 118 (1998).", 1, ReferenceEvidence.Location)] // no title printed
    [InlineData("Berg, M. K.; Ilo, T., J. Hedge Ecol. 12, 118 (1999).", 1, ReferenceEvidence.Location)] // … and a year off
    [InlineData("Berg, M. K.; Ilo, T., J. Hedge Ecol. 12, 117 (1998).", 1, ReferenceEvidence.Location)] // … or a page off
    [InlineData("Falk, I., Hedge Ecol. 40, 612 (2011).", 7, ReferenceEvidence.Location)] // … and the record has no page
    [InlineData(
        "Berg, M. K. (1999). Night visits to campion under sodium lamps: a field trial.",
        1,
        ReferenceEvidence.TitleAndPerson
    )] // a year off
    [InlineData(
        "Ostström-Lin, M. (2006). Pollen transport by settling moths. J. Hedge Ecol. 33, 90.",
        4,
        ReferenceEvidence.TitleAndPerson
    )] // the year decides
    [InlineData("Voss, M. (1987). Moths at street lamps. J. Hedge Ecol. 4, 55.", 5, ReferenceEvidence.TitleAndPerson)] // by its other title
    public void A_reference_finds_the_work_it_means(string text, int work, ReferenceEvidence evidence) =>
        Assert.Equal((work, evidence), Found(text));

    [Theory]
    [InlineData("Berg, M. K. (1961). Night visits to campion under sodium lamps: a field trial.")] // another century of lamps
    [InlineData("Maravel Office K. Leaflet on lamps and gardens, Vessmark. 1998.")]
    [InlineData("Berg, M. K. (1998). Bats in old barns of the coast. Journal of Hedge Ecology 12, 301–310.")]
    [InlineData("Ostström-Lin, M. Pollen transport by settling moths. J. Hedge Ecol.")] // two works fit alike
    [InlineData("Berg, M. K.; Ilo, T., J. Hedge Ecol. 12, 131 (1998).")] // another page
    [InlineData("Falk, I., Hedge Ecol. 40, 612 (2012).")] // no page to hold it against, and another year
    [InlineData("Falk, I., Hedge Ecol. 41, 612 (2011).")] // another volume
    [InlineData("")]
    [InlineData("10.5555/nobody.has.this")]
    public void A_reference_that_means_no_work_or_two_alike_finds_none(string text) =>
        Assert.Equal((0, ReferenceEvidence.None), Found(text));

    [Theory]
    [InlineData(1998, 1)]
    [InlineData(1999, 1)]
    [InlineData(0, 1)] // none printed
    [InlineData(1961, 0)]
    public void Keys_alone_ask_the_year_too(int year, int work)
    {
        var title = MergeKeys.TitleAndPerson("Night visits to campion under sodium lamps: a field trial", "Berg");
        Assert.Equal(work, Matcher.ByKeys(new(0, title, year)).Work);
    }

    [Fact]
    public void Confidence_says_how_well_it_fits()
    {
        double Confidence(string text) => Matcher.Match(PrintedReference.Read(text)).Confidence;
        Assert.Equal(1, Confidence("doi:10.5555/n.1"));
        Assert.InRange(
            Confidence(
                "Berg MK, Ilo T. Night visits to campion under sodium lanps: a field trial. J. Hedge Ecol. 1998;12:118-131."
            ),
            0.9,
            1
        );
        Assert.Equal(0.75, Confidence("Berg, M. K.; Ilo, T., J. Hedge Ecol. 12, 118 (1998)."));
    }

    [Fact]
    public void A_matcher_that_follows_changes_finds_what_one_from_nothing_finds()
    {
        var random = new Random(5);
        Core.Records.Record Any(int id) =>
            new()
            {
                Identifier = "r" + id,
                Title = $"Lamps and moths number {random.Next(4)} along the verge",
                Year = 2000 + random.Next(3),
                Doi = random.Next(3) == 0 ? null : $"10.5555/d{random.Next(5)}",
                People = [new(random.Next(2) == 0 ? "Berg" : "Voss", "Mei")],
                Venue = new("Hedge Ecology", null, $"{random.Next(3)}", null, $"{random.Next(3)}0"),
            };
        // What some references mean was said by a person, and taken back, as it goes.
        ulong[] SaidOf(int id, int round) =>
            id % 3 == 0 && round / 4 % 2 == 0 ? [.. ReferenceKeys.Of(Asked(id)).Names(Asked(id).Text)] : [];
        Reference Asked(int n) =>
            PrintedReference.Read(
                $"Berg, M. ({2000 + n % 3}). Lamps and moths number {n % 4} along the verge. Hedge Ecology {n % 3}, {n % 3}0-99."
            );
        ReferenceMatcher Put(
            ReferenceMatcher matcher,
            IEnumerable<(int Id, Core.Records.Record? Record)> records,
            IReadOnlyDictionary<int, ulong[]> said
        )
        {
            var editor = matcher.Edit(30);
            foreach (var (id, r) in records)
                if (r is null)
                    editor.Remove(id);
                else
                    editor.Put(
                        id,
                        Findable.Of(
                            1 + id % 7,
                            MergeKeys.Doi(r.Doi),
                            MergeKeys.TitleAndPerson(r.Title, r.People[0].Family),
                            r.Year ?? 0,
                            MergeFacts.Of(id, 1, r)
                        ) with
                        {
                            Resolved = said.GetValueOrDefault(id) ?? [],
                        }
                    );
            return editor.Finish();
        }
        var (kept, latest) = (ReferenceMatcher.Empty, new Dictionary<int, Core.Records.Record?>());
        var (said, saidOften) = (new Dictionary<int, ulong[]>(), 0);
        for (var round = 0; round < 60; round++)
        {
            var changes = Enumerable
                .Range(0, 3)
                .Select(_ => random.Next(1, 30))
                .Distinct()
                .Select(id => (id, random.Next(4) == 0 ? null : Any(id)))
                .ToArray();
            foreach (var (id, record) in changes)
                latest[id] = record;
            // One name means one work: the newest holds.
            foreach (var (id, _) in changes)
            {
                said[id] = SaidOf(id, round);
                foreach (var other in said.Keys.Where(k => k != id).ToArray())
                    if (said[other].Intersect(said[id]).Any())
                        (said[other], changes) = (
                            [],
                            [.. changes.Where(c => c.id != other), (other, latest.GetValueOrDefault(other))]
                        );
            }
            kept = Put(kept, changes, said);
            var fresh = Put(
                ReferenceMatcher.Empty,
                latest.Where(l => l.Value is not null).Select(l => (l.Key, l.Value)),
                said
            );
            var (accounts, keys, records, texts) = kept.Parts;
            var read = ReferenceMatcher.From(accounts, keys, records, texts);
            for (var d = 0; d < 5; d++)
                Assert.Equal(
                    fresh.WithDoi(MergeKeys.Doi($"10.5555/d{d}")),
                    kept.WithDoi(MergeKeys.Doi($"10.5555/d{d}"))
                );
            for (var n = 0; n < 12; n++)
            {
                var reference = Asked(n);
                saidOften += fresh.Match(reference).Evidence == ReferenceEvidence.Person ? 1 : 0;
                Assert.Equal(fresh.Match(reference), kept.Match(reference));
                Assert.Equal(fresh.Match(reference), read.Match(reference));
            }
        }
        Assert.InRange(saidOften, 20, 700);
    }

    [Fact]
    public void What_is_not_matched_is_offered_the_likeliest_first_with_what_differs()
    {
        var reference = PrintedReference.Read("Nobody, X. (2004). Pollen transport by settling moths. Verge 3, 9-12.");
        var offered = Matcher.Candidates(reference, [1, 3, 4, 5, 6, 7], 3);
        // The year of one is printed; the other has the title too; the correction has more in its title.
        Assert.Equal([3, 4, 6], offered.Select(c => c.Work));
        Assert.Equal(
            (1.0, false, 0, false),
            (offered[0].TitleShare, offered[0].HasPerson, offered[0].YearsOff, offered[0].HasPage)
        );
        Assert.Equal(2, offered[1].YearsOff);
        Assert.Equal(5 / 7.0, offered[2].TitleShare, 6);
        // Its whole title leads to both by itself.
        Assert.Equal([3, 4], Matcher.Candidates(reference, [1, 5, 7], 3).Select(c => c.Work));
        Assert.Single(Matcher.Candidates(reference, [3, 4, 6], 1));
    }

    [Theory]
    [InlineData("Berg, M. K. (1961). Night visits to campion under sodium lamps: a field trial.")] // too far in years else
    [InlineData("Maravel Office K. Leaflet on lamps and gardens, Vessmark. 1998.")] // nothing but its print
    [InlineData("10.5555/nobody.has.this")]
    [InlineData("doi:10.5555/n.1")] // work 1 else
    public void What_a_person_said_of_a_reference_holds_until_it_is_taken_back(string text)
    {
        var reference = PrintedReference.Read(text);
        Findable Of(params ulong[] resolved)
        {
            var record = new Core.Records.Record
            {
                Identifier = "w9",
                Title = "Night visits to campion under sodium lamps: a field trial",
                Year = 2020,
                People = [new("Berg", "Mei K.")],
            };
            return Findable.Of(9, 0, 0, 2020, MergeFacts.Of(9, 1, record)) with { Resolved = resolved };
        }
        ReferenceMatcher With(ReferenceMatcher from, Findable findable)
        {
            var editor = from.Edit(20);
            editor.Put(9, findable);
            return editor.Finish();
        }
        ulong[] names = [.. ReferenceKeys.Of(reference).Names(text)];
        Assert.Single(names);
        // The work is there, and nobody has said anything.
        var without = With(Filled(), Of());
        var before = without.Match(reference);
        var said = With(without, Of(names));
        Assert.Equal(new(9, ReferenceEvidence.Person, 1), said.Match(reference));
        // The same reference in other letters and with other stops.
        Assert.Equal(9, said.Match(PrintedReference.Read(text.ToUpperInvariant() + " ")).Work);
        Assert.Equal(Of(names).By.Resolved, said.Of(9).Resolved);
        Assert.Equal(before, With(said, Of()).Match(reference));
        Assert.NotEqual(ReferenceEvidence.Person, before.Evidence);
        // Who asks for the reference is told of both.
        var half = unchecked((int)names[0]);
        Assert.Contains(half, ReferenceMatcher.AskedBy(reference).Select(k => unchecked((int)k)));
        Assert.Contains(half, FoundBy.Differ(Of().By, Of(names).By));
        Assert.Contains(half, FoundBy.Differ(Of(names).By, Of().By));
    }
}
