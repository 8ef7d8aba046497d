using CsCheck;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Core.Tests.Merging;

/// <summary>
/// The reference lists that several databases have of the same works become one list, each reference with what it
/// means.
/// </summary>
public sealed class ReferenceListTests
{
    private static readonly Record[] Works =
    [
        new()
        {
            Identifier = "1",
            Title = "Night visits to campion under sodium lamps",
            Year = 1998,
            Doi = "10.5555/n.1",
            People = [new("Berg", "Mei K.")],
            Venue = new("Hedge Ecology", null, "12", null, "118"),
        },
        new()
        {
            Identifier = "2",
            Title = "Pollen transport by settling moths",
            Year = 2004,
            People = [new("Lind", "Per")],
            Venue = new("Hedge Ecology", null, "31", null, "7"),
        },
        new()
        {
            Identifier = "3",
            Title = "Bats in old barns of the northern coast",
            Year = 1987,
            People = [new("Voss", "Anna")],
        },
    ];

    private static readonly ReferenceMatcher Matcher = Filled(Works);

    private static ReferenceMatcher Filled(IEnumerable<Record> works)
    {
        var matcher = ReferenceMatcher.Empty.Edit(10);
        foreach (var (record, work) in works.Select((r, i) => (r, i + 1)))
            matcher.Put(
                work,
                Findable.Of(
                    work,
                    MergeKeys.Doi(record.Doi),
                    MergeKeys.TitleAndPerson(record.Title, record.People[0].Family),
                    record.Year ?? 0,
                    MergeFacts.Of(work, 1, record)
                )
            );
        return matcher.Finish();
    }

    private static ReferenceMatch Means(ListedReference listed) => Matcher.Match(listed.Reference);

    private static ListedReference Printed(int work, int database, string text)
    {
        var r = PrintedReference.Read(text);
        return new(work, 0, work, database, r, MergeKeys.Doi(r.Doi), MergeKeys.TitleAndPerson(r.Title, r.FirstPerson));
    }

    private static string Told(IEnumerable<JoinedReference> list) =>
        string.Join(
            " | ",
            list.Select(j =>
                $"{j.Match.Work} by {j.Match.Evidence}, in {string.Join(',', j.Databases)}, of {string.Join(',', j.Citing)}"
            )
        );

    [Fact]
    public void What_two_databases_print_of_one_work_stands_once_and_the_surer_evidence_speaks()
    {
        var list = ReferenceList.Join(
            [
                Printed(9, 1, "Berg MK. Night visits to campion under sodium lanps. Hedge Ecol. 1998;12:118."),
                Printed(9, 2, "somebody. something. doi:10.5555/n.1"),
                Printed(9, 2, "Lind, P. (2004). Pollen transport by settling moths. Hedge Ecology 31, 7."),
            ],
            Means
        );
        Assert.Equal("1 by Doi, in 1,2, of 9 | 2 by TitleAndPerson, in 2, of 9", Told(list));
        Assert.Equal("the same DOI", ReferenceList.Words(list[0].Match.Evidence));
    }

    [Fact]
    public void What_means_no_work_is_joined_by_doi_title_or_text_and_says_so()
    {
        var list = ReferenceList.Join(
            [
                Printed(8, 1, "Nobody, N. (1999). A study that no database describes. Lost Papers 1, 1."),
                Printed(9, 2, "Nobody, N. 1999. A study that no database describes. Lost Papers 1: 1."),
                Printed(9, 1, "ibid."),
                Printed(8, 1, "ibid."),
                Printed(8, 1, "loc. cit."),
            ],
            Means
        );
        Assert.Equal("0 by None, in 1,2, of 8,9 | 0 by None, in 1, of 8,9 | 0 by None, in 1, of 8", Told(list));
        Assert.Null(ReferenceList.Words(list[0].Match.Evidence));
    }

    [Fact]
    public void The_fuller_print_is_shown_with_the_DOI_that_another_database_gives()
    {
        const string Whole = "Berg MK. Night visits to campion under sodium lamps. Hedge Ecol. 1998;12:118.";
        foreach (var order in new[] { new[] { "10.5555/n.1", Whole }, [Whole, "10.5555/n.1"] })
        {
            var shown = Assert
                .Single(ReferenceList.Join([Printed(9, 1, order[0]), Printed(9, 2, order[1])], Means))
                .Reference;
            Assert.Equal((Whole, "10.5555/n.1"), (shown.Text, shown.Doi));
        }
    }

    [Fact]
    public void Every_evidence_has_its_words() =>
        Assert.All(
            Enum.GetValues<ReferenceEvidence>().Where(e => e != ReferenceEvidence.None),
            e => Assert.NotNull(ReferenceList.Words(e))
        );

    [Fact]
    public void A_list_of_nothing_is_nothing() => Assert.Empty(ReferenceList.Join([], Means));

    /// <summary>
    /// On this rests that a reference is looked at again only when a work under one of its keys changed.
    /// </summary>
    [Fact]
    public void A_reference_that_means_a_work_asks_for_a_key_that_the_work_has()
    {
        var year = Gen.Int[1950, 2020];
        var title = Gen.OneOf(
                "night",
                "moths",
                "lamps",
                "verges",
                "pollen",
                "visits",
                "campion",
                "barns",
                "sodium",
                "seed"
            )
            .Array[4, 9]
            .Select(w => string.Join(' ', w));
        Gen.Select(
                title,
                year,
                Gen.OneOf("Berg", "Lind", "Ostström-Lin"),
                Gen.Int[1, 99],
                Gen.Int[1, 900],
                Gen.Int[0, 4]
            )
            .Sample(
                (t, y, family, volume, page, style) =>
                {
                    var record = new Record
                    {
                        Identifier = "x",
                        Title = t,
                        Year = y,
                        People = [new(family, "Mei")],
                        Doi = style == 3 ? "10.5555/x" : null,
                        Venue = new("Hedge Ecology", null, $"{volume}", null, $"{page}"),
                    };
                    var reference = PrintedReference.Read(
                        style switch
                        {
                            0 => $"{family}, M. ({y}). {t}. Hedge Ecology {volume}, {page}-{page + 9}.",
                            1 => $"{family} M. {t}. Hedge Ecol. {y};{volume}:{page}.",
                            2 => $"{family}, M., Hedge Ecol. {volume}, {page} ({y}).",
                            3 => $"{t}. doi:10.5555/X",
                            _ => $"{family}, M.: {t}. In: Hedge Ecol. {volume} ({y}) {page}.",
                        }
                    );
                    if (Filled([record]).Match(reference).Work == 0)
                        return;
                    var keys = Findable
                        .Of(
                            1,
                            MergeKeys.Doi(record.Doi),
                            MergeKeys.TitleAndPerson(t, family),
                            y,
                            MergeFacts.Of(1, 1, record)
                        )
                        .Keys;
                    Assert.Contains(ReferenceMatcher.AskedBy(reference), keys.Contains);
                    Assert.DoesNotContain(0UL, keys);
                },
                iter: 2_000
            );
    }
}
