using Zendle.Core.Text;

namespace Zendle.Core.Queries;

/// <summary>The word or phrase that is being typed at the caret of a line.</summary>
/// <param name="Start">Where it starts, its field and quotation mark included.</param>
/// <param name="End">Where it ends: the caret.</param>
/// <param name="Letters">What stands there so far, folded; words apart by one space.</param>
/// <param name="Field">The field before its colon; null for none.</param>
/// <param name="IsQuoted">Whether a quotation mark stands open before it.</param>
public sealed record BegunWord(int Start, int End, string Letters, QueryField? Field, bool IsQuoted)
{
    private const int FewestLetters = 2;

    /// <summary>
    /// Finds it; null where nothing is begun, where a word goes on behind the caret, for operators and for what holds a
    /// wildcard.
    /// </summary>
    /// <param name="text">The line.</param>
    /// <param name="caret">Offset of the caret.</param>
    public static BegunWord? At(string text, int caret)
    {
        if (caret < 1 || caret > text.Length || (caret < text.Length && IsPart(text[caret])))
            return null;
        var quote = -1;
        for (var i = 0; i < caret; i++)
            if (IsQuote(text[i]))
                quote = quote < 0 ? i : -1;
        var start = quote >= 0 ? quote : caret;
        while (start > 0 && (IsPart(text[start - 1]) || text[start - 1] == ':'))
            start--;
        var written = text[start..caret];
        QueryField? field = null;
        if (written.IndexOf(':', StringComparison.Ordinal) is > 0 and var colon)
        {
            if (!QueryFields.TryRead(written[..colon], out var named))
                return null;
            (field, written) = (named, written[(colon + 1)..]);
        }
        if (written.AsSpan().IndexOfAny("*?") >= 0 || written is "AND" or "OR" or "NOT" or "NEAR")
            return null;
        var letters = string.Join(' ', Words.AsWritten(written));
        return letters.Length >= (field is null ? FewestLetters : 1)
            ? new(start, caret, letters, field, quote >= 0)
            : null;
    }

    private static bool IsQuote(char c) => c is '"' or '\u201C' or '\u201D' or '\u201E';

    private static bool IsPart(char c) => !char.IsWhiteSpace(c) && !IsQuote(c) && c is not ('(' or ')' or ':');
}
