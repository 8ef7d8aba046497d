using System.Net.Http.Headers;
using System.Text.Json;
using Zendle.Connect.Fetch;
using Zendle.Core.Loans;

namespace Zendle.Connect.Loans;

/// <summary>An account at a desk.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Code">What proves it. Never logged.</param>
public sealed record LoanDeskAccount(string Name, string Code);

/// <summary>
/// Hands messages to the desks of other libraries: ISO 18626 over HTTP. Only to allowed addresses, with limits on size and time;
/// a desk that leads elsewhere is not followed.
/// </summary>
public sealed class LoanDesk(AddressPolicy policy, string? contact = null) : IDisposable
{
    private const int LongestWord = 200;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private readonly HttpClient http = OutsideHttp.Client(policy, "loans", contact);

    /// <summary>Sends a message.</summary>
    /// <param name="desk">The desk's address.</param>
    /// <param name="message">The message.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>What the desk answers at once.</returns>
    /// <exception cref="OutsideFaultException">It could not be handed over; the message says why.</exception>
    public async Task<LoanConfirmation> Send(Uri desk, byte[] message, CancellationToken cancel)
    {
        using var content = new ByteArrayContent(message);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/xml") { CharSet = "utf-8" };
        var reply = await Post(desk, content, cancel);
        try
        {
            return Iso18626Reader.Confirmation(reply);
        }
        catch (LoanMessageException e)
        {
            throw new OutsideFaultException($"{desk.Host} sent a reply that is not a confirmation.", e);
        }
    }

    /// <summary>
    /// Opens an account at a desk that does so by itself: a form with <c>agency</c> and <c>address</c>, answered with JSON that
    /// has <c>account</c> and <c>code</c>.
    /// </summary>
    /// <param name="at">Where.</param>
    /// <param name="requester">The library in whose name is asked (ISIL).</param>
    /// <param name="back">Where the desk sends its messages to.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="OutsideFaultException">It did not.</exception>
    public async Task<LoanDeskAccount> Register(Uri at, string requester, Uri back, CancellationToken cancel)
    {
        using var form = new FormUrlEncodedContent(
            new Dictionary<string, string> { ["agency"] = requester, ["address"] = back.AbsoluteUri }
        );
        var reply = await Post(at, form, cancel);
        try
        {
            using var json = JsonDocument.Parse(reply);
            return new(Word(json.RootElement, "account"), Word(json.RootElement, "code"));
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException or KeyNotFoundException)
        {
            throw new OutsideFaultException($"{at.Host} opened no account for requests.", e);
        }
    }

    private static string Word(JsonElement of, string name) =>
        of.GetProperty(name).GetString() is { Length: > 0 and <= LongestWord } word
            ? word
            : throw new JsonException($"{name} is missing.");

    private Task<byte[]> Post(Uri to, HttpContent content, CancellationToken cancel) =>
        policy.WhyNot(to) is { } whyNot
            ? throw new OutsideFaultException(whyNot)
            : OutsideHttp.Asked(
                to,
                Patience,
                async limited =>
                {
                    using var request = new HttpRequestMessage(HttpMethod.Post, to) { Content = content };
                    using var reply = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, limited);
                    // Desks say what is wrong with a message in a confirmation, also where they answer 400 with it.
                    if (!reply.IsSuccessStatusCode && (int)reply.StatusCode is not (400 or 422))
                        throw new OutsideFaultException($"{to.Host} answers {(int)reply.StatusCode}.");
                    await using var body = new LimitedStream(
                        await reply.Content.ReadAsStreamAsync(limited),
                        Iso18626Reader.MostBytes
                    );
                    using var all = new MemoryStream();
                    await body.CopyToAsync(all, limited);
                    return all.ToArray();
                },
                cancel
            );

    /// <inheritdoc/>
    public void Dispose() => http.Dispose();
}
