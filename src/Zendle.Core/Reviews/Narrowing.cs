using System.Collections.Immutable;

namespace Zendle.Core.Reviews;

/// <summary>A narrowing by the values of a field.</summary>
/// <param name="Facet">The field.</param>
/// <param name="Values">A work has one of these; empty for any.</param>
/// <param name="Excluded">No record of the work has one of these.</param>
/// <param name="Each">And it has each of these.</param>
public sealed record Narrowing(
    Facet Facet,
    ImmutableArray<string> Values,
    ImmutableArray<string> Excluded,
    ImmutableArray<string> Each
);
