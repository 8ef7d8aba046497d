using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Zendle.Bench;

/// <summary>Somebody who talks to a Zendle that runs, over HTTP.</summary>
internal sealed class Session(Uri address) : IDisposable
{
    private readonly HttpClient http = new() { BaseAddress = address, Timeout = TimeSpan.FromMinutes(10) };
    private string token = "";

    /// <summary>Signs in.</summary>
    public async Task SignIn(string name, string password)
    {
        await Begin();
        await Send(HttpMethod.Post, "/api/sign-in", new { name, password });
        // Another token belongs to whoever is signed in.
        await Begin();
    }

    private async Task Begin() =>
        token = (await http.GetFromJsonAsync<JsonNode>("/api/me"))!["requestToken"]!.GetValue<string>();

    /// <summary>Sends a request.</summary>
    /// <returns>Its status, and the answer; null where that is no JSON.</returns>
    public async Task<(int Status, JsonNode? Body)> Send(HttpMethod method, string path, object? body = null)
    {
        using var request = new HttpRequestMessage(method, path);
        if (method != HttpMethod.Get)
            request.Headers.Add("X-Zendle-Token", token);
        if (body is not null)
            request.Content = JsonContent.Create(body);
        using var reply = await http.SendAsync(request);
        var bytes = await reply.Content.ReadAsByteArrayAsync();
        var isJson =
            bytes.Length > 0
            && reply.Content.Headers.ContentType?.MediaType?.EndsWith("json", StringComparison.Ordinal) == true;
        return ((int)reply.StatusCode, isJson ? JsonNode.Parse(bytes) : null);
    }

    /// <summary>Sends a request that must succeed.</summary>
    /// <exception cref="InvalidOperationException">It did not.</exception>
    public async Task<JsonNode> Ok(HttpMethod method, string path, object? body = null)
    {
        var (status, reply) = await Send(method, path, body);
        return status is >= 200 and < 300
            ? reply ?? new JsonObject()
            : throw new InvalidOperationException($"{method} {path} gave {status}: {reply?.ToJsonString()}");
    }

    /// <summary>Reads what must be there.</summary>
    public Task<JsonNode> Get(string path) => Ok(HttpMethod.Get, path);

    /// <summary>A file.</summary>
    public Task<byte[]> Bytes(string path) => http.GetByteArrayAsync(path);

    /// <inheritdoc/>
    public void Dispose() => http.Dispose();
}
