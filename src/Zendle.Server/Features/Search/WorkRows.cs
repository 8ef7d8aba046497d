using System.Collections.Immutable;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Trails;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Search;

internal sealed record MarkDto(int Start, int Length, string Concept);

internal sealed record MarkedTextDto(string Text, IReadOnlyList<MarkDto> Marks);

/// <summary>How often terms stand in each field of the work's records.</summary>
internal sealed record HitsDto(int Title, int Keywords, int Abstract);

/// <summary>How a work of a trail is tied to the seeds.</summary>
/// <param name="Past">How many seeds cite it.</param>
/// <param name="PastSeeds">Their numbers, at most twelve.</param>
/// <param name="Future">How many seeds it cites.</param>
/// <param name="FutureSeeds">Their numbers, at most twelve.</param>
/// <param name="Seed">Its own number when it is a seed.</param>
internal sealed record TiesDto(
    int Past,
    IReadOnlyList<int> PastSeeds,
    int Future,
    IReadOnlyList<int> FutureSeeds,
    int? Seed
);

/// <summary>What a neighbour has in common with the seeds; null for what was not asked.</summary>
/// <param name="References">Works that it cites and a seed too.</param>
/// <param name="Together">Works that cite it and a seed too.</param>
/// <param name="Terms">Words that are telling for the seeds.</param>
/// <param name="People">Authors and editors of it and of a seed.</param>
internal sealed record InCommonDto(int? References, int? Together, int? Terms, int? People);

/// <summary>Where the words stand in the gathered text of a work.</summary>
/// <param name="Sentence">The sentence in which most of them stand.</param>
/// <param name="Page">Its page, from 1.</param>
/// <param name="TextId">The document.</param>
internal sealed record InTextDto(MarkedTextDto Sentence, int Page, int TextId);

/// <summary>One row of the list.</summary>
/// <param name="Withdrawn">Whether it is in no database any more, and here because people decided on it.</param>
internal sealed record WorkRowDto(
    int Id,
    MarkedTextDto Title,
    string People,
    int? Year,
    string? Venue,
    string Type,
    string? Language,
    MarkedTextDto? Snippet,
    HitsDto Hits,
    int Cited,
    double CitedPerYear,
    IReadOnlyList<int> Spark,
    int SparkFrom,
    string Text,
    Stage Stage,
    string? Reason,
    IReadOnlyList<string> Tags,
    int Databases,
    TiesDto? Ties,
    InCommonDto? InCommon,
    InTextDto? InText,
    bool Withdrawn
);

/// <summary>Makes the rows of the list from the records of works.</summary>
internal sealed class WorkRows(CorpusReader reader, TimeProvider clock)
{
    private const int SparkYears = 12;
    private const int SnippetLength = 150;

    /// <summary>One row for each id, in order. O(rows).</summary>
    public async Task<List<WorkRowDto>> For(SearchView view, IReadOnlyList<int> ids, CancellationToken cancel)
    {
        var records = await reader.OfWorks(ids, cancel);
        return [.. ids.Where(records.Contains).Select(id => Row(view, id, [.. records[id]]))];
    }

    /// <summary>Marks in one text of a field.</summary>
    public static MarkedTextDto Mark(string text, ImmutableArray<Concept> concepts, QueryField field) =>
        new(
            text,
            [.. TermMarks.In(text, concepts, field).Select(m => new MarkDto(m.Start, m.Length, m.Concept.ToString()))]
        );

    private WorkRowDto Row(SearchView view, int id, SourcedRecord[] records)
    {
        var chosen = ChosenFields.From(records);
        var concepts = view.Answer.Concepts;
        var thisYear = clock.GetUtcNow().Year;
        var cited = view.Snapshot.Columns.Graph.CitedByCount(id);
        var judgement = view.Fold.Of(id);
        var year = chosen.Year.Value;
        return new(
            id,
            Mark(chosen.Title.Value, concepts, QueryField.Title),
            PeopleLine.Of(chosen.People.Value),
            year,
            Venue(view.Snapshot.Columns, id, chosen) ?? chosen.Publisher.Value,
            DocumentTypes.Name(chosen.Type.Value),
            chosen.Language.Value is null or "eng" ? null : Languages.Name(chosen.Language.Value),
            Snippet(OtherTexts.Abstracts(records, chosen), concepts),
            Hits(records, concepts),
            cited,
            Math.Round(WorkOrder.PerYear(cited, year ?? 0, thisYear), 1),
            Spark(view, id, thisYear),
            thisYear - SparkYears + 1,
            TextAtHand.Said(chosen.Copies),
            judgement.Stage,
            judgement.Reason,
            judgement.Tags,
            records.Where(r => !r.IsWithdrawn).Select(r => r.DatabaseId).Distinct().Count(),
            Ties(view, id),
            InCommon(view, id),
            InText(view, id, concepts),
            Array.TrueForAll(records, r => r.IsWithdrawn)
        );
    }

    /// <summary>
    /// Where the words stand best in the gathered text of a work: the first sentence whose marked words are the rarest in it,
    /// each counted once; null where no texts are asked, or none of the words stands in this one.
    /// </summary>
    private static InTextDto? InText(SearchView view, int id, ImmutableArray<Concept> concepts)
    {
        if (!view.State.AsksTexts || (view.Facts.Texts as TextWordsOf)?.Of(id) is not { } of)
            return null;
        var pages = of
            .Pages.Select(p => (p.Page, p.Text, Marks: TermMarks.In(p.Text, concepts, QueryField.Text)))
            .Where(p => !p.Marks.IsEmpty)
            .ToArray();
        static string Word(string text, TermMark mark) =>
            Core.Text.Words.Fold(text.AsSpan(mark.Start, mark.Length).ToString());
        var counts = pages
            .SelectMany(p => p.Marks.Select(m => Word(p.Text, m)))
            .CountBy(w => w)
            .ToDictionary(StringComparer.Ordinal);
        var best = (Page: 0, Text: "", Score: 0.0);
        foreach (var (page, text, marks) in pages)
        {
            for (int start = 0, m = 0; m < marks.Length; )
            {
                var end = EndOfSentence(text, start);
                var first = m;
                while (m < marks.Length && marks[m].Start < end)
                    m++;
                var score = marks[first..m].Select(x => Word(text, x)).Distinct().Sum(w => 1.0 / counts[w]);
                if (score > best.Score)
                    best = (page, text[start..end].Trim(), score);
                start = end;
            }
        }
        return best.Page == 0
            ? null
            : new(Sentence([best.Text], t => TermMarks.In(t, concepts, QueryField.Text))!, best.Page, of.Text.Id);
    }

    private static TiesDto? Ties(SearchView view, int id)
    {
        const int MostNumbers = 12;
        if (view.Answer.Trail is not { } trail)
            return null;
        return new(
            trail.Past.Ties(id),
            [.. trail.SeedsCiting(id).Take(MostNumbers)],
            trail.Future.Ties(id),
            [.. trail.SeedsCitedBy(id).Take(MostNumbers)],
            trail.NumberOf(id)
        );
    }

    private static InCommonDto? InCommon(SearchView view, int id)
    {
        if (view.Answer.Neighbours is not { } neighbours)
            return null;
        int? Shared(NeighbourKind kind) => neighbours.Lists.FirstOrDefault(l => l.Kind == kind)?.Shared(id);
        return new(
            Shared(NeighbourKind.SharedReferences),
            Shared(NeighbourKind.CitedTogether),
            Shared(NeighbourKind.SharedTerms),
            Shared(NeighbourKind.SharedPeople)
        );
    }

    /// <summary>Where a record comes from, in words.</summary>
    public static string Source(SourcedRecord record, IReadOnlyDictionary<int, string> names) =>
        record.IsWithdrawn ? $"{names[record.DatabaseId]} (no longer there)" : names[record.DatabaseId];

    /// <summary>
    /// The venue of a work under the name that the breakdown counts it by; null for none. Until venues were told apart
    /// the title that was chosen stands for it.
    /// </summary>
    public static string? Venue(CorpusColumns columns, int id, ChosenFields chosen) =>
        chosen.Venue.Value is { } venue ? columns.VenueOf(id) ?? venue.Title : null;

    /// <summary>
    /// The most a field has over the work's records: two databases with the same abstract do not count twice.
    /// </summary>
    private static HitsDto Hits(SourcedRecord[] records, ImmutableArray<Concept> concepts)
    {
        if (concepts.IsEmpty)
            return new(0, 0, 0);
        int Most(Func<Record, IEnumerable<string>> texts, QueryField field) =>
            records.Max(r => texts(r.Record).Sum(t => TermMarks.In(t, concepts, field).Length));
        return new(
            Most(r => r.Titles, QueryField.Title),
            Most(r => r.Keywords.Concat(r.ControlledTerms), QueryField.Keywords),
            Most(r => r.Abstracts, QueryField.Abstract)
        );
    }

    private static int[] Spark(SearchView view, int id, int thisYear)
    {
        var spark = new int[SparkYears];
        foreach (var citing in view.Snapshot.Columns.Graph.CitedBy(id))
            if (view.Snapshot.Columns.Year[citing] - (thisYear - SparkYears + 1) is >= 0 and < SparkYears and var i)
                spark[i]++;
        return spark;
    }

    /// <summary>
    /// The sentence of a work's abstracts in which most concepts stand, then most marks; the first one wins a tie. The
    /// first abstract's first sentence when nothing is marked.
    /// </summary>
    private static MarkedTextDto? Snippet(IReadOnlyList<string> texts, ImmutableArray<Concept> concepts) =>
        Sentence(texts, t => TermMarks.In(t, concepts, QueryField.Abstract));

    private static MarkedTextDto? Sentence(IReadOnlyList<string> texts, Func<string, ImmutableArray<TermMark>> marksOf)
    {
        var best = (Text: "", Marks: ImmutableArray<TermMark>.Empty, Start: 0, End: 0, Score: -1);
        foreach (var one in texts)
        {
            var placed = marksOf(one);
            for (var start = 0; start < one.Length; )
            {
                var end = EndOfSentence(one, start);
                var inside = placed.Where(m => m.Start >= start && m.Start < end).ToArray();
                var score = inside.Select(m => m.Concept).Distinct().Count() * 100 + inside.Length;
                if (score > best.Score)
                    best = (one, placed, start, end, score);
                start = end;
                while (start < one.Length && one[start] == ' ')
                    start++;
            }
        }
        var (text, marks) = (best.Text, best.Marks);
        if (text.Length == 0)
            return null;
        // Begin a little before the first mark when the sentence is longer than a line.
        var from = best.Start;
        var first = marks.FirstOrDefault(m => m.Start >= best.Start && m.Start < best.End);
        if (best.End - best.Start > SnippetLength && first.Length > 0 && first.Start - best.Start > 50)
            from = text.IndexOf(' ', first.Start - 40) + 1;
        var cut = text[from..best.End];
        var lead = from > best.Start ? "… " : "";
        return new(
            lead + cut,
            [
                .. marks
                    .Where(m => m.Start >= from && m.Start + m.Length <= best.End)
                    .Select(m => new MarkDto(m.Start - from + lead.Length, m.Length, m.Concept.ToString())),
            ]
        );
    }

    private static int EndOfSentence(string text, int start)
    {
        for (var i = start; i < text.Length - 1; i++)
            if (text[i] is '.' or '?' or '!' && text[i + 1] == ' ' && i - start > 20)
                return i + 1;
        return text.Length;
    }
}
