using UglyToad.PdfPig;
using UglyToad.PdfPig.Tokens;

namespace Zendle.Documents.Pdf;

/// <summary>
/// Finds what a document would run by itself (ISO 32000-1, 12.6: actions): JavaScript and Launch, wherever they hang —
/// at the opening (/OpenAction), on an event of the document, a page or a field (/AA), on an annotation (/A), behind
/// another action (/Next), in the tree of names or in a rendition.
/// </summary>
internal static class PdfScripts
{
    private const int MostDepth = 60;

    private static readonly string[] Running = ["JavaScript", "Launch"];

    /// <summary>
    /// Whether any object of the file is such an action. Every object is looked at, so it does not matter which way
    /// leads to it. O(size of the file's objects).
    /// </summary>
    public static bool In(PdfDocument document)
    {
        foreach (var reference in document.Structure.CrossReferenceTable.ObjectOffsets.Keys)
        {
            IToken? token;
            try
            {
                token = document.Structure.GetObject(reference)?.Data;
            }
            catch (Exception e) when (e is not OutOfMemoryException)
            {
                continue;
            } // an object that cannot be read runs nothing
            // The kind of an action may stand in an object of its own.
            if (token is NameToken name && Running.Contains(name.Data))
                return true;
            if (token is not null && Runs(token))
                return true;
        }
        return false;
    }

    /// <summary>
    /// Whether a token, or one inside it, is an action that runs something. References are not followed: what they lead
    /// to is looked at by itself.
    /// </summary>
    private static bool Runs(IToken whole)
    {
        var open = new Stack<(IToken Token, int Depth)>();
        open.Push((whole, 0));
        while (open.TryPop(out var at))
        {
            if (at.Depth > MostDepth)
                continue;
            switch (at.Token)
            {
                case StreamToken stream:
                    open.Push((stream.StreamDictionary, at.Depth + 1));
                    break;
                case ArrayToken array:
                    foreach (var item in array.Data)
                        open.Push((item, at.Depth + 1));
                    break;
                case DictionaryToken dictionary:
                    if (IsRunning(dictionary))
                        return true;
                    foreach (var value in dictionary.Data.Values)
                        open.Push((value, at.Depth + 1));
                    break;
            }
        }
        return false;
    }

    private static bool IsRunning(DictionaryToken dictionary) =>
        dictionary.ContainsKey(NameToken.Create("JS"))
        || (
            dictionary.TryGet(NameToken.Create("S"), out var kind)
            && kind is NameToken name
            && Running.Contains(name.Data)
        );
}
