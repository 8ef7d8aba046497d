namespace Zendle.Core.Reviews.Acts;

/// <summary>
/// Narrows by the values of a field. It takes the place of the field's narrowing before; an empty one lifts it.
/// </summary>
/// <param name="Facet">The field.</param>
/// <param name="Values">Values of which a work has one; empty for any.</param>
/// <param name="Excluded">Values that no record of a work has.</param>
/// <param name="Each">Values of which a work has each, beside one of <paramref name="Values"/>; null for none.</param>
public sealed record NarrowAct(
    Facet Facet,
    IReadOnlyList<string>? Values = null,
    IReadOnlyList<string>? Excluded = null,
    IReadOnlyList<string>? Each = null
) : StepAct
{
    /// <summary>Values of which a work has one; empty for any.</summary>
    public IReadOnlyList<string> Values { get; init; } = Values ?? [];

    /// <summary>Values that no record of a work has.</summary>
    public IReadOnlyList<string> Excluded { get; init; } = Excluded ?? [];

    /// <summary>Values of which a work has each, beside one of <see cref="Values"/>; null for none.</summary>
    public IReadOnlyList<string>? Each { get; init; } = Each is { Count: > 0 } ? Each : null;

    /// <inheritdoc/>
    public override SearchState After(SearchState before)
    {
        var others = before.Narrowings.RemoveAll(n => n.Facet == Facet);
        return before with
        {
            Narrowings =
                Values.Count + Excluded.Count == 0 && Each is null
                    ? others
                    : others.Add(new(Facet, [.. Values], [.. Excluded], [.. Each ?? []])),
        };
    }

    /// <inheritdoc/>
    public override string Label(ActNames names)
    {
        var parts = new List<string>();
        if (Values.Count > 0)
            parts.Add(string.Join(", ", Values));
        if (Each is not null)
            parts.Add("with " + string.Join(", ", Each));
        if (Excluded.Count > 0)
            parts.Add("without " + string.Join(", ", Excluded));
        return parts.Count == 0 ? $"any {Facets.Name(Facet)}" : string.Join("; ", parts);
    }

    /// <inheritdoc/>
    public override bool CanBecome(StepAct other) => other is NarrowAct narrow && narrow.Facet == Facet;
}
