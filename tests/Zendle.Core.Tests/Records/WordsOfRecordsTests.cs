using System.Xml.Linq;
using CsCheck;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;

namespace Zendle.Core.Tests.Records;

public sealed class WordsOfRecordsTests
{
    [Theory]
    [InlineData(
        "Voss, A., Berg, M. (2001). Lamps and moths. Verge 4, 10–20. doi:10.5555/x.1",
        "Voss",
        2001,
        "Lamps and moths",
        "10.5555/x.1"
    )]
    [InlineData("Berg, M. (1998a) A short note.", "Berg", 1998, "A short note", null)]
    [InlineData(
        "Ouverleaux-Tann, J. et al. (2017): Lit verges, idle flowers? Verge 1, 2–3.",
        "Ouverleaux-Tann",
        2017,
        "Lit verges, idle flowers",
        null
    )]
    [InlineData("Anonymous report without a year", null, null, null, null)]
    [InlineData("see https://doi.org/10.5555/ABC.2", null, null, null, "10.5555/abc.2")]
    [InlineData("", null, null, null, null)]
    public void A_printed_reference_gives_what_shows_without_doubt(
        string text,
        string? person,
        int? year,
        string? title,
        string? doi
    )
    {
        var read = PrintedReference.Read(text);
        Assert.Equal((text, person, year, title, doi), (read.Text, read.FirstPerson, read.Year, read.Title, read.Doi));
    }

    [Fact]
    public void No_printed_reference_breaks_its_reader() =>
        Gen.String.Sample(text => Assert.Equal(text, PrintedReference.Read(text).Text), iter: 2_000);

    [Theory]
    [InlineData("en", "eng")]
    [InlineData("German", "ger")]
    [InlineData("DEU", "ger")]
    [InlineData(" fra ", "fre")]
    [InlineData("Klingon", null)]
    [InlineData(null, null)]
    public void Languages_are_known_by_code_or_name(string? written, string? code) =>
        Assert.Equal(code, Languages.Code(written));

    [Fact]
    public void A_language_without_a_name_keeps_its_code_and_none_has_two_letters_by_chance()
    {
        Assert.Equal("que", Languages.Name("que"));
        Assert.Equal("German", Languages.Name("ger"));
        Assert.Equal("de", Languages.TwoLetters("ger"));
        Assert.Null(Languages.TwoLetters("que"));
        Assert.Null(Languages.TwoLetters(null));
    }

    [Theory]
    [InlineData("Journal Article", DocumentType.Article)]
    [InlineData("corrigendum", DocumentType.Correction)]
    [InlineData("Meta-analysis", DocumentType.SystematicReview)]
    [InlineData("poem", DocumentType.Other)]
    [InlineData(null, DocumentType.Other)]
    public void Kinds_are_read_from_the_words_of_databases(string? words, DocumentType type) =>
        Assert.Equal(type, DocumentTypes.Read(words));

    [Fact]
    public void Each_kind_has_one_name_that_reads_back()
    {
        Assert.Equal(Enum.GetValues<DocumentType>().Order(), DocumentTypes.All.Select(t => t.Type).Order());
        Assert.All(DocumentTypes.All, t => Assert.Equal(t.Type, DocumentTypes.Read(t.Name)));
    }

    [Theory]
    [InlineData("version of record", WorkVersion.VersionOfRecord)]
    [InlineData("Corrected Version of Record", WorkVersion.CorrectedVersionOfRecord)]
    [InlineData("enhanced version of record", WorkVersion.EnhancedVersionOfRecord)]
    [InlineData("proof", WorkVersion.Proof)]
    [InlineData(" accepted manuscript ", WorkVersion.AcceptedManuscript)]
    [InlineData("preprint", WorkVersion.SubmittedManuscript)]
    [InlineData("submitted manuscript under review", WorkVersion.SubmittedManuscript)]
    [InlineData("author’s original", WorkVersion.AuthorsOriginal)]
    [InlineData("draft", null)]
    [InlineData("", null)]
    public void Versions_are_read_by_the_terms_of_the_standard(string words, WorkVersion? version) =>
        Assert.Equal(version, WorkVersions.Read(words));

    [Fact]
    public void Each_version_has_a_name_that_reads_back_and_a_worth_of_its_own()
    {
        var all = Enum.GetValues<WorkVersion>();
        Assert.All(all, v => Assert.Equal(v, WorkVersions.Read(WorkVersions.Name(v)!)));
        Assert.Equal(Enumerable.Range(0, all.Length), all.Select(v => WorkVersions.Rank(v)).Order());
        Assert.Equal(
            [
                WorkVersion.EnhancedVersionOfRecord,
                WorkVersion.CorrectedVersionOfRecord,
                WorkVersion.VersionOfRecord,
                WorkVersion.Proof,
                WorkVersion.AcceptedManuscript,
                WorkVersion.SubmittedManuscript,
                WorkVersion.AuthorsOriginal,
            ],
            all.OrderBy(v => WorkVersions.Rank(v))
        );
        Assert.Equal(all.Length, WorkVersions.Rank(null));
        Assert.Null(WorkVersions.Name(null));
        Assert.Equal(3, all.Count(v => WorkVersions.IsOfRecord(v)));
        Assert.Equal(2, all.Count(v => WorkVersions.IsBeforeReview(v)));
        Assert.False(WorkVersions.IsOfRecord(null) || WorkVersions.IsBeforeReview(null));
        // Written down in stores: these three never change their numbers.
        Assert.Equal(
            (0, 1, 2),
            (
                (int)WorkVersion.SubmittedManuscript,
                (int)WorkVersion.AcceptedManuscript,
                (int)WorkVersion.VersionOfRecord
            )
        );
    }

    [Theory]
    [InlineData("Uncorrected proof|A title", WorkVersion.Proof)]
    [InlineData(
        "This is a corrected version. Received 1 May 2001; accepted 3 June 2001",
        WorkVersion.CorrectedVersionOfRecord
    )]
    [InlineData("Enhanced version of record", WorkVersion.EnhancedVersionOfRecord)]
    [InlineData("Author's original manuscript, not submitted", WorkVersion.AuthorsOriginal)]
    [InlineData("Fool-proof traps for moths|Received 1 May 2001; accepted 3 June 2001", WorkVersion.VersionOfRecord)]
    public void What_a_page_says_of_itself_comes_before_what_it_looks_like(string lines, WorkVersion version)
    {
        var first = lines.Split('|');
        Assert.Equal(
            version,
            VersionSigns.Of(
                new()
                {
                    Pages = 3,
                    Lines = [.. first.Select(l => new DocumentLine(l, 1, 10, false))],
                    WordCount = 900,
                }
            )
        );
    }

    private static Copy At(CopyAccess access, WorkVersion? version) => new("http://h.example/1", access, version);

    [Fact]
    public void The_best_copy_speaks_for_how_a_text_can_be_had()
    {
        string Said(params Copy[] copies) => TextAtHand.Words[TextAtHand.Best(copies)];
        Assert.Equal("nothing known", Said());
        Assert.Equal("not free", Said(At(CopyAccess.Closed, WorkVersion.VersionOfRecord)));
        Assert.Equal(
            "free, accepted manuscript",
            Said(
                At(CopyAccess.Closed, WorkVersion.VersionOfRecord),
                At(CopyAccess.Free, WorkVersion.AcceptedManuscript),
                At(CopyAccess.Free, null)
            )
        );
        Assert.Equal("free, submitted manuscript", Said(At(CopyAccess.Free, WorkVersion.AuthorsOriginal)));
        Assert.Equal("free, version of record", Said(At(CopyAccess.Free, WorkVersion.CorrectedVersionOfRecord)));
        Assert.Equal("free, proof", Said(At(CopyAccess.Free, WorkVersion.Proof)));
        Assert.Equal(
            "free, version not said",
            Said(At(CopyAccess.Free, null), At(CopyAccess.Unknown, WorkVersion.VersionOfRecord))
        );
    }

    [Theory]
    [InlineData("Mei K.", "Berg, M. K.")]
    [InlineData("Jean-Luc", "Berg, J.-L.")]
    [InlineData("", "Berg")]
    [InlineData("é", "Berg, É.")]
    public void A_name_is_shown_with_initials(string given, string shown) =>
        Assert.Equal(shown, new PersonName("Berg", given).Short);

    [Theory]
    [InlineData("A <i>b</i> c", "A b c")]
    [InlineData("p &lt; 0.05 &amp;amp; more", "p < 0.05 & more")]
    [InlineData("  many\n\t spaces ", "many spaces")]
    [InlineData("bell\u0007 and \u202Eturn", "bell and turn")]
    [InlineData("a < b and c > d", "a < b and c > d")]
    [InlineData(null, "")]
    public void Texts_of_databases_are_made_plain(string? text, string plain) =>
        Assert.Equal(plain, PlainText.Clean(text));

    [Fact]
    public void Plain_text_stays_as_it_is() =>
        Gen.String.Sample(
            text =>
            {
                var once = PlainText.Clean(text);
                Assert.DoesNotContain(once, c => char.IsControl(c));
                Assert.Equal(once.Trim(), once);
            },
            iter: 2_000
        );

    [Fact]
    public void A_title_and_a_person_have_one_key_however_they_are_spelt()
    {
        var key = MergeKeys.TitleAndPerson("Light-trap catches of moths", "Ouverleaux-Tann");
        Assert.NotEqual(0UL, key);
        Assert.Equal(key, MergeKeys.TitleAndPerson("LIGHT TRAP CATCHES OF MOTHS.", "OUVERLEAUX TANN"));
        Assert.NotEqual(key, MergeKeys.TitleAndPerson("Light-trap catches of bats", "Ouverleaux-Tann"));
        Assert.NotEqual(key, MergeKeys.TitleAndPerson("Light-trap catches of moths", "Berg"));
        Assert.Equal(0UL, MergeKeys.TitleAndPerson("Two words", "Berg")); // too short to tell works apart
        Assert.Equal(0UL, MergeKeys.TitleAndPerson("Three words here", null));
        Assert.Equal((0UL, MergeKeys.Doi("10.5555/a")), (MergeKeys.Doi(null), MergeKeys.Doi("10.5555/a")));
        Assert.NotEqual(MergeKeys.Doi("10.5555/a"), MergeKeys.Doi("10.5555/b"));
    }

    [Fact]
    public void Two_hundred_thousand_keys_do_not_meet()
    {
        var keys = new HashSet<ulong>();
        for (var i = 0; i < 200_000; i++)
            Assert.True(keys.Add(MergeKeys.Doi($"10.5555/{i}")));
    }

    [Fact]
    public void Dublin_core_of_any_repository_is_read()
    {
        XNamespace dc = DublinCoreReader.Dc;
        var record = DublinCoreReader.Read(
            new XElement(
                "dc",
                new XElement(dc + "title", "[Motten und Licht]"),
                new XElement(dc + "creator", "Berg, Mei"),
                new XElement(dc + "creator", " "),
                new XElement(dc + "date", "c. 1998-04"),
                new XElement(dc + "type", "thing"),
                new XElement(dc + "type", "doctoral thesis"),
                new XElement(dc + "language", "de"),
                new XElement(dc + "identifier", "https://doi.org/10.5555/X.9"),
                new XElement(dc + "identifier", "urn:x"),
                new XElement(dc + "relation", "cites 10.5555/y.1"),
                new XElement(dc + "relation", "nothing"),
                new XElement(dc + "source", "Verge")
            ),
            "oai:x:1",
            DateTimeOffset.UnixEpoch
        );
        Assert.Equal(
            ("Motten und Licht", true, 1998, DocumentType.Thesis, "ger", "10.5555/x.9", "Verge"),
            (
                record.Title,
                record.TitleIsTranslated,
                record.Year!.Value,
                record.Type,
                record.Language,
                record.Doi,
                record.Venue!.Title
            )
        );
        Assert.Equal("Berg", Assert.Single(record.People).Family);
        Assert.Equal("10.5555/y.1", Assert.Single(record.References).Doi);
        Assert.Empty(record.Copies); // a DOI leads to the text from wherever it lies; it is no place of its own
    }

    [Fact]
    public void An_empty_record_is_an_empty_record()
    {
        var record = DublinCoreReader.Read(new XElement("dc"), "oai:x:2", DateTimeOffset.UnixEpoch);
        Assert.Equal(("", null, DocumentType.Other), (record.Title, record.Year, record.Type));
        Assert.Empty(record.People);
        Assert.Empty(record.Copies);
    }
}
