using System.Text.Json;
using Zendle.Connect.Fetch;

namespace Zendle.Connect.Library;

/// <summary>A library as a directory lists it.</summary>
/// <param name="Identifier">Its identifier there (ISIL, ISO 15511).</param>
/// <param name="Name">Its name.</param>
/// <param name="Town">Where it is; empty when not said.</param>
/// <param name="Country">In which country; empty when not said.</param>
/// <param name="Holdings">Where its holdings lie as KBART.</param>
/// <param name="Resolver">Its link resolver; null for none.</param>
/// <param name="ProxyPrefix">What stands before an address to open it through its proxy; null for none.</param>
/// <param name="SignIn">How readers sign in.</param>
public sealed record ListedLibrary(
    string Identifier,
    string Name,
    string Town,
    string Country,
    Uri Holdings,
    Uri? Resolver,
    Uri? ProxyPrefix,
    ListedSignIn? SignIn
)
{
    /// <summary>The desks at which loans are asked for in its name, the one asked first in front.</summary>
    public IReadOnlyList<ListedDesk> Desks { get; init; } = [];
}

/// <summary>A desk at which loans are asked for (ISO 18626).</summary>
/// <param name="Name">Its name.</param>
/// <param name="Supplier">The library that supplies (ISIL).</param>
/// <param name="Address">Where messages are sent to.</param>
/// <param name="Register">Where an account is opened by itself; null for nowhere.</param>
public sealed record ListedDesk(string Name, string Supplier, Uri Address, Uri? Register)
{
    /// <summary>What a copy costs; null when not said.</summary>
    public decimal? CopyCost { get; init; }

    /// <summary>What a loan costs; null when not said.</summary>
    public decimal? LendCost { get; init; }

    /// <summary>The currency of both; empty when not said.</summary>
    public string Currency { get; init; } = "";

    /// <summary>How many open requests a reader may have; null for no limit.</summary>
    public int? MostOpen { get; init; }

    /// <summary>How many days it usually takes; null when not said.</summary>
    public int? Days { get; init; }
}

/// <summary>How readers sign in at a library.</summary>
/// <param name="Authorize">Where its window opens (OAuth 2.0); null when its proxy has a form instead.</param>
/// <param name="Token">Where what the window gives is changed into a key.</param>
public sealed record ListedSignIn(Uri? Authorize, Uri? Token);

/// <summary>
/// Reads directories of libraries: a JSON list of objects with <c>identifier</c>, <c>name</c>, <c>town</c>, <c>country</c>,
/// <c>holdings</c>, <c>resolver</c>, <c>proxy</c>, <c>signIn</c> and <c>loanDesks</c>: a list of objects with <c>name</c>,
/// <c>agency</c>, <c>address</c>, <c>register</c>, <c>copyCost</c>, <c>loanCost</c>, <c>currency</c>, <c>mostOpen</c> and <c>days</c>.
/// </summary>
public sealed class LibraryDirectory(AddressPolicy policy) : IDisposable
{
    private const int MostListed = 100_000,
        MostDesks = 20,
        LongestText = 300;

    private static readonly OutsideWish Wish = new(
        "a directory of libraries",
        ["application/json"],
        50_000_000,
        TimeSpan.FromSeconds(30)
    );
    private readonly OutsideDocuments documents = new(policy, "library directory");

    /// <summary>The libraries that a directory lists; entries that lack a name, an identifier or holdings are passed over.</summary>
    /// <exception cref="OutsideFaultException">It did not come, or is no directory.</exception>
    public async Task<IReadOnlyList<ListedLibrary>> Fetch(Uri address, CancellationToken cancel)
    {
        using var to = new MemoryStream();
        await documents.Fetch(address, Wish, to, cancel);
        to.Position = 0;
        try
        {
            using var json = await JsonDocument.ParseAsync(to, new() { MaxDepth = 16 }, cancel);
            return json.RootElement.ValueKind == JsonValueKind.Array
                ? Read(json.RootElement, address)
                : throw new OutsideFaultException("The reply is not a directory of libraries: it is not a list.");
        }
        catch (JsonException e)
        {
            throw new OutsideFaultException("The reply is not a directory of libraries: it is not JSON.", e);
        }
    }

    private static ListedLibrary[] Read(JsonElement list, Uri at) =>
        [
            .. list.EnumerateArray()
                .Take(MostListed)
                .Where(e => e.ValueKind == JsonValueKind.Object)
                .Select(e => One(e, at))
                .OfType<ListedLibrary>()
                .DistinctBy(l => l.Identifier),
        ];

    private static ListedLibrary? One(JsonElement entry, Uri at)
    {
        var (identifier, name) = (Text(entry, "identifier"), Text(entry, "name"));
        if (identifier.Length == 0 || name.Length == 0 || Address(entry, "holdings", at) is not { } holdings)
            return null;
        var signIn =
            entry.TryGetProperty("signIn", out var how) && how.ValueKind == JsonValueKind.Object
                ? Text(how, "kind") switch
                {
                    "form" => new ListedSignIn(null, null),
                    "oauth2"
                        when Address(how, "authorize", at) is { } authorize && Address(how, "token", at) is { } token =>
                        new(authorize, token),
                    _ => null,
                }
                : null;
        return new(
            identifier,
            name,
            Text(entry, "town"),
            Text(entry, "country"),
            holdings,
            Address(entry, "resolver", at),
            Address(entry, "proxy", at),
            signIn
        )
        {
            Desks =
                entry.TryGetProperty("loanDesks", out var desks) && desks.ValueKind == JsonValueKind.Array
                    ?
                    [
                        .. desks
                            .EnumerateArray()
                            .Take(MostDesks)
                            .Where(d => d.ValueKind == JsonValueKind.Object)
                            .Select(d => Desk(d, at))
                            .OfType<ListedDesk>(),
                    ]
                    : [],
        };
    }

    private static ListedDesk? Desk(JsonElement desk, Uri at)
    {
        var (name, agency) = (Text(desk, "name"), Text(desk, "agency"));
        if (name.Length == 0 || agency.Length == 0 || Address(desk, "address", at) is not { } address)
            return null;
        var currency = Text(desk, "currency");
        // A sum without its currency says nothing.
        var isPriced = currency.Length == 3 && currency.All(char.IsAsciiLetterUpper);
        return new(name, agency, address, Address(desk, "register", at))
        {
            CopyCost = isPriced ? Number(desk, "copyCost") : null,
            LendCost = isPriced ? Number(desk, "loanCost") : null,
            Currency = isPriced ? currency : "",
            MostOpen = Number(desk, "mostOpen") is >= 1 and <= 10_000 and var open ? (int)open : null,
            Days = Number(desk, "days") is <= 1_000 and var days ? (int)days : null,
        };
    }

    private static decimal? Number(JsonElement of, string name) =>
        of.TryGetProperty(name, out var value)
        && value.ValueKind == JsonValueKind.Number
        && value.TryGetDecimal(out var number)
        && number is >= 0 and <= 100_000
            ? number
            : null;

    private static string Text(JsonElement of, string name) =>
        of.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.String
            ? value.GetString()!.Trim() is { Length: <= LongestText } text
                ? text
                : ""
            : "";

    private static Uri? Address(JsonElement of, string name, Uri at) =>
        Text(of, name) is { Length: > 0 } text
        && Uri.TryCreate(at, text, out var address)
        && address.Scheme is "http" or "https"
            ? address
            : null;

    /// <inheritdoc/>
    public void Dispose() => documents.Dispose();
}
