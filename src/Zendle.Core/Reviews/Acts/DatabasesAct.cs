namespace Zendle.Core.Reviews.Acts;

/// <summary>Chooses the databases that are searched.</summary>
/// <param name="Databases">Their ids, 1 to 255; empty for all.</param>
public sealed record DatabasesAct(IReadOnlyList<int> Databases) : StepAct
{
    /// <summary>Ids of the databases, 1 to 255; empty for all.</summary>
    public IReadOnlyList<int> Databases { get; init; } = Databases ?? [];

    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before with
        {
            Databases = [.. Databases.Distinct().Order()],
        };

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Databases.Count > 0 ? "in " + string.Join(", ", Databases.Select(names.Database)) : "all databases";

    /// <inheritdoc/>
    public override ActFault? Fault() =>
        Databases.Any(d => d is < 1 or > 255)
            ? new("One of the databases does not belong to this installation.")
            : null;
}
