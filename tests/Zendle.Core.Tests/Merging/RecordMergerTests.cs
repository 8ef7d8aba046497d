using CsCheck;
using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Merging;

public sealed class RecordMergerTests
{
    private const string Moths = "Moths and lamps along a lit verge";

    private static (MergeFacts, int) Record(
        int id,
        string? doi = null,
        string title = Moths,
        int? year = 2000,
        DocumentType type = DocumentType.Article,
        string person = "Berg, M.",
        int work = 0,
        string? page = null,
        string venue = "Verge Studies",
        params string[] versions
    ) =>
        (
            MergeFacts.Of(
                id,
                1 + id % 3,
                new Core.Records.Record
                {
                    Identifier = "r" + id,
                    Title = title,
                    Doi = doi,
                    Year = year,
                    Type = type,
                    People = [.. person.Split("; ").Select(p => new PersonName(p.Split(", ")[0], p.Split(", ")[1]))],
                    Venue =
                        type == DocumentType.Preprint
                            ? null
                            : new(venue, Volume: page is null ? null : "4", FirstPage: page),
                    Versions = [.. versions.Select(v => new VersionLink(v))],
                }
            ),
            work
        );

    private static IReadOnlyList<MergedWork> Merge(
        IReadOnlyCollection<(MergeFacts Facts, int Work)> records,
        params Ruling[] rulings
    )
    {
        var matches =
            from a in records
            from b in records
            where a.Facts.RecordId < b.Facts.RecordId
            select RecordMerger.Match(a.Facts, b.Facts, MergeWeights.Shipped);
        return RecordMerger.Merge(records, matches.OfType<Match>(), rulings);
    }

    private static string Works(IReadOnlyCollection<(MergeFacts, int)> records, params Ruling[] rulings) =>
        string.Join(" | ", Merge(records, rulings).Select(w => string.Join(',', w.Records)));

    [Fact]
    public void The_same_doi_joins_whatever_else_is_misspelt() =>
        Assert.Equal(
            "1,2 | 3",
            Works([
                Record(1, "a"),
                Record(2, "a", "Moths and 1amps a1ong a lit verge", 2001),
                Record(3, "b", "Another study of bats in barns"),
            ])
        );

    [Fact]
    public void Title_people_and_year_join_without_an_identifier() =>
        Assert.Equal("1,2 | 3", Works([Record(1), Record(2, year: 2001), Record(3, year: 2009)]));

    [Fact]
    public void A_misprint_or_a_lost_subtitle_hides_no_pair()
    {
        Assert.Equal(
            "1,2",
            Works([
                Record(1, person: "Berg, M.; Voss, A."),
                Record(2, title: "Moths and lanps along a lit verge", person: "Berg, M.; Voss, A."),
            ])
        );
        Assert.Equal(
            "1,2",
            Works([
                Record(1, title: Moths + ": a field trial in Maravel", page: "33", person: "Berg, M.; Voss, A."),
                Record(2, page: "33", person: "Berg, M.; Voss, A."),
            ])
        );
    }

    [Fact]
    public void Different_dois_keep_apart_what_a_title_would_join() =>
        Assert.Equal("1,3 | 2", Works([Record(1, "a", page: "7"), Record(2, "b", page: "90"), Record(3, page: "7")]));

    [Fact]
    public void A_declared_version_explains_different_dois_also_when_a_third_record_declares_it()
    {
        Assert.Equal("1,2", Works([Record(1, "a"), Record(2, "b", versions: "a")]));
        Assert.Equal("1,2,3", Works([Record(1, "a"), Record(2, "b"), Record(3, "b", versions: "a")]));
    }

    [Fact]
    public void A_preprint_joins_the_article_of_its_title_and_people() =>
        Assert.Equal(
            "1,2",
            Works([
                Record(1, "a", person: "Berg, M.; Voss, A."),
                Record(2, "p", year: 1999, type: DocumentType.Preprint, person: "Berg, M.; Voss, A."),
            ])
        );

    [Theory]
    [InlineData("Correction to: Moths and lamps along a lit verge")]
    [InlineData("Retraction: Moths and lamps along a lit verge")]
    [InlineData("Moths and lamps along a lit verge: a comment")]
    public void A_notice_never_joins_the_work_it_speaks_of(string notice) =>
        Assert.Equal("1 | 2", Works([Record(1, page: "7"), Record(2, title: notice, page: "7")]));

    [Fact]
    public void Parts_of_a_series_stay_apart() =>
        Assert.Equal(
            "1 | 2 | 3",
            Works([
                Record(1, title: Moths + ". Part 1"),
                Record(2, title: Moths + ". Part 2"),
                Record(3, title: Moths + ". Part II"),
            ])
        );

    [Fact]
    public void A_conference_paper_and_the_article_that_followed_it_are_two_works() =>
        Assert.Equal(
            "1 | 2",
            Works([
                Record(1, venue: "Proceedings of the Karsholt Meeting", type: DocumentType.ConferencePaper, page: "20"),
                Record(2, year: 2001, page: "311"),
            ])
        );

    [Fact]
    public void A_merge_keeps_the_oldest_id_and_names_those_that_redirect()
    {
        var work = Assert.Single(Merge([Record(5, "a", work: 12), Record(2, "a", work: 30), Record(9, "a")]));
        Assert.Equal((12, "30"), (work.WorkId, string.Join(',', work.Absorbed)));
    }

    [Fact]
    public void After_a_split_the_oldest_record_keeps_the_id() =>
        Assert.Equal([4, 0], Merge([Record(1, "a", work: 4), Record(2, "b", work: 4)]).Select(w => w.WorkId));

    [Fact]
    public void What_a_person_ruled_stands_above_every_score_and_taken_back_it_never_was()
    {
        (MergeFacts, int)[] records =
        [
            Record(1, "a"),
            Record(2, "a"),
            Record(3, "b", "Another study of bats in barns"),
        ];
        Assert.Equal("1 | 2 | 3", Works(records, new Ruling(1, 2, Same: false)));
        Assert.Equal("1,2,3", Works(records, new Ruling(2, 3, Same: true)));
        Assert.Equal("1,2 | 3", Works(records));
    }

    [Fact]
    public void A_split_holds_against_a_third_record_that_would_bridge_it() =>
        Assert.Equal(
            "1,3 | 2",
            Works(
                [Record(1, "a"), Record(2, "a"), Record(3, "a")],
                new Ruling(1, 2, Same: false),
                new Ruling(2, 3, Same: false)
            )
        );

    [Fact]
    public void Titles_meet_over_case_accents_hyphens_and_punctuation()
    {
        Assert.Equal(
            MergeKeys.TitleAndPerson("Moth-eye coatings: a NOTE", "Ouverleaux-Tann"),
            MergeKeys.TitleAndPerson("MOTH EYE COATINGS A NOTE.", "OUVERLEAUX TANN")
        );
        Assert.NotEqual(
            MergeKeys.TitleAndPerson("Moths at lamps", "Berg"),
            MergeKeys.TitleAndPerson("Moths at lamps", "Voss")
        );
        Assert.Equal(0UL, MergeKeys.TitleAndPerson("Editorial", "Berg")); // too short to tell works apart
    }

    [Fact]
    public void Records_that_match_share_a_key() =>
        Gen.Select(Some, Some)
            .Where((a, b) => a.Item1.RecordId != b.Item1.RecordId)
            .Sample(
                (a, b) =>
                {
                    // Not a law (keys are a filter), but for these small differences none may be lost.
                    if (RecordMerger.Match(a.Item1, b.Item1, MergeWeights.Shipped) is null)
                        return;
                    Assert.True(a.Item1.Blocking.Overlaps(b.Item1.Blocking), $"{a} {b}");
                },
                iter: 3_000
            );

    private static readonly Gen<(MergeFacts, int)> Some = Gen.Select(
            Gen.Int[1, 900],
            Gen.OneOf<string?>(null, "a", "b", "c"),
            Gen.OneOf(
                Moths,
                "Moths and lamps along a lit verge: a field trial",
                "Night visits to campion under sodium lamps"
            ),
            Gen.Int[1999, 2002],
            Gen.OneOf(DocumentType.Article, DocumentType.Preprint, DocumentType.ConferencePaper),
            Gen.OneOf("", "a", "b")
        )
        .Select(
            (id, doi, title, year, type, version) =>
                Record(id, doi, title, year, type, versions: version is null or "" ? [] : [version])
        );

    private static readonly Gen<(MergeFacts, int)[]> Sets = Some.Array[0, 9]
        .Select(set => set.DistinctBy(r => r.Item1.RecordId).ToArray());

    [Fact]
    public void The_order_of_arrival_does_not_matter() =>
        Gen.Select(Sets, Gen.Int)
            .Sample(
                (records, seed) =>
                {
                    var shuffled = records.ToArray();
                    new Random(seed).Shuffle(shuffled);
                    Assert.Equal(Works(records), Works(shuffled));
                },
                iter: 2_000
            );

    [Fact]
    public void Neither_do_the_ids_that_the_order_of_arrival_gives() =>
        Gen.Select(Sets, Gen.Int)
            .Sample(
                (records, seed) =>
                {
                    // The same records under other ids: the groups are the same groups.
                    var ids = records.Select(r => r.Item1.RecordId).ToArray();
                    new Random(seed).Shuffle(ids);
                    var renamed = records.Select((r, i) => (r.Item1 with { RecordId = ids[i] }, 0)).ToArray();
                    string Groups(IReadOnlyCollection<(MergeFacts Facts, int)> set) =>
                        string.Join(
                            " | ",
                            Merge(set)
                                .Select(w =>
                                    string.Join(
                                        ',',
                                        w.Records.Select(id => set.First(r => r.Facts.RecordId == id).Facts.Stamp)
                                            .Order()
                                    )
                                )
                                .Order(StringComparer.Ordinal)
                        );
                    Assert.Equal(Groups(records), Groups(renamed));
                },
                iter: 2_000
            );

    [Fact]
    public void Every_record_is_in_one_work_and_no_work_holds_two_unexplained_dois() =>
        Sets.Sample(
            records =>
            {
                var works = Merge(records);
                Assert.Equal(records.Select(r => r.Item1.RecordId).Order(), works.SelectMany(w => w.Records).Order());
                var byId = records.ToDictionary(r => r.Item1.RecordId, r => r.Item1);
                if (records.All(r => r.Item1.VersionDois.Count == 0))
                    Assert.All(
                        works,
                        w =>
                            Assert.True(
                                w.Records.Select(id => byId[id])
                                    .Where(f => !f.IsBeforeReview)
                                    .Select(f => f.Doi)
                                    .OfType<string>()
                                    .Distinct()
                                    .Count() <= 1
                            )
                    );
            },
            iter: 2_000
        );

    [Fact]
    public void Merging_again_changes_nothing() =>
        Sets.Sample(
            records =>
            {
                var first = Merge(records);
                var ids = first
                    .SelectMany((w, i) => w.Records.Select(r => (r, i + 1)))
                    .ToDictionary(p => p.r, p => p.Item2);
                var again = Merge([.. records.Select(r => (r.Item1, ids[r.Item1.RecordId]))]);
                Assert.Equal(
                    first.Select(w => string.Join(',', w.Records)),
                    again.Select(w => string.Join(',', w.Records))
                );
                Assert.Equal(Enumerable.Range(1, first.Count), again.Select(w => w.WorkId));
                Assert.All(again, w => Assert.Empty(w.Absorbed));
            },
            iter: 1_000
        );
}
