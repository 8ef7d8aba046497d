using System.Collections.Immutable;
using System.Globalization;

namespace Zendle.Core.Queries;

/// <summary>
/// Reads a line into a tree. NEAR binds tightest, then NOT, then AND, then OR; words side by side are joined by AND. A
/// line that is not sound is read as far as possible, and each fault comes with its position and a repair.
/// </summary>
public sealed class QueryReader
{
    /// <summary>Longest line that is read, in characters.</summary>
    public const int LongestLine = 20_000;

    /// <summary>How many words the near form allows between neighbours.</summary>
    public const int NearDistance = 5;

    private const int DeepestNesting = 240;

    private readonly string line;
    private readonly bool orBindsTighter;
    private readonly List<Token> tokens;
    private readonly List<QueryProblem> problems = [];
    private readonly List<QueryNotice> notices = [];
    private int next;
    private int depth;
    private bool sawMixed;
    private bool inField; // directly behind the name of a field
    private bool inYears; // inside year: a word is a year or a range of years

    private QueryReader(string line, bool orBindsTighter)
    {
        this.line = line;
        this.orBindsTighter = orBindsTighter;
        tokens = new QueryLexer(line, problems.Add, n => Note(n)).Read();
    }

    /// <summary>Reads <paramref name="text"/>. Never throws. O(length).</summary>
    public static QueryReading Read(string? text)
    {
        var line = text ?? "";
        if (string.IsNullOrWhiteSpace(line))
            return new(line, new AllNode(), [], []);
        if (line.Length > LongestLine)
        {
            var cut = line.LastIndexOf(' ', LongestLine - 1) is var space and > 0 ? space : LongestLine;
            var head = Read(line[..cut]);
            var tooLong = new QueryProblem(
                new(cut, line.Length - cut),
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The line has {line.Length:N0} characters; {LongestLine:N0} are read, up to {cut + 1:N0}."
                ),
                new("drop the rest", line[..cut])
            );
            return head with { Text = line, Problems = head.Problems.Insert(0, tooLong) };
        }
        var reader = new QueryReader(line, false);
        var root = reader.ReadAll();
        if (root is null && reader.problems.Count == 0)
            reader.problems.Add(new(new(0, line.Length), "The line has no word to search for.", null));
        if (reader.sawMixed && root is not null)
            reader.OfferBothReadings(root);
        return new(
            line,
            root,
            [.. reader.problems.OrderBy(p => p.Span.Start)],
            [
                .. reader
                    .notices.OrderBy(n => n.Span.Start)
                    .Select(n =>
                        reader.problems.Count == 0 ? n : n with { Ways = [.. n.Ways.Select(Mended).OfType<QueryWay>()] }
                    )
                    .Where(n => !n.Ways.IsEmpty),
            ]
        );
    }

    /// <summary>
    /// An offer for a line that is not sound is made for the line as it would be mended: nobody is offered a stray
    /// parenthesis. Null when it cannot be mended.
    /// </summary>
    private static QueryWay? Mended(QueryWay way)
    {
        const int MostRepairs = 8;
        var text = way.Text;
        for (var i = 0; i < MostRepairs; i++)
        {
            var faults = new QueryReader(text, false);
            faults.ReadAll();
            if (faults.problems.Count == 0)
                return way with { Text = text };
            if (faults.problems.Find(p => p.Repair is not null)?.Repair is not { } repair || repair.Text == text)
                return null;
            text = repair.Text;
        }
        return null;
    }

    private void Note(QueryNotice notice)
    {
        if (!orBindsTighter)
            notices.Add(notice);
    }

    private Token Peek => tokens[next];

    private Token Take() => tokens[next++];

    private QueryNode? ReadAll()
    {
        QueryNode? root = null;
        while (true)
        {
            var part = ReadOr();
            root = Join(root, part);
            if (Peek.Kind == TokenKind.End)
                return root;
            var stray = Take(); // only a closing parenthesis can stop ReadOr before the end
            problems.Add(
                new(
                    stray.Span,
                    $"The parenthesis at {stray.Span.Start + 1} closes nothing.",
                    new("leave it out", QueryLexer.Cut(line, stray.Span.Start, stray.Span.End))
                )
            );
        }
    }

    private static QueryNode? Join(QueryNode? left, QueryNode? right) =>
        left is null ? right
        : right is null ? left
        : new AndNode(TextSpan.Around(left.Span, right.Span), [left, right]);

    private QueryNode? ReadOr() => orBindsTighter ? ReadAndOfOrs() : ReadOrOfAnds();

    private QueryNode? ReadOrOfAnds()
    {
        var parts = new List<QueryNode>();
        var joined = false;
        Add(ReadAnd(ref joined));
        while (Peek.Kind == TokenKind.Or)
        {
            var op = Take();
            NoteLoose(op);
            if (parts.Count == 0)
                Dangling(op, "before");
            if (Peek.Kind is TokenKind.End or TokenKind.Close or TokenKind.Or)
            {
                Dangling(op, "after");
                continue;
            }
            Add(ReadAnd(ref joined));
        }
        if (parts.Count > 1 && joined)
            sawMixed = true;
        return Pack(parts, (s, p) => new OrNode(s, p));

        void Add(QueryNode? part)
        {
            if (part is not null)
                parts.Add(part);
        }
    }

    private QueryNode? ReadAnd(ref bool joined)
    {
        var parts = new List<QueryNode>();
        var loose = new List<TermNode>();
        Token? pending = null;
        while (true)
        {
            switch (Peek.Kind)
            {
                case TokenKind.End or TokenKind.Close or TokenKind.Or:
                    if (pending is { } last)
                        Dangling(last, "after");
                    NoteLooseWords(loose);
                    return Pack(parts, (s, p) => new AndNode(s, p));
                case TokenKind.And:
                    var op = Take();
                    NoteLoose(op);
                    if (parts.Count == 0)
                        Dangling(op, "before");
                    else if (pending is not null)
                        Dangling(op, "before");
                    else
                        pending = op;
                    NoteLooseWords(loose);
                    continue;
            }
            var explicitly = pending is not null || Peek.Kind == TokenKind.Not;
            pending = null;
            // A word in parentheses of its own does not stand loose beside the others.
            var isGroup = Peek.Kind == TokenKind.Open;
            var part = ReadNot();
            if (part is null)
                continue;
            if (parts.Count > 0)
                joined = true;
            if (part is TermNode { Quoted: false } word && !explicitly && !isGroup)
                loose.Add(word);
            else
            {
                NoteLooseWords(loose);
                if (part is TermNode { Quoted: false } first && !isGroup)
                    loose.Add(first);
            }
            parts.Add(part);
        }
    }

    /// <summary>The second reading of a mixed line: OR first, then AND.</summary>
    private QueryNode? ReadAndOfOrs()
    {
        var parts = new List<QueryNode>();
        while (Peek.Kind is not (TokenKind.End or TokenKind.Close))
        {
            if (Peek.Kind is TokenKind.And or TokenKind.Or)
            {
                next++;
                continue;
            }
            var alternatives = new List<QueryNode>();
            if (ReadNot() is { } first)
                alternatives.Add(first);
            while (Peek.Kind == TokenKind.Or)
            {
                next++;
                if (Peek.Kind is TokenKind.End or TokenKind.Close or TokenKind.Or or TokenKind.And)
                    continue;
                if (ReadNot() is { } other)
                    alternatives.Add(other);
            }
            if (Pack(alternatives, (s, p) => new OrNode(s, p)) is { } group)
                parts.Add(group);
        }
        return Pack(parts, (s, p) => new AndNode(s, p));
    }

    private QueryNode? ReadNot()
    {
        if (Peek.Kind != TokenKind.Not)
            return ReadNear();
        var op = Take();
        NoteLoose(op);
        if (Peek.Kind is TokenKind.End or TokenKind.Close or TokenKind.Or or TokenKind.And)
        {
            Dangling(op, "after");
            return null;
        }
        if (++depth > DeepestNesting)
        {
            depth--;
            TooDeep(op);
            return null;
        }
        var part = ReadNot();
        depth--;
        return part is null ? null : new NotNode(TextSpan.Around(op.Span, part.Span), part);
    }

    private QueryNode? ReadNear()
    {
        var first = ReadPrimary();
        if (Peek.Kind != TokenKind.Near)
            return first;
        var parts = new List<QueryNode>();
        var distances = new List<int>();
        if (first is not null)
            parts.Add(first);
        while (Peek.Kind == TokenKind.Near)
        {
            var op = Take();
            NoteLoose(op);
            var distance = op.Number;
            if (distance < 0)
            {
                distance = NearDistance;
                problems.Add(
                    new(
                        op.Span,
                        $"NEAR at {op.Span.Start + 1} does not say how near.",
                        new(
                            $"at most {NearDistance} words between: NEAR/{NearDistance}",
                            Replace(op.Span, $"NEAR/{NearDistance}")
                        )
                    )
                );
            }
            if (parts.Count == 0)
                Dangling(op, "before");
            if (
                Peek.Kind
                is TokenKind.End
                    or TokenKind.Close
                    or TokenKind.Or
                    or TokenKind.And
                    or TokenKind.Not
                    or TokenKind.Near
            )
            {
                Dangling(op, "after");
                continue;
            }
            var part = ReadPrimary();
            if (part is null)
                continue;
            if (parts.Count > 0)
                distances.Add(distance);
            parts.Add(part);
        }
        if (parts.Count < 2)
            return parts.Count == 1 ? parts[0] : null;
        var span = TextSpan.Around(parts[0].Span, parts[^1].Span);
        if (parts.Find(p => !CanStandNear(p)) is { } unfit)
        {
            problems.Add(
                new(
                    unfit.Span,
                    "NEAR joins words, phrases, or groups of them joined by OR; what stands at "
                        + $"{unfit.Span.Start + 1} is something else. Read as AND.",
                    null
                )
            );
            return new AndNode(span, [.. parts]);
        }
        return new NearNode(span, [.. parts], [.. distances]);
    }

    private static bool CanStandNear(QueryNode node) =>
        node is TermNode || (node is OrNode or && or.Parts.All(p => p is TermNode));

    private QueryNode? ReadPrimary()
    {
        var token = Take();
        switch (token.Kind)
        {
            case TokenKind.Open:
                return Behind(ReadGroup(token));
            case TokenKind.Field:
                return ReadField(token);
            case TokenKind.Word or TokenKind.Phrase:
                return Behind(inYears ? ReadYears(token) : ReadTerm(token));
            case TokenKind.FieldBehind:
                return null; // behind nothing that could be read
            case TokenKind.Near:
                Dangling(token, "before");
                return null;
            default:
                next--; // let the caller see the end, a parenthesis or an operator
                return null;
        }
    }

    /// <summary>What stands before the name of a field in square brackets is looked for in it.</summary>
    private QueryNode? Behind(QueryNode? part)
    {
        if (Peek.Kind != TokenKind.FieldBehind)
            return part;
        var named = Take();
        if (part is null)
            return null;
        if (inField)
        {
            problems.Add(
                new(
                    named.Span,
                    $"The same words have a field before and after them, at {named.Span.Start + 1}.",
                    new("leave out the field after them", QueryLexer.Cut(line, named.Span.Start, named.Span.End))
                )
            );
            return part;
        }
        if (named.Field == QueryField.Year)
            return part is TermNode year ? ReadYears(new(TokenKind.Word, part.Span, year.Written)) : part;
        var span = TextSpan.Around(part.Span, named.Span);
        // A group's parentheses stand before what is inside it.
        var start = line.LastIndexOf('(', part.Span.Start, part.Span.Start + 1);
        var from = part is TermNode || start < 0 ? part.Span.Start : start;
        var (what, name) = (line[from..named.Span.Start].Trim(), QueryFields.Name(named.Field));
        Note(
            new(
                NoticeKind.OtherDialect,
                span,
                $"“{named.Text}” at {named.Span.Start + 1} is read as {name}, in front of the words it follows.",
                [new($"{name}:{what}", $"{line[..from]}{name}:{what}{line[named.Span.End..]}")]
            )
        );
        return new FieldNode(span, named.Field, Checked(part, named.Field));
    }

    /// <summary>The values behind a field, as they are looked for; what is none is pointed out.</summary>
    private QueryNode Checked(QueryNode part, QueryField field)
    {
        switch (part)
        {
            case TermNode term:
                var value = FieldValue.Of(field, term.Written);
                if (value.Value is null)
                {
                    problems.Add(
                        new(
                            term.Span,
                            $"{value.WhyNot} (at {term.Span.Start + 1}).",
                            value.Nearest is null
                                ? null
                                : new($"use {value.Nearest}", Replace(term.Span, Quoted(value.Nearest)))
                        )
                    );
                    return term;
                }
                if (!value.IsOther)
                    return term;
                Note(
                    new(
                        NoticeKind.FieldValue,
                        term.Span,
                        $"“{term.Written}” at {term.Span.Start + 1} is read as {value.Value}.",
                        [new(value.Value, Replace(term.Span, Quoted(value.Value)))]
                    )
                );
                return term with
                {
                    Written = value.Value,
                    Quoted = value.Value.Contains(' ', StringComparison.Ordinal),
                    Forms = QueryLexer.Forms(value.Value),
                };
            case OrNode or:
                return or with { Parts = [.. or.Parts.Select(p => Checked(p, field))] };
            case AndNode and:
                return and with { Parts = [.. and.Parts.Select(p => Checked(p, field))] };
            case NotNode not:
                return not with { Part = Checked(not.Part, field) };
            default:
                return part;
        }

        static string Quoted(string text) => text.Contains(' ', StringComparison.Ordinal) ? $"\"{text}\"" : text;
    }

    private QueryNode? ReadGroup(Token open)
    {
        if (++depth > DeepestNesting)
        {
            depth--;
            TooDeep(open);
            SkipGroup();
            return null;
        }
        // Only what stands directly behind a field's name has it on both sides.
        var outer = inField;
        inField = false;
        var inner = ReadOr();
        inField = outer;
        depth--;
        if (Peek.Kind == TokenKind.Close)
        {
            var close = Take();
            if (
                inner is null
                && problems.TrueForAll(p => p.Span.Start < open.Span.Start || p.Span.End > close.Span.End)
            )
                problems.Add(
                    new(
                        TextSpan.Around(open.Span, close.Span),
                        $"The parentheses at {open.Span.Start + 1} are empty.",
                        new("leave them out", QueryLexer.Cut(line, open.Span.Start, close.Span.End))
                    )
                );
        }
        else
        {
            problems.Add(
                new(
                    open.Span,
                    $"A parenthesis opens at {open.Span.Start + 1} and never closes.",
                    new("close it at the end", line.TrimEnd() + ")")
                )
            );
        }
        return inner;
    }

    private void SkipGroup()
    {
        var open = 1;
        while (open > 0 && Peek.Kind != TokenKind.End)
        {
            var kind = Take().Kind;
            open +=
                kind == TokenKind.Open ? 1
                : kind == TokenKind.Close ? -1
                : 0;
        }
    }

    private QueryNode? ReadField(Token token)
    {
        if (Peek.Kind is not (TokenKind.Word or TokenKind.Phrase or TokenKind.Open))
        {
            problems.Add(
                new(
                    token.Span,
                    $"Nothing follows {token.Text}: at {token.Span.Start + 1}.",
                    new("leave it out", QueryLexer.Cut(line, token.Span.Start, token.Span.End))
                )
            );
            return null;
        }
        var (outer, outerField) = (inYears, inField);
        (inYears, inField) = (token.Field == QueryField.Year, true);
        var part = ReadPrimary();
        (inYears, inField) = (outer, outerField);
        if (token.Field == QueryField.Year)
            return part is YearsNode years ? years with { Span = TextSpan.Around(token.Span, years.Span) } : part;
        return part is null
            ? null
            : new FieldNode(
                TextSpan.Around(token.Span, new(part.Span.Start, tokens[next - 1].Span.End - part.Span.Start)),
                token.Field,
                Checked(part, token.Field)
            );
    }

    private YearsNode? ReadYears(Token value)
    {
        var text = value
            .Text.Replace("..", "-", StringComparison.Ordinal)
            .Replace('\u2013', '-')
            .Replace('\u2212', '-')
            .Trim();
        var ends = text.Split('-', 2, StringSplitOptions.TrimEntries);
        int? from = Year(ends[0]),
            to = ends.Length > 1 ? Year(ends[1]) : from;
        var sound =
            ends.Length == 1
                ? from is not null
                : (from is not null || ends[0].Length == 0)
                    && (to is not null || ends[1].Length == 0)
                    && (from ?? to) is not null;
        if (!sound)
        {
            problems.Add(
                new(
                    value.Span,
                    $"“{value.Text}” at {value.Span.Start + 1} is not a year. "
                        + "Write year:2015, year:2005-2026, year:2005- or year:-2004.",
                    null
                )
            );
            return null;
        }
        if (from > to)
            (from, to) = (to, from);
        return new(value.Span, from, to);

        static int? Year(string t) =>
            t.Length == 4 && int.TryParse(t, NumberStyles.None, CultureInfo.InvariantCulture, out var y) ? y : null;
    }

    private TermNode? ReadTerm(Token token)
    {
        var forms = QueryLexer.Forms(token.Text);
        if (forms.IsEmpty)
        {
            if (
                token.Text.All(char.IsPunctuation)
                && token.Text.AsSpan().IndexOfAny('*', '?') < 0
                && token.Kind == TokenKind.Word
            )
                return null; // a dash or comma between words
            problems.Add(
                new(
                    token.Span,
                    $"“{token.Text}” at {token.Span.Start + 1} has no letter or digit to search for.",
                    new("leave it out", QueryLexer.Cut(line, token.Span.Start, token.Span.End))
                )
            );
            return null;
        }
        if (forms[0].Any(s => s.All(c => c is '*' or '?')))
        {
            problems.Add(
                new(
                    token.Span,
                    $"The wildcard at {token.Span.Start + 1} stands alone and would find everything; write at least one letter with it.",
                    new("leave it out", QueryLexer.Cut(line, token.Span.Start, token.Span.End))
                )
            );
            return null;
        }
        if (token is { Kind: TokenKind.Word, Text: "not" or "Not" })
            notices.Add(
                new(
                    NoticeKind.LowerCaseNot,
                    token.Span,
                    $"“{token.Text}” at {token.Span.Start + 1} is read as a word. NOT in capitals leaves works out.",
                    [new("as a word", line), new("as NOT", Replace(token.Span, "NOT"))]
                )
            );
        return new(token.Span, token.Text, token.Kind == TokenKind.Phrase, forms);
    }

    private void NoteLoose(Token op)
    {
        if (!op.Loose || orBindsTighter)
            return;
        if (op.Kind == TokenKind.Not)
        {
            notices.Add(
                new(
                    NoticeKind.OtherDialect,
                    op.Span,
                    $"The minus at {op.Span.Start + 1} is read as NOT.",
                    [new("as NOT", Replace(op.Span, "NOT ")), new("without it", Replace(op.Span, ""))]
                )
            );
            return;
        }
        if (op.Kind == TokenKind.Near)
        {
            var near = string.Create(CultureInfo.InvariantCulture, $"NEAR/{op.Number}");
            notices.Add(
                new(
                    NoticeKind.OtherDialect,
                    op.Span,
                    $"“{op.Text}” at {op.Span.Start + 1} is read as {near}: at most {op.Number} words between, in either order.",
                    [new(near, Replace(op.Span, near))]
                )
            );
            return;
        }
        var meant = op.Kind == TokenKind.Or ? "OR" : "AND";
        if (!char.IsLetter(op.Text[0]))
            notices.Add(
                new(
                    NoticeKind.OtherDialect,
                    op.Span,
                    $"“{op.Text}” at {op.Span.Start + 1} is read as {meant}.",
                    [new(meant, Replace(op.Span, meant))]
                )
            );
        else
            notices.Add(
                new(
                    NoticeKind.LowerCaseOperator,
                    op.Span,
                    $"“{op.Text}” at {op.Span.Start + 1} is read as {meant}.",
                    [new($"as {meant}", Replace(op.Span, meant)), new("as a word", Replace(op.Span, $"\"{op.Text}\""))]
                )
            );
    }

    /// <summary>A year among words is one of them; most who write it mean the year.</summary>
    private void NoteYears(List<TermNode> loose)
    {
        foreach (var word in loose.Where(w => IsYears(w.Written)))
            notices.Add(
                new(
                    NoticeKind.BareYear,
                    word.Span,
                    $"“{word.Written}” at {word.Span.Start + 1} is looked for as a word.",
                    [new("as a word", line), new("as a year", Replace(word.Span, $"year:{word.Written}"))]
                )
            );

        static bool IsYears(string text) =>
            text.Length is 4 or 9
            && text.Split('-', '–') is { Length: 1 or 2 } ends
            && ends.All(e =>
                e.Length == 4
                && e.All(char.IsAsciiDigit)
                && (e.StartsWith("19", StringComparison.Ordinal) || e.StartsWith("20", StringComparison.Ordinal))
            );
    }

    private void NoteLooseWords(List<TermNode> loose)
    {
        if (loose.Count > 1 && !orBindsTighter)
        {
            NoteYears(loose);
            var span = TextSpan.Around(loose[0].Span, loose[^1].Span);
            var words = loose.Select(t => t.Written).ToArray();
            notices.Add(
                new(
                    NoticeKind.LooseWords,
                    span,
                    $"{words.Length} words side by side are joined by AND.",
                    [
                        new("all words", line),
                        new("near", Replace(span, string.Join($" NEAR/{NearDistance} ", words))),
                        new("phrase", Replace(span, "\"" + string.Join(' ', words) + "\"")),
                    ]
                )
            );
        }
        loose.Clear();
    }

    private void OfferBothReadings(QueryNode root)
    {
        var other = new QueryReader(line, true).ReadAll();
        if (other is null)
            return;
        var (first, second) = (QueryText.Print(root), QueryText.Print(other));
        if (first == second)
            return;
        notices.Add(
            new(
                NoticeKind.MixedOperators,
                root.Span,
                "OR stands beside AND without parentheses; AND is joined first.",
                [new("AND first", first), new("OR first", second)]
            )
        );
    }

    private void Dangling(Token op, string side) =>
        problems.Add(
            new(
                op.Span,
                $"{op.Text} at {op.Span.Start + 1} has nothing {side} it.",
                new("leave it out", QueryLexer.Cut(line, op.Span.Start, op.Span.End))
            )
        );

    private void TooDeep(Token at) =>
        problems.Add(
            new(
                at.Span,
                $"Parentheses are nested more than {DeepestNesting} deep at {at.Span.Start + 1}; what is inside is left out.",
                null
            )
        );

    private string Replace(TextSpan span, string with) => line[..span.Start] + with + line[span.End..];

    private static QueryNode? Pack(List<QueryNode> parts, Func<TextSpan, ImmutableArray<QueryNode>, QueryNode> join) =>
        parts.Count switch
        {
            0 => null,
            1 => parts[0],
            _ => join(TextSpan.Around(parts[0].Span, parts[^1].Span), [.. parts]),
        };
}
