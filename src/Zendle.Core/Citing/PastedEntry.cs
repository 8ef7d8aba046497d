namespace Zendle.Core.Citing;

/// <summary>One entry of a pasted list.</summary>
/// <param name="Text">The entry, on one line.</param>
/// <param name="Lines">The lines it was put together from, where nothing in the list tells that they are one entry; empty
/// where a number, an indent, blank lines or a name at its beginning do.</param>
public sealed record PastedEntry(string Text, IReadOnlyList<string> Lines)
{
    /// <summary>An entry that stands on one line.</summary>
    public static PastedEntry Of(string line) => new(line, [line]);
}
