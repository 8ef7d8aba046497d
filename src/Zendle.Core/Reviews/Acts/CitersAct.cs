using System.Collections.Immutable;
using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Asks for the works that cite a name, in place of the question before and all that narrowed it.</summary>
/// <param name="Name">The name as it was asked for.</param>
/// <param name="Persons">Labels of the persons it stands for.</param>
/// <param name="Printed">Names it stands for in references that match no work.</param>
public sealed record CitersAct(string Name, IReadOnlyList<string>? Persons, IReadOnlyList<string>? Printed) : StepAct
{
    /// <summary>Most variants of a name.</summary>
    public const int MostVariants = 1_000;

    private const int LongestName = 200;

    /// <summary>The name as it was asked for.</summary>
    public string Name { get; init; } = Name ?? "";

    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        SearchState.Everything with
        {
            Question = new CitersQuestion(Name.Trim(), Sorted(Persons), Sorted(Printed)),
        };

    /// <inheritdoc/>
    public override string Label(ActNames names) => $"what cites {Name.Trim()}";

    /// <inheritdoc/>
    public override ActFault? Fault() =>
        Name.Trim().Length is 0 or > LongestName ? new($"A name has between one and {LongestName} characters.")
        : (Persons?.Count ?? 0) + (Printed?.Count ?? 0) is var variants && variants == 0
            ? new("No variant of the name is ticked.", "Tick those whose citations count.")
        : variants > MostVariants
            ? new($"At most {MostVariants:N0} variants of a name are followed; these are {variants:N0}.")
        : null;

    /// <inheritdoc/>
    public override bool BeginsAnew() => true;

    private static ImmutableArray<string> Sorted(IReadOnlyList<string>? variants) =>
        [.. (variants ?? []).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];
}
