namespace Zendle.Index.Senses;

/// <summary>How finely a set is parted.</summary>
/// <param name="Resolution">Below 1 for fewer and larger groups, above 1 for more and smaller.</param>
/// <param name="MostGroups">The largest so many are groups; works of others are left over.</param>
/// <param name="LeastShare">A smaller part of the set is no group.</param>
public sealed record Fineness(double Resolution, int MostGroups, double LeastShare)
{
    /// <summary>The fields that words come from, for senses.</summary>
    public static Fineness Fields { get; } = new(0.7, 12, 0.02);

    /// <summary>
    /// The topics of one field, for the lanes of a map: fewer where there are few works, whose terms would say little.
    /// </summary>
    public static Fineness Topics(int works) => new(works < 200 ? 1.2 : 2.2, 40, 0);
}
