using System.Net;

namespace Zendle.Connect.Fetch;

/// <summary>
/// Makes the clients that everything outside is asked with: no redirects of their own, no cookies, no proxy,
/// connections only where the policy allows.
/// </summary>
internal static class OutsideHttp
{
    /// <summary>A client; limits on time are its user's.</summary>
    /// <param name="policy">What may be asked; asked again when a name is resolved.</param>
    /// <param name="purpose">What hosts read of us, in parentheses.</param>
    /// <param name="contact">Where they can write to; null for nowhere.</param>
    public static HttpClient Client(AddressPolicy policy, string purpose, string? contact = null)
    {
        var http = new HttpClient(
            new SocketsHttpHandler
            {
                AllowAutoRedirect = false,
                AutomaticDecompression =
                    DecompressionMethods.GZip | DecompressionMethods.Deflate | DecompressionMethods.Brotli,
                ConnectCallback = policy.Connect,
                ConnectTimeout = TimeSpan.FromSeconds(10),
                UseProxy = false,
                UseCookies = false,
            }
        )
        {
            Timeout = Timeout.InfiniteTimeSpan,
        };
        http.DefaultRequestHeaders.UserAgent.ParseAdd(
            $"Zendle/0.1 ({purpose}{(contact is null ? "" : $"; {contact}")})"
        );
        return http;
    }

    /// <summary>Where a reply leads on to; null when it does not. Whoever follows asks the policy again.</summary>
    public static Uri? Redirect(HttpResponseMessage response, Uri from) =>
        (int)response.StatusCode is 301 or 302 or 303 or 307 or 308 && response.Headers.Location is { } to
            ? new Uri(from, to)
            : null;

    /// <summary>The refusal of the policy behind a fault, wherever a client wraps it; null for another fault.</summary>
    public static AddressNotAllowedException? NotAllowed(Exception fault) =>
        fault as AddressNotAllowedException ?? fault.InnerException as AddressNotAllowedException;

    /// <summary>Asks a host for something, for so long; why it did not come is a sentence for a person.</summary>
    /// <param name="host">The host that is asked.</param>
    /// <param name="patience">How long it may take.</param>
    /// <param name="ask">Asks; given what stops it in time.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="OutsideFaultException">It did not come.</exception>
    public static async Task<T> Asked<T>(
        Uri host,
        TimeSpan patience,
        Func<CancellationToken, Task<T>> ask,
        CancellationToken cancel
    )
    {
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limited.CancelAfter(patience);
        try
        {
            return await ask(limited.Token);
        }
        catch (OperationCanceledException e) when (!cancel.IsCancellationRequested)
        {
            throw new OutsideFaultException($"{host.Host} took longer than {patience.TotalSeconds:0} s.", e);
        }
        catch (ReplyTooLongException e)
        {
            throw new OutsideFaultException(e.Message, e);
        }
        catch (HttpRequestException e) when (NotAllowed(e) is { } no)
        {
            throw new OutsideFaultException(no.Message, e);
        }
        catch (Exception e) when (e is HttpRequestException or InvalidDataException)
        {
            throw new OutsideFaultException($"{host.Host} cannot be reached.", e);
        }
        // A full disk is an IOException, too, and nothing of the host's.
        catch (IOException e) when (e is HttpIOException)
        {
            throw new OutsideFaultException($"{host.Host} broke off in the middle.", e);
        }
    }
}
