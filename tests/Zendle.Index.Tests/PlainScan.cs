using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Index.Tests;

/// <summary>
/// Answers questions the slow way, by reading every record; shares no code with the index but the cutting into words.
/// </summary>
public static class PlainScan
{
    /// <summary>Ids of the matching records.</summary>
    public static HashSet<int> Records(IEnumerable<Placed> corpus, QueryNode root, QueryNode? without = null) =>
        [.. corpus.Where(r => Matches(r, root, QueryField.About, without)).Select(r => r.Id)];

    private static bool Matches(Placed r, QueryNode node, QueryField field, QueryNode? without)
    {
        if (ReferenceEquals(node, without))
            return false;
        return node switch
        {
            AllNode => true,
            AndNode a => a.Parts.All(p => Matches(r, p, field, without)),
            OrNode o => o.Parts.Any(p => Matches(r, p, field, without)),
            NotNode n => !Matches(r, n.Part, field, without),
            FieldNode f => Matches(r, f.Part, f.Field, without),
            YearsNode y => r.Record.Year is { } year
                && (y.From is null || year >= y.From)
                && (y.To is null || year <= y.To),
            TermNode t => Fields(r, field).Any(words => Spans(words, t).Count > 0)
                || (field == QueryField.Author && r.Record.People.Any(p => CanBe(t.Written, p))),
            NearNode n => Fields(r, field).Any(words => Near(words, n, without)),
            _ => throw new NotSupportedException(),
        };
    }

    /// <summary>The words of each field; values of one field stand apart, so each is a text of its own.</summary>
    private static IEnumerable<List<Word>> Fields(Placed p, QueryField field)
    {
        var r = p.Record;
        IEnumerable<string> texts = field switch
        {
            QueryField.Title => [r.Title, .. r.OtherTitles],
            QueryField.Abstract => [r.Abstract, .. r.OtherAbstracts.Select(a => a.Text)],
            QueryField.Keywords => [.. r.Keywords, .. r.ControlledTerms],
            QueryField.About =>
            [
                r.Title,
                .. r.OtherTitles,
                r.Abstract,
                .. r.OtherAbstracts.Select(a => a.Text),
                .. r.Keywords,
                .. r.ControlledTerms,
            ],
            QueryField.Author => r.People.Select(x => $"{x.Given} {x.Family}"),
            QueryField.Venue => r.Venue is null ? [] : [r.Venue.Title],
            QueryField.Type => [DocumentTypes.Name(r.Type)],
            _ => throw new NotSupportedException(field.ToString()),
        };
        return texts.Select(Words.Of);
    }

    /// <summary>
    /// Whether a name as typed can be a person's, the long way: the words that are not the family name's are held, one
    /// by one and in every way to take them, against the given names.
    /// </summary>
    private static bool CanBe(string typed, PersonName person)
    {
        string[] Cut(string text) => [.. text.ToLowerInvariant().Split([' ', '.', ','], (StringSplitOptions)1)];
        var (family, given) = (Cut(person.Family)[^1], Cut(person.Given));
        var words = Cut(typed).Where(w => w is not ("van" or "der")).ToArray();
        if (words.Length < 2 || given.Length == 0)
            return false;
        var comma = typed.Contains(',', StringComparison.Ordinal);
        bool Given(string[] rest) =>
            rest.Zip(given)
                .All(p =>
                    p.First == p.Second || (p.First[0] == p.Second[0] && Math.Min(p.First.Length, p.Second.Length) == 1)
                );
        return (words[0] == family && Given(words[1..])) || (!comma && words[^1] == family && Given(words[..^1]));
    }

    private static List<(int Start, int End)> Spans(List<Word> words, TermNode term)
    {
        var spans = new List<(int, int)>();
        foreach (var form in term.Forms)
        foreach (var first in words.Select(w => w.Position).Distinct())
            if (form.Select((slot, i) => words.Any(w => w.Position == first + i && Fits(slot, w.Text))).All(x => x))
                spans.Add((first, first + form.Length));
        return spans;
    }

    private static bool Fits(string slot, string word)
    {
        if (slot.Length == 0)
            return word.Length == 0;
        return slot[0] switch
        {
            '*' => Fits(slot[1..], word) || (word.Length > 0 && Fits(slot, word[1..])),
            '?' => word.Length > 0 && Fits(slot[1..], word[1..]),
            var c => word.Length > 0 && word[0] == c && Fits(slot[1..], word[1..]),
        };
    }

    private static bool Near(List<Word> words, NearNode near, QueryNode? without)
    {
        List<(int Start, int End)> Side(QueryNode part) =>
            part switch
            {
                TermNode t => ReferenceEquals(t, without) ? [] : Spans(words, t),
                OrNode o => [.. o.Parts.SelectMany(Side)],
                _ => throw new NotSupportedException(),
            };
        var reached = Side(near.Parts[0]);
        for (var i = 1; i < near.Parts.Length; i++)
            reached =
            [
                .. Side(near.Parts[i])
                    .Where(b => reached.Any(a => Gap(a, b) is >= 0 and var gap && gap <= near.Distances[i - 1])),
            ];
        return reached.Count > 0;

        static int Gap((int Start, int End) a, (int Start, int End) b) =>
            a.End <= b.Start ? b.Start - a.End
            : b.End <= a.Start ? a.Start - b.End
            : -1;
    }
}
