using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Core.Entries;

/// <summary>
/// The people that a printed reference names, each written one way: family name, a comma, given names or initials with
/// their stops. So one name that styles print in many ways is one variant.
/// </summary>
public static class PrintedPeople
{
    private const int Most = 40,
        LongestName = 60;

    /// <summary>
    /// The people of a reference, each once; the first person alone where no more can be read. O(length²) at worst, over one
    /// reference.
    /// </summary>
    public static IReadOnlyList<string> Of(Reference reference)
    {
        var read = PrintedNames.Read(ReferenceParts.Of(reference.Text).People).Take(Most).ToList();
        if (reference.FirstPerson is { Length: > 0 } first && !read.Exists(p => p.Family == first))
            read.Insert(0, new(first, ""));
        return
        [
            .. read.Where(p => p.Family.Count(char.IsLetter) > 1 && p.Inverted.Length <= LongestName)
                .Select(Written)
                .Distinct(StringComparer.Ordinal),
        ];
    }

    private static string Written(PersonName name)
    {
        var given = string.Join(
            ' ',
            name.Given.Split([' ', '.', ','], StringSplitOptions.RemoveEmptyEntries)
                .SelectMany(Mention.InitialsApart)
                .Select(g => g.Length == 1 ? g + "." : g)
        );
        return given.Length == 0 ? name.Family : $"{name.Family}, {given}";
    }
}
