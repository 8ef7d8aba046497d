using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Text;
using Zendle.Index.Columns;

namespace Zendle.Index.Trails;

/// <summary>Works that a notice retracts.</summary>
public static class Retractions
{
    /// <summary>
    /// The retracted works, each with its notice: the work that the notice cites and names in its title, or the only one it
    /// cites. O(notices and what they cite).
    /// </summary>
    public static IReadOnlyDictionary<int, int> Of(CorpusColumns columns)
    {
        var retracted = new Dictionary<int, int>();
        var notices = columns
            .Of(Facet.Type)
            .With([DocumentTypes.Name(DocumentType.RetractionNotice)], columns.WorkSize);
        foreach (var notice in notices.Members())
        {
            var cited = columns.Graph.Cites(notice).ToArray();
            var title = Plain(columns.SortTitle[notice]);
            var named = cited
                .Where(c => Plain(columns.SortTitle[c]) is { Length: > 0 } its && title.Contains(its))
                .ToArray();
            if ((named.Length > 0 ? named : cited) is [var one])
                retracted.TryAdd(one, notice);
        }
        return retracted;
    }

    private static string Plain(string? title) => string.Join(' ', Words.AsWritten(title ?? ""));
}
