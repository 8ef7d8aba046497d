using Zendle.Core.Merging;
using Zendle.Core.Records;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Core.Tests.Merging;

public sealed class ChosenFieldsTests
{
    private static SourcedRecord Of(int id, int trust, Record record) => new(id, id, trust, record);

    [Fact]
    public void Each_field_comes_from_the_most_trusted_record_that_has_it()
    {
        var chosen = ChosenFields.From([
            Of(
                1,
                1,
                new()
                {
                    Identifier = "x",
                    Title = "MOTHS AT LAMPS",
                    Abstract = "From the crawl.",
                    Year = 2001,
                    Doi = "10.5555/a",
                }
            ),
            Of(
                2,
                0,
                new()
                {
                    Identifier = "y",
                    Title = "Moths at lamps",
                    Year = 2000,
                    Keywords = ["moths"],
                }
            ),
        ]);
        Assert.Equal(new Chosen<string>("Moths at lamps", 2), chosen.Title);
        Assert.Equal(new Chosen<string>("From the crawl.", 1), chosen.Abstract);
        Assert.Equal(new Chosen<string?>("10.5555/a", 1), chosen.Doi);
        Assert.Equal(2000, chosen.Year.Value);
    }

    [Fact]
    public void A_year_most_records_agree_on_beats_trust()
    {
        var chosen = ChosenFields.From([
            Of(1, 0, new() { Identifier = "x", Year = 1999 }),
            Of(2, 1, new() { Identifier = "y", Year = 2000 }),
            Of(3, 1, new() { Identifier = "z", Year = 2000 }),
        ]);
        Assert.Equal(new Chosen<int?>(2000, 2), chosen.Year);
    }

    [Fact]
    public void An_original_title_beats_a_translated_one_and_a_preprint_speaks_last()
    {
        var chosen = ChosenFields.From([
            Of(
                1,
                0,
                new()
                {
                    Identifier = "p",
                    Title = "Nachtfalter (draft)",
                    Type = DocumentType.Preprint,
                }
            ),
            Of(
                2,
                0,
                new()
                {
                    Identifier = "x",
                    Title = "Moths at lamps",
                    TitleIsTranslated = true,
                    Type = DocumentType.Article,
                }
            ),
            Of(
                3,
                1,
                new()
                {
                    Identifier = "y",
                    Title = "Nachtfalter an Lampen",
                    Type = DocumentType.Article,
                }
            ),
        ]);
        Assert.Equal("Nachtfalter an Lampen", chosen.Title.Value);
        Assert.Equal(DocumentType.Article, chosen.Type.Value);
    }
}
