using System.Collections;
using System.Collections.Concurrent;
using Zendle.Core.Merging;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Spelling;
using Zendle.Core.Trails;
using Zendle.Core.Venues;

namespace Zendle.Index.Columns;

/// <summary>
/// What is known of every work beside its words, as plain arrays by id. Immutable; a change of the store makes new
/// columns (<see cref="Builder"/>) that replace the old ones in one stroke.
/// </summary>
public sealed partial class CorpusColumns
{
    private readonly IReadOnlyDictionary<Facet, FacetColumn> facets;
    private readonly IReadOnlyDictionary<string, IReadOnlyList<string>> perhapsSame;
    private readonly ConcurrentDictionary<int, Lazy<SpelledWords>> spelled = [];
    private YearSpan? span;
    private readonly Lazy<int[]> titleRank,
        personRank,
        venueRank;

    /// <summary>
    /// Stands for the database of a record that is in none any more: it is shown where people decided on its work, and
    /// found by no search.
    /// </summary>
    public const int NoDatabase = 0;

    /// <summary>What is said of such a record.</summary>
    public const string NoDatabaseName = "no longer in any database";

    /// <summary>All that columns hold and that does not follow from the rest.</summary>
    internal sealed record Contents
    {
        public required int[] RecordWork { get; init; }
        public required byte[] RecordDatabase { get; init; }
        public required short[] RecordYear { get; init; }
        public required byte[] RecordFields { get; init; }
        public required short[] Year { get; init; }
        public required TextColumn SortTitle { get; init; }
        public required TextColumn SortPerson { get; init; }
        public required WordColumn Words { get; init; }
        public required int[] VenueName { get; init; }
        public required int[] WorkFirstRecord { get; init; }
        public required int[] WorkVenue { get; init; }
        public required byte[] TextRank { get; init; }
        public required WorkSet OnlyCited { get; init; }
        public required IdLists RecordsOf { get; init; }
        public required IdLists CitedWorks { get; init; }
        public required IdLists Asked { get; init; }
        public required int[] ListWork { get; init; }
        public required IdLists ListsOf { get; init; }
        public required int TextSource { get; init; }
        public required IReadOnlyDictionary<int, int[]> DatabaseCited { get; init; }
        public required IReadOnlyDictionary<Facet, FacetColumn> Facets { get; init; }
        public required ReferenceMatcher References { get; init; }
        public required CitationGraph Graph { get; init; }
        public required WordColumn Printed { get; init; }
        public required IReadOnlyDictionary<string, IReadOnlyList<string>> PerhapsSame { get; init; }
        public required IReadOnlyDictionary<string, string> FormerLabels { get; init; }
        public required IReadOnlyDictionary<string, string> FormerVenues { get; init; }
        public IReadOnlyDictionary<int, IReadOnlyList<Standing>> Standings { get; init; } =
            new Dictionary<int, IReadOnlyList<Standing>>();
    }

    /// <summary>Columns of some contents.</summary>
    /// <param name="contents">All they hold.</param>
    /// <param name="before">The columns they were made from; null for none.</param>
    /// <param name="changed">The works that came, changed or went since.</param>
    internal CorpusColumns(Contents contents, CorpusColumns? before, IReadOnlyCollection<int> changed)
        : this(
            contents,
            Ranks(contents.SortTitle, before?.titleRank, changed),
            Ranks(contents.SortPerson, before?.personRank, changed)
        ) { }

    /// <summary>Columns of some contents, whose ranks by title and person are known.</summary>
    internal CorpusColumns(Contents contents, int[] titleRank, int[] personRank)
        : this(contents, new Lazy<int[]>(titleRank), new Lazy<int[]>(personRank)) { }

    private CorpusColumns(Contents contents, Lazy<int[]> titleRank, Lazy<int[]> personRank)
    {
        (All, facets, perhapsSame) = (contents, contents.Facets, contents.PerhapsSame);
        (this.titleRank, this.personRank) = (titleRank, personRank);
        var databases = new bool[256];
        Withdrawn = new(WorkSize);
        for (var r = 0; r < RecordSize; r++)
        {
            if (RecordWork[r] == 0)
                continue;
            if (RecordDatabase[r] == NoDatabase)
                Withdrawn.Add(RecordWork[r]);
            else
                Records++;
            databases[RecordDatabase[r]] = true;
        }
        foreach (var work in Withdrawn.Members().ToArray())
            if (IsInDatabase(work))
                Withdrawn.Remove(work);
        Databases = [.. Enumerable.Range(1, databases.Length - 1).Where(d => databases[d])];
        Works = WorkFirstRecord.Count(r => r > 0) - Withdrawn.Count();
        venueRank = new(() =>
        {
            var names = contents.Facets[Facet.Venue].Names;
            var ranks = TextRanks.Of(name => names[name], names.Count);
            return Array.ConvertAll(contents.VenueName, name => name < 0 ? int.MaxValue : ranks[name]);
        });
    }

    private CorpusColumns(CorpusColumns of, Contents contents)
    {
        (All, facets, perhapsSame) = (contents, contents.Facets, contents.PerhapsSame);
        (Records, Databases, Works, Withdrawn) = (of.Records, of.Databases, of.Works, of.Withdrawn);
        spelled = of.spelled;
        (titleRank, personRank, venueRank) = (of.titleRank, of.personRank, of.venueRank);
    }

    /// <summary>Whether a number is that of a work today: it was given, and its work was not merged into another.</summary>
    public bool IsWork(int id) => id > 0 && id < WorkSize && WorkFirstRecord[id] > 0;

    private bool IsInDatabase(int work)
    {
        foreach (var record in RecordsOf(work))
            if (RecordDatabase[record] != NoDatabase)
                return true;
        return false;
    }

    /// <summary>
    /// Ranks that follow from those before, when somebody asked for those; whoever waits for these must not hold the
    /// columns before.
    /// </summary>
    private static Lazy<int[]> Ranks(TextColumn texts, Lazy<int[]>? before, IReadOnlyCollection<int> changed)
    {
        var known = before is { IsValueCreated: true } ? before.Value : null;
        return new(() =>
            known is null
                ? TextRanks.Of(id => texts[id], texts.Size)
                : TextRanks.After(known, changed, id => texts[id], texts.Size)
        );
    }

    internal Contents All { get; }

    /// <summary>Record ids are below this.</summary>
    public int RecordSize => RecordWork.Length;

    /// <summary>Work ids are below this.</summary>
    public int WorkSize => WorkFirstRecord.Length;

    /// <summary>How many records there are in databases.</summary>
    public int Records { get; }

    /// <summary>How many works they describe.</summary>
    public int Works { get; }

    /// <summary>
    /// Works that are in no database any more and stay because people decided on them. Not to be changed.
    /// </summary>
    public WorkSet Withdrawn { get; }

    /// <summary>Work of each record; 0 for a record that is not there.</summary>
    public int[] RecordWork => All.RecordWork;

    /// <summary>Database of each record; <see cref="NoDatabase"/> for one that is in none any more.</summary>
    public byte[] RecordDatabase => All.RecordDatabase;

    /// <summary>Year of each record; 0 for none.</summary>
    public short[] RecordYear => All.RecordYear;

    /// <summary>What kind of document a record describes, and which fields it has.</summary>
    public RecordFields FieldsOf(int record) => new(All.RecordFields[record]);

    /// <summary>Ids of the databases that hold records, ascending.</summary>
    public IReadOnlyList<int> Databases { get; }

    /// <summary>Year each work shows; 0 for none.</summary>
    public short[] Year => All.Year;

    /// <summary>
    /// The years from one before which one work in two hundred lies to the last: one scale of time for all works. Worked out
    /// when it is first asked for; O(works).
    /// </summary>
    public YearSpan Span => span ??= YearSpan.Of(Year);

    /// <summary>Oldest record of each work; 0 for a work that is not there.</summary>
    public int[] WorkFirstRecord => All.WorkFirstRecord;

    /// <summary>Who cites whom.</summary>
    public CitationGraph Graph => All.Graph;

    /// <summary>
    /// Each database's own citation count by work, for the databases that count; −1 where it has none.
    /// </summary>
    public IReadOnlyDictionary<int, int[]> DatabaseCited => All.DatabaseCited;

    /// <summary>Title of each work for sorting.</summary>
    public TextColumn SortTitle => All.SortTitle;

    /// <summary>
    /// Whether a text is the title of a work and nothing more; case, accents and punctuation aside.
    /// </summary>
    public bool HasTitle(int work, string text) =>
        SortTitle[work] is { Length: > 0 } title
        && Core.Text.Words.AsWritten(title).SequenceEqual(Core.Text.Words.AsWritten(text));

    /// <summary>First family name of each work for sorting.</summary>
    public TextColumn SortPerson => All.SortPerson;

    /// <summary>The running words of each work.</summary>
    public WordColumn Words => All.Words;

    /// <summary>
    /// The words among which those near a misspelt one are looked for: of what works are about, or of the names of a
    /// field. Put in order when they are first asked for. O(n log n) over words.
    /// </summary>
    /// <param name="facet">The field; null for the running words.</param>
    public SpelledWords Spelled(Facet? facet) =>
        spelled
            .GetOrAdd(
                facet is { } of ? (int)of : -1,
                _ => new Lazy<SpelledWords>(() => facet is { } of ? Of(of).SpelledWords() : Words.SpelledWords())
            )
            .Value;

    /// <summary>Place of each work by title; worked out when it is first asked for.</summary>
    public int[] TitleRank => titleRank.Value;

    /// <summary>Place of each work by first family name.</summary>
    public int[] PersonRank => personRank.Value;

    /// <summary>Place of each work by venue.</summary>
    public int[] VenueRank => venueRank.Value;

    /// <summary>
    /// Works out the ranks of works by title, person and venue, so that whoever sorts first need not wait. O(n log n).
    /// </summary>
    public void WorkOutRanks() => _ = (TitleRank.Length, PersonRank.Length, VenueRank.Length);

    /// <summary>The values of a field; throws for stage and tag, which belong to a review.</summary>
    public FacetColumn Of(Facet facet) => facets[facet];

    /// <summary>The records of a work, ascending.</summary>
    public ReadOnlySpan<int> RecordsOf(int work) => All.RecordsOf.Of(work);

    /// <summary>Finds the works that references mean.</summary>
    public ReferenceMatcher References => All.References;

    /// <summary>
    /// The work that a reference means, as the citation graph has it; why is told by its text. A record that came after
    /// these columns is held against their works.
    /// </summary>
    public ReferenceMatch Means(ListedReference listed)
    {
        var citedWorks = listed.Record < RecordSize ? All.CitedWorks.Of(listed.Record) : [];
        if (listed.Ordinal >= citedWorks.Length)
            return listed.Record < RecordSize && RecordDatabase[listed.Record] == NoDatabase
                ? default
                : References.Match(listed.Reference);
        var match = References.Match(listed.Reference);
        return citedWorks[listed.Ordinal] == match.Work ? match
            : citedWorks[listed.Ordinal] == 0 ? default
            : new(citedWorks[listed.Ordinal], ReferenceEvidence.TitleAndPerson, 0.9);
    }

    /// <summary>
    /// The people that the references of a record print which match no work, by record: see
    /// <see cref="Core.Entries.PrintedPeople"/>.
    /// </summary>
    public WordColumn Printed => All.Printed;

    /// <summary>
    /// The work that the list of a number speaks of: a record's, or that of a list no record has, as far as it counts; 0
    /// for none.
    /// </summary>
    public int ListerOf(int number) =>
        RecordWork[number] is > 0 and var work ? work
        : All.ListWork[number] is > 0 and var of && Counts(All, number, of) ? of
        : 0;

    /// <summary>The work that a list no record has is of, whether it counts or not; 0 for none.</summary>
    public int HomeOf(int list) => list < RecordSize ? Math.Max(All.ListWork[list], 0) : 0;

    /// <summary>The lists that no record has and that count for a work.</summary>
    public IEnumerable<int> AddedListsOf(int work)
    {
        foreach (var list in All.ListsOf.Of(work).ToArray())
            if (Counts(All, list, work))
                yield return list;
    }

    /// <summary>Whether what a work cites was read out of its text, since none of its records says it.</summary>
    public bool CitesByItsText(int work)
    {
        foreach (var list in All.ListsOf.Of(work))
            if (RecordDatabase[list] == All.TextSource && Counts(All, list, work))
                return true;
        return false;
    }

    private static bool Counts(Contents all, int list, int work) =>
        Counts(all.RecordDatabase[list] == all.TextSource, all.RecordsOf.Of(work), all.CitedWorks);

    /// <summary>
    /// Whether a list that no record has counts: one out of a text only where no record of its work has references.
    /// </summary>
    private static bool Counts(bool isOfText, ReadOnlySpan<int> records, IdLists citedWorks)
    {
        if (records.IsEmpty)
            return false;
        if (isOfText)
            foreach (var record in records)
                if (citedWorks.Of(record).Length > 0)
                    return false;
        return true;
    }

    /// <summary>Works that are known from reference lists only.</summary>
    public WorkSet OnlyCited => All.OnlyCited;

    /// <summary>Where the venues stand in their subject categories, by venue number.</summary>
    public IReadOnlyDictionary<int, IReadOnlyList<Standing>> Standings => All.Standings;

    /// <summary>Number of the venue of each work; −1 for none.</summary>
    public int[] WorkVenue => All.WorkVenue;

    /// <summary>The year of a work; null when unknown.</summary>
    public int? YearOf(int work) => Year[work] is > 0 and var year ? year : null;

    /// <summary>The name under which the venue of a work is shown; null for none.</summary>
    public string? VenueOf(int work) =>
        All.VenueName[work] is >= 0 and var name ? All.Facets[Facet.Venue].Names[name] : null;

    /// <summary>
    /// Labels of the people who may be the same as one: what speaks for it lies just below what would join them.
    /// </summary>
    public IReadOnlyList<string> PerhapsSame(string person) => perhapsSame.GetValueOrDefault(person) ?? [];

    /// <summary>
    /// The label under which a value of a field is shown today: a person may be known by a fuller name since, a venue be
    /// spelled otherwise by most; the label itself where nothing is known of another.
    /// </summary>
    public string Today(Facet facet, string label) =>
        facet switch
        {
            Facet.Person => All.FormerLabels.GetValueOrDefault(label, label),
            Facet.Venue => All.FormerVenues.GetValueOrDefault(label, label),
            _ => label,
        };

    /// <summary>The same columns with where the venues stand.</summary>
    /// <param name="standings">By venue number.</param>
    public CorpusColumns WithStandings(IReadOnlyDictionary<int, IReadOnlyList<Standing>> standings)
    {
        var best = new int[WorkVenue.DefaultIfEmpty(-1).Max() + 1];
        Array.Fill(best, -1);
        foreach (var (venue, of) in standings)
            best[venue] = Standing.Best(of);
        var quartiles = new int[WorkSize];
        for (var work = 0; work < WorkSize; work++)
            quartiles[work] = WorkFirstRecord[work] > 0 && WorkVenue[work] is >= 0 and var venue ? best[venue] : -1;
        return new(
            this,
            All with
            {
                Standings = standings,
                Facets = new Dictionary<Facet, FacetColumn>(facets)
                {
                    [Facet.Quartile] = FacetColumn.OfOnes(Standing.Words, quartiles),
                },
            }
        );
    }

    /// <summary>
    /// The records that refer to something by one of some keys, whether they match a work today or not.
    /// O(references). A few too many may be told, none too few.
    /// </summary>
    /// <param name="halves">The lower halves of the keys.</param>
    public IReadOnlyList<int> RecordsWithKeys(IReadOnlySet<int> halves)
    {
        if (halves.Count == 0)
            return [];
        // Most keys of most references are none of them: a table of bits says so without a look into the set.
        var perhaps = new BitArray(1 << 20);
        foreach (var half in halves)
            perhaps[half & ((1 << 20) - 1)] = true;
        var found = new List<int>();
        for (var record = 0; record < All.Asked.Size; record++)
            foreach (var half in All.Asked.Of(record))
                if (perhaps[half & ((1 << 20) - 1)] && halves.Contains(half))
                {
                    found.Add(record);
                    break;
                }
        return found;
    }
}
