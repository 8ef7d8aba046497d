using Zendle.Index.Senses;

namespace Zendle.Server.Features.Search.Senses;

/// <summary>A work by which a group is shown.</summary>
internal sealed record SenseExampleDto(int WorkId, string Title, int? Year);

/// <summary>Works in view that use its words in one sense.</summary>
/// <param name="Terms">Up to five terms that mark them among the works in view.</param>
/// <param name="Subjects">Their commonest subjects.</param>
/// <param name="Works">Their ids, ascending.</param>
/// <param name="From">Year of the oldest; 0 for no year.</param>
/// <param name="To">Year of the newest.</param>
/// <param name="Examples">Three of them.</param>
internal sealed record SenseDto(
    IReadOnlyList<string> Terms,
    IReadOnlyList<string> Subjects,
    IReadOnlyList<int> Works,
    int From,
    int To,
    IReadOnlyList<SenseExampleDto> Examples
);

/// <summary>The senses of a set in view.</summary>
/// <param name="Total">Works in view.</param>
/// <param name="Most">So many works at most are parted; of more the list is empty.</param>
/// <param name="Groups">The groups, the largest first.</param>
/// <param name="Rest">Works in view that are in no group, ascending.</param>
internal sealed record SensesDto(int Total, int Most, IReadOnlyList<SenseDto> Groups, IReadOnlyList<int> Rest);

/// <summary>Tells the senses of the set in view of a step.</summary>
internal sealed class SenseService(SearchService search, Partings partings)
{
    /// <summary>The senses of a step; null when the review has no such step.</summary>
    public async Task<SensesDto?> Of(int reviewId, int stepId)
    {
        using var view = await search.View(reviewId, stepId);
        return view is null ? null : Told(view);
    }

    private SensesDto Told(SearchView view)
    {
        var (set, columns) = (view.Answer.InView, view.Snapshot.Columns);
        var total = set.Count();
        if (total > SenseGroups.MostWorks)
            return new(total, SenseGroups.MostWorks, [], []);
        var groups = partings.Of(view, Fineness.Fields).Groups;
        var rest = set.Copy();
        foreach (var work in groups.SelectMany(g => g.Works))
            rest.Remove(work);
        return new(
            total,
            SenseGroups.MostWorks,
            [
                .. groups.Select(g => new SenseDto(
                    g.Terms,
                    g.Subjects,
                    g.Works,
                    g.From,
                    g.To,
                    [.. g.Examples.Select(w => new SenseExampleDto(w, columns.SortTitle[w] ?? "", columns.YearOf(w)))]
                )),
            ],
            rest.ToArray()
        );
    }
}
