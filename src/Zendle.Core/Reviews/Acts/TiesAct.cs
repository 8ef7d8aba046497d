namespace Zendle.Core.Reviews.Acts;

/// <summary>Narrows a trail to works tied to several seeds.</summary>
/// <param name="AtLeast">To how many seeds at least; 1 or less for any.</param>
public sealed record TiesAct(int AtLeast = 1) : StepAct
{
    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before.Trail is { } trail ? before with { Question = trail with { AtLeast = Math.Max(1, AtLeast) } } : before;

    /// <inheritdoc/>
    public override string Label(ActNames names) => AtLeast > 1 ? $"tied to {AtLeast} or more" : "tied to any";

    /// <inheritdoc/>
    public override bool SaysSomethingIn(SearchState before) => before.Trail is not null;
}
