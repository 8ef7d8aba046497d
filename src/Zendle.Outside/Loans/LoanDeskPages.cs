using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Xml.Linq;
using Zendle.Outside.Documents;
using Zendle.Outside.Oai;
using Zendle.Outside.World;

namespace Zendle.Outside.Loans;

/// <summary>
/// The desks over HTTP: they take requests (ISO 18626), open accounts, write to the requesters when the outside's clock says so,
/// and keep copies at addresses of their own.
/// </summary>
public sealed class LoanDeskPages(
    IReadOnlyList<Work> works,
    Scenario scenario,
    OutsideClock clock,
    DeskSwitches switches
) : IDisposable
{
    private const int MostTries = 60,
        MostRequests = 10_000;
    private static readonly TimeSpan Often = TimeSpan.FromMilliseconds(200);
    private readonly HttpClient http = new() { Timeout = TimeSpan.FromSeconds(10) };
    private readonly ConcurrentDictionary<string, (string Code, string Agency, Uri Address)> accounts = new();
    private readonly ConcurrentDictionary<string, (LendingDesk Desk, DeskRequest Request)> requests = new();
    private readonly List<(LendingDesk Desk, Uri To, string Text, int Tries)> outgoing = [];
    private readonly Lock gate = new();
    private readonly ILookup<string, Work> byDoi = works
        .Where(w => w.Doi is not null)
        .ToLookup(w => w.Doi!, StringComparer.OrdinalIgnoreCase);
    private readonly ILookup<string, Work> byTitle = works.ToLookup(w => Letters(w.Title));

    /// <summary>Maps the addresses, and writes as long as the application runs.</summary>
    public void Map(WebApplication app)
    {
        app.MapPost("/loan-desk/{key}/messages", Take).DisableAntiforgery();
        app.MapPost("/loan-desk/{key}/accounts", Register).DisableAntiforgery();
        app.MapGet("/loan-desk/{key}/copies/{number}.pdf", Copy);
        app.MapPost(
            "/loan-desk/faults",
            (string desk, string kind) =>
                switches.Set(desk, kind) ? Results.Ok() : Results.BadRequest("Unknown desk or fault.")
        );
        // The desk loses its books, as one does that moves to another system.
        app.MapPost("/loan-desk/forget", () => accounts.Clear());
        app.MapGet("/loan-desk/requests", () => Results.Json(Told()));
        app.Lifetime.ApplicationStarted.Register(() =>
            // On a thread of its own, whatever thread starts the application.
            _ = Task.Run(() => Write(app.Lifetime.ApplicationStopping))
        );
        app.Lifetime.ApplicationStopped.Register(Dispose);
    }

    /// <summary>What a library's entry in the directory says of the desks.</summary>
    public static object[] Listed(string host) =>
        [
            .. LendingDesk.All.Select(d =>
                (object)
                    new
                    {
                        name = d.Name,
                        agency = d.Isil,
                        address = $"{host}/loan-desk/{d.Key}/messages",
                        register = $"{host}/loan-desk/{d.Key}/accounts",
                        copyCost = d.CopyCost,
                        loanCost = d.LoanCost,
                        currency = "EUR",
                        mostOpen = d.MostOpen,
                        days = d.Days,
                    }
            ),
        ];

    /// <summary>How the desks stand, for the page of the outside's own state.</summary>
    public string State() =>
        $"""
            <h2>Loan desks</h2>
            <table><tr><th>desk</th><th>a copy, a loan, in EUR</th><th>fault</th></tr>{string.Concat(
                LendingDesk.All.Select(d =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"<tr><td>{d.Name}</td><td>{d.CopyCost:0.00}, {d.LoanCost:0.00}; after {d.Days} days</td>"
                            + $"<td>{switches.Of(d.Key)}</td></tr>"
                    )
                )
            )}</table>
            <p>{requests.Count} requests; <a href="/loan-desk/requests">all of them</a>. What is to come of them comes when time
            moves on, above. Change a desk: <code>POST /loan-desk/faults?desk=voorland&amp;kind=down</code>; kinds: {string.Join(
                ", ",
                DeskSwitches.Kinds
            )}.</p>
            """;

    private object[] Told() =>
        [
            .. requests
                .Values.OrderBy(r => r.Request.Number, StringComparer.Ordinal)
                .Select(r => new
                {
                    desk = r.Desk.Name,
                    number = r.Request.Number,
                    requester = r.Request.Requester,
                    work = r.Request.Work?.Id,
                    title = r.Request.Work?.Title,
                    status = r.Request.Status,
                }),
        ];

    private async Task<IResult> Register(string key, HttpContext http)
    {
        if (LendingDesk.Of(key) is null)
            return Results.NotFound();
        if (switches.Has(key, "down"))
            return Results.StatusCode(503);
        var form = await http.Request.ReadFormAsync();
        if (
            form["agency"].ToString() is not { Length: > 0 and < 100 } agency
            || !Uri.TryCreate(form["address"], UriKind.Absolute, out var address)
        )
            return Results.BadRequest("agency and address are needed.");
        var (account, code) = ($"{agency}-{accounts.Count + 1}", RandomNumberGenerator.GetHexString(24));
        accounts[$"{key} {account}"] = (code, agency, address);
        return Results.Json(new { account, code });
    }

    private async Task<IResult> Take(string key, HttpContext http)
    {
        if (LendingDesk.Of(key) is not { } desk)
            return Results.NotFound();
        switch (switches.Of(key))
        {
            case "down":
                return Results.StatusCode(503);
            case "page":
                return Results.Text("<html>Welcome to the desk.</html>", "text/html");
            case "slow":
                await Task.Delay(TimeSpan.FromSeconds(3), http.RequestAborted);
                break;
        }
        using var reader = new StreamReader(http.Request.Body, Encoding.UTF8);
        var message = DeskXml.Read(await reader.ReadToEndAsync());
        var (fault, about) = message is null
            ? ("BadlyFormedMessage", "no message of ISO 18626")
            : Took(desk, message, $"{http.Request.Scheme}://{http.Request.Host}");
        return Results.Text(DeskXml.Confirmation(message, fault, about, clock.Now), "application/xml");
    }

    private (string? Fault, string About) Took(LendingDesk desk, XElement message, string host)
    {
        var account = DeskXml.At(message, "header", "requestingAgencyAuthentication", "accountId");
        var number = DeskXml.At(message, "header", "requestingAgencyRequestId");
        if (
            !accounts.TryGetValue($"{desk.Key} {account}", out var known)
            || known.Code != DeskXml.At(message, "header", "requestingAgencyAuthentication", "securityCode")
        )
            return ("UnrecognisedDataValue", "accountId");
        if (switches.Has(desk.Key, "refuse"))
            return ("UnrecognisedDataElement", "bibliographicInfo");
        lock (gate)
        {
            var id = $"{desk.Key} {account} {number}";
            if (message.Name.LocalName == "request")
            {
                if (DeskXml.At(message, "bibliographicInfo", "title").Length == 0)
                    return ("UnrecognisedDataElement", "title");
                // The same request again: its answer was lost on the way.
                if (!requests.ContainsKey(id) && requests.Count < MostRequests)
                    requests[id] = (
                        desk,
                        DeskRequest.Of(desk, message, Asked(message), account, host, switches, clock.Now)
                    );
                return (null, "");
            }
            if (message.Name.LocalName != "requestingAgencyMessage")
                return ("UnrecognisedDataElement", message.Name.LocalName);
            if (!requests.TryGetValue(id, out var of))
                return ("UnrecognisedDataValue", "requestingAgencyRequestId");
            if (of.Request.Heard(DeskXml.At(message, "action"), clock.Now) is { } word)
                Post(desk, of.Request, word, known.Address);
            return (null, "");
        }
    }

    /// <summary>The work that a request describes: by DOI, else by ISSN, volume and first page, else by its title.</summary>
    private Work? Asked(XElement message)
    {
        if (DeskXml.Item(message, "DOI") is { Length: > 0 } doi && byDoi[doi].FirstOrDefault() is { } named)
            return named;
        var title = DeskXml.At(message, "bibliographicInfo", "titleOfComponent") is { Length: > 0 } part
            ? part
            : DeskXml.At(message, "bibliographicInfo", "title");
        var (issn, volume, pages) = (
            DeskXml.Item(message, "ISSN"),
            DeskXml.At(message, "bibliographicInfo", "volume"),
            DeskXml.At(message, "bibliographicInfo", "pagesRequested")
        );
        return works.FirstOrDefault(w =>
                w.Journal is not null
                && w.Journal.Issn == issn
                && w.Volume.ToString(CultureInfo.InvariantCulture) == volume
                && pages.StartsWith($"{w.FirstPage}–", StringComparison.Ordinal)
            ) ?? byTitle[Letters(title)].FirstOrDefault();
    }

    private static string Letters(string text) => string.Concat(text.Where(char.IsLetterOrDigit)).ToUpperInvariant();

    private IResult Copy(string key, string number)
    {
        var request = requests.Values.FirstOrDefault(r => r.Desk.Key == key && r.Request.OwnNumber == number).Request;
        if (request is not { IsCopied: true, Work: { } work } || switches.Has(key, "gone"))
            return Results.NotFound();
        if (switches.Has(key, "scan"))
            return Results.Bytes(OddFiles.Scanned(), "application/pdf");
        var printed = switches.Has(key, "wrong") ? works[(work.Id + 1) % works.Count] : work;
        return Results.Bytes(PaperPrinter.Print(Paper.Of(printed, works, scenario, Look.Typeset)), "application/pdf");
    }

    private void Post(LendingDesk desk, DeskRequest request, DeskWord word, Uri to)
    {
        var text = DeskXml.Message(desk, word, request.Requester, request.Number, request.OwnNumber);
        outgoing.Add((desk, to, text, 0));
    }

    /// <summary>Says what is due, and says it again until it is confirmed.</summary>
    private async Task Write(CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
        {
            (LendingDesk Desk, Uri To, string Text, int Tries)[] now;
            lock (gate)
            {
                foreach (var (desk, request) in requests.Values)
                foreach (var word in request.Due(clock.Now))
                    if (accounts.TryGetValue($"{desk.Key} {request.Account}", out var account))
                        Post(desk, request, word, account.Address);
                now = [.. outgoing];
                outgoing.Clear();
            }
            foreach (var (desk, to, text, tries) in Disturbed(now))
                if (!await Sent(to, text, stop) && tries < MostTries)
                    lock (gate)
                        outgoing.Add((desk, to, text, tries + 1));
            try
            {
                await Task.Delay(Often, stop);
            }
            catch (OperationCanceledException)
            {
                return;
            }
        }
    }

    private IEnumerable<(LendingDesk Desk, Uri To, string Text, int Tries)> Disturbed(
        (LendingDesk Desk, Uri To, string Text, int Tries)[] messages
    )
    {
        foreach (var of in messages.GroupBy(m => m.Desk.Key))
        {
            var fault = switches.Of(of.Key);
            foreach (var m in fault == "reversed" ? of.Reverse() : of)
                switch (fault)
                {
                    case "twice":
                        yield return m;
                        yield return m;
                        break;
                    case "malformed":
                        yield return m with
                        {
                            Text = m.Text[..(m.Text.Length / 2)],
                            Tries = MostTries,
                        };
                        yield return m;
                        break;
                    case "unknown":
                        yield return m with
                        {
                            Text = m.Text.Replace(
                                "<requestingAgencyRequestId>Z",
                                "<requestingAgencyRequestId>Y",
                                StringComparison.Ordinal
                            ),
                            Tries = MostTries,
                        };
                        yield return m;
                        break;
                    default:
                        yield return m;
                        break;
                }
        }
    }

    private async Task<bool> Sent(Uri to, string text, CancellationToken stop)
    {
        try
        {
            using var content = new StringContent(text, Encoding.UTF8, "application/xml");
            using var reply = await http.PostAsync(to, content, stop);
            return reply.StatusCode == HttpStatusCode.OK;
        }
        catch (Exception e) when (e is HttpRequestException or OperationCanceledException)
        {
            return false;
        }
    }

    /// <inheritdoc/>
    public void Dispose() => http.Dispose();
}
