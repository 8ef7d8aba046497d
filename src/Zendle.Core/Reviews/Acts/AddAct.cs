using Zendle.Core.Sets;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Joins a further part to an expression by AND; on a trail, words inside it.</summary>
/// <param name="Expression">The further part.</param>
public sealed record AddAct(string Expression) : StepAct
{
    private const string Not = "NOT ";

    /// <summary>The further part.</summary>
    public string Expression { get; init; } = Expression ?? "";

    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before.Question is WordsQuestion words
            ? before with
            {
                Question = new WordsQuestion(SearchState.Joined(words.Expression, Expression.Trim())),
            }
            : before with
            {
                Inside = before.Inside.Add(Expression.Trim()),
            };

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Expression.StartsWith(Not, StringComparison.Ordinal)
            ? "without " + Expression[Not.Length..]
            : "+ " + Expression;

    /// <inheritdoc/>
    public override ActFault? Fault() => ActFault.OfExpression(Expression);
}
