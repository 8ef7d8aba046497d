using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.People;

/// <summary>A resolver that remembers its blocks tells what one that begins anew tells.</summary>
public sealed class PeopleResolverAgainTests
{
    private static readonly string[] Families = ["Berg", "Berg-Tanaka", "Voss", "Ilo", "Lind"];
    private static readonly string[] Givens = ["Mei", "M.", "Mei K.", "Tomas", "T.", "Anna"];

    private static IReadOnlyList<Mention> Work(int id, Random random)
    {
        var people = Enumerable
            .Range(0, random.Next(1, 4))
            .Select(_ => new PersonName(
                Families[random.Next(Families.Length)],
                Givens[random.Next(Givens.Length)],
                Affiliation: random.Next(3) == 0 ? "Cordrey College" : null
            ))
            .ToArray();
        SourcedRecord[] records =
        [
            new(
                id,
                1,
                0,
                new Core.Records.Record
                {
                    Identifier = "r" + id,
                    Title = "Work " + id,
                    Year = 1990 + random.Next(30),
                    People = people,
                    Subjects = [random.Next(2) == 0 ? "moths" : "bridges"],
                }
            ),
        ];
        return Mention.Of(id, records, ChosenFields.From(records));
    }

    private static string Told(IEnumerable<Person> people) =>
        string.Join(
            '\n',
            people.Select(p =>
                $"{p.Number} {p.Label}: "
                + $"{string.Join(',', p.Mentions.Select(m => $"{m.WorkId}.{m.Position}"))} perhaps "
                + $"{string.Join(',', p.Doubtful)}"
            )
        );

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public void Works_that_come_change_and_go_give_the_people_of_a_beginning(int seed)
    {
        var random = new Random(seed);
        var works = new Dictionary<int, IReadOnlyList<Mention>>();
        var resolver = new PeopleResolver();
        for (var round = 0; round < 30; round++)
        {
            for (var i = random.Next(1, 4); i > 0; i--)
            {
                var id = random.Next(1, 40);
                if (random.Next(4) == 0)
                    works.Remove(id);
                else
                    works[id] = Work(id, random);
            }
            var mentions = works.Values.SelectMany(w => w).ToArray();
            Assert.Equal(Told(PeopleResolver.Resolve(mentions)), Told(resolver.Again(mentions)));
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
        var resolver = new PeopleResolver();
        Assert.Empty(resolver.Again([]));
        Assert.Single(resolver.Again(Work(1, new Random(1)).Take(1)));
        Assert.Empty(resolver.Again([]));
    }
}
