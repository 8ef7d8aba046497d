using System.Globalization;

namespace Zendle.Core.Trails;

/// <summary>What each reason weighs in the joined order of neighbours; 0 leaves it out.</summary>
/// <param name="SharedReferences">0 to <see cref="Most"/>.</param>
/// <param name="CitedTogether">0 to <see cref="Most"/>.</param>
/// <param name="SharedTerms">0 to <see cref="Most"/>.</param>
/// <param name="SharedPeople">0 to <see cref="Most"/>.</param>
/// <param name="Tied">0 to <see cref="Most"/>; among the candidates of a round.</param>
public sealed record NeighbourWeights(
    int SharedReferences,
    int CitedTogether,
    int SharedTerms,
    int SharedPeople,
    int Tied
)
{
    /// <summary>The most a reason can weigh.</summary>
    public const int Most = 10;

    /// <summary>
    /// What they weigh as long as nobody moves them: chosen on one made-up world, held against others
    /// (<c>./zendle measure --trails</c>, docs/measures.md).
    /// </summary>
    public static NeighbourWeights Usual { get; } = new(3, 2, 10, 5, 3);

    /// <summary>What one reason weighs.</summary>
    public int Of(NeighbourKind kind) =>
        kind switch
        {
            NeighbourKind.SharedReferences => SharedReferences,
            NeighbourKind.CitedTogether => CitedTogether,
            NeighbourKind.SharedTerms => SharedTerms,
            NeighbourKind.SharedPeople => SharedPeople,
            _ => Tied,
        };

    /// <summary>What is wrong with them, as a sentence; null when nothing is.</summary>
    public string? Fault() =>
        NeighbourQuestion.AllKinds.Append(NeighbourKind.Tied).Any(k => Of(k) is < 0 or > Most)
            ? $"A weight lies between 0 and {Most}."
        : NeighbourQuestion.AllKinds.All(k => Of(k) == 0) ? "One of the weights must be above 0."
        : null;

    /// <summary>The weights as they are written down: numbers with blanks between them.</summary>
    public override string ToString() =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{SharedReferences} {CitedTogether} {SharedTerms} {SharedPeople} {Tied}"
        );

    /// <summary>Reads weights that were written down; the usual ones for anything else.</summary>
    public static NeighbourWeights Read(string? written)
    {
        int[] numbers =
        [
            .. (written ?? "")
                .Split(' ')
                .Select(n =>
                    int.TryParse(n, NumberStyles.None, CultureInfo.InvariantCulture, out var weight) ? weight : -1
                ),
        ];
        return
            numbers.Length == 5
            && new NeighbourWeights(numbers[0], numbers[1], numbers[2], numbers[3], numbers[4]) is var read
            && read.Fault() is null
            ? read
            : Usual;
    }
}
