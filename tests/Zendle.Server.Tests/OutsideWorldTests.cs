extern alias outside;
using System.Net;
using System.Text.Json.Nodes;
using outside::Zendle.Outside.Documents;
using outside::Zendle.Outside.World;
using Zendle.Connect.Fetch;
using Zendle.Core.Records;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// The outside keeps to what it promises: one seed, one world; landing pages that speak to machines; texts that are the
/// work's.
/// </summary>
public sealed class OutsideWorldTests(OutsideWorldTests.World world) : IClassFixture<OutsideWorldTests.World>
{
    public sealed class World : IAsyncLifetime
    {
        public OutsideHost Host { get; private set; } = null!;

        public HttpClient Http { get; } = new(new HttpClientHandler { AllowAutoRedirect = false });

        public JsonNode[] Copies { get; private set; } = [];

        public async ValueTask InitializeAsync()
        {
            Host = await OutsideHost.Start(works: 400, seed: 5);
            Http.BaseAddress = Host.Address;
            Copies = [.. JsonNode.Parse(await Http.GetStringAsync("/copies"))!.AsArray().Select(c => c!)];
        }

        public async ValueTask DisposeAsync()
        {
            Http.Dispose();
            await Host.DisposeAsync();
        }
    }

    private static readonly Scenario Scenario = Scenario.Read(Path.Combine(Root.Folder, "demo"));

    private string Path_(string kind, string start = "/publisher", bool open = true) =>
        world
            .Copies.First(c =>
                c.Text("kind") == kind
                && c.Text("path").StartsWith(start, StringComparison.Ordinal)
                && c["open"]!.GetValue<bool>() == open
            )
            .Text("path");

    [Fact]
    public void The_same_seed_is_the_same_world_and_another_seed_another()
    {
        string Told(ulong seed) =>
            string.Join(
                '\n',
                WorldMaker
                    .Make(Scenario, seed, 300)
                    .Select(w =>
                        $"{w.Title}|{w.Abstract}|{string.Join(';', w.People.Select(p => p.Family))}|{w.Doi}|{string.Join(',', w.Cites)}"
                    )
            );
        Assert.Equal(Told(7), Told(7));
        Assert.NotEqual(Told(7), Told(8));
    }

    [Fact]
    public void Nothing_in_the_world_cites_what_comes_later_or_itself_and_every_identifier_is_valid_and_unique()
    {
        var works = WorldMaker.Make(Scenario, 9, 600);
        Assert.All(works, w => Assert.All(w.Cites, c => Assert.True(c < w.Id && works[c].Year <= w.Year)));
        var dois = works.SelectMany(w => new[] { w.Doi, w.PreprintDoi }).OfType<string>().ToArray();
        Assert.Equal(dois.Length, dois.Distinct().Count());
        Assert.All(dois, d => Assert.Equal(d, Identifiers.Doi(d)));
        Assert.All(dois, d => Assert.StartsWith("10.5555/", d, StringComparison.Ordinal));
        Assert.All(
            works.Select(w => w.Journal?.Issn).OfType<string>().Distinct(),
            i => Assert.Equal(i, Identifiers.Issn(i))
        );
        Assert.All(
            works.SelectMany(w => w.People).Select(p => p.Orcid).OfType<string>().Distinct(),
            o => Assert.Equal(o, Identifiers.Orcid(o))
        );
        // A title stands twice only where one study is reported twice, where others asked the same question, or where it
        // says no more than "Editorial".
        Assert.All(
            works.GroupBy(w => w.Title, StringComparer.OrdinalIgnoreCase).Where(g => g.Count() > 1),
            g =>
                Assert.True(
                    g.All(w => w.Type == "editorial")
                        || g.Select(w => (w.Study.Things, w.Study.Response, w.Study.Factor)).Distinct().Count() == 1,
                    g.Key
                )
        );
    }

    [Theory]
    [InlineData(0317847, "0317-8471")] // ISO 3297, example
    [InlineData(2434561, "2434-561X")]
    public void An_issn_gets_its_check_digit(int seven, string issn) => Assert.Equal(issn, CheckDigits.Issn(seven));

    [Theory]
    [InlineData(000000021825009, "0000-0002-1825-0097")] // ISO 7064 MOD 11-2, the registry's own example of the form
    [InlineData(000000021694233, "0000-0002-1694-233X")]
    public void An_orcid_id_gets_its_check_digit(long fifteen, string orcid) =>
        Assert.Equal(orcid, CheckDigits.Orcid(fifteen));

    [Fact]
    public void Streams_of_numbers_for_two_purposes_do_not_follow_each_other()
    {
        var dice = new Dice(3);
        int[] Throw(Dice d) => [.. Enumerable.Range(0, 50).Select(_ => d.Below(1_000))];
        Assert.Equal(Throw(dice.For("a", 1)), Throw(new Dice(3).For("a", 1)));
        var (first, second, third) = (Throw(dice.For("a", 1)), Throw(dice.For("a", 2)), Throw(dice.For("b", 1)));
        foreach (var shift in Enumerable.Range(0, 5))
            Assert.True(
                first.Skip(shift).Zip(second).Count(p => p.First == p.Second) < 5
                    && first.Skip(shift).Zip(third).Count(p => p.First == p.Second) < 5
            );
        Assert.All(Enumerable.Range(0, 1_000).Select(_ => dice.Between(3, 5)), n => Assert.InRange(n, 3, 5));
        Assert.InRange(Enumerable.Range(0, 10_000).Count(_ => dice.Chance(0.25)), 2_300, 2_700);
    }

    [Fact]
    public async Task A_landing_page_says_to_machines_what_it_says_to_people()
    {
        var path = Path_("fine");
        using var reply = await world.Http.GetAsync(path);
        var signs = Signposts.Read(
            new(world.Host.Address, path),
            reply.Headers.GetValues("Link"),
            await reply.Content.ReadAsStringAsync()
        );
        Assert.Equal(new Uri(world.Host.Address, path + "/text.pdf"), signs.Texts[0].Address);
        Assert.True(signs.IsFree);
        Assert.Null(signs.Price);
        Assert.Superset(
            new HashSet<string> { "type", "item", "license", "describedby" },
            signs.Links.Select(l => l.Rel).ToHashSet()
        );
        Assert.Equal(
            "https://schema.org/ScholarlyArticle",
            signs.Links.Single(l => l.Rel == "type").Address.AbsoluteUri
        );
        var described = JsonNode.Parse(
            await world.Http.GetStringAsync(signs.Links.Single(l => l.Rel == "describedby").Address)
        )!;
        Assert.Contains(
            WebUtility.HtmlEncode(described.Text("title")),
            await reply.Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
        foreach (var author in signs.Links.Where(l => l.Rel == "author"))
            Assert.NotNull(Identifiers.Orcid(author.Address.AbsoluteUri));
    }

    [Fact]
    public async Task A_doi_resolves_to_its_landing_page_and_an_unknown_one_to_nothing()
    {
        var path = world
            .Copies.Select(c => c.Text("path"))
            .First(p => p.StartsWith("/publisher", StringComparison.Ordinal));
        using var page = await world.Http.GetAsync(path);
        var cite = Signposts
            .Read(new(world.Host.Address, path), page.Headers.TryGetValues("Link", out var links) ? links : [], "")
            .Links.FirstOrDefault(l => l.Rel == "cite-as");
        for (var i = 0; cite is null; i++)
        {
            path = world.Copies[i].Text("path");
            using var next = await world.Http.GetAsync(path);
            cite = next.Headers.TryGetValues("Link", out links)
                ? Signposts.Read(new(world.Host.Address, path), links, "").Links.FirstOrDefault(l => l.Rel == "cite-as")
                : null;
        }
        using var resolved = await world.Http.GetAsync(cite.Address);
        Assert.Equal(
            (HttpStatusCode.Redirect, path.Split('/')[^1]),
            (resolved.StatusCode, resolved.Headers.Location!.OriginalString.Split('/')[^1])
        );
        Assert.Equal(HttpStatusCode.NotFound, (await world.Http.GetAsync("/doi/10.5555/nothing.here")).StatusCode);
    }

    [Fact]
    public async Task What_is_sold_has_a_price_and_no_text()
    {
        var path = Path_("fine", open: false);
        using var page = await world.Http.GetAsync(path);
        var signs = Signposts.Read(
            new(world.Host.Address, path),
            page.Headers.GetValues("Link"),
            await page.Content.ReadAsStringAsync()
        );
        Assert.Matches(@"^\d\d EUR$", signs.Price);
        Assert.False(signs.IsFree);
        Assert.DoesNotContain(signs.Links, l => l.Rel == "license");
        using var text = await world.Http.GetAsync(path + "/text.pdf");
        Assert.Equal(HttpStatusCode.PaymentRequired, text.StatusCode);
    }

    [Fact]
    public async Task Each_kind_of_copy_is_what_it_is_called()
    {
        var path = Path_("fine");
        async Task<HttpResponseMessage> Get(string kind)
        {
            (await world.Http.PostAsync($"/copies?path={path}&kind={kind}", null)).EnsureSuccessStatusCode();
            return await world.Http.GetAsync(path + "/text.pdf");
        }
        var whole = await (await Get("fine")).Content.ReadAsByteArrayAsync();
        Assert.Equal("%PDF", System.Text.Encoding.ASCII.GetString(whole[..4]));
        Assert.True((await (await Get("truncated")).Content.ReadAsByteArrayAsync()).Length < whole.Length);
        Assert.Empty(await (await Get("empty")).Content.ReadAsByteArrayAsync());
        Assert.Equal("text/html", (await Get("html")).Content.Headers.ContentType!.MediaType);
        Assert.Equal(HttpStatusCode.Forbidden, (await Get("sign-in")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await Get("dead")).StatusCode);
        using (var wait = await Get("wait"))
            Assert.Equal(
                (HttpStatusCode.TooManyRequests, TimeSpan.FromSeconds(2)),
                (wait.StatusCode, wait.Headers.RetryAfter!.Delta)
            );
        Assert.Equal(HttpStatusCode.OK, (await world.Http.GetAsync(path + "/text.pdf")).StatusCode); // the second time it gives
        Assert.NotEqual(whole, await (await Get("wrong")).Content.ReadAsByteArrayAsync());
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await world.Http.PostAsync($"/copies?path={path}&kind=nonsense", null)).StatusCode
        );
        Assert.Contains("by hand", await world.Http.GetStringAsync("/"), StringComparison.Ordinal);
        Assert.Equal(whole, await (await Get("fine")).Content.ReadAsByteArrayAsync());
    }

    [Fact]
    public void Every_kind_occurs_in_a_world_of_some_size_and_most_copies_are_fine()
    {
        var works = WorldMaker.Make(Scenario, 1, 1_500);
        var kinds = works.Select(w => new CopyKinds().Of("/x", w, Look.Typeset)).CountBy(k => k).ToDictionary();
        Assert.All(
            ["dead", "wrong", "truncated", "html", "wait", "landing-only", "sign-in", "scanned"],
            k => Assert.True(kinds[k] > 5, k)
        );
        Assert.InRange(kinds["fine"] / 1_500.0, 0.5, 0.75);
    }

    [Theory]
    [InlineData("/publisher/nobody/999999")]
    [InlineData("/harbour/item/999999")]
    [InlineData("/harbour/preprint/999999/text.pdf")]
    [InlineData("/described/999999")]
    [InlineData("/publisher/nobody/x")]
    public async Task There_is_nothing_at_an_address_of_nothing(string path) =>
        Assert.Equal(HttpStatusCode.NotFound, (await world.Http.GetAsync(path)).StatusCode);
}
