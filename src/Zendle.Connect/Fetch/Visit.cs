using System.Net;
using System.Net.Http.Headers;
using Zendle.Core.FullText;

namespace Zendle.Connect.Fetch;

/// <summary>What one fetch keeps while it goes on, and nothing after it.</summary>
internal sealed class Visit
{
    private const int MostNearlyNamed = 3;
    private readonly CookieContainer cookies = new();
    private readonly LibraryPass? pass;
    private readonly WantedText? wanted;
    private bool mayLead = true,
        mayList = true;

    /// <summary>Begins a visit.</summary>
    /// <param name="pass">The library it goes through; null for none.</param>
    /// <param name="wanted">The work; null when it is not known.</param>
    public Visit(LibraryPass? pass = null, WantedText? wanted = null)
    {
        (this.pass, this.wanted) = (pass, wanted);
        pass?.Give(cookies);
    }

    /// <summary>
    /// Where a page leads on that is not the work's own: a library's page without signposts through the proxy, a table of contents
    /// to the work in it. Of a chapter the contents come before what the page calls the text, for that is the whole book. Each
    /// is followed once, so that no fetch wanders.
    /// </summary>
    /// <param name="page">The page.</param>
    /// <param name="at">Where it lies.</param>
    public Uri[] Onward(Signposts page, Uri at)
    {
        var hasText = page.Texts.Count > 0;
        if (mayLead && !hasText && pass is not null)
        {
            Uri[] through = [.. page.Anchors.Select(a => a.Address).Where(pass.Leads).Distinct()];
            mayLead = through.Length == 0;
            if (!mayLead)
                return through;
        }
        if (!mayList || wanted is null || (hasText && !wanted.IsPart))
            return [];
        var listed = Listed(page, at, wanted);
        (mayLead, mayList) = (mayLead && listed.Length == 0, listed.Length == 0);
        return listed;
    }

    /// <summary>
    /// Where the rows of a table of contents lead that name the work: titles that are links first, then links beside a title,
    /// those that are called PDF before others.
    /// </summary>
    private static Uri[] Listed(Signposts page, Uri at, WantedText wanted) =>
        Listed(page, at, wanted, ListedTitle.Names) is { Length: > 0 } named ? named
        // A record's title may have a slip; a whole list of them is no sign of any.
        : Listed(page, at, wanted, ListedTitle.NearlyNames) is { Length: <= MostNearlyNamed } nearly ? nearly
        : [];

    private static Uri[] Listed(Signposts page, Uri at, WantedText wanted, Func<string, string, bool> names) =>
        [
            .. page
                .Anchors.Where(a => a.Address != at)
                .Select(a =>
                    (
                        a.Address,
                        Rank: wanted.Titles.Any(t => names(a.Text, t)) ? 0
                        : !wanted.Titles.Any(t => names(a.Row, t)) ? -1
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
