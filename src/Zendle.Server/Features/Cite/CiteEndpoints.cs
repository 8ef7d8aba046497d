using System.Net;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Citing;
using Zendle.Core.Formats;
using Zendle.Documents.Citing;
using Zendle.Index.Questions;
using Zendle.Server.Features.Export;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Cite;

/// <summary>A style one can choose.</summary>
/// <param name="Follows">Title of the style it follows; null for one that stands for itself.</param>
internal sealed record StyleDto(string Key, string Title, string? Locale, string? Follows);

internal sealed record StylesDto(int Total, IReadOnlyList<StyleDto> Styles, IReadOnlyList<string> Locales);

/// <summary>Works named, or the set of a step, in a style and a locale.</summary>
internal sealed record CiteRequest(IReadOnlyList<int>? Works, int? StepId, string? Style, string? Locale);

/// <summary>One formatted reference.</summary>
/// <param name="Missing">What the records do not have of it.</param>
internal sealed record ReferenceDto(int WorkId, string Html, string Text, IReadOnlyList<string> Missing);

/// <summary>A bibliography in the order of its style.</summary>
/// <param name="Note">What stands in for what was asked; null for nothing.</param>
/// <param name="Left">How many works were left out because the set is longer than a screen needs.</param>
internal sealed record BibliographyDto(
    StyleDto Style,
    string Locale,
    string? Note,
    IReadOnlyList<ReferenceDto> References,
    int Left
);

internal static class CiteEndpoints
{
    private const int MostOnScreen = 300;
    private const int MostInFile = 5_000;

    public static void MapCite(this RouteGroupBuilder review, RouteGroupBuilder api)
    {
        api.MapGet(
            "/styles",
            (string? find, StyleShelf shelf) =>
                new StylesDto(
                    shelf.Count,
                    [.. shelf.Search(find ?? "").Select(s => Dto(s, shelf))],
                    [.. shelf.Locales.Order(StringComparer.Ordinal)]
                )
        );
        review.MapPost("/cite", Cite).Produces<BibliographyDto>();
        review.MapGet("/bibliography", File).Produces(200, contentType: "text/html");
    }

    private static StyleDto Dto(CitationStyle s, StyleShelf shelf) =>
        new(s.Key, s.Title, s.Locale, s.Parent is { } parent ? shelf.Find(parent)?.Title : null);

    private static async Task<IResult> Cite(
        int reviewId,
        CiteRequest request,
        SearchService search,
        CorpusReader reader,
        StyleShelf shelf,
        ReferenceFormatter formatter,
        ILogger<ReferenceFormatter> log,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, request.StepId ?? 0);
        if (view is null)
            return Problems.Of(404, "There is no such set.");
        int[] ids = request.Works is { } works ? [.. works.Distinct()] : search.Order(view, SortOrder.Newest, false);
        var made = await Made(
            view,
            [.. ids.Take(MostOnScreen)],
            request.Style,
            request.Locale,
            reader,
            shelf,
            formatter,
            log,
            cancel
        );
        return made.Fault ?? TypedResults.Ok(made.Bibliography! with { Left = Math.Max(0, ids.Length - MostOnScreen) });
    }

    private static async Task<(BibliographyDto? Bibliography, IResult? Fault)> Made(
        SearchView view,
        int[] ids,
        string? styleKey,
        string? asked,
        CorpusReader reader,
        StyleShelf shelf,
        ReferenceFormatter formatter,
        ILogger log,
        CancellationToken cancel
    )
    {
        if (shelf.Find(string.IsNullOrEmpty(styleKey) ? StyleShelf.Own : styleKey) is not { } style)
            return (null, Problems.Of(404, "This style does not ship with Zendle.", "Find another one by its name."));
        var locale = LocaleChoice.Of(asked, style.Locale, shelf.Locales);
        var citations = await WorkCitations.Of(view, ids, reader, cancel);
        using var json = new MemoryStream();
        CslJsonWriter.Write(json, citations);
        var byKey = citations.ToDictionary(c => c.Key);
        try
        {
            var made =
                citations.Count == 0
                    ? new([], false)
                    : await formatter.Format(style, locale.Locale, Encoding.UTF8.GetString(json.ToArray()), cancel);
            string?[] notes =
            [
                locale.Note,
                made.InNotes
                    ? "This style uses notes and has no reference list; each work is shown as its note."
                    : null,
            ];
            return (
                new(
                    Dto(style, shelf),
                    locale.Locale,
                    string.Join(' ', notes.OfType<string>()) is { Length: > 0 } note ? note : null,
                    [
                        .. made
                            .References.Where(r => byKey.ContainsKey(r.Id))
                            .Select(r => new ReferenceDto(
                                byKey[r.Id].WorkId,
                                r.Html,
                                r.Text,
                                CitationGaps.Of(byKey[r.Id])
                            )),
                    ],
                    0
                ),
                null
            );
        }
        catch (FormattingException e)
        {
            log.LogWarning(e, "A style failed.");
            return (
                null,
                Problems.Of(
                    422,
                    $"The style “{style.Title}” cannot format these works.",
                    "Choose another style; nothing else is touched."
                )
            );
        }
    }

    private static async Task<IResult> File(
        int reviewId,
        int? stepId,
        string? style,
        string? locale,
        string format,
        SearchService search,
        CorpusReader reader,
        StyleShelf shelf,
        ReferenceFormatter formatter,
        ZendleContext context,
        ILogger<ReferenceFormatter> log,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (format is not ("html" or "text"))
            return Problems.Of(400, $"“{format}” is not a form a bibliography has.", "Choose html or text.");
        using var view = await search.View(reviewId, stepId ?? 0);
        if (view is null)
            return Problems.Of(404, "There is no such set.");
        var ids = search.Order(view, SortOrder.Newest, false);
        if (ids.Length > MostInFile)
            return Problems.Of(
                400,
                $"The set holds {ids.Length:N0} works; a bibliography has at most {MostInFile:N0}.",
                "Narrow it first."
            );
        var (made, fault) = await Made(view, ids, style, locale, reader, shelf, formatter, log, cancel);
        if (made is null)
            return fault!;
        var title = await context.Reviews.Where(r => r.Id == reviewId).Select(r => r.Title).SingleAsync(cancel);
        var name = FileNames.Export(
            title,
            "bibliography",
            ids.Length,
            DateOnly.FromDateTime(clock.GetLocalNow().Date),
            format == "html" ? "html" : "txt"
        );
        var body =
            format == "text" ? string.Join("\n\n", made.References.Select(r => r.Text)) + "\n" : Page(title, made);
        return TypedResults.File(
            Encoding.UTF8.GetBytes(body),
            format == "html" ? "text/html; charset=utf-8" : "text/plain; charset=utf-8",
            name
        );
    }

    private static string Page(string title, BibliographyDto made) =>
        $$"""
            <!doctype html>
            <html lang="{{made.Locale}}">
            <head><meta charset="utf-8"><title>{{WebUtility.HtmlEncode(title)}}: bibliography</title>
            <style>
            body { font: 16px/1.45 Georgia, serif; max-width: 44em; margin: 3em auto; padding: 0 1em }
            .csl-entry { margin: 0 0 .7em; padding-left: 2em; text-indent: -2em }
            .csl-left-margin { float: left; padding-right: .5em; text-indent: 0 }
            .csl-right-inline { margin-left: 2.4em; text-indent: 0 }
            .small-caps { font-variant: small-caps }
            </style></head>
            <body><h1>{{WebUtility.HtmlEncode(title)}}</h1>
            {{string.Join('\n', made.References.Select(r => r.Html))}}
            </body></html>
            """;
}
