using System.Globalization;
using System.Net;
using System.Text;

namespace Zendle.Outside.Documents;

/// <summary>
/// Writes a paper as a publisher's web page: the article with its figure, table and list of references, and around it what
/// such pages have: navigation, other articles, a form, a script.
/// </summary>
public static class ArticlePage
{
    /// <summary>The page.</summary>
    /// <param name="paper">The paper.</param>
    /// <param name="path">Path of the page, for what lies beside it.</param>
    public static string Html(Paper paper, string path)
    {
        var (w, text, cited) = (paper.Work, new StringBuilder(), new LinkedCitations(paper));
        text.Append(
            CultureInfo.InvariantCulture,
            $"""
            <!DOCTYPE html>
            <html lang="en"><head><meta charset="utf-8"><title>{E(paper.Title)} | {E(w.Journal?.Publisher)}</title>
            <meta name="citation_title" content="{E(paper.Title)}">
            {(paper.Doi is null ? "" : $"<meta name=\"citation_doi\" content=\"{E(paper.Doi)}\">")}
            {string.Concat(
                w.People.Select(p => $"<meta name=\"citation_author\" content=\"{E(p.Family)}, {E(p.Given)}\">")
            )}
            <meta name="citation_fulltext_html_url" content="{path}/text.html">
            <style>.bar {"{"} position: fixed {"}"}</style>
            <script>document.title = "Not this title";</script>
            </head><body>
            <header class="bar"><a href="/">{E(
                w.Journal?.Publisher
            )}</a><nav><ul><li><a href="/a">Journals</a></li><li><a href="/b">Books</a></li></ul></nav>
            <form action="/search"><input name="q"><button>Search</button></form></header>
            <main><article>
            <p class="label">Research article</p>
            <h1>{E(paper.Title)}</h1>
            <ul class="authors">{string.Concat(w.People.Select(p => $"<li>{E(p.Given)} {E(p.Family)}</li>"))}</ul>
            <p>{E(w.Journal?.Title)} {w.Volume} ({w.Year}), {w.FirstPage}–{w.LastPage}</p>
            <p>{E(paper.Dates)}</p>
            {(paper.Doi is null ? "" : $"<p>DOI: <a href=\"https://doi.org/{E(paper.Doi)}\">{E(paper.Doi)}</a></p>")}
            <section><h2>Abstract</h2><p>{E(w.Abstract)}</p></section>
            """
        );
        foreach (var section in paper.Sections)
        {
            text.Append(CultureInfo.InvariantCulture, $"<section><h2>{E(section.Heading)}</h2>");
            foreach (var paragraph in section.Paragraphs)
            {
                text.Append("<p>");
                foreach (var run in cited.Of(paragraph))
                    text.Append(
                        run.Entry is { } entry ? $"<a href=\"#ref{entry + 1}\">{E(run.Text)}</a>" : E(run.Text)
                    );
                text.Append("</p>");
            }
            if (section.Heading == "Results")
                text.Append(
                    CultureInfo.InvariantCulture,
                    $"""
                    <figure id="f1"><img src="figure-1.png" alt="Counts by season"><figcaption>Figure 1. Counts {E(
                        paper.Counts.Without
                    )} and {E(paper.Counts.With)} by season.</figcaption></figure>
                    <table><caption>Table 1. Counts by season.</caption><thead><tr><th>Season</th><th>{E(
                        paper.Counts.Without
                    )}</th><th>{E(paper.Counts.With)}</th></tr></thead><tbody>{string.Concat(
                        paper.Counts.Rows.Select(r =>
                            $"<tr><td>{r.Season}</td><td>{r.Without}</td><td>{r.With}</td></tr>"
                        )
                    )}</tbody></table>
                    """
                );
            text.Append("</section>");
        }
        text.Append("<section><h2>References</h2><ol>");
        for (var i = 0; i < paper.References.Count; i++)
            text.Append(CultureInfo.InvariantCulture, $"<li id=\"ref{i + 1}\">{E(paper.References[i])}</li>");
        text.Append(
            """
            </ol></section></article></main>
            <aside><h2>Readers also opened</h2><ul><li><a href="/x">Lamps of the world: a picture book</a></li></ul></aside>
            <footer><p onclick="alert(1)">Terms. Privacy. Contact.</p></footer></body></html>
            """
        );
        return text.ToString();
    }

    private static string E(string? text) => WebUtility.HtmlEncode(text ?? "");
}
