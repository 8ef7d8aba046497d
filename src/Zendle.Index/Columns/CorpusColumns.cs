using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Core.Reviews;

namespace Zendle.Index.Columns;

/// <summary>
/// What is known of every work beside its words, as plain arrays by id. Immutable; a change of the store builds new columns that take
/// the place of the old ones in one stroke.
/// </summary>
public sealed class CorpusColumns
{
    private readonly Dictionary<Facet, FacetColumn> facets;
    private readonly Dictionary<ulong, int> workByKey;

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
        workByKey = b.WorkByKey;
        Graph = b.BuildGraph();
        DatabaseCited = b.DatabaseCited;
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

    /// <summary>The values of a field; throws for stage and tag, which belong to a review.</summary>
    public FacetColumn Of(Facet facet) => facets[facet];

    /// <summary>The work that a DOI's key or a title's key stands for; 0 when none.</summary>
    public int WorkOf(ulong key) => key == 0 ? 0 : workByKey.GetValueOrDefault(key);

    /// <summary>Collects rows and builds the columns. Rows may come in any order; each record once.</summary>
    public sealed class Builder
    {
        private readonly int[] yearTrust, titleTrust;
        private readonly Dictionary<Facet, FacetBuilder> facets;
        private readonly List<(int Work, ulong Doi, ulong Title)> references = [];
        private readonly int[] textRank;

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
            Array.Fill(textRank, TextAtHand.Words.Count - 1);
            DatabaseNames = databaseNames;
            facets = new[] { Facet.Year, Facet.Type, Facet.Language, Facet.Venue, Facet.Subject, Facet.Person, Facet.Database }.ToDictionary(f => f, _ => new FacetBuilder());
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
        internal Dictionary<ulong, int> WorkByKey { get; } = [];
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
            if (row.Venue is { } venue) facets[Facet.Venue].Add(work, venue);
            foreach (var subject in row.Subjects) facets[Facet.Subject].Add(work, subject);
            foreach (var person in row.People) facets[Facet.Person].Add(work, person);
            facets[Facet.Database].Add(work, DatabaseNames.GetValueOrDefault(row.DatabaseId, "?"));
            textRank[work] = Math.Min(textRank[work], row.TextRank);
            if (row.Doi != 0) WorkByKey.TryAdd(row.Doi, work);
            if (row.TitleKey != 0) WorkByKey.TryAdd(row.TitleKey, work);
            for (var i = 0; i + 1 < row.References.Count; i += 2) references.Add((work, row.References[i], row.References[i + 1]));
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

        /// <summary>The finished columns.</summary>
        public CorpusColumns Build() => new(this);

        internal Dictionary<Facet, FacetColumn> BuildFacets()
        {
            var text = new FacetBuilder();
            for (var work = 0; work < WorkSize; work++)
                if (WorkFirstRecord[work] > 0) text.Add(work, TextAtHand.Words[textRank[work]]);
            var built = facets.ToDictionary(f => f.Key, f => f.Value.Build(WorkSize));
            built[Facet.Text] = text.Build(WorkSize);
            return built;
        }

        internal CitationGraph BuildGraph()
        {
            var ties = new List<long>(references.Count);
            foreach (var (work, doi, title) in references)
            {
                var cited = doi != 0 ? WorkByKey.GetValueOrDefault(doi) : 0;
                if (cited == 0 && title != 0) cited = WorkByKey.GetValueOrDefault(title);
                if (cited != 0) ties.Add((long)work << 32 | (uint)cited);
            }
            return CitationGraph.Build(ties, WorkSize);
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
