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
    public async Task Fetch(Uri address, OutsideWish wish, Stream to, CancellationToken cancel)
    {
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limited.CancelAfter(wish.Patience);
        try
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
                using var reply = await http.SendAsync(
                    request,
                    HttpCompletionOption.ResponseHeadersRead,
                    limited.Token
                );
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
                await using var body = new LimitedStream(
                    await reply.Content.ReadAsStreamAsync(limited.Token),
                    wish.MostBytes
                );
                await body.CopyToAsync(to, limited.Token);
                return;
            }
        }
        catch (OperationCanceledException e) when (!cancel.IsCancellationRequested)
        {
            throw new OutsideFaultException($"{address.Host} took longer than {wish.Patience.TotalSeconds:0} s.", e);
        }
        catch (ReplyTooLongException e)
        {
            throw new OutsideFaultException(e.Message, e);
        }
        catch (HttpRequestException e) when (OutsideHttp.NotAllowed(e) is { } no)
        {
            throw new OutsideFaultException(no.Message, e);
        }
        catch (Exception e) when (e is HttpRequestException or InvalidDataException)
        {
            throw new OutsideFaultException($"{address.Host} cannot be reached.", e);
        }
        // A full disk is an IOException, too, and nothing of the host's.
        catch (IOException e) when (e is HttpIOException)
        {
            throw new OutsideFaultException($"{address.Host} broke off in the middle.", e);
        }
    }

    /// <inheritdoc/>
    public void Dispose() => http.Dispose();
}
