using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Core.Text;
using Zendle.Index.Questions;

namespace Zendle.Index.Terms;

/// <summary>A term of a set.</summary>
/// <param name="Text">The term as most works have it.</param>
/// <param name="Expression">It and its variants, joined by OR: what is searched for inside the set.</param>
/// <param name="Works">Works of the set that have it: those the expression finds.</param>
/// <param name="Decades">How many of them are of each decade, in the order of <see cref="WordsOfSet.Decades"/>.</param>
/// <param name="Trend">How surely its share rises (positive) or falls over the decades; see <see cref="Core.Terms.Trend"/>.</param>
public sealed record SetTerm(string Text, string Expression, int Works, ImmutableArray<int> Decades, double Trend);

/// <summary>Two terms of a set that stand together more often than chance would have it.</summary>
/// <param name="First">The one with more works.</param>
/// <param name="Second">The other.</param>
/// <param name="Works">Works of the set that have both.</param>
public sealed record TermPair(SetTerm First, SetTerm Second, int Works);

/// <summary>Works of a decade.</summary>
/// <param name="From">Its first year; of the first decade, which holds everything older too, 10 years before the next.</param>
/// <param name="Works">Works of the set in it.</param>
public sealed record DecadeWorks(int From, int Works);

/// <summary>What words a set of works uses.</summary>
/// <param name="Total">Works in the set.</param>
/// <param name="Decades">The decades it spans, up to <see cref="SetWords.MostDecades"/>; the first holds older works too.</param>
/// <param name="Undated">Works without a year, which are in no decade.</param>
/// <param name="Terms">Its commonest terms, but for those of the search, the commonest first.</param>
/// <param name="Pairs">Pairs of those terms, the most telling first.</param>
/// <param name="Methods">Terms that name methods, the commonest first.</param>
/// <param name="Keywords">Keywords with their works, the commonest first.</param>
/// <param name="Countries">Countries the works are about, the commonest first.</param>
public sealed record WordsOfSet(
    int Total,
    IReadOnlyList<DecadeWorks> Decades,
    int Undated,
    IReadOnlyList<SetTerm> Terms,
    IReadOnlyList<TermPair> Pairs,
    IReadOnlyList<SetTerm> Methods,
    IReadOnlyList<(string Name, int Works)> Keywords,
    IReadOnlyList<(string Name, int Works)> Countries
);

/// <summary>
/// Counts the words of a set. Which terms are looked at is decided by a sample of the running words; what is told of
/// them is counted by asking, so that each number is what searching for the term inside the set gives.
/// </summary>
/// <param name="snapshot">The corpus.</param>
/// <param name="evaluator">Answers what terms find.</param>
public sealed class SetWords(CorpusSnapshot snapshot, QuestionEvaluator evaluator)
{
    /// <summary>Older works than of so many decades stand in the first of them.</summary>
    public const int MostDecades = 8;

    private const int MostTerms = 24,
        MostMethods = 8,
        MostPairs = 10,
        MostNames = 12,
        Sampled = 3_000;

    /// <summary>What chance would bring once in a thousand times.</summary>
    private const double Telling = 10.8;

    /// <summary>
    /// A term that is not so many times as common here as elsewhere must be a keyword of some work: "results show" is
    /// common anywhere.
    /// </summary>
    private const double Commoner = 3;

    /// <summary>The words of a set.</summary>
    /// <param name="set">The works.</param>
    /// <param name="databases">Chosen databases; empty for all.</param>
    /// <param name="onBoard">Terms of the search, which are left out.</param>
    /// <param name="budget">Ends it.</param>
    public WordsOfSet Of(
        WorkSet set,
        ImmutableArray<int> databases,
        IReadOnlyCollection<TermNode> onBoard,
        Budget budget
    )
    {
        var (decades, decadeOf, undated) = DecadesOf(set);
        var (terms, methods) = Candidates(set, onBoard, budget);
        var asked = terms.Concat(methods).ToArray();
        var works = new WorkSet[asked.Length];
        snapshot.Read([.. Enumerable.Range(0, asked.Length)], i => works[i] = Asked(asked[i].Expression));
        var counted = asked.Select((t, i) => Counted(t, works[i])).ToArray();
        // The sample says which are common; the works say how common.
        var common = Enumerable
            .Range(0, terms.Count)
            .OrderByDescending(i => counted[i].Works)
            .ThenBy(i => counted[i].Text, StringComparer.Ordinal)
            .Where(i => counted[i].Works > 0)
            .Take(MostTerms)
            .ToArray();
        return new(
            set.Count(),
            decades,
            undated,
            [.. common.Select(i => counted[i])],
            Pairs(common, i => counted[i], i => works[i], set.Count()),
            [
                .. counted
                    .Skip(terms.Count)
                    .Where(t => t.Works > 0)
                    .OrderByDescending(t => t.Works)
                    .ThenBy(t => t.Text, StringComparer.Ordinal)
                    .Take(MostMethods),
            ],
            Names(Facet.Keyword, set),
            Names(Facet.Country, set)
        );

        WorkSet Asked(string expression)
        {
            var found = evaluator.Works(expression, databases);
            found.IntersectWith(set);
            return found;
        }

        SetTerm Counted(MarkingTerm term, WorkSet found)
        {
            var by = new int[decades.Count];
            foreach (var work in found)
                if (decadeOf(snapshot.Columns.Year[work]) is >= 0 and var decade)
                    by[decade]++;
            return new(
                term.Term.Text,
                term.Expression,
                found.Count(),
                [.. by],
                Trend.Of([.. by.Zip(decades, (with, d) => (with, d.Works))])
            );
        }
    }

    /// <summary>The decades of a set; a year's place among them, −1 for no year; and how many works have none.</summary>
    private (IReadOnlyList<DecadeWorks> Decades, Func<int, int> Of, int Undated) DecadesOf(WorkSet set)
    {
        var (byDecade, undated) = (new SortedDictionary<int, int>(), 0);
        foreach (var work in set)
            if (snapshot.Columns.Year[work] is > 0 and var year)
                byDecade[year / 10] = byDecade.GetValueOrDefault(year / 10) + 1;
            else
                undated++;
        if (byDecade.Count == 0)
            return ([], _ => -1, undated);
        var last = byDecade.Keys.Last();
        var first = Math.Max(byDecade.Keys.First(), last - MostDecades + 1);
        var works = new int[last - first + 1];
        foreach (var (decade, count) in byDecade)
            works[Math.Max(0, decade - first)] += count;
        return (
            [.. works.Select((count, i) => new DecadeWorks((first + i) * 10, count))],
            year => year <= 0 ? -1 : Math.Max(0, (year / 10) - first),
            undated
        );
    }

    /// <summary>The terms that are worth counting, and those among them that name methods.</summary>
    private (IReadOnlyList<MarkingTerm> Terms, IReadOnlyList<MarkingTerm> Methods) Candidates(
        WorkSet set,
        IReadOnlyCollection<TermNode> onBoard,
        Budget budget
    )
    {
        var outside = evaluator.Everything();
        outside.ExceptWith(set);
        var (sample, others) = (Sample(set), Sample(outside));
        var candidates = new TermCandidates(snapshot.Columns.Words, sample);
        var (here, elsewhere) = (sample.Count(), Math.Max(1, others.Count()));
        var own = candidates
            .Against(others, sample, budget, snapshot.Read)
            // Whatever one work says stands nowhere else; that makes no term of it.
            .Where(_ => here >= TermCandidates.Least)
            .Where(t => t.Strength >= Telling && (double)t.Good / here >= Commoner * t.Others / elsewhere)
            .Select(t => t.Text)
            .ToHashSet(StringComparer.Ordinal);
        var keywords = KeywordsOf(sample);
        var common = candidates.Common();
        var methods = common.Where(t => MethodTerms.Is(t.Words)).ToArray();
        var telling = common
            .Where(t => !MethodTerms.Is(t.Words) && (keywords.Contains(t.Text) || own.Contains(t.Text)))
            .ToArray();
        // A corpus without keywords that is looked at as a whole has nothing but its words.
        if (telling.Length < MostTerms && others.IsEmpty && keywords.Count == 0)
            telling = [.. common];
        return (
            MarkingTerms.Choose(telling, onBoard, ImmutableHashSet<string>.Empty, MostTerms * 3 / 2),
            MarkingTerms.Choose(methods, onBoard, ImmutableHashSet<string>.Empty, MostMethods * 3 / 2)
        );
    }

    /// <summary>Works evenly out of a set: all of a small one.</summary>
    private static WorkSet Sample(WorkSet set)
    {
        var count = set.Count();
        if (count <= Sampled)
            return set;
        var works = set.ToArray();
        return WorkSet.Of(set.Size, Enumerable.Range(0, Sampled).Select(i => works[(int)((long)i * count / Sampled)]));
    }

    /// <summary>The keywords of works, folded.</summary>
    private HashSet<string> KeywordsOf(WorkSet works)
    {
        var (column, found) = (snapshot.Columns.Of(Facet.Keyword), new HashSet<string>(StringComparer.Ordinal));
        foreach (var (value, _) in column.Count(works))
            found.Add(string.Join(' ', Words.AsWritten(column.Names[value])));
        return found;
    }

    private (string, int)[] Names(Facet facet, WorkSet set)
    {
        var column = snapshot.Columns.Of(facet);
        return
        [
            .. column
                .Count(set)
                .OrderByDescending(v => v.Count)
                .ThenBy(v => column.Names[v.Value], StringComparer.Ordinal)
                .Take(MostNames)
                .Select(v => (column.Names[v.Value], v.Count)),
        ];
    }

    /// <summary>
    /// Pairs that stand together more often than chance would have it. Every term stands in few pairs, so that one
    /// company does not fill the list. O(terms²·works/64).
    /// </summary>
    private static TermPair[] Pairs(int[] terms, Func<int, SetTerm> term, Func<int, WorkSet> works, int total)
    {
        var pairs = new List<(int A, int B, int Both, double Strength)>();
        for (var a = 0; a < terms.Length; a++)
        for (var b = a + 1; b < terms.Length; b++)
        {
            var (first, second) = (term(terms[a]), term(terms[b]));
            if (first.Text.Split(' ').Intersect(second.Text.Split(' ')).Any())
                continue;
            var both = works(terms[a]).CountWith(works(terms[b]));
            var strength = LikelihoodRatio.Of(both, first.Works, second.Works - both, total - first.Works);
            if (both >= TermCandidates.Least && strength >= Telling)
                pairs.Add((a, b, both, strength));
        }
        var (chosen, used) = (new List<TermPair>(), new int[terms.Length]);
        foreach (var pair in pairs.OrderByDescending(p => p.Strength).ThenBy(p => (p.A, p.B)))
        {
            if (chosen.Count == MostPairs || used[pair.A] > 1 || used[pair.B] > 1)
                continue;
            used[pair.A]++;
            used[pair.B]++;
            chosen.Add(new(term(terms[pair.A]), term(terms[pair.B]), pair.Both));
        }
        return [.. chosen];
    }
}
