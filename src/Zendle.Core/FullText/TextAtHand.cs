using Zendle.Core.Records;

namespace Zendle.Core.FullText;

/// <summary>
/// How the text of a work can be had, best way first, as far as its records tell; said in words in the list.
/// </summary>
public static class TextAtHand
{
    /// <summary>All the words, best first; the index of a word is its rank.</summary>
    public static IReadOnlyList<string> Words { get; } =
    [
        "free, version of record",
        "free, proof",
        "free, accepted manuscript",
        "free, submitted manuscript",
        "free, version not said",
        "not free",
        "nothing known",
    ];

    /// <summary>Rank of the best copy: an index into <see cref="Words"/>.</summary>
    public static int Best(IEnumerable<Copy> copies) => copies.Select(Rank).DefaultIfEmpty(Words.Count - 1).Min();

    /// <summary>The best of the copies that anyone may read; null when there is none.</summary>
    public static Copy? BestFree(IEnumerable<Copy> copies) =>
        copies.Where(c => c.Access == CopyAccess.Free).MinBy(Rank);

    /// <summary>Whether a rank of <see cref="Best"/> says that the text is there, and not free.</summary>
    public static bool IsClosed(int rank) => rank == 5;

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
            CopyAccess.Closed => 5,
            _ => 6,
        };
}
