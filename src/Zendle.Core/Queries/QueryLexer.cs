using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Zendle.Core.Text;

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

    /// <summary>A field that is named behind what is looked for in it: <c>moth[title]</c>.</summary>
    FieldBehind,
    End,
}

/// <summary>A piece of the line.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Span">Where it stands.</param>
/// <param name="Text">As written.</param>
/// <param name="Number">Distance of NEAR.</param>
/// <param name="Field">The field that is named.</param>
/// <param name="Loose">Whether it was not written in our way.</param>
internal readonly record struct Token(
    TokenKind Kind,
    TextSpan Span,
    string Text,
    int Number = 0,
    QueryField Field = default,
    bool Loose = false
);

/// <summary>Cuts a line into words, phrases, operators, parentheses and field names.</summary>
internal sealed partial class QueryLexer(string line, Action<QueryProblem> problem, Action<QueryNotice> notice)
{
    private const int LongestWord = 200;

    /// <summary>Closing brackets that were pointed out with the one that opens.</summary>
    private readonly HashSet<int> passed = [];

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
            if (c is '[' or ']')
            {
                i = ReadBracket(i, tokens);
                continue;
            }
            if (IsMinus(i))
            {
                // The sign belongs to what follows it; the notice says so.
                tokens.Add(new(TokenKind.Not, new(i++, 1), "-", Loose: true));
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
                        $"The quotation marks at {start + 1} are empty.",
                        new("leave them out", Cut(line, start, next))
                    )
                );
        }
        else
            tokens.Add(new(TokenKind.Phrase, new(start, next - start), text));
        return next;
    }

    /// <summary>A minus directly before a word, a phrase or a parenthesis, and behind nothing.</summary>
    private bool IsMinus(int at) =>
        line[at] is '-' or '\u2212'
        && (at == 0 || char.IsWhiteSpace(line[at - 1]) || line[at - 1] == '(')
        && at + 1 < line.Length
        && (char.IsLetter(line[at + 1]) || IsQuote(line[at + 1]) || line[at + 1] is '(' or '*');

    /// <summary>
    /// Square brackets: a field behind a word is one ("moth[title]"); any other are pointed out and passed over.
    /// </summary>
    private int ReadBracket(int start, List<Token> tokens)
    {
        var close = line[start] == '[' ? line.IndexOf(']', start) : -1;
        var inside = close > start ? line[(start + 1)..close].Trim() : "";
        var span = new TextSpan(start, close > start ? close + 1 - start : 1);
        if (
            inside.Length is > 0 and < 30
            && QueryFields.Meant(inside) is { } field
            && tokens.Count > 0
            && tokens[^1].Kind is TokenKind.Word or TokenKind.Phrase or TokenKind.Close
        )
        {
            tokens.Add(new(TokenKind.FieldBehind, span, line.Substring(span.Start, span.Length), Field: field));
            return span.End;
        }
        if (passed.Remove(start))
            return start + 1;
        var without =
            close > start
                ? $"{line[..start].TrimEnd()} {inside} {line[(close + 1)..].TrimStart()}".Trim()
                : Cut(line, start, start + 1);
        problem(
            new(
                span,
                $"Square brackets have no meaning here (at {start + 1}). A field stands before a colon: title:moth.",
                new("leave the brackets out", without)
            )
        );
        if (close > start)
            passed.Add(close);
        return start + 1;
    }

    private int ReadWord(int start, List<Token> tokens)
    {
        var end = start;
        while (
            end < line.Length
            && !char.IsWhiteSpace(line[end])
            && line[end] is not ('(' or ')' or '[' or ']')
            && !IsQuote(line[end])
        )
        {
            end++;
            if (line[end - 1] is ':' or '=' && TryField(start, end, tokens))
                return end;
        }
        var text = line[start..end];
        var span = new TextSpan(start, end - start);
        if (end < line.Length && line[end] == '(' && ReadCall(text, span, tokens) is { } after)
            return after;
        if (text.Length > LongestWord)
        {
            problem(
                new(
                    span,
                    $"The word at {start + 1} has "
                        + $"{text.Length.ToString("N0", CultureInfo.InvariantCulture)} characters; no record "
                        + "holds such a word.",
                    new("leave it out", Cut(line, start, end))
                )
            );
            return end;
        }
        // A dash before a word that is no minus is no part of the word either.
        tokens.Add(
            Operator(text, span)
                ?? new(
                    TokenKind.Word,
                    span,
                    tokens is not [.., { Kind: TokenKind.Field }]
                    && text.TrimStart('-', '\u2212') is { Length: > 0 } bare
                    && (char.IsLetterOrDigit(bare[0]) || bare[0] is '*' or '?')
                        ? bare
                        : text
                )
        );
        return end;
    }

    /// <summary>
    /// A word directly before a parenthesis: the name of a field ("title(moth)"), an ending that may stand or not
    /// ("lamp(s)"), or what other tools call a function, of which there are none here.
    /// </summary>
    /// <returns>Where reading goes on; null to read the word as a word.</returns>
    private int? ReadCall(string word, TextSpan span, List<Token> tokens)
    {
        if (Operator(word, span) is not null || !word.All(char.IsLetter) || word.Length == 0)
            return null;
        if (QueryFields.Meant(word) is { } field)
        {
            tokens.Add(new(TokenKind.Field, span, word, Field: field));
            var name = QueryFields.Name(field);
            notice(
                new(
                    NoticeKind.OtherDialect,
                    span,
                    $"“{word}(” at {span.Start + 1} is read as {name}:(",
                    [new($"{name}:(", $"{line[..span.Start]}{name}:{line[span.End..]}")]
                )
            );
            return span.End;
        }
        if (Ending().Match(line, span.End) is { Success: true } ending)
        {
            var (whole, both) = (
                new TextSpan(span.Start, span.Length + ending.Length),
                word + ending.Groups["letters"].Value
            );
            tokens.Add(new(TokenKind.Open, whole, "("));
            tokens.Add(new(TokenKind.Word, span, word));
            tokens.Add(new(TokenKind.Or, whole, "OR"));
            tokens.Add(new(TokenKind.Word, whole, both));
            tokens.Add(new(TokenKind.Close, whole, ")"));
            var written = $"({word} OR {both})";
            notice(
                new(
                    NoticeKind.OtherDialect,
                    whole,
                    $"“{line.Substring(whole.Start, whole.Length)}” at {whole.Start + 1} is read as {word} or {both}.",
                    [new(written, line[..whole.Start] + written + line[whole.End..])]
                )
            );
            return whole.End;
        }
        problem(
            new(
                new(span.Start, span.Length + 1),
                $"“{word}(” at {span.Start + 1} looks like a function; there are none here.",
                new($"read “{word}” as a word", $"{line[..span.End]} {line[span.End..]}")
            )
        );
        return null;
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
            if (line[end - 1] == '=')
                notice(
                    new(
                        NoticeKind.OtherDialect,
                        new(start, end - start),
                        $"“{name}=” at {start + 1} is read as {QueryFields.Name(field)}:",
                        [new($"{QueryFields.Name(field)}:", $"{line[..start]}{QueryFields.Name(field)}:{line[end..]}")]
                    )
                );
            return true;
        }
        var isColon = line[end - 1] == ':';
        // "p=0.05" is no field, and an address is none.
        var slip =
            name.Length is > 1 and < 20
            && name.All(char.IsAsciiLetter)
            && end < line.Length
            && (
                char.IsLetter(line[end])
                || IsQuote(line[end])
                || line[end] == '('
                || (isColon && char.IsDigit(line[end]))
            );
        if (!slip || name is "http" or "https")
            return false;
        var nearest = QueryFields.Nearest(name);
        if (!isColon && nearest.Count == 0)
            return false;
        problem(
            new(
                new(start, end - start),
                $"There is no field “{name}” (at {start + 1}). "
                    + (
                        nearest.Count == 0 ? $"The fields are {string.Join(", ", QueryFields.Names)}."
                        : nearest.Count == 1 ? $"The nearest is {nearest[0]}."
                        : $"The nearest are {string.Join(", ", nearest)}."
                    ),
                nearest.Count == 0
                    ? new("read it as words", $"{line[..start]}{name} {line[end..]}")
                    : new($"use {nearest[0]}:", line[..start] + nearest[0] + ":" + line[end..])
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
        // A slash with a number between words: how near they stand, in the way of other tools.
        if (
            SlashNear().Match(text) is { Success: true } slash
            && int.TryParse(slash.Groups[1].Value, NumberStyles.None, CultureInfo.InvariantCulture, out var apart)
        )
            return new(TokenKind.Near, span, text, Math.Min(apart, 10_000), Loose: true);
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

    [GeneratedRegex(@"^(?!NEAR/)(?:[A-Za-z]{1,7})?/(\d{1,4})$", RegexOptions.CultureInvariant)]
    private static partial Regex SlashNear();

    [GeneratedRegex(@"\G\((?<letters>[a-z]{1,3})\)(?!\w)", RegexOptions.CultureInvariant)]
    private static partial Regex Ending();

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
