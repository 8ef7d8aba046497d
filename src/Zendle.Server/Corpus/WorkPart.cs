using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Venues;
using Zendle.Index.Columns;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>What the columns need of one work, as far as it follows from the work's own records.</summary>
/// <param name="Work">The work.</param>
/// <param name="Rows">Its records, the oldest first: what the columns take, what references are held against, and the change sequence.</param>
/// <param name="Mentions">The people it names; empty when people are not told apart.</param>
/// <param name="Venue">The venue it shows; null for none.</param>
/// <param name="Standing">What it means for the standing of journals, its venue's number aside.</param>
internal sealed record WorkPart(int Work, IReadOnlyList<(ColumnRow Row, MergeFacts Facts, long Sequence)> Rows, IReadOnlyList<Mention> Mentions, VenuePart? Venue, VenueWork Standing)
{
    /// <summary>Takes the part of a work from its records.</summary>
    /// <param name="stored">All records of one work.</param>
    /// <param name="trust">Rank of trust by database.</param>
    /// <param name="withPeople">Whether people are told apart.</param>
    public static WorkPart Of(IReadOnlyList<StoredRecord> stored, IReadOnlyDictionary<int, int> trust, bool withPeople)
    {
        var work = stored[0].WorkId;
        var records = stored.Select(s => new SourcedRecord(s.Id, s.DatabaseId, trust[s.DatabaseId], s.Record)).ToArray();
        var chosen = ChosenFields.From(records);
        return new(work, [.. stored.Select(s => (Row(s, trust[s.DatabaseId]), Lean(MergeFacts.Of(s.Id, s.DatabaseId, s.Record)), s.Sequence))], withPeople ? Mention.Of(work, records, chosen) : [], chosen.Venue.Value,
            new(-1, chosen.Year.Value ?? 0, chosen.Type.Value is DocumentType.Article or DocumentType.Review or DocumentType.SystematicReview, chosen.Subjects));
    }

    /// <summary>The keys under which references find the work.</summary>
    public IEnumerable<ulong> Keys => Rows.SelectMany(r => ReferenceMatcher.KeysOf(r.Facts, r.Row.Doi, r.Row.TitleKey));

    /// <summary>References are held against titles, first person, year and place only.</summary>
    private static MergeFacts Lean(MergeFacts facts) => facts with { Trigrams = [], Venue = [], Families = [.. facts.Families.Take(1)], Initials = [] };

    private static ColumnRow Row(StoredRecord s, int trust)
    {
        var r = s.Record;
        return new(s.Id, s.WorkId, s.DatabaseId, trust, r.Year, r.Type, r.Language, r.Title, r.People.Count > 0 ? r.People[0].Family : null,
            [.. r.People.Select(p => p.Short)], r.Venue?.Title, r.Subjects, TextAtHand.Best(r.Copies), r.CitedCount, MergeKeys.Doi(r.Doi), s.TitleKey, s.ReferenceKeys, r.IsOnlyCited,
            new([.. r.People.Select(p => p.Affiliation).OfType<string>().Distinct()], r.Places, r.Funders, r.Keywords));
    }
}
