using System.Globalization;
using Zendle.Core.Citing;
using Zendle.Core.Entries;
using Zendle.Core.Merging;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Sets;
using Zendle.Core.Text;
using Zendle.Index.Columns;
using Zendle.Index.Questions;

namespace Zendle.Server.Features.Search;

/// <summary>
/// Finds the works that pasted references mean: DOIs, ISBNs, titles, references as printed, names with years, and files of
/// references in RIS, BibTeX or CSL-JSON or as a table.
/// </summary>
internal static class PastedFinder
{
    /// <summary>Of so many entries that nothing was matched with, works with the same rare words are looked for.</summary>
    private const int MostByWords = 200;

    /// <summary>So many entries take less time than it takes to hand them to other threads.</summary>
    private const int FewEntries = 40;

    private const int MostCandidates = 3,
        MostChoices = 5,
        MostRareWords = 6,
        MostPostings = 20_000,
        FewPostings = 40,
        MostAlike = 60,
        ShortestWord = 4;

    /// <summary>The entries of a pasted text with their works.</summary>
    /// <param name="snapshot">What is looked in: all works of all databases.</param>
    /// <param name="evaluator">Answers what words find there.</param>
    /// <param name="text">What was pasted.</param>
    /// <param name="cancel">Stops.</param>
    public static PastedDto Find(
        CorpusSnapshot snapshot,
        QuestionEvaluator evaluator,
        string text,
        CancellationToken cancel
    )
    {
        var columns = snapshot.Columns;
        IReadOnlyList<Entry> entries = ReferenceFile.Read(text) is { } filed
            ? [.. filed.Select(f => new Entry(new(f.Reference.Text, []), f))]
            : [.. PastedReferences.Laid(text).Select(e => new Entry(e, null))];
        Matched Match(Entry entry) => new(entry, columns, entry.Laid.Lines.Count > 1 ? Alone(entry.Laid.Lines) : []);
        // A few are matched here: many requests that each wait for other threads would wait for each other.
        var matched =
            entries.Count <= FewEntries
                ? [.. entries.Select(Match)]
                : entries.AsParallel().AsOrdered().WithCancellation(cancel).Select(Match).ToArray();
        var (byWords, inBrief) = (0, new HashSet<string>(StringComparer.Ordinal));
        PastedReferenceDto Judged((Reference Reference, ReferenceMatch Match) one)
        {
            cancel.ThrowIfCancellationRequested();
            if (one.Match.Work != 0)
                return new(one.Reference.Text, PastedVerdict.Sure, [Sure(columns, one.Match)]);
            if (++byWords > MostByWords)
                inBrief.Add(one.Reference.Text);
            return ByText(columns, evaluator, one.Reference, byWords <= MostByWords, MostCandidates);
        }
        var judged = matched.Select(m => (Entry: m, Parts: Parts(m, Judged))).ToArray();
        // Where more of what looked like one entry was several than was one, the rest of it is several, too.
        var several = judged.Count(j => j.Parts.Count > 1);
        var whole = judged.Count(j => j.Entry.Lines.Count > 1 && j.Parts is [{ Verdict: PastedVerdict.Sure }]);
        var found = judged
            .SelectMany(j =>
                several > whole && j.Entry.Lines.Count > 1 && j.Parts is [{ Verdict: not PastedVerdict.Sure }]
                    ? j.Entry.Lines.Select(Judged)
                    : j.Parts
            )
            .ToList();
        return new(
            found,
            entries.Count == PastedReferences.Most,
            found.Count(f => f.Verdict == PastedVerdict.NotHere && inBrief.Contains(f.Text))
        );
    }

    /// <summary>
    /// What an entry is: one, or as many as it has lines where two of those are works each, or where one is and the whole
    /// is not.
    /// </summary>
    private static IReadOnlyList<PastedReferenceDto> Parts(
        Matched entry,
        Func<(Reference Reference, ReferenceMatch Match), PastedReferenceDto> judged
    )
    {
        if (entry.Lines.Select(l => l.Match.Work).Where(w => w != 0).Distinct().Take(2).Count() == 2)
            return [.. entry.Lines.Select(judged)];
        var whole = judged(entry.Whole) with { Fields = entry.Fields };
        if (entry.Lines.Count < 2 || whole.Verdict == PastedVerdict.Sure)
            return [whole];
        var lines = entry.Lines.Select(judged).ToArray();
        return Array.Exists(lines, l => l.Verdict == PastedVerdict.Sure) ? lines : [whole];
    }

    /// <summary>
    /// The lines that could be entries of their own; one that only says where a work is to be had goes with the line
    /// before it.
    /// </summary>
    private static List<string> Alone(IReadOnlyList<string> lines)
    {
        var alone = new List<string>();
        foreach (var line in lines)
            if (alone.Count > 0 && (line.Count(char.IsLetter) < ShortestWord || TypedIdentifier.Of(line) is not null))
                alone[^1] += " " + line;
            else
                alone.Add(line);
        return alone;
    }

    /// <summary>One entry of what was pasted, and what a file says of it where it was one.</summary>
    private sealed record Entry(PastedEntry Laid, FiledReference? Filed);

    /// <summary>An entry with the works that its keys match, and those of each of its lines where it has several.</summary>
    private sealed class Matched(Entry entry, CorpusColumns columns, IReadOnlyList<string> lines)
    {
        public EntryFields? Fields => entry.Filed?.Fields;

        public (Reference Reference, ReferenceMatch Match) Whole { get; } =
            Of(columns, entry.Filed?.Reference ?? PrintedReference.Read(entry.Laid.Text));

        public IReadOnlyList<(Reference Reference, ReferenceMatch Match)> Lines { get; } =
        [.. lines.Select(l => Of(columns, PrintedReference.Read(l)))];

        private static (Reference Reference, ReferenceMatch Match) Of(CorpusColumns columns, Reference reference) =>
            (reference, columns.References.Match(reference));
    }

    /// <summary>
    /// The works that one reference may mean, for a person to choose from: the one it is matched with first, if it is with
    /// any.
    /// </summary>
    /// <param name="snapshot">What is looked in.</param>
    /// <param name="evaluator">Answers what words find there.</param>
    /// <param name="reference">The reference.</param>
    public static PastedReferenceDto Choose(CorpusSnapshot snapshot, QuestionEvaluator evaluator, Reference reference)
    {
        var columns = snapshot.Columns;
        var match = columns.References.Match(reference);
        var others = ByText(columns, evaluator, reference, byWords: true, MostChoices);
        return match.Work == 0
            ? others
            : new(
                reference.Text,
                PastedVerdict.Sure,
                [Sure(columns, match), .. others.Candidates.Where(c => c.WorkId != match.Work).Take(MostChoices - 1)]
            );
    }

    /// <summary>Looks for the works of a reference that its keys and its text alone did not find.</summary>
    private static PastedReferenceDto ByText(
        CorpusColumns columns,
        QuestionEvaluator evaluator,
        Reference reference,
        bool byWords,
        int most
    )
    {
        if (
            Identifiers.Isbn(reference.Text) is { } isbn
            && Found(evaluator, columns, $"isbn:{isbn}", "has this ISBN") is { Count: > 0 } books
        )
            return new(reference.Text, PastedVerdict.ToConfirm, books);
        if (
            TypedIdentifier.Of(reference.Text) is { Kind: IdentifierKind.Url } there
            && Found(evaluator, columns, there.Expression, "has this address") is { Count: > 0 } lying
        )
            return new(reference.Text, lying.Count == 1 ? PastedVerdict.Sure : PastedVerdict.ToConfirm, lying);
        var also = byWords ? SharingRareWords(evaluator, reference.Text) : [];
        var candidates = columns.References.Candidates(reference, also, most);
        if (candidates.Count == 0 && ByNameAndYear(columns, evaluator, reference.Text, most) is { Count: > 0 } named)
            return new(reference.Text, PastedVerdict.ToConfirm, named);
        return candidates.Where(c => columns.HasTitle(c.Work, reference.Text)).ToArray() is [var titled]
            ? new(
                reference.Text,
                PastedVerdict.Sure,
                [Dto(columns, titled.Work, 1, ["the whole title, which no other work has"])]
            )
            : new(
                reference.Text,
                candidates.Count == 0 ? PastedVerdict.NotHere : PastedVerdict.ToConfirm,
                [.. candidates.Select(c => Doubtful(columns, c))]
            );
    }

    /// <summary>The works that "Berg et al. 2019" or "Berg and Lind (2019a)" may mean, as texts name them; most cited first.</summary>
    private static List<PastedCandidateDto> ByNameAndYear(
        CorpusColumns columns,
        QuestionEvaluator evaluator,
        string text,
        int most
    )
    {
        if (NameAndYear.Of(text) is not { } cited)
            return [];
        var (first, second, year) = cited;
        var people = second is null ? $"author:\"{first}\"" : $"author:\"{first}\" AND author:\"{second}\"";
        var works = evaluator.Works($"{people} AND year:{year}").Members().ToArray();
        var by = second is null ? first : $"{first} and {second}";
        var why =
            works.Length == 1
                ? $"the only work by {by} in {year} here"
                : string.Create(CultureInfo.InvariantCulture, $"one of {works.Length:N0} works by {by} in {year} here");
        return
        [
            .. works
                .OrderByDescending(w => columns.Graph.CitedByCount(w))
                .ThenBy(w => w)
                .Take(most)
                .Select(w => Dto(columns, w, null, [why])),
        ];
    }

    private static PastedCandidateDto Sure(CorpusColumns columns, ReferenceMatch match) =>
        Dto(columns, match.Work, match.Confidence, [ReferenceList.Words(match.Evidence) ?? ""]);

    private static PastedCandidateDto Doubtful(CorpusColumns columns, ReferenceCandidate candidate) =>
        Dto(columns, candidate.Work, candidate.Likeness, [.. Differences(columns, candidate)]);

    /// <summary>What differs between a reference and a work, in a few words each.</summary>
    private static IEnumerable<string> Differences(CorpusColumns columns, ReferenceCandidate candidate)
    {
        if (candidate.TitleShare < 0.995)
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"{100 * candidate.TitleShare:0} % of the title’s words are in it"
            );
        if (candidate.YearsOff is not null and not 0)
            yield return string.Create(CultureInfo.InvariantCulture, $"its year is {columns.Year[candidate.Work]}");
        if (!candidate.HasPerson && columns.SortPerson[candidate.Work] is { } person)
            yield return $"its first author {person} is not in it";
        if (candidate.HasPage is false)
            yield return "its first page is not in it";
    }

    private static List<PastedCandidateDto> Found(
        QuestionEvaluator evaluator,
        CorpusColumns columns,
        string expression,
        string why
    ) => [.. evaluator.Works(expression).Members().Take(MostCandidates).Select(w => Dto(columns, w, null, [why]))];

    /// <summary>Records that share the rarer words of a text, the most of them first.</summary>
    private static List<int> SharingRareWords(QuestionEvaluator evaluator, string text)
    {
        var rare = Words
            .AsWritten(text)
            .Where(w => w.Length >= ShortestWord && w.Any(char.IsLetter))
            .Distinct()
            .Select(w => QueryReader.Read($"title:\"{w}\"").Root)
            .OfType<QueryNode>()
            .Select(root => evaluator.Records(root))
            .Select(records => (Records: records, Count: records.Count()))
            .Where(w => w.Count is > 0 and <= MostPostings)
            .OrderBy(w => w.Count)
            .Take(MostRareWords)
            .ToArray();
        var shared = new Dictionary<int, int>();
        foreach (var (records, count) in rare)
        foreach (var record in records)
            shared[record] = shared.GetValueOrDefault(record) + (count <= FewPostings ? 2 : 1);
        return
        [
            .. shared
                .Where(s => s.Value >= 2)
                .OrderByDescending(s => s.Value)
                .ThenBy(s => s.Key)
                .Take(MostAlike)
                .Select(s => s.Key),
        ];
    }

    private static PastedCandidateDto Dto(
        CorpusColumns columns,
        int work,
        double? likeness,
        IReadOnlyList<string> why
    ) =>
        new(
            work,
            columns.SortTitle[work] ?? "",
            columns.SortPerson[work],
            columns.Year[work] == 0 ? null : columns.Year[work],
            columns.VenueOf(work),
            likeness is { } share ? (int)Math.Round(100 * share) : null,
            why
        );
}
