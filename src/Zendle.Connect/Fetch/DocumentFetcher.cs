using System.Globalization;
using System.Net;
using System.Text;
using Zendle.Core.FullText;

namespace Zendle.Connect.Fetch;

/// <summary>What came of asking one address for a document.</summary>
/// <param name="Outcome">Null when a document came; else why none did.</param>
/// <param name="Sentence">What happened, for a person.</param>
/// <param name="Address">The last address asked.</param>
/// <param name="Bytes">The document; null when none came.</param>
/// <param name="Price">The price asked; null when none was.</param>
/// <param name="AskedToWait">How long the hosts on the way asked to be left alone, all together.</param>
/// <param name="Page">Where no document came: the page that the link opens, which may hold the text itself.</param>
public sealed record Fetched(
    AttemptOutcome? Outcome,
    string Sentence,
    Uri Address,
    byte[]? Bytes = null,
    string? Price = null,
    TimeSpan AskedToWait = default,
    FetchedPage? Page = null
);

/// <summary>The work whose text is fetched.</summary>
/// <param name="Titles">Its titles.</param>
/// <param name="IsPart">Whether it is a chapter: then a page that has the whole book may name it, too.</param>
public sealed record WantedText(IReadOnlyList<string> Titles, bool IsPart);

/// <summary>A page that came instead of a document.</summary>
/// <param name="Address">Where it lies.</param>
/// <param name="Bytes">The page.</param>
public sealed record FetchedPage(Uri Address, byte[] Bytes);

/// <summary>How a fetch goes on, for showing.</summary>
/// <param name="Sentence">What is going on.</param>
/// <param name="Share">Share of the document that has come, 0–1; null when not known.</param>
public readonly record struct FetchProgress(string Sentence, double? Share = null);

/// <summary>
/// Fetches documents over HTTP: from an address to the document, through at most one landing page by its Signposting or its
/// <c>meta</c> elements. Only allowed addresses, checked before each request and after name resolution; limits on size
/// (after decompression), time and redirects; at most two requests at a host; its robots.txt and Retry-After kept. Prices
/// are noted, never paid; cookies last for one fetch; no passwords, no scripts.
/// </summary>
public sealed class DocumentFetcher : IDisposable
{
    private readonly HttpClient http;
    private readonly AddressPolicy policy;
    private readonly FetchLimits limits;
    private readonly TimeProvider clock;
    private readonly HostGate gate;
    private readonly HostManners manners;

    /// <summary>Makes a fetcher.</summary>
    /// <param name="policy">What may be asked.</param>
    /// <param name="limits">What a document may cost.</param>
    /// <param name="clock">For waiting.</param>
    /// <param name="contact">Where hosts can write to whoever runs this Zendle; null for nowhere.</param>
    public DocumentFetcher(AddressPolicy policy, FetchLimits limits, TimeProvider clock, string? contact = null)
    {
        (this.policy, this.limits, this.clock) = (policy, limits, clock);
        gate = new(limits.PerHost, clock);
        http = OutsideHttp.Client(policy, "full text", contact);
        http.DefaultRequestHeaders.Accept.ParseAdd(
            "application/pdf, application/xml;q=0.9, application/epub+zip;q=0.85, text/html;q=0.8, */*;q=0.1"
        );
        manners = new(http, policy, limits, clock);
    }

    /// <summary>So many of the addresses that a page names are tried.</summary>
    private const int MostTried = 3;

    /// <summary>A reply that was read: a document, or a page with its signposts.</summary>
    private sealed record Reply(Uri Address, byte[]? Document, Signposts? Page, byte[] Bytes);

    /// <summary>Ends a fetch with its outcome.</summary>
    private sealed class FetchEndException(AttemptOutcome outcome, string sentence, Uri address) : Exception(sentence)
    {
        public AttemptOutcome Outcome { get; } = outcome;
        public Uri Address { get; } = address;
    }

    /// <summary>
    /// Fetches the document behind an address. Never throws for what the other side does; only when cancelled.
    /// </summary>
    /// <param name="address">The address.</param>
    /// <param name="progress">Told how it goes on.</param>
    /// <param name="cancel">Stops.</param>
    /// <param name="pass">The library it goes through; null for none.</param>
    /// <param name="wanted">The work, for being known in a table of contents; null when it is not.</param>
    public async Task<Fetched> Fetch(
        Uri address,
        Action<FetchProgress> progress,
        CancellationToken cancel,
        LibraryPass? pass = null,
        WantedText? wanted = null
    )
    {
        var visit = new Visit(pass, wanted);
        return await Fetch(address, visit, progress, cancel) with { AskedToWait = visit.AskedToWait };
    }

    /// <summary>Fetches a figure of a document; null when it does not come.</summary>
    public async Task<byte[]?> Figure(Uri address, CancellationToken cancel)
    {
        try
        {
            return (await Ask(address, new() { Most = limits.Figure }, _ => { }, cancel)).Document;
        }
        catch (FetchEndException)
        {
            return null;
        }
    }

    private async Task<Fetched> Fetch(
        Uri address,
        Visit visit,
        Action<FetchProgress> progress,
        CancellationToken cancel
    )
    {
        Reply landing;
        try
        {
            landing = await Ask(address, visit, progress, cancel);
        }
        catch (FetchEndException e)
        {
            return new(e.Outcome, e.Message, e.Address);
        }
        if (landing.Document is { } direct)
            return new(null, "The document came.", landing.Address, direct);
        var page = landing.Page!;
        Fetched? failed = null;
        if (visit.Onward(page, landing.Address) is { Length: > 0 } ways)
        {
            var found = await Through(ways, visit, progress, cancel);
            if (found.Outcome is null)
                return found;
            failed = found;
        }
        // The first that fails says why; others are tried all the same.
        foreach (var text in page.Texts.Where(t => t.Address != landing.Address).Take(MostTried))
            try
            {
                var reply = await Ask(text.Address, visit, progress, cancel);
                if (reply.Document is { } document)
                    return new(null, "The document came.", reply.Address, document);
                // What is said to be a page may be the text.
                if (Signposts.MayBePage(text))
                    return new(null, "The document came.", reply.Address, reply.Bytes);
                failed ??= reply.Page!.AsksForPassword
                    ? AsksToSignIn(reply.Address)
                    : new(
                        AttemptOutcome.NotADocument,
                        "The link opens a web page instead of the document.",
                        reply.Address
                    );
            }
            catch (FetchEndException e)
            {
                failed ??=
                    e.Outcome == AttemptOutcome.PriceAsked && page.Price is { } price
                        ? Priced(price, e.Address)
                        : new(e.Outcome, e.Message, e.Address);
            }
        failed ??=
            page.Price is { } asked ? Priced(asked, landing.Address)
            : page.AsksForPassword ? AsksToSignIn(landing.Address)
            : new(AttemptOutcome.NoTextThere, "The link opens a page that has no link to the text.", landing.Address);
        return failed with { Page = new(landing.Address, landing.Bytes) };
    }

    private async Task<Fetched> Through(
        Uri[] ways,
        Visit visit,
        Action<FetchProgress> progress,
        CancellationToken cancel
    )
    {
        Fetched? failed = null;
        foreach (var way in ways.Take(MostTried))
        {
            var fetched = await Fetch(way, visit, progress, cancel);
            if (fetched.Outcome is null)
                return fetched;
            failed ??= fetched;
        }
        return failed!;
    }

    private static Fetched AsksToSignIn(Uri at) => new(AttemptOutcome.SignInAsked, "The host asks for a sign-in.", at);

    private static Fetched Priced(string price, Uri address) =>
        new(AttemptOutcome.PriceAsked, $"{price} asked; nothing was paid.", address, Price: price);

    /// <summary>What is known of a host's rules; null when they were not read since the start.</summary>
    /// <param name="host">Scheme, name and port.</param>
    public HostRules? RulesOf(string host) => manners.Known(host);

    /// <summary>Until when a host is left alone because it failed again and again; null when it is not.</summary>
    public DateTimeOffset? RestsUntil(Uri address) => gate.RestsUntil(address);

    /// <summary>Ends the fetch where the host does not allow programs, or is left alone.</summary>
    /// <returns>How far apart it wants requests.</returns>
    private async Task<TimeSpan> Mind(Uri at, CancellationToken cancel)
    {
        if (gate.RestsUntil(at) is { } until)
            throw new FetchEndException(
                AttemptOutcome.Busy,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The host failed {HostGate.MostFailures} times in a row and is not asked again until {until:HH:mm} UTC; try later."
                ),
                at
            );
        var rules = await manners.Of(at, cancel);
        if (rules.Fault is { } fault)
            throw OutsideHttp.NotAllowed(fault) is { } no
                ? new FetchEndException(AttemptOutcome.NotAllowed, no.Message, at)
                : new FetchEndException(
                    AttemptOutcome.Unreachable,
                    "The host does not answer requests for its robots.txt, which says what programs may fetch.",
                    at
                );
        if (!rules.Rules.Allows(at))
            throw new FetchEndException(
                AttemptOutcome.KeptAway,
                "The host does not allow programs at this address (robots.txt). You can open it yourself.",
                at
            );
        return rules.Rules.Delay;
    }

    private async Task<Reply> Ask(Uri address, Visit visit, Action<FetchProgress> progress, CancellationToken cancel)
    {
        for (var (redirects, waits, failures, at) = (0, 0, 0, address); ; )
        {
            if (policy.WhyNot(at) is { } whyNot)
                throw new FetchEndException(AttemptOutcome.NotAllowed, whyNot, at);
            var apart = await Mind(at, cancel);
            TimeSpan wait;
            using (
                await gate.Enter(
                    at,
                    apart,
                    left => progress(new($"waits for {at.Host}, {Math.Ceiling(left.TotalSeconds):0} s")),
                    cancel
                )
            )
            {
                progress(new($"asks {at.Host}"));
                using var whole = CancellationTokenSource.CreateLinkedTokenSource(cancel);
                using var timer = clock.CreateTimer(_ => whole.Cancel(), null, limits.Whole, Timeout.InfiniteTimeSpan);
                try
                {
                    using var response = await Begin(visit.Request(at), whole.Token);
                    visit.Take(response, at);
                    if ((int)response.StatusCode is 500 or 502 or 504 && failures++ < limits.Retries)
                    {
                        gate.Hold(at, limits.RetryPause);
                        continue;
                    }
                    // A host that asks to wait is well.
                    gate.Went(
                        at,
                        response.StatusCode == HttpStatusCode.ServiceUnavailable || (int)response.StatusCode < 500
                    );
                    if (OutsideHttp.Redirect(response, at) is { } next)
                    {
                        if (++redirects > limits.Redirects)
                            throw new FetchEndException(
                                AttemptOutcome.RedirectLoop,
                                $"Redirected more than {limits.Redirects} times.",
                                at
                            );
                        at = next;
                        continue;
                    }
                    if (
                        response.StatusCode is not (HttpStatusCode.TooManyRequests or HttpStatusCode.ServiceUnavailable)
                    )
                        return await Read(response, at, visit.Most, progress, whole.Token);
                    wait = response.Headers.RetryAfter is { } after
                        ? after.Delta ?? after.Date - clock.GetUtcNow() ?? TimeSpan.FromSeconds(5)
                        : TimeSpan.FromSeconds(5);
                    if (++waits > limits.Waits || wait > limits.LongestWait)
                        throw new FetchEndException(
                            AttemptOutcome.Busy,
                            string.Create(
                                CultureInfo.InvariantCulture,
                                $"The host asks to wait "
                                    + $"{(waits > limits.Waits ? "again and again" : $"{wait.TotalSeconds:0} seconds")}; "
                                    + $"try later."
                            ),
                            at
                        );
                    visit.AskedToWait += wait;
                    gate.Hold(at, wait < TimeSpan.FromMilliseconds(200) ? TimeSpan.FromMilliseconds(200) : wait);
                }
                catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
                {
                    throw new FetchEndException(AttemptOutcome.TooSlow, "The reply took too long.", at);
                }
                catch (ReplyTooLongException e)
                {
                    throw new FetchEndException(AttemptOutcome.TooLarge, e.Message, at);
                }
                catch (HttpRequestException e) when (OutsideHttp.NotAllowed(e) is { } no)
                {
                    throw new FetchEndException(AttemptOutcome.NotAllowed, no.Message, at);
                }
                catch (Exception e) when (e is HttpRequestException or IOException or InvalidDataException)
                {
                    if (failures++ < limits.Retries)
                    {
                        gate.Hold(at, limits.RetryPause);
                        continue;
                    }
                    gate.Went(at, isWell: false);
                    throw new FetchEndException(
                        AttemptOutcome.Unreachable,
                        "The host does not answer, or broke off in the middle.",
                        at
                    );
                }
            }
        }
    }

    private async Task<HttpResponseMessage> Begin(HttpRequestMessage request, CancellationToken cancel)
    {
        using var _ = request;
        using var begin = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        using var timer = clock.CreateTimer(_ => begin.Cancel(), null, limits.Begin, Timeout.InfiniteTimeSpan);
        return await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, begin.Token);
    }

    private async Task<Reply> Read(
        HttpResponseMessage response,
        Uri at,
        long? most,
        Action<FetchProgress> progress,
        CancellationToken cancel
    )
    {
        if (Refusal(response.StatusCode) is { } refusal)
            throw new FetchEndException(refusal.Outcome, refusal.Sentence, at);
        var type = response.Content.Headers.ContentType?.MediaType?.ToLowerInvariant() ?? "";
        var isPage = type is "text/html" or "application/xhtml+xml";
        var limit = isPage ? limits.Page : most ?? limits.Document;
        var total = response.Content.Headers.ContentLength;
        if (total > limit)
            throw new ReplyTooLongException(limit);
        await using var body = new LimitedStream(await response.Content.ReadAsStreamAsync(cancel), limit);
        using var to = new MemoryStream();
        var buffer = new byte[64 * 1024];
        for (int n; (n = await body.ReadAsync(buffer, cancel)) > 0; )
        {
            to.Write(buffer, 0, n);
            if (!isPage)
                progress(new("fetches", total > 0 ? Math.Min(1, (double)to.Length / total.Value) : null));
        }
        var bytes = to.ToArray();
        // Servers mislabel: what begins as a PDF is one.
        if (!isPage || bytes.AsSpan(0, Math.Min(8, bytes.Length)).StartsWith("%PDF-"u8))
            return new(at, bytes, null, bytes);
        var links = response.Headers.TryGetValues("Link", out var values) ? values : [];
        return new(at, null, Signposts.Read(at, links, Encoding.UTF8.GetString(bytes)), bytes);
    }

    private static (AttemptOutcome Outcome, string Sentence)? Refusal(HttpStatusCode status) =>
        (int)status switch
        {
            >= 200 and < 300 => null,
            402 => (AttemptOutcome.PriceAsked, "A price is asked; nothing was paid."),
            401 or 403 => (AttemptOutcome.SignInAsked, "The host asks for a sign-in."),
            404 or 410 => (AttemptOutcome.DeadLink, "There is nothing at the address any more."),
            var code and >= 500 => (AttemptOutcome.Unreachable, $"The host failed (status {code})."),
            var code => (AttemptOutcome.Unreachable, $"The host refused (status {code})."),
        };

    /// <inheritdoc/>
    public void Dispose() => http.Dispose();
}
