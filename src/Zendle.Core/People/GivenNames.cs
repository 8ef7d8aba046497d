namespace Zendle.Core.People;

/// <summary>Whether two sets of given names can be one person's, and how much their agreement says.</summary>
public static class GivenNames
{
    /// <summary>
    /// True unless a part contradicts: "Marisol K" and "M" can be one; "Marisol K" and "Marisol B", or "Marisol" and
    /// "Miriam", cannot.
    /// </summary>
    public static bool Compatible(IReadOnlyList<string> a, IReadOnlyList<string> b) =>
        Compatible(a, b, static (x, y) => x == y);

    /// <summary>The same, where parts told in full are held against each other in a way of one's own.</summary>
    /// <param name="a">Given names as parts.</param>
    /// <param name="b">Others.</param>
    /// <param name="same">Whether a part of <paramref name="a"/> and one of <paramref name="b"/> are one.</param>
    public static bool Compatible(IReadOnlyList<string> a, IReadOnlyList<string> b, Func<string, string, bool> same)
    {
        for (var i = 0; i < Math.Min(a.Count, b.Count); i++)
            if (a[i].Length == 1 || b[i].Length == 1 ? a[i][0] != b[i][0] : !same(a[i], b[i]))
                return false;
        return true;
    }

    /// <summary>
    /// What agreement of compatible names is worth, as a log odds: a full first name in common says much, an initial
    /// little, a middle initial in common a good deal; a middle name that only one has says a little against.
    /// </summary>
    public static double Worth(IReadOnlyList<string> a, IReadOnlyList<string> b, PersonWeights weights)
    {
        if (a.Count == 0 || b.Count == 0)
            return 0;
        var full = a[0].Length > 1 && b[0].Length > 1;
        var worth = full ? weights.FullName : weights.Initial;
        if (a.Count > 1 && b.Count > 1)
            worth += weights.Middle;
        else if (a.Count != b.Count)
            worth += full ? weights.MiddleOnceFull : weights.MiddleOnce;
        return worth;
    }
}
