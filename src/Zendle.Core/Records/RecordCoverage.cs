namespace Zendle.Core.Records;

/// <summary>How many of some records tell a field.</summary>
/// <param name="Field">The field, as it is called on screen.</param>
/// <param name="Count">Records that tell it.</param>
/// <param name="Share">Their share, 0 to 1.</param>
public sealed record FieldCoverage(string Field, int Count, double Share);

/// <summary>
/// What some records of a database tell of their works, field by field: by this one format is held against another, or
/// one database against another.
/// </summary>
/// <param name="Records">How many records were looked at.</param>
/// <param name="Fields">Every field with its share, the one that matters most first.</param>
/// <param name="Worth">The shares joined by what each field is worth to a review, 0 to 1.</param>
public sealed record RecordCoverage(int Records, IReadOnlyList<FieldCoverage> Fields, double Worth)
{
    /// <summary>
    /// What each field is worth: searching needs title, abstract and keywords; telling works apart needs people, year,
    /// DOI and the place in the venue; trails need references; gathering needs copies. The weights add up to 1.
    /// </summary>
    private static readonly (string Field, double Worth, Func<Record, bool> Tells)[] All =
    [
        ("title", 0.14, r => r.Title.Length > 0),
        ("people", 0.12, r => r.People.Count > 0),
        ("abstract", 0.14, r => r.Abstract.Length > 0),
        ("year", 0.08, r => r.Year is not null),
        ("type", 0.06, r => r.Type != DocumentType.Other),
        ("venue", 0.06, r => r.Venue is not null || r.Type is DocumentType.Thesis or DocumentType.Book),
        (
            "volume or pages",
            0.06,
            r =>
                r.Venue is { } v && (v.Volume is not null || v.FirstPage is not null)
                || r.Type is DocumentType.Thesis or DocumentType.Book
        ),
        ("DOI", 0.09, r => r.Doi is not null),
        // What one format calls a subject another calls a keyword; either says what the work is about.
        ("keywords or subjects", 0.05, r => r.Keywords.Count + r.ControlledTerms.Count + r.Subjects.Count > 0),
        ("references", 0.09, r => r.References.Count > 0),
        ("copies", 0.05, r => r.Copies.Count > 0),
        ("language", 0.02, r => r.Language is not null),
        ("affiliations", 0.02, r => r.People.Any(p => p.Affiliation is not null)),
        ("ORCID iDs", 0.02, r => r.People.Any(p => p.Orcid is not null)),
    ];

    /// <summary>Looks at records. O(records · fields).</summary>
    /// <param name="records">Records of one format.</param>
    public static RecordCoverage Of(IReadOnlyCollection<Record> records)
    {
        var fields = All.Select(f =>
            {
                var count = records.Count(f.Tells);
                return new FieldCoverage(f.Field, count, records.Count == 0 ? 0 : (double)count / records.Count);
            })
            .ToArray();
        return new(records.Count, fields, fields.Zip(All, (f, a) => f.Share * a.Worth).Sum());
    }
}
