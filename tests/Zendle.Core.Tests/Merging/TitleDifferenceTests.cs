using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Merging;

/// <summary>A word of difference makes two studies, a slip does not.</summary>
public sealed class TitleDifferenceTests
{
    [Theory]
    [InlineData("Song rate in male bats", "Song rate in female bats")]
    [InlineData("Prenatal exposure to light and growth", "Postnatal exposure to light and growth")]
    [InlineData("Beetles of managed oak stands", "Beetles of unmanaged oak stands")]
    [InlineData("Vitamin A and night vision of voles", "Vitamin D and night vision of voles")]
    [InlineData("Moths of Tollund Reach at lamps", "Moths of Port Ambrise at lamps")]
    [InlineData("Flight of moths. Part I", "Flight of moths. Part II")]
    [InlineData("Flight of moths at lamps 1", "Flight of moths at lamps 2")]
    [InlineData("Uptake of nitrate by mosses", "Uptake of nitrite by mosses")]
    [InlineData("Combustion of ethane in lamps", "Combustion of ethene in lamps")]
    [InlineData("Interspecific contests among moths", "Intraspecific contests among moths")]
    [InlineData("Biotic limits of lichens on lamps", "Abiotic limits of lichens on lamps")]
    [InlineData("Hypothermia of nestlings in lit boxes", "Hyperthermia of nestlings in lit boxes")]
    [InlineData("Survival of moths in summer", "Survival of moths in winter")]
    [InlineData("Survival of moths in wet meadows", "Survival of moths in meadows")]
    [InlineData("Counts of 4 seasons in meadows", "Counts of 44 seasons in meadows")]
    [InlineData("Symmetric lamps over roads", "Asymmetric lamps over roads")]
    [InlineData("Macrofauna of lit streams", "Microfauna of lit streams")]
    public void These_are_two_studies(string a, string b)
    {
        Assert.True(TitleDifference.IsMeaningful(MergeFacts.Plain(a), MergeFacts.Plain(b)));
        Assert.True(TitleDifference.IsMeaningful(MergeFacts.Plain(b), MergeFacts.Plain(a)));
    }

    [Theory]
    [InlineData("Moths at the edge of lit verges", "Moths at thee edge of lit verges")]
    [InlineData("Traces of drainage in waders", "Traces o drainage in waders")]
    [InlineData("Pollen and particles in street air", "Pollen and partic1es in street air")]
    [InlineData("Modern lamps of the harbour", "Modem lamps of the harbour")] // rn read as m
    [InlineData("Flight of moths", "F1ight of moths")]
    [InlineData("Trade-offs between fading and freezing", "Trade-off between fading and freezing")]
    [InlineData("Germination of orchid seeds", "Germinatoin of orchid seeds")] // two letters changed places
    [InlineData("Germination of orchid seeds", "Germmination of orchid seeds")]
    [InlineData("Street lighting and bats", "Streetlighting and bats")]
    [InlineData("Moths across 16 sites of the coast", "Moths across16 sites of the coast")]
    [InlineData("Leaf retention before and after drought", "Laf retention before and after drought")]
    [InlineData("Effects of light on the moths", "Effects of light on moths")]
    [InlineData("Foraging across lit fields", "Foraging cross lit fields")]
    public void These_are_one_study_written_down_twice(string a, string b)
    {
        Assert.False(TitleDifference.IsMeaningful(MergeFacts.Plain(a), MergeFacts.Plain(b)));
        Assert.False(TitleDifference.IsMeaningful(MergeFacts.Plain(b), MergeFacts.Plain(a)));
    }

    private static MergeFacts Facts(
        int id,
        string title,
        DocumentType type = DocumentType.Article,
        VenuePart? venue = null,
        string? doi = null
    ) =>
        MergeFacts.Of(
            id,
            1,
            new()
            {
                Identifier = $"r{id}",
                Title = title,
                Year = 2019,
                Type = type,
                Venue = venue,
                Doi = doi,
                People = [new("Berg", "Mei"), new("Lind", "Per"), new("Moe", "Ola")],
            }
        );

    private static bool Joined(MergeFacts a, MergeFacts b) =>
        RecordMerger.Match(a, b, MergeWeights.Shipped) is not null;

    [Fact]
    public void Companions_of_one_repository_stay_two_works_and_a_misprint_joins()
    {
        Assert.False(
            Joined(
                Facts(1, "Song rate of lit city bats in male animals"),
                Facts(2, "Song rate of lit city bats in female animals")
            )
        );
        Assert.True(
            Joined(
                Facts(1, "Song rate of lit city bats in male animals"),
                Facts(2, "Song rate of lit ciity bats in male animals")
            )
        );
        // The same page of the same volume settles it, however badly a title was read.
        var place = new VenuePart("Dusk Biology", Volume: "4", FirstPage: "17");
        Assert.True(
            Joined(
                Facts(1, "Song rate of lit city bats in male animals", venue: place),
                Facts(2, "Song rate of lit city bats in mole animals", venue: place)
            )
        );
    }

    [Theory]
    [InlineData("Moths of many lit verges: a field test", "Moths of many lit verges", true)] // a lost subtitle
    [InlineData("Moths of many lit verges? A field test", "Moths of many lit verges", true)]
    [InlineData("Moths of many lit verges in winter", "Moths of many lit verges", false)]
    public void A_subtitle_gets_lost_but_not_the_end_of_a_title(string full, string brief, bool joined) =>
        Assert.Equal(joined, Joined(Facts(1, full), Facts(2, brief)));

    [Fact]
    public void Kinds_that_are_seldom_one_work_need_more_than_title_and_people()
    {
        const string Title = "Moths of lit verges: a field test of lamps";
        var (journal, book) = (
            new VenuePart("Dusk Biology", Volume: "4", FirstPage: "17"),
            new VenuePart("Lamps of the North", FirstPage: "17")
        );
        Assert.False(Joined(Facts(1, Title, DocumentType.Thesis), Facts(2, Title, DocumentType.Article, journal)));
        Assert.False(Joined(Facts(1, Title, DocumentType.Dataset), Facts(2, Title, DocumentType.Article)));
        Assert.False(Joined(Facts(1, Title, DocumentType.Chapter, book), Facts(2, Title, DocumentType.Book)));
        Assert.False(
            Joined(
                Facts(1, Title, DocumentType.ConferencePaper, new("Lamp Days")),
                Facts(2, Title, DocumentType.Article, journal)
            )
        );
        Assert.True(
            Joined(
                Facts(1, Title, DocumentType.Thesis, doi: "10.5555/t.1"),
                Facts(2, Title, DocumentType.Article, journal, "10.5555/t.1")
            )
        );
        Assert.True(Joined(Facts(1, Title, DocumentType.Article, journal), Facts(2, Title, DocumentType.Preprint)));
    }

    [Theory]
    [InlineData("Erratum: moths of lit verges and lamps")]
    [InlineData("Author correction: moths of lit verges and lamps")]
    [InlineData("Expression of concern: moths of lit verges and lamps")]
    [InlineData("Moths of lit verges and lamps: erratum")]
    public void A_notice_is_not_what_it_speaks_of(string title) =>
        Assert.False(Joined(Facts(1, "Moths of lit verges and lamps"), Facts(2, title)));
}
