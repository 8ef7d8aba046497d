using System.Globalization;
using System.Text;

namespace Zendle.Core.Text;

/// <summary>A word of a text after folding, with where it stands.</summary>
/// <param name="Text">Folded form: compatibility-normalised (NFKC), lower case, without accents.</param>
/// <param name="Start">Offset of its first character in the original text.</param>
/// <param name="End">Offset behind its last character in the original text.</param>
/// <param name="Position">Counting of words from 0; a closed form shares the position of its first part.</param>
/// <param name="IsClosedForm">True for the extra word "lighttrap" that stands for "light-trap".</param>
public readonly record struct Word(string Text, int Start, int End, int Position, bool IsClosedForm = false);

/// <summary>
/// Cuts text into words, the same way for records and for questions. Nothing is dropped, stop words least of all. A
/// hyphenated word gives its parts and, at the first part's position, the closed form, so that open, closed and
/// hyphenated spelling meet. A number keeps its decimal point ("0.05"); each Han, Hiragana, Katakana or Hangul
/// character is a word of its own.
/// </summary>
public static class Words
{
    /// <summary>All words of <paramref name="text"/>, in order. O(length).</summary>
    public static List<Word> Of(string text)
    {
        var words = new List<Word>(text.Length / 6 + 1);
        var buffer = new StringBuilder(32);
        var position = 0;
        var i = 0;
        var compound = -1; // index of the first part of a hyphenated word, or -1
        while (i < text.Length)
        {
            if (!StartsWord(text, i))
            {
                i += Step(text, i);
                compound = -1;
                continue;
            }
            var start = i;
            if (IsIdeograph(text, i))
            {
                i += Step(text, i);
                Add(Fold(text.AsSpan(start, i - start), buffer), start, i);
                compound = -1;
                continue;
            }
            i = EndOfWord(text, i);
            var folded = Fold(text.AsSpan(start, i - start), buffer);
            if (folded.Length > 0)
            {
                if (compound < 0)
                    compound = words.Count;
                Add(folded, start, i);
            }
            i = SkipPossessive(text, i);
            if (i + 1 < text.Length && IsHyphen(text[i]) && StartsWord(text, i + 1) && !IsIdeograph(text, i + 1))
            {
                i++;
                continue;
            }
            Close(words, compound, i);
            compound = -1;
        }
        return words;

        void Add(string folded, int start, int end)
        {
            if (folded.Length > 0)
                words.Add(new Word(folded, start, end, position++));
        }
    }

    /// <summary>
    /// The folded words of a text as it is written, without the closed forms that stand for hyphenated ones: for titles
    /// and names that are compared. O(length).
    /// </summary>
    public static IEnumerable<string> AsWritten(string text) =>
        Of(text).Where(w => !w.IsClosedForm).Select(w => w.Text);

    /// <summary>Folds one piece of text without cutting it: for wildcard patterns and for keys.</summary>
    public static string Fold(string text) => Fold(text, new StringBuilder(text.Length));

    /// <summary>True for the characters that join the parts of a hyphenated word.</summary>
    public static bool IsHyphen(char c) => c is '-' or '\u2010' or '\u2011' or '\u2012';

    private static void Close(List<Word> words, int compound, int end)
    {
        if (compound < 0 || words.Count - compound < 2)
            return;
        var joined = string.Concat(words.Skip(compound).Select(w => w.Text));
        words.Insert(compound + 1, new Word(joined, words[compound].Start, end, words[compound].Position, true));
    }

    private static int EndOfWord(string text, int i)
    {
        while (i < text.Length)
        {
            if (IsWordPart(text, i) && !IsIdeograph(text, i))
            {
                i += Step(text, i);
                continue;
            }
            // A point or comma between digits belongs to the number.
            if (
                text[i] is '.' or ','
                && i > 0
                && char.IsDigit(text[i - 1])
                && i + 1 < text.Length
                && char.IsDigit(text[i + 1])
            )
            {
                i++;
                continue;
            }
            break;
        }
        return i;
    }

    private static int SkipPossessive(string text, int i)
    {
        var apostrophe = i + 1 < text.Length && text[i] is '\'' or '\u2019' && text[i + 1] is 's' or 'S';
        return apostrophe && (i + 2 >= text.Length || !IsWordPart(text, i + 2)) ? i + 2 : i;
    }

    private static string Fold(ReadOnlySpan<char> text, StringBuilder buffer)
    {
        // Nearly all words are plain letters, which need no tables.
        if (Ascii.IsValid(text))
            return text.ContainsAnyInRange('A', 'Z')
                ? string.Create(text.Length, text, (to, from) => Ascii.ToLower(from, to, out _))
                : text.ToString();
        buffer.Clear();
        var normal = Sound(text)
            .Normalize(NormalizationForm.FormKC)
            .ToLowerInvariant()
            .Normalize(NormalizationForm.FormD);
        foreach (var c in normal)
        {
            if (
                c == '\u00AD'
                || CharUnicodeInfo.GetUnicodeCategory(c) is UnicodeCategory.NonSpacingMark or UnicodeCategory.Format
            )
                continue;
            switch (c)
            {
                case 'ß':
                    buffer.Append("ss");
                    break;
                case 'æ':
                    buffer.Append("ae");
                    break;
                case 'œ':
                    buffer.Append("oe");
                    break;
                case 'ø':
                    buffer.Append('o');
                    break;
                case 'ł':
                    buffer.Append('l');
                    break;
                case 'đ':
                case 'ð':
                    buffer.Append('d');
                    break;
                case 'þ':
                    buffer.Append("th");
                    break;
                case 'ı':
                    buffer.Append('i');
                    break;
                case 'ς':
                    buffer.Append('σ');
                    break;
                default:
                    buffer.Append(c);
                    break;
            }
        }
        return buffer.ToString();
    }

    /// <summary>The text without halves of surrogate pairs, which are no text and cannot be normalised.</summary>
    private static string Sound(ReadOnlySpan<char> text)
    {
        var sound = new StringBuilder(text.Length);
        while (Rune.DecodeFromUtf16(text, out var rune, out var length) is var status && length > 0)
        {
            if (status == System.Buffers.OperationStatus.Done)
                sound.Append(rune);
            text = text[length..];
        }
        return sound.ToString();
    }

    private static int Step(string text, int i) => char.IsSurrogatePair(text, i) ? 2 : 1;

    private static bool StartsWord(string text, int i) =>
        char.IsAscii(text[i])
            ? char.IsAsciiLetterOrDigit(text[i])
            : CharUnicodeInfo.GetUnicodeCategory(text, i)
                is UnicodeCategory.UppercaseLetter
                    or UnicodeCategory.LowercaseLetter
                    or UnicodeCategory.TitlecaseLetter
                    or UnicodeCategory.ModifierLetter
                    or UnicodeCategory.OtherLetter
                    or UnicodeCategory.DecimalDigitNumber
                    or UnicodeCategory.LetterNumber
                    or UnicodeCategory.OtherNumber;

    private static bool IsWordPart(string text, int i) =>
        char.IsAscii(text[i])
            ? char.IsAsciiLetterOrDigit(text[i])
            : StartsWord(text, i)
                || text[i] == '\u00AD'
                || CharUnicodeInfo.GetUnicodeCategory(text, i)
                    is UnicodeCategory.NonSpacingMark
                        or UnicodeCategory.SpacingCombiningMark
                        or UnicodeCategory.EnclosingMark;

    private static bool IsIdeograph(string text, int i)
    {
        var c = text[i];
        if (char.IsAscii(c))
            return false;
        return c
                is (>= '\u3040' and <= '\u30FF')
                    or (>= '\u3400' and <= '\u4DBF')
                    or (>= '\u4E00' and <= '\u9FFF')
                    or (>= '\uAC00' and <= '\uD7AF')
            || (char.IsSurrogatePair(text, i) && char.ConvertToUtf32(text, i) is >= 0x20000 and <= 0x3FFFF);
    }
}
