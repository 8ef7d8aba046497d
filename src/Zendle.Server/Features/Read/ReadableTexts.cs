using System.Globalization;
using System.Text.RegularExpressions;
using Zendle.Core.Sets;
using Zendle.Core.Text;
using Zendle.Documents.Marked;
using Zendle.Documents.Reading;
using Zendle.Server.Features.Gather;
using Zendle.Store.Files;

namespace Zendle.Server.Features.Read;

/// <summary>A text that is no PDF, as it is shown.</summary>
/// <param name="Html">The article: plain elements only, ids begin with <c>t-</c>; figures lead to where they lie.</param>
/// <param name="Headings">Its headings below the title.</param>
/// <param name="Figures">How many figures it has.</param>
/// <param name="FiguresMissing">How many of them did not come with it.</param>
internal sealed record ReadableDto(
    string Html,
    IReadOnlyList<ReadableHeading> Headings,
    int Figures,
    int FiguresMissing
);

/// <summary>Makes texts that are no PDFs readable; the last ones are remembered.</summary>
internal sealed partial class ReadableTexts(DocumentReader documents, FileVault vault, TextFigures figures)
{
    private const long MostRemembered = 8 << 20;
    private readonly BoundedCache<string, ReadableText> known = new(MostRemembered);

    /// <summary>A text as it is shown.</summary>
    /// <param name="address">Where the text lies in the API; its figures lie below.</param>
    /// <param name="hash">Its file, which is there.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="Zendle.Documents.DocumentFaultException">It cannot be shown.</exception>
    public async Task<ReadableDto> Of(string address, string hash, CancellationToken cancel)
    {
        if (!known.TryGet(hash, out var text))
        {
            text = await documents.Readable(await File.ReadAllBytesAsync(vault.PathOf(hash), cancel), cancel);
            known.Put(hash, text, 2L * text.Html.Length);
        }
        var there = await figures.Of(hash, cancel);
        var html = Figure()
            .Replace(
                text.Html,
                figure =>
                    int.Parse(figure.Groups[1].ValueSpan, CultureInfo.InvariantCulture) is var n && there.ContainsKey(n)
                        ? string.Create(
                            CultureInfo.InvariantCulture,
                            $" src=\"{address}/figures/{n}\" loading=\"lazy\""
                        )
                        : " data-missing=\"true\""
            );
        return new(
            html,
            text.Headings,
            text.Figures.Count,
            Enumerable.Range(0, text.Figures.Count).Count(n => !there.ContainsKey(n))
        );
    }

    // The sanitiser writes attributes in one way.
    [GeneratedRegex(@" data-figure=""(\d{1,3})""", RegexOptions.CultureInvariant, PatternTime.Milliseconds)]
    private static partial Regex Figure();
}
