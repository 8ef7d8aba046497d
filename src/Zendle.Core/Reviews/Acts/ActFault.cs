using Zendle.Core.Queries;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Why an act cannot be taken.</summary>
/// <param name="Sentence">What is wrong, for the person who took it.</param>
/// <param name="Advice">What to do; null where nothing can be said.</param>
public sealed record ActFault(string Sentence, string? Advice = null)
{
    private const int MostSaid = 200;

    /// <summary>What is wrong with an expression; null when it can be searched.</summary>
    internal static ActFault? OfExpression(string expression)
    {
        var reading = QueryReader.Read(expression);
        if (reading.Problems.Length > 0)
            return new(
                reading.Problems[0].Sentence,
                reading.Problems[0].Repair is { } r ? $"You could {r.Label}." : "The list is unchanged."
            );
        return reading.Root is null
            ? new("The search line has nothing to search for.", "The list is unchanged.")
            : null;
    }

    /// <summary>What is wrong with works that are named one by one; null for nothing.</summary>
    internal static ActFault? OfWorks(IReadOnlyCollection<int> works) =>
        works.Any(w => w <= 0) ? new("One of the seeds is not a work.") : null;

    /// <summary>What is wrong with a description; null for nothing.</summary>
    internal static ActFault? OfSaid(string? said) =>
        said?.Length > MostSaid ? new($"The description of a step has at most {MostSaid} characters.") : null;
}
