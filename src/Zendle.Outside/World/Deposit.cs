namespace Zendle.Outside.World;

/// <summary>
/// Where the accepted manuscript of a work lies: in the Harbour Repository, free at once, or in the Fallowmere Archive of a
/// university, whose publishers hold manuscripts back for two years.
/// </summary>
public static class Deposit
{
    /// <summary>What the addresses of the archive that holds manuscripts back begin with.</summary>
    public const string HoldsBack = "/fallowmere/item/";

    private const int Since = 2022,
        MonthsBack = 24;

    private static bool IsAtFallowmere(Work w) =>
        w is { HasManuscript: true, Year: >= Since, Journal.Open: false }
        && new Dice(6151).For("deposit", w.Id).Chance(0.5);

    /// <summary>What the repository is called.</summary>
    public static string NameOf(Work w) => IsAtFallowmere(w) ? "Fallowmere Archive" : "Harbour Repository";

    /// <summary>Path of its landing page.</summary>
    public static string PathOf(Work w) => IsAtFallowmere(w) ? $"{HoldsBack}{w.Id}" : $"/harbour/item/{w.Id}";

    /// <summary>From which day anyone may read it; null for one that was never held back.</summary>
    public static DateOnly? OpensOn(Work w) =>
        IsAtFallowmere(w) ? new DateOnly(w.Year, 1, 1).AddDays(w.Day - 1).AddMonths(MonthsBack) : null;
}
