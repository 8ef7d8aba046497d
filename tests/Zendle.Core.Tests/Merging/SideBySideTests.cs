using Zendle.Core.Merging;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Core.Tests.Merging;

/// <summary>Fields of records side by side.</summary>
public sealed class SideBySideTests
{
    private static IReadOnlyList<FieldRow> Rows(params Record[] records)
    {
        SourcedRecord[] sources = [.. records.Select((r, i) => new SourcedRecord(i + 1, i + 1, i, r))];
        return SideBySide.Of(sources, ChosenFields.From(sources));
    }

    [Fact]
    public void Only_fields_that_some_record_has_are_laid_out_and_each_says_where_the_shown_value_comes_from()
    {
        var rows = Rows(
            new()
            {
                Identifier = "a",
                Title = "Moths at lamps",
                Year = 2001,
                People = [new("Berg", "Mei")],
                Abstract = "",
            },
            new()
            {
                Identifier = "b",
                Title = "MOTHS AT LAMPS.",
                Year = 2002,
                People = [new("Berg", "M.")],
                Abstract = "Moths fell.",
                Doi = "10.5555/a",
                Venue = new("Small Wings", null, "4", "2", "7", "9"),
            }
        );
        Assert.Equal(
            ["title", "people", "year", "type", "venue", "volume, issue", "pages", "DOI", "abstract"],
            rows.Select(r => r.Name)
        );
        var by = rows.ToDictionary(r => r.Name);
        Assert.Equal((false, false, true), (by["title"].Differs, by["people"].Differs, by["year"].Differs));
        Assert.Equal([1], by["title"].TakenFrom);
        Assert.Equal([2], by["abstract"].TakenFrom);
        Assert.Equal([null, "4 (2)"], by["volume, issue"].Values);
        Assert.Equal([null, "7–9"], by["pages"].Values);
    }

    [Fact]
    public void What_each_database_has_of_its_own_is_no_contradiction()
    {
        var rows = Rows(
                new()
                {
                    Identifier = "a",
                    Title = "Moths",
                    Keywords = ["lamps"],
                    CitedCount = 3,
                    OwnNumbers = ["x:1"],
                    Publisher = "Ambry House",
                },
                new()
                {
                    Identifier = "b",
                    Title = "Moths",
                    Keywords = ["light"],
                    CitedCount = 9,
                    OwnNumbers = ["y:2"],
                    Publisher = "Northfold",
                }
            )
            .ToDictionary(r => r.Name);
        foreach (var field in new[] { "keywords", "citations", "other numbers", "publisher" })
            Assert.False(rows[field].Differs, field);
        Assert.Equal(["3", "9"], rows["citations"].Values);
    }

    [Fact]
    public void A_translated_title_stands_in_brackets_and_editors_are_named_as_such()
    {
        var rows = Rows(
                new Record
                {
                    Identifier = "a",
                    Title = "Moths at street lamps",
                    TitleIsTranslated = true,
                    OtherTitles = ["Nachtfalter"],
                    People = [new("Berg", "Mei", Role: "editor"), new("Voss", "")],
                }
            )
            .ToDictionary(r => r.Name);
        Assert.Equal("[Moths at street lamps]", rows["title"].Values[0]);
        Assert.Equal("Berg, Mei (editor); Voss", rows["people"].Values[0]);
        Assert.Equal("Nachtfalter", rows["other titles"].Values[0]);
    }
}
