using CsCheck;
using Zendle.Core.Reviews;
using Zendle.Index.Questions;

namespace Zendle.Index.Tests;

public sealed class ReviewFactsTests
{
    private static string Told(ReviewFacts facts) =>
        $"kept {string.Join(',', facts.Kept.ToArray())}; aside {string.Join(',', facts.SetAside.ToArray())}; gone "
        + $"{string.Join(',', facts.KeptButGone.Order())}; "
        + string.Join(
            "; ",
            facts.Tags.OrderBy(t => t.Key).Select(t => $"{t.Key} {string.Join(',', t.Value.ToArray())}")
        );

    /// <summary>
    /// Facts that follow decision after decision are those read off all decisions at once; those that somebody holds
    /// meanwhile stay as they were. Work 5 is in no database; 9 is beyond the corpus.
    /// </summary>
    [Fact]
    public void Following_one_by_one_gives_what_reading_at_once_gives() =>
        Gen.Select(Gen.OneOf(Enum.GetValues<DecisionAct>()), Gen.OneOf(1, 2, 3, 5, 9), Gen.Int[0, 5])
            .Array[0, 20]
            .Sample(acts =>
            {
                var (sequence, events) = (0L, new List<DecisionEvent>());
                var fold = new DecisionFold([], e => e.WorkId);
                var facts = new ReviewFacts(fold, 8, w => w != 5);
                foreach (var (act, work, n) in acts)
                {
                    DecisionEvent Event(Guid? undoes) =>
                        new(
                            ++sequence,
                            Guid.NewGuid(),
                            work,
                            work,
                            act,
                            act is DecisionAct.Tag or DecisionAct.Untag ? $"t{n % 2}" : "off topic",
                            "ann",
                            DateTimeOffset.UnixEpoch,
                            undoes
                        );
                    var e = Event(n == 5 ? fold.LastBatchOf("ann") : null);
                    var (before, held) = (Told(facts), facts);
                    var next = fold.With([e]);
                    facts = facts.With(fold, next, [.. next.WorksOf([e])]);
                    fold = next;
                    events.Add(e);
                    Assert.Equal(before, Told(held));
                    Assert.Equal(Told(new(new DecisionFold(events, x => x.WorkId), 8, w => w != 5)), Told(facts));
                }
            });
}
