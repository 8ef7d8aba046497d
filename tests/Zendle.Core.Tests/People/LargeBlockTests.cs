using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.People;

/// <summary>
/// A family name that stands on thousands of works is told apart in parts: in bounded time and memory, and still
/// rightly where the evidence is plain.
/// </summary>
public sealed class LargeBlockTests
{
    private static IReadOnlyList<Mention> Work(int id, int year, string subject, params PersonName[] people) =>
        NamedWork.Mentions(id, year, subject, people);

    [Fact]
    public void Two_thousand_works_of_one_author_with_one_co_author_are_one_person()
    {
        var mentions = Enumerable
            .Range(1, 2_000)
            .SelectMany(i =>
                Work(i, 1980 + i % 40, "moths", new PersonName("Berg", "Mei K."), new("Lindqvar", "Tomas"))
            )
            .ToArray();
        var people = PeopleResolver.Resolve(mentions);
        Assert.Equal(2, people.Count);
        Assert.All(people, p => Assert.Equal(2_000, p.Mentions.Count));
    }

    [Fact]
    public void Many_namesakes_stay_apart_and_each_stays_together()
    {
        // Sixty people of one family name, each with a given name, a subject and a co-author of their own, on fifty
        // works each.
        string[] given =
        [
            .. Enumerable
                .Range(0, 60)
                .Select(i => "ABCDEFGHIJKLMNOPQRST"[i % 20] + "elun"[i % 4].ToString() + (char)('a' + i / 20) + "ra"),
        ];
        var mentions = Enumerable
            .Range(0, 3_000)
            .SelectMany(i =>
                Work(
                    i + 1,
                    1990 + i % 30,
                    "subject " + i % 60,
                    new PersonName("Berg", given[i % 60]),
                    new("Co" + (char)('a' + i % 60 % 26) + (char)('a' + i % 60 / 26), "Ilse")
                )
            )
            .ToArray();
        var bergs = PeopleResolver.Resolve(mentions).Where(p => p.Name.Family == "Berg").ToArray();
        Assert.Equal(60, bergs.Length);
        Assert.All(bergs, p => Assert.Single(p.Mentions.Select(m => (m.WorkId - 1) % 60).Distinct()));
    }

    [Fact]
    public void What_is_told_does_not_depend_on_the_order_of_mentions()
    {
        var mentions = Enumerable
            .Range(1, 1_300)
            .SelectMany(i =>
                Work(
                    i,
                    1980 + i % 40,
                    "subject " + i % 11,
                    new PersonName("Berg", i % 3 == 0 ? "M." : "Mei"),
                    new("Co" + (char)('a' + i % 19), "Ilse")
                )
            )
            .ToArray();
        static string Of(IEnumerable<Mention> all) =>
            string.Join(
                '|',
                PeopleResolver.Resolve(all).Select(p => string.Join(',', p.Mentions.Select(m => m.WorkId)))
            );
        var random = new Random(3);
        Assert.Equal(Of(mentions), Of(mentions.OrderBy(_ => random.Next())));
    }

    [Fact]
    public void Telling_apart_stops_when_nobody_waits()
    {
        var mentions = Enumerable
            .Range(1, 5_000)
            .SelectMany(i => Work(i, 1980 + i % 40, "moths", new PersonName("Berg", "M.")))
            .ToArray();
        using var gone = new CancellationTokenSource();
        gone.Cancel();
        Assert.ThrowsAny<OperationCanceledException>(() => new PeopleResolver().All(mentions, gone.Token));
    }
}
