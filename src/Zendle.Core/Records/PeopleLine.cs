namespace Zendle.Core.Records;

/// <summary>The people of a work on one line.</summary>
public static class PeopleLine
{
    private const int Most = 4,
        Shown = 3;

    /// <summary>
    /// Family names: up to four, else three and how many more; that they are editors is said behind them.
    /// </summary>
    public static string Of(IReadOnlyList<PersonName> people)
    {
        var names = string.Join(", ", people.Take(people.Count <= Most ? Most : Shown).Select(p => p.Family));
        if (people.Count > Most)
            names += $" and {people.Count - Shown} more";
        return people.Count > 0 && people.All(p => p.Role == "editor")
            ? $"{names} ({(people.Count == 1 ? "ed." : "eds")})"
            : names;
    }
}
