using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Trails;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Trails;

/// <summary>A sentence of a gathered text that cites.</summary>
/// <param name="Text">The sentence, with the words that were looked for marked.</param>
/// <param name="Page">Its page, from 1.</param>
/// <param name="Seeds">Numbers of the seeds it cites; none where no trail is followed.</param>
internal sealed record SaidSentenceDto(MarkedTextDto Text, int Page, IReadOnlyList<int> Seeds);

/// <summary>What the text of a work says where it cites.</summary>
/// <param name="Total">How many sentences do.</param>
/// <param name="Sentences">The first of them.</param>
internal sealed record SaidTextDto(
    int WorkId,
    int TextId,
    string Name,
    int Total,
    IReadOnlyList<SaidSentenceDto> Sentences
);

/// <summary>What gathered texts say.</summary>
/// <param name="Asked">How many texts were asked: those that were read, of works that cite a seed where a trail is
/// followed.</param>
/// <param name="Total">How many of them say something.</param>
/// <param name="Texts">The first of these, by work.</param>
internal sealed record SaidDto(int Asked, int Total, IReadOnlyList<SaidTextDto> Texts);

/// <summary>What gathered texts say of the works they cite.</summary>
internal static class SaidEndpoints
{
    private const int MostTexts = 500,
        MostSentences = 12;

    public static void MapSaid(this RouteGroupBuilder review)
    {
        review.MapGet("/steps/{stepId:int}/said", OfSeeds).Produces<SaidDto>();
        review.MapGet("/works/{workId:int}/said", OfWork).Produces<SaidDto>();
    }

    /// <summary>What the works in view of a trail say of its seeds.</summary>
    private static async Task<IResult> OfSeeds(
        int reviewId,
        int stepId,
        SearchService search,
        CitingTexts texts,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, stepId);
        cancel.ThrowIfCancellationRequested();
        if (view is null)
            return SearchEndpoints.NoStep();
        // Where no trail leads forward nobody cites a seed.
        if (view.State.Trail is not { HasFuture: true } || view.Answer.Trail is not { } trail)
            return TypedResults.Ok(new SaidDto(0, 0, []));
        var (citing, said) = (trail.Future.Works(1), await texts.Of(reviewId, view.Snapshot));
        return TypedResults.Ok(
            Said(
                view,
                [.. said.Where(t => t.Work < citing.Size && citing.Contains(t.Work))],
                view.Answer.InView.Contains,
                trail.NumberOf,
                view.State.WhereItCites
            )
        );
    }

    /// <summary>What all gathered texts say of one work.</summary>
    private static async Task<IResult> OfWork(
        int reviewId,
        int workId,
        SearchService search,
        CitingTexts texts,
        CancellationToken cancel
    )
    {
        using var view = (await search.View(reviewId, 0))!;
        cancel.ThrowIfCancellationRequested();
        return TypedResults.Ok(
            Said(view, await texts.Of(reviewId, view.Snapshot), _ => true, w => w == workId ? 0 : null, "")
        );
    }

    private static SaidDto Said(
        SearchView view,
        IReadOnlyCollection<SaidText> texts,
        Func<int, bool> inView,
        Func<int, int?> number,
        string words
    )
    {
        var root = words.Length == 0 ? null : QueryReader.Read(words).Root;
        var concepts = root is null ? ImmutableArray<Concept>.Empty : Concepts.Of(root);
        var saying = texts
            .Where(t => inView(t.Work))
            .Select(t => (Text: t, Sentences: Of(t)))
            .Where(t => t.Sentences.Length > 0)
            .ToArray();
        return new(
            texts.Count,
            saying.Length,
            [
                .. saying
                    .Take(MostTexts)
                    .Select(t => new SaidTextDto(
                        t.Text.Work,
                        t.Text.TextId,
                        WorkNames.Of(view.Snapshot.Columns, t.Text.Work),
                        t.Sentences.Length,
                        [
                            .. t
                                .Sentences.Take(MostSentences)
                                .Select(s => new SaidSentenceDto(
                                    WorkRows.Mark(s.Text, concepts, QueryField.Anywhere),
                                    s.Page,
                                    [.. s.Works.Select(number).OfType<int>().Where(n => n > 0).Order()]
                                )),
                        ]
                    )),
            ]
        );

        // Where the words stand in the sentence itself, it tells more than beside them.
        SaidSentence[] Of(SaidText text) =>
            [
                .. text
                    .Sentences.Where(s =>
                        s.Works.Any(w => number(w) is not null) && (root is null || PlainMatch.Holds(root, s.Near))
                    )
                    .OrderByDescending(s => root is not null && PlainMatch.Holds(root, s.Text)),
            ];
    }
}
