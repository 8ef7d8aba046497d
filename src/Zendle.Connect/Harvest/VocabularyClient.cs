using System.Net.Http.Headers;
using Zendle.Connect.Fetch;
using Zendle.Core.Terms;

namespace Zendle.Connect.Harvest;

/// <summary>Fetches controlled vocabularies: only from allowed addresses, with limits on size, time and redirects.</summary>
public sealed class VocabularyClient(AddressPolicy policy) : IDisposable
{
    /// <summary>Most bytes of a vocabulary, unpacked.</summary>
    public const long MostBytes = 50_000_000;

    private const int MostRedirects = 3;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);
    private readonly HttpClient http = OutsideHttp.Client(policy, "harvester");

    /// <summary>The document at an address.</summary>
    /// <param name="address">Where it lies.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="VocabularyFaultException">It did not come; the message says why.</exception>
    public async Task<byte[]> Fetch(Uri address, CancellationToken cancel)
    {
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limited.CancelAfter(Patience);
        try
        {
            var redirects = 0;
            for (var at = address; ; )
            {
                if (policy.WhyNot(at) is { } whyNot)
                    throw new VocabularyFaultException(whyNot);
                using var request = new HttpRequestMessage(HttpMethod.Get, at);
                request.Headers.Accept.Add(new MediaTypeWithQualityHeaderValue("application/rdf+xml"));
                request.Headers.Accept.Add(new MediaTypeWithQualityHeaderValue("application/xml", 0.5));
                using var reply = await http.SendAsync(
                    request,
                    HttpCompletionOption.ResponseHeadersRead,
                    limited.Token
                );
                if (OutsideHttp.Redirect(reply, at) is { } next)
                {
                    if (redirects++ >= MostRedirects)
                        throw new VocabularyFaultException($"{address.Host} redirects too often.");
                    at = next;
                    continue;
                }
                if (!reply.IsSuccessStatusCode)
                    throw new VocabularyFaultException(
                        $"{address.Host} answers {(int)reply.StatusCode} instead of a vocabulary."
                    );
                await using var body = new LimitedStream(
                    await reply.Content.ReadAsStreamAsync(limited.Token),
                    MostBytes
                );
                using var to = new MemoryStream();
                await body.CopyToAsync(to, limited.Token);
                return to.ToArray();
            }
        }
        catch (OperationCanceledException e) when (!cancel.IsCancellationRequested)
        {
            throw new VocabularyFaultException($"{address.Host} took longer than {Patience.TotalSeconds:0} s.", e);
        }
        catch (ReplyTooLongException e)
        {
            throw new VocabularyFaultException(e.Message, e);
        }
        catch (HttpRequestException e) when (OutsideHttp.NotAllowed(e) is { } no)
        {
            throw new VocabularyFaultException(no.Message, e);
        }
        catch (Exception e) when (e is HttpRequestException or IOException or InvalidDataException)
        {
            throw new VocabularyFaultException($"{address.Host} cannot be reached.", e);
        }
    }

    /// <inheritdoc/>
    public void Dispose() => http.Dispose();
}
