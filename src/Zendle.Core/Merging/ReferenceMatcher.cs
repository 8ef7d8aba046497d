using System.Globalization;
using Zendle.Core.Records;
using Zendle.Core.Sets;
using Zendle.Core.Text;

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

    /// <summary>Title words in the printed text, with person, year or location (volume, page).</summary>
    Words,

    /// <summary>No title printed, but person, year, volume and first page, as far as the record tells them.</summary>
    Location,

    /// <summary>A person said so.</summary>
    Person,
}

/// <summary>What a reference was matched to.</summary>
/// <param name="Work">The work; 0 for none.</param>
/// <param name="Evidence">How it was found.</param>
/// <param name="Confidence">0 to 1: share of the title's words that stand in the text, less what speaks against
/// it.</param>
public readonly record struct ReferenceMatch(int Work, ReferenceEvidence Evidence, double Confidence);

/// <summary>What a record is found by: the lower halves of its keys.</summary>
/// <param name="Work">Its work; 0 for a record that is not there.</param>
/// <param name="Year">Its year; 0 when unknown.</param>
/// <param name="Naming">Keys that name the work by themselves.</param>
/// <param name="Proposing">Keys under which its words are held against a text.</param>
/// <param name="Resolved">Names of references that a person said mean it.</param>
public readonly record struct FoundBy(int Work, int Year, int[] Naming, int[] Proposing, int[] Resolved)
{
    /// <summary>
    /// The keys of which a reference that asks for one may mean another work now. What names a work does so whatever
    /// else its record says; what proposes it leads to its words, which may be others.
    /// </summary>
    public static IEnumerable<int> Differ(FoundBy before, FoundBy now)
    {
        var isSame = before.Work == now.Work && before.Year == now.Year;
        return Names(before.Naming ?? [], now.Naming ?? [])
            .Concat(Names(before.Resolved ?? [], now.Resolved ?? []))
            .Concat(before.Proposing ?? [])
            .Concat(now.Proposing ?? []);

        IEnumerable<int> Names(int[] naming, int[] named) =>
            isSame ? naming.Except(named).Concat(named.Except(naming)) : naming.Concat(named);
    }
}

/// <summary>A work that a reference may mean, and how far it agrees.</summary>
/// <param name="Work">The work.</param>
/// <param name="Likeness">How alike they are, 0–1: no probability.</param>
/// <param name="TitleShare">Share of the words of the work's title that stand in the reference, in their order.</param>
/// <param name="HasPerson">Whether the work's first person stands in it.</param>
/// <param name="YearsOff">The work's year less the year printed; null where either is not known.</param>
/// <param name="HasPage">Whether the work's first page stands in it; null where either is not known.</param>
public sealed record ReferenceCandidate(
    int Work,
    double Likeness,
    double TitleShare,
    bool HasPerson,
    int? YearsOff,
    bool? HasPage
);

/// <summary>
/// Finds the works that references mean: by identifier, by title and first person, and for printed ones by holding the
/// text against the works that its person and year, its volume and page, or its title propose. Two works that fit alike
/// are no match. Immutable; an <see cref="Editor"/> makes the next one at the cost of the records that changed.
/// </summary>
/// <remarks>
/// Reading a reference costs its length times the few works proposed. Memory: some 250 bytes a record. Thresholds were
/// set on a labelled world; see docs/measures.md.
/// </remarks>
public sealed class ReferenceMatcher
{
    private const double EnoughWords = 0.74,
        EnoughWithLocation = 0.5,
        Lead = 0.04,
        LeastAlike = 0.6,
        ForTitle = 0.6,
        ForLength = 0.2;
    private const int MostProposed = 400;

    // A record's account: work, year, offsets of first person, volume and page among the texts, whether it is a notice,
    // how many keys, how many of them name the work (the others only propose it), how many names a person gave it, the lower
    // halves of keys and names, then for each title how many words its main part has, how many it has, and their hashes.
    private const int Work = 0,
        Year = 1,
        Person = 2,
        Volume = 3,
        Page = 4,
        Notice = 5,
        KeyCount = 6,
        NamingCount = 7,
        ResolvedCount = 8,
        Head = 9;

    private readonly IdLists accounts;
    private readonly KeyIndex keys;
    private readonly TextPool texts;

    private ReferenceMatcher(IdLists accounts, KeyIndex keys, TextPool texts) =>
        (this.accounts, this.keys, this.texts) = (accounts, keys, texts);

    /// <summary>One that finds nothing.</summary>
    public static ReferenceMatcher Empty { get; } = new(IdLists.Empty, KeyIndex.Empty, new());

    /// <summary>An editor for the matcher that comes after this one.</summary>
    /// <param name="size">Record ids will be below this.</param>
    public Editor Edit(int size) => new(this, size);

    /// <summary>What a record is found by; nothing for a record that is not there.</summary>
    public FoundBy Of(int record) =>
        accounts.Of(record) is { IsEmpty: false } a
            ? new(
                a[Work],
                a[Year],
                a.Slice(Head, a[NamingCount]).ToArray(),
                a[(Head + a[NamingCount])..(Head + a[KeyCount])].ToArray(),
                a.Slice(Head + a[KeyCount], a[ResolvedCount]).ToArray()
            )
            : default;

    private ReadOnlySpan<int> KeyHalves(int record) =>
        accounts.Of(record) is { IsEmpty: false } account ? account.Slice(Head, account[KeyCount]) : [];

    private static int TitlesAt(ReadOnlySpan<int> account) => Head + account[KeyCount] + account[ResolvedCount];

    /// <summary>What the matcher is made of, for writing it down.</summary>
    public (IdLists Accounts, ulong[] Keys, int[] Records, string[] Texts) Parts =>
        keys.Arrays() is var (k, r) ? (accounts, k, r, texts.All()) : default;

    /// <summary>A matcher that was written down.</summary>
    public static ReferenceMatcher From(IdLists accounts, ulong[] keys, int[] records, string[] texts) =>
        new(accounts, KeyIndex.From(keys, records), new(texts));

    /// <summary>Makes the next matcher.</summary>
    public sealed class Editor
    {
        private readonly ReferenceMatcher from;
        private readonly IdLists.Editor accounts;
        private readonly List<ulong> keys = [];
        private readonly List<int> records = [];

        internal Editor(ReferenceMatcher from, int size) => (this.from, accounts) = (from, from.accounts.Edit(size));

        /// <summary>Puts a record in, instead of what was there under its id.</summary>
        /// <param name="record">Its id.</param>
        /// <param name="findable">What it is found by.</param>
        public void Put(int record, Findable findable)
        {
            foreach (var key in findable.Keys)
            {
                keys.Add(key);
                records.Add(record);
            }
            foreach (var name in findable.Resolved)
            {
                keys.Add(MergeKeys.Resolved(name));
                records.Add(record);
            }
            int[] account =
            [
                findable.Work,
                findable.Year,
                from.texts.Of(findable.FirstPerson),
                from.texts.Of(findable.Volume),
                from.texts.Of(findable.FirstPage),
                findable.IsNotice ? 1 : 0,
                findable.Keys.Length,
                findable.NamingCount,
                findable.Resolved.Length,
                .. findable.Halves,
                .. findable.ResolvedHalves,
                .. findable.Titles,
            ];
            accounts.Set(record, account);
        }

        /// <summary>Takes a record out.</summary>
        public void Remove(int record) => accounts.Set(record, []);

        /// <summary>The matcher. The editor is done with.</summary>
        public ReferenceMatcher Finish() => new(accounts.Finish(), from.keys.With(keys, records), from.texts);
    }

    /// <summary>Texts by number, 0 for none; only added to, and shared by all that come after.</summary>
    private sealed class TextPool
    {
        private readonly Lock gate = new();
        private readonly List<string> texts = [""];
        private readonly Dictionary<string, int> numbers = new(StringComparer.Ordinal) { [""] = 0 };

        public TextPool(IEnumerable<string>? written = null)
        {
            foreach (var text in written ?? [])
                Of(text);
        }

        public int Of(string? text)
        {
            if (string.IsNullOrEmpty(text))
                return 0;
            lock (gate)
            {
                if (numbers.TryGetValue(text, out var number))
                    return number;
                texts.Add(text);
                return numbers[text] = texts.Count - 1;
            }
        }

        public string this[int number]
        {
            get
            {
                lock (gate)
                    return texts[number];
            }
        }

        public string[] All()
        {
            lock (gate)
                return [.. texts.Skip(1)];
        }
    }

    /// <summary>The keys a reference asks for.</summary>
    public static ulong[] AskedBy(Reference reference) =>
        [.. ReferenceKeys.Of(reference).Names(reference.Text), .. Proposing(reference, new Text(reference))];

    /// <summary>The work that has a DOI; the oldest where several claim it, 0 for none.</summary>
    /// <param name="doi"><see cref="MergeKeys.Doi"/> of it.</param>
    public int WithDoi(ulong doi)
    {
        var oldest = 0;
        foreach (var record in Holding(doi))
            oldest = oldest == 0 ? accounts.Of(record)[Work] : Math.Min(oldest, accounts.Of(record)[Work]);
        return oldest;
    }

    /// <summary>The work that a person said references of a name mean; none when nobody did.</summary>
    private ReferenceMatch Resolved(ulong name)
    {
        if (name != 0)
            foreach (var record in Under(MergeKeys.Resolved(name)))
            {
                var account = accounts.Of(record);
                if (
                    !account.IsEmpty
                    && account.Slice(Head + account[KeyCount], account[ResolvedCount]).Contains((int)name)
                )
                    return new(account[Work], ReferenceEvidence.Person, 1);
            }
        return default;
    }

    /// <summary>The work a reference means by its keys alone; none when they do not tell.</summary>
    public ReferenceMatch ByKeys(ReferenceKeys asked)
    {
        var (doi, title, year) = asked;
        if (Resolved(doi) is { Work: > 0 } byDoi)
            return byDoi;
        if (Resolved(title) is { Work: > 0 } byTitle)
            return byTitle;
        if (doi != 0 && WithDoi(doi) is > 0 and var work)
            return new(work, ReferenceEvidence.Doi, 1);
        if (title == 0)
            return default;
        var works = Holding(title)
            .Select(record => (Work: accounts.Of(record)[Work], Year: accounts.Of(record)[Year]))
            .Distinct()
            .ToArray();
        if (works.Length == 0)
            return default;
        if (works.Length == 1)
            return Far(works[0].Year) ? default : new(works[0].Work, ReferenceEvidence.TitleAndPerson, 0.98);
        // A paper and the article that followed it may share title and person: the year decides, and when it does not,
        // nothing does.
        var near = works.Where(w => !Far(w.Year)).Select(w => w.Work).Distinct().Take(2).ToArray();
        if (near.Length > 1)
            near = [.. works.Where(w => year != 0 && w.Year == year).Select(w => w.Work).Distinct().Take(2)];
        return near.Length == 1 ? new(near[0], ReferenceEvidence.TitleAndPerson, 0.95) : default;

        bool Far(int theirs) => year != 0 && theirs != 0 && Math.Abs(year - theirs) > 1;
    }

    /// <summary>The records that have a key today.</summary>
    private IEnumerable<int> Holding(ulong key) => Under(key).Where(r => Holds(r, key));

    /// <summary>The records that have or had a key, each once.</summary>
    private IEnumerable<int> Under(ulong key)
    {
        var (whole, late) = keys.Find(key);
        if (whole.IsEmpty && late.IsEmpty)
            yield break;
        for (var i = 0; i < whole.Length; i++)
            yield return whole.Span[i];
        for (var i = 0; i < late.Length; i++)
        {
            var record = late.Span[i];
            if (!whole.Span.Contains(record) && !late.Span[..i].Contains(record))
                yield return record;
        }
    }

    private bool Holds(int record, ulong key) => KeyHalves(record).Contains(unchecked((int)key));

    /// <summary>The work a reference means.</summary>
    public ReferenceMatch Match(Reference reference) => Look(reference).Match;

    /// <summary>
    /// The work a reference means, and the keys it asks for (<see cref="AskedBy"/>), its text being taken apart once.
    /// </summary>
    public (ReferenceMatch Match, ulong[] Asked) Look(Reference reference)
    {
        var keys = ReferenceKeys.Of(reference);
        var text = new Text(reference);
        ulong[] proposing = [.. Proposing(reference, text)],
            names = [.. keys.Names(reference.Text)];
        var byKeys = ByKeys(keys);
        if (byKeys.Work == 0 && keys is (0, 0, _) && names is [var print])
            byKeys = Resolved(print);
        return (byKeys.Work != 0 ? byKeys : ByWords(text, proposing), [.. names, .. proposing]);
    }

    /// <summary>
    /// The works a reference may mean though none is matched, the likeliest first: for a person to choose from.
    /// </summary>
    /// <param name="reference">The reference.</param>
    /// <param name="also">Records to hold it against beside those its own keys propose, say such that share its rarer
    /// words.</param>
    /// <param name="most">How many at most.</param>
    public IReadOnlyList<ReferenceCandidate> Candidates(Reference reference, IEnumerable<int> also, int most)
    {
        var text = new Text(reference);
        var best = new Dictionary<int, (ReferenceCandidate Candidate, double Words)>();
        foreach (var record in Proposed([.. Proposing(reference, text)]).Concat(also).Distinct())
            if (
                Alike(record, text) is { } alike
                && (
                    !best.TryGetValue(alike.Candidate.Work, out var there)
                    || alike.Candidate.Likeness > there.Candidate.Likeness
                )
            )
                best[alike.Candidate.Work] = alike;
        // Of titles that begin alike the longer one has more of what is printed.
        var longest = best.Values.Select(b => b.Words).DefaultIfEmpty(1).Max();
        return
        [
            .. best
                .Values.Select(b =>
                    b.Candidate with
                    {
                        Likeness = Math.Clamp(b.Candidate.Likeness - ForLength * (1 - b.Words / longest), 0, 1),
                    }
                )
                .OrderByDescending(c => c.Likeness)
                .ThenBy(c => c.Work)
                .Take(most),
        ];
    }

    /// <summary>
    /// How alike a text and a record are, by the best of its titles, and how many of its words stand in the text; null when
    /// they share too little.
    /// </summary>
    private (ReferenceCandidate Candidate, double Words)? Alike(int record, Text text)
    {
        var account = accounts.Of(record);
        if (account.IsEmpty)
            return null;
        var (share, words, at) = (0.0, 0.0, TitlesAt(account));
        while (at < account.Length)
        {
            var title = account.Slice(at + 2, account[at + 1]);
            var its = text.Share(title);
            if (its > share)
                (share, words) = (its, its * title.Length);
            at += 2 + account[at + 1];
        }
        var person = account[Person] != 0 && text.Folded.Contains(texts[account[Person]], StringComparison.Ordinal);
        int? years = account[Year] == 0 || text.Year is null ? null : account[Year] - text.Year.Value;
        var pages = account[Page] == 0 || !text.HasLocation ? (bool?)null : text.Numbers.Contains(texts[account[Page]]);
        var likeness =
            ForTitle * share
            + ForLength
            + (person ? 0.1 : 0)
            + (
                years is 0 ? 0.06
                : years is null or 1 or -1 ? 0.03
                : -0.05
            )
            + (pages is true ? 0.04 : 0);
        return share < LeastAlike ? null : (new(account[Work], likeness, share, person, years, pages), words);
    }

    private ReferenceMatch ByWords(Text text, ulong[] proposing)
    {
        var (best, second) = (default(ReferenceMatch), 0.0);
        foreach (var record in Proposed(proposing))
        {
            var fit = Fit(record, text);
            if (fit.Work == best.Work)
            {
                if (fit.Confidence > best.Confidence)
                    best = fit;
            }
            else if (fit.Confidence > best.Confidence)
                (best, second) = (fit, best.Confidence);
            else
                second = Math.Max(second, fit.Confidence);
        }
        return best.Work != 0 && best.Confidence - second >= Lead ? best : default;
    }

    private SortedSet<int> Proposed(ulong[] proposing)
    {
        var proposed = new SortedSet<int>();
        foreach (var key in proposing)
            if (Holding(key).Take(MostProposed + 1).ToArray() is { Length: <= MostProposed } there)
                proposed.UnionWith(there);
        return proposed;
    }

    private static IEnumerable<ulong> Proposing(Reference reference, Text text)
    {
        if (reference.Year is { } year)
        {
            if (reference.FirstPerson is { } family)
                for (var y = year - 1; y <= year + 1; y++)
                    yield return MergeKeys.PersonAndYear(MergeKeys.PersonKey(family), y);
            foreach (var (volume, page) in text.NumberPairs())
                yield return MergeKeys.Location(volume, page, year);
        }
        if (reference.Title is { } title)
            yield return MergeKeys.Of("title", MergeFacts.Plain(title));
    }

    /// <summary>How well a text fits a record's work, by the best of its titles; no work when it does not.</summary>
    private ReferenceMatch Fit(int record, Text text)
    {
        var account = accounts.Of(record);
        var (best, at) = (default(ReferenceMatch), TitlesAt(account));
        while (at < account.Length)
        {
            var title = account.Slice(at + 2, account[at + 1]);
            var fit = Fit(account, account[at], title, text);
            if (fit.Confidence > best.Confidence)
                best = fit;
            at += 2 + title.Length;
        }
        return best;
    }

    private ReferenceMatch Fit(ReadOnlySpan<int> account, int mainWords, ReadOnlySpan<int> title, Text text)
    {
        var years = account[Year] == 0 || text.Year is null ? 1 : Math.Abs(account[Year] - text.Year.Value);
        if (years > 1 || (account[Notice] != 0) != text.IsNotice)
            return default;
        var person = account[Person] != 0 && text.Folded.Contains(texts[account[Person]], StringComparison.Ordinal);
        var page = account[Page] != 0 && text.Numbers.Contains(texts[account[Page]]);
        var volume = account[Volume] != 0 && text.Numbers.Contains(texts[account[Volume]]);
        var whole = text.Share(title);
        // A subtitle may be lost: then the main title must stand there whole.
        var main = mainWords >= 4 && mainWords < title.Length && text.Share(title[..mainWords]) >= 0.99 ? 0.9 : 0;
        var words = Math.Max(whole, main);
        var otherLocation = account[Page] != 0 && account[Volume] != 0 && text.HasLocation && !page && !volume;
        var extra =
            (page && volume ? 0.08 : 0)
            + (person ? 0.04 : 0)
            - years * 0.03
            - (otherLocation ? 0.2 : 0)
            - (person ? 0 : 0.08);
        if (words >= EnoughWords && title.Length >= 3 && (words + extra >= EnoughWords))
            return new(account[Work], ReferenceEvidence.Words, Math.Min(1, words + extra));
        if (words >= EnoughWithLocation && page && volume)
            return new(account[Work], ReferenceEvidence.Words, Math.Min(1, words + extra));
        // Where no title is printed, its words cannot be asked for; all else must agree, one slip in a number aside, or
        // as much of it as the record knows.
        if (!person || !volume || !text.IsShort)
            return default;
        var location =
            page ? 0.75 - years * 0.03
            : years > 0 ? 0
            : account[Page] == 0 ? 0.72
            : text.IsBeside(texts[account[Page]]) ? 0.71
            : 0;
        return location > 0 ? new(account[Work], ReferenceEvidence.Location, location) : default;
    }

    /// <summary>A reference's text, cut into what is compared.</summary>
    private sealed class Text
    {
        private readonly int[] words;

        public Text(Reference reference)
        {
            var found = Words
                .Of(
                    reference.Title is not null && !reference.Text.Contains(reference.Title, StringComparison.Ordinal)
                        ? $"{reference.Text} {reference.Title}"
                        : reference.Text
                )
                .Where(w => !w.IsClosedForm)
                .ToArray();
            words = Array.ConvertAll(found, w => MergeKeys.Word(w.Text));
            Folded = string.Concat(found.Where(w => w.Text.Any(char.IsLetter)).Select(w => w.Text));
            Numbers = [.. found.Where(w => w.Text.All(char.IsAsciiDigit)).Select(w => w.Text)];
            Year = reference.Year;
            IsNotice = found.Any(w => w.Text is "correction" or "retraction" or "erratum" or "reply" or "comment");
            HasLocation = Numbers.Count >= 3;
            // People, a venue, numbers: fewer words than a title would add.
            IsShort = found.Count(w => w.Text.Length > 3 && !char.IsDigit(w.Text[0])) <= 14;
        }

        public string Folded { get; }

        public HashSet<string> Numbers { get; }

        public int? Year { get; }

        public bool IsNotice { get; }

        public bool HasLocation { get; }

        public bool IsShort { get; }

        /// <summary>Whether a page one off stands there.</summary>
        public bool IsBeside(string page) =>
            int.TryParse(page, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            && (
                Numbers.Contains((number - 1).ToString(CultureInfo.InvariantCulture))
                || Numbers.Contains((number + 1).ToString(CultureInfo.InvariantCulture))
            );

        /// <summary>Pairs of numbers that may be volume and page.</summary>
        public IEnumerable<(string Volume, string Page)> NumberPairs()
        {
            var numbers = Numbers.Take(6).ToArray();
            for (var i = 0; i < numbers.Length; i++)
            for (var j = i + 1; j < numbers.Length; j++)
                yield return (numbers[i], numbers[j]);
        }

        /// <summary>
        /// Share of the words of a title that stand in the text in their order, 0 to 1 (longest common subsequence).
        /// </summary>
        public double Share(ReadOnlySpan<int> title)
        {
            var count = title.Length;
            if (count == 0)
                return 0;
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
