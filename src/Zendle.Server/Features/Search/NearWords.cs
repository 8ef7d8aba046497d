using Zendle.Core.Queries;
using Zendle.Index.Spelling;

namespace Zendle.Server.Features.Search;

/// <summary>Offers how a line may have been meant whose words the corpus hardly knows; see <see cref="LineMender"/>.</summary>
internal static class NearWords
{
    /// <summary>A longer line is shown by its mended words alone.</summary>
    private const int MostShown = 60;

    /// <summary>One notice with the likeliest ways, each with what the whole line then finds; nothing for known words.</summary>
    public static IEnumerable<NoticeDto> In(SearchView view, OfferCounts offers, QueryNode root, string text)
    {
        var mender = new LineMender(view.Snapshot.Columns, view.Evaluator, line => offers.Taken(line).Count());
        var (doubted, ways) = mender.Mend(root, text);
        if (ways.Count == 0)
            yield break;
        yield return new(
            "NearWords",
            doubted[0].Start,
            doubted[0].End - doubted[0].Start,
            Sentence(doubted),
            [
                .. ways.Select(w =>
                    WayDto.Written(w.Line.Length <= MostShown ? w.Line : string.Join(" … ", w.Words), w.Line, w.Works)
                ),
            ],
            []
        );
    }

    private static string Sentence(IReadOnlyList<DoubtedWord> doubted)
    {
        var quoted = string.Join(", ", doubted.Select(d => $"“{d.Typed}”"));
        return (doubted.Count, doubted.Max(d => d.Works)) switch
        {
            (1, 0) => $"No work has {quoted}. Near words:",
            (1, 1) => $"Only one work has {quoted}. Near words:",
            (1, var works) => $"Only {works} works have {quoted}. Near words:",
            (_, 0) => $"No work has {quoted}. With near words:",
            _ => $"Few works have {quoted}. With near words:",
        };
    }
}
