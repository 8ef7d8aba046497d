extern alias outside;
using outside::Zendle.Outside.Oai;
using outside::Zendle.Outside.World;
using outside::Zendle.Outside.World.Databases;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;

namespace Zendle.Server.Tests;

/// <summary>
/// The databases of the outside differ as real ones do, and what they send is read back as it was meant.
/// </summary>
public sealed class DatabaseViewsTests
{
    private static readonly Scenario Scenario = Scenario.Read(Path.Combine(Root.Folder, "demo"));
    private static readonly IReadOnlyList<Work> Works = WorldMaker.Make(Scenario, 5, 2_500);
    private static readonly IReadOnlyDictionary<string, OutsideDatabase> Databases = DatabaseViews
        .Make(Works, 5)
        .ToDictionary(d => d.Key);

    private static IReadOnlyList<Entry> Now(string key, int days = 0) =>
        [.. Databases[key].At(DatabaseViews.Start.AddDays(days)).Where(e => !e.Deleted)];

    private static Zendle.Core.Records.Record Read(Entry e) =>
        ModsReader.Read(Metadata.Mods(e, Databases["farnet"], "http://outside.example"), e.Identifier, e.Datestamp);

    [Fact]
    public void An_extract_holds_nothing_that_what_it_is_taken_from_does_not_hold()
    {
        var index = Now("lifeleaf").Select(e => e.Own).ToHashSet();
        Assert.All(Now("select"), e => Assert.Contains(e.Own, index));
        Assert.InRange(Now("select").Count, Now("lifeleaf").Count / 5, Now("lifeleaf").Count / 2);
        // It carries the numbers of what it is taken from, so the two know each other's records without a DOI.
        Assert.All(Now("select"), e => Assert.StartsWith("oai:select:", e.Identifier, StringComparison.Ordinal));
    }

    [Fact]
    public void The_curated_index_holds_journals_only_with_counts_keywords_and_references_in_parts()
    {
        Assert.All(
            Now("meridian"),
            e =>
            {
                Assert.NotNull(e.Work.Journal);
                Assert.True(e.Work.Journal!.Curated);
                Assert.NotNull(e.Cited);
                Assert.Equal(ReferenceForm.Parts, e.ReferencesAs);
                Assert.Equal([e.Work.Topic.Area], e.Descriptors);
            }
        );
        Assert.All(Now("meridian").Where(e => e.Work.Year < 1985), e => Assert.Empty(e.Abstract));
    }

    [Fact]
    public void Titles_in_other_languages_are_bracketed_by_one_database_and_original_in_another()
    {
        var foreign = Now("lifeleaf").Where(e => e.Work.Translated is not null).ToArray();
        Assert.NotEmpty(foreign);
        Assert.All(
            foreign,
            e =>
            {
                Assert.Equal($"[{e.Work.Translated}].", e.Title);
                var read = Read(e);
                Assert.Equal((e.Work.Translated, true), (read.Title, read.TitleIsTranslated));
                Assert.Contains(e.Work.Title, read.OtherTitles);
            }
        );
        Assert.Contains(Now("harbour"), e => e.Work.Translated is not null && e.Title == e.Work.Title);
    }

    [Fact]
    public void The_broad_crawl_meets_works_twice_knows_some_from_lists_only_and_gets_years_wrong()
    {
        var farnet = Now("farnet");
        Assert.Contains(farnet, e => e.Identifier.EndsWith("-b", StringComparison.Ordinal));
        var only = farnet.Where(e => e.OnlyCited).ToArray();
        Assert.NotEmpty(only);
        Assert.All(
            only,
            e =>
            {
                var read = Read(e);
                Assert.True(read.IsOnlyCited);
                Assert.Equal(("", 1), (read.Abstract, read.People.Count));
                Assert.Empty(read.Copies);
            }
        );
        var wrong = farnet.Count(e =>
            e.Year != e.Work.Year && !e.Identifier.EndsWith("-pre", StringComparison.Ordinal)
        );
        Assert.InRange(wrong, farnet.Count / 200, farnet.Count / 15);
    }

    [Fact]
    public void The_repository_has_texts_and_versions_and_the_catalogue_books_with_their_chapters()
    {
        Assert.All(
            Now("harbour"),
            e => Assert.Equal(e.OpensOn is null ? "free" : "embargoed", Assert.Single(e.Copies).Access)
        );
        Assert.Contains(Now("harbour"), e => e.OpensOn is not null);
        Assert.Equal(
            ["accepted manuscript", "preprint", "version of record"],
            Now("harbour").Select(e => e.Version!).Distinct().Order(StringComparer.Ordinal)
        );
        var book = Now("union").First(e => e.Contents.Length > 1);
        Assert.Equal(book.Contents, Read(book).Contents);
        Assert.All(Now("union"), e => Assert.Contains(e.Work.Type, new[] { "book", "chapter", "thesis", "report" }));
        // Catalogues write names inverted, with years of a life; the reader takes the years off.
        Assert.All(
            Now("union").Take(50),
            e => Assert.All(Read(e).People, p => Assert.DoesNotContain(p.Given, char.IsDigit))
        );
    }

    [Fact]
    public void What_is_sent_is_read_back_as_it_was_meant()
    {
        foreach (var e in Databases.Values.SelectMany(d => Now(d.Key)).Where((_, i) => i % 3 == 0))
        {
            var read = Read(e);
            // Where a database writes a date in words, that date is what it says.
            Assert.Equal((int?)(e.Date is null ? e.Year : e.Work.Year), read.Year);
            Assert.Equal(e.Doi is null ? null : Identifiers.Doi(e.Doi), read.Doi);
            Assert.Equal(PlainText.Clean(e.Abstract), read.Abstract);
            Assert.Equal(e.People.Count, read.People.Count);
            Assert.Equal(e.Cited, read.CitedCount);
            Assert.Equal(e.Copies.Count, read.Copies.Count);
            // What a publisher sells opens on no day.
            Assert.Equal(
                e.Copies.Select(c => c.Access == "embargoed" ? e.OpensOn : null),
                read.Copies.Select(c => c.OpensOn)
            );
            Assert.Equal(e.Work.Language, read.Language);
            Assert.Equal(
                e.People.Select(p => MergeKeys.PersonKey(p.Family)[..2]),
                read.People.Select(p => MergeKeys.PersonKey(p.Family)[..2])
            );
            Assert.DoesNotContain(read.Notes, n => n.Contains("no title", StringComparison.Ordinal));
            if (e.ReferencesAs == ReferenceForm.Printed)
                Assert.Equal(e.References.Count, read.References.Count);
        }
    }

    [Fact]
    public void Time_brings_new_works_counts_corrections_and_deletions()
    {
        foreach (var key in new[] { "farnet", "meridian" })
        {
            var (before, after) = (
                Now(key).ToDictionary(e => e.Identifier),
                Now(key, 62).ToDictionary(e => e.Identifier)
            );
            Assert.Contains(after.Keys, k => !before.ContainsKey(k));
            Assert.Contains(before.Keys, k => !after.ContainsKey(k));
            Assert.Contains(before, b => after.TryGetValue(b.Key, out var then) && then.Cited > b.Value.Cited);
        }
        Assert.Contains(
            Works.TakeLast(Works.Count / 40),
            w => w.Type is "correction" or "retraction notice" || w.About >= 0 || w.Type == "article"
        );
        // A deleted entry is told, not gone: a harvester that never heard of it has to hear of it.
        Assert.Contains(Databases["farnet"].At(DatabaseViews.Start.AddDays(62)), e => e.Deleted);
    }

    [Fact]
    public void Notices_say_what_they_speak_of()
    {
        var notices = Now("meridian").Concat(Now("farnet")).Where(e => e.Work.About >= 0 && !e.OnlyCited).ToArray();
        Assert.NotEmpty(notices);
        Assert.All(
            notices,
            e =>
            {
                var tie = Assert.Single(Read(e).Related, r => r.Kind == "preceding");
                Assert.Equal(PlainText.Clean(Works[e.Work.About].Title).TrimEnd('.'), tie.Title!.TrimEnd('.'));
            }
        );
    }

    [Fact]
    public void Twice_the_noise_is_about_twice_the_slips()
    {
        int Slipped(double noise) =>
            DatabaseViews
                .Make(Works, 5, noise)
                .Single(d => d.Key == "farnet")
                .At(DatabaseViews.Start)
                .Count(e => !e.Deleted && e.Title != e.Work.Title && e.Work.Translated is null);
        var (quiet, usual, loud) = (Slipped(0), Slipped(1), Slipped(2));
        Assert.True(quiet < usual / 2, $"{quiet} slips without noise, {usual} as usual");
        Assert.InRange(loud, usual * 14 / 10, usual * 26 / 10);
    }

    [Fact]
    public void The_vocabulary_is_one_tree_and_every_term_given_stands_in_it()
    {
        var skos = System.Xml.Linq.XNamespace.Get("http://www.w3.org/2004/02/skos/core#");
        var rdf = System.Xml.Linq.XNamespace.Get("http://www.w3.org/1999/02/22-rdf-syntax-ns#");
        var tree = Vocabulary.Skosified(Scenario, "http://outside.example");
        var concepts = tree.Root!.Elements(skos + "Concept").ToDictionary(c => (string)c.Attribute(rdf + "about")!);
        var labels = concepts
            .Values.Select(c => c.Element(skos + "prefLabel")!.Value)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        Assert.All(
            concepts.Values.SelectMany(c => c.Elements(skos + "broader")),
            b => Assert.Contains((string)b.Attribute(rdf + "resource")!, concepts.Keys)
        );
        Assert.All(Now("lifeleaf").SelectMany(e => e.Descriptors).Distinct(), d => Assert.Contains(d, labels));
    }

    [Fact]
    public void Printed_references_come_in_five_styles_and_strays_name_nobody_we_know()
    {
        var citing = Works.Where(w => w.Cites.Length > 3).ToArray();
        var texts = citing.Take(200).Select(w => PrintedReferences.Of(w, 0, Works[w.Cites[0]], 0)).ToArray();
        Assert.Contains(texts, t => t.Contains("In: ", StringComparison.Ordinal));
        Assert.Contains(texts, t => System.Text.RegularExpressions.Regex.IsMatch(t, @"\d{4};\d+:\d+-\d+"));
        Assert.Contains(texts, t => System.Text.RegularExpressions.Regex.IsMatch(t, @"\(\d{4}\)\. "));
        Assert.All(
            texts,
            t =>
                Assert.DoesNotContain(
                    "..",
                    t.Replace("...", "", StringComparison.Ordinal)
                        .Replace(". .", "", StringComparison.Ordinal)[..^1]
                        .Replace("et al..", "", StringComparison.Ordinal)[..10],
                    StringComparison.Ordinal
                )
        );
        var stray = PrintedReferences.Of(citing[0], citing[0].Cites.Length, null);
        Assert.Contains("Office", stray, StringComparison.Ordinal);
        Assert.Equal(stray, PrintedReferences.Of(citing[0], citing[0].Cites.Length, null));
    }
}
