using System.Net;

namespace Zendle.Connect.Fetch;

/// <summary>What one fetch keeps while it goes on, and nothing after it.</summary>
internal sealed class Visit
{
    private readonly CookieContainer cookies = new();

    /// <summary>How long hosts asked to be left alone.</summary>
    public TimeSpan AskedToWait { get; set; }

    /// <summary>Most bytes of a document; null for the usual.</summary>
    public long? Most { get; init; }

    /// <summary>A request with the cookies that the host gave.</summary>
    public HttpRequestMessage Request(Uri address)
    {
        var request = new HttpRequestMessage(HttpMethod.Get, address);
        if (cookies.GetCookieHeader(address) is { Length: > 0 } header)
            request.Headers.TryAddWithoutValidation("Cookie", header);
        return request;
    }

    /// <summary>Takes the cookies of a reply; what is no cookie is passed over.</summary>
    public void Take(HttpResponseMessage response, Uri from)
    {
        if (!response.Headers.TryGetValues("Set-Cookie", out var given))
            return;
        foreach (var cookie in given)
            try
            {
                cookies.SetCookies(from, cookie);
            }
            catch (CookieException) { }
    }
}
