namespace Zendle.Core.Reviews.Acts;

/// <summary>Narrows by words inside the set, in place of those before.</summary>
/// <param name="Words">Expressions that must all hold; empty for none.</param>
public sealed record InsideAct(IReadOnlyList<string> Words) : StepAct
{
    /// <summary>Expressions that must all hold; empty for none.</summary>
    public IReadOnlyList<string> Words { get; init; } = Words ?? [];

    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before with
        {
            Inside = [.. Words.Select(w => w.Trim()).Where(w => w.Length > 0)],
        };

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Words.Count > 0 ? "inside: " + string.Join(", ", Words) : "no words inside";

    /// <inheritdoc/>
    public override ActFault? Fault() => Words.Select(ActFault.OfExpression).FirstOrDefault(f => f is not null);
}
