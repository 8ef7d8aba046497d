using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Index.Columns;

namespace Zendle.Server.Corpus;

/// <summary>Columns with what is needed to follow the next change: nothing here holds the records themselves.</summary>
/// <param name="Sequence">The store's change sequence they stand at.</param>
/// <param name="Databases">Trust and name of each database they were built with; with others they are built
/// anew.</param>
/// <param name="Columns">The columns.</param>
/// <param name="Venues">The venues that works show.</param>
internal sealed record CorpusState(
    long Sequence,
    IReadOnlyDictionary<int, (int Trust, string Name)> Databases,
    CorpusColumns Columns,
    ShownVenues Venues
)
{
    /// <summary>Whom the works name, told apart; null while no change asks for it.</summary>
    public PeopleByBlock? People { get; init; }

    /// <summary>
    /// The checksum of the people that were written down with this very state, to be read when they are needed; null
    /// when none were.
    /// </summary>
    public ulong? WrittenPeople { get; init; }

    /// <summary>How many works changed since the columns were written down.</summary>
    public int Unwritten { get; init; }
}

/// <summary>How each work spells its venue, and what it means for the standing of that venue.</summary>
/// <param name="Spellings">The spellings.</param>
/// <param name="SpellingOf">By work: the place of its spelling; −1 for none.</param>
/// <param name="YearOf">By work: the year it shows, 0 for none; negative when it is no article or review.</param>
internal sealed record ShownVenues(IReadOnlyList<VenuePart> Spellings, int[] SpellingOf, short[] YearOf);
