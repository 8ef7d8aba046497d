using System.Globalization;

namespace Zendle.Core.Records.Readers;

/// <summary>What readers note of a record they mended, in the same words whatever its format.</summary>
internal static class ReaderNotes
{
    /// <summary>The record has no title.</summary>
    public const string NoTitle = "The record has no title.";

    /// <summary>A list of names was taken apart.</summary>
    public const string NamesInOneField =
        "All people were in one field; they were separated at the marks between them.";

    /// <summary>A date that cannot be.</summary>
    public static string Implausible(string date) => $"The date “{Brief(date)}” is not plausible and was left out.";

    /// <summary>A description that is a remark.</summary>
    public static string NoAbstract(string written) =>
        $"The description “{Brief(written)}” was taken to be a remark, not an abstract.";

    /// <summary>A language nobody knows here.</summary>
    public static string UnknownLanguage(string written) =>
        $"The language “{Brief(written)}” is not one we know; it was left out.";

    /// <summary>An identifier whose check digit is wrong.</summary>
    /// <param name="kind">What it is: "ISSN".</param>
    /// <param name="written">As written.</param>
    /// <param name="whose">Whose it is, " of Berg, M."; empty for the record's own.</param>
    public static string WrongCheckDigit(string kind, string written, string whose = "") =>
        $"The {kind} “{Brief(written)}”{whose} has a wrong check digit and was left out.";

    /// <summary>Text that is no DOI.</summary>
    public static string NoDoi(string written) => $"“{Brief(written)}” is not a DOI and was left out.";

    /// <summary>A text that is kept in part.</summary>
    public static string Cut(string what, int length) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"The {what} has {length:N0} characters; {PlainText.Longest:N0} are kept."
        );

    /// <summary>A list of people that is kept in part.</summary>
    public static string TooManyPeople(int kept) => $"The record names more than {kept} people; the rest is left out.";

    /// <summary>A text cut to a line.</summary>
    public static string Brief(string text) =>
        PlainText.Clean(text) is { Length: > 40 } longer ? longer[..40] + "…" : PlainText.Clean(text);
}
