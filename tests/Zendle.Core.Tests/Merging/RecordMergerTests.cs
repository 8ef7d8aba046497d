using CsCheck;
using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Merging;

public sealed class RecordMergerTests
{
    private static MergeCandidate Record(int id, string? doi = null, ulong title = 0, int? year = 2000, DocumentType type = DocumentType.Article, int work = 0, params string[] versions) =>
        new(id, work, doi, title, year, type, versions);

    private static string Works(IEnumerable<MergeCandidate> records) =>
        string.Join(" | ", RecordMerger.Merge([.. records]).Select(w => string.Join(',', w.Records)));

    [Fact]
    public void The_same_doi_joins() => Assert.Equal("1,2 | 3", Works([Record(1, "a"), Record(2, "a"), Record(3, "b")]));

    [Fact]
    public void Title_and_person_join_when_years_are_at_most_one_apart() =>
        Assert.Equal("1,2,3 | 4", Works([Record(1, title: 7, year: 2000), Record(2, title: 7, year: 2001), Record(3, title: 7, year: null), Record(4, title: 7, year: 2003)]));

    [Fact]
    public void Different_dois_keep_apart_what_a_title_would_join() => Assert.Equal("1,3 | 2", Works([Record(1, "a", 7), Record(2, "b", 7), Record(3, title: 7)]));

    [Fact]
    public void A_declared_version_explains_different_dois() => Assert.Equal("1,2", Works([Record(1, "a"), Record(2, "b", versions: "a")]));

    [Theory]
    [InlineData(DocumentType.Correction)]
    [InlineData(DocumentType.RetractionNotice)]
    [InlineData(DocumentType.Letter)]
    public void A_notice_never_joins_the_work_of_its_title(DocumentType notice) => Assert.Equal("1 | 2", Works([Record(1, title: 7), Record(2, title: 7, type: notice)]));

    [Fact]
    public void A_merge_keeps_the_oldest_id_and_names_those_that_redirect()
    {
        var work = Assert.Single(RecordMerger.Merge([Record(5, "a", work: 12), Record(2, "a", work: 30), Record(9, "a")]));
        Assert.Equal((12, "30"), (work.WorkId, string.Join(',', work.Absorbed)));
        Assert.Equal([new MergeEvidence(2, 5, MergeReason.Doi), new MergeEvidence(2, 9, MergeReason.Doi)], work.Evidence);
    }

    [Fact]
    public void After_a_split_the_oldest_record_keeps_the_id()
    {
        var works = RecordMerger.Merge([Record(1, "a", work: 4), Record(2, "b", work: 4)]);
        Assert.Equal([4, 0], works.Select(w => w.WorkId));
    }

    [Fact]
    public void Titles_meet_over_case_accents_hyphens_and_punctuation()
    {
        Assert.Equal(MergeKeys.TitleAndPerson("Moth-eye coatings: a NOTE", "Ouverleaux-Tann"), MergeKeys.TitleAndPerson("MOTH EYE COATINGS A NOTE.", "OUVERLEAUX TANN"));
        Assert.NotEqual(MergeKeys.TitleAndPerson("Moths at lamps", "Berg"), MergeKeys.TitleAndPerson("Moths at lamps", "Voss"));
        Assert.Equal(0UL, MergeKeys.TitleAndPerson("Editorial", "Berg")); // too short to tell works apart
    }

    private static readonly Gen<MergeCandidate[]> Sets =
        Gen.Select(Gen.OneOf<string?>(null, "a", "b", "c"), Gen.ULong[0, 3], Gen.Int[1999, 2002], Gen.OneOf(DocumentType.Article, DocumentType.Preprint, DocumentType.Letter), Gen.OneOf("", "a", "b"))
            .Array[0, 9].Select(parts => parts.Select((p, i) => Record(i + 1, p.Item1, p.Item2, p.Item3, p.Item4, 0, p.Item5 is null or "" ? [] : [p.Item5])).ToArray());

    [Fact]
    public void The_order_of_arrival_does_not_matter() =>
        Gen.Select(Sets, Gen.Int).Sample((records, seed) =>
        {
            var shuffled = records.ToArray();
            new Random(seed).Shuffle(shuffled);
            Assert.Equal(Works(records), Works(shuffled));
        }, iter: 5_000);

    [Fact]
    public void Every_record_is_in_one_work_and_no_work_holds_two_unexplained_dois() =>
        Sets.Sample(records =>
        {
            var works = RecordMerger.Merge(records);
            Assert.Equal(records.Select(r => r.RecordId), works.SelectMany(w => w.Records).Order());
            Assert.All(works, w => Assert.Equal(w.Records.Count - 1, w.Evidence.Count));
            var byId = records.ToDictionary(r => r.RecordId);
            if (records.All(r => r.VersionDois.Count == 0))
                Assert.All(works, w => Assert.True(w.Records.Select(id => byId[id].Doi).OfType<string>().Distinct().Count() <= 1));
        }, iter: 5_000);

    [Fact]
    public void Merging_again_changes_nothing() =>
        Sets.Sample(records =>
        {
            var first = RecordMerger.Merge(records);
            var ids = first.SelectMany((w, i) => w.Records.Select(r => (r, i + 1))).ToDictionary(p => p.r, p => p.Item2);
            var again = RecordMerger.Merge([.. records.Select(r => r with { WorkId = ids[r.RecordId] })]);
            Assert.Equal(first.Select(w => string.Join(',', w.Records)), again.Select(w => string.Join(',', w.Records)));
            Assert.Equal(Enumerable.Range(1, first.Count), again.Select(w => w.WorkId));
            Assert.All(again, w => Assert.Empty(w.Absorbed));
        }, iter: 2_000);
}
