using System.Text.Json;
using System.Text.Json.Serialization;
using CsCheck;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Reviews;

/// <summary>Acts as they are written down: today's form by hand, earlier ones as they were found in data folders.</summary>
public sealed class StoredActsTests
{
    public static TheoryData<StepAct, string> Written =>
        new()
        {
            { new SearchAct("light"), """{"version":1,"kind":"Search","expression":"light"}""" },
            { new AddAct("NOT moth*"), """{"version":1,"kind":"Add","expression":"NOT moth*"}""" },
            { new DatabasesAct([2, 1]), """{"version":1,"kind":"Databases","databases":[2,1]}""" },
            { new YearsAct(1990), """{"version":1,"kind":"Years","from":1990}""" },
            {
                new NarrowAct(Facet.OpenAccess, ["free"], ["paid"]),
                """{"version":1,"kind":"Narrow","facet":"OpenAccess","values":["free"],"excluded":["paid"]}"""
            },
            {
                new NarrowAct(Facet.Keyword, ["moths"], [], ["light", "towns"]),
                """{"version":1,"kind":"Narrow","facet":"Keyword","values":["moths"],"excluded":[],"each":["light","towns"]}"""
            },
            { new InsideAct(["field*"]), """{"version":1,"kind":"Inside","words":["field*"]}""" },
            {
                new TrailAct([7, 3], TrailWay.Backward),
                """{"version":1,"kind":"Trail","seeds":[7,3],"way":"Backward"}"""
            },
            { new WayAct(TrailWay.Forward), """{"version":1,"kind":"Way","way":"Forward"}""" },
            { new TiesAct(2), """{"version":1,"kind":"Ties","atLeast":2}""" },
            { new WhereItCitesAct("moth*"), """{"version":1,"kind":"WhereItCites","words":"moth*"}""" },
            {
                new NeighboursAct([7, 3], [NeighbourKind.SharedTerms]),
                """{"version":1,"kind":"Neighbours","seeds":[7,3],"kinds":["SharedTerms"]}"""
            },
            {
                new KindsAct([NeighbourKind.CitedTogether]),
                """{"version":1,"kind":"Kinds","kinds":["CitedTogether"]}"""
            },
            {
                new RoundAct([7, 3], [NeighbourKind.SharedTerms], 3, [9], 2),
                """{"version":1,"kind":"Round","seeds":[7,3],"kinds":["SharedTerms"],"atLeast":3,"known":[9],"number":2}"""
            },
            { new SharedAct(5), """{"version":1,"kind":"Shared","atLeast":5}""" },
            {
                new CitersAct("Berg, M*", ["Berg, Mei"], ["Berg, M."]),
                """{"version":1,"kind":"Citers","name":"Berg, M*","persons":["Berg, Mei"],"printed":["Berg, M."]}"""
            },
            { new SelfAct(SelfCitations.Without), """{"version":1,"kind":"Self","self":"Without"}""" },
            {
                new CompareAct([new SearchAct("bat")], true, "not bats"),
                """{"version":1,"kind":"Compare","apart":true,"said":"not bats","other":[{"kind":"Search","expression":"bat"}]}"""
            },
            { new AmongAct([5, 4], "two"), """{"version":1,"kind":"Among","said":"two","works":[5,4]}""" },
        };

    [Theory]
    [MemberData(nameof(Written))]
    public void An_act_is_written_with_its_kind_its_parts_and_the_version(StepAct act, string stored)
    {
        Assert.Equal(JsonSerializer.Deserialize<SortedDictionary<string, JsonElement>>(stored)!.Keys, Keys(act));
        Assert.Equal(StoredActs.Write(act), StoredActs.Upgraded(stored));
        Assert.Equal(act.GetType(), StoredActs.Read(stored).GetType());
    }

    private static IEnumerable<string> Keys(StepAct act) =>
        JsonSerializer.Deserialize<SortedDictionary<string, JsonElement>>(StoredActs.Write(act))!.Keys;

    [Fact]
    public void Every_kind_is_written_down_under_a_name_of_its_own_and_asked_here()
    {
        var kinds = typeof(StepAct)
            .GetCustomAttributes(typeof(JsonDerivedTypeAttribute), false)
            .Cast<JsonDerivedTypeAttribute>()
            .ToArray();
        var types = typeof(StepAct)
            .Assembly.GetTypes()
            .Where(t => t.IsSubclassOf(typeof(StepAct)) && !t.IsAbstract)
            .ToArray();
        Assert.Equal(types.ToHashSet(), kinds.Select(k => k.DerivedType).ToHashSet());
        Assert.Equal(types.Length, kinds.Select(k => k.TypeDiscriminator).Distinct().Count());
        Assert.Equal(types.ToHashSet(), Written.Select(w => w.Data.Item1.GetType()).ToHashSet());
    }

    /// <summary>Rows of a folder that commit 914d418 wrote.</summary>
    [Theory]
    [InlineData(
        """{"kind":"Add","expression":"moth*","databases":null,"facet":null,"values":null,"excluded":null"""
            + ""","from":null,"to":null,"seeds":null,"way":null,"atLeast":null,"other":null,"apart":null,"said":null}""",
        """{"version":1,"kind":"Add","expression":"moth*"}"""
    )]
    [InlineData(
        """{"kind":"Inside","expression":null,"databases":null,"facet":null,"values":["night"],"excluded":null"""
            + ""","from":null,"to":null,"seeds":null,"way":null,"atLeast":null,"other":null,"apart":null,"said":null}""",
        """{"version":1,"kind":"Inside","words":["night"]}"""
    )]
    [InlineData(
        """{"kind":"Among","expression":null,"databases":null,"facet":null,"values":null,"excluded":null"""
            + ""","from":null,"to":null,"seeds":[11,9,70],"way":null,"atLeast":null,"other":null,"apart":null"""
            + ""","said":"three by hand"}""",
        """{"version":1,"kind":"Among","works":[11,9,70],"said":"three by hand"}"""
    )]
    [InlineData(
        """{"kind":"Compare","expression":null,"other":[{"kind":"Search","expression":"light","databases":null}"""
            + """,{"kind":"Compare","other":[{"kind":"Inside","values":["a"]}],"apart":true,"said":"x"}]"""
            + ""","apart":false,"said":null}""",
        """{"version":1,"kind":"Compare","other":[{"kind":"Search","expression":"light"}"""
            + """,{"kind":"Compare","other":[{"kind":"Inside","words":["a"]}],"apart":true,"said":"x"}]}"""
    )]
    public void What_was_written_as_a_bag_is_read(string bag, string today) =>
        Assert.Equal(StoredActs.Upgraded(today), StoredActs.Upgraded(bag));

    [Theory]
    [InlineData(
        """{"expression":"light","databases":[1],"from":1990,"to":null"""
            + ""","narrowings":[{"facet":"Type","values":["article"],"excluded":[]}],"inside":["night"],"trail":null"""
            + ""","others":null,"among":null,"asksReview":false,"isNarrowed":true}""",
        "light | in 1 | from 1990 | article | inside: night"
    )]
    [InlineData(
        """{"expression":"","databases":[],"from":null,"to":null,"narrowings":[],"inside":[]"""
            + ""","trail":{"seeds":[11,9,70],"way":"Both","atLeast":2,"hasPast":true,"hasFuture":true},"others":null"""
            + ""","among":null,"asksReview":false,"isNarrowed":true}""",
        "both ways from 3 works | tied to 2 or more"
    )]
    [InlineData(
        """{"expression":"light","databases":[],"from":null,"to":null,"narrowings":[],"inside":[],"trail":null"""
            + ""","others":[{"acts":[{"kind":"Search","expression":"moth","values":null}],"apart":true"""
            + ""","said":"no moths"}],"among":[9,11]}""",
        "light | no moths | 2 works"
    )]
    public void What_was_written_as_a_state_is_read_as_the_acts_that_lead_to_it(string state, string labels) =>
        Assert.Equal(
            labels,
            string.Join(
                " | ",
                StoredActs
                    .ReadAll(StoredActs.UpgradedState(state))
                    .Select(a => a.Label(new(id => $"{id}", id => $"{id}")))
            )
        );

    [Theory]
    [InlineData("""{"version":2,"kind":"Search","expression":"light"}""")]
    [InlineData("""{"version":2,"kind":"Swarm"}""")]
    public void What_a_later_version_wrote_is_refused_in_a_sentence(string stored) =>
        Assert.Contains(
            "later version",
            Assert.Throws<UnreadableActException>(() => StoredActs.Read(stored)).Message,
            StringComparison.Ordinal
        );

    [Theory]
    [InlineData("[]")]
    [InlineData("{}")]
    [InlineData("null")]
    [InlineData("""{"kind":"Swarm"}""")]
    [InlineData("""{"version":1,"kind":"Swarm"}""")]
    [InlineData("""{"version":1,"expression":"x"}""")]
    [InlineData("not json")]
    [InlineData("""{"kind":7}""")]
    [InlineData("""{"version":"one","kind":"Search","expression":"light"}""")]
    public void What_is_no_act_is_refused_and_names_no_works(string stored)
    {
        Assert.Throws<UnreadableActException>(() => StoredActs.Read(stored));
        Assert.Throws<UnreadableActException>(() => StoredActs.ReadAll(stored));
        Assert.Empty(StoredActs.WorksIn(stored));
    }

    private static Gen<string> One(params string[] of) => Gen.Int[0, of.Length - 1].Select(i => of[i]);

    private static readonly Gen<IReadOnlyList<string>> Words = One("moth", "light", "a OR b")
        .List[0, 2]
        .Select(l => (IReadOnlyList<string>)l);
    private static readonly Gen<IReadOnlyList<int>> Ids = Gen.Int[1, 40].List[1, 4].Select(l => (IReadOnlyList<int>)l);

    private static Gen<StepAct> Acts(int depth) =>
        Gen.OneOf(
            One("light", "moth OR bat", "").Select(w => (StepAct)new SearchAct(w)),
            One("night", "a OR b", "NOT c").Select(w => (StepAct)new AddAct(w)),
            Ids.Select(i => (StepAct)new DatabasesAct(i)),
            Gen.Select(Gen.Int[1900, 2000], Gen.Bool)
                .Select((y, f) => (StepAct)(f ? new YearsAct(y) : new YearsAct(null, y))),
            Gen.Select(Gen.Enum<Facet>(), Words, Words, Words)
                .Select((f, v, x, e) => (StepAct)new NarrowAct(f, v, x, e)),
            Words.Select(w => (StepAct)new InsideAct(w)),
            Gen.Select(Ids, Gen.Enum<TrailWay>()).Select((s, w) => (StepAct)new TrailAct(s, w)),
            Gen.Enum<TrailWay>().Select(w => (StepAct)new WayAct(w)),
            Gen.Int[0, 3].Select(n => (StepAct)new TiesAct(n)),
            One("moth", "bat OR owl", "").Select(w => (StepAct)new WhereItCitesAct(w)),
            Gen.Select(Ids, Gen.Enum<NeighbourKind>().List[0, 3]).Select((s, k) => (StepAct)new NeighboursAct(s, k)),
            Gen.Enum<NeighbourKind>().List[0, 3].Select(k => (StepAct)new KindsAct(k)),
            Gen.Int[0, 3].Select(n => (StepAct)new SharedAct(n)),
            Gen.Select(Ids, Ids, Gen.Int[1, 3]).Select((s, k, n) => (StepAct)new RoundAct(s, [], n, k, n)),
            Ids.Select(i => (StepAct)new AmongAct(i)),
            depth == 0
                ? Gen.Const((StepAct)new SearchAct("deep"))
                : Gen.Select(Acts(depth - 1).List[1, 3], Gen.Bool)
                    .Select((o, apart) => (StepAct)new CompareAct([.. o], apart, "said"))
        );

    [Fact]
    public void Whatever_was_done_is_read_as_it_was_written_and_a_state_is_reached_again_by_its_own_acts() =>
        Acts(2)
            .List[0, 8]
            .Sample(acts =>
            {
                Assert.Equal(
                    StoredActs.WriteAll(acts),
                    StoredActs.WriteAll(StoredActs.ReadAll(StoredActs.WriteAll(acts)))
                );
                var state = SearchState.Of(acts);
                var again = SearchState.Of(state.Acts());
                Assert.Equal(StoredActs.WriteAll(state.Acts()), StoredActs.WriteAll(again.Acts()));
                Assert.Equal(
                    (state.Expression, state.From, state.To, state.AsksReview, state.IsNarrowed),
                    (again.Expression, again.From, again.To, again.AsksReview, again.IsNarrowed)
                );
                Assert.Equal(state.Works().Order(), again.Works().Order());
            });
}
