using System.Diagnostics;
using Zendle.Core.Reviews;
using Zendle.Index.Questions;

namespace Zendle.Bench;

/// <summary>
/// What a Keep costs beside its write: the fold and the facts that follow it, however many works were decided on before;
/// against folding everything again.
/// </summary>
internal static class KeepBench
{
    /// <summary>Keeps works one by one in reviews of several sizes.</summary>
    public static void Run(int works, int seed)
    {
        var random = new Random(seed);
        foreach (var decided in new[] { 0, 1_000, 10_000, 100_000 })
        {
            var sequence = 0L;
            DecisionEvent Event(int work) =>
                new(++sequence, Guid.NewGuid(), work, work, DecisionAct.Keep, null, "ann", DateTimeOffset.UnixEpoch);
            DecisionEvent[] before = [.. Enumerable.Range(0, decided).Select(_ => Event(random.Next(1, works)))];
            var watch = Stopwatch.StartNew();
            var fold = new DecisionFold(before, e => e.WorkId);
            var facts = new ReviewFacts(fold, works);
            var whole = watch.Elapsed;
            var took = new List<double>();
            for (var i = 0; i < 500; i++)
            {
                DecisionEvent[] kept = [Event(random.Next(1, works))];
                watch.Restart();
                var next = fold.With(kept);
                facts = facts.With(fold, next, next.WorksOf(kept));
                fold = next;
                took.Add(watch.Elapsed.TotalMilliseconds);
            }
            took.Sort();
            Console.WriteLine(
                $"{works:N0} works, {decided:N0} decided on: a Keep {took[250]:0.000} ms, 95th {took[475]:0.000} ms; "
                    + $"all again {whole.TotalMilliseconds:0.0} ms"
            );
        }
    }
}
