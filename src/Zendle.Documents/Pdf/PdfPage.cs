using System.Diagnostics;
using System.Runtime.ExceptionServices;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;

namespace Zendle.Documents.Pdf;

/// <summary>What stands on a page of a PDF.</summary>
/// <param name="Number">Its number, from 1.</param>
/// <param name="Lines">Its lines as its content draws them.</param>
/// <param name="Letters">How many letters it has.</param>
/// <param name="IsWide">Whether it is wider than high.</param>
internal sealed record PdfPage(int Number, IReadOnlyList<PdfLine> Lines, int Letters, bool IsWide)
{
    /// <summary>Fewest pages that are worth a second thread, which has to read the fonts again.</summary>
    private const int WorthSharing = 6;

    /// <summary>Opens a PDF.</summary>
    public static PdfDocument Open(byte[] bytes) =>
        PdfDocument.Open(bytes, new ParsingOptions { UseLenientParsing = true, SkipMissingFonts = true });

    /// <summary>
    /// All pages. The library that reads them is made for one thread, so a longer document is opened twice and every
    /// other page read by a second one: whoever waits for it waits hardly more than half as long.
    /// </summary>
    /// <param name="bytes">The whole file.</param>
    /// <param name="document">The same, opened.</param>
    /// <param name="limits">When to give up.</param>
    /// <param name="watch">Runs since reading began.</param>
    /// <exception cref="DocumentFaultException">It takes too long, or a page holds too much.</exception>
    public static IReadOnlyList<PdfPage> All(byte[] bytes, PdfDocument document, DocumentLimits limits, Stopwatch watch)
    {
        var pages = new PdfPage[document.NumberOfPages];
        var parts = pages.Length < WorthSharing ? 1 : Math.Min(2, Environment.ProcessorCount);
        using var over = new CancellationTokenSource();
        try
        {
            Parallel.For(
                0,
                parts,
                part =>
                {
                    try
                    {
                        using var own = part == 0 ? null : Open(bytes);
                        for (var i = part; i < pages.Length && !over.IsCancellationRequested; i += parts)
                            pages[i] = Read((own ?? document).GetPage(i + 1), limits, watch);
                    }
                    catch
                    {
                        over.Cancel();
                        throw;
                    }
                }
            );
        }
        catch (AggregateException e)
        {
            ExceptionDispatchInfo.Throw(
                e.InnerExceptions.FirstOrDefault(i => i is OutOfMemoryException) ?? e.InnerExceptions[0]
            );
        }
        return pages;
    }

    private static PdfPage Read(Page page, DocumentLimits limits, Stopwatch watch)
    {
        if (watch.Elapsed > limits.Time)
            throw new DocumentFaultException(
                DocumentFault.TooSlow,
                $"Reading the file took longer than {limits.Time.TotalSeconds:0} seconds."
            );
        if (page.Letters.Count > limits.LettersOnPage)
            throw new DocumentFaultException(
                DocumentFault.TooHeavy,
                $"One page of the file has more than {limits.LettersOnPage:N0} letters; it was refused."
            );
        return new(page.Number, [.. PdfLines.Of(page)], page.Letters.Count, page.Width > page.Height);
    }
}
