using System.Globalization;
using Zendle.Outside.Documents;
using Zendle.Outside.Libraries;
using Zendle.Outside.Pages;
using Zendle.Outside.World;

namespace Zendle.Bench.Measure;

/// <summary>What is true of the texts of a world.</summary>
internal sealed class LawfulTexts(
    WorldFiles files,
    IReadOnlyList<Work> works,
    Scenario scenario,
    IReadOnlyDictionary<string, string> live
)
{
    /// <summary>What lies behind a copy that gives the work's own text to anyone, and to whom a library opens it.</summary>
    private static readonly string[] GivesAnyone = ["fine", "wait", "page", "jats", "epub"],
        GivesThroughLibrary = [.. GivesAnyone, "html", "sign-in"];

    private readonly Dictionary<string, (int Work, string Kind)> copies = files
        .Truth("copies.csv")
        .ToDictionary(r => r[0], r => (int.Parse(r[1], CultureInfo.InvariantCulture), live[r[0]]));
    private readonly IReadOnlyList<Subscription> held = Subscription.Of(OutsideLibrary.All[0], works, scenario);
    private readonly Dictionary<string, string> byDoi = files
        .Truth("copies.csv")
        .Select(r => (Path: r[0], Work: works[int.Parse(r[1], CultureInfo.InvariantCulture)], Version: r[2]))
        .Select(r => (r.Path, Doi: r.Version == "preprint" ? r.Work.PreprintDoi : r.Work.Doi, r.Version))
        .Where(r => r.Doi is not null && r.Version != "manuscript")
        .GroupBy(r => r.Doi!, StringComparer.OrdinalIgnoreCase)
        .ToDictionary(g => g.Key, g => g.First().Path, StringComparer.OrdinalIgnoreCase);

    /// <summary>Whether the text of a work lies, for a reader of the library, at an address that its records or its DOI tell.</summary>
    public bool Had(Work work, IReadOnlyCollection<string> told, string? doi) =>
        told.Concat(doi is not null && byDoi.TryGetValue(doi, out var path) ? [path] : []).Any(p => Gives(work, p));

    private bool Gives(Work work, string path)
    {
        if (path.StartsWith("/books/", StringComparison.Ordinal))
            return work.Book is not null || IsWhole(work, path + "/book.pdf");
        if (Of(path) is not { } copy || copy.Work != work.Id)
            return false;
        if (path.StartsWith(Deposit.HoldsBack, StringComparison.Ordinal) && Deposit.OpensOn(work) > Today)
            return false;
        var isSold = path.StartsWith("/publisher/", StringComparison.Ordinal) && work.Journal is { Open: false };
        return isSold ? IsHeld(work) && GivesThroughLibrary.Contains(copy.Kind) : GivesAnyone.Contains(copy.Kind);
    }

    /// <summary>
    /// What lies at an address. What has no journal lies in the repository, which the truth lists only for manuscripts of
    /// journals.
    /// </summary>
    private (int Work, string Kind)? Of(string path)
    {
        if (copies.TryGetValue(path, out var copy))
            return copy;
        return
            path.StartsWith("/harbour/item/", StringComparison.Ordinal)
            && int.TryParse(path["/harbour/item/".Length..], CultureInfo.InvariantCulture, out var id)
            && works[id] is { Journal: null } alone
            ? (id, kinds.Of(path, alone, alone.Type == "preprint" ? Look.Preprint : Look.Typeset))
            : null;
    }

    private static readonly DateOnly Today = new(2026, 11, 20);

    private readonly CopyKinds kinds = new();

    private bool IsHeld(Work work) => held.Any(s => s.Covers(work, Today));

    /// <summary>Whether an address is that of a whole book in one file; others have chapters alone.</summary>
    private static bool IsWhole(Work work, string path) =>
        work.Type == "book" && BookPlatform.MannerOf(work.Id) == 2 && path == $"/books/{work.Id}/book.pdf";

    /// <summary>Whether what came from an address is the work's own text.</summary>
    public bool IsRight(Work work, string from)
    {
        if (IsWhole(work, from))
            return true;
        if (from.IndexOf("/publisher/", StringComparison.Ordinal) is > 0 and var at)
            from = from[at..];
        foreach (var ending in new[] { "/text.pdf", "/text.html", "/text.xml", "/text.epub" })
            if (from.EndsWith(ending, StringComparison.Ordinal))
                from = from[..^ending.Length];
        return Of(from) is { } copy && copy.Work == work.Id && GivesThroughLibrary.Contains(copy.Kind);
    }

    /// <summary>The versions that a right document from an address may be called.</summary>
    public static string[] Versions(Work work, string from) =>
        from.Contains("/harbour/preprint/", StringComparison.Ordinal) || work.Type == "preprint"
            ? ["preprint", "submitted manuscript", "author's original", "author’s original"]
        : from.Contains(Deposit.HoldsBack, StringComparison.Ordinal)
        || (from.Contains("/harbour/item/", StringComparison.Ordinal) && work.Journal is not null)
            ? ["accepted manuscript"]
        : ["version of record"];
}
