using System.Collections.Immutable;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>Whether works count that cite somebody they are by.</summary>
public enum SelfCitations
{
    /// <summary>They do.</summary>
    With,

    /// <summary>They do not.</summary>
    Without,

    /// <summary>Only they do.</summary>
    Only,
}

/// <summary>
/// The works that cite a name: what cites the works of some persons, and the works that print a reference by one of some
/// names which no work here matches.
/// </summary>
/// <param name="Name">The name as it was asked for.</param>
/// <param name="Persons">Labels of the persons.</param>
/// <param name="Printed">The names as references print them: see <see cref="Entries.PrintedPeople"/>.</param>
/// <param name="Self">Whether works by one of the persons count.</param>
public sealed record CitersQuestion(
    string Name,
    ImmutableArray<string> Persons,
    ImmutableArray<string> Printed,
    SelfCitations Self = SelfCitations.With
) : SetQuestion;
