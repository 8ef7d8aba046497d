using System.Runtime.InteropServices;
using Zendle.Core.Queries;
using Zendle.Core.Terms;
using Zendle.Core.Text;
using Zendle.Index.Columns;

namespace Zendle.Index.Terms;

/// <summary>
/// Tells which concept a term belongs to by the company it keeps: words for one thing stand among the same words (Harris
/// 1954; Firth 1957). The company of a term are the words beside it, by side, and those around it; each counts by how
/// much oftener it stands there than with the other terms (positive pointwise mutual information: Church, Hanks 1990),
/// and companies are compared by the cosine.
/// </summary>
public sealed class TermCompany
{
    /// <summary>So many words on either side are company; of the nearest the side is told too.</summary>
    private const int Around = 5,
        Beside = 2;

    /// <summary>What it adds when term and concept share a word.</summary>
    private const double SharedWord = 0.3;

    private readonly WordColumn column;
    private readonly int concepts;
    private readonly Dictionary<int, List<(int Entity, HashSet<int>[] Others)>> begins = [];
    private readonly Dictionary<long, double>[] company;
    private readonly HashSet<string>[] words;
    private readonly Dictionary<int, bool> bounds = [];

    /// <summary>Looks at the company of concepts and terms in some works. O(words of the works).</summary>
    /// <param name="column">The running words.</param>
    /// <param name="works">The works, a few thousand at most.</param>
    /// <param name="concepts">The terms of each concept.</param>
    /// <param name="terms">The words of each term.</param>
    public TermCompany(
        WordColumn column,
        IEnumerable<int> works,
        IReadOnlyList<IReadOnlyList<TermNode>> concepts,
        IReadOnlyList<IReadOnlyList<string>> terms
    )
    {
        (this.column, this.concepts) = (column, concepts.Count);
        company = [.. Enumerable.Range(0, concepts.Count + terms.Count).Select(_ => new Dictionary<long, double>())];
        words =
        [
            .. concepts.Select(of =>
                of.SelectMany(t => t.Slots).Where(FunctionWords.CanBound).ToHashSet(StringComparer.Ordinal)
            ),
        ];
        for (var c = 0; c < concepts.Count; c++)
            foreach (var form in concepts[c].SelectMany(t => t.Forms))
                Await(c, [.. form.Select(Fitting)]);
        for (var t = 0; t < terms.Count; t++)
            Await(concepts.Count + t, [.. terms[t].Select(w => new HashSet<int> { column.NumberOf(w) })]);
        var text = new List<int>();
        foreach (var work in works)
        {
            text.Clear();
            foreach (var word in column.Of(work))
                text.Add(word);
            Look(CollectionsMarshal.AsSpan(text));
        }
        Weigh();
    }

    /// <summary>How alike the company of a term is to that of each concept, 0 to 1.3.</summary>
    /// <param name="term">The term's place among those given.</param>
    /// <param name="spelled">Its words.</param>
    public double[] Likeness(int term, IReadOnlyList<string> spelled) =>
        [
            .. Enumerable
                .Range(0, concepts)
                .Select(c =>
                    Cosine(company[concepts + term], company[c])
                    + (spelled.Any(w => words[c].Any(p => Glob.Matches(p, w))) ? SharedWord : 0)
                ),
        ];

    private void Await(int entity, HashSet<int>[] form)
    {
        foreach (var first in form[0])
        {
            if (!begins.TryGetValue(first, out var entities))
                begins[first] = entities = [];
            entities.Add((entity, form[1..]));
        }
    }

    /// <summary>The numbers of the words that a slot of a term stands for.</summary>
    private HashSet<int> Fitting(string slot)
    {
        if (!TermNode.IsPattern(slot))
            return [column.NumberOf(slot)];
        var fitting = new HashSet<int>();
        for (var n = 1; n < column.Words.Count; n++)
            if (Glob.Matches(slot, column.Words[n]))
                fitting.Add(n);
        return fitting;
    }

    private void Look(ReadOnlySpan<int> text)
    {
        for (var at = 0; at < text.Length; at++)
            if (text[at] != WordColumn.End && begins.TryGetValue(text[at], out var entities))
                foreach (var (entity, rest) in entities)
                    if (Follows(text[(at + 1)..], rest))
                        AddAround(company[entity], text, at, rest.Length + 1);
    }

    private static bool Follows(ReadOnlySpan<int> text, HashSet<int>[] rest)
    {
        if (text.Length < rest.Length)
            return false;
        for (var i = 0; i < rest.Length; i++)
            if (!rest[i].Contains(text[i]))
                return false;
        return true;
    }

    private void AddAround(Dictionary<long, double> counts, ReadOnlySpan<int> text, int at, int length)
    {
        for (var n = 1; n <= Around && at - n >= 0 && text[at - n] != WordColumn.End; n++)
            Add(counts, text[at - n], n <= Beside ? n : 0);
        for (
            var n = 1;
            n <= Around && at + length - 1 + n < text.Length && text[at + length - 1 + n] != WordColumn.End;
            n++
        )
            Add(counts, text[at + length - 1 + n], n <= Beside ? Beside + n : 0);
    }

    private void Add(Dictionary<long, double> counts, int word, int side)
    {
        if (side > 0)
            CollectionsMarshal.GetValueRefOrAddDefault(counts, (long)word << 3 | (uint)side, out _)++;
        ref var carries = ref CollectionsMarshal.GetValueRefOrAddDefault(bounds, word, out var isKnown);
        if (!isKnown)
            carries = FunctionWords.CanBound(column.Words[word]);
        if (carries)
            CollectionsMarshal.GetValueRefOrAddDefault(counts, (long)word << 3, out _)++;
    }

    private void Weigh()
    {
        var all = new Dictionary<long, double>();
        foreach (var counts in company)
        foreach (var (feature, count) in counts)
            CollectionsMarshal.GetValueRefOrAddDefault(all, feature, out _) += count;
        var total = all.Values.Sum();
        foreach (var counts in company)
        {
            var own = counts.Values.Sum();
            foreach (var (feature, count) in counts)
                counts[feature] = Math.Log(1 + count) * Math.Max(0, Math.Log(count / own / (all[feature] / total)));
        }
    }

    private static double Cosine(Dictionary<long, double> a, Dictionary<long, double> b)
    {
        if (a.Count == 0 || b.Count == 0)
            return 0;
        var common = a.Sum(x => b.TryGetValue(x.Key, out var other) ? x.Value * other : 0);
        var lengths = Math.Sqrt(a.Values.Sum(v => v * v) * b.Values.Sum(v => v * v));
        return lengths == 0 ? 0 : common / lengths;
    }
}
