using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>What may be done with a text, as records say it: by an address, in a vocabulary, or in words.</summary>
/// <param name="Licence">The licence: its address where it has one, else the words; null when none is named.</param>
/// <param name="Access">What it takes to read the text.</param>
/// <param name="OpensOn">From which day anyone may read it, of one under embargo; null for none, or no day told.</param>
public sealed partial record Rights(string? Licence, CopyAccess Access, DateOnly? OpensOn = null)
{
    /// <summary>Nothing is said.</summary>
    public static Rights Unknown { get; } = new(null, CopyAccess.Unknown);

    /// <summary>
    /// Reads all statements of a record: Creative Commons by address or name, the terms of
    /// <c>info:eu-repo/semantics</c> (openAccess, embargoedAccess, restrictedAccess, closedAccess), the COAR access
    /// rights, and plain words in five languages. A licence that lets everybody pass the text on lets everybody read
    /// it.
    /// </summary>
    public static Rights Of(IEnumerable<string> statements)
    {
        var rights = Unknown;
        foreach (var statement in statements)
        {
            var one = One(statement);
            // A closed door is closed whatever the licence of what lies behind it; else what is said first holds.
            rights = new(
                rights.Licence is null
                || (
                    one.Licence?.StartsWith("https://", StringComparison.Ordinal) == true
                    && !rights.Licence.StartsWith("https://", StringComparison.Ordinal)
                )
                    ? one.Licence ?? rights.Licence
                    : rights.Licence,
                rights.Access == CopyAccess.Closed || one.Access == CopyAccess.Unknown ? rights.Access
                    : one.Access == CopyAccess.Closed ? CopyAccess.Closed
                    : one.Access,
                rights.OpensOn ?? one.OpensOn
            );
        }
        return rights;
    }

    /// <summary>
    /// Copies with what their record says of them all: whether they may be read, where a copy does not say so itself, and from
    /// which day. Where they lie with several hosts, the end of an embargo is a manuscript's: the version of record opens on no
    /// day.
    /// </summary>
    public IEnumerable<Copy> Over(IReadOnlyCollection<Copy> copies)
    {
        var isOfOne = copies.Select(c => WebAddress.Of(c.Address)?.Host).Distinct().Count() < 2;
        return copies
            .Select(c => c.Access == CopyAccess.Unknown ? c with { Access = Access } : c)
            .Select(c =>
                c is { Access: CopyAccess.Closed, OpensOn: null }
                && (c.Version is { } version ? !WorkVersions.IsOfRecord(version) || copies.Count == 1 : isOfOne)
                    ? c with
                    {
                        OpensOn = OpensOn,
                    }
                    : c
            );
    }

    private static Rights One(string statement)
    {
        var text = statement.Trim();
        if (text.Length == 0)
            return Unknown;
        if (CreativeCommonsAddress().Match(text) is { Success: true } address)
        {
            var kind = address.Groups["kind"].Value.ToLowerInvariant();
            var version = address.Groups["version"].Value;
            var zero = kind is "zero" or "mark";
            if (version.Length == 0)
                version = zero ? "1.0" : "4.0";
            var folder = zero ? "publicdomain" : "licenses";
            return new($"https://creativecommons.org/{folder}/{kind}/{version}/", CopyAccess.Free);
        }
        if (CreativeCommonsName().Match(text) is { Success: true } name)
        {
            if (name.Groups["zero"].Success)
                return new("https://creativecommons.org/publicdomain/zero/1.0/", CopyAccess.Free);
            var parts = text[name.Index..].ToLowerInvariant();
            string[] kinds =
            [
                "by",
                .. Parts
                    .Where(p =>
                        Regex.IsMatch(parts, p.Pattern, RegexOptions.CultureInvariant, TimeSpan.FromMilliseconds(200))
                    )
                    .Select(p => p.Part),
            ];
            var version = Version().Match(parts) is { Success: true } v ? v.Value : null;
            // Without its number a licence has no address.
            return new(
                version is null
                    ? $"CC {string.Join('-', kinds).ToUpperInvariant()}"
                    : $"https://creativecommons.org/licenses/{string.Join('-', kinds)}/{version}/",
                CopyAccess.Free
            );
        }
        if (EmbargoEnd.In(text) is { } opens)
            return new(null, CopyAccess.Closed, opens);
        if (Closed().IsMatch(text))
            return new(null, CopyAccess.Closed);
        if (Open().IsMatch(text))
            return new(null, CopyAccess.Free);
        if (Copyright().IsMatch(text))
            return Unknown;
        return WebAddress.Of(text) is not null ? new(text, CopyAccess.Unknown)
            : text.Length <= 200 && NamesLicence().IsMatch(text) ? new(text, CopyAccess.Unknown)
            : Unknown;
    }

    private static readonly (string Part, string Pattern)[] Parts =
    [
        (
            "nc",
            @"\bnc\b|non-?commercial|nicht[- ]?kommerziell|pas d.utilisation commerciale|no ?comercial|n[ãa]o comercial"
        ),
        ("nd", @"\bnd\b|no ?deriv|keine bearbeitung|pas de modification|sin ?(?:obra)?derivad|sem deriva"),
        ("sa", @"\bsa\b|share-? ?alike|weitergabe unter gleichen|partage dans les m|compartir ?igual|compartilha"),
    ];

    [GeneratedRegex(
        @"creativecommons\.org/(?:licen[sc]es|publicdomain)/(?<kind>by(?:-nc)?(?:-nd|-sa)?|zero|mark)(?:/(?<version>\d\.\d))?",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex CreativeCommonsAddress();

    [GeneratedRegex(
        @"\b(?<zero>cc[- ]?0|cc[- ]?zero|public domain)\b|\bcc[- ]by\b|\bccby\b"
            + @"|creative commons[- ,:]*(?:attribution|namensnennung|paternit[ée]|attribution|reconocimiento"
            + @"|atribuci[óo]n|atribui[çc][ãa]o|by\b)|\battribution(?:-| )?(?:non-?commercial|no-?deriv"
            + @"|share-?alike|\d\.\d international)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex CreativeCommonsName();

    [GeneratedRegex(@"\b\d\.\d\b", RegexOptions.CultureInvariant)]
    private static partial Regex Version();

    [GeneratedRegex(
        @"restrictedAccess|closedAccess|embargoedAccess|metadata only|(?:closed|restricted|embargoed|no"
            + @"|campus) access|access (?:is )?(?:restricted|closed)|c_16ec\b|c_14cb\b|c_f1cf\b|under embargo"
            + @"|nur im campusnetz|kein zugriff|acc[èe]s (?:restreint|ferm[ée]|limit[ée])|acceso (?:cerrado"
            + @"|restringido|embargado)|acesso (?:fechado|restrito|embargado)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Closed();

    [GeneratedRegex(
        @"openAccess|open access|c_abf2\b|free(?:ly)? (?:access|available|accessible)|frei zug[äa]nglich"
            + @"|acc[èe]s (?:libre|ouvert)|libre acc[èe]s|acceso abierto|acesso (?:aberto|livre)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Open();

    [GeneratedRegex(
        @"^(?:©|\(c\)|copyright\b|all rights reserved|alle rechte vorbehalten|tous droits r)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Copyright();

    [GeneratedRegex(@"licen[sc]e|lizenz|licencia|licen[çc]a", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex NamesLicence();
}
