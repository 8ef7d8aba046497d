using System.Globalization;
using System.Text.Json;
using AngleSharp.Html.Parser;

namespace Zendle.Connect.Fetch;

/// <summary>One typed link of a page (RFC 8288).</summary>
/// <param name="Address">Where it leads.</param>
/// <param name="Rel">Its relation, in lower case.</param>
/// <param name="Type">Media type of what lies there; null when not said.</param>
public sealed record TypedLink(Uri Address, string Rel, string? Type);

/// <summary>A link of a page.</summary>
/// <param name="Address">Where it leads.</param>
/// <param name="Text">What it says.</param>
/// <param name="Row">What the row of a list or table says that it stands in; empty for none.</param>
public sealed record PageLink(Uri Address, string Text, string Row);

/// <summary>
/// What a landing page says to machines: FAIR Signposting links (signposting.org/FAIR; relations cite-as, item, type,
/// author, license, describedby) from its Link header and its head, the addresses of texts in its <c>meta</c> elements as
/// items, too, and the price in its schema.org description.
/// </summary>
/// <param name="Links">Its typed links.</param>
/// <param name="Price">The price asked, like "29.00 EUR"; null when none is said.</param>
/// <param name="IsFree">Whether the page says that the text is free; null when it does not say.</param>
public sealed record Signposts(IReadOnlyList<TypedLink> Links, string? Price, bool? IsFree)
{
    private const int MostLinks = 400,
        LongestRow = 1_000;

    /// <summary>The links of its body, in their order.</summary>
    public IReadOnlyList<PageLink> Anchors { get; init; } = [];

    /// <summary>Whether it has a field for a password.</summary>
    public bool AsksForPassword { get; init; }

    /// <summary>
    /// Where the text may lie, the likeliest first: PDFs, then the article in XML, as an EPUB, as a page, then what is
    /// not said to be anything; of each, in the order they are named.
    /// </summary>
    public IReadOnlyList<TypedLink> Texts =>
        [
            .. Links
                .Where(l => RankOf(l.Type) >= 0 && (l.Rel == Item || (l.Rel == "alternate" && l.Type == Pdf)))
                .OrderBy(l => RankOf(l.Type))
                .DistinctBy(l => l.Address),
        ];

    /// <summary>Whether a page may lie where a text is said to lie.</summary>
    public static bool MayBePage(TypedLink text) => text.Type is not (null or Pdf);

    private const string Pdf = "application/pdf",
        Xml = "application/xml",
        Html = "text/html",
        Item = "item";

    /// <summary>Names of <c>meta</c> elements that hold the address of a text, as publishers and repositories write them for
    /// indexes of scholarly works.</summary>
    private static readonly Dictionary<string, string> Metas = new(StringComparer.OrdinalIgnoreCase)
    {
        ["citation_pdf_url"] = Pdf,
        ["eprints.document_url"] = Pdf,
        ["bepress_citation_pdf_url"] = Pdf,
        ["citation_xml_url"] = Xml,
        ["citation_fulltext_html_url"] = Html,
        ["citation_full_html_url"] = Html,
    };

    private static int RankOf(string? type) =>
        type switch
        {
            Pdf => 0,
            Xml or "text/xml" or "application/jats+xml" or "application/vnd.jats+xml" => 1,
            "application/epub+zip" => 2,
            Html or "application/xhtml+xml" => 3,
            null => 4,
            _ => -1,
        };

    /// <summary>Reads a page. Malformed parts are passed over.</summary>
    /// <param name="page">Address of the page, for relative links.</param>
    /// <param name="headers">Values of its Link headers.</param>
    /// <param name="html">Its HTML; empty for none. Scripts are not run, nothing is loaded.</param>
    public static Signposts Read(Uri page, IEnumerable<string> headers, string html)
    {
        var links = headers.SelectMany(h => FromHeader(page, h)).ToList();
        string? price = null;
        bool? free = null;
        var (anchors, asksForPassword) = (new List<PageLink>(), false);
        if (html.Length > 0)
        {
            using var document = new HtmlParser().ParseDocument(html);
            foreach (var element in document.QuerySelectorAll("head link[rel][href]").Take(MostLinks))
                if (Uri.TryCreate(page, element.GetAttribute("href"), out var address))
                    links.AddRange(
                        element
                            .GetAttribute("rel")!
                            .ToLowerInvariant()
                            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                            .Select(rel => new TypedLink(address, rel, MediaType(element.GetAttribute("type"))))
                    );
            foreach (var meta in document.QuerySelectorAll("meta[name][content]").Take(MostLinks))
                if (
                    Metas.TryGetValue(meta.GetAttribute("name")!, out var type)
                    && Uri.TryCreate(page, meta.GetAttribute("content"), out var address)
                )
                    links.Add(new(address, Item, type));
            foreach (var script in document.QuerySelectorAll("script[type='application/ld+json']").Take(8))
                (price, free) = Offer(script.TextContent, price, free);
            foreach (var anchor in document.QuerySelectorAll("a[href]").Take(MostLinks))
                if (
                    Uri.TryCreate(page, anchor.GetAttribute("href"), out var address)
                    && address.Scheme is "http" or "https"
                )
                    anchors.Add(new(address, Words(anchor), Words(anchor.Closest("li,tr,dd,p"))));
            asksForPassword = document.QuerySelector("input[type=password]") is not null;
        }
        return new([.. links.Take(MostLinks)], price, free) { Anchors = anchors, AsksForPassword = asksForPassword };
    }

    private static string Words(AngleSharp.Dom.IElement? of) =>
        of?.TextContent is { Length: <= LongestRow } text ? text : "";

    private static string? MediaType(string? text) =>
        text?.Split(';', 2)[0].Trim().ToLowerInvariant() is { Length: > 0 } type ? type : null;

    /// <summary>Reads one Link header: <c>&lt;address&gt;; rel="item"; type="application/pdf", …</c>.</summary>
    internal static IEnumerable<TypedLink> FromHeader(Uri page, string header)
    {
        var i = 0;
        while (i < header.Length)
        {
            var open = header.IndexOf('<', i);
            var close = open < 0 ? -1 : header.IndexOf('>', open);
            if (close < 0)
                yield break;
            var target = header[(open + 1)..close].Trim();
            var parameters = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
            i = close + 1;
            while (i < header.Length && header[i] != ',')
            {
                if (header[i] is ';' or ' ')
                {
                    i++;
                    continue;
                }
                var start = i;
                while (i < header.Length && header[i] is not ('=' or ';' or ','))
                    i++;
                var name = header[start..i].Trim();
                if (i >= header.Length || header[i] != '=')
                {
                    if (name.Length > 0)
                        parameters.TryAdd(name, "");
                    continue;
                }
                i++;
                string value;
                if (i < header.Length && header[i] == '"')
                {
                    var end = header.IndexOf('"', i + 1);
                    if (end < 0)
                        end = header.Length;
                    value = header[(i + 1)..end];
                    i = Math.Min(header.Length, end + 1);
                }
                else
                {
                    start = i;
                    while (i < header.Length && header[i] is not (';' or ','))
                        i++;
                    value = header[start..i].Trim();
                }
                parameters.TryAdd(name, value);
            }
            i++;
            if (!parameters.TryGetValue("rel", out var rel) || !Uri.TryCreate(page, target, out var address))
                continue;
            foreach (var one in rel.ToLowerInvariant().Split(' ', StringSplitOptions.RemoveEmptyEntries))
                yield return new(address, one, MediaType(parameters.GetValueOrDefault("type")));
        }
    }

    private static (string? Price, bool? Free) Offer(string json, string? price, bool? free)
    {
        try
        {
            using var document = JsonDocument.Parse(json, new() { MaxDepth = 24 });
            var root = document.RootElement;
            if (root.ValueKind != JsonValueKind.Object)
                return (price, free);
            if (
                root.TryGetProperty("isAccessibleForFree", out var said)
                && said.ValueKind is JsonValueKind.True or JsonValueKind.False
            )
                free ??= said.GetBoolean();
            if (!root.TryGetProperty("offers", out var offers))
                return (price, free);
            var offer = offers.ValueKind == JsonValueKind.Array && offers.GetArrayLength() > 0 ? offers[0] : offers;
            if (offer.ValueKind != JsonValueKind.Object || !offer.TryGetProperty("price", out var amount))
                return (price, free);
            var text = amount.ValueKind switch
            {
                JsonValueKind.Number => amount.GetRawText(),
                JsonValueKind.String => amount.GetString(),
                _ => null,
            };
            if (
                !decimal.TryParse(text, NumberStyles.Number, CultureInfo.InvariantCulture, out var number)
                || number <= 0
            )
                return (price, free);
            var currency =
                offer.TryGetProperty("priceCurrency", out var c)
                && c.ValueKind == JsonValueKind.String
                && c.GetString() is { Length: 3 } code
                    ? " " + code.ToUpperInvariant()
                    : "";
            return (price ?? string.Create(CultureInfo.InvariantCulture, $"{number:0.##}{currency}"), free);
        }
        catch (JsonException)
        {
            return (price, free);
        }
    }
}
