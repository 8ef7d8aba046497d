using System.Net;
using System.Net.Http.Headers;
using Zendle.Core.FullText;

namespace Zendle.Connect.Fetch;

/// <summary>What one fetch keeps while it goes on, and nothing after it.</summary>
internal sealed class Visit
{
    private readonly CookieContainer cookies = new();
    private readonly LibraryPass? pass;
    private readonly WantedText? wanted;
    private bool leadsOn = true;

    /// <summary>Begins a visit.</summary>
    /// <param name="pass">The library it goes through; null for none.</param>
    /// <param name="wanted">The work; null when it is not known.</param>
    public Visit(LibraryPass? pass = null, WantedText? wanted = null)
    {
        (this.pass, this.wanted) = (pass, wanted);
        pass?.Give(cookies);
    }

    /// <summary>The same visit on a page that one of the links leads to: from there no further links are followed.</summary>
    public Visit Onward()
    {
        leadsOn = false;
        return this;
    }

    /// <summary>Whether what is wanted is a part of a book.</summary>
    public bool IsPart => wanted?.IsPart == true;

    /// <summary>
    /// Where the rows of a table of contents lead that name the work: titles that are links first, then links beside a title,
    /// those that are called PDF before others.
    /// </summary>
    public Uri[] Listed(Signposts page, Uri at) =>
        !leadsOn || wanted is null
            ? []
            :
            [
                .. page
                    .Anchors.Where(a => a.Address != at)
                    .Select(a =>
                        (
                            a.Address,
                            Rank: wanted.Titles.Any(t => ListedTitle.Names(a.Text, t)) ? 0
                            : !wanted.Titles.Any(t => ListedTitle.Names(a.Row, t)) ? -1
                            : a.Text.Contains("pdf", StringComparison.OrdinalIgnoreCase)
                            || a.Address.AbsolutePath.EndsWith(".pdf", StringComparison.OrdinalIgnoreCase)
                                ? 1
                            : 2
                        )
                    )
                    .Where(a => a.Rank >= 0)
                    .OrderBy(a => a.Rank)
                    .Select(a => a.Address)
                    .Distinct(),
            ];

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
