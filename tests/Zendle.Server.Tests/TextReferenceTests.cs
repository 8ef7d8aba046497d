extern alias outside;
using System.Globalization;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using outside::Zendle.Outside.Documents;
using outside::Zendle.Outside.World;
using outside::Zendle.Outside.World.Databases;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A repository whose records carry no references at all (bare Dublin Core): once its texts are gathered, what they cite
/// makes trails.
/// </summary>
public sealed class TextReferenceTests : IAsyncLifetime
{
    private const int Size = 700,
        Seed = 6;

    private static readonly IReadOnlyList<Work> World = Companions.With(
        WorldMaker.Make(Scenario.Read(Path.Combine(Root.Folder, "demo")), Seed, Size),
        Seed,
        1
    );

    private OutsideHost outsideHost = null!;
    private ZendleHost host = null!;
    private Visitor ann = null!;
    private int review;

    public async ValueTask InitializeAsync()
    {
        outsideHost = await OutsideHost.Start(works: Size, seed: Seed);
        host = new(outsideHost.Address.ToString());
        ann = await host.Curator();
        await ann.Harvest(outsideHost.Oai("harbour"), format: "oai_dc");
        review = await ann.Review();
    }

    public async ValueTask DisposeAsync()
    {
        await host.DisposeAsync();
        await outsideHost.DisposeAsync();
    }

    /// <summary>Which works of the world the works of the corpus are, by the identifiers of their records.</summary>
    private async Task<Dictionary<int, Work>> Truth(IEnumerable<int> works)
    {
        var truth = new Dictionary<int, Work>();
        foreach (var work in works)
        {
            var record = (await ann.Get($"/api/works/{work}/records")).List("records").First();
            var number = int.Parse(record.Text("identifier").Split('-')[^1], CultureInfo.InvariantCulture);
            truth[work] = World.Single(w => w.Id == number);
        }
        return truth;
    }

    private static bool LeavesTitlesOut(Work work) =>
        work
            .Cites.Select((c, i) => (Cited: World[c], Printed: PrintedReferences.Of(work, i, World[c])))
            .Where(r => r.Cited.Journal is not null)
            .All(r => !r.Printed.Contains(r.Cited.Title[..8], StringComparison.Ordinal));

    private static bool HasATwin(Work work) => work.CompanionOf >= 0 || World.Any(w => w.CompanionOf == work.Id);

    private async Task<int> Today(int work) => (await ann.Get($"/api/reviews/{review}/works/{work}")).Int("id");

    private async Task<Dictionary<int, JsonNode>> Gather(int[] works)
    {
        await ann.Decide(review, "Keep", works);
        await ann.Ok("POST", $"/api/reviews/{review}/gather", new { works, again = false });
        for (var i = 0; i < 2_400; i++)
        {
            var all = await ann.Get($"/api/reviews/{review}/gather");
            if (all["job"]?["endedAt"] is not null)
                return all.List("works").ToDictionary(w => w.Int("workId"));
            await Task.Delay(50);
        }
        throw new TimeoutException("Gathering did not end in two minutes.");
    }

    [Fact]
    public async Task Texts_make_the_trails_that_bare_records_cannot()
    {
        var all = await ann.AllWorks(review, await ann.Search(review, ""));
        var truth = await Truth(all);
        int[] wanted = [.. truth.Where(t => t.Value.Cites.Length > 4).Select(t => t.Key).Order().Take(40)];
        Assert.Equal(40, wanted.Length);
        foreach (var work in wanted.Take(3))
            Assert.Equal(0, (await ann.Get($"/api/reviews/{review}/works/{work}")).Int("citesCount"));

        var rows = await Gather(wanted);
        int[] got = [.. wanted.Where(w => rows[w].Text("state") == "InHand")];
        Assert.InRange(got.Length, 25, 40);

        // Backward: what the texts cite, as far as the repository has it; recounted from the world itself.
        var known = truth.GroupBy(t => t.Value.Id).ToDictionary(g => g.Key, g => g.First().Key);
        var (right, wrong, missed) = (0, 0, 0);
        var ties = 0;
        foreach (var work in got)
        {
            var cites = await ann.AllWorks(review, await ann.Follow(review, "Backward", work));
            var should = truth[work].Cites.Where(known.ContainsKey).Select(c => known[c]).ToHashSet();
            should.Remove(work);
            right += cites.Count(should.Contains);
            wrong += cites.Count(c => !should.Contains(c));
            // Lists that leave titles out give volume and page instead, and bare records have neither; nor can two papers be
            // told apart without them that differ in a word.
            if (!LeavesTitlesOut(truth[work]))
                missed += should.Count(c => !cites.Contains(c) && !HasATwin(truth[c]));
            ties += cites.Count;
            Assert.Equal(cites.Count, (await ann.Get($"/api/reviews/{review}/works/{work}")).Int("citesCount"));
        }
        Assert.True(right > 60, $"{right} right");
        Assert.True(wrong <= right * 0.01, $"{wrong} wrong of {right}");
        Assert.True(missed <= right * 0.05, $"{missed} missed beside {right}");

        // Forward: who of the gathered cites a work, the other way round; the ledger says from where that is known.
        var back = await ann.Follow(review, "Backward", got);
        var ledger = (await ann.Get($"/api/reviews/{review}/steps/{back}"))["ledger"]!;
        var line = ledger.List("databases").Single(l => l.Text("name") == "From the text");
        Assert.Equal(ties, line.Int("records"));
        Assert.Equal(await ann.Count(review, back), line.Int("works"));
        var cited = (await ann.Works(review, back, "sort=Ties&limit=1"))[0];
        var citing = await ann.AllWorks(review, await ann.Follow(review, "Forward", cited));
        Assert.NotEmpty(citing);
        foreach (var work in got)
            Assert.Equal(
                citing.Contains(work),
                (await ann.AllWorks(review, await ann.Follow(review, "Backward", work))).Contains(cited)
            );

        // On the work itself: each reference says that it was read from the text.
        var references = await ann.Get($"/api/reviews/{review}/works/{got[0]}/references");
        Assert.NotEmpty(references.List("references"));
        Assert.All(
            references.List("references"),
            r => Assert.Equal(["From the text"], r["databases"]!.AsArray().Select(d => d!.GetValue<string>()))
        );

        await Says_what_is_said_where_it_is_cited(truth, cited, citing);
        await Comes_back_with_a_lost_corpus(got[0], references.List("references").Count());
        await Goes_with_its_text(got[0]);
        await Gives_way_to_the_references_of_a_record(got);
    }

    /// <summary>Sentences that cite a work name it, and words near them narrow its forward trail.</summary>
    private async Task Says_what_is_said_where_it_is_cited(Dictionary<int, Work> truth, int cited, HashSet<int> citing)
    {
        var named = InTextCitations.NameAndYear(truth[cited]);
        var forward = await ann.Follow(review, "Forward", cited);
        var said = await ann.Get($"/api/reviews/{review}/steps/{forward}/said");
        var texts = said.List("texts").ToDictionary(t => t.Int("workId"));
        Assert.NotEmpty(texts);
        Assert.True(texts.Keys.ToHashSet().IsSubsetOf(citing));
        foreach (var sentence in texts.Values.SelectMany(t => t.List("sentences")))
        {
            Assert.Contains(named, sentence["text"]!.Text("text"), StringComparison.Ordinal);
            Assert.Equal([1], sentence["seeds"]!.AsArray().Select(n => n!.GetValue<int>()));
        }
        // The same sentences, asked of the work itself.
        Assert.Equal(
            texts.Values.Sum(t => t.List("sentences").Count()),
            (await ann.Get($"/api/reviews/{review}/works/{cited}/said"))
                .List("texts")
                .Sum(t => t.List("sentences").Count())
        );
        // Who is named stands in each of the sentences; what nobody says narrows to nothing.
        foreach (
            var (words, left) in new[] { (truth[cited].People[0].Family, texts.Keys.Order().ToArray()), ("zzyzx", []) }
        )
        {
            var step = await ann.Step(review, forward, new { kind = "WhereItCites", words });
            Assert.Equal(left, (await ann.AllWorks(review, step)).Order());
            Assert.Equal(left.Length, await ann.Count(review, step));
        }
        var one = texts.First();
        var word = one.Value.List("sentences").First()["text"]!.Text("text").Split(' ')[0].Trim(',', '.');
        var near = await ann.Step(review, forward, new { kind = "WhereItCites", words = $"\"{word}\"" });
        Assert.Contains(one.Key, await ann.AllWorks(review, near));
        Assert.All(
            (await ann.Get($"/api/reviews/{review}/steps/{near}/said")).List("texts"),
            t => Assert.Contains(t.Int("workId"), texts.Keys)
        );
        // All that cite it have a text and were asked; in both ways too, where the works it cites have texts as well.
        var both = await ann.Get($"/api/reviews/{review}/steps/{await ann.Follow(review, "Both", cited)}/said");
        foreach (var told in new[] { said, both })
            Assert.Equal((citing.Count, texts.Count), (told.Int("asked"), told.Int("total")));
        // A search cites nobody.
        var search = await ann.Search(review, "moth*");
        Assert.Equal(0, (await ann.Get($"/api/reviews/{review}/steps/{search}/said")).Int("asked"));
        // Nothing of another review's texts is told.
        var other = await ann.Review("Another");
        Assert.Empty((await ann.Get($"/api/reviews/{other}/works/{cited}/said")).List("texts"));
    }

    /// <summary>Without corpus.db the lists come back from zendle.db when the repository is harvested again.</summary>
    private async Task Comes_back_with_a_lost_corpus(int work, int references)
    {
        var data = host.Data;
        host = host.Restarted(() =>
        {
            SqliteConnection.ClearAllPools();
            foreach (var file in Directory.GetFiles(data, "corpus.db*"))
                File.Delete(file);
        });
        ann = await host.SignedIn();
        await ann.Harvest(outsideHost.Oai("harbour"), format: "oai_dc");
        var again = await ann.Get($"/api/reviews/{review}/works/{await Today(work)}/references");
        Assert.Equal(references, again.List("references").Count());
    }

    /// <summary>A text that turns out to be another work's takes its references along.</summary>
    private async Task Goes_with_its_text(int work)
    {
        work = await Today(work);
        var text = (await ann.Get($"/api/reviews/{review}/gather")).List("works").Single(w => w.Int("workId") == work)[
            "texts"
        ]!.AsArray()[0]!.Int("id");
        await ann.Ok("POST", $"/api/reviews/{review}/texts/{text}/settle", new { answer = "Not" });
        Assert.Empty((await ann.Get($"/api/reviews/{review}/works/{work}/references")).List("references"));
        Assert.Equal(0, (await ann.Get($"/api/reviews/{review}/works/{work}")).Int("citesCount"));
    }

    /// <summary>As soon as a database brings the references of a work, its text is not asked any more.</summary>
    private async Task Gives_way_to_the_references_of_a_record(int[] got)
    {
        await ann.Harvest(outsideHost.Oai("farnet"));
        var checkedBoth = 0;
        foreach (var old in got.Skip(1))
        {
            var work = await Today(old);
            var from = (await ann.Get($"/api/reviews/{review}/works/{work}/references"))
                .List("references")
                .SelectMany(r => r["databases"]!.AsArray().Select(d => d!.GetValue<string>()))
                .Distinct()
                .ToArray();
            Assert.True(from.Length <= 1 || !from.Contains("From the text"), string.Join(", ", from));
            if (from.Length > 0 && from[0] != "From the text")
                checkedBoth++;
        }
        Assert.True(checkedBoth > 0);
    }
}
