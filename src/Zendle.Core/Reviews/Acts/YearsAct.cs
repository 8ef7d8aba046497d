namespace Zendle.Core.Reviews.Acts;

/// <summary>Narrows by the year that a work shows.</summary>
/// <param name="From">First year, or null.</param>
/// <param name="To">Last year, or null.</param>
public sealed record YearsAct(int? From = null, int? To = null) : StepAct
{
    /// <inheritdoc/>
    public override SearchState After(SearchState before) => before with { From = From, To = To };

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        (From, To) switch
        {
            (null, null) => "any year",
            (null, _) => $"until {To}",
            (_, null) => $"from {From}",
            _ => From == To ? $"{From}" : $"{From}–{To}",
        };

    /// <inheritdoc/>
    public override ActFault? Fault() => From > To ? new("The first year lies after the last.") : null;
}
