using CsCheck;
using Zendle.Core.Records;
using Zendle.Store.Corpus;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Server.Tests;

/// <summary>Records as the store keeps them.</summary>
public sealed class RecordCodecTests
{
    private static readonly Gen<Reference> References = Gen.Select(
        Gen.String,
        Gen.Bool,
        Gen.Int[1500, 2030],
        (text, has, year) =>
            new Reference(text.Replace('\uD800', ' '), has ? "10.5555/x" : null, has ? text : null, null, year)
    );

    [Fact]
    public void A_record_comes_out_of_the_store_as_it_went_in() =>
        Gen.Select(Gen.String[0, 40], Gen.String[0, 200], Gen.Int[0, 14], Gen.Int[0, 7], References.Array[0, 6])
            .Sample(
                (title, text, type, version, references) =>
                {
                    var record = new Record
                    {
                        Identifier = "oai:x:1",
                        Title = Sound(title),
                        Abstract = Sound(text),
                        Type = (DocumentType)type,
                        Version = version == 7 ? null : (WorkVersion)version,
                        Year = 1999,
                        Language = "eng",
                        People = [new("Berg", "Mei", "0000-0002-1825-0097", "Institute")],
                        Venue = new("Verge", "0317-8471", "4", "2", "10", "20"),
                        Copies = [new("http://h.example/1", CopyAccess.Free, WorkVersion.Proof)],
                        Keywords = ["a", "b"],
                        Versions = [new("10.5555/y")],
                        References = references,
                        Notes = ["a note"],
                        CitedCount = 3,
                    };
                    var back = RecordCodec.Facts(RecordCodec.Facts(record));
                    Assert.Equal(
                        (
                            record.Title,
                            record.Abstract,
                            record.Type,
                            record.Version,
                            record.Year,
                            record.CitedCount,
                            record.Venue
                        ),
                        (back.Title, back.Abstract, back.Type, back.Version, back.Year, back.CitedCount, back.Venue)
                    );
                    Assert.Equal(record.People, back.People);
                    Assert.Equal(record.Copies, back.Copies);
                    Assert.Empty(back.References); // kept apart
                    Assert.Equal(references.Length, RecordCodec.References(RecordCodec.References(references)).Count);
                    Assert.Equal(references.Length, RecordCodec.Keys(RecordCodec.Keys(references)).Length);
                    Assert.Equal(record.Title, RecordCodec.Source(RecordCodec.Source(record.Title)));

                    // Half a surrogate pair is no text and cannot be stored as UTF-8.
                    static string Sound(string s) =>
                        System.Text.Encoding.UTF8.GetString(System.Text.Encoding.UTF8.GetBytes(s));
                },
                iter: 300
            );
}
