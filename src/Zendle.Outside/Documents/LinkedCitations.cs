namespace Zendle.Outside.Documents;

/// <summary>A piece of running text: words, or words that cite an entry of the list.</summary>
/// <param name="Text">The words.</param>
/// <param name="Entry">Ordinal of the entry; null for words that cite nothing.</param>
public readonly record struct Run(string Text, int? Entry);

/// <summary>
/// The running text of a paper with its citations told apart: a page or an XML file has them as links. Citations stand in the
/// order of the list, which is how <see cref="InTextCitations"/> writes them.
/// </summary>
public sealed class LinkedCitations(Paper paper)
{
    private readonly IReadOnlyList<string> named = paper.CitedAs;
    private int next;

    /// <summary>A paragraph in pieces; paragraphs are asked for in their order.</summary>
    public IReadOnlyList<Run> Of(string paragraph)
    {
        var (runs, at) = (new List<Run>(), 0);
        while (next < named.Count)
        {
            var found = paragraph.IndexOf(named[next], at, StringComparison.Ordinal);
            if (found < 0)
                break;
            if (found > at)
                runs.Add(new(paragraph[at..found], null));
            runs.Add(new(named[next], next));
            at = found + named[next].Length;
            next++;
        }
        if (at < paragraph.Length)
            runs.Add(new(paragraph[at..], null));
        return runs;
    }
}
