using System.Net;
using System.Net.Http.Headers;

namespace Zendle.Connect.Fetch;

/// <summary>What one fetch keeps while it goes on, and nothing after it.</summary>
internal sealed class Visit
{
    private readonly CookieContainer cookies = new();
    private readonly LibraryPass? pass;
    private bool leadsOn = true;

    /// <summary>Begins a visit.</summary>
    /// <param name="pass">The library it goes through; null for none.</param>
    public Visit(LibraryPass? pass = null)
    {
        this.pass = pass;
        pass?.Give(cookies);
    }

    /// <summary>The same visit on a page that one of the links leads to: from there no further links are followed.</summary>
    public Visit Onward()
    {
        leadsOn = false;
        return this;
    }

    /// <summary>Whether a link of a page without signposts leads to the text.</summary>
    public bool Leads(Uri link) => leadsOn && pass?.Leads(link) == true;

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
        if (pass?.Secret?.Bearer is { } bearer && pass.IsOfProxy(address))
            request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", bearer);
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
