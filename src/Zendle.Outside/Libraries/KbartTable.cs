using System.Globalization;
using System.Text;

namespace Zendle.Outside.Libraries;

/// <summary>Writes holdings as KBART (NISO RP-9-2014), each library in its own way.</summary>
public static class KbartTable
{
    private static readonly string[] Usual =
    [
        "publication_title",
        "print_identifier",
        "online_identifier",
        "date_first_issue_online",
        "num_first_vol_online",
        "num_first_issue_online",
        "date_last_issue_online",
        "num_last_vol_online",
        "num_last_issue_online",
        "title_url",
        "first_author",
        "title_id",
        "embargo_info",
        "coverage_depth",
        "notes",
        "publisher_name",
        "publication_type",
        "date_monograph_published_print",
        "date_monograph_published_online",
        "monograph_volume",
        "monograph_edition",
        "first_editor",
        "parent_publication_title_id",
        "preceding_publication_title_id",
        "access_type",
    ];

    /// <summary>The file of a library.</summary>
    /// <param name="library">The library; one writes a byte order mark, other line ends, and its columns turned round.</param>
    /// <param name="held">What it holds.</param>
    /// <param name="host">Where titles have their pages.</param>
    public static byte[] Of(OutsideLibrary library, IReadOnlyList<Subscription> held, string host)
    {
        var columns = library.Redirects ? [.. Usual.Reverse()] : Usual;
        var text = new StringBuilder(string.Join('\t', columns)).Append(library.Redirects ? "\r\n" : "\n");
        foreach (var s in held)
            text.AppendJoin('\t', columns.Select(c => Cell(s, c, host))).Append(library.Redirects ? "\r\n" : "\n");
        return [.. library.Redirects ? Encoding.UTF8.GetPreamble() : [], .. Encoding.UTF8.GetBytes(text.ToString())];
    }

    private static string Cell(Subscription s, string column, string host)
    {
        static string N(int n) => n.ToString(CultureInfo.InvariantCulture);
        static string Date((int Year, int Volume, int Issue) edge, bool isEnd) =>
            isEnd ? $"{edge.Year:0000}-12-31"
            : edge.Issue > 1 ? $"{edge.Year:0000}-07-01"
            : edge.Year % 2 == 0 ? $"{edge.Year:0000}"
            : $"{edge.Year:0000}-01-01";
        return column switch
        {
            "publication_title" => s.Title,
            "print_identifier" => s.IsBook ? "" : s.Number,
            "online_identifier" => s.IsBook ? s.Number : "",
            "date_first_issue_online" when !s.IsBook => Date(s.From, isEnd: false),
            "num_first_vol_online" when !s.IsBook => N(s.From.Volume),
            "num_first_issue_online" when !s.IsBook => N(s.From.Issue),
            "date_last_issue_online" when s.To is { } to => Date(to, isEnd: true),
            "num_last_vol_online" when s.To is { } to => N(to.Volume),
            "num_last_issue_online" when s.To is { } to => N(to.Issue),
            "title_url" => $"{host}/publisher/{s.Publisher.ToLowerInvariant().Replace(' ', '-')}",
            "embargo_info" => s.Embargo,
            "coverage_depth" => s.AbstractsOnly ? "abstracts" : "fulltext",
            "publisher_name" => s.Publisher,
            "publication_type" => s.IsBook ? "monograph" : "serial",
            "date_monograph_published_online" when s.IsBook => N(s.From.Year),
            "access_type" => s.IsFree ? "F" : "P",
            _ => "",
        };
    }
}
