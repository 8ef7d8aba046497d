using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;

namespace Zendle.Server.Features.Search;

/// <summary>A part of a search and how many kept works are missed through it.</summary>
/// <param name="Card">The card's place on the board.</param>
/// <param name="Letter">Letter of the concept; null for other cards.</param>
/// <param name="Text">The part as an expression.</param>
/// <param name="Works">Missed kept works that do not pass it.</param>
/// <param name="OnlyIt">Those among them that pass everything else.</param>
internal sealed record MissedByDto(int Card, string? Letter, string Text, int Works, int OnlyIt);

/// <summary>A kept work that a search does not find.</summary>
/// <param name="WorkId">The work.</param>
/// <param name="Title">Its title.</param>
/// <param name="Year">Its year.</param>
/// <param name="By">Places of the cards it does not pass; none when it passes each, but in no one record.</param>
internal sealed record MissedWorkDto(int WorkId, string Title, int? Year, IReadOnlyList<int> By);

/// <summary>Which kept works a line misses, and through which of its parts.</summary>
internal sealed record MissedKeptDto(int Total, IReadOnlyList<MissedByDto> By, IReadOnlyList<MissedWorkDto> Works);

/// <summary>Tells which kept works a line misses and why.</summary>
internal sealed class MissedKept(SearchService search)
{
    private const int MostShown = 400;

    /// <summary>Holds the kept works against a line in the databases of a state.</summary>
    public async Task<MissedKeptDto> Of(int reviewId, string text, SearchState state)
    {
        using var view = await search.View(reviewId, state.After(new SearchAct(text)));
        if (view.Answer.Reading.Root is not { } root)
            return new(0, [], []);
        var columns = view.Snapshot.Columns;
        var cards = SearchBoard.Of(root).Cards;
        var missed = new MissedParts(view, cards);
        var letters = new Queue<Concept>(view.Answer.Concepts);
        var works = missed
            .All.Members()
            .Select(w =>
                (Work: w, By: Enumerable.Range(0, cards.Length).Where(i => missed.By(i).Contains(w)).ToArray())
            );
        return new(
            missed.All.Count(),
            [
                .. cards
                    .Select(
                        (card, i) =>
                            new MissedByDto(
                                i,
                                card.Kind is CardKind.Concept or CardKind.Block
                                    ? letters.Dequeue().Letter.ToString()
                                    : null,
                                card.Expression,
                                missed.By(i).Count(),
                                missed.OnlyBy(i).Count()
                            )
                    )
                    .Where(p => p.Works > 0),
            ],
            [
                .. works
                    .OrderBy(w => w.By.Length)
                    .ThenByDescending(w => columns.Year[w.Work])
                    .ThenBy(w => w.Work)
                    .Take(MostShown)
                    .Select(w => new MissedWorkDto(
                        w.Work,
                        columns.SortTitle[w.Work] ?? "",
                        columns.YearOf(w.Work),
                        w.By
                    )),
            ]
        );
    }
}
