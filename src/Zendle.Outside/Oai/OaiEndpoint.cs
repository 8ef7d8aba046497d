using System.Globalization;
using System.Text;
using System.Xml.Linq;

namespace Zendle.Outside.Oai;

/// <summary>Serves the databases over HTTP, with their faults.</summary>
public static class OaiEndpoint
{
    private const string Xml = "text/xml; charset=utf-8";

    /// <summary>Maps <c>/{database}/oai</c> for GET and POST.</summary>
    public static void MapOai(
        this WebApplication app,
        IReadOnlyDictionary<string, OaiService> services,
        Faults faults
    ) =>
        app.MapMethods(
            "/{key}/oai",
            ["GET", "POST"],
            async (string key, HttpContext http, CancellationToken cancel) =>
            {
                if (!services.TryGetValue(key, out var service))
                    return Results.NotFound();
                IEnumerable<KeyValuePair<string, Microsoft.Extensions.Primitives.StringValues>> given =
                    http.Request.HasFormContentType ? await http.Request.ReadFormAsync(cancel) : http.Request.Query;
                var arguments = given
                    .SelectMany(a => a.Value.Select(v => KeyValuePair.Create(a.Key, v ?? "")))
                    .ToList();
                var host = $"{http.Request.Scheme}://{http.Request.Host}";
                var isList = arguments.Contains(KeyValuePair.Create("verb", "ListRecords"));
                var fault = isList ? faults.Next(key) : "none";
                switch (fault)
                {
                    case "down":
                        return Results.StatusCode(500);
                    case "busy":
                        http.Response.Headers.RetryAfter = "1";
                        return Results.StatusCode(503);
                    case "slow":
                        await Task.Delay(TimeSpan.FromSeconds(3), cancel);
                        break;
                    case "redirect":
                        return Results.Redirect(host + $"/{key}/oai{http.Request.QueryString}");
                    case "expired":
                        arguments =
                        [
                            .. arguments.Select(a =>
                                a.Key == "resumptionToken" ? KeyValuePair.Create(a.Key, "worn-out") : a
                            ),
                        ];
                        break;
                }
                var reply = service.Reply(arguments, $"{host}/{key}/oai", host);
                if (fault == "endless")
                    foreach (var token in reply.Descendants().Where(e => e.Name.LocalName == "resumptionToken"))
                        token.Value = arguments.Find(a => a.Key == "resumptionToken").Value ?? token.Value;
                var text =
                    "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n" + reply.ToString(SaveOptions.DisableFormatting);
                if (fault == "malformed")
                    text = text.Replace("</metadata>", "</metadat>", StringComparison.Ordinal);
                if (fault == "doctype")
                    text = text.Replace("?>\n", "?>\n<!DOCTYPE x [<!ENTITY a \"aaaa\">]>\n", StringComparison.Ordinal);
                if (fault == "cut")
                {
                    http.Response.ContentType = Xml;
                    http.Response.ContentLength = Encoding.UTF8.GetByteCount(text);
                    await http.Response.WriteAsync(text[..(text.Length / 2)], cancel);
                    http.Abort();
                    return Results.Empty;
                }
                return Results.Text(text, Xml, Encoding.UTF8);
            }
        );

    /// <summary>Maps the clock and the faults: what a person or a test moves.</summary>
    public static void MapControls(
        this WebApplication app,
        OutsideClock clock,
        Faults faults,
        IReadOnlyDictionary<string, OaiService> services
    )
    {
        app.MapGet(
            "/clock",
            () => Results.Text(clock.Now.UtcDateTime.ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture))
        );
        app.MapPost(
            "/clock",
            async (HttpContext http, double? days) =>
            {
                // From the outside's own page the number comes as a form, and the answer is that page again.
                if (
                    http.Request.HasFormContentType
                    && (await http.Request.ReadFormAsync())["days"].ToString() is { Length: > 0 } typed
                    && double.TryParse(typed, NumberStyles.Float, CultureInfo.InvariantCulture, out var read)
                )
                    days = read;
                if (days is null or <= 0 or > 3660)
                    return Results.BadRequest("Days are above 0 and at most 3660.");
                clock.Move(TimeSpan.FromDays(days.Value));
                return http.Request.HasFormContentType
                    ? Results.Redirect("/")
                    : Results.Text(
                        clock.Now.UtcDateTime.ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture)
                    );
            }
        );
        app.MapPost(
            "/faults",
            async (HttpContext http, string? database, string? kind, int? times) =>
            {
                if (http.Request.HasFormContentType)
                {
                    var form = await http.Request.ReadFormAsync();
                    (database, kind, times) = (
                        form["database"],
                        form["kind"],
                        int.TryParse(form["times"], NumberStyles.None, CultureInfo.InvariantCulture, out var typed)
                            ? typed
                            : 1
                    );
                }
                if (
                    database is null
                    || kind is null
                    || !services.ContainsKey(database)
                    || !faults.Set(database, kind, times ?? 1)
                )
                    return Results.BadRequest("Unknown database or kind of fault.");
                return http.Request.HasFormContentType ? Results.Redirect("/") : Results.Ok();
            }
        );
    }
}
