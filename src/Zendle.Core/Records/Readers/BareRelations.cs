using System.Text.RegularExpressions;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// What the relations of a bare record say: further identifiers of the work itself, other versions of it, what it is
/// part of, and what it cites. Only what is called a reference becomes one.
/// </summary>
/// <param name="Own">The work's own DOI, when its identifiers have none; null otherwise.</param>
/// <param name="Versions">DOIs of other versions.</param>
/// <param name="References">What it cites.</param>
/// <param name="PartOf">ISSN of what it is part of; null when not said.</param>
internal sealed partial record BareRelations(
    string? Own,
    IReadOnlyList<VersionLink> Versions,
    IReadOnlyList<Reference> References,
    string? PartOf
)
{
    /// <summary>Reads relations.</summary>
    /// <param name="values">All of them, cleaned.</param>
    /// <param name="known">The DOI that the record's identifiers give; null for none.</param>
    public static BareRelations Of(IReadOnlyList<string> values, string? known)
    {
        var (own, bare, versions, references, part) = (
            new List<string>(),
            new List<string>(),
            new List<VersionLink>(),
            new List<Reference>(),
            (string?)null
        );
        foreach (var value in values)
        {
            var doi = Identifiers.Doi(value);
            if (Cites().IsMatch(value))
                references.Add(new(Cites().Replace(value, "").Trim(), doi));
            else if (Part().IsMatch(value))
                part ??= Identifiers.Issn(value);
            else if (Version().IsMatch(value))
            {
                if (doi is not null)
                    versions.Add(new(doi));
            }
            else if (Other().IsMatch(value) || doi is null)
                continue;
            else if (
                value.Contains("altIdentifier", StringComparison.OrdinalIgnoreCase)
                || value.StartsWith("is identical to", StringComparison.OrdinalIgnoreCase)
            )
                own.Add(doi);
            else if (value.Length < doi.Length + 40)
                bare.Add(doi);
        }
        var first = known ?? own.FirstOrDefault();
        // One bare DOI, and none elsewhere: repositories put the published article's own there. Of several nobody can
        // tell.
        if (first is null && bare.Distinct().ToArray() is [var only])
            first = only;
        versions.AddRange(own.Where(d => d != first).Select(d => new VersionLink(d)));
        return new(first, [.. versions.DistinctBy(v => v.Doi).Where(v => v.Doi != first)], references, part);
    }

    [GeneratedRegex(
        @"^\s*(?:references?|cites|citation)\b\s*:?|info:eu-repo/semantics/reference/|^\s*dcterms[:.]references\b\s*:?",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Cites();

    [GeneratedRegex(
        @"^\s*(?:is ?part ?of|in|host|dcterms[:.]ispartof)\b\s*:?",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Part();

    [GeneratedRegex(
        @"^\s*(?:is ?version ?of|has ?version|is ?format ?of|has ?format|is ?previous ?version ?of"
            + @"|is ?new ?version ?of|dcterms[:.](?:is|has)(?:version|format)(?:of)?)\b\s*:?",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Version();

    [GeneratedRegex(
        @"^\s*(?:has ?part|is ?referenced ?by|is ?cited ?by|requires|is ?required ?by|replaces"
            + @"|is ?replaced ?by|conforms ?to|is ?supplement(?:ed)?|has ?supplement|info:eu-repo/grantAgreement"
            + @"|info:eu-repo/semantics/dataset)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Other();
}
