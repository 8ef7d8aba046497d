using System.Globalization;
using Zendle.Core.Records;

namespace Zendle.Core.FullText;

/// <summary>
/// How the text of a work can be had, best way first, as far as its records tell; said in words in the list.
/// </summary>
public static class TextAtHand
{
    private const int Later = 5,
        Sold = 6,
        NothingKnown = 7;

    /// <summary>All the words, best first; the index of a word is its rank.</summary>
    public static IReadOnlyList<string> Words { get; } =
    [
        "free, version of record",
        "free, proof",
        "free, accepted manuscript",
        "free, submitted manuscript",
        "free, version not said",
        "free from a later day",
        "not free",
        "nothing known",
    ];

    /// <summary>Rank of the best copy: an index into <see cref="Words"/>.</summary>
    public static int Best(IEnumerable<Copy> copies) => copies.Select(Rank).DefaultIfEmpty(NothingKnown).Min();

    /// <summary>How the text can be had, in words: the best way, and from which day.</summary>
    public static string Said(IReadOnlyCollection<Copy> copies) =>
        FreeFrom(copies) is { } day
            ? string.Create(CultureInfo.InvariantCulture, $"free from {day:d MMM yyyy}")
            : Words[Best(copies)];

    /// <summary>Whether a rank of <see cref="Best"/> says that anyone may read it.</summary>
    public static bool IsFree(int rank) => rank < Later;

    /// <summary>Whether a rank of <see cref="Best"/> says that anyone may read it from a day on.</summary>
    public static bool IsLater(int rank) => rank == Later;

    /// <summary>The first day on which anyone may read one of some copies; null when one is free, or none opens on a day.</summary>
    public static DateOnly? FreeFrom(IReadOnlyCollection<Copy> copies) =>
        Best(copies) == Later ? copies.Min(c => c.OpensOn) : null;

    /// <summary>Whether a rank of <see cref="Best"/> says that the text is there, and sold.</summary>
    public static bool IsSold(int rank) => rank == Sold;

    private static int Rank(Copy copy) =>
        copy.Access switch
        {
            CopyAccess.Free => copy.Version switch
            {
                null => 4,
                var v when WorkVersions.IsOfRecord(v) => 0,
                WorkVersion.Proof => 1,
                WorkVersion.AcceptedManuscript => 2,
                _ => 3,
            },
            CopyAccess.Closed => copy.OpensOn is null ? Sold : Later,
            _ => NothingKnown,
        };
}
