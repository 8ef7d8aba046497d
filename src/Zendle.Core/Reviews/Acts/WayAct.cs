using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Follows a trail another way.</summary>
/// <param name="Way">Which way.</param>
public sealed record WayAct(TrailWay Way) : StepAct
{
    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before.Trail is { } trail ? before with { Question = trail with { Way = Way } } : before;

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Way switch
        {
            TrailWay.Backward => "only what they cite",
            TrailWay.Forward => "only what cites them",
            _ => "both ways",
        };

    /// <inheritdoc/>
    public override bool SaysSomethingIn(SearchState before) => before.Trail is not null;
}
