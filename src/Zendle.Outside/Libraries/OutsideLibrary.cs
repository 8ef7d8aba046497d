namespace Zendle.Outside.Libraries;

/// <summary>A made-up library with its own ways.</summary>
/// <param name="Key">What stands for it in addresses.</param>
/// <param name="Name">Its name.</param>
/// <param name="Town">Where it is.</param>
/// <param name="Country">In which country.</param>
/// <param name="Isil">Its identifier (ISIL, ISO 15511), with a prefix that no country has.</param>
/// <param name="Publishers">Whose journals and books it subscribes to, by their numbers in the scenario.</param>
/// <param name="HasWindow">Whether readers sign in in a window of its own (OAuth 2.0) instead of a form of the proxy.</param>
/// <param name="Redirects">Whether its resolver leads on by itself instead of showing a page of links.</param>
public sealed record OutsideLibrary(
    string Key,
    string Name,
    string Town,
    string Country,
    string Isil,
    int[] Publishers,
    bool HasWindow,
    bool Redirects
)
{
    /// <summary>All of them: two that are easily taken for each other.</summary>
    public static readonly OutsideLibrary[] All =
    [
        new(
            "quillmere",
            "Library of the University of Quillmere",
            "Quillmere",
            "Voorland",
            "XA-QUI1",
            [0, 1, 3, 5],
            HasWindow: false,
            Redirects: false
        ),
        new(
            "quillmere-falls",
            "Quillmere University Library",
            "Quillmere Falls",
            "Dravinia",
            "XD-QUF7",
            [1, 2, 4, 6],
            HasWindow: true,
            Redirects: true
        ),
    ];

    /// <summary>Who may read there, with their passwords.</summary>
    public static readonly IReadOnlyDictionary<string, string> Readers = new Dictionary<string, string>
    {
        ["reader"] = "reading lamp 7",
        ["visitor"] = "green shade 12",
    };
}
