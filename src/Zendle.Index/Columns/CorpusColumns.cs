using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Core.Venues;

namespace Zendle.Index.Columns;

/// <summary>
/// What is known of every work beside its words, as plain arrays by id. Immutable; a change of the store builds new columns that take
/// the place of the old ones in one stroke.
/// </summary>
public sealed class CorpusColumns
{
    private readonly Dictionary<Facet, FacetColumn> facets;
    private readonly Dictionary<string, Person> doubtful;
    private readonly Lazy<int[]> titleRank, personRank, venueRank;

    private CorpusColumns(Builder b)
    {
        RecordSize = b.RecordSize;
        WorkSize = b.WorkSize;
        Records = b.Records;
        RecordWork = b.RecordWork;
        RecordDatabase = b.RecordDatabase;
        RecordYear = b.RecordYear;
        Databases = [.. b.Databases.Order()];
        Year = b.Year;
        SortTitle = b.SortTitle;
        SortPerson = b.SortPerson;
        SortVenue = b.SortVenue;
        WorkFirstRecord = b.WorkFirstRecord;
        Works = b.WorkFirstRecord.Count(r => r > 0);
        facets = b.BuildFacets();
        References = b.Matcher;
        OnlyCited = b.OnlyCited;
        Standings = b.Standings;
        WorkVenue = b.WorkVenue;
        People = b.People;
        doubtful = b.People.Where(p => p.Doubtful.Count > 0).ToDictionary(p => p.Label, StringComparer.OrdinalIgnoreCase);
        Graph = b.BuildGraph();
        DatabaseCited = b.DatabaseCited;
        titleRank = new(() => TextRanks.Of(SortTitle));
        personRank = new(() => TextRanks.Of(SortPerson));
        venueRank = new(() => TextRanks.Of(SortVenue));
    }

    /// <summary>Record ids are below this.</summary>
    public int RecordSize { get; }
    /// <summary>Work ids are below this.</summary>
    public int WorkSize { get; }
    /// <summary>How many records there are.</summary>
    public int Records { get; }
    /// <summary>How many works there are.</summary>
    public int Works { get; }
    /// <summary>Work of each record; 0 for a record that is not there.</summary>
    public int[] RecordWork { get; }
    /// <summary>Database of each record.</summary>
    public byte[] RecordDatabase { get; }
    /// <summary>Year of each record; 0 for none.</summary>
    public short[] RecordYear { get; }
    /// <summary>Ids of the databases that hold records, ascending.</summary>
    public IReadOnlyList<int> Databases { get; }
    /// <summary>Year each work shows; 0 for none.</summary>
    public short[] Year { get; }
    /// <summary>Oldest record of each work; 0 for a work that is not there.</summary>
    public int[] WorkFirstRecord { get; }
    /// <summary>Who cites whom.</summary>
    public CitationGraph Graph { get; }
    /// <summary>Each database's own citation count by work, for the databases that count; −1 where it has none.</summary>
    public IReadOnlyDictionary<int, int[]> DatabaseCited { get; }
    /// <summary>Title of each work for sorting.</summary>
    public string?[] SortTitle { get; }
    /// <summary>First family name of each work for sorting.</summary>
    public string?[] SortPerson { get; }
    /// <summary>Venue of each work for sorting.</summary>
    public string?[] SortVenue { get; }
    /// <summary>Place of each work by title; worked out when it is first asked for.</summary>
    public int[] TitleRank => titleRank.Value;
    /// <summary>Place of each work by first family name.</summary>
    public int[] PersonRank => personRank.Value;
    /// <summary>Place of each work by venue.</summary>
    public int[] VenueRank => venueRank.Value;

    /// <summary>The values of a field; throws for stage and tag, which belong to a review.</summary>
    public FacetColumn Of(Facet facet) => facets[facet];

    /// <summary>Finds the works that references mean.</summary>
    public ReferenceMatcher References { get; }

    /// <summary>Works that are known from reference lists only.</summary>
    public BitSet OnlyCited { get; }

    /// <summary>Where the venues stand in their subject categories, by venue number.</summary>
    public IReadOnlyDictionary<int, IReadOnlyList<Standing>> Standings { get; }

    /// <summary>Number of the venue of each work; −1 for none.</summary>
    public int[] WorkVenue { get; }

    /// <summary>The people told apart, by number; empty when they were not.</summary>
    public IReadOnlyList<Person> People { get; }

    /// <summary>Labels of the people who may be the same as one: what speaks for it lies just below what would join them.</summary>
    public IReadOnlyList<string> PerhapsSame(string person) => doubtful.TryGetValue(person, out var one) ? [.. one.Doubtful.Select(n => People[n].Label)] : [];

    /// <summary>Collects rows and builds the columns. Rows may come in any order; each record once.</summary>
    public sealed class Builder
    {
        private readonly int[] yearTrust, titleTrust;
        private readonly Dictionary<Facet, FacetBuilder> facets;
        private readonly List<(int Work, byte Database, int Cited)> ties = [];
        private readonly List<(int Record, int Work, byte Database, int Place, ulong Doi, ulong Title)> references = [];
        private readonly int[] textRank;
        private readonly bool[] described;
        private readonly FacetBuilder printedVenues = new(), printedPeople = new();
        private CitationGraph? graph;
        private bool hasVenues, hasPeople;

        /// <summary>Starts columns for record and work ids below the given sizes.</summary>
        public Builder(int recordSize, int workSize, IReadOnlyDictionary<int, string> databaseNames)
        {
            RecordSize = recordSize;
            WorkSize = workSize;
            RecordWork = new int[recordSize];
            RecordDatabase = new byte[recordSize];
            RecordYear = new short[recordSize];
            Year = new short[workSize];
            SortTitle = new string?[workSize];
            SortPerson = new string?[workSize];
            SortVenue = new string?[workSize];
            WorkFirstRecord = new int[workSize];
            yearTrust = NewRanks(workSize);
            titleTrust = NewRanks(workSize);
            textRank = new int[workSize];
            described = new bool[workSize];
            OnlyCited = new(workSize);
            WorkVenue = new int[workSize];
            Array.Fill(WorkVenue, -1);
            Array.Fill(textRank, TextAtHand.Words.Count - 1);
            DatabaseNames = databaseNames;
            facets = new[] { Facet.Year, Facet.Type, Facet.Language, Facet.Venue, Facet.Subject, Facet.Person, Facet.Database, Facet.Affiliation, Facet.Country, Facet.Funder, Facet.Keyword }.ToDictionary(f => f, _ => new FacetBuilder());
        }

        internal int RecordSize { get; }
        internal int WorkSize { get; }
        internal int Records { get; private set; }
        internal int[] RecordWork { get; }
        internal byte[] RecordDatabase { get; }
        internal short[] RecordYear { get; }
        internal short[] Year { get; }
        internal string?[] SortTitle { get; }
        internal string?[] SortPerson { get; }
        internal string?[] SortVenue { get; }
        internal int[] WorkFirstRecord { get; }
        internal HashSet<int> Databases { get; } = [];
        /// <summary>Finds the works that references mean; filled with keys by <see cref="Add"/>, with words by whoever has them.</summary>
        public ReferenceMatcher Matcher { get; } = new();
        internal BitSet OnlyCited { get; }
        internal int[] WorkVenue { get; }
        internal IReadOnlyList<Person> People { get; private set; } = [];
        internal IReadOnlyDictionary<int, IReadOnlyList<Standing>> Standings { get; private set; } = new Dictionary<int, IReadOnlyList<Standing>>();
        internal Dictionary<int, int[]> DatabaseCited { get; } = [];
        private IReadOnlyDictionary<int, string> DatabaseNames { get; }

        /// <summary>Adds one record.</summary>
        public void Add(ColumnRow row)
        {
            Records++;
            var work = row.WorkId;
            RecordWork[row.RecordId] = work;
            RecordDatabase[row.RecordId] = (byte)row.DatabaseId;
            RecordYear[row.RecordId] = (short)(row.Year ?? 0);
            Databases.Add(row.DatabaseId);
            if (WorkFirstRecord[work] == 0 || row.RecordId < WorkFirstRecord[work]) WorkFirstRecord[work] = row.RecordId;
            // The same order as in ChosenFields: preprints speak last, then by trust, then by age.
            var trust = (row.Type == DocumentType.Preprint ? 1 << 30 : 0) + (row.Trust << 24) + Math.Min(row.RecordId, (1 << 24) - 1);
            if (row.Year is { } year && trust < yearTrust[work]) (yearTrust[work], Year[work]) = (trust, (short)year);
            if (trust < titleTrust[work]) (titleTrust[work], SortTitle[work], SortPerson[work], SortVenue[work]) = (trust, row.Title, row.FirstPerson, row.Venue);
            if (row.Year is { } y) facets[Facet.Year].Add(work, y.ToString(System.Globalization.CultureInfo.InvariantCulture));
            facets[Facet.Type].Add(work, DocumentTypes.Name(row.Type));
            if (row.Language is { } language) facets[Facet.Language].Add(work, Languages.Name(language));
            foreach (var subject in row.Subjects) facets[Facet.Subject].Add(work, subject);
            if (row.Around is { } around)
            {
                foreach (var affiliation in around.Affiliations) facets[Facet.Affiliation].Add(work, affiliation);
                foreach (var country in around.Countries) facets[Facet.Country].Add(work, country);
                foreach (var keyword in around.Keywords) facets[Facet.Keyword].Add(work, keyword);
                foreach (var funder in around.Funders) facets[Facet.Funder].Add(work, funder);
            }
            if (row.Venue is { } venue) printedVenues.Add(work, venue);
            foreach (var person in row.People) printedPeople.Add(work, person);
            if (!row.IsOnlyCited) described[work] = true;
            facets[Facet.Database].Add(work, DatabaseNames.GetValueOrDefault(row.DatabaseId, "?"));
            textRank[work] = Math.Min(textRank[work], row.TextRank);
            Matcher.AddKeys(work, row.Doi, row.TitleKey, row.Year ?? 0);
            for (var i = 0; i + 1 < row.References.Count; i += 2) references.Add((row.RecordId, work, (byte)row.DatabaseId, i / 2, row.References[i], row.References[i + 1]));
            if (row.CitedCount is { } cited)
            {
                if (!DatabaseCited.TryGetValue(row.DatabaseId, out var counts))
                {
                    DatabaseCited[row.DatabaseId] = counts = new int[WorkSize];
                    Array.Fill(counts, -1);
                }
                counts[work] = Math.Max(counts[work], cited);
            }
        }

        /// <summary>Takes the venues that were told apart: each work's number and the title it goes by.</summary>
        public void TakeVenues(IEnumerable<(int Work, Venue Venue)> venues)
        {
            hasVenues = true;
            foreach (var (work, venue) in venues)
            {
                facets[Facet.Venue].Add(work, venue.Title);
                (WorkVenue[work], SortVenue[work]) = (venue.Number, venue.Title);
            }
        }

        /// <summary>Takes the people who were told apart.</summary>
        public void TakePeople(IReadOnlyList<Person> people)
        {
            (hasPeople, People) = (true, people);
            foreach (var person in people) foreach (var mention in person.Mentions) facets[Facet.Person].Add(mention.WorkId, person.Label);
        }

        /// <summary>Takes where venues stand.</summary>
        public void TakeStandings(IReadOnlyDictionary<int, IReadOnlyList<Standing>> standings) => Standings = standings;

        /// <summary>Follows the keys of all references; tells those that no key led home, by record and place in its list.</summary>
        public IReadOnlyList<(int Record, int Work, byte Database, int Place)> FollowKeys()
        {
            if (references.Count > 0) graph = null;
            var open = new List<(int, int, byte, int)>();
            foreach (var (record, work, database, place, doi, title) in references)
                if (Matcher.ByKeys(doi, title, null).Work is > 0 and var cited) ties.Add((work, database, cited));
                else open.Add((record, work, database, place));
            references.Clear();
            return open;
        }

        /// <summary>Adds ties that were found in words.</summary>
        public void AddTies(IEnumerable<(int Work, byte Database, int Cited)> found)
        {
            ties.AddRange(found);
            graph = null;
        }

        /// <summary>The citation graph of the ties so far.</summary>
        public CitationGraph BuildGraph()
        {
            FollowKeys();
            return graph ??= CitationGraph.Build([.. ties.Select(t => (long)t.Work << 32 | (uint)t.Cited)], [.. ties.Select(t => t.Database)], WorkSize, Databases);
        }

        /// <summary>The finished columns.</summary>
        public CorpusColumns Build()
        {
            for (var work = 0; work < WorkSize; work++)
                if (WorkFirstRecord[work] > 0 && !described[work]) OnlyCited.Add(work);
            return new(this);
        }

        internal Dictionary<Facet, FacetColumn> BuildFacets()
        {
            var (text, open, quartile) = (new FacetBuilder(), new FacetBuilder(), new FacetBuilder());
            for (var work = 0; work < WorkSize; work++)
            {
                if (WorkFirstRecord[work] == 0) continue;
                text.Add(work, TextAtHand.Words[textRank[work]]);
                open.Add(work, OpenAccess.Of(textRank[work]));
                if (Standings.TryGetValue(WorkVenue[work], out var standings)) quartile.Add(work, Standing.Best(standings));
            }
            // Where nobody told venues and people apart, what is printed stands for them.
            if (!hasVenues) facets[Facet.Venue] = printedVenues;
            if (!hasPeople) facets[Facet.Person] = printedPeople;
            var built = facets.ToDictionary(f => f.Key, f => f.Value.Build(WorkSize));
            built[Facet.Text] = text.Build(WorkSize);
            built[Facet.OpenAccess] = open.Build(WorkSize);
            built[Facet.Quartile] = quartile.Build(WorkSize);
            return built;
        }

        private static int[] NewRanks(int size)
        {
            var ranks = new int[size];
            Array.Fill(ranks, int.MaxValue);
            return ranks;
        }

        private sealed class FacetBuilder
        {
            private readonly Dictionary<string, int> ids = new(StringComparer.OrdinalIgnoreCase);
            private readonly List<string> names = [];
            private readonly List<long> pairs = [];

            public void Add(int work, string name)
            {
                if (!ids.TryGetValue(name, out var id))
                {
                    ids[name] = id = names.Count;
                    names.Add(name);
                }
                pairs.Add((long)work << 32 | (uint)id);
            }

            public FacetColumn Build(int size)
            {
                var sorted = pairs.ToArray();
                Array.Sort(sorted);
                var start = new int[size + 1];
                var values = new List<int>(sorted.Length);
                for (var i = 0; i < sorted.Length; i++)
                {
                    if (i > 0 && sorted[i] == sorted[i - 1]) continue;
                    values.Add((int)sorted[i]);
                    start[(int)(sorted[i] >> 32) + 1]++;
                }
                for (var w = 0; w < size; w++) start[w + 1] += start[w];
                return new([.. names], start, [.. values]);
            }
        }
    }
}
