using System.Globalization;
using System.Text;
using Zendle.Outside.World;

namespace Zendle.Outside.Documents;

/// <summary>
/// Puts citations behind sentences of a running text, by name and year, as its list of references has them: each work that
/// is cited stands behind one sentence, two or three of them together now and then.
/// </summary>
public static class InTextCitations
{
    private static readonly string[] Where = ["Introduction", "Discussion", "Comment"];

    /// <summary>The sections with citations.</summary>
    /// <param name="work">The citing work.</param>
    /// <param name="works">All works.</param>
    /// <param name="sections">The sections.</param>
    public static List<Section> Into(Work work, IReadOnlyList<Work> works, List<Section> sections)
    {
        var dice = new Dice(83).For("citing", work.Id);
        var open = new Queue<Work>(work.Cites.Select(c => works[c]));
        return
        [
            .. sections.Select(s =>
                Where.Contains(s.Heading)
                    ? s with
                    {
                        Paragraphs = [.. s.Paragraphs.Select(p => Cited(p, open, dice))],
                    }
                    : s
            ),
        ];
    }

    private static string Cited(string paragraph, Queue<Work> open, Dice dice)
    {
        var text = new StringBuilder(paragraph.Length * 2);
        for (var i = 0; i < paragraph.Length; i++)
        {
            var isEnd =
                paragraph[i] == '.'
                && i > 2
                && char.IsLower(paragraph[i - 1])
                && char.IsLower(paragraph[i - 2])
                && (
                    i + 1 == paragraph.Length
                    || (paragraph[i + 1] == ' ' && i + 2 < paragraph.Length && char.IsUpper(paragraph[i + 2]))
                );
            if (isEnd && open.Count > 0)
            {
                var group = new List<string>();
                for (var n = dice.Between(1, 3); n > 0 && open.TryDequeue(out var cited); n--)
                    group.Add(NameAndYear(cited));
                text.Append(" (").AppendJoin("; ", group).Append(')');
            }
            text.Append(paragraph[i]);
        }
        return text.ToString();
    }

    /// <summary>A work as the text names it: "Berg 2004", "Berg and Lind 2004" with an ampersand, "Berg et al. 2004".</summary>
    public static string NameAndYear(Work w)
    {
        var names = w.People.Length switch
        {
            1 => w.People[0].Family,
            2 => $"{w.People[0].Family} & {w.People[1].Family}",
            _ => $"{w.People[0].Family} et al.",
        };
        return string.Create(CultureInfo.InvariantCulture, $"{names} {w.Year}");
    }
}
