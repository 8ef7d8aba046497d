namespace Zendle.Core.Reviews.Acts;

/// <summary>Narrows neighbours to those that have more in common with the seeds.</summary>
/// <param name="AtLeast">How many references, terms or people a neighbour shares at least, or in how many works it is
/// cited together with a seed; 1 or less for any.</param>
public sealed record SharedAct(int AtLeast = 1) : StepAct
{
    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before.Neighbours is { } neighbours
            ? before with
            {
                Question = neighbours with { AtLeast = Math.Max(1, AtLeast) },
            }
            : before;

    /// <inheritdoc/>
    public override string Label(ActNames names) => AtLeast > 1 ? $"{AtLeast} or more in common" : "anything in common";

    /// <inheritdoc/>
    public override bool SaysSomethingIn(SearchState before) => before.Neighbours is not null;
}
