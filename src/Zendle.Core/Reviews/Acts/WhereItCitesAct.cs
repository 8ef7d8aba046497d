using Zendle.Core.Queries;

namespace Zendle.Core.Reviews.Acts;

/// <summary>
/// Narrows a trail to works whose gathered text has words near the place where it cites a seed, in place of those before.
/// </summary>
/// <param name="Words">The expression; empty for none.</param>
public sealed record WhereItCitesAct(string Words) : StepAct
{
    /// <summary>The expression; empty for none.</summary>
    public string Words { get; init; } = Words ?? "";

    /// <inheritdoc/>
    public override SearchState After(SearchState before) => before with { WhereItCites = Words.Trim() };

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Words.Trim().Length > 0 ? $"where it cites: {Words.Trim()}" : "no words where it cites";

    /// <inheritdoc/>
    public override bool SaysSomethingIn(SearchState before) => before.Trail is not null;

    /// <inheritdoc/>
    public override ActFault? Fault() =>
        Words.Trim().Length == 0 ? null
        : ActFault.OfExpression(Words) is { } fault ? fault
        : QueryReader.Read(Words).Root is { } root && PlainMatch.CanAsk(root) ? null
        : new(
            "Only words and phrases can be looked for where a work cites.",
            "Leave fields and years out; the list is unchanged."
        );
}
