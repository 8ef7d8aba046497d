using System.Runtime.InteropServices;
using Zendle.Core.Reviews;
using Zendle.Core.Senses;
using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Zendle.Index.Terms;

namespace Zendle.Index.Senses;

/// <summary>Works that keep company: one sense of the words that found them.</summary>
/// <param name="Terms">Up to five terms that mark them among the works in view.</param>
/// <param name="Subjects">Their commonest subjects, three at most.</param>
/// <param name="Works">The works, ascending.</param>
/// <param name="From">Year of the oldest; 0 for no year.</param>
/// <param name="To">Year of the newest.</param>
/// <param name="Examples">Three of them: those cited most.</param>
public sealed record SenseGroup(
    IReadOnlyList<string> Terms,
    IReadOnlyList<string> Subjects,
    IReadOnlyList<int> Works,
    int From,
    int To,
    IReadOnlyList<int> Examples
);

/// <summary>A set in groups.</summary>
/// <param name="Groups">The largest first.</param>
/// <param name="Modularity">How much more of the links lies within all groups, those too small to be shown included, than
/// chance would bring: −½ to 1.</param>
public sealed record Parting(IReadOnlyList<SenseGroup> Groups, double Modularity);

/// <summary>
/// Parts a set of works into groups that use its words in different company: works are linked by shared references
/// (Kessler 1963, with the cosine), by citations and by keywords, each to those it is linked to most, and the links are
/// parted by modularity (<see cref="Communities"/>).
/// </summary>
/// <param name="snapshot">The corpus.</param>
public sealed class SenseGroups(CorpusSnapshot snapshot)
{
    private readonly CorpusColumns columns = snapshot.Columns;

    /// <summary>Sets larger than this are not parted.</summary>
    public const int MostWorks = 20_000;

    /// <summary>What more works than this share links nobody: it would link nearly all.</summary>
    internal const int MostSharing = 80;

    private const int MostLinks = 12,
        MostTerms = 5,
        MostSubjects = 3,
        MostExamples = 3,
        LeastWorks = 4;

    internal const double CitationWeight = 0.6;

    private const double KeywordWeight = 0.5;

    /// <summary>How much a keyword of so many works links two of them.</summary>
    internal static double OfKeyword(int sharing) => KeywordWeight / Math.Log2(2 + sharing);

    /// <summary>How much a shared reference links two works with so many references: the cosine.</summary>
    internal static double OfReference(int ofOne, int ofOther) => 1 / Math.Sqrt((double)ofOne * ofOther);

    /// <summary>The groups, the largest first; works in none of them are left over.</summary>
    /// <param name="set">The works in view, <see cref="MostWorks"/> at most.</param>
    /// <param name="budget">Ends it.</param>
    /// <param name="shuffled">Numbers the works in another order first, which should hardly matter: for measuring that
    /// it does not.</param>
    /// <exception cref="ArgumentOutOfRangeException">There are too many works.</exception>
    public IReadOnlyList<SenseGroup> Of(WorkSet set, Budget budget, Random? shuffled = null) =>
        Part(set, budget, Fineness.Fields, shuffled).Groups;

    /// <summary>The groups, as <see cref="Of"/>, with how well they part the set.</summary>
    /// <param name="set">The works in view, <see cref="MostWorks"/> at most.</param>
    /// <param name="budget">Ends it.</param>
    /// <param name="fineness">How finely.</param>
    /// <param name="shuffled">As for <see cref="Of"/>.</param>
    /// <exception cref="ArgumentOutOfRangeException">There are too many works.</exception>
    public Parting Part(WorkSet set, Budget budget, Fineness fineness, Random? shuffled = null)
    {
        var works = set.ToArray();
        shuffled?.Shuffle(works);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(works.Length, MostWorks);
        if (works.Length < LeastWorks)
            return new([], 0);
        var links = Links(works, budget);
        var group = Communities.Of(works.Length, links, fineness.Resolution);
        var least = Math.Max(LeastWorks, (int)Math.Ceiling(fineness.LeastShare * works.Length));
        int[][] groups =
        [
            .. works
                .Select((work, i) => (Work: work, Group: group[i]))
                .GroupBy(w => w.Group, w => w.Work)
                .Where(g => g.Count() >= least)
                .OrderByDescending(g => g.Count())
                .ThenBy(g => g.Min())
                .Take(fineness.MostGroups)
                .Select(g => g.Order().ToArray()),
        ];
        var told = new SenseGroup[groups.Length];
        snapshot.Read([.. Enumerable.Range(0, told.Length)], i => told[i] = Told(groups[i], set, budget));
        return new(told, Communities.Modularity(group, links));
    }

    /// <summary>
    /// The groups of a set that has changed since it was parted: works stay in the groups they are in, and one that came is
    /// in its own (<see cref="Newcomers"/>). Groups keep their order and their terms.
    /// </summary>
    /// <param name="before">How it was parted.</param>
    /// <param name="then">The works it was parted among.</param>
    /// <param name="now">The works of today, <see cref="MostWorks"/> at most.</param>
    /// <param name="budget">Ends it.</param>
    /// <exception cref="ArgumentOutOfRangeException">There are too many works.</exception>
    public Parting Grown(Parting before, WorkSet then, WorkSet now, Budget budget)
    {
        var works = now.ToArray();
        ArgumentOutOfRangeException.ThrowIfGreaterThan(works.Length, MostWorks);
        var newcomers = new Newcomers(columns, before, then);
        var group = Array.ConvertAll(works, w => newcomers.GroupOf(w) ?? -1);
        return new(
            [.. before.Groups.Select((g, at) => g with { Works = [.. works.Where((_, i) => group[i] == at)] })],
            // A work in no group is one by itself.
            Communities.Modularity([.. group.Select((g, i) => g < 0 ? ~i : g)], Links(works, budget))
        );
    }

    private SenseGroup Told(int[] works, WorkSet set, Budget budget)
    {
        var group = WorkSet.Of(columns.WorkSize, works);
        var terms = MarkingTerms.Choose(
            new TermCandidates(columns.Words, group).Against(set, group, budget),
            [],
            new HashSet<string>(),
            MostTerms
        );
        var subjects = columns.Of(Facet.Subject);
        int[] years = [.. works.Select(w => (int)columns.Year[w]).Where(y => y > 0)];
        return new(
            [.. terms.Select(t => t.Term.Text)],
            [
                .. subjects
                    .Count(group)
                    .OrderByDescending(s => s.Count)
                    .ThenBy(s => s.Value)
                    .Take(MostSubjects)
                    .Select(s => subjects.Names[s.Value]),
            ],
            works,
            years.DefaultIfEmpty().Min(),
            years.DefaultIfEmpty().Max(),
            [.. works.OrderByDescending(w => columns.Graph.CitedByCount(w)).ThenBy(w => w).Take(MostExamples)]
        );
    }

    /// <summary>The strongest links of each work. O(Σ works that share something, squared).</summary>
    private List<Communities.Link> Links(int[] works, Budget budget)
    {
        var at = new Dictionary<int, int>(works.Length);
        for (var i = 0; i < works.Length; i++)
            at[works[i]] = i;
        var near = new Dictionary<int, double>[works.Length];
        for (var i = 0; i < works.Length; i++)
            near[i] = [];
        var references = Array.ConvertAll(works, w => columns.Graph.CitesCount(w));
        Share(
            works,
            work => columns.Graph.Cites(work),
            (a, b, _) => OfReference(references[a], references[b]),
            near,
            budget
        );
        var keywords = columns.Of(Facet.Keyword);
        Share(works, work => keywords.Of(work), (_, _, sharing) => OfKeyword(sharing), near, budget);
        foreach (var work in works)
        foreach (var cited in columns.Graph.Cites(work))
            if (at.TryGetValue(cited, out var other) && other != at[work])
                Add(near, at[work], other, CitationWeight);
        var links = new Dictionary<(int, int), double>();
        for (var i = 0; i < works.Length; i++)
            foreach (var (other, weight) in near[i].OrderByDescending(n => n.Value).ThenBy(n => n.Key).Take(MostLinks))
                links[i < other ? (i, other) : (other, i)] = weight;
        return [.. links.OrderBy(l => l.Key).Select(l => new Communities.Link(l.Key.Item1, l.Key.Item2, l.Value))];
    }

    private delegate ReadOnlySpan<int> Having(int work);

    /// <summary>Links works that have something in common.</summary>
    private static void Share(
        int[] works,
        Having having,
        Func<int, int, int, double> weight,
        Dictionary<int, double>[] near,
        Budget budget
    )
    {
        var sharing = new Dictionary<int, List<int>>();
        for (var i = 0; i < works.Length; i++)
            foreach (var thing in having(works[i]))
            {
                ref var those = ref CollectionsMarshal.GetValueRefOrAddDefault(sharing, thing, out _);
                (those ??= []).Add(i);
            }
        var looked = 0;
        foreach (var those in sharing.Values)
        {
            if (those.Count is < 2 or > MostSharing)
                continue;
            for (var a = 0; a < those.Count; a++)
            {
                budget.Every(ref looked);
                for (var b = a + 1; b < those.Count; b++)
                    Add(near, those[a], those[b], weight(those[a], those[b], those.Count));
            }
        }
    }

    private static void Add(Dictionary<int, double>[] near, int a, int b, double weight)
    {
        CollectionsMarshal.GetValueRefOrAddDefault(near[a], b, out _) += weight;
        CollectionsMarshal.GetValueRefOrAddDefault(near[b], a, out _) += weight;
    }
}
