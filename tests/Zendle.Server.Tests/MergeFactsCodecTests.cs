using System.Text.Json;
using CsCheck;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Store.Corpus;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Server.Tests;

/// <summary>Merging facts that were written beside a record say what the record says.</summary>
public sealed class MergeFactsCodecTests
{
    private static readonly Gen<string> Word = Gen.OneOf(
        "moths",
        "Lamps",
        "épine",
        "42",
        "II",
        "!!",
        "a",
        "夜の光",
        "part",
        "2",
        "correction",
        "Straße"
    );
    private static readonly Gen<string> Text = Word.Array[0, 9].Select(w => string.Join(' ', w));

    private static readonly Gen<PersonName> Person = Gen.Select(
        Gen.OneOf("Berg", "Ostström-Lin", "de la Vega", "李", ""),
        Gen.OneOf("Mei", "M. K.", "", "Émile", "🦋"),
        (family, given) => new PersonName(family, given)
    );

    private static readonly Gen<Record> Records = Gen.Select(
        Gen.Select(Text, Text, Gen.Bool, Text.Array[0, 2]),
        Person.Array[0, 5],
        Gen.Int[1, 9],
        Gen.Select(
            Gen.OneOf<string?>(null, "10.5555/a", "10.5555/b"),
            Gen.OneOf<string?>(null, "0317-8471"),
            Gen.OneOf<string?>(null, "12", "S4"),
            Gen.OneOf<string?>(null, "101", "e7")
        ),
        Gen.Select(Gen.Int[0, 14], Gen.Int[-1, 6], Gen.Bool, Gen.OneOf<int?>(null, 1000, 1998, 2999)),
        (titles, people, own, place, rest) =>
            new Record
            {
                Identifier = $"oai:x:{own}",
                Title = titles.Item3 ? $"{titles.Item1}: {titles.Item2}" : titles.Item1,
                OtherTitles = titles.Item4,
                TitleIsTranslated = own == 1,
                People = people,
                Doi = place.Item1,
                Isbn = own == 2 ? "9783161484100" : null,
                OwnNumbers = own == 3 ? ["lifeleaf:30", "union:x"] : [],
                Versions = own == 4 ? [new("10.5555/c"), new("10.5555/d")] : [],
                Venue = own == 5 ? null : new("Hedge Ecology & Night", place.Item2, place.Item3, null, place.Item4),
                Type = (DocumentType)rest.Item1,
                Version = rest.Item2 < 0 ? null : (WorkVersion)rest.Item2,
                IsOnlyCited = rest.Item3,
                Year = rest.Item4,
            }
    );

    [Fact]
    public void Facts_come_back_with_their_keys_and_compare_as_before() =>
        Gen.Select(Records, Records)
            .Sample(
                (a, b) =>
                {
                    var (x, y) = (MergeFacts.Of(7, 3, a), MergeFacts.Of(8, 2, b));
                    var (backX, backY) = (
                        MergeFactsCodec.Read(7, 3, MergeFactsCodec.Write(x)),
                        MergeFactsCodec.Read(8, 2, MergeFactsCodec.Write(y))
                    );
                    Assert.Equal(JsonSerializer.Serialize(x), JsonSerializer.Serialize(backX));
                    Assert.Equal(x.Blocking.Order(), backX.Blocking.Order());
                    Assert.Equal(Comparison.Of(x, y), Comparison.Of(backX, backY));
                    Assert.Equal(
                        RecordMerger.Match(x, y, MergeWeights.Shipped)?.Score,
                        RecordMerger.Match(backX, backY, MergeWeights.Shipped)?.Score
                    );
                },
                iter: 3_000
            );

    [Fact]
    public void A_few_hundred_bytes_are_enough()
    {
        var record = new Record
        {
            Identifier = "x",
            Title = "Night-time flower visits to white campion under sodium lamps: three seasons in Ostmark",
            People = [new("Berg", "Mei"), new("Lind", "Per")],
            Year = 2011,
            Doi = "10.5555/zx.1",
            Venue = new("Hedge Ecology", "0317-8471", "12", "2", "101"),
        };
        Assert.InRange(MergeFactsCodec.Write(MergeFacts.Of(1, 1, record)).Length, 150, 350);
    }
}
