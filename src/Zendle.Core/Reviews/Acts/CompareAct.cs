namespace Zendle.Core.Reviews.Acts;

/// <summary>Leaves what another search finds too, or what it does not find.</summary>
/// <param name="Other">The acts of the other search, written down, so that it means the same when its own path is
/// changed.</param>
/// <param name="Apart">Whether what the other search finds is taken away, rather than left.</param>
/// <param name="Said">What that leaves, in a few words; null where nobody said.</param>
public sealed record CompareAct(IReadOnlyList<StepAct>? Other = null, bool Apart = false, string? Said = null) : StepAct
{
    /// <summary>How many searches can be held against one another in one path.</summary>
    public const int Deepest = 4;

    /// <summary>The acts of the other search.</summary>
    public IReadOnlyList<StepAct> Other { get; init; } = Other ?? [];

    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before with
        {
            Others = [.. before.Others ?? [], new(Other, Apart, Said ?? "")],
        };

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Said is { Length: > 0 } ? Said
        : Apart ? "not in another search"
        : "in another search too";

    /// <inheritdoc/>
    public override ActFault? Fault()
    {
        if (Other.Count == 0)
            return new("There is no other search to compare with.");
        if (Depth() > Deepest)
            return new(
                "At most four searches can be compared in one path.",
                "Take a comparison out of one of the paths first."
            );
        return ActFault.OfSaid(Said) ?? Other.Select(a => a.Fault()).FirstOrDefault(f => f is not null);
    }

    private int Depth() => 1 + Other.OfType<CompareAct>().Select(c => c.Depth()).DefaultIfEmpty().Max();

    /// <inheritdoc/>
    public override IEnumerable<int> NamedWorks() => Other.SelectMany(a => a.NamedWorks());

    /// <inheritdoc/>
    public override StepAct Today(Func<int, int> today) => this with { Other = [.. Other.Select(a => a.Today(today))] };
}
