using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.Merging;

/// <summary>What a reference is led home by without reading its text.</summary>
/// <param name="Doi"><see cref="MergeKeys.Doi"/>; 0 for none.</param>
/// <param name="Title"><see cref="MergeKeys.TitleAndPerson"/>; 0 for none.</param>
/// <param name="Year">The year it prints; 0 when it prints none, or when it was written down before years were.</param>
public readonly record struct ReferenceKeys(ulong Doi, ulong Title, int Year)
{
    /// <summary>
    /// The names under which a reference is the same wherever it is printed: its DOI, its title with the first person; for one
    /// that shows neither its letters and digits, case and accents aside. Empty for one that prints nothing.
    /// </summary>
    /// <param name="text">The reference as printed.</param>
    public IEnumerable<ulong> Names(string text)
    {
        if (Doi != 0)
            yield return Doi;
        if (Title != 0)
            yield return Title;
        if (Doi == 0 && Title == 0 && Print(text) is not 0 and var print)
            yield return print;
    }

    private static ulong Print(string text) =>
        string.Concat(Words.Fold(text).Where(char.IsLetterOrDigit)) is { Length: > 0 } folded
            ? MergeKeys.Of("print", folded)
            : 0;

    /// <summary>The keys of a reference.</summary>
    public static ReferenceKeys Of(Reference reference) =>
        new(
            MergeKeys.Doi(reference.Doi),
            MergeKeys.TitleAndPerson(reference.Title, reference.FirstPerson),
            reference.Year is > 0 and <= short.MaxValue and var year ? year : 0
        );
}
