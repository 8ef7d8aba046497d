using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Core.Text;

namespace Zendle.Bench;

/// <summary>
/// A positional index in plain arrays for the words of some questions: as near as reading postings gets to costing
/// nothing. It answers terms, truncations, phrases, nearness, AND, OR and NOT over title, abstract and keywords of the
/// synthetic corpus.
/// </summary>
internal sealed class PlainPostings
{
    private const int FieldBits = 3;
    private readonly Dictionary<string, List<long>> places = new(StringComparer.Ordinal);
    private readonly Dictionary<string, string[]> slotsOf = new(StringComparer.Ordinal);
    private readonly string[] slots;
    private readonly int size;

    /// <summary>Reads the corpus once and keeps the places of the words that the questions ask for.</summary>
    public PlainPostings(IEnumerable<SyntheticRecord> records, IEnumerable<QueryNode> questions, int size)
    {
        this.size = size;
        slots = [.. questions.SelectMany(q => Terms(q)).SelectMany(t => t.Slots).Distinct()];
        foreach (var slot in slots)
            places[slot] = [];
        foreach (var r in records)
        {
            Add(r.Id, 0, r.Record.Title);
            Add(r.Id, 1, r.Record.Abstract);
            for (var i = 0; i < r.Record.Keywords.Count; i++)
                Add(r.Id, 2 + i, r.Record.Keywords[i]);
        }
    }

    /// <summary>The records a question finds.</summary>
    public RecordSet Records(QueryNode node, int only = -1)
    {
        switch (node)
        {
            case AndNode and:
                var all = Records(and.Parts[0], only);
                foreach (var part in and.Parts.Skip(1))
                    all.IntersectWith(Records(part, only));
                return all;
            case OrNode or:
                var any = Records(or.Parts[0], only);
                foreach (var part in or.Parts.Skip(1))
                    any.UnionWith(Records(part, only));
                return any;
            case NotNode not:
                var rest = new RecordSet(size);
                for (var r = 1; r < size; r++)
                    rest.Add(r);
                rest.ExceptWith(Records(not.Part, only));
                return rest;
            case FieldNode f:
                return Records(
                    f.Part,
                    f.Field == QueryField.Title ? 0
                        : f.Field == QueryField.Abstract ? 1
                        : -1
                );
            case TermNode term:
                return Of(term.Slots.Select(s => places[s]).ToArray(), 0, inRow: true, only);
            case NearNode near:
                return Of(
                    [.. near.Parts.Select(p => places[((TermNode)p).Slots[0]])],
                    near.Distances[0],
                    inRow: false,
                    only
                );
            default:
                throw new NotSupportedException(node.GetType().Name);
        }
    }

    private RecordSet Of(List<long>[] words, int gap, bool inRow, int only)
    {
        var found = new RecordSet(size);
        var first = words[0];
        if (words.Length == 1)
        {
            foreach (var place in first)
                if (Fits(place))
                    found.Add((int)(place >> 32));
            return found;
        }
        var reached = first;
        for (var w = 1; w < words.Length; w++)
        {
            var (next, kept, n) = (words[w], new List<long>(), 0);
            foreach (var place in reached)
            {
                var (from, to) = inRow ? (place + 1, place + 1) : (place - gap - 1, place + gap + 1);
                while (n > 0 && next[n - 1] >= from)
                    n--;
                while (n < next.Count && next[n] < from)
                    n++;
                for (var m = n; m < next.Count && next[m] <= to; m++)
                    if (next[m] != place && next[m] >> 16 == place >> 16)
                        kept.Add(next[m]);
            }
            reached = kept;
        }
        foreach (var place in reached)
            if (Fits(place))
                found.Add((int)(place >> 32));
        return found;

        bool Fits(long place) => only < 0 || (int)(place >> 16 & ((1 << (16 - FieldBits)) - 1)) == only;
    }

    private void Add(int id, int field, string text)
    {
        var at = 0;
        foreach (var word in text.Split(' '))
        {
            if (!slotsOf.TryGetValue(word, out var fitting))
                slotsOf[word] = fitting = [.. slots.Where(s => Glob.Matches(s, word))];
            foreach (var slot in fitting)
                places[slot].Add((long)id << 32 | (long)field << 16 | (uint)at);
            at++;
        }
    }

    private static IEnumerable<TermNode> Terms(QueryNode node) =>
        node switch
        {
            TermNode t => [t],
            AndNode a => a.Parts.SelectMany(Terms),
            OrNode o => o.Parts.SelectMany(Terms),
            NearNode n => n.Parts.SelectMany(Terms),
            NotNode n => Terms(n.Part),
            FieldNode f => Terms(f.Part),
            _ => [],
        };
}
