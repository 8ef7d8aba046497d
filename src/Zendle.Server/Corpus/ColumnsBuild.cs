using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Venues;
using Zendle.Index.Columns;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>
/// Builds the columns of all works from the store: facets and sort keys, venues and people told apart, references led to their works, standings of journals.
/// All of it follows from the records alone, so it is the same whatever happened before.
/// </summary>
public sealed class ColumnsBuild(CorpusReader reader, TimeProvider clock)
{
    /// <summary>Up to so many works people are told apart; beyond it the printed names stand for them (see docs/decisions/0008).</summary>
    private const int MostWorksForPeople = 200_000;

    /// <summary>Open references are remembered by record, so that a refresh reads only those of records that changed; so many at most.</summary>
    private const int MostRemembered = 400_000;

    private readonly Dictionary<int, (long Sequence, IReadOnlyList<Reference> References)> remembered = [];

    /// <summary>Builds the columns of everything up to a change sequence. O(records + references).</summary>
    public async Task<CorpusColumns> Build(long sequence, IReadOnlyList<DatabaseRow> databases, CancellationToken cancel)
    {
        var trust = databases.ToDictionary(d => d.Id, d => d.Trust);
        var (records, works) = await reader.Sizes(cancel);
        var builder = new CorpusColumns.Builder(records, works, databases.ToDictionary(d => d.Id, d => d.Name));
        var (mentions, named, venueWorks, sequences) = (new List<Mention>(), new List<(int Work, VenuePart Venue)>(), new VenueWork[works], new Dictionary<int, long>());
        Array.Fill(venueWorks, new(-1, 0, false, []));
        var ofWork = new List<SourcedRecord>();
        var current = 0;
        void Finish()
        {
            if (ofWork.Count == 0) return;
            var chosen = ChosenFields.From(ofWork);
            if (works <= MostWorksForPeople) mentions.AddRange(Mention.Of(current, ofWork, chosen));
            if (chosen.Venue.Value is { } venue) named.Add((current, venue));
            venueWorks[current] = new(-1, chosen.Year.Value ?? 0, chosen.Type.Value is DocumentType.Article or DocumentType.Review or DocumentType.SystematicReview, chosen.Subjects);
            ofWork.Clear();
        }
        await foreach (var stored in reader.All(sequence, cancel))
        {
            if (stored.Id >= records || stored.WorkId >= works) continue;
            if (stored.WorkId != current) Finish();
            current = stored.WorkId;
            ofWork.Add(new(stored.Id, stored.DatabaseId, trust[stored.DatabaseId], stored.Record));
            sequences[stored.Id] = stored.Sequence;
            builder.Add(Row(stored, trust[stored.DatabaseId]));
            builder.Matcher.AddWords(stored.WorkId, MergeFacts.Of(stored.Id, stored.DatabaseId, stored.Record));
        }
        Finish();
        var venues = new VenueResolver(named.Select(n => n.Venue));
        var ofWorks = named.Select(n => (n.Work, Venue: venues.Of(n.Venue)!)).ToArray();
        builder.TakeVenues(ofWorks);
        if (works <= MostWorksForPeople) builder.TakePeople(PeopleResolver.Resolve(mentions));
        builder.AddTies(await InWords(builder, sequences, cancel));
        foreach (var (work, venue) in ofWorks) venueWorks[work] = venueWorks[work] with { Venue = venue.Number };
        var graph = builder.BuildGraph();
        builder.TakeStandings(Quartiles.Of(venueWorks, work => graph.Cites(work).ToArray(), clock.GetUtcNow().Year - 1));
        return builder.Build();
    }

    /// <summary>Holds the text of references that no key leads home against the works they may mean.</summary>
    private async Task<IEnumerable<(int, byte, int)>> InWords(CorpusColumns.Builder builder, Dictionary<int, long> sequences, CancellationToken cancel)
    {
        var open = builder.FollowKeys();
        if (remembered.Count > MostRemembered) remembered.Clear();
        var missing = open.Select(o => o.Record).Distinct().Where(r => !remembered.TryGetValue(r, out var known) || known.Sequence != sequences[r]).ToArray();
        foreach (var (record, references) in await reader.ReferencesIn(missing, cancel)) remembered[record] = (sequences[record], references);
        // A harvest may go on meanwhile: a record that changed since its keys were read is left to the refresh that follows it.
        return open.AsParallel().AsOrdered().WithCancellation(cancel)
            .Select(o => (o.Work, o.Database, Cited: remembered.TryGetValue(o.Record, out var known) && o.Place < known.References.Count ? builder.Matcher.Match(known.References[o.Place]).Work : 0))
            .Where(t => t.Cited != 0).ToArray();
    }

    private static ColumnRow Row(StoredRecord s, int trust)
    {
        var r = s.Record;
        return new(s.Id, s.WorkId, s.DatabaseId, trust, r.Year, r.Type, r.Language, r.Title, r.People.Count > 0 ? r.People[0].Family : null,
            [.. r.People.Select(p => p.Short)], r.Venue?.Title, r.Subjects, TextAtHand.Best(r.Copies), r.CitedCount, MergeKeys.Doi(r.Doi), s.TitleKey, s.ReferenceKeys, r.IsOnlyCited);
    }
}
