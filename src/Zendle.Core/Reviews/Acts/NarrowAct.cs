namespace Zendle.Core.Reviews.Acts;

/// <summary>
/// Narrows by the values of a field. It takes the place of the field's narrowing before; an empty one lifts it.
/// </summary>
/// <param name="Facet">The field.</param>
/// <param name="Values">Values of which a work has one; empty for any.</param>
/// <param name="Excluded">Values that no record of a work has.</param>
public sealed record NarrowAct(
    Facet Facet,
    IReadOnlyList<string>? Values = null,
    IReadOnlyList<string>? Excluded = null
) : StepAct
{
    /// <summary>Values of which a work has one; empty for any.</summary>
    public IReadOnlyList<string> Values { get; init; } = Values ?? [];

    /// <summary>Values that no record of a work has.</summary>
    public IReadOnlyList<string> Excluded { get; init; } = Excluded ?? [];

    /// <inheritdoc/>
    public override SearchState After(SearchState before)
    {
        var others = before.Narrowings.RemoveAll(n => n.Facet == Facet);
        return before with
        {
            Narrowings =
                Values.Count + Excluded.Count == 0 ? others : others.Add(new(Facet, [.. Values], [.. Excluded])),
        };
    }

    /// <inheritdoc/>
    public override string Label(ActNames names)
    {
        var parts = new List<string>();
        if (Values.Count > 0)
            parts.Add(string.Join(", ", Values));
        if (Excluded.Count > 0)
            parts.Add("without " + string.Join(", ", Excluded));
        return parts.Count == 0 ? $"any {Facets.Name(Facet)}" : string.Join("; ", parts);
    }

    /// <inheritdoc/>
    public override bool CanBecome(StepAct other) => other is NarrowAct narrow && narrow.Facet == Facet;
}
