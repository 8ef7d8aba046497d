using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Reads a METS document (version 1) that carries a description in MODS into a <see cref="Record"/>; files it points at
/// become places of the text.
/// </summary>
public static class MetsReader
{
    /// <summary>Namespace of METS 1.</summary>
    public static readonly XNamespace Mets = "http://www.loc.gov/METS/";

    /// <summary>The description of the whole: the section that the first division of the structure names, else the
    /// first with MODS in it; null when there is none.</summary>
    internal static XElement? ModsIn(XElement mets)
    {
        var sections = mets.Elements(Mets + "dmdSec")
            .Select(s =>
                (Id: (string?)s.Attribute("ID"), Mods: s.Descendants(ModsReader.Mods + "mods").FirstOrDefault())
            )
            .Where(s => s.Mods is not null)
            .ToArray();
        var named = mets.Elements(Mets + "structMap")
            .Descendants(Mets + "div")
            .Select(d => (string?)d.Attribute("DMDID"))
            .FirstOrDefault(d => d is { Length: > 0 })
            ?.Split(' ');
        return Array.Find(sections, s => s.Id is not null && named?.Contains(s.Id) == true).Mods
            ?? sections.FirstOrDefault().Mods;
    }

    /// <summary>Reads one <c>mets</c> element. Tolerant in the same way as <see cref="ModsReader"/>.</summary>
    /// <param name="mets">The element.</param>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public static Record Read(XElement mets, string identifier, DateTimeOffset datestamp)
    {
        if (ModsIn(mets) is not { } mods)
            return new RecordDraft().ToRecord(identifier, datestamp);
        var record = ModsReader.Read(mods, identifier, datestamp);
        var files = mets.Elements(Mets + "fileSec")
            .Descendants(Mets + "file")
            .Where(f => IsText((string?)f.Attribute("MIMETYPE"), (string?)f.Parent?.Attribute("USE")))
            .SelectMany(f => f.Elements(Mets + "FLocat"))
            .Select(l => WebAddress.Of(l.Told("href")))
            .OfType<Uri>()
            .Select(a => new Copy(a.ToString(), CopyAccess.Unknown))
            .Take(20);
        return record with
        {
            Copies = [.. ModsReader.RightsOf(mods).Over([.. record.Copies.Concat(files).DistinctBy(c => c.Address)])],
        };
    }

    /// <summary>Whether a file is the text itself, and not its picture, its licence or what was read from it.</summary>
    private static bool IsText(string? kind, string? use) =>
        (
            kind is null
            || kind.Contains("pdf", StringComparison.OrdinalIgnoreCase)
            || kind.Contains("html", StringComparison.OrdinalIgnoreCase)
        ) && use?.ToUpperInvariant() is null or "ORIGINAL" or "CONTENT" or "DEFAULT" or "DOWNLOAD" or "PRESENTATION";
}
