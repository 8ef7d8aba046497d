using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Sets;

namespace Zendle.Server.Features.Search;

/// <summary>The kept works that a line does not find, and the parts of it that they do not pass.</summary>
internal sealed class MissedParts
{
    private readonly ImmutableArray<WorkSet> by;

    /// <summary>Holds the kept works against the parts of a line.</summary>
    /// <param name="view">What the line finds.</param>
    /// <param name="cards">Its parts.</param>
    public MissedParts(SearchView view, ImmutableArray<BoardCard> cards)
    {
        All = view.Facts.Kept.Copy();
        All.ExceptWith(view.Answer.Before);
        by =
        [
            .. cards.Select(card =>
            {
                var missed = All.Copy();
                missed.ExceptWith(view.Evaluator.Works(card.Expression, view.State.Databases));
                return missed;
            }),
        ];
    }

    /// <summary>All of them.</summary>
    public WorkSet All { get; }

    /// <summary>Those that do not pass a part.</summary>
    public WorkSet By(int card) => by[card];

    /// <summary>Those among them that pass everything else.</summary>
    public WorkSet OnlyBy(int card)
    {
        var only = by[card].Copy();
        for (var other = 0; other < by.Length; other++)
            if (other != card)
                only.ExceptWith(by[other]);
        return only;
    }
}
