using System.Globalization;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Core.Venues;

namespace Zendle.Index.Columns;

public sealed partial class CorpusColumns
{
    /// <summary>
    /// Makes columns: from nothing, or those that come after others when some works changed. The records of a work come
    /// together, one after another; of a work that changed all come again, after it was taken out. Costs what changes,
    /// and a pass over arrays of numbers.
    /// </summary>
    public sealed class Builder
    {
        private static readonly Facet[] OfRows =
        [
            Facet.Year,
            Facet.Type,
            Facet.Language,
            Facet.Subject,
            Facet.Database,
            Facet.Affiliation,
            Facet.Country,
            Facet.Funder,
            Facet.Keyword,
        ];

        private readonly CorpusColumns? from;
        private readonly IReadOnlyDictionary<int, string> databaseNames;
        private readonly bool venuesAsPrinted,
            peopleAsPrinted;
        private readonly Dictionary<Facet, FacetColumn.Editor> facets = [];
        private readonly Dictionary<Facet, FacetColumn> whole = [];
        private readonly Dictionary<int, int[]> cited = [];
        private readonly IdLists.Editor recordsOf,
            citedWorks,
            asked;
        private readonly ReferenceMatcher.Editor matching;
        private readonly List<(int Record, IReadOnlyList<ReferenceKeys> Keys)> following = [];
        private readonly Dictionary<int, int[]> newlyCited = [];
        private readonly Dictionary<int, AddedList> lists = [];
        private readonly IdLists.Editor listsOf;
        private readonly int[] listWork;
        private readonly int textSource;
        private IdLists? finishedListsOf;
        private readonly HashSet<int> changed = [];
        private readonly List<ColumnRow> rows = [];
        private WorkValues values = new(null, DocumentType.Other, null, "", null, null);
        private readonly int[] recordWork,
            workFirstRecord;
        private readonly byte[] recordDatabase,
            recordFields,
            textRank;
        private readonly short[] recordYear,
            year;
        private readonly TextColumn.Editor sortTitle,
            sortPerson;
        private readonly WordColumn.Editor words,
            printed;
        private readonly WorkSet onlyCited;
        private int[] workVenue,
            venueName;
        private ReferenceMatcher? matcher;
        private IdLists? finishedCitedWorks;
        private CitationGraph? graph;
        private FacetColumn.Amender? people;
        private Dictionary<string, IReadOnlyList<string>>? perhapsSame;
        private IReadOnlyDictionary<string, string>? formerLabels,
            formerVenues;

        /// <summary>Starts columns for record and work ids below the given sizes.</summary>
        /// <param name="recordSize">Record ids are below this.</param>
        /// <param name="workSize">Work ids are below this.</param>
        /// <param name="databaseNames">Names of databases by id.</param>
        /// <param name="from">The columns before; null to begin from nothing.</param>
        /// <param name="venuesAsPrinted">Whether printed titles stand for venues, which nobody will tell apart.</param>
        /// <param name="peopleAsPrinted">Whether printed names stand for people, whom nobody will tell apart.</param>
        /// <param name="textSource">The source of lists that are read out of texts; 0 for none.</param>
        public Builder(
            int recordSize,
            int workSize,
            IReadOnlyDictionary<int, string> databaseNames,
            CorpusColumns? from = null,
            bool venuesAsPrinted = true,
            bool peopleAsPrinted = true,
            int textSource = 0
        )
        {
            (this.from, this.databaseNames, this.venuesAsPrinted, this.peopleAsPrinted, this.textSource) = (
                from,
                databaseNames,
                venuesAsPrinted,
                peopleAsPrinted,
                textSource
            );
            var old = from?.All;
            RecordSize = Math.Max(recordSize, from?.RecordSize ?? 0);
            WorkSize = Math.Max(workSize, from?.WorkSize ?? 0);
            recordWork = Sized(old?.RecordWork, RecordSize);
            recordDatabase = Sized(old?.RecordDatabase, RecordSize);
            recordYear = Sized(old?.RecordYear, RecordSize);
            recordFields = Sized(old?.RecordFields, RecordSize);
            year = Sized(old?.Year, WorkSize);
            sortTitle = new(old?.SortTitle, WorkSize);
            sortPerson = new(old?.SortPerson, WorkSize);
            words = new(old?.Words, WorkSize);
            printed = new(old?.Printed, RecordSize);
            workFirstRecord = Sized(old?.WorkFirstRecord, WorkSize);
            textRank = Sized(old?.TextRank, WorkSize);
            workVenue = Sized(old?.WorkVenue, WorkSize);
            venueName = Sized(old?.VenueName, WorkSize);
            listWork = Sized(old?.ListWork, RecordSize);
            Array.Fill(listWork, NoList, from?.RecordSize ?? 0, RecordSize - (from?.RecordSize ?? 0));
            listsOf = (old?.ListsOf ?? IdLists.Empty).Edit(WorkSize);
            foreach (var numbers in new[] { workVenue, venueName })
                Array.Fill(numbers, -1, from?.WorkSize ?? 0, WorkSize - (from?.WorkSize ?? 0));
            onlyCited = WorkSet.Of(WorkSize, old?.OnlyCited.Members() ?? []);
            recordsOf = (old?.RecordsOf ?? IdLists.Empty).Edit(WorkSize);
            citedWorks = (old?.CitedWorks ?? IdLists.Empty).Edit(RecordSize);
            asked = (old?.Asked ?? IdLists.Empty).Edit(RecordSize);
            matching = (old?.References ?? ReferenceMatcher.Empty).Edit(RecordSize);
            foreach (
                var facet in OfRows
                    .Concat(venuesAsPrinted ? [Facet.Venue] : [])
                    .Concat(peopleAsPrinted ? [Facet.Person] : [])
            )
                facets[facet] = new(from?.Of(facet), WorkSize);
            foreach (var (database, counts) in old?.DatabaseCited ?? new Dictionary<int, int[]>())
            {
                cited[database] = Sized(counts, WorkSize);
                Array.Fill(cited[database], -1, counts.Length, WorkSize - counts.Length);
            }
        }

        /// <summary>A list no record has is of no work as long as none is known that it may be of.</summary>
        private const int NoList = -1,
            NoWork = 0;

        internal int RecordSize { get; }
        internal int WorkSize { get; }

        private static T[] Sized<T>(T[]? old, int size)
        {
            var next = new T[size];
            old?.CopyTo(next, 0);
            return next;
        }

        /// <summary>Takes a work out, with all its records as they were.</summary>
        public void Remove(int work)
        {
            changed.Add(work);
            foreach (var record in recordsOf.Of(work).ToArray())
            {
                recordWork[record] = 0;
                matching.Remove(record);
                citedWorks.Set(record, []);
                asked.Set(record, []);
                printed.Set(record, []);
            }
            recordsOf.Set(work, []);
            foreach (var facet in facets.Values)
                facet.Set(work, (ReadOnlySpan<int>)[]);
            foreach (var counts in cited.Values)
                counts[work] = -1;
            (workFirstRecord[work], year[work], venueName[work]) = (0, 0, -1);
            sortTitle.Set(work, null);
            sortPerson.Set(work, null);
            words.Set(work, []);
            onlyCited.Remove(work);
        }

        /// <summary>Adds one record.</summary>
        /// <param name="shown">The values that its work shows; the same for all records of the work.</param>
        /// <param name="row">What the columns take of it.</param>
        /// <param name="findable">What references find it by; null for its two keys alone.</param>
        public void Add(WorkValues shown, ColumnRow row, Findable? findable = null)
        {
            if (rows.Count > 0 && rows[0].WorkId != row.WorkId)
                FinishWork();
            if (rows.Count == 0 && workFirstRecord[row.WorkId] != 0)
                throw new ArgumentException("The records of a work come together.", nameof(row));
            rows.Add(row);
            values = shown;
            recordWork[row.RecordId] = row.WorkId;
            recordDatabase[row.RecordId] = (byte)row.DatabaseId;
            recordYear[row.RecordId] = (short)(row.Year ?? 0);
            recordFields[row.RecordId] = RecordFields.Pack(row);
            matching.Put(row.RecordId, findable ?? Findable.Of(row.WorkId, row.Doi, row.TitleKey, row.Year ?? 0, null));
            if (row.References.Count > 0)
                following.Add((row.RecordId, row.References));
        }

        /// <summary>Puts a list in that no record has, instead of what was there under its number.</summary>
        public void Put(AddedList list)
        {
            if (recordWork[list.Number] > 0)
                throw new ArgumentException("A record has the number of the list.", nameof(list));
            lists[list.Number] = list;
            if (list.Keys.Count > 0)
            {
                recordDatabase[list.Number] = (byte)list.Source;
                following.Add((list.Number, list.Keys));
                return;
            }
            recordDatabase[list.Number] = NoDatabase;
            newlyCited[list.Number] = [];
            asked.Set(list.Number, []);
            printed.Set(list.Number, []);
        }

        private void FinishWork()
        {
            if (rows.Count == 0)
                return;
            var work = rows[0].WorkId;
            changed.Add(work);
            recordsOf.Set(work, [.. rows.Select(r => r.RecordId).Order()]);
            workFirstRecord[work] = rows.Min(r => r.RecordId);
            year[work] = (short)(values.Year ?? 0);
            sortTitle.Set(work, values.Title);
            sortPerson.Set(work, values.FirstPerson);
            words.Set(work, values.Words);
            if (venuesAsPrinted)
                venueName[work] = values.Venue is { } venue ? facets[Facet.Venue].Number(venue) : -1;
            textRank[work] = (byte)rows.Min(r => r.TextRank);
            if (rows.TrueForAll(r => r.IsOnlyCited))
                onlyCited.Add(work);
            foreach (var facet in facets.Keys)
                facets[facet].Set(work, Shown(facet) is { } one ? one : rows.SelectMany(r => Values(facet, r)));
            foreach (var row in rows)
            {
                if (row.CitedCount is not { } count || row.DatabaseId == NoDatabase)
                    continue;
                if (!cited.TryGetValue(row.DatabaseId, out var counts))
                    Array.Fill(cited[row.DatabaseId] = counts = new int[WorkSize], -1);
                counts[work] = Math.Max(counts[work], count);
            }
            rows.Clear();
        }

        /// <summary>The value of a field that has one for each work; null for a field of several.</summary>
        private string[]? Shown(Facet facet) =>
            facet switch
            {
                Facet.Year => values.Year is { } y ? [y.ToString(CultureInfo.InvariantCulture)] : [],
                Facet.Type => [DocumentTypes.Name(values.Type)],
                Facet.Language => values.Language is { } language ? [Languages.Name(language)] : [],
                Facet.Venue => values.Venue is { } venue ? [venue] : [],
                _ => null,
            };

        /// <summary>What one record has in a field of several values; a work has what any of its records has.</summary>
        private IEnumerable<string> Values(Facet facet, ColumnRow row) =>
            facet switch
            {
                Facet.Subject => row.Subjects,
                // What is still in a database is not said to be in none, though one has deleted it.
                Facet.Database when row.DatabaseId == NoDatabase => rows.TrueForAll(r => r.DatabaseId == NoDatabase)
                    ? [NoDatabaseName]
                    : [],
                Facet.Database => [databaseNames.GetValueOrDefault(row.DatabaseId, "?")],
                Facet.Affiliation => row.Around?.Affiliations ?? [],
                Facet.Country => row.Around?.Countries ?? [],
                Facet.Funder => row.Around?.Funders ?? [],
                Facet.Keyword => row.Around?.Keywords ?? [],
                Facet.Person => row.People,
                _ => throw new ArgumentOutOfRangeException(nameof(facet)),
            };

        /// <summary>
        /// The records and lists of the columns before that refer to something by one of some keys and are not among those
        /// that changed.
        /// </summary>
        /// <param name="halves">The lower halves of the keys.</param>
        public IReadOnlyList<int> RecordsWithKeys(IReadOnlySet<int> halves)
        {
            FinishWork();
            return from is null
                ? []
                :
                [
                    .. from.RecordsWithKeys(halves)
                        .Where(n =>
                            listWork[n] == NoList
                                ? recordWork[n] > 0 && !changed.Contains(recordWork[n])
                                : !lists.ContainsKey(n)
                        ),
                ];
        }

        /// <summary>Whether a number is that of a list no record has.</summary>
        public bool IsAddedList(int number) => listWork[number] != NoList;

        /// <summary>The references of a record that did not change are matched again.</summary>
        /// <param name="record">The record.</param>
        /// <param name="keys">The keys of each reference.</param>
        public void FollowAgain(int record, IReadOnlyList<ReferenceKeys> keys) => following.Add((record, keys));

        /// <summary>Finds the works that references mean: all works that were added.</summary>
        public ReferenceMatcher Matcher
        {
            get
            {
                FinishWork();
                return matcher ??= matching.Finish();
            }
        }

        /// <summary>
        /// Follows the keys of the references; tells those that no key matched, by record and ordinal in its list.
        /// </summary>
        public IReadOnlyList<(int Record, int Ordinal)> FollowKeys()
        {
            var (finder, open) = (Matcher, new List<(int, int)>());
            foreach (
                var (record, cites, halves) in following
                    .AsParallel()
                    .AsOrdered()
                    .Select(f => Follow(f.Record, f.Keys, finder))
            )
            {
                // A table prints nothing but identifiers: no text leads further.
                if (!lists.TryGetValue(record, out var list) || list.Citing == 0)
                    for (var ordinal = 0; ordinal < cites.Length; ordinal++)
                        if (cites[ordinal] == 0)
                            open.Add((record, ordinal));
                newlyCited[record] = cites;
                asked.Set(
                    record,
                    list is { Citing: not 0 } ? [.. halves.Append(unchecked((int)list.Citing)).Distinct()] : halves
                );
                printed.Set(record, []);
            }
            following.Clear();
            return open;
        }

        private static (int Record, int[] Cites, int[] Halves) Follow(
            int record,
            IReadOnlyList<ReferenceKeys> keys,
            ReferenceMatcher finder
        )
        {
            var cites = new int[keys.Count];
            for (var ordinal = 0; ordinal < cites.Length; ordinal++)
                cites[ordinal] = finder.ByKeys(keys[ordinal]).Work;
            return (
                record,
                cites,
                [
                    .. keys.SelectMany(k => new[] { k.Doi, k.Title })
                        .Where(k => k != 0)
                        .Select(k => unchecked((int)k))
                        .Distinct(),
                ]
            );
        }

        /// <summary>Notes the work of a reference that was found by its text.</summary>
        /// <param name="record">The record that has it.</param>
        /// <param name="ordinal">Its ordinal in the record's list.</param>
        /// <param name="work">The work; 0 for none.</param>
        public void Matched(int record, int ordinal, int work) => newlyCited[record][ordinal] = work;

        /// <summary>Notes the keys that the references of a record ask for beside their own two.</summary>
        public void Ask(int record, IEnumerable<ulong> keys)
        {
            var all = asked.Of(record).ToArray().ToHashSet();
            all.UnionWith(keys.Select(k => unchecked((int)k)));
            asked.Set(record, [.. all]);
        }

        /// <summary>Notes the people that the references of a record print which match no work.</summary>
        public void Print(int record, IReadOnlyList<string> people) => printed.Set(record, people);

        /// <summary>The citation graph of the references that were matched. None can be matched after it.</summary>
        public CitationGraph BuildGraph()
        {
            if (graph is not null)
                return graph;
            FollowKeys();
            var citing = new HashSet<int>(changed);
            foreach (var (record, cites) in newlyCited)
            {
                citedWorks.Set(record, cites);
                citing.Add(recordWork[record]);
            }
            HouseLists(citing);
            finishedCitedWorks = citedWorks.Finish();
            finishedListsOf = listsOf.Finish();
            var databases = recordDatabase
                .Where((_, r) => recordWork[r] > 0 || listWork[r] != NoList)
                .Distinct()
                .Select(d => (int)d)
                .Order()
                .ToArray();
            var before = from?.Graph.Databases;
            // Databases keep their bits: one that came between others, or went, asks for a graph from nothing.
            return graph =
                before is not null
                && databases.AsSpan(0, Math.Min(databases.Length, before.Count)).SequenceEqual(before.ToArray())
                    ? from!.Graph.With(Citing(citing), WorkSize, databases)
                    : WholeGraph(databases);
        }

        /// <summary>Brings lists that no record has to the works they speak of; tells all that had or have one of them.</summary>
        private void HouseLists(HashSet<int> citing)
        {
            foreach (var (number, list) in lists)
            {
                var home =
                    list.Keys.Count == 0 ? NoList
                    : list.Work != 0 ? list.Work
                    : Matcher.ByKeys(new(list.Citing, 0, 0)).Work;
                if (home > 0 && (home >= WorkSize || workFirstRecord[home] == 0))
                    home = NoWork;
                var before = listWork[number];
                citing.UnionWith(new[] { before, home }.Where(w => w > 0));
                if (before == home)
                    continue;
                listWork[number] = home;
                if (before > 0)
                    listsOf.Set(before, [.. listsOf.Of(before).ToArray().Where(l => l != number)]);
                if (home > 0)
                    listsOf.Set(home, [.. listsOf.Of(home).ToArray().Append(number).Order()]);
            }
        }

        private Dictionary<int, List<ReportedTie>> Citing(IEnumerable<int> works)
        {
            var citing = new Dictionary<int, List<ReportedTie>>();
            foreach (var work in works)
            {
                var ties = citing[work] = [];
                foreach (var record in recordsOf.Of(work))
                foreach (var one in finishedCitedWorks!.Of(record))
                    if (one > 0)
                        ties.Add(new(one, recordDatabase[record]));
                foreach (var list in finishedListsOf!.Of(work))
                    if (Counts(list, work))
                        foreach (var one in finishedCitedWorks!.Of(list))
                            if (one > 0)
                                ties.Add(new(one, recordDatabase[list]));
            }
            citing.Remove(0);
            return citing;
        }

        private CitationGraph WholeGraph(int[] databases)
        {
            var (pairs, by) = (new List<long>(), new List<byte>());
            for (var number = 0; number < RecordSize; number++)
            {
                var work =
                    listWork[number] == NoList ? recordWork[number]
                    : listWork[number] > 0 && Counts(number, listWork[number]) ? listWork[number]
                    : NoWork;
                if (work == NoWork)
                    continue;
                foreach (var one in finishedCitedWorks!.Of(number))
                    if (one > 0)
                    {
                        pairs.Add((long)work << 32 | (uint)one);
                        by.Add(recordDatabase[number]);
                    }
            }
            return CitationGraph.Build(pairs, by, WorkSize, databases);
        }

        private bool Counts(int list, int work) =>
            CorpusColumns.Counts(recordDatabase[list] == textSource, recordsOf.Of(work), finishedCitedWorks!);

        /// <summary>Takes the venues that were told apart.</summary>
        /// <param name="ofWorks">Of each work its number among them, −1 for none.</param>
        /// <param name="venues">The venues.</param>
        /// <param name="spellings">Titles under which records name one of them, with the title it is shown under.</param>
        public void TakeVenues(
            int[] ofWorks,
            IReadOnlyList<Venue> venues,
            IEnumerable<(string Title, string Today)> spellings
        )
        {
            workVenue = ofWorks;
            var column = FacetColumn.OfOnes(venues.Select(v => v.Title), ofWorks);
            (whole[Facet.Venue], venueName) = (column, column.Parts.Ones!);
            var shown = venues.Select(v => v.Title).ToHashSet(StringComparer.OrdinalIgnoreCase);
            var former = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
            foreach (var (title, today) in spellings)
                if (!shown.Contains(title))
                    former.TryAdd(title, today);
            formerVenues = former;
        }

        /// <summary>People are told apart anew, all or some; without it those of the columns before stay.</summary>
        /// <param name="isWhole">Whether all are, so that nobody stays as they were.</param>
        public void BeginPeople(bool isWhole)
        {
            people = new(isWhole ? null : from?.Of(Facet.Person), WorkSize);
            var before = isWhole ? null : from?.All.PerhapsSame;
            perhapsSame = new(
                before ?? new Dictionary<string, IReadOnlyList<string>>(),
                StringComparer.OrdinalIgnoreCase
            );
        }

        /// <summary>Takes the people of one block of names out, as they were before.</summary>
        public void ForgetPeople(IReadOnlyList<Person> block)
        {
            foreach (var person in block)
            {
                people!.Remove(person.Label, person.Mentions.Select(m => m.WorkId));
                perhapsSame!.Remove(person.Label);
            }
        }

        /// <summary>Takes the people of one block of names, as they are now.</summary>
        public void TakePeople(IReadOnlyList<Person> block)
        {
            foreach (var person in block)
            {
                people!.Add(person.Label, person.Mentions.Select(m => m.WorkId));
                if (person.Doubtful.Count > 0)
                    perhapsSame![person.Label] = [.. person.Doubtful.Select(n => block[n].Label)];
            }
        }

        /// <summary>Takes the labels of before that stand for somebody shown under another, with that other.</summary>
        public void TakeFormer(IReadOnlyDictionary<string, string> former) => formerLabels = former;

        /// <summary>The finished columns; where venues stand is added by <see cref="WithStandings"/>.</summary>
        public CorpusColumns Build()
        {
            FinishWork();
            var ties = BuildGraph();
            foreach (var (facet, editor) in facets)
                whole[facet] = editor.Finish();
            if (people is not null)
                whole[Facet.Person] = people.Finish();
            if (!whole.ContainsKey(Facet.Venue))
                whole[Facet.Venue] = from?.Of(Facet.Venue) ?? new FacetColumn.Editor(null, WorkSize).Finish();
            if (!whole.ContainsKey(Facet.Person))
                whole[Facet.Person] = from?.Of(Facet.Person) ?? new FacetColumn.Editor(null, WorkSize).Finish();
            BuildByText();
            whole[Facet.Quartile] = new FacetColumn.Editor(null, WorkSize).Finish();
            var contents = new Contents
            {
                RecordWork = recordWork,
                RecordDatabase = recordDatabase,
                RecordYear = recordYear,
                RecordFields = recordFields,
                Year = year,
                SortTitle = sortTitle.Finish(),
                SortPerson = sortPerson.Finish(),
                Words = words.Finish(),
                VenueName = venueName,
                WorkFirstRecord = workFirstRecord,
                WorkVenue = workVenue,
                TextRank = textRank,
                OnlyCited = onlyCited,
                RecordsOf = recordsOf.Finish(),
                CitedWorks = finishedCitedWorks!,
                Asked = asked.Finish(),
                ListWork = listWork,
                ListsOf = finishedListsOf!,
                TextSource = textSource,
                DatabaseCited = cited,
                Facets = whole,
                References = Matcher,
                Graph = ties,
                Printed = printed.Finish(),
                FormerLabels = formerLabels ?? from?.All.FormerLabels ?? new Dictionary<string, string>(),
                FormerVenues = formerVenues ?? from?.All.FormerVenues ?? new Dictionary<string, string>(),
                PerhapsSame = perhapsSame ?? from?.All.PerhapsSame ?? new Dictionary<string, IReadOnlyList<string>>(),
            };
            return new(contents, from, changed);
        }

        /// <summary>The fields that follow from how the text of a work can be had.</summary>
        private void BuildByText()
        {
            var ranks = new int[WorkSize];
            for (var work = 0; work < WorkSize; work++)
                ranks[work] = workFirstRecord[work] == 0 ? -1 : textRank[work];
            whole[Facet.Text] = FacetColumn.OfOnes(TextAtHand.Words, ranks);
            whole[Facet.OpenAccess] = FacetColumn.OfOnes(
                Enumerable.Range(0, TextAtHand.Words.Count).Select(OpenAccess.Of),
                ranks
            );
        }
    }
}
