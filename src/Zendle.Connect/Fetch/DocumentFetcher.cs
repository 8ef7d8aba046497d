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
public sealed record Fetched(
    AttemptOutcome? Outcome,
    string Sentence,
    Uri Address,
    byte[]? Bytes = null,
    string? Price = null,
    TimeSpan AskedToWait = default
);

/// <summary>How a fetch goes on, for showing.</summary>
/// <param name="Sentence">What is going on.</param>
/// <param name="Share">Share of the document that has come, 0–1; null when not known.</param>
public readonly record struct FetchProgress(string Sentence, double? Share = null);

/// <summary>
/// Fetches documents over HTTP: from an address to the document, through at most one landing page by its Signposting.
/// Only allowed addresses, checked before each request and after name resolution; limits on size (after decompression),
/// time and redirects; at most two requests at a host; Retry-After kept. Prices are noted, never paid; no cookies, no
/// passwords, no scripts.
/// </summary>
public sealed class DocumentFetcher : IDisposable
{
    private readonly HttpClient http;
    private readonly AddressPolicy policy;
    private readonly FetchLimits limits;
    private readonly TimeProvider clock;
    private readonly HostGate gate;

    /// <summary>Makes a fetcher.</summary>
    public DocumentFetcher(AddressPolicy policy, FetchLimits limits, TimeProvider clock)
    {
        (this.policy, this.limits, this.clock, gate) = (policy, limits, clock, new(limits.PerHost, clock));
        http = OutsideHttp.Client(policy, "full text");
        http.DefaultRequestHeaders.Accept.ParseAdd("application/pdf, text/html;q=0.8");
    }

    /// <summary>A reply that was read: a document, or a page with its signposts.</summary>
    private sealed record Reply(Uri Address, byte[]? Document, Signposts? Page);

    /// <summary>How long hosts asked to be left alone during one fetch.</summary>
    private sealed class Waits
    {
        public TimeSpan Asked { get; set; }
    }

    /// <summary>Ends a fetch with its outcome.</summary>
    private sealed class FetchEndException(AttemptOutcome outcome, string sentence, Uri address) : Exception(sentence)
    {
        public AttemptOutcome Outcome { get; } = outcome;
        public Uri Address { get; } = address;
    }

    /// <summary>
    /// Fetches the document behind an address. Never throws for what the other side does; only when cancelled.
    /// </summary>
    public async Task<Fetched> Fetch(Uri address, Action<FetchProgress> progress, CancellationToken cancel)
    {
        var waits = new Waits();
        return await Fetch(address, waits, progress, cancel) with { AskedToWait = waits.Asked };
    }

    private async Task<Fetched> Fetch(
        Uri address,
        Waits waited,
        Action<FetchProgress> progress,
        CancellationToken cancel
    )
    {
        Signposts? page = null;
        try
        {
            var reply = await Ask(address, waited, progress, cancel);
            if (reply.Document is { } direct)
                return new(null, "The document came.", reply.Address, direct);
            page = reply.Page!;
            if (page.Text is not { } text)
                return page.Price is { } asked
                    ? new(AttemptOutcome.PriceAsked, $"{asked} asked; nothing was paid.", reply.Address, Price: asked)
                    : new(
                        AttemptOutcome.NoTextThere,
                        "The link opens a page that has no link to the text.",
                        reply.Address
                    );
            reply = await Ask(text, waited, progress, cancel);
            return reply.Document is { } document
                ? new(null, "The document came.", reply.Address, document)
                : new(AttemptOutcome.NotADocument, "The link opens a web page instead of the document.", reply.Address);
        }
        catch (FetchEndException e)
        {
            var price = e.Outcome == AttemptOutcome.PriceAsked ? page?.Price : null;
            return new(
                e.Outcome,
                price is null ? e.Message : $"{price} asked; nothing was paid.",
                e.Address,
                Price: price
            );
        }
    }

    private async Task<Reply> Ask(Uri address, Waits waited, Action<FetchProgress> progress, CancellationToken cancel)
    {
        for (var (redirects, waits, at) = (0, 0, address); ; )
        {
            if (policy.WhyNot(at) is { } whyNot)
                throw new FetchEndException(AttemptOutcome.NotAllowed, whyNot, at);
            TimeSpan wait;
            using (
                await gate.Enter(
                    at,
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
                    using var response = await Begin(at, whole.Token);
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
                        return await Read(response, at, progress, whole.Token);
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
                    waited.Asked += wait;
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
                    throw new FetchEndException(
                        AttemptOutcome.Unreachable,
                        "The host does not answer, or broke off in the middle.",
                        at
                    );
                }
            }
        }
    }

    private async Task<HttpResponseMessage> Begin(Uri address, CancellationToken cancel)
    {
        using var begin = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        using var timer = clock.CreateTimer(_ => begin.Cancel(), null, limits.Begin, Timeout.InfiniteTimeSpan);
        return await http.GetAsync(address, HttpCompletionOption.ResponseHeadersRead, begin.Token);
    }

    private async Task<Reply> Read(
        HttpResponseMessage response,
        Uri at,
        Action<FetchProgress> progress,
        CancellationToken cancel
    )
    {
        if (Refusal(response.StatusCode) is { } refusal)
            throw new FetchEndException(refusal.Outcome, refusal.Sentence, at);
        var type = response.Content.Headers.ContentType?.MediaType?.ToLowerInvariant() ?? "";
        var isPage = type is "text/html" or "application/xhtml+xml";
        var limit = isPage ? limits.Page : limits.Document;
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
            return new(at, bytes, null);
        var links = response.Headers.TryGetValues("Link", out var values) ? values : [];
        return new(at, null, Signposts.Read(at, links, Encoding.UTF8.GetString(bytes)));
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
