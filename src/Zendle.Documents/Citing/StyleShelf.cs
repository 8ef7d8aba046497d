using System.IO.Compression;
using System.Xml;
using Zendle.Core.Citing;
using Zendle.Core.Text;

namespace Zendle.Documents.Citing;

/// <summary>
/// The citation styles and locales that ship with the application: CSL 1.0.1 styles of the Citation Style Language
/// project, in one file. A style is named by its file; dependent styles follow their independent parent (CSL 1.0.2,
/// "Dependent Styles").
/// </summary>
public sealed class StyleShelf : IDisposable
{
    /// <summary>Key of Zendle's own style, used until another one is chosen.</summary>
    public const string Own = "zendle";

    private const int MostFound = 60;

    // Styles that many fields and universities ask for; those that do not ship are passed over.
    private static readonly string[] Usual =
    [
        Own,
        "apa",
        "vancouver",
        "harvard-cite-them-right",
        "chicago-author-date",
        "chicago-note-bibliography",
        "modern-language-association",
        "ieee",
        "american-medical-association",
        "council-of-science-editors",
        "american-chemical-society",
        "iso690-author-date-en",
        "modern-humanities-research-association",
    ];
    private readonly string ownXml;
    private readonly CitationStyle own;
    private readonly Lock reading = new();
    private readonly ZipArchive pack;
    private readonly Lazy<IReadOnlyDictionary<string, CitationStyle>> styles;
    private readonly Dictionary<string, string> locales;

    /// <summary>Opens a pack.</summary>
    /// <param name="ownStyle">XML of Zendle's own style.</param>
    /// <param name="file">A ZIP file with <c>styles/*.csl</c>, <c>styles/dependent/*.csl</c> and
    /// <c>locales/locales-*.xml</c>.</param>
    public StyleShelf(string file, string ownStyle)
    {
        ownXml = ownStyle;
        own =
            Head(new MemoryStream(System.Text.Encoding.UTF8.GetBytes(ownXml)), Own, "")
            ?? throw new ArgumentException("Zendle's own style cannot be read.", nameof(ownStyle));
        pack = ZipFile.OpenRead(file);
        locales = pack
            .Entries.Where(e =>
                e.FullName.StartsWith("locales/locales-", StringComparison.Ordinal)
                && e.FullName.EndsWith(".xml", StringComparison.Ordinal)
            )
            .ToDictionary(
                e => e.Name["locales-".Length..^".xml".Length],
                e => e.FullName,
                StringComparer.OrdinalIgnoreCase
            );
        styles = new(Index);
    }

    /// <summary>The pack that lies beside the program.</summary>
    public static StyleShelf Shipped() =>
        new(
            Path.Combine(AppContext.BaseDirectory, "csl", "csl.zip"),
            File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "csl", "zendle.csl"))
        );

    /// <summary>Languages with their region, as in the names of the locale files: "en-GB".</summary>
    public IReadOnlyCollection<string> Locales => locales.Keys;

    /// <summary>How many styles there are.</summary>
    public int Count => styles.Value.Count;

    /// <summary>A style by its key; null when it does not ship.</summary>
    public CitationStyle? Find(string key) => key == Own ? own : styles.Value.GetValueOrDefault(key);

    /// <summary>
    /// Styles whose title has all words of <paramref name="words"/>, in any order, as beginnings of words. Titles that
    /// begin so come first, then Zendle's own style, then short titles. Without words, the dozen that is asked for most.
    /// O(styles).
    /// </summary>
    public IReadOnlyList<CitationStyle> Search(string words)
    {
        var wanted = Words.AsWritten(words).ToArray();
        if (wanted.Length == 0)
            return [.. Usual.Select(Find).OfType<CitationStyle>()];
        var found = styles.Value.Values.Where(s =>
            wanted.All(w => s.Words.Any(t => t.StartsWith(w, StringComparison.Ordinal)))
        );
        return
        [
            .. found
                .OrderBy(s =>
                    wanted.Length > 0 && s.Words.Count > 0 && s.Words[0].StartsWith(wanted[0], StringComparison.Ordinal)
                        ? 0
                        : 1
                )
                .ThenBy(s => s.Key != Own)
                .ThenBy(s => s.Title.Length)
                .ThenBy(s => s.Title, StringComparer.OrdinalIgnoreCase)
                .Take(MostFound),
        ];
    }

    /// <summary>XML of a style; of its parent for a dependent one.</summary>
    public string StyleXml(CitationStyle style) =>
        style.Key == Own ? ownXml : Text(style.Parent is { } parent ? $"styles/{parent}.csl" : style.Path);

    /// <summary>XML of a locale; null when it does not ship.</summary>
    public string? LocaleXml(string locale) => locales.TryGetValue(locale, out var path) ? Text(path) : null;

    private string Text(string path)
    {
        lock (reading)
        {
            using var reader = new StreamReader(
                (pack.GetEntry(path) ?? throw new FileNotFoundException($"The pack has no {path}.")).Open()
            );
            return reader.ReadToEnd();
        }
    }

    private Dictionary<string, CitationStyle> Index()
    {
        var found = new Dictionary<string, CitationStyle>(StringComparer.OrdinalIgnoreCase);
        found.Add(Own, own);
        lock (reading)
            foreach (var entry in pack.Entries)
            {
                if (
                    !entry.FullName.StartsWith("styles/", StringComparison.Ordinal)
                    || !entry.FullName.EndsWith(".csl", StringComparison.Ordinal)
                )
                    continue;
                using var stream = entry.Open();
                if (Head(stream, entry.Name[..^".csl".Length], entry.FullName) is { } style)
                    found.TryAdd(style.Key, style);
            }
        // A dependent style whose parent does not ship cannot be used.
        foreach (var orphan in found.Values.Where(s => s.Parent is not null && !found.ContainsKey(s.Parent)).ToArray())
            found.Remove(orphan.Key);
        return found;
    }

    /// <summary>
    /// Reads the head of a style: its title, its own language, its parent. A malformed one is passed over.
    /// </summary>
    private static CitationStyle? Head(Stream stream, string key, string path)
    {
        try
        {
            using var xml = XmlReader.Create(
                stream,
                new() { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null }
            );
            string? title = null,
                parent = null,
                locale = null;
            while (xml.Read())
            {
                if (xml.NodeType == XmlNodeType.EndElement && xml.LocalName == "info")
                    break;
                if (xml.NodeType != XmlNodeType.Element)
                    continue;
                if (xml.LocalName == "style")
                    locale = xml.GetAttribute("default-locale");
                else if (xml.LocalName == "title" && title is null)
                    title = xml.ReadElementContentAsString().Trim();
                else if (xml.LocalName == "link" && xml.GetAttribute("rel") == "independent-parent")
                    parent = xml.GetAttribute("href")?.Split('/')[^1];
            }
            if (title is null)
                return null;
            return new(key, title, parent, locale, path, [.. Words.Of(title).Select(w => w.Text)]);
        }
        catch (XmlException)
        {
            return null;
        }
    }

    /// <inheritdoc/>
    public void Dispose() => pack.Dispose();
}
