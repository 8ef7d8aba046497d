using Zendle.Core.Queries;
using Zendle.Core.Sets;

namespace Zendle.Index.Questions;

/// <summary>The words of the full texts that a review has gathered.</summary>
public interface ITextWords
{
    /// <summary>The works whose text a term stands in, or terms near each other.</summary>
    /// <param name="node">A term, or terms that are to stand near each other.</param>
    /// <param name="size">Ids of works are below this.</param>
    WorkSet Holding(QueryNode node, int size);
}
