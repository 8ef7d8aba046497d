using Zendle.Core.Sets;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Puts an expression, in place of the question before; what narrowed it stays.</summary>
/// <param name="Expression">The expression; empty for every work.</param>
public sealed record SearchAct(string Expression) : StepAct
{
    /// <summary>The expression; empty for every work.</summary>
    public string Expression { get; init; } = Expression ?? "";

    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before with
        {
            Question = new WordsQuestion(Expression.Trim()),
        };

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Expression.Trim() is { Length: > 0 } expression ? expression : "everything";

    /// <inheritdoc/>
    public override ActFault? Fault() => ActFault.OfExpression(Expression);

    /// <inheritdoc/>
    public override bool BeginsAnew() => true;
}
