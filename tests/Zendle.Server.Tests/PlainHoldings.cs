using System.Globalization;
using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A file of holdings read again without Zendle's reader, as plainly as can be: by its column names, and by volume and issue
/// alone, which its lines and the records all tell.
/// </summary>
internal sealed class PlainHoldings
{
    private readonly List<Dictionary<string, string>> lines = [];

    public static async Task<PlainHoldings> Read(HttpClient http, Uri address)
    {
        var read = new PlainHoldings();
        var text = (await http.GetStringAsync(address))
            .TrimStart('\uFEFF')
            .Split('\n', StringSplitOptions.RemoveEmptyEntries);
        var names = text[0].Trim('\r').Split('\t');
        foreach (var line in text[1..])
            read.lines.Add(
                names.Zip(line.Trim('\r').Split('\t')).ToDictionary(c => c.First, c => c.Second, StringComparer.Ordinal)
            );
        return read;
    }

    /// <summary>Whether a work is held; null for one whose records do not tell enough.</summary>
    public bool? Says(JsonNode work)
    {
        string? Chosen(string field) => work[field] is JsonValue v ? v.ToString() : null;
        var (issn, isbn) = (Chosen("issn"), Chosen("isbn"));
        if (issn is null && isbn is null)
            return null;
        if (isbn is not null)
            return lines.Exists(l => l["online_identifier"] == isbn) ? true : null;
        if (Number(Chosen("volume")) is not { } volume || Number(Chosen("issue")) is not { } issue)
            return null;
        var year = int.Parse(Chosen("year")!, CultureInfo.InvariantCulture);
        var of = lines.FindAll(l => l["print_identifier"] == issn);
        if (of.Count == 0)
            return null;
        return of.Exists(l =>
            l["coverage_depth"] == "fulltext"
            && (volume, issue).CompareTo(
                (Number(l["num_first_vol_online"])!.Value, Number(l["num_first_issue_online"])!.Value)
            ) >= 0
            && (
                l["num_last_vol_online"].Length == 0
                || (volume, issue).CompareTo(
                    (Number(l["num_last_vol_online"])!.Value, Number(l["num_last_issue_online"])!.Value)
                ) <= 0
            )
            && l["embargo_info"] switch
            {
                "P1Y" => year <= 2025,
                "P2Y" => year <= 2024,
                "R10Y" => year >= 2017,
                _ => true,
            }
        );
    }

    private static int? Number(string? text) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var n) ? n : null;
}
