using System.Text.Json.Nodes;
using System.Xml;
using System.Xml.Schema;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Sets as maps: the same works as the list, in the lanes of their values, with the citations among them.</summary>
public sealed class MapTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private Task<JsonNode> Map(int review, int step, string asked = "") =>
        Ann.Get($"/api/reviews/{review}/steps/{step}/map?{asked}");

    private static JsonNode[] Works(JsonNode map) => [.. map.List("works").Select(w => w!)];

    [Fact]
    public async Task The_map_is_the_set_and_its_links_are_the_trails_of_its_works()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light AND moth*");
        var set = await Ann.AllWorks(review, step);
        var map = await Map(review, step);
        var works = Works(map);
        Assert.Equal(set.Order(), works.Select(w => w.Int("id")).Order());
        Assert.Equal(works.Sum(w => w.List("cites").Count()), map.Int("links"));
        foreach (var work in works.OrderByDescending(w => w.List("cites").Count()).Take(3))
        {
            var cited = await Ann.AllWorks(review, await Ann.Follow(review, "Backward", work.Int("id")));
            Assert.Equal(
                cited.Intersect(set).Order(),
                work.List("cites").Select(c => works[c!.GetValue<int>()].Int("id")).Order()
            );
            Assert.Equal(cited.Except(set).Count(), work.Int("citesOutside"));
            var citing = await Ann.AllWorks(review, await Ann.Follow(review, "Forward", work.Int("id")));
            Assert.Equal(citing.Except(set).Count(), work.Int("citedOutside"));
            Assert.Equal(citing.Count, work.Int("size"));
        }
    }

    [Theory]
    [InlineData("Venue")]
    [InlineData("Subject")]
    [InlineData("Person")]
    [InlineData("Type")]
    [InlineData("Database")]
    public async Task Lanes_hold_works_of_their_value_and_the_rest_is_counted(string field)
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth*");
        var map = await Map(review, step, $"lanes={field}&open=true");
        var (works, lanes) = (Works(map), map.List("lanes").ToArray());
        Assert.Equal(works.Length, lanes.Sum(l => l!.Int("works")));
        for (var i = 0; i < lanes.Length; i++)
            Assert.Equal(lanes[i]!.Int("works"), works.Count(w => w.Int("lane") == i));
        foreach (var lane in lanes.Where(l => l!.Text("kind") == "Value").Take(3))
        {
            var narrowed = await Ann.Step(
                review,
                step,
                new
                {
                    kind = "Narrow",
                    facet = field,
                    values = new[] { lane!.Text("label") },
                }
            );
            var all = await Ann.AllWorks(review, narrowed);
            var own = works
                .Where(w => lanes[w.Int("lane")]!.Text("label") == lane!.Text("label"))
                .Select(w => w.Int("id"));
            Assert.Empty(own.Except(all));
        }
        // Few lanes by themselves; the others are one, which says how many it stands for.
        var few = (await Map(review, step, $"lanes={field}")).List("lanes").ToArray();
        Assert.InRange(few.Length, 1, 14);
        Assert.Equal(
            lanes.Count(l => l!.Text("kind") == "Value"),
            few.Where(l => l!.Text("kind") != "None").Sum(l => l!.Int("values"))
        );
    }

    [Fact]
    public async Task Tags_stages_and_seeds_are_lanes_of_the_review()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth*");
        int[] works = [.. await Ann.Works(review, step, "limit=12")];
        await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new
            {
                act = "Tag",
                works = works[..8],
                value = "wings",
            }
        );
        await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new
            {
                act = "Tag",
                works = works[6..10],
                value = "dust",
            }
        );
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = works[..5] });
        var tags = await Map(review, step, "lanes=Tag");
        Assert.Equal(["wings", "dust"], tags.List("lanes").Take(2).Select(l => l!.Text("label")));
        Assert.Equal([8, 2], tags.List("lanes").Take(2).Select(l => l!.Int("works")));
        Assert.Equal(2, tags.List("lanes").First()!.Int("several"));
        var stages = await Map(review, step, "lanes=Stage");
        Assert.Equal(5, stages.List("lanes").Single(l => l!.Text("label") == "kept")!.Int("works"));
        Assert.Equal(5, Works(stages).Count(w => w.Text("stage") == "Kept"));

        var seed = (
            await Ann.Works(review, await Ann.Search(review, "light OR moth*"), "sort=Cited&limit=2")
        ).ToArray();
        var trail = await Ann.Follow(review, "Both", seed);
        var seeds = await Map(review, trail, "lanes=Seed&size=Seeds");
        Assert.True(seeds["seeds"]!.GetValue<bool>());
        Assert.All(Works(seeds), w => Assert.InRange(w.Int("size"), 1, 2));
        Assert.Equal(2, seeds.List("lanes").Count(l => l!.Text("kind") == "Value"));
    }

    [Fact]
    public async Task Topics_are_named_by_their_terms_and_say_how_well_they_part()
    {
        var review = await Ann.Review();
        var map = await Map(review, await Ann.Search(review, "light OR moth* OR flower*"), "lanes=Topic");
        var topics = map.List("lanes").Where(l => l!.Text("kind") == "Value").ToArray();
        Assert.True(topics.Length > 1);
        Assert.All(topics, t => Assert.NotEqual("", t!.Text("label")));
        Assert.InRange(map["modularity"]!.GetValue<double>(), 0.1, 1);
        // Works of a topic cite each other more than works of others: that is what a topic is.
        var works = Works(map);
        var within = works.Sum(w => w.List("cites").Count(c => works[c.GetValue<int>()].Int("lane") == w.Int("lane")));
        var shares = map.List("lanes").Sum(l => Math.Pow((double)l!.Int("works") / Works(map).Length, 2));
        Assert.True(within > shares * map.Int("links"));
    }

    [Fact]
    public async Task Suggestions_are_neighbours_of_what_is_kept_and_move_no_other_work_along()
    {
        var review = await Ann.Review();
        int[] kept = [.. await Ann.Works(review, await Ann.Search(review, "moth*"), "sort=Cited&limit=10")];
        Assert.Empty((await Map(review, await Ann.Search(review, "moth*"), "suggest=9")).List("suggested"));
        await Ann.Decide(review, "Keep", kept);
        var step = await Ann.Search(review, "stage:kept");
        var (plain, map) = (await Map(review, step, "lanes=Venue"), await Map(review, step, "lanes=Venue&suggest=9"));
        var suggested = map.List("suggested").ToArray();
        Assert.Equal(9, suggested.Length);
        Assert.Equal(
            Works(plain).Select(w => w["x"]!.GetValue<double>()),
            Works(map).Select(w => w["x"]!.GetValue<double>())
        );
        var neighbours = await Ann.Step(
            review,
            0,
            new
            {
                kind = "Neighbours",
                seeds = kept,
                kinds = new[] { "SharedReferences", "CitedTogether" },
            }
        );
        var told = new Dictionary<int, JsonNode>();
        for (var offset = 0; offset == told.Count; offset += 200)
            foreach (
                var row in (
                    await Ann.Get(
                        $"/api/reviews/{review}/steps/{neighbours}/works?limit=200&offset={offset}&sort=Likeness"
                    )
                ).List("works")
            )
                told[row.Int("id")] = row["inCommon"]!;
        foreach (var one in suggested)
        {
            var work = one["work"]!;
            Assert.DoesNotContain(work.Int("id"), kept);
            Assert.Equal("Found", work.Text("stage"));
            Assert.Equal(told[work.Int("id")].ToJsonString(), one["inCommon"]!.ToJsonString());
            var lane = map.List("lanes").ElementAt(work.Int("lane"));
            Assert.InRange(
                work["y"]!.GetValue<double>(),
                lane["y"]!.GetValue<double>(),
                lane["y"]!.GetValue<double>() + lane["height"]!.GetValue<double>()
            );
        }
        // Those most alike come first, as in the list of neighbours.
        Assert.Subset(told.Keys.Take(30).ToHashSet(), suggested.Select(s => s["work"]!.Int("id")).Take(3).ToHashSet());
        foreach (var one in suggested.Take(3))
        {
            var id = one["work"]!.Int("id");
            var (cites, citedBy) = (
                await Ann.AllWorks(review, await Ann.Follow(review, "Backward", id)),
                await Ann.AllWorks(review, await Ann.Follow(review, "Forward", id))
            );
            Assert.Equal(cites.Intersect(kept).Count(), one["work"]!.List("cites").Count());
            Assert.Equal(cites.Except(kept).Count(), one["work"]!.Int("citesOutside"));
            Assert.Equal(citedBy.Except(kept).Count(), one["work"]!.Int("citedOutside"));
            // In a lane it has no value of only where it says so.
            var venue = map.List("lanes").ElementAt(one["work"]!.Int("lane")).Text("label");
            var ofVenue = await Ann.Step(
                review,
                await Ann.Search(review, ""),
                new
                {
                    kind = "Narrow",
                    facet = "Venue",
                    values = new[] { venue },
                }
            );
            if (venue.Length > 0 && (await Ann.AllWorks(review, ofVenue)) is var all)
                Assert.Equal(all.Contains(id), !one["isByLinks"]!.GetValue<bool>());
        }
        // Along ranks they stand where their links put them.
        var ranked = await Map(review, step, "lanes=Venue&suggest=9&along=Rank");
        var linksOf = Works(ranked)
            .Select(
                (w, i) =>
                    w.List("cites").Count() + Works(ranked).Count(o => o.List("cites").Any(c => c.GetValue<int>() == i))
            )
            .ToArray();
        foreach (var one in ranked.List("suggested"))
        {
            var links = one["work"]!.List("cites").Count() + one.List("citedBy").Count();
            var column = ranked.List("columns").ElementAt(one["work"]!.Int("column"));
            var rank = Math.Min(kept.Length, 1 + linksOf.Count(l => l > links));
            Assert.InRange(rank, column.Int("from"), column.Int("to"));
        }
        // One that is taken is suggested no more, and stands on the map.
        var taken = suggested[0]["work"]!.Int("id");
        await Ann.Decide(review, "Keep", [taken]);
        var after = await Map(review, step, "lanes=Venue&suggest=9");
        Assert.Contains(taken, Works(after).Select(w => w.Int("id")));
        Assert.DoesNotContain(taken, after.List("suggested").Select(s => s["work"]!.Int("id")));
    }

    [Fact]
    public async Task The_oldest_lane_comes_first_whatever_runs_along()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth*");
        foreach (var along in new[] { "Year", "Rank" })
        {
            var map = await Map(review, step, $"lanes=Type&order=First&along={along}");
            var oldest = Enumerable
                .Range(0, map.List("lanes").Count(l => l.Text("kind") == "Value"))
                .Select(lane =>
                    Works(map)
                        .Where(w => w.Int("lane") == lane && w["year"] is not null)
                        .Select(w => w.Int("year"))
                        .DefaultIfEmpty(int.MaxValue)
                        .Min()
                )
                .ToArray();
            Assert.True(oldest.Length > 1);
            Assert.Equal(oldest.Order(), oldest);
        }
    }

    [Fact]
    public async Task Against_another_set_shared_works_are_told()
    {
        var review = await Ann.Review();
        var (step, other) = (await Ann.Search(review, "moth*"), await Ann.Search(review, "light"));
        var (here, there) = (await Ann.AllWorks(review, step), await Ann.AllWorks(review, other));
        var map = await Map(review, step, $"against={other}");
        var shared = here.Intersect(there).ToArray();
        Assert.NotEmpty(shared);
        Assert.Equal(
            shared.Order(),
            Works(map).Where(w => w["isShared"]!.GetValue<bool>()).Select(w => w.Int("id")).Order()
        );
        Assert.Equal(
            (shared.Length, there.Count - shared.Length),
            (map["other"]!.Int("shared"), map["other"]!.Int("onlyThere"))
        );
        Assert.Null((await Map(review, step))["other"]);
        var elsewhere = await Ann.Search(await Ann.Review("Another"), "light");
        Assert.Equal(
            404,
            (await Ann.Send("GET", $"/api/reviews/{review}/steps/{step}/map?against={elsewhere}")).Status
        );
    }

    [Fact]
    public async Task A_set_that_is_too_large_is_refused_and_none_is_an_empty_map()
    {
        var review = await Ann.Review();
        var none = await Map(review, await Ann.Search(review, "xyzzyx"));
        Assert.Empty(Works(none));
        Assert.Empty(none.List("lanes"));
        var wide = await Map(review, await Ann.Search(review, "moth*"), "width=1e9&height=-5");
        Assert.Equal(8_000, wide.Int("width"));
        foreach (var odd in new[] { "lanes=Hat", "width=NaN", "order=17" })
            Assert.Equal(400, (await Ann.Send("GET", $"/api/reviews/{review}/steps/0/map?{odd}")).Status);
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/steps/999999/map")).Status);
    }

    [Fact]
    public async Task Graph_and_table_hold_every_work_and_every_link()
    {
        var review = await Ann.Review("=Wings & <dust>");
        var step = await Ann.Search(review, "moth*");
        var map = await Map(review, step);
        var schemas = new XmlSchemaSet();
        schemas.Add("http://graphml.graphdrawing.org/xmlns", new XmlTextReader(new StringReader(Schema)));
        var settings = new XmlReaderSettings { ValidationType = ValidationType.Schema, Schemas = schemas };
        using var reader = XmlReader.Create(
            new StringReader(await Ann.Http.GetStringAsync($"/api/reviews/{review}/steps/{step}/map/graphml")),
            settings
        );
        var (nodes, edges) = (0, 0);
        while (reader.Read())
            if (reader is { NodeType: XmlNodeType.Element, LocalName: "node" })
                nodes++;
            else if (reader is { NodeType: XmlNodeType.Element, LocalName: "edge" })
                edges++;
        Assert.Equal((Works(map).Length, map.Int("links")), (nodes, edges));
        var rows = (await Ann.Http.GetStringAsync($"/api/reviews/{review}/steps/{step}/map/csv")).Split("\r\n");
        Assert.Equal(Works(map).Length + 2, rows.Length);
        Assert.StartsWith(
            "work,label,title,year,stage,lane,tags,size",
            rows[0].TrimStart('\uFEFF'),
            StringComparison.Ordinal
        );
    }

    /// <summary>
    /// The part of the format's structure that is used here, after its definition (graphml.graphdrawing.org, 1.0): keys,
    /// one graph, nodes before edges that name them.
    /// </summary>
    private const string Schema = """
        <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns="http://graphml.graphdrawing.org/xmlns"
                   xmlns:g="http://graphml.graphdrawing.org/xmlns"
                   targetNamespace="http://graphml.graphdrawing.org/xmlns" elementFormDefault="qualified">
          <xs:complexType name="data"><xs:simpleContent><xs:extension base="xs:string">
            <xs:attribute name="key" type="xs:NMTOKEN" use="required"/></xs:extension></xs:simpleContent></xs:complexType>
          <xs:element name="graphml">
            <xs:complexType><xs:sequence>
              <xs:element name="key" minOccurs="0" maxOccurs="unbounded"><xs:complexType>
                <xs:attribute name="id" type="xs:NMTOKEN" use="required"/>
                <xs:attribute name="for"><xs:simpleType><xs:restriction base="xs:NMTOKEN">
                  <xs:enumeration value="graph"/><xs:enumeration value="node"/><xs:enumeration value="edge"/>
                </xs:restriction></xs:simpleType></xs:attribute>
                <xs:attribute name="attr.name" type="xs:NMTOKEN"/>
                <xs:attribute name="attr.type"><xs:simpleType><xs:restriction base="xs:NMTOKEN">
                  <xs:enumeration value="boolean"/><xs:enumeration value="int"/><xs:enumeration value="long"/>
                  <xs:enumeration value="float"/><xs:enumeration value="double"/><xs:enumeration value="string"/>
                </xs:restriction></xs:simpleType></xs:attribute>
              </xs:complexType></xs:element>
              <xs:element name="graph"><xs:complexType><xs:sequence>
                <xs:element name="data" type="data" minOccurs="0" maxOccurs="unbounded"/>
                <xs:element name="node" minOccurs="0" maxOccurs="unbounded"><xs:complexType><xs:sequence>
                  <xs:element name="data" type="data" minOccurs="0" maxOccurs="unbounded"/></xs:sequence>
                  <xs:attribute name="id" type="xs:NMTOKEN" use="required"/></xs:complexType></xs:element>
                <xs:element name="edge" minOccurs="0" maxOccurs="unbounded"><xs:complexType>
                  <xs:attribute name="source" type="xs:NMTOKEN" use="required"/>
                  <xs:attribute name="target" type="xs:NMTOKEN" use="required"/></xs:complexType></xs:element>
                </xs:sequence>
                <xs:attribute name="id" type="xs:NMTOKEN"/>
                <xs:attribute name="edgedefault" use="required"><xs:simpleType><xs:restriction base="xs:NMTOKEN">
                  <xs:enumeration value="directed"/><xs:enumeration value="undirected"/>
                </xs:restriction></xs:simpleType></xs:attribute>
              </xs:complexType>
              <xs:key name="nodes"><xs:selector xpath="g:node"/><xs:field xpath="@id"/></xs:key></xs:element>
            </xs:sequence></xs:complexType>
          </xs:element>
        </xs:schema>
        """;
}
