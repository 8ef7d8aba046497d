using Zendle.Core.Citing;
using Zendle.Core.Merging;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Text;
using Zendle.Index.Questions;

namespace Zendle.Server.Features.Search;

/// <summary>A node of the tree as it is shown, depth first.</summary>
/// <param name="Start">Offset in the line.</param>
/// <param name="Length">Length in the line.</param>
/// <param name="Depth">0 for the root.</param>
/// <param name="Kind">"term", "phrase", "near", "and", "or", "not", "field", "years", "all".</param>
/// <param name="Text">The part as an expression.</param>
/// <param name="Meaning">What it asks for, in words.</param>
/// <param name="Count">Works it finds in the chosen databases.</param>
/// <param name="OnlyIt">For a term: works that only it brings in; for a term under NOT: works it removes.</param>
/// <param name="Concept">Letter of its concept.</param>
internal sealed record ReadingPartDto(
    int Start,
    int Length,
    int Depth,
    string Kind,
    string Text,
    string Meaning,
    int Count,
    int? OnlyIt,
    string? Concept
);

internal sealed record ProblemPartDto(int Start, int Length, string Sentence, string? RepairLabel, string? RepairText);

/// <summary>Another way to write a line, or to ask it.</summary>
/// <param name="Label">What is other about it.</param>
/// <param name="Text">The line.</param>
/// <param name="Count">Works that it finds, or adds.</param>
/// <param name="Databases">The databases it is asked in, empty for all; null for those that are chosen.</param>
internal sealed record WayDto(string Label, string Text, int Count, IReadOnlyList<int>? Databases)
{
    /// <summary>Another way to write a line.</summary>
    public static WayDto Written(string label, string text, int count) => new(label, text, count, null);
}

/// <summary>What a person should know of how a line is read.</summary>
/// <param name="Kind">What it is about.</param>
/// <param name="Start">Where in the line.</param>
/// <param name="Length">How long.</param>
/// <param name="Sentence">How it is read.</param>
/// <param name="Ways">Other ways to write the line, each with its count or with what it adds.</param>
/// <param name="Examples">Sentences that show it.</param>
internal sealed record NoticeDto(
    string Kind,
    int Start,
    int Length,
    string Sentence,
    IReadOnlyList<WayDto> Ways,
    IReadOnlyList<MarkedTextDto> Examples
);

/// <summary>One database's share. <paramref name="PartOf"/> names the database it is an extract of.</summary>
internal sealed record LedgerLineDto(
    int DatabaseId,
    string Name,
    bool Chosen,
    int Records,
    int Works,
    int OnlyHere,
    int? PartOf
);

/// <summary>What each database has of an answer.</summary>
/// <param name="ByTexts">Works that the words of gathered texts alone bring; null where no texts are asked.</param>
internal sealed record LedgerDto(
    IReadOnlyList<LedgerLineDto> Databases,
    int Records,
    int Works,
    int Duplicates,
    int? ByTexts
)
{
    public static LedgerDto From(Ledger l) =>
        new(
            [
                .. l.Databases.Select(d => new LedgerLineDto(
                    d.DatabaseId,
                    d.Name,
                    d.Chosen,
                    d.Records,
                    d.Works,
                    d.OnlyHere,
                    d.PartOf
                )),
            ],
            l.Records,
            l.Works,
            l.Duplicates,
            null
        );
}

/// <summary>How a line was read, with counts of everything in it.</summary>
/// <param name="IsReference">Whether it looks like a reference as it is printed, and names no work outright.</param>
internal sealed record ReadingDto(
    string Text,
    bool IsSound,
    IReadOnlyList<ReadingPartDto> Parts,
    IReadOnlyList<ProblemPartDto> Problems,
    IReadOnlyList<NoticeDto> Notices,
    IReadOnlyList<DirectDto> Direct,
    bool IsReference,
    LedgerDto? Ledger,
    int? InView,
    IReadOnlyList<BoardCardDto> Board
);

/// <summary>Reads a line while it is typed and counts every part of it. Commits nothing.</summary>
internal sealed class ReadingService(SearchService search, PhraseGaps gaps)
{
    private const int MostParts = 120;
    private const int MostVaried = 24;
    private const int MostWide = 3;

    /// <summary>
    /// Reads <paramref name="text"/> in the place of the expression of <paramref name="state"/>. A newer line gives an
    /// older one up through <paramref name="cancel"/>.
    /// </summary>
    public async Task<ReadingDto> Read(int reviewId, string text, SearchState state, CancellationToken cancel)
    {
        var next = state.After(state.Toward(text));
        var reading = QueryReader.Read(text);
        // A line that is an identifier is no question of words; there is nothing to say of how it is read as one.
        var identifier = TypedIdentifier.Of(text);
        using var view = await search.View(reviewId, next.After(new SearchAct(identifier?.Expression ?? text)));
        var evaluator = view.Evaluator;
        var (parts, notices) = (new List<ReadingPartDto>(), new List<NoticeDto>());
        var offers = new OfferCounts(view);
        var counts =
            identifier is null && reading.Root is { } root ? new PartCounts(evaluator, state, root, cancel) : null;
        if (counts is not null)
            AddParts(counts.Root, new(counts, Concepts.Of(counts.Root), parts), 0, QueryField.About, null);
        var direct = NamedOutright.In(view, text, identifier);
        if (identifier is not null)
            notices.AddRange(NamedOutright.About(view, offers, text, identifier, direct.Count > 0));
        foreach (var notice in identifier is null ? reading.Notices.Take(4) : [])
        {
            cancel.ThrowIfCancellationRequested();
            notices.Add(
                new(
                    notice.Kind.ToString(),
                    notice.Span.Start,
                    notice.Span.Length,
                    notice.Sentence,
                    [.. notice.Ways.Select(w => WayDto.Written(w.Label, w.Text, offers.Taken(w.Text).Count()))],
                    []
                )
            );
        }
        if (identifier is null && reading is { IsSound: true, Root: { } sound })
        {
            NoticeDto[] near = [.. NearWords.In(view, offers, sound, text)];
            // How a misspelt line is read matters less than how it is spelled.
            notices.InsertRange(0, [.. near, .. PersonsOfNames.Typed(view, offers, text)]);
            if (counts is not null)
                notices.AddRange(
                    NothingFound.In(counts, offers, text).Where(n => near.Length == 0 || n.Ways.Count > 0)
                );
            notices.AddRange(PersonsOfNames.In(view, offers, sound, text));
            notices.AddRange(Wide(evaluator, sound));
            notices.AddRange(await gaps.In(offers, sound, text, cancel));
            notices.AddRange(Variants(offers, sound, text, cancel));
        }
        return new(
            text,
            reading.IsSound,
            parts,
            [
                .. reading
                    .Problems.Take(6)
                    .Select(p => new ProblemPartDto(
                        p.Span.Start,
                        p.Span.Length,
                        p.Sentence,
                        p.Repair?.Label,
                        p.Repair?.Text
                    )),
            ],
            notices,
            direct,
            direct.Count == 0 && PastedReferences.LooksLikeSome(text),
            reading.Root is null or AllNode ? null : view.Ledger(),
            reading.Root is null ? null : view.Answer.Count,
            counts?.Root is null or AllNode ? [] : new BoardView(counts, view.Facts.Kept).Cards()
        );
    }

    /// <summary>
    /// Other spellings of the line's words, those that would add works, the most first; each with how many it adds.
    /// </summary>
    private static IEnumerable<NoticeDto> Variants(
        OfferCounts offers,
        QueryNode root,
        string text,
        CancellationToken cancel
    )
    {
        var ways = new List<(WayDto Way, TextSpan Span)>();
        foreach (
            var (term, field) in Concepts
                .Terms(root, QueryField.About)
                .Where(t => Concepts.IsText(t.Field) && t.Field != QueryField.Author)
                .Take(MostVaried)
        )
        foreach (var variant in SpellingVariants.Of(term.Slots[^1]))
        {
            var written = term.IsPhrase ? $"\"{string.Join(' ', term.Slots[..^1])} {variant}\"" : variant;
            var old = text.Substring(term.Span.Start, term.Span.Length);
            var line = $"{text[..term.Span.Start]}({old} OR {written}){text[term.Span.End..]}";
            cancel.ThrowIfCancellationRequested();
            var added = offers.Added(line, text);
            if (added > 0)
                ways.Add((WayDto.Written(written, line, added), term.Span));
        }
        if (ways.Count == 0)
            yield break;
        var best = ways.OrderByDescending(w => w.Way.Count).Take(4).ToArray();
        yield return new(
            "Variants",
            best[0].Span.Start,
            best[0].Span.Length,
            "Other spellings would add",
            [.. best.Select(w => w.Way)],
            []
        );
    }

    /// <summary>Truncations that bring more words than a person is likely to have in mind.</summary>
    private static IEnumerable<NoticeDto> Wide(QuestionEvaluator evaluator, QueryNode root)
    {
        foreach (
            var (term, field) in Concepts
                .Terms(root, QueryField.About)
                .Where(t => Concepts.IsText(t.Field) && t.Term.HasWildcard)
                .Take(MostWide)
        )
        {
            var slot = term.Slots.First(TermNode.IsPattern);
            var words = evaluator.WordsOf(slot, field);
            if (!Truncations.IsWide(slot, words.Count))
                continue;
            var first = string.Join(", ", words.Take(5).Select(w => evaluator.OnlyHyphenated(w.Word, field) ?? w.Word));
            yield return new(
                "Wide",
                term.Span.Start,
                term.Span.Length,
                $"{slot} stands for {words.Count:N0} words: {first}{(words.Count > 5 ? " …" : "")}",
                [],
                []
            );
        }
    }

    private sealed record Walk(PartCounts Counts, IReadOnlyList<Concept> Concepts, List<ReadingPartDto> Parts);

    private static void AddParts(QueryNode node, Walk walk, int depth, QueryField field, string? letter)
    {
        if (walk.Parts.Count >= MostParts)
            return;
        letter ??= walk.Concepts.FirstOrDefault(c => ReferenceEquals(c.Node, node))?.Letter.ToString();
        int? only = node is TermNode term ? walk.Counts.OnlyIt(term) : null;
        var text = QueryText.Print(node);
        walk.Parts.Add(
            new(
                node.Span.Start,
                node.Span.Length,
                depth,
                Kind(node),
                text,
                QueryText.Meaning(node, field),
                walk.Counts.Count(node, field),
                only,
                letter
            )
        );
        var children = node switch
        {
            AndNode a => a.Parts,
            OrNode o => o.Parts,
            NearNode n => n.Parts,
            NotNode n => [n.Part],
            FieldNode f => [f.Part],
            _ => [],
        };
        foreach (var child in children)
            AddParts(child, walk, depth + 1, node is FieldNode f ? f.Field : field, letter);
    }

    private static string Kind(QueryNode node) =>
        node switch
        {
            TermNode { IsPhrase: true } => "phrase",
            TermNode => "term",
            NearNode => "near",
            AndNode => "and",
            OrNode => "or",
            NotNode => "not",
            FieldNode => "field",
            YearsNode => "years",
            _ => "all",
        };
}
