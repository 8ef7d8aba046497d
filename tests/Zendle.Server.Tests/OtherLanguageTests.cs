using Zendle.Store.Corpus;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Titles and abstracts in other languages are kept, found by their words, and shown by language.</summary>
public sealed class OtherLanguageTests : OddHost
{
    private const string English =
        "We counted the moths at forty street lamps of a town in two summers, and found that fewer of them came to the "
        + "warm lamps than to the cold ones.";
    private const string German =
        "Wir haben in zwei Sommern die Nachtfalter an vierzig Laternen der Stadt gezählt, und an den warmen Lampen "
        + "waren es weniger als an den kalten.";

    private static string Dc(int i) =>
        "<oai_dc:dc xmlns:oai_dc='http://www.openarchives.org/OAI/2.0/oai_dc/' "
        + $"xmlns:dc='http://purl.org/dc/elements/1.1/'><dc:title>Moths at the lamps of town {i}</dc:title>"
        + $"<dc:creator>Falk, Ida</dc:creator><dc:date>{2000 + i}</dc:date><dc:language>en</dc:language>"
        + (
            i == 1
                ? $"<dc:title>Falter an Laternen</dc:title><dc:description>{English}</dc:description>"
                    + $"<dc:description>{German}</dc:description>"
                : ""
        )
        + "</oai_dc:dc>";

    [Theory]
    [InlineData("nachtfalter", 0)]
    [InlineData("abstract:\"warmen Lampen\"", 0)]
    [InlineData("title:laternen", 1)]
    public async Task Words_of_another_language_find_the_work_and_are_marked_where_they_stand(string line, int inTitle)
    {
        odd.Offer("oai_dc", "", Dc);
        await ann.Harvest(odd.Address, format: "oai_dc");
        var review = await ann.Review();
        var step = await ann.Search(review, line);
        var row = Assert.Single((await ann.Get($"/api/reviews/{review}/steps/{step}/works")).List("works"));
        Assert.Equal(inTitle, row["hits"]!.Int("title"));
        Assert.Equal(1 - inTitle, row["hits"]!.Int("abstract"));
        if (inTitle == 0)
            Assert.Contains("Nachtfalter", row["snippet"]!.Text("text"), StringComparison.Ordinal);
        var work = await ann.Get($"/api/reviews/{review}/works/{row.Int("id")}?stepId={step}");
        Assert.Equal(English, work["abstract"]!.Text("text"));
        var other = Assert.Single(work.List("otherAbstracts"));
        Assert.Equal("German", other.Text("language"));
        Assert.Equal(German, other["text"]!.Text("text"));
        Assert.Equal(1 - inTitle, other["text"]!.List("marks").Count());
        var title = Assert.Single(work.List("otherTitles"));
        Assert.Equal("Falter an Laternen", title.Text("text"));
        Assert.Equal(inTitle, title.List("marks").Count());
        // Words of two abstracts are no phrase.
        Assert.Equal(0, await ann.Count(review, await ann.Search(review, "\"ones wir\"")));
    }

    [Fact]
    public void Records_written_before_languages_were_kept_can_be_read()
    {
        var record = new Core.Records.Record
        {
            Identifier = "x",
            Abstract = English,
            OtherAbstracts = [new(German, "ger"), new("Kurz.", null)],
        };
        Assert.Equal(record.OtherAbstracts, RecordCodec.Facts(RecordCodec.Facts(record)).OtherAbstracts);
        Assert.Equal(
            [new("Alt.", null)],
            RecordCodec.Facts("""{"Identifier":"x","Title":"","OtherAbstracts":["Alt."]}"""u8.ToArray()).OtherAbstracts
        );
    }
}
