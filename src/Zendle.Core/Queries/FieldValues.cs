using F23.StringSimilarity;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.Queries;

/// <summary>What stands behind a field that holds one of some values, or a number with a check digit.</summary>
/// <param name="Value">The value as it is looked for; null when there is none such.</param>
/// <param name="IsOther">Whether it was written otherwise: "reviews" for <c>review</c>.</param>
/// <param name="WhyNot">Why there is none, in a sentence without its end.</param>
/// <param name="Nearest">The value that is near; null for none.</param>
internal sealed record FieldValue(string? Value, bool IsOther = false, string? WhyNot = null, string? Nearest = null)
{
    private static readonly string[] Stages = ["found", "kept", "set aside"];

    /// <summary>
    /// Reads a value. Kinds of document, languages and stages are known; a number must be one. Other fields take any
    /// words, and patterns are left as they are.
    /// </summary>
    /// <param name="field">The field.</param>
    /// <param name="written">What stands behind it.</param>
    public static FieldValue Of(QueryField field, string written)
    {
        var folded = Words.Fold(written.Trim());
        var isPattern = folded.AsSpan().IndexOfAny('*', '?') >= 0;
        return field switch
        {
            QueryField.Type => OneOf(
                written,
                folded,
                isPattern,
                [.. DocumentTypes.All.Select(t => t.Name)],
                DocumentTypes.Read(written) is not DocumentType.Other and var type ? DocumentTypes.Name(type) : null,
                "kind of document"
            ),
            QueryField.Language when !isPattern => Languages.Code(written) is { } code
                ? new(
                    Languages.Name(code),
                    IsOther: folded != code
                        && folded != Words.Fold(Languages.Name(code))
                        && folded != Languages.TwoLetters(code)
                )
                : new(null, WhyNot: $"“{written}” is not a language that Zendle knows by name or code"),
            QueryField.Stage => OneOf(
                written,
                folded,
                isPattern,
                Stages,
                folded == "aside" ? "set aside" : null,
                "stage"
            ),
            QueryField.Issn when !isPattern && Identifiers.Issn(written) is null => new(
                null,
                WhyNot: $"“{written}” is not an ISSN: one has eight digits, the last of which is a check digit"
            ),
            QueryField.Isbn when !isPattern && Identifiers.Isbn(written) is null => new(
                null,
                WhyNot: $"“{written}” is not an ISBN: one has ten or thirteen digits, the last of which is a check digit"
            ),
            QueryField.Url when !isPattern && WebAddress.Of(written) is null => new(
                null,
                WhyNot: $"“{written}” is not a web address: one begins with http:// or https://"
            ),
            QueryField.Doi when !isPattern && Identifiers.Doi(written) is null => new(
                null,
                WhyNot: $"“{written}” is not a DOI: one begins with 10. and has a slash"
            ),
            _ => new(written),
        };
    }

    private static FieldValue OneOf(
        string written,
        string folded,
        bool isPattern,
        string[] values,
        string? meant,
        string what
    )
    {
        if (values.Contains(folded))
            return new(folded);
        if (isPattern)
            return values.Any(v => Glob.Matches(folded, v))
                ? new(written)
                : new(null, WhyNot: $"No {what} is called “{written}”. There are {string.Join(", ", values)}");
        if (meant is not null)
            return new(meant, IsOther: true);
        var distance = new Damerau();
        var nearest = values.MinBy(v => distance.Distance(v, folded))!;
        return new(
            null,
            WhyNot: $"No {what} is called “{written}”. There are {string.Join(", ", values)}",
            Nearest: distance.Distance(nearest, folded) <= Math.Max(1, folded.Length / 2) ? nearest : null
        );
    }
}
