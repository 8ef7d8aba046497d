using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;

namespace Zendle.Core.Queries;

internal enum TokenKind
{
    Word,
    Phrase,
    Open,
    Close,
    And,
    Or,
    Not,
    Near,
    Field,
    End,
}

/// <summary>
/// A piece of the line. <paramref name="Loose"/>: an operator that was not written in our way (lower case, other
/// signs).
/// </summary>
internal readonly record struct Token(
    TokenKind Kind,
    TextSpan Span,
    string Text,
    int Number = 0,
    QueryField Field = default,
    bool Loose = false
);

/// <summary>Cuts a line into words, phrases, operators, parentheses and field names.</summary>
internal sealed partial class QueryLexer(string line, Action<QueryProblem> problem)
{
    private const int LongestWord = 200;

    public List<Token> Read()
    {
        var tokens = new List<Token>();
        var i = 0;
        while (i < line.Length)
        {
            var c = line[i];
            if (char.IsWhiteSpace(c))
            {
                i++;
                continue;
            }
            if (c == '(')
            {
                tokens.Add(new(TokenKind.Open, new(i++, 1), "("));
                continue;
            }
            if (c == ')')
            {
                tokens.Add(new(TokenKind.Close, new(i++, 1), ")"));
                continue;
            }
            if (IsQuote(c))
            {
                i = ReadPhrase(i, tokens);
                continue;
            }
            i = ReadWord(i, tokens);
        }
        tokens.Add(new(TokenKind.End, new(line.Length, 0), ""));
        return tokens;
    }

    private int ReadPhrase(int start, List<Token> tokens)
    {
        var end = start + 1;
        while (end < line.Length && !IsQuote(line[end]))
            end++;
        var text = line[(start + 1)..end];
        if (end >= line.Length)
            problem(
                new(
                    new(start, line.Length - start),
                    $"A quotation mark opens at {start + 1} and never closes.",
                    new("close it at the end", line.TrimEnd() + "\"")
                )
            );
        var next = Math.Min(end + 1, line.Length);
        if (string.IsNullOrWhiteSpace(text))
        {
            if (end < line.Length)
                problem(
                    new(
                        new(start, next - start),
                        $"The quotation marks at {start + 1} hold nothing.",
                        new("leave them out", Cut(line, start, next))
                    )
                );
        }
        else
            tokens.Add(new(TokenKind.Phrase, new(start, next - start), text));
        return next;
    }

    private int ReadWord(int start, List<Token> tokens)
    {
        var end = start;
        while (
            end < line.Length && !char.IsWhiteSpace(line[end]) && line[end] is not ('(' or ')') && !IsQuote(line[end])
        )
        {
            end++;
            if (line[end - 1] == ':' && TryField(start, end, tokens))
                return end;
        }
        var text = line[start..end];
        var span = new TextSpan(start, end - start);
        if (text.Length > LongestWord)
        {
            problem(
                new(
                    span,
                    $"The word at {start + 1} has {text.Length.ToString("N0", CultureInfo.InvariantCulture)} characters; no record holds such a word.",
                    new("leave it out", Cut(line, start, end))
                )
            );
            return end;
        }
        tokens.Add(Operator(text, span) ?? new(TokenKind.Word, span, text));
        return end;
    }

    /// <summary>
    /// A colon after a known field name starts that field; after other letters, directly before a value, it is a slip
    /// worth a sentence.
    /// </summary>
    private bool TryField(int start, int end, List<Token> tokens)
    {
        var name = line[start..(end - 1)];
        if (QueryFields.TryRead(name, out var field))
        {
            tokens.Add(new(TokenKind.Field, new(start, end - start), name, Field: field));
            return true;
        }
        var slip =
            name.Length is > 1 and < 20
            && name.All(char.IsAsciiLetter)
            && end < line.Length
            && (char.IsLetterOrDigit(line[end]) || IsQuote(line[end]) || line[end] == '(');
        if (!slip || name is "http" or "https")
            return false;
        var nearest = QueryFields.Nearest(name);
        problem(
            new(
                new(start, end - start),
                $"There is no field “{name}” (at {start + 1}). The nearest are {string.Join(", ", nearest)}.",
                new($"use {nearest[0]}:", line[..start] + nearest[0] + line[(end - 1)..])
            )
        );
        return false;
    }

    private static Token? Operator(string text, TextSpan span)
    {
        switch (text)
        {
            case "AND":
                return new(TokenKind.And, span, text);
            case "OR":
                return new(TokenKind.Or, span, text);
            case "NOT":
                return new(TokenKind.Not, span, text);
            case "and" or "And" or "&" or "&&":
                return new(TokenKind.And, span, text, Loose: true);
            case "or" or "Or" or "|" or "||":
                return new(TokenKind.Or, span, text, Loose: true);
        }
        var near = NearPattern().Match(text);
        if (!near.Success)
            return null;
        var number =
            near.Groups[1].Success
            && int.TryParse(near.Groups[1].Value, NumberStyles.None, CultureInfo.InvariantCulture, out var n)
                ? Math.Min(n, 10_000)
                : -1;
        // "near" as a plain word is a word; only the capitals or a number make it the operator.
        return number < 0 && text != "NEAR" ? null : new(TokenKind.Near, span, text, number);
    }

    internal static bool IsQuote(char c) =>
        c is '"' or '\u201C' or '\u201D' or '\u201E' or '\u201F' or '\u00AB' or '\u00BB' or '\uFF02';

    internal static string Cut(string line, int start, int end) =>
        (line[..start].TrimEnd() + " " + line[end..].TrimStart()).Trim();

    [GeneratedRegex(@"^NEAR(?:/?(\d{1,6}))?$", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex NearPattern();

    /// <summary>
    /// The folded word patterns of a written word or phrase, one list per spelling of its hyphenated words.
    /// </summary>
    internal static ImmutableArray<ImmutableArray<string>> Forms(string written)
    {
        // Wildcards travel through the word cutter as letters that no scholarly text uses.
        const char Run = '\u2D63',
            One = '\u2D65';
        var words = Words.Of(written.Replace('*', Run).Replace('?', One));
        var parts = words
            .Where(w => !w.IsClosedForm)
            .Select(w => w.Text.Replace(Run, '*').Replace(One, '?'))
            .ToImmutableArray();
        if (parts.IsEmpty)
            return [];
        var closed = words.Where(w => w.IsClosedForm).ToArray();
        if (closed.Length is 0 or > 3)
            return [parts];
        var forms = new List<ImmutableArray<string>> { parts };
        for (var mask = 1; mask < 1 << closed.Length; mask++)
        {
            var form = ImmutableArray.CreateBuilder<string>();
            for (var w = 0; w < words.Count; w++)
            {
                if (words[w].IsClosedForm)
                    continue;
                var k = Array.FindIndex(closed, c => c.Start <= words[w].Start && words[w].Start < c.End);
                if (k >= 0 && (mask & (1 << k)) != 0)
                {
                    if (closed[k].Position == words[w].Position)
                        form.Add(closed[k].Text.Replace(Run, '*').Replace(One, '?'));
                }
                else
                    form.Add(words[w].Text.Replace(Run, '*').Replace(One, '?'));
            }
            forms.Add(form.ToImmutable());
        }
        return [.. forms];
    }
}
