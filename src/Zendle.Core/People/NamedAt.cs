using System.Globalization;
using Zendle.Core.Merging;

namespace Zendle.Core.People;

/// <summary>A name on a work, as numbering knows it again: the work, and a hash of family name and first initial.</summary>
/// <param name="WorkId">The work.</param>
/// <param name="Name">The hash.</param>
public readonly record struct PersonMark(int WorkId, int Name)
{
    /// <summary>The mark of a mention.</summary>
    public static PersonMark Of(Mention mention) =>
        new(
            mention.WorkId,
            unchecked(
                (int)
                    MergeKeys.Of(
                        "person mark",
                        $"{string.Join('-', mention.Family)} {(mention.Given.Count > 0 ? mention.Given[0][..1] : "")}"
                    )
            )
        );
}

/// <summary>Where a person is named: what is kept of a mention once its person is told.</summary>
/// <param name="Mark">The work and the name on it.</param>
/// <param name="Position">Position in the work's list, from 0.</param>
public readonly record struct NamedAt(PersonMark Mark, int Position)
{
    /// <summary>The work.</summary>
    public int WorkId => Mark.WorkId;

    /// <summary>Where a mention stands.</summary>
    public static NamedAt Of(Mention mention) => new(PersonMark.Of(mention), mention.Position);

    /// <inheritdoc/>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{WorkId}.{Position}");
}
