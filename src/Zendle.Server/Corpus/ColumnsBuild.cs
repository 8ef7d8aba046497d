using Zendle.Core.Entries;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Venues;
using Zendle.Index.Columns;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>
/// Builds the columns of all works: facets and sort keys, venues and people told apart, references matched with their works,
/// standings of journals. All of it follows from the records alone, so it is the same whatever happened before; but it
/// is made from the columns before and from the works whose records changed (see docs/decisions/0009).
/// </summary>
/// <remarks>One build at a time.</remarks>
/// <param name="reader">The store.</param>
/// <param name="writer">Where numbers and labels of people are written down.</param>
/// <param name="clock">Tells the year that journals are ranked for.</param>
/// <param name="options">Where the columns are written down between starts.</param>
public sealed class ColumnsBuild(CorpusReader reader, CorpusWriter writer, TimeProvider clock, ZendleOptions options)
{
    /// <summary>
    /// When more works than this, and than a share of all, changed since, the columns are written down; fewer are
    /// followed again at the next start. A small corpus is written down after every change: what was shown before a
    /// kill is then what the next start shows at once.
    /// </summary>
    private const int MostUnwritten = 2_000,
        UnwrittenShare = 50,
        AlwaysWritten = 60_000;

    /// <summary>References of so many records are held against works at once.</summary>
    private const int AtOnce = 4_000;

    /// <summary>When more works than this changed, and more than a quarter of all, everything is built anew.</summary>
    public int MostFollowed { get; init; } = 20_000;

    private readonly ColumnsFile file = new(Path.Combine(options.Data, "index"));
    private CorpusState? state;
    private bool isBegun;

    /// <summary>
    /// Builds the columns of everything up to a change sequence. Reads what changed; O(works + records + references)
    /// over arrays of numbers beside it.
    /// </summary>
    /// <param name="sequence">The change sequence.</param>
    /// <param name="databases">The databases.</param>
    /// <param name="cancel">Stops.</param>
    /// <param name="each">When given, everything is built from nothing, and every record is shown to it with its id, on
    /// whichever core: who needs all records too need not read them again.</param>
    public async Task<CorpusColumns> Build(
        long sequence,
        IReadOnlyList<DatabaseRow> databases,
        CancellationToken cancel,
        Action<int, Record>? each = null
    )
    {
        var before = each is not null ? null : state ?? (isBegun ? null : WithStandings(file.Read()));
        isBegun = true;
        try
        {
            state = await After(
                before,
                sequence,
                databases.ToDictionary(d => d.Id, d => (d.Trust, d.Name)),
                each,
                cancel
            );
            return state.Columns;
        }
        catch
        {
            // The columns before are as they were; the people were told apart in part, and are read or begun anew.
            state = before is null ? null : before with { People = null };
            throw;
        }
    }

    /// <summary>
    /// The columns as they were written down last, with the change sequence they stand at; null when there are none of
    /// use. For a start, before anything is built.
    /// </summary>
    public (long Sequence, CorpusColumns Columns)? WrittenDown()
    {
        state ??= WithStandings(file.Read());
        return state is { } written ? (written.Sequence, written.Columns) : null;
    }

    /// <summary>Writes down what a later start would have to build; nothing when nothing changed.</summary>
    /// <param name="whenDue">Only when so much changed that following it again would take longer.</param>
    public void WriteDown(bool whenDue = false)
    {
        if (
            state is { } now
            && now.Unwritten
                > (
                    whenDue && now.Columns.WorkSize > AlwaysWritten
                        ? Math.Max(MostUnwritten, now.Columns.WorkSize / UnwrittenShare)
                        : 0
                )
            && file.Write(now) is { } written
        )
            state = written;
    }

    /// <summary>
    /// Lets go of what only the next change asks for, where it is written down; that change reads it again.
    /// </summary>
    public void LetGo()
    {
        if (state is { WrittenPeople: not null, Unwritten: 0, People: not null } now)
            state = now with { People = null };
    }

    private CorpusState? WithStandings(CorpusState? read) =>
        read is null ? null : read with { Columns = read.Columns.WithStandings(Standings(read.Columns, read.Venues)) };

    private async Task<CorpusState> After(
        CorpusState? before,
        long sequence,
        Dictionary<int, (int Trust, string Name)> databases,
        Action<int, Record>? each,
        CancellationToken cancel
    )
    {
        var (records, works) = await reader.Sizes(cancel);
        if (
            before is not null
            && (
                before.Sequence > sequence
                || before.Databases.Any(d => !databases.TryGetValue(d.Key, out var now) || now != d.Value)
            )
        )
            before = null;
        HashSet<int> touched = before is null ? [] : await Touched(before, sequence, cancel);
        if (touched.Count > Math.Max(MostFollowed, works / 4))
            (before, touched) = (null, []);
        var lists = await Lists(before, sequence, cancel);
        if (before is not null && touched.Count == 0 && lists.Count == 0)
            return before with { Sequence = sequence, Databases = databases };

        var changes = new Changes(
            before,
            new(
                records,
                works,
                databases.ToDictionary(d => d.Key, d => d.Value.Name),
                before?.Columns,
                venuesAsPrinted: false,
                peopleAsPrinted: false,
                (await reader.TieSources(cancel)).Find(s => s.IsOfTexts)?.Id ?? 0
            ),
            works
        );
        foreach (var work in touched)
            changes.Remove(work);
        var trust = databases.ToDictionary(d => d.Key, d => d.Value.Trust);
        var rows = before is null ? reader.All(sequence, cancel) : reader.Some(touched, sequence, cancel);
        var people = await People(before, trust, cancel);
        foreach (var work in touched)
            people.Put(work, []);
        var resolved = await reader.Resolved(cancel);
        await foreach (var part in WorkPart.Of(rows, trust, cancel, each, resolved))
        {
            changes.Add(part);
            people.Put(part.Work, part.Mentions);
        }
        foreach (var list in lists)
            changes.Builder.Put(list);
        await MatchReferences(changes, cancel);
        await TellApart(changes.Builder, people, cancel);
        var (columns, venues) = changes.Finish();
        return new(sequence, databases, columns.WithStandings(Standings(columns, venues)), venues)
        {
            People = people,
            Unwritten = before is null
                ? int.MaxValue
                : (int)Math.Min(int.MaxValue, (long)before.Unwritten + touched.Count),
        };
    }

    /// <summary>
    /// The lists that no record has and that changed since, or whose works stand under other numbers or came since; all of
    /// them when everything is built anew.
    /// </summary>
    private async Task<List<AddedList>> Lists(CorpusState? before, long sequence, CancellationToken cancel)
    {
        var lists = new List<AddedList>();
        await foreach (var list in reader.Lists(before?.Sequence ?? -1, sequence, cancel))
            if (before is not null || list.Keys.Count > 0)
                lists.Add(list);
        if (before is null)
            return lists;
        var known = lists.Select(l => l.Number).ToHashSet();
        int[] moved =
        [
            .. (await reader.HomesOfLists(cancel))
                .Where(h => !known.Contains(h.List) && before.Columns.HomeOf(h.List) != h.Work)
                .Select(h => h.List),
        ];
        lists.AddRange(await reader.Lists(moved, cancel));
        return lists;
    }

    /// <summary>The works that records were in or are in now that changed since.</summary>
    private async Task<HashSet<int>> Touched(CorpusState before, long sequence, CancellationToken cancel)
    {
        var touched = new HashSet<int>();
        var workOf = before.Columns.RecordWork;
        foreach (var (record, work) in await reader.Touched(before.Sequence, sequence, cancel))
        {
            if (record < workOf.Length)
                touched.Add(workOf[record]);
            touched.Add(work);
        }
        touched.Remove(0);
        return touched;
    }

    /// <summary>The people that works named so far: held, written down, or begun anew from what the store has.</summary>
    private async Task<PeopleByBlock> People(CorpusState? before, Dictionary<int, int> trust, CancellationToken cancel)
    {
        if (before?.People is { } held)
            return held;
        if (before?.WrittenPeople is { } sum && file.ReadPeople(sum) is { } written)
            return written;
        var people = new PeopleByBlock();
        if (before is not null)
            await foreach (var part in WorkPart.Of(reader.All(before.Sequence, cancel), trust, cancel))
                people.Put(part.Work, part.Mentions);
        return people;
    }

    /// <summary>Tells the people of the names apart that are others than before; numbers and labels stay theirs.</summary>
    private async Task TellApart(CorpusColumns.Builder builder, PeopleByBlock people, CancellationToken cancel)
    {
        var isWhole = people.IsBeginning;
        var change = people.Change();
        if (change.IsEmpty && !isWhole)
            return;
        builder.BeginPeople(isWhole);
        foreach (var block in change.Before)
            builder.ForgetPeople(block);
        // Of few, what was given before is looked up one by one; of all, it is read at once.
        using var stored = isWhole ? null : await reader.Numbers(cancel);
        var numbering = stored is null ? new PersonNumbering(await reader.Numbering(cancel)) : new(stored);
        var isOther = isWhole;
        foreach (var blocks in people.Tell(change, cancel))
        {
            var (named, given) = numbering.Number([.. blocks.SelectMany(b => b.People)], change.Held);
            if (!given.IsEmpty)
                await writer.Number(given, cancel);
            isOther |= given.Shown.Count > 0 || given.Redirects.Count > 0;
            var taken = 0;
            foreach (var block in blocks)
            {
                IReadOnlyList<Person> its = [.. named.Skip(taken).Take(block.People.Count)];
                taken += its.Count;
                people.Keep(block with { People = its });
                builder.TakePeople(its);
            }
        }
        people.Finish(change);
        if (isOther)
            builder.TakeFormer(await reader.FormerLabels(cancel));
    }

    /// <summary>
    /// Matches the references of changed records with works, and of others those that ask for a key under which something came,
    /// changed or went: first by their keys, then by holding their text against the works it may mean.
    /// </summary>
    private async Task MatchReferences(Changes changes, CancellationToken cancel)
    {
        var builder = changes.Builder;
        var asking = builder.RecordsWithKeys(changes.KeyHalves());
        foreach (var (record, keys) in await reader.ReferenceKeysIn(asking, cancel))
            builder.FollowAgain(record, keys);
        foreach (var list in await reader.Lists([.. asking.Where(builder.IsAddedList)], cancel))
            builder.Put(list);
        var matcher = builder.Matcher;
        var open = builder.FollowKeys().ToLookup(o => o.Record, o => o.Ordinal);
        // While some references are held against works, the next are read, in the order they lie in.
        var chunks = new Queue<int[]>(open.Select(o => o.Key).Order().Chunk(AtOnce));
        var reading = Next();
        while (await reading is { } records)
        {
            reading = Next();
            // A harvest may go on meanwhile: a record that changed since its keys were read is left to the refresh that
            // follows it.
            var looked = records
                .AsParallel()
                .AsOrdered()
                .WithCancellation(cancel)
                .Select(r =>
                    (
                        r.Record,
                        Looked: open[r.Record]
                            .Where(p => p < r.References.Count)
                            .Select(p => Look(matcher, p, r.References[p]))
                            .ToArray()
                    )
                )
                .ToArray();
            foreach (var (record, references) in looked)
            {
                foreach (var reference in references)
                    builder.Matched(record, reference.Ordinal, reference.Work);
                builder.Ask(record, references.SelectMany(r => r.Asked));
                builder.Print(record, [.. references.SelectMany(r => r.People).Distinct(StringComparer.Ordinal)]);
            }
        }

        Task<List<(int Record, IReadOnlyList<Core.Records.Reference> References)>?> Next() =>
            Task.Run(
                async () => chunks.TryDequeue(out var chunk) ? await reader.ReferencesIn(chunk, cancel) : null,
                cancel
            );
    }

    /// <summary>A reference held against works; of one that means none, the people it prints.</summary>
    private static (int Ordinal, int Work, ulong[] Asked, IReadOnlyList<string> People) Look(
        ReferenceMatcher matcher,
        int ordinal,
        Core.Records.Reference reference
    )
    {
        var (match, asked) = matcher.Look(reference);
        return (ordinal, match.Work, asked, match.Work == 0 ? PrintedPeople.Of(reference) : []);
    }

    /// <summary>Where the venues of columns stand in the last complete year.</summary>
    private IReadOnlyDictionary<int, IReadOnlyList<Standing>> Standings(CorpusColumns columns, ShownVenues venues)
    {
        var subjects = columns.Of(Core.Reviews.Facet.Subject);
        return Quartiles.Of(
            columns.WorkSize,
            work => new(columns.WorkVenue[work], Math.Abs(venues.YearOf[work]), venues.YearOf[work] > 0),
            subjects.Of,
            subjects.Names,
            columns.Graph.Cites,
            clock.GetUtcNow().Year - 1
        );
    }

    /// <summary>The works that changed, on their way into columns.</summary>
    private sealed class Changes
    {
        private readonly CorpusState? before;
        private readonly List<VenuePart> spellings;
        private readonly Dictionary<(string, string?), int> known;
        private readonly int[] spellingOf;
        private readonly short[] yearOf;
        private readonly Dictionary<int, FoundBy> was = [];
        private readonly HashSet<int> differing = [];

        public Changes(CorpusState? before, CorpusColumns.Builder builder, int works)
        {
            (this.before, Builder) = (before, builder);
            spellings = [.. before?.Venues.Spellings ?? []];
            known = spellings.Select((s, i) => (s, i)).ToDictionary(s => (s.s.Title, s.s.Issn), s => s.i);
            var size = Math.Max(works, before?.Columns.WorkSize ?? 0);
            (spellingOf, yearOf) = (new int[size], new short[size]);
            Array.Fill(spellingOf, -1);
            before?.Venues.SpellingOf.CopyTo(spellingOf, 0);
            before?.Venues.YearOf.CopyTo(yearOf, 0);
        }

        public CorpusColumns.Builder Builder { get; }

        /// <summary>
        /// The lower halves of the keys under which something came, changed or went. All that changed must have been
        /// added.
        /// </summary>
        public HashSet<int> KeyHalves()
        {
            foreach (var gone in was.Values)
                differing.UnionWith(FoundBy.Differ(gone, default));
            was.Clear();
            return differing;
        }

        public void Remove(int work)
        {
            foreach (var record in before!.Columns.RecordsOf(work))
                was[record] = before.Columns.References.Of(record);
            if (work < before.Columns.WorkSize)
                Builder.Remove(work);
            (spellingOf[work], yearOf[work]) = (-1, 0);
        }

        public void Add(WorkPart part)
        {
            foreach (var (row, findable) in part.Rows)
            {
                Builder.Add(part.Shown, row, findable);
                if (before is null)
                    continue;
                was.Remove(row.RecordId, out var then);
                differing.UnionWith(FoundBy.Differ(then, findable.By));
            }
            var year = part.Shown.Year ?? 0;
            yearOf[part.Work] = (short)(part.IsItem ? year : -year);
            if (part.Venue is not { } venue)
                return;
            if (!known.TryGetValue((venue.Title, venue.Issn), out var spelling))
            {
                known[(venue.Title, venue.Issn)] = spelling = spellings.Count;
                spellings.Add(new(venue.Title, venue.Issn));
            }
            spellingOf[part.Work] = spelling;
        }

        public (CorpusColumns Columns, ShownVenues Venues) Finish()
        {
            var counts = new int[spellings.Count];
            foreach (var spelling in spellingOf)
                if (spelling >= 0)
                    counts[spelling]++;
            var venues = new VenueResolver([.. spellings.Select((s, i) => (s, counts[i])).Where(s => s.Item2 > 0)]);
            int[] numbers = [.. spellings.Select((s, i) => counts[i] > 0 ? venues.Of(s)!.Number : -1)];
            Builder.TakeVenues(
                Array.ConvertAll(spellingOf, s => s < 0 ? -1 : numbers[s]),
                venues.All,
                spellings
                    .Where((_, i) => counts[i] > 0)
                    .Select(s => (s.Title, Today: venues.Of(s with { Issn = null })?.Title ?? s.Title))
                    .Where(s => s.Title != s.Today)
            );
            return (Builder.Build(), new(spellings, spellingOf, yearOf));
        }
    }
}
