using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using Zendle.Outside.World.Databases;

namespace Zendle.Outside.Oai;

/// <summary>An error of the protocol (OAI-PMH 2.0, section 3.6).</summary>
internal sealed class OaiError(string code, string message) : Exception(message)
{
    public string Code { get; } = code;
}

/// <summary>Answers the six verbs of OAI-PMH 2.0 for one database.</summary>
public sealed partial class OaiService(OutsideDatabase database, OutsideClock clock, int pageSize = 100)
{
    private static readonly XNamespace Oai = "http://www.openarchives.org/OAI/2.0/";
    private const string SecondFormat = "yyyy-MM-ddTHH:mm:ssZ";

    private static readonly Dictionary<string, (string[] Required, string[] Optional)> Verbs = new()
    {
        ["Identify"] = ([], []),
        ["ListMetadataFormats"] = ([], ["identifier"]),
        ["ListSets"] = ([], ["resumptionToken"]),
        ["GetRecord"] = (["identifier", "metadataPrefix"], []),
        ["ListIdentifiers"] = (["metadataPrefix"], ["from", "until", "set", "resumptionToken"]),
        ["ListRecords"] = (["metadataPrefix"], ["from", "until", "set", "resumptionToken"]),
    };

    /// <summary>The reply to a request.</summary>
    /// <param name="arguments">All arguments; repeated ones are illegal.</param>
    /// <param name="baseUrl">Address of this service.</param>
    /// <param name="host">Address of the outside, for links.</param>
    public XDocument Reply(IReadOnlyList<KeyValuePair<string, string>> arguments, string baseUrl, string host)
    {
        var now = clock.Now;
        var request = new XElement(Oai + "request", baseUrl);
        var root = new XElement(
            Oai + "OAI-PMH",
            new XAttribute(XNamespace.Xmlns + "xsi", Metadata.Xsi),
            new XAttribute(Metadata.Xsi + "schemaLocation", $"{Oai} {Oai}OAI-PMH.xsd"),
            new XElement(Oai + "responseDate", Text(now)),
            request
        );
        try
        {
            var body = Answer(arguments, baseUrl, host, now);
            foreach (var (name, value) in arguments)
                request.SetAttributeValue(name, value);
            root.Add(body);
        }
        catch (OaiError e)
        {
            if (e.Code is not ("badVerb" or "badArgument"))
                foreach (var (name, value) in arguments)
                    request.SetAttributeValue(name, value);
            root.Add(new XElement(Oai + "error", new XAttribute("code", e.Code), e.Message));
        }
        return new(root);
    }

    private XElement Answer(
        IReadOnlyList<KeyValuePair<string, string>> arguments,
        string baseUrl,
        string host,
        DateTimeOffset now
    )
    {
        var verbs = arguments.Where(a => a.Key == "verb").ToArray();
        if (verbs.Length != 1 || !Verbs.TryGetValue(verbs[0].Value, out var rule))
            throw new OaiError("badVerb", "The verb is missing, repeated or not one of the protocol.");
        var named = new Dictionary<string, string>();
        foreach (var (name, value) in arguments.Where(a => a.Key != "verb"))
        {
            if (!rule.Required.Contains(name) && !rule.Optional.Contains(name))
                throw new OaiError("badArgument", $"The argument {name} is not allowed here.");
            if (!named.TryAdd(name, value))
                throw new OaiError("badArgument", $"The argument {name} is repeated.");
        }
        if (named.ContainsKey("resumptionToken"))
        {
            if (named.Count > 1)
                throw new OaiError("badArgument", "A resumptionToken stands alone.");
        }
        else if (rule.Required.FirstOrDefault(r => !named.ContainsKey(r)) is { } missing)
            throw new OaiError("badArgument", $"The argument {missing} is missing.");
        return verbs[0].Value switch
        {
            "Identify" => Identify(baseUrl),
            "ListMetadataFormats" => Formats(named.GetValueOrDefault("identifier"), now),
            "ListSets" => Sets(named.GetValueOrDefault("resumptionToken"), now),
            "GetRecord" => GetRecord(named["identifier"], named["metadataPrefix"], host, now),
            var verb => List(verb, named, host, now),
        };
    }

    private XElement Identify(string baseUrl) =>
        new(
            Oai + "Identify",
            new XElement(Oai + "repositoryName", database.Name),
            new XElement(Oai + "baseURL", baseUrl),
            new XElement(Oai + "protocolVersion", "2.0"),
            new XElement(Oai + "adminEmail", $"desk@{database.Key}.example"),
            new XElement(Oai + "earliestDatestamp", Text(database.Entries.Min(e => e.Datestamp))),
            new XElement(Oai + "deletedRecord", "persistent"),
            new XElement(Oai + "granularity", "YYYY-MM-DDThh:mm:ssZ"),
            new XElement(
                Oai + "description",
                Metadata.Bare(
                    new XElement(Metadata.Dc + "title", database.Name),
                    new XElement(Metadata.Dc + "description", database.Description)
                )
            )
        );

    private XElement Formats(string? identifier, DateTimeOffset now)
    {
        if (identifier is not null && database.At(now).All(e => e.Identifier != identifier))
            throw new OaiError("idDoesNotExist", "There is no such record here.");
        XElement Format(string prefix, string schema, string space) =>
            new(
                Oai + "metadataFormat",
                new XElement(Oai + "metadataPrefix", prefix),
                new XElement(Oai + "schema", schema),
                new XElement(Oai + "metadataNamespace", space)
            );
        return new(
            Oai + "ListMetadataFormats",
            Format(
                "oai_dc",
                "http://www.openarchives.org/OAI/2.0/oai_dc.xsd",
                "http://www.openarchives.org/OAI/2.0/oai_dc/"
            ),
            Format("mods", "http://www.loc.gov/standards/mods/v3/mods-3-8.xsd", Metadata.M.NamespaceName)
        );
    }

    private XElement Sets(string? token, DateTimeOffset now)
    {
        if (token is not null)
            throw new OaiError("badResumptionToken", "The list of sets fits one page.");
        return new(
            Oai + "ListSets",
            database
                .At(now)
                .SelectMany(e => e.Sets)
                .Distinct()
                .Order(StringComparer.Ordinal)
                .Select(s => new XElement(
                    Oai + "set",
                    new XElement(Oai + "setSpec", s),
                    new XElement(Oai + "setName", s.Replace(':', ' ').Replace('-', ' '))
                ))
        );
    }

    private XElement GetRecord(string identifier, string prefix, string host, DateTimeOffset now)
    {
        CheckPrefix(prefix);
        var entry =
            database.At(now).FirstOrDefault(e => e.Identifier == identifier)
            ?? throw new OaiError("idDoesNotExist", "There is no such record here.");
        return new(Oai + "GetRecord", Record(entry, prefix, host));
    }

    private XElement List(string verb, Dictionary<string, string> named, string host, DateTimeOffset now)
    {
        var page = named.TryGetValue("resumptionToken", out var text)
            ? Token.Read(text, verb)
                ?? throw new OaiError("badResumptionToken", "The token is not known or has expired.")
            : new Token(
                verb,
                named["metadataPrefix"],
                named.GetValueOrDefault("set"),
                Moment(named, "from"),
                Moment(named, "until"),
                now,
                0
            );
        CheckPrefix(page.Prefix);
        CheckRange(named);
        if (page.Set is not null && !SetPattern().IsMatch(page.Set))
            throw new OaiError("badArgument", "set is not the name of a set.");
        if (page.Offset > 0 && now - page.AsOf > TimeSpan.FromDays(1))
            throw new OaiError("badResumptionToken", "The token has expired.");
        var found = database
            .At(page.AsOf)
            .Where(e =>
                (page.From is null || e.Datestamp >= page.From)
                && (page.Until is null || e.Datestamp <= page.Until)
                && (page.Set is null || e.Sets.Contains(page.Set))
            )
            .ToList();
        if (found.Count == 0)
            throw new OaiError("noRecordsMatch", "No records match.");
        var slice = found.Skip(page.Offset).Take(pageSize).ToList();
        var list = new XElement(
            Oai + verb,
            slice.Select(e => verb == "ListIdentifiers" ? Header(e) : Record(e, page.Prefix, host))
        );
        var next = page.Offset + slice.Count;
        if (found.Count > pageSize)
            list.Add(
                new XElement(
                    Oai + "resumptionToken",
                    new XAttribute("completeListSize", found.Count),
                    new XAttribute("cursor", page.Offset),
                    next < found.Count ? (page with { Offset = next }).Write() : ""
                )
            );
        return list;
    }

    private static void CheckPrefix(string prefix)
    {
        if (prefix is not ("oai_dc" or "mods"))
            throw new OaiError("cannotDisseminateFormat", $"Records are not offered as {prefix}.");
    }

    private static void CheckRange(Dictionary<string, string> named)
    {
        if (!named.TryGetValue("from", out var from) || !named.TryGetValue("until", out var until))
            return;
        if (from.Length != until.Length)
            throw new OaiError("badArgument", "from and until differ in granularity.");
        if (string.CompareOrdinal(from, until) > 0)
            throw new OaiError("badArgument", "from lies after until.");
    }

    private static DateTimeOffset? Moment(Dictionary<string, string> named, string name)
    {
        if (!named.TryGetValue(name, out var text))
            return null;
        if (
            !MomentPattern().IsMatch(text)
            || !DateTimeOffset.TryParse(
                text,
                CultureInfo.InvariantCulture,
                DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal,
                out var t
            )
        )
            throw new OaiError("badArgument", $"{name} is not a UTC date of this repository's granularity.");
        return text.Length == 10 && name == "until" ? t.AddDays(1).AddSeconds(-1) : t;
    }

    private static XElement Header(Entry e) =>
        new(
            Oai + "header",
            e.Deleted ? new XAttribute("status", "deleted") : null,
            new XElement(Oai + "identifier", e.Identifier),
            new XElement(Oai + "datestamp", Text(e.Datestamp)),
            e.Sets.Select(s => new XElement(Oai + "setSpec", s))
        );

    private XElement Record(Entry e, string prefix, string host) =>
        new(
            Oai + "record",
            Header(e),
            e.Deleted
                ? null
                : new XElement(
                    Oai + "metadata",
                    prefix == "mods" ? Metadata.Mods(e, database, host) : Metadata.DublinCore(e, host)
                )
        );

    private static string Text(DateTimeOffset t) => t.UtcDateTime.ToString(SecondFormat, CultureInfo.InvariantCulture);

    [GeneratedRegex(@"^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}:\d{2}Z)?$")]
    private static partial Regex MomentPattern();

    /// <summary>setSpecType of the protocol's schema.</summary>
    [GeneratedRegex(@"^[A-Za-z0-9\-_.!~*'()]+(:[A-Za-z0-9\-_.!~*'()]+)*$")]
    private static partial Regex SetPattern();

    private sealed record Token(
        string Verb,
        string Prefix,
        string? Set,
        DateTimeOffset? From,
        DateTimeOffset? Until,
        DateTimeOffset AsOf,
        int Offset
    )
    {
        public string Write() =>
            Convert
                .ToBase64String(
                    Encoding.UTF8.GetBytes(
                        string.Join('|', Verb, Prefix, Set, Ticks(From), Ticks(Until), AsOf.UtcTicks, Offset)
                    )
                )
                .Replace('+', '-')
                .Replace('/', '_');

        public static Token? Read(string text, string verb)
        {
            try
            {
                var p = Encoding
                    .UTF8.GetString(Convert.FromBase64String(text.Replace('-', '+').Replace('_', '/')))
                    .Split('|');
                return p.Length != 7 || p[0] != verb
                    ? null
                    : new(
                        p[0],
                        p[1],
                        p[2].Length == 0 ? null : p[2],
                        Time(p[3]),
                        Time(p[4]),
                        Time(p[5])!.Value,
                        int.Parse(p[6], CultureInfo.InvariantCulture)
                    );
            }
            catch (FormatException)
            {
                return null;
            }
            catch (InvalidOperationException)
            {
                return null;
            }
        }

        private static string Ticks(DateTimeOffset? t) => t?.UtcTicks.ToString(CultureInfo.InvariantCulture) ?? "";

        private static DateTimeOffset? Time(string ticks) =>
            ticks.Length == 0
                ? null
                : new DateTimeOffset(long.Parse(ticks, CultureInfo.InvariantCulture), TimeSpan.Zero);
    }
}
