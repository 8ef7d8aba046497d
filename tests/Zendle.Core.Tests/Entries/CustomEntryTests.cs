using Xunit;
using Zendle.Core.Entries;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Entries;

public class CustomEntryTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 28, 9, 0, 0, TimeSpan.Zero);

    private static readonly EntryFields Planned = EntryFields.Empty with
    {
        Title = "What harbour  lamps do to moths",
        Type = "manuscript",
    };

    [Fact]
    public void A_record_has_what_was_typed()
    {
        var record = CustomEntry.Read(
            7,
            Planned with
            {
                People = "Berg, Mei\nLind, Per",
                Year = " 2027 ",
                Venue = "Night Letters",
                Volume = "12",
                Pages = "45 - 67",
                Doi = "https://doi.org/10.5555/ABC",
                Isbn = "0-306-40615-2",
                Address = "https://example.org/plan",
                Language = "German",
                Keywords = "moths; street lamps, red",
                Abstract = "First.\r\nSecond.\u0001",
                References =
                    "Berg, M. (2010). Moths at the lamps of harbours. Night Letters, 2, 1–9.\n"
                    + "Lind, P. (2011). Bats over canals at dusk. Night Letters, 3, 4–8.",
            },
            Now
        );
        Assert.Equal("entry:7", record.Identifier);
        Assert.Equal("What harbour lamps do to moths", record.Title);
        Assert.Equal(DocumentType.Manuscript, record.Type);
        Assert.Equal([new PersonName("Berg", "Mei"), new PersonName("Lind", "Per")], record.People);
        Assert.Equal((2027, "2027"), (record.Year, record.Date));
        Assert.Equal(new VenuePart("Night Letters", null, "12", null, "45", "67"), record.Venue);
        Assert.Equal("10.5555/abc", record.Doi);
        // The check digit of 978030640615 is 7 (ISO 2108): 9+21+8+0+3+0+6+12+0+18+1+15 = 93.
        Assert.Equal("9780306406157", record.Isbn);
        Assert.Equal("ger", record.Language);
        Assert.Equal(["moths", "street lamps, red"], record.Keywords);
        Assert.Equal("First.\nSecond.", record.Abstract);
        Assert.Equal([new Copy("https://example.org/plan", CopyAccess.Unknown)], record.Copies);
        Assert.Equal([2010, 2011], record.References.Select(r => r.Year));
    }

    [Fact]
    public void A_title_is_enough()
    {
        var record = CustomEntry.Read(1, EntryFields.Empty with { Title = "A plan" }, Now);
        Assert.Equal(DocumentType.Other, record.Type);
        Assert.Null(record.Year);
        Assert.Null(record.Venue);
        Assert.Empty(record.References);
    }

    [Fact]
    public void Each_field_that_cannot_be_read_is_named()
    {
        var faults = CustomEntry.Faults(
            EntryFields.Empty with
            {
                Title = " … ",
                Type = "plan",
                Year = "20x6",
                Doi = "doi",
                Isbn = "978-0-306-40615-8",
                Address = "ftp://example.org",
                Language = "Klingonese",
            }
        );
        Assert.Equal(["Title", "Type", "Year", "Doi", "Isbn", "Address", "Language"], faults.Select(f => f.Field));
    }

    [Theory]
    [InlineData("45-67", "45", "67")]
    [InlineData("118–31", "118", "131")]
    [InlineData("12", "12", "12")]
    [InlineData("e45", "e45", "e45")]
    [InlineData("67-45", "67", "67")]
    [InlineData("", null, null)]
    public void Pages_are_filled_out_and_never_run_backward(string typed, string? first, string? last)
    {
        var venue = CustomEntry.Read(1, Planned with { Venue = "Night Letters", Pages = typed }, Now).Venue!;
        Assert.Equal((first, last), (venue.FirstPage, venue.LastPage));
    }

    [Theory]
    [InlineData("entry:7", 7)]
    [InlineData("entry:x", null)]
    [InlineData("oai:entry:7", null)]
    public void An_identifier_names_its_entry(string identifier, int? number) =>
        Assert.Equal(number, CustomEntry.NumberOf(identifier));
}
