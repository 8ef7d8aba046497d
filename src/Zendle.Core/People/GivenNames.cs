namespace Zendle.Core.People;

/// <summary>Whether two sets of given names can be one person's, and how much their agreement says.</summary>
public static class GivenNames
{
    /// <summary>
    /// True unless a part contradicts: "Marisol K" and "M" can be one; "Marisol K" and "Marisol B", or "Marisol" and
    /// "Miriam", cannot.
    /// </summary>
    public static bool Compatible(IReadOnlyList<string> a, IReadOnlyList<string> b) => Compatible(a, b, Fit);

    /// <summary>The same, where parts are held against each other in a way of one's own.</summary>
    /// <param name="a">Given names as parts.</param>
    /// <param name="b">Others.</param>
    /// <param name="fit">Whether a part of <paramref name="a"/> and one of <paramref name="b"/> can be one.</param>
    internal static bool Compatible(IReadOnlyList<string> a, IReadOnlyList<string> b, Func<string, string, bool> fit)
    {
        for (var i = 0; i < Math.Min(a.Count, b.Count); i++)
            if (!fit(a[i], b[i]))
                return false;
        return true;
    }

    /// <summary>Whether two parts can be one: the same, or one the initial of the other.</summary>
    internal static bool Fit(string a, string b) => a.Length == 1 || b.Length == 1 ? a[0] == b[0] : a == b;

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
