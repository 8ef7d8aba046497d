using System.Globalization;
using System.Runtime.InteropServices;
using Zendle.Core.Queries;
using Zendle.Core.Records;

namespace Zendle.Core.Merging;

/// <summary>How a reference found its work.</summary>
public enum ReferenceEvidence
{
    /// <summary>It found none.</summary>
    None,
    /// <summary>The same DOI.</summary>
    Doi,
    /// <summary>The same title and first person, years at most one apart.</summary>
    TitleAndPerson,
    /// <summary>Title words in the printed text, with person, year or place.</summary>
    Words,
    /// <summary>No title printed, but person, year, volume and first page.</summary>
    Place,
}

/// <summary>What a reference was matched to.</summary>
/// <param name="Work">The work; 0 for none.</param>
/// <param name="Evidence">How it was found.</param>
/// <param name="Confidence">0 to 1: share of the title's words that stand in the text, less what speaks against it.</param>
public readonly record struct ReferenceMatch(int Work, ReferenceEvidence Evidence, double Confidence);

/// <summary>
/// Finds the works that references mean: by identifier, by title and first person, and for printed ones by holding the text against the works that its person
/// and year, its volume and page, or its title propose. Two works that fit alike are no match.
/// </summary>
/// <remarks>Reading a reference costs its length times the few works proposed. Thresholds were set on a labelled world; see docs/measures.md.</remarks>
public sealed class ReferenceMatcher
{
    private const double EnoughWords = 0.74, EnoughWithPlace = 0.5, Lead = 0.04;

    private readonly Dictionary<ulong, int> byDoi = [];
    private readonly Dictionary<ulong, (int Work, short Year)> byTitle = [];
    private readonly Dictionary<ulong, List<(int Work, short Year)>> sharedTitles = [];
    private readonly Dictionary<ulong, List<int>> byWords = [];
    private readonly List<Described> described = [];

    /// <summary>One record's account of a work, as far as references tell of it.</summary>
    private sealed record Described(int Work, int[] Title, int MainWords, string FirstPerson, int? Year, string? Volume, string? Page, bool IsNotice);

    /// <summary>Adds the keys of a record, by which most references find it.</summary>
    /// <param name="work">The work.</param>
    /// <param name="doi"><see cref="MergeKeys.Doi"/> of the record; 0 for none.</param>
    /// <param name="title"><see cref="MergeKeys.TitleAndPerson"/> of it; 0 for none.</param>
    /// <param name="year">Its year; 0 when unknown.</param>
    public void AddKeys(int work, ulong doi, ulong title, int year)
    {
        if (doi != 0) byDoi.TryAdd(doi, work);
        if (title == 0 || byTitle.TryAdd(title, (work, (short)year))) return;
        if (!sharedTitles.TryGetValue(title, out var works)) sharedTitles[title] = works = [byTitle[title]];
        if (!works.Contains((work, (short)year))) works.Add((work, (short)year));
    }

    /// <summary>Adds what a record says in words, for references that no key leads home.</summary>
    /// <param name="work">The work.</param>
    /// <param name="facts">What merging knows of the record.</param>
    public void AddWords(int work, MergeFacts facts)
    {
        var first = FirstPerson(facts);
        foreach (var title in facts.Titles)
        {
            var main = title == facts.Titles[0] ? facts.MainTitle.Count(c => c == ' ') + 1 : int.MaxValue;
            if (title != facts.Titles[0]) AddKeys(work, 0, MergeKeys.TitleAndPerson(title, first), facts.Year ?? 0);
            foreach (var key in WordKeys(facts, title)) Put(byWords, key, described.Count);
            described.Add(new(work, Hashes(title.Split(' ')), main, first, facts.Year, facts.Volume, facts.FirstPage, facts.Notice.Length > 0));
        }
    }

    private static string FirstPerson(MergeFacts facts) => facts.Families.Length > 0 ? facts.Families[0] : "";

    /// <summary>The keys under which a record's account with one of its titles is proposed.</summary>
    private static IEnumerable<ulong> WordKeys(MergeFacts facts, string title)
    {
        if (FirstPerson(facts) is { Length: > 0 } first && facts.Year is { } year) yield return MergeKeys.PersonAndYear(first, year);
        if (Place(facts) is not 0 and var place) yield return place;
        if (title.Count(c => c == ' ') >= 4) yield return MergeKeys.Of("title", title);
    }

    /// <summary>
    /// The keys under which a record can be found by a reference. As long as no record comes, changes or goes that has one of the keys a reference asks for
    /// (<see cref="AskedBy"/>), the reference means what it meant.
    /// </summary>
    /// <param name="facts">What merging knows of the record.</param>
    /// <param name="doi"><see cref="MergeKeys.Doi"/> of it; 0 for none.</param>
    /// <param name="title"><see cref="MergeKeys.TitleAndPerson"/> of it; 0 for none.</param>
    public static IEnumerable<ulong> KeysOf(MergeFacts facts, ulong doi, ulong title) =>
        new[] { doi, title }.Concat(facts.Titles.Skip(1).Select(t => MergeKeys.TitleAndPerson(t, FirstPerson(facts)))).Concat(facts.Titles.SelectMany(t => WordKeys(facts, t))).Where(k => k != 0);

    /// <summary>The keys a reference asks for.</summary>
    public static ulong[] AskedBy(Reference reference) =>
        [.. new[] { MergeKeys.Doi(reference.Doi), MergeKeys.TitleAndPerson(reference.Title, reference.FirstPerson) }.Where(k => k != 0).Concat(Proposing(reference, new Text(reference)))];

    /// <summary>The work that has a DOI; 0 for none.</summary>
    /// <param name="doi"><see cref="MergeKeys.Doi"/> of it.</param>
    public int WithDoi(ulong doi) => byDoi.GetValueOrDefault(doi);

    /// <summary>The work a reference means by its keys alone; none when they do not tell.</summary>
    /// <param name="doi"><see cref="MergeKeys.Doi"/> of it; 0 for none.</param>
    /// <param name="title"><see cref="MergeKeys.TitleAndPerson"/> of it; 0 for none.</param>
    /// <param name="year">Its year; null when unknown.</param>
    public ReferenceMatch ByKeys(ulong doi, ulong title, int? year)
    {
        if (doi != 0 && byDoi.TryGetValue(doi, out var work)) return new(work, ReferenceEvidence.Doi, 1);
        if (title == 0 || !byTitle.TryGetValue(title, out var one)) return default;
        if (!sharedTitles.TryGetValue(title, out var works)) return Far(one.Year) ? default : new(one.Work, ReferenceEvidence.TitleAndPerson, 0.98);
        // A paper and the article that followed it may share title and person: the year decides, and when it does not, nothing does.
        var near = works.Where(w => !Far(w.Year)).Select(w => w.Work).Distinct().Take(2).ToArray();
        if (near.Length > 1) near = [.. works.Where(w => year is not null && w.Year == year).Select(w => w.Work).Distinct().Take(2)];
        return near.Length == 1 ? new(near[0], ReferenceEvidence.TitleAndPerson, 0.95) : default;

        bool Far(int theirs) => year is not null && theirs != 0 && Math.Abs(year.Value - theirs) > 1;
    }

    /// <summary>The work a reference means.</summary>
    public ReferenceMatch Match(Reference reference)
    {
        var byKeys = ByKeys(MergeKeys.Doi(reference.Doi), MergeKeys.TitleAndPerson(reference.Title, reference.FirstPerson), reference.Year);
        return byKeys.Work != 0 ? byKeys : ByWords(reference);
    }

    private ReferenceMatch ByWords(Reference reference)
    {
        var text = new Text(reference);
        var (best, second) = (default(ReferenceMatch), 0.0);
        foreach (var at in Proposed(reference, text))
        {
            var fit = Fit(described[at], text);
            if (fit.Work == best.Work)
            {
                if (fit.Confidence > best.Confidence) best = fit;
            }
            else if (fit.Confidence > best.Confidence) (best, second) = (fit, best.Confidence);
            else second = Math.Max(second, fit.Confidence);
        }
        return best.Work != 0 && best.Confidence - second >= Lead ? best : default;
    }

    private HashSet<int> Proposed(Reference reference, Text text)
    {
        var proposed = new HashSet<int>();
        foreach (var key in Proposing(reference, text))
            if (byWords.TryGetValue(key, out var there) && there.Count <= 400) proposed.UnionWith(there);
        return proposed;
    }

    private static IEnumerable<ulong> Proposing(Reference reference, Text text)
    {
        if (reference.Year is { } year)
        {
            if (reference.FirstPerson is { } family) for (var y = year - 1; y <= year + 1; y++) yield return MergeKeys.PersonAndYear(MergeKeys.PersonKey(family), y);
            foreach (var (volume, page) in text.NumberPairs()) yield return Place(volume, page, year);
        }
        if (reference.Title is { } title) yield return MergeKeys.Of("title", MergeFacts.Plain(title));
    }

    private static ulong Place(MergeFacts facts) => facts.Volume is { } volume && facts.FirstPage is { } page && facts.Year is { } year ? Place(volume, page, year) : 0;

    private static ulong Place(string volume, string page, int year) => MergeKeys.Of("vpy", string.Create(CultureInfo.InvariantCulture, $"{volume}\u0001{page}\u0001{year}"));

    /// <summary>How well a text fits a work; no work when it does not.</summary>
    private static ReferenceMatch Fit(Described work, Text text)
    {
        var years = work.Year is null || text.Year is null ? 1 : Math.Abs(work.Year.Value - text.Year.Value);
        if (years > 1 || work.IsNotice != text.IsNotice) return default;
        var person = work.FirstPerson.Length > 0 && text.Folded.Contains(work.FirstPerson, StringComparison.Ordinal);
        var page = work.Page is not null && text.Numbers.Contains(work.Page);
        var volume = work.Volume is not null && text.Numbers.Contains(work.Volume);
        var whole = text.Share(work.Title, work.Title.Length);
        // A subtitle may be lost: then the main title must stand there whole.
        var main = work.MainWords >= 4 && work.MainWords < work.Title.Length && text.Share(work.Title, work.MainWords) >= 0.99 ? 0.9 : 0;
        var words = Math.Max(whole, main);
        var otherPlace = work.Page is not null && work.Volume is not null && text.HasPlace && !page && !volume;
        var extra = (page && volume ? 0.08 : 0) + (person ? 0.04 : 0) - years * 0.03 - (otherPlace ? 0.2 : 0) - (person ? 0 : 0.08);
        if (words >= EnoughWords && work.Title.Length >= 3 && (words + extra >= EnoughWords)) return new(work.Work, ReferenceEvidence.Words, Math.Min(1, words + extra));
        if (words >= EnoughWithPlace && page && volume) return new(work.Work, ReferenceEvidence.Words, Math.Min(1, words + extra));
        // Where no title is printed, its words cannot be asked for; all else must agree.
        return person && page && volume && years == 0 && text.IsShort ? new(work.Work, ReferenceEvidence.Place, 0.75) : default;
    }

    private static void Put(Dictionary<ulong, List<int>> index, ulong key, int at)
    {
        ref var list = ref CollectionsMarshal.GetValueRefOrAddDefault(index, key, out _);
        (list ??= []).Add(at);
    }

    private static int[] Hashes(string[] words) => Array.ConvertAll(words, Hash);

    /// <summary>A hash that is the same in every process, so that a chance collision is too.</summary>
    private static int Hash(string word) => unchecked((int)MergeKeys.Of("word", word));

    /// <summary>A reference's text, cut into what is compared.</summary>
    private sealed class Text
    {
        private readonly int[] words;

        public Text(Reference reference)
        {
            var found = Words.Of(reference.Title is not null && !reference.Text.Contains(reference.Title, StringComparison.Ordinal) ? $"{reference.Text} {reference.Title}" : reference.Text).Where(w => !w.IsClosedForm).ToArray();
            words = Array.ConvertAll(found, w => Hash(w.Text));
            Folded = string.Concat(found.Where(w => w.Text.Any(char.IsLetter)).Select(w => w.Text));
            Numbers = [.. found.Where(w => w.Text.All(char.IsAsciiDigit)).Select(w => w.Text)];
            Year = reference.Year;
            IsNotice = found.Any(w => w.Text is "correction" or "retraction" or "erratum" or "reply" or "comment");
            HasPlace = Numbers.Count >= 3;
            // People, a venue, numbers: fewer words than a title would add.
            IsShort = found.Count(w => w.Text.Length > 3 && !char.IsDigit(w.Text[0])) <= 14;
        }

        public string Folded { get; }

        public HashSet<string> Numbers { get; }

        public int? Year { get; }

        public bool IsNotice { get; }

        public bool HasPlace { get; }

        public bool IsShort { get; }

        /// <summary>Pairs of numbers that may be volume and page.</summary>
        public IEnumerable<(string Volume, string Page)> NumberPairs()
        {
            var numbers = Numbers.Take(6).ToArray();
            for (var i = 0; i < numbers.Length; i++)
                for (var j = i + 1; j < numbers.Length; j++)
                    yield return (numbers[i], numbers[j]);
        }

        /// <summary>Share of the first <paramref name="count"/> words of a title that stand in the text in their order, 0 to 1 (longest common subsequence).</summary>
        public double Share(int[] title, int count)
        {
            if (count == 0) return 0;
            var row = new int[count + 1];
            foreach (var word in words)
            {
                var corner = 0;
                for (var j = 1; j <= count; j++)
                {
                    var above = row[j];
                    row[j] = title[j - 1] == word ? corner + 1 : Math.Max(above, row[j - 1]);
                    corner = above;
                }
            }
            return (double)row[count] / count;
        }
    }
}
