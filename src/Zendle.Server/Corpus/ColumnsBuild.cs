using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Venues;
using Zendle.Index.Columns;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>
/// Builds the columns of all works: facets and sort keys, venues and people told apart, references led to their works, standings of journals. All of it follows
/// from the records alone, so it is the same whatever happened before; but what follows from one work, one name or one reference is kept, and made again only
/// where records changed (see docs/decisions/0009).
/// </summary>
/// <remarks>One build at a time.</remarks>
public sealed class ColumnsBuild(CorpusReader reader, TimeProvider clock)
{
    /// <summary>Up to so many works people are told apart and parts are kept; beyond it printed names stand for people, and each build reads the store.</summary>
    public const int MostKept = 120_000;

    private readonly WorkParts parts = new(reader);
    private readonly OpenReferences openReferences = new(reader);
    private PeopleResolver people = new();

    /// <summary>Builds the columns of everything up to a change sequence. Reads what changed; O(works + records + ties) beside it.</summary>
    public async Task<CorpusColumns> Build(long sequence, IReadOnlyList<DatabaseRow> databases, CancellationToken cancel)
    {
        var trust = databases.ToDictionary(d => d.Id, d => d.Trust);
        var (records, works) = await reader.Sizes(cancel);
        var all = new Gathered(new(records, works, databases.ToDictionary(d => d.Id, d => d.Name)), works);
        HashSet<ulong>? changed = null;
        if (works <= MostKept)
        {
            changed = await parts.Renew(sequence, works, records, trust, cancel);
            foreach (var part in parts.All) all.Add(part);
            all.Builder.TakePeople(people.Again(all.Mentions));
        }
        else
        {
            parts.Forget();
            people = new();
            await foreach (var part in WorkParts.Of(reader.All(sequence, cancel), trust, withPeople: false, cancel)) all.Add(part);
        }
        var venues = new VenueResolver(all.Named.Select(n => n.Venue));
        var ofWorks = all.Named.Select(n => (n.Work, Venue: venues.Of(n.Venue)!)).ToArray();
        all.Builder.TakeVenues(ofWorks);
        all.Builder.AddTies(await openReferences.Match(all.Builder.FollowKeys(), all.Sequences, all.Builder.Matcher, changed, works <= MostKept, cancel));
        foreach (var (work, venue) in ofWorks) all.Standings[work] = all.Standings[work] with { Venue = venue.Number };
        var graph = all.Builder.BuildGraph();
        all.Builder.TakeStandings(Quartiles.Of(all.Standings, work => graph.Cites(work).ToArray(), clock.GetUtcNow().Year - 1));
        return all.Builder.Build();
    }

    /// <summary>The parts of all works laid together.</summary>
    private sealed class Gathered
    {
        public Gathered(CorpusColumns.Builder builder, int works)
        {
            (Builder, Standings) = (builder, new VenueWork[works]);
            Array.Fill(Standings, new(-1, 0, false, []));
        }

        public CorpusColumns.Builder Builder { get; }
        public VenueWork[] Standings { get; }
        public List<Mention> Mentions { get; } = [];
        public List<(int Work, VenuePart Venue)> Named { get; } = [];
        public Dictionary<int, long> Sequences { get; } = [];

        public void Add(WorkPart part)
        {
            foreach (var (row, facts, sequence) in part.Rows)
            {
                Builder.Add(row);
                Builder.Matcher.AddWords(part.Work, facts);
                Sequences[row.RecordId] = sequence;
            }
            Mentions.AddRange(part.Mentions);
            if (part.Venue is not null) Named.Add((part.Work, part.Venue));
            Standings[part.Work] = part.Standing;
        }
    }
}
