using CsCheck;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.People;

/// <summary>People who are followed block by block, written down and read again, are those that are told from nothing.</summary>
public sealed class PeopleByBlockTests
{
    private static readonly string[] Families = ["Berg", "Berg-Tanaka", "Voss", "Ilo", "Lind", "李"];
    private static readonly string[] Givens = ["Mei", "M.", "Mei K.", "Tomas", "T.", "Anna", ""];
    private static readonly string?[] Orcids = [null, null, null, "0000-0002-1825-0097", "0000-0001-5109-3700"];

    /// <summary>Everybody by label, as blocks came and went.</summary>
    private sealed class Everybody
    {
        private readonly Dictionary<string, string> told = [];

        public PeopleByBlock People { get; set; } = new();

        /// <summary>How many blocks were told apart in the last change.</summary>
        public int Come { get; private set; }

        public string Told => string.Join('\n', told.OrderBy(t => t.Key, StringComparer.Ordinal).Select(t => t.Value));

        public void Follow()
        {
            var change = People.Change();
            foreach (var person in change.Before.SelectMany(block => block))
                Assert.True(told.Remove(person.Label), "who goes was there");
            Come = 0;
            foreach (var block in People.Tell(change, CancellationToken.None).SelectMany(blocks => blocks))
            {
                Come++;
                People.Keep(block);
                foreach (var person in block.People)
                    told.Add(person.Label, Said(block.People, person));
            }
            People.Finish(change);
        }
    }

    private static string Said(IReadOnlyList<Person> list, Person person) =>
        $"{person.Label} {person.Orcid}: {string.Join(',', person.Mentions)} perhaps "
        + string.Join(" | ", person.Doubtful.Select(d => list[d].Label).Order());

    private static IReadOnlyList<Mention> Work(int id, Random random)
    {
        var people = Enumerable
            .Range(0, random.Next(1, 4))
            .Select(_ => new PersonName(
                Families[random.Next(Families.Length)],
                Givens[random.Next(Givens.Length)],
                Orcids[random.Next(Orcids.Length)],
                Affiliation: random.Next(3) == 0 ? "Cordrey College" : null
            ))
            .ToArray();
        return NamedWork.Mentions(id, 1990 + random.Next(30), random.Next(2) == 0 ? "moths" : "bridges", people);
    }

    [Fact]
    public void Works_that_come_change_and_go_give_the_people_of_a_beginning() =>
        Gen.Int[0, 100_000]
            .Sample(
                iter: 60,
                assert: seed =>
                {
                    var random = new Random(seed);
                    var works = new Dictionary<int, IReadOnlyList<Mention>>();
                    var everybody = new Everybody();
                    for (var round = 0; round < 20; round++)
                    {
                        for (var i = random.Next(1, 4); i > 0; i--)
                        {
                            var id = random.Next(1, 40);
                            works[id] = random.Next(4) == 0 ? [] : Work(id, random);
                            everybody.People.Put(id, works[id]);
                        }
                        everybody.Follow();
                        // Now and then all is written down and read again.
                        if (random.Next(3) == 0)
                        {
                            using var written = new MemoryStream();
                            everybody.People.Write(written);
                            written.Position = 0;
                            everybody.People = PeopleByBlock.Read(written)!;
                        }
                        var all = PeopleResolver.Resolve(works.Values.SelectMany(w => w));
                        Assert.Equal(
                            string.Join(
                                '\n',
                                all.OrderBy(p => p.Label, StringComparer.Ordinal).Select(p => Said(all, p))
                            ),
                            string.Join('\n', everybody.Told.Split('\n', StringSplitOptions.RemoveEmptyEntries))
                        );
                    }
                }
            );

    [Fact]
    public void Only_blocks_whose_mentions_are_others_are_told_apart_again()
    {
        static IReadOnlyList<Mention> Of(int id, params PersonName[] people) =>
            NamedWork.Mentions(id, null, "moths", people);
        var everybody = new Everybody();
        everybody.People.Put(1, Of(1, new PersonName("Berg", "Mei")));
        everybody.People.Put(2, Of(2, new PersonName("Voss", "Ada")));
        everybody.People.Put(3, Of(3, new PersonName("Ilo", "Tom")));
        everybody.Follow();
        Assert.Equal(3, everybody.Come);
        // The very same again is no change.
        everybody.People.Put(2, Of(2, new PersonName("Voss", "Ada")));
        Assert.True(everybody.People.Change().IsEmpty);
        // One more Berg; Voss and Ilo stay.
        everybody.People.Put(4, Of(4, new PersonName("Berg", "Tomas")));
        everybody.Follow();
        Assert.Equal(1, everybody.Come);
        // An ORCID iD bridges two names: their blocks become one.
        everybody.People.Put(2, Of(2, new PersonName("Voss", "Ada", "0000-0002-1825-0097")));
        everybody.People.Put(3, Of(3, new PersonName("Ilo", "Ada", "0000-0002-1825-0097")));
        everybody.Follow();
        Assert.Equal(1, everybody.Come);
        Assert.Contains("2.0,3.0", everybody.Told, StringComparison.Ordinal);
    }

    [Fact]
    public void A_mention_is_read_as_it_was_packed()
    {
        var random = new Random(4);
        for (var id = 1; id < 200; id++)
        {
            var mentions = Work(id, random);
            var packed = MentionCodec.Write(mentions);
            Assert.Equal(mentions.Count, MentionCodec.Count(packed));
            for (var i = 0; i < mentions.Count; i++)
            {
                var read = MentionCodec.Read(packed, id, i);
                Assert.Equal(
                    (mentions[i].Name.Family, mentions[i].Name.Given, mentions[i].Orcid, mentions[i].Affiliation),
                    (read.Name.Family, read.Name.Given, read.Orcid, read.Affiliation)
                );
                Assert.Equal((mentions[i].Position, mentions[i].Year), (read.Position, read.Year));
                Assert.Equal(mentions[i].Given, read.Given);
                Assert.Equal(mentions[i].Family, read.Family);
                Assert.Equal(mentions[i].CoAuthors, read.CoAuthors);
                Assert.Equal(mentions[i].Topics, read.Topics);
                Assert.Equal(PeopleBlocks.KeysOf(mentions[i]), MentionCodec.KeysOf(packed, i));
            }
        }
    }

    [Fact]
    public void Every_mention_is_somebodys_and_labels_are_unique()
    {
        var random = new Random(9);
        var mentions = Enumerable.Range(1, 120).SelectMany(id => Work(id, random)).ToArray();
        var people = PeopleResolver.Resolve(mentions);
        Assert.Equal(
            mentions.Select(m => (m.WorkId, m.Position)).Order(),
            people.SelectMany(p => p.Mentions).Select(m => (m.WorkId, m.Position)).Order()
        );
        Assert.Equal(people.Count, people.Select(p => p.Label).Distinct(StringComparer.OrdinalIgnoreCase).Count());
        Assert.All(people, p => Assert.All(p.Doubtful, d => Assert.Contains(p.Number, people[d].Doubtful)));
    }

    [Fact]
    public void Nobody_is_nobody_again_and_again()
    {
        var everybody = new Everybody();
        everybody.Follow();
        Assert.Empty(everybody.Told);
        everybody.People.Put(1, Work(1, new Random(1)));
        everybody.Follow();
        Assert.NotEmpty(everybody.Told);
        everybody.People.Put(1, []);
        everybody.Follow();
        Assert.Empty(everybody.Told);
    }
}
