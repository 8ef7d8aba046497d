using System.Net.Http.Headers;

namespace Zendle.Connect.Fetch;

/// <summary>A document did not come; the message is a sentence for a person.</summary>
public sealed class OutsideFaultException(string sentence, Exception? inner = null) : Exception(sentence, inner);

/// <summary>What a document is asked for as, and what it may cost.</summary>
/// <param name="What">What it is, with its article ("a vocabulary").</param>
/// <param name="Accept">Media types, the best first.</param>
/// <param name="MostBytes">Most bytes, unpacked.</param>
/// <param name="Patience">How long it may take.</param>
public sealed record OutsideWish(string What, IReadOnlyList<string> Accept, long MostBytes, TimeSpan Patience);

/// <summary>Fetches single documents: only from allowed addresses, with limits on size, time and redirects.</summary>
/// <param name="policy">What may be asked.</param>
/// <param name="purpose">What hosts read of us.</param>
/// <param name="contact">Where they can write to; null for nowhere.</param>
public sealed class OutsideDocuments(AddressPolicy policy, string purpose, string? contact = null) : IDisposable
{
    private const int MostRedirects = 5;
    private readonly HttpClient http = OutsideHttp.Client(policy, purpose, contact);

    /// <summary>Writes the document at an address into a stream.</summary>
    /// <param name="address">Where it lies.</param>
    /// <param name="wish">What it is.</param>
    /// <param name="to">Takes it; what came before a fault stays in it.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="OutsideFaultException">It did not come.</exception>
    public Task Fetch(Uri address, OutsideWish wish, Stream to, CancellationToken cancel) =>
        OutsideHttp.Asked(
            address,
            wish.Patience,
            async limited =>
            {
                await Copy(address, wish, to, limited);
                return true;
            },
            cancel
        );

    private async Task Copy(Uri address, OutsideWish wish, Stream to, CancellationToken cancel)
    {
        var redirects = 0;
        for (var at = address; ; )
        {
            if (policy.WhyNot(at) is { } whyNot)
                throw new OutsideFaultException(whyNot);
            using var request = new HttpRequestMessage(HttpMethod.Get, at);
            for (var i = 0; i < wish.Accept.Count; i++)
                request.Headers.Accept.Add(
                    i == 0
                        ? new MediaTypeWithQualityHeaderValue(wish.Accept[i])
                        : new MediaTypeWithQualityHeaderValue(wish.Accept[i], 0.5)
                );
            using var reply = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
            if (OutsideHttp.Redirect(reply, at) is { } next)
            {
                if (redirects++ >= MostRedirects)
                    throw new OutsideFaultException($"{address.Host} redirects too often.");
                at = next;
                continue;
            }
            if (!reply.IsSuccessStatusCode)
                throw new OutsideFaultException(
                    $"{address.Host} answers {(int)reply.StatusCode} instead of {wish.What}."
                );
            await using var body = new LimitedStream(await reply.Content.ReadAsStreamAsync(cancel), wish.MostBytes);
            await body.CopyToAsync(to, cancel);
            return;
        }
    }

    /// <inheritdoc/>
    public void Dispose() => http.Dispose();
}
