using Zendle.Core.Records;

namespace Zendle.Core.Merging;

/// <summary>What a reference is led home by without reading its text.</summary>
/// <param name="Doi"><see cref="MergeKeys.Doi"/>; 0 for none.</param>
/// <param name="Title"><see cref="MergeKeys.TitleAndPerson"/>; 0 for none.</param>
/// <param name="Year">The year it prints; 0 when it prints none, or when it was written down before years were.</param>
public readonly record struct ReferenceKeys(ulong Doi, ulong Title, int Year)
{
    /// <summary>The keys of a reference.</summary>
    public static ReferenceKeys Of(Reference reference) =>
        new(
            MergeKeys.Doi(reference.Doi),
            MergeKeys.TitleAndPerson(reference.Title, reference.FirstPerson),
            reference.Year is > 0 and <= short.MaxValue and var year ? year : 0
        );
}
