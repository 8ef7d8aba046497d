using Zendle.Core.Records;

namespace Zendle.Core.People;

/// <summary>
/// How a person is shown: family name, a comma, given names, and in parentheses what tells namesakes apart ("Berg, Kwame
/// (Vessmark)").
/// </summary>
public static class PersonLabel
{
    private const string Apart = " (";

    /// <summary>The label of a name that nobody else has.</summary>
    public static string Of(PersonName name) => name.Given.Length == 0 ? name.Family : $"{name.Family}, {name.Given}";

    /// <summary>A label with what tells its person apart from namesakes.</summary>
    public static string With(string label, string what) => $"{label}{Apart}{what})";

    /// <summary>Whether a label tells its person apart from namesakes.</summary>
    public static bool TellsApart(string label) => label.EndsWith(')');

    /// <summary>The name in a label, as printed, without what tells namesakes apart.</summary>
    public static string NameIn(string label) =>
        label.IndexOf(Apart, StringComparison.Ordinal) is > 0 and var at ? label[..at] : label;

    /// <summary>
    /// The label of a person among those of one work: the one that is written like the name, else the only one whose
    /// name can be it; null where none is, or where two are.
    /// </summary>
    /// <param name="labels">Labels of the work's people.</param>
    /// <param name="name">The name, as a record of the work prints it.</param>
    public static string? Among(IEnumerable<string> labels, PersonName name)
    {
        var all = labels.ToArray();
        if (Array.FindAll(all, l => NameIn(l) == Of(name)) is [var written])
            return written;
        var asked = NameQuery.Of($"{name.Given} {name.Family}");
        return
            asked is not null && Array.FindAll(all, l => NameForms.Of(Read(l)).Any(f => asked.Finds(f))) is [var only]
            ? only
            : null;
    }

    /// <summary>The name in a label.</summary>
    public static PersonName Read(string label)
    {
        var parts = NameIn(label).Split(", ", 2);
        return new(parts[0], parts.Length > 1 ? parts[1] : "");
    }
}
