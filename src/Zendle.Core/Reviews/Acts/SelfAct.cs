using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Leaves out what cites a name and is by the same person, or leaves only that.</summary>
/// <param name="Self">Whether such works count.</param>
public sealed record SelfAct(SelfCitations Self) : StepAct
{
    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before.Citers is { } citers ? before with { Question = citers with { Self = Self } } : before;

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Self switch
        {
            SelfCitations.Without => "without self-citations",
            SelfCitations.Only => "self-citations only",
            _ => "with self-citations",
        };

    /// <inheritdoc/>
    public override ActFault? Fault() => Enum.IsDefined(Self) ? null : new("There is no such choice.");

    /// <inheritdoc/>
    public override bool SaysSomethingIn(SearchState before) => before.Citers is not null;
}
