using System.Globalization;
using Zendle.Core.Records;

namespace Zendle.Core.Merging;

/// <summary>One field of a work's records, side by side.</summary>
/// <param name="Name">The field, in words.</param>
/// <param name="Values">Its value in each record, in the order of the records; null where a record has none.</param>
/// <param name="TakenFrom">Ids of the records from which the work's own value comes; empty where the work shows
/// none.</param>
/// <param name="Origins">From where in each record its value was taken, and why from there; null where there was
/// nothing to choose.</param>
/// <param name="Differs">Whether two records contradict each other, case, accents, punctuation and initials
/// aside.</param>
public sealed record FieldRow(
    string Name,
    IReadOnlyList<string?> Values,
    IReadOnlyList<int> TakenFrom,
    IReadOnlyList<string?> Origins,
    bool Differs
);

/// <summary>Lays the records of a work side by side, field by field.</summary>
public static class SideBySide
{
    private static readonly (string Name, Func<Record, string?> Value, Func<ChosenFields, int?> From)[] Fields =
    [
        ("title", r => r.TitleIsTranslated ? $"[{r.Title}]" : r.Title, c => c.Title.RecordId),
        ("other titles", r => List(r.OtherTitles), _ => null),
        (
            "people",
            r => List(r.People.Select(p => p.Role is null ? p.Inverted : $"{p.Inverted} ({p.Role})"), "; "),
            c => c.People.RecordId
        ),
        ("editors", r => List(r.Editors.Select(p => p.Inverted), "; "), _ => null),
        ("year", r => r.Year?.ToString(CultureInfo.InvariantCulture), c => c.Year.RecordId),
        ("date", r => r.Date is { Length: > 4 } ? r.Date : null, _ => null),
        ("type", r => DocumentTypes.Name(r.Type), c => c.Type.RecordId),
        ("thesis", r => r.Genre, _ => null),
        ("version", r => WorkVersions.Name(r.Version), _ => null),
        ("venue", r => r.Venue?.Title, c => c.Venue.Value is null ? null : c.Venue.RecordId),
        (
            "volume, issue",
            r =>
                r.Venue is { Volume: { } v }
                    ? r.Venue.Issue is { } i
                        ? $"{v} ({i})"
                        : v
                    : null,
            c => c.Venue.Value?.Volume is null ? null : c.Venue.RecordId
        ),
        ("pages", r => r.Venue?.Pages(), c => c.Venue.Value?.FirstPage is null ? null : c.Venue.RecordId),
        ("ISSN", r => r.Venue?.Issn, c => c.Venue.Value?.Issn is null ? null : c.Venue.RecordId),
        ("DOI", r => r.Doi, c => c.Doi.Value is null ? null : c.Doi.RecordId),
        ("ISBN", r => r.Isbn, c => c.Isbn.Value is null ? null : c.Isbn.RecordId),
        ("other numbers", r => List(r.OwnNumbers), _ => null),
        (
            "language",
            r => r.Language is { } l ? Languages.Name(l) : null,
            c => c.Language.Value is null ? null : c.Language.RecordId
        ),
        ("publisher", r => r.Publisher, c => c.Publisher.Value is null ? null : c.Publisher.RecordId),
        ("abstract", r => r.Abstract, c => c.Abstract.Value.Length == 0 ? null : c.Abstract.RecordId),
        ("other abstracts", r => List(r.OtherAbstracts.Select(Said), " · "), _ => null),
        ("controlled terms", r => List(r.ControlledTerms), _ => null),
        ("keywords", r => List(r.Keywords), c => c.Keywords.Value.Count == 0 ? null : c.Keywords.RecordId),
        ("subjects", r => List(r.Subjects), _ => null),
        ("places", r => List(r.Places), _ => null),
        ("contents", r => List(r.Contents, " · "), _ => null),
        ("licence", r => r.Licence, _ => null),
        ("funders", r => List(r.Funders), _ => null),
        ("related items", r => List(r.Related.Select(t => $"{t.Kind}: {t.Title ?? t.Doi}"), "; "), _ => null),
        ("citations", r => r.CitedCount?.ToString(CultureInfo.InvariantCulture), _ => null),
    ];

    /// <summary>Fields that each database has of its own, so that other values are no contradiction.</summary>
    private static readonly HashSet<string> Own =
    [
        "other titles",
        "other abstracts",
        "editors",
        "thesis",
        "licence",
        "other numbers",
        "version",
        "date",
        "keywords",
        "subjects",
        "places",
        "citations",
        "publisher",
    ];

    /// <summary>The rows of the fields that at least one record has.</summary>
    public static IReadOnlyList<FieldRow> Of(IReadOnlyList<SourcedRecord> records, ChosenFields chosen) =>
        [
            .. Fields
                .Select(field =>
                {
                    string?[] values = [.. records.Select(r => field.Value(r.Record) is { Length: > 0 } v ? v : null)];
                    var told = records
                        .Select(r =>
                            field.Name == "people"
                                ? string.Join(' ', r.Record.People.Select(p => MergeKeys.PersonKey(p.Family)))
                            : field.Value(r.Record) is { } v ? Same(v)
                            : ""
                        )
                        .Where(v => v.Length > 0)
                        .Distinct()
                        .Count();
                    string?[] origins =
                    [
                        .. records.Select((r, i) => values[i] is null ? null : Origin(r.Record, field.Name)),
                    ];
                    return new FieldRow(
                        field.Name,
                        values,
                        field.From(chosen) is { } from ? [from] : [],
                        origins,
                        told > 1 && !Own.Contains(field.Name)
                    );
                })
                .Where(row => row.Values.Any(v => v is not null)),
        ];

    /// <summary>
    /// Where a field of a record was taken from, in words; null when the record has it in one place only.
    /// </summary>
    private static string? Origin(Record record, string field)
    {
        // Said once: the date beside the year, and volume and pages beside the venue, come from the same place.
        if (
            field == "date"
            || record.Readings.FirstOrDefault(r => r.Field == (field == "year" ? "date" : field)) is not { } reading
        )
            return null;
        if (reading.Why.Length == 0)
            return field is "venue" or "year" or "type" ? $"from {reading.From}" : null;
        return field == "year" ? reading.Why : $"from {reading.From}: {reading.Why}";
    }

    private static string Said(OtherAbstract a) =>
        a.Language is { } language ? $"{Languages.Name(language)}: {a.Text}" : a.Text;

    private static string Same(string value) =>
        MergeFacts.Plain(value.Trim('[', ']')) is { Length: > 0 } plain ? plain : value;

    private static string? List(IEnumerable<string> values, string between = ", ") =>
        string.Join(between, values) is { Length: > 0 } text ? text : null;
}
