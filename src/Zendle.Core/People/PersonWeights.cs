namespace Zendle.Core.People;

/// <summary>
/// What each piece of evidence for two names being one person is worth, as log odds (natural logarithm). From 0 on
/// two are one. The shipped ones were fitted on worlds of seeds 1 and 2, see docs/measures.md.
/// </summary>
public sealed record PersonWeights
{
    /// <summary>The shipped weights.</summary>
    public static PersonWeights Shipped { get; } = new();

    /// <summary>Where evidence begins: two compatible names under one rare family name.</summary>
    public double Start { get; init; } = 2.6;

    /// <summary>Both have a first name in full, and it is the same.</summary>
    public double FullName { get; init; } = 1.8;

    /// <summary>The first names agree in their initial only.</summary>
    public double Initial { get; init; } = 1.2;

    /// <summary>Both have a further name or initial, and they agree.</summary>
    public double Middle { get; init; } = 3.4;

    /// <summary>Of two full names one has a further name, the other has none.</summary>
    public double MiddleOnceFull { get; init; } = -2.6;

    /// <summary>Of two names, one in initials, one has a further name, the other has none.</summary>
    public double MiddleOnce { get; init; } = -1.6;

    /// <summary>For each doubling of the initials that stand under the family name: the commoner, the less it says.</summary>
    public double Commonness { get; init; } = -0.6;

    /// <summary>Both have co-authors, none in common; one; two and more.</summary>
    public IReadOnlyList<double> CoAuthors { get; init; } = [-1.3, 2, 5];

    /// <summary>Both have institutions, none in common; one and more.</summary>
    public IReadOnlyList<double> Institutions { get; init; } = [-2.4, 3.2];

    /// <summary>Both have subjects, keywords or venues, none in common; one; two; three; four and more.</summary>
    public IReadOnlyList<double> Topics { get; init; } = [-1.4, 0.2, 2.2, 3.6, 3.6];

    /// <summary>For each year beyond <see cref="YearsApart"/> that lies between their works.</summary>
    public double Gap { get; init; } = -0.14;

    /// <summary>Years between works that say nothing.</summary>
    public double YearsApart { get; init; } = 3;

    /// <summary>What a gap of years says at most.</summary>
    public double LongestGap { get; init; } = -3.4;

    /// <summary>How far below 0, from where two groups are one person, doubt begins.</summary>
    public double Doubt { get; init; } = 1.2;
}
