using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.People;

/// <summary>A person named on a work, with all that its records tell of them.</summary>
/// <param name="WorkId">The work.</param>
/// <param name="Position">Position in the work's list, from 0.</param>
/// <param name="Name">The fullest form of the name.</param>
/// <param name="Given">Given names as folded parts, full words and single letters: ["marisol", "k"].</param>
/// <param name="Family">Parts of the family name between hyphens, folded, letters only.</param>
/// <param name="Orcid">ORCID iD; null when no record has one.</param>
/// <param name="Institution">Hash of the affiliation; 0 when not said.</param>
/// <param name="Affiliation">The affiliation as printed; null when not said.</param>
/// <param name="CoAuthors">Hashes of the others on the work, as family name and first initial, ascending.</param>
/// <param name="Year">Year of the work; 0 when unknown.</param>
/// <param name="Topics">Hashes of the work's subjects, keywords and venue, ascending.</param>
public sealed record Mention(
    int WorkId,
    int Position,
    PersonName Name,
    IReadOnlyList<string> Given,
    IReadOnlyList<string> Family,
    string? Orcid,
    int Institution,
    string? Affiliation,
    int[] CoAuthors,
    int Year,
    int[] Topics
)
{
    /// <summary>
    /// A list of more names than this ties nobody to anybody: those who sign it need not know each other.
    /// </summary>
    private const int MostCoAuthors = 100;

    /// <summary>
    /// The mentions of one work: its chosen list of people, each filled with what other records say of the same person.
    /// </summary>
    /// <param name="workId">The work.</param>
    /// <param name="records">Its records.</param>
    /// <param name="chosen">The fields the work shows.</param>
    public static IReadOnlyList<Mention> Of(int workId, IReadOnlyList<SourcedRecord> records, ChosenFields chosen)
    {
        var people = chosen.People.Value;
        if (people.Count == 0)
            return [];
        var keys =
            people.Count > MostCoAuthors
                ? []
                : people.Select(p => Hash(MergeKeys.PersonKey(p.Family) + Initial(p.Given))).ToArray();
        var (own, lists) = (
            Folded(people),
            records.Select(r => (r.Record.People, Folded: Folded(r.Record.People))).ToArray()
        );
        int[] topics =
        [
            .. chosen
                .Subjects.Concat(chosen.ControlledTerms)
                .Concat(chosen.Keywords.Value)
                .Append(chosen.Venue.Value?.Title ?? "")
                .Where(t => t.Length > 0)
                .Select(t => Hash(Words.Fold(t)))
                .Distinct()
                .Order(),
        ];
        return
        [
            .. people.Select(
                (shown, position) =>
                {
                    var same = lists
                        .Select(l => Alike(l.People, l.Folded, own[position], position))
                        .OfType<PersonName>()
                        .ToArray();
                    var fullest = same.Append(shown)
                        .OrderByDescending(p => Fullness(p))
                        .ThenBy(p => p.Family, StringComparer.Ordinal)
                        .First();
                    var affiliation =
                        same.Select(p => p.Affiliation).FirstOrDefault(a => a is not null) ?? shown.Affiliation;
                    return new Mention(
                        workId,
                        position,
                        fullest,
                        GivenParts(fullest.Given),
                        FamilyParts(fullest.Family),
                        same.Select(p => p.Orcid).FirstOrDefault(o => o is not null) ?? shown.Orcid,
                        affiliation is null ? 0 : Hash(Words.Fold(affiliation)),
                        affiliation,
                        [.. keys.Where((_, i) => i != position).Distinct().Order()],
                        chosen.Year.Value ?? 0,
                        topics
                    );
                }
            ),
        ];
    }

    /// <summary>
    /// The person of another record's list who is the one at a position of the chosen list: same family name and a name
    /// that can be the same, nearest in position; null when none is.
    /// </summary>
    private static PersonName? Alike(
        IReadOnlyList<PersonName> list,
        FoldedName[] folded,
        FoldedName wanted,
        int position
    )
    {
        PersonName? best = null;
        var distance = int.MaxValue;
        for (var i = 0; i < list.Count; i++)
            if (
                Math.Abs(i - position) < distance
                && folded[i].Family == wanted.Family
                && GivenNames.Compatible(wanted.Given, folded[i].Given)
            )
                (best, distance) = (list[i], Math.Abs(i - position));
        return best;
    }

    private static FoldedName[] Folded(IReadOnlyList<PersonName> people) =>
        [.. people.Select(p => new FoldedName(MergeKeys.PersonKey(p.Family), GivenParts(p.Given)))];

    private readonly record struct FoldedName(string Family, IReadOnlyList<string> Given);

    /// <summary>
    /// Given names as folded parts, full words and single letters; initials written together ("KB") are taken apart.
    /// </summary>
    public static IReadOnlyList<string> GivenParts(string given) => GivenParts(given, char.IsLetter);

    /// <summary>The same of a name with signs of one's own in it.</summary>
    /// <param name="given">Given names.</param>
    /// <param name="isKept">Which characters of a part are kept.</param>
    internal static IReadOnlyList<string> GivenParts(string given, Func<char, bool> isKept) =>
        [
            .. given
                .Split([' ', '.', '-', ','], StringSplitOptions.RemoveEmptyEntries)
                .SelectMany(InitialsApart)
                .Select(g => string.Concat(Words.Fold(g).Where(isKept)))
                .Where(g => g.Length > 0),
        ];

    /// <summary>"KB" is "K" and "B"; any other part of given names stays whole.</summary>
    internal static IEnumerable<string> InitialsApart(string part) =>
        part.Length is 2 or 3 && part.All(char.IsUpper) ? part.Select(c => c.ToString()) : [part];

    /// <summary>Parts of a family name between hyphens, folded, letters only.</summary>
    public static IReadOnlyList<string> FamilyParts(string family) =>
        [
            .. family
                .Split('-', StringSplitOptions.RemoveEmptyEntries)
                .Select(MergeKeys.PersonKey)
                .Where(f => f.Length > 0),
        ];

    private static int Fullness(PersonName p) =>
        p.Given.Count(char.IsLetter) * 4 + p.Given.Count(c => c > 127) + p.Family.Count(c => c > 127);

    private static string Initial(string given) => GivenParts(given) is [var first, ..] ? first[..1] : "";

    private static int Hash(string text) => unchecked((int)MergeKeys.Of("people", text));
}
