using Zendle.Core.Records;

namespace Zendle.Core.People;

/// <summary>A person told apart from namesakes.</summary>
/// <param name="Number">Ordinal among all persons of the same list, from 0.</param>
/// <param name="Label">Name as shown; with an institution or years where several persons would be called the same.</param>
/// <param name="Name">The fullest form of the name.</param>
/// <param name="Orcid">ORCID iD; null when no record has one.</param>
/// <param name="Mentions">Where the person is named, in order of works.</param>
/// <param name="Doubtful">Ordinals in the same list of persons that may be the same: their evidence lies just below the
/// threshold.</param>
public sealed record Person(
    int Number,
    string Label,
    PersonName Name,
    string? Orcid,
    IReadOnlyList<NamedAt> Mentions,
    IReadOnlyList<int> Doubtful
)
{
    /// <summary>Permanent number, from 1; 0 until it is numbered, see <see cref="PersonNumbering"/>.</summary>
    public int Id { get; init; }
}
