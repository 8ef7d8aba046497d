using System.Net;
using System.Xml;
using System.Xml.Linq;
using Zendle.Connect.Fetch;
using Zendle.Core.Records;

namespace Zendle.Connect.Harvest;

/// <summary>
/// Asks OAI-PMH 2.0 services. Gentle (one request at a time, Retry-After kept) and careful: no DTDs, limits on size,
/// time and redirects, only allowed addresses. Faults come as <see cref="HarvestFaultException"/> with a sentence.
/// </summary>
public sealed class OaiClient : IDisposable
{
    private static readonly XNamespace Oai = OaiReply.Oai;
    private const int MostRedirects = 3;
    private const int MostTries = 5;

    /// <summary>How long someone who waits at the screen is kept waiting for a second try.</summary>
    private static readonly TimeSpan LongestForPerson = TimeSpan.FromSeconds(6);

    private readonly HttpClient http;
    private readonly AddressPolicy policy;
    private readonly OaiLimits limits;
    private readonly TimeProvider clock;

    /// <summary>Makes a client.</summary>
    /// <param name="policy">What may be asked.</param>
    /// <param name="limits">Limits on replies.</param>
    /// <param name="clock">For waiting.</param>
    /// <param name="contact">Where services can write to whoever runs this Zendle; null for nowhere.</param>
    public OaiClient(AddressPolicy policy, OaiLimits limits, TimeProvider clock, string? contact = null)
    {
        (this.policy, this.limits, this.clock) = (policy, limits, clock);
        http = OutsideHttp.Client(policy, "harvester", contact);
    }

    /// <summary>Asks Identify.</summary>
    public async Task<OaiIdentity> Identify(Uri address, CancellationToken cancel)
    {
        var root =
            (await Ask(address, "verb=Identify", cancel)).Element(Oai + "Identify")
            ?? throw OaiReply.Unfit(address, "Its reply to Identify has no Identify part.");
        string Text(string name) => root.Element(Oai + name)?.Value.Trim() ?? "";
        // Inside Dublin Core the name of the service stands beside what it says of itself.
        var description =
            root.Elements(Oai + "description")
                .DescendantsAndSelf()
                .Where(e => e.Name.LocalName == "description" && !e.HasElements)
                .Select(e => PlainText.Clean(e.Value))
                .FirstOrDefault(d => d.Length > 0)
            ?? "";
        return new(
            Text("repositoryName") is { Length: > 0 } name ? name : address.Host,
            description,
            Text("granularity").Length > 10 ? "YYYY-MM-DDThh:mm:ssZ" : "YYYY-MM-DD",
            Text("earliestDatestamp"),
            Text("deletedRecord")
        );
    }

    /// <summary>Asks ListMetadataFormats.</summary>
    public async Task<IReadOnlyList<OaiFormat>> Formats(Uri address, CancellationToken cancel) =>
        [
            .. (await Ask(address, "verb=ListMetadataFormats", cancel))
                .Descendants(Oai + "metadataFormat")
                .Select(f => new OaiFormat(
                    f.Element(Oai + "metadataPrefix")?.Value.Trim() ?? "",
                    f.Element(Oai + "metadataNamespace")?.Value.Trim() ?? ""
                ))
                .Where(f => f.Prefix.Length > 0),
        ];

    /// <summary>Asks ListSets, the first page; a service without sets has none.</summary>
    public async Task<IReadOnlyList<OaiSet>> Sets(Uri address, CancellationToken cancel)
    {
        try
        {
            return
            [
                .. (await Ask(address, "verb=ListSets", cancel))
                    .Descendants(Oai + "set")
                    .Select(s => new OaiSet(
                        s.Element(Oai + "setSpec")?.Value.Trim() ?? "",
                        s.Element(Oai + "setName")?.Value.Trim() ?? ""
                    ))
                    .Where(s => s.Spec.Length > 0),
            ];
        }
        catch (HarvestFaultException e) when (e.Code == "noSetHierarchy")
        {
            return [];
        }
    }

    /// <summary>Asks for a page of records.</summary>
    /// <param name="address">Base address.</param>
    /// <param name="format">metadataPrefix.</param>
    /// <param name="set">setSpec, or null.</param>
    /// <param name="from">Only records changed since, as the granularity writes it; null for all.</param>
    /// <param name="token">Token of the page before; then nothing else is sent, as the protocol wants.</param>
    /// <param name="take">What to make of a record; called from several threads.</param>
    /// <param name="waiting">Told when the service asks to wait.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<OaiPage<T>> Records<T>(
        Uri address,
        string format,
        string? set,
        string? from,
        string? token,
        Func<OaiRecord, T> take,
        Action<string>? waiting,
        CancellationToken cancel
    )
    {
        var query = token is not null
            ? $"verb=ListRecords&resumptionToken={Uri.EscapeDataString(token)}"
            : $"verb=ListRecords&metadataPrefix={Uri.EscapeDataString(format)}"
                + (set is null ? "" : $"&set={Uri.EscapeDataString(set)}")
                + (from is null ? "" : $"&from={Uri.EscapeDataString(from)}");
        try
        {
            return await Ask(
                address,
                query,
                waiting,
                (reply, timed) => OaiPageReader.Read(address, reply, limits.ReplyBytes, clock.GetUtcNow(), take, timed),
                cancel
            );
        }
        catch (HarvestFaultException e) when (e.Code == "noRecordsMatch")
        {
            return new([], null, 0, clock.GetUtcNow(), []);
        }
    }

    private Task<XElement> Ask(Uri address, string query, CancellationToken cancel) =>
        Ask(address, query, null, (reply, timed) => OaiReply.Whole(address, reply, limits.ReplyBytes, timed), cancel);

    /// <summary>
    /// Asks, and asks again when the service or the line to it has a fault that may pass: as often as a person who
    /// waits, or a harvest, has patience for.
    /// </summary>
    private async Task<T> Ask<T>(
        Uri address,
        string query,
        Action<string>? waiting,
        Func<TakenReply, CancellationToken, T> read,
        CancellationToken cancel
    )
    {
        var most = waiting is null ? 2 : MostTries;
        for (var tries = 1; ; tries++)
        {
            TimeSpan wait;
            try
            {
                return await Once(address, query, read, cancel);
            }
            catch (PassingFaultException e) when (tries < most)
            {
                // Twice as long each time, unless the service says how long.
                wait = e.Wait is { } asked ? Bounded(asked) : Bounded(limits.FirstRetry * Math.Pow(2, tries - 1));
                waiting?.Invoke(
                    e.Wait is null
                        ? $"{e.Message} It is asked again in {Math.Ceiling(wait.TotalSeconds):0} s."
                        : $"{address.Host} asks to wait {Math.Ceiling(wait.TotalSeconds):0} s."
                );
                if (waiting is null && wait > LongestForPerson)
                    throw;
            }
            catch (PassingFaultException e) when (e.Wait is not null)
            {
                throw OaiReply.Unfit(address, $"It is busy and asked to wait {tries} times.");
            }
            await Task.Delay(wait, clock, cancel);
        }
    }

    private TimeSpan Bounded(TimeSpan wait) =>
        wait < TimeSpan.Zero ? TimeSpan.Zero
        : wait > limits.LongestWait ? limits.LongestWait
        : wait;

    private async Task<T> Once<T>(
        Uri address,
        string query,
        Func<TakenReply, CancellationToken, T> read,
        CancellationToken cancel
    )
    {
        var target = new UriBuilder(address) { Query = query, Fragment = "" }.Uri;
        for (var redirects = 0; ; )
        {
            if (policy.WhyNot(target) is { } no)
                throw new HarvestFaultException(no);
            using var timed = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            timed.CancelAfter(limits.ReplyTime);
            try
            {
                using var reply = await http.GetAsync(target, HttpCompletionOption.ResponseHeadersRead, timed.Token);
                if ((int)reply.StatusCode is >= 300 and < 400 && reply.Headers.Location is { } location)
                {
                    if (++redirects > MostRedirects)
                        throw OaiReply.Unfit(address, $"It redirects more than {MostRedirects} times.");
                    target = new(target, location);
                    continue;
                }
                if (reply.StatusCode is HttpStatusCode.ServiceUnavailable or HttpStatusCode.TooManyRequests)
                    throw new PassingFaultException(OaiReply.Unfit(address, "It is busy.").Message, Wait(reply));
                if (
                    reply.StatusCode
                    is HttpStatusCode.RequestTimeout
                        or HttpStatusCode.InternalServerError
                        or HttpStatusCode.BadGateway
                        or HttpStatusCode.GatewayTimeout
                )
                    throw new PassingFaultException(
                        OaiReply.Unfit(address, $"It answers with status {(int)reply.StatusCode}.").Message
                    );
                if (!reply.IsSuccessStatusCode)
                    throw OaiReply.Unfit(address, $"It answers with status {(int)reply.StatusCode}.");
                using var content = await TakenReply.Of(
                    await reply.Content.ReadAsStreamAsync(timed.Token),
                    limits.ReplyBytes,
                    timed.Token
                );
                // What is read is bounded by the same time as what is fetched.
                return await Task.Run(() => read(content, timed.Token), timed.Token);
            }
            catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
            {
                throw OaiReply.Unfit(address, $"It did not answer within {limits.ReplyTime.TotalSeconds:0} seconds.");
            }
            catch (XmlException e)
            {
                throw OaiReply.Broken(address, e);
            }
            catch (HttpRequestException e)
            {
                throw new PassingFaultException(
                    $"{address.GetLeftPart(UriPartial.Path)} cannot be reached: {e.Message}",
                    null,
                    e
                );
            }
            catch (ReplyTooLongException e)
            {
                throw new HarvestFaultException($"{address.Host}: {e.Message}", null, e);
            }
            catch (OverlongTagException e)
            {
                throw new HarvestFaultException(
                    $"{address.GetLeftPart(UriPartial.Path)} cannot be harvested now. {e.Message}",
                    null,
                    e
                );
            }
            catch (IOException e)
            {
                throw new PassingFaultException($"{address.Host} broke off in the middle of its reply.", null, e);
            }
        }
    }

    private TimeSpan Wait(HttpResponseMessage reply) =>
        reply.Headers.RetryAfter is { } after
            ? after.Delta ?? after.Date - clock.GetUtcNow() ?? TimeSpan.FromSeconds(5)
            : TimeSpan.FromSeconds(5);

    /// <summary>A fault that may have passed when one asks again.</summary>
    private sealed class PassingFaultException(string sentence, TimeSpan? wait = null, Exception? inner = null)
        : HarvestFaultException(sentence, null, inner)
    {
        /// <summary>How long the service asked to wait; null when it said nothing of it.</summary>
        public TimeSpan? Wait { get; } = wait;
    }

    /// <summary>Closes connections.</summary>
    public void Dispose() => http.Dispose();
}

/// <summary>Limits on what a service may send.</summary>
/// <param name="ReplyBytes">Longest reply, after decompression.</param>
/// <param name="ReplyTime">Longest time for a whole reply.</param>
/// <param name="LongestWait">Longest wait a service may ask for; more is cut to this.</param>
/// <param name="FirstRetry">Wait before the second try after a fault; each further wait is twice as long.</param>
public sealed record OaiLimits(long ReplyBytes, TimeSpan ReplyTime, TimeSpan LongestWait, TimeSpan FirstRetry)
{
    /// <summary>64 MB, a minute, two minutes, two seconds.</summary>
    public static OaiLimits Usual { get; } =
        new(64_000_000, TimeSpan.FromMinutes(1), TimeSpan.FromMinutes(2), TimeSpan.FromSeconds(2));
}
