using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Core.Holdings;

/// <summary>
/// Asks a library's link resolver for a work: OpenURL 1.0 (ANSI/NISO Z39.88-2004), key/encoded-value format by-value, with
/// the metadata formats for journals, books and dissertations.
/// </summary>
public static class OpenUrl
{
    private const string Format = "info:ofi/fmt:kev:mtx:";

    /// <summary>The address that asks a resolver for a work.</summary>
    /// <param name="resolver">Base address of the resolver; a query of its own stays.</param>
    /// <param name="work">What was chosen from the work's records.</param>
    /// <param name="issns">The ISSNs of its venue, best first.</param>
    public static Uri For(Uri resolver, ChosenFields work, IReadOnlyList<string> issns)
    {
        var (type, venue) = (work.Type.Value, work.Venue.Value);
        var (format, genre) = type switch
        {
            DocumentType.Chapter => ("book", "bookitem"),
            DocumentType.Book => ("book", "book"),
            DocumentType.Report => ("book", "report"),
            DocumentType.Thesis => ("dissertation", ""),
            DocumentType.ConferencePaper => ("journal", "proceeding"),
            DocumentType.Preprint => ("journal", "preprint"),
            _ => ("journal", "article"),
        };
        var first = work.People.Value is [var one, ..] ? one : null;
        var isPart = format == "journal" || genre == "bookitem";
        (string Key, string? Value)[] parts =
        [
            ("url_ver", "Z39.88-2004"),
            ("ctx_ver", "Z39.88-2004"),
            ("ctx_enc", "info:ofi/enc:UTF-8"),
            ("rfr_id", "info:sid/zendle"),
            ("rft_id", work.Doi.Value is { } doi ? $"info:doi/{doi}" : null),
            ("rft_val_fmt", Format + format),
            ("rft.genre", genre),
            (
                isPart ? "rft.atitle"
                : format == "dissertation" ? "rft.title"
                : "rft.btitle",
                work.Title.Value
            ),
            (format == "journal" ? "rft.jtitle" : "rft.btitle", isPart ? venue?.Title : null),
            .. issns.Select(i => ("rft.issn", (string?)i)),
            ("rft.isbn", format == "book" ? work.Isbn.Value : null),
            ("rft.date", work.Date ?? work.Year.Value?.ToString(System.Globalization.CultureInfo.InvariantCulture)),
            ("rft.volume", isPart ? venue?.Volume : null),
            ("rft.issue", isPart ? venue?.Issue : null),
            ("rft.spage", isPart ? venue?.FirstPage : null),
            ("rft.epage", isPart ? venue?.EndPage : null),
            ("rft.aulast", first?.Family),
            ("rft.aufirst", first?.Given),
            ("rft.pub", format == "book" ? work.Publisher.Value : null),
        ];
        var query = string.Join(
            '&',
            parts.Where(p => !string.IsNullOrEmpty(p.Value)).Select(p => $"{p.Key}={Uri.EscapeDataString(p.Value!)}")
        );
        return new UriBuilder(resolver)
        {
            Query = resolver.Query is { Length: > 1 } own ? $"{own[1..]}&{query}" : query,
        }.Uri;
    }
}
