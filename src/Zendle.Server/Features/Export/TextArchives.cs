using System.Globalization;
using System.IO.Compression;
using System.Text;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Formats;
using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Server.Features.Search;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Files;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Export;

/// <summary>A file of an archive: the document, its work, and its name there.</summary>
/// <param name="Text">The document.</param>
/// <param name="Work">What is known of its work.</param>
/// <param name="Name">Its name, unlike all others in the archive.</param>
/// <param name="Figures">The figures that lie beside it.</param>
internal sealed record ArchivedText(TextRow Text, Citation Work, string Name, IReadOnlyList<ArchivedFigure> Figures);

/// <summary>A figure of a document that does not hold its figures itself.</summary>
/// <param name="Hash">Its file in the vault.</param>
/// <param name="Name">Its name in the archive, in a folder of its document's figures.</param>
/// <param name="Bytes">Its bytes.</param>
internal sealed record ArchivedFigure(string Hash, string Name, long Bytes);

/// <summary>The texts in hand of a set, as one archive.</summary>
/// <param name="Count">How many works the set has.</param>
/// <param name="Texts">Their documents, in the order of the list.</param>
/// <param name="Without">The works without a document, in that order, where they were asked for.</param>
internal sealed record TextArchive(int Count, IReadOnlyList<ArchivedText> Texts, IReadOnlyList<Citation> Without)
{
    /// <summary>Bytes of all documents and their figures.</summary>
    public long Bytes => Texts.Sum(t => t.Text.Bytes + t.Figures.Sum(f => f.Bytes));
}

/// <summary>
/// Texts in hand as a zip: each under a name made by a template, with a table of all works of the set and what became of
/// their texts.
/// </summary>
internal sealed class TextArchives(
    TextsInHand inHand,
    CorpusReader reader,
    KeyRegister keys,
    FileVault vault,
    IDbContextFactory<ZendleContext> contexts
)
{
    /// <summary>Name of the table in the archive; no document can have it.</summary>
    public const string Manifest = "manifest.csv";

    /// <summary>What an archive would hold.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="view">The set.</param>
    /// <param name="ids">Its works, in order.</param>
    /// <param name="template">How files are named; without fault.</param>
    /// <param name="withOthers">Whether the works without a document are wanted, too.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<TextArchive> Of(
        int reviewId,
        SearchView view,
        int[] ids,
        string template,
        bool withOthers,
        CancellationToken cancel
    )
    {
        var byWork = await inHand.Of(reviewId, cancel);
        int[] withText = [.. ids.Where(byWork.Contains)];
        var works = await keys.Keyed(reviewId, await WorkCitations.Of(view, withText, reader, cancel), cancel);
        var pairs = works.SelectMany(w => byWork[w.WorkId].Select(t => (Text: t, Work: w))).ToArray();
        var names = TextNames.Apart(pairs.Select(p => Name(template, p.Text, p.Work)));
        var figures = await Figures([.. pairs.Select(p => p.Text)], cancel);
        return new(
            ids.Length,
            [
                .. pairs.Select(
                    (p, i) =>
                        new ArchivedText(
                            p.Text,
                            p.Work,
                            names[i],
                            [.. figures[p.Text.Hash].OrderBy(f => f.Ordinal).Select(f => Figure(f, names[i]))]
                        )
                ),
            ],
            withOthers ? await WorkCitations.Of(view, [.. ids.Where(id => !byWork.Contains(id))], reader, cancel) : []
        );
    }

    /// <summary>The figures of documents whose files do not hold them: web pages and articles in XML name them only.</summary>
    private async Task<ILookup<string, TextFigureRow>> Figures(TextRow[] texts, CancellationToken cancel)
    {
        string[] apart =
        [
            .. texts.Where(t => t.Format is TextFormat.Html or TextFormat.Jats).Select(t => t.Hash).Distinct(),
        ];
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var found = await context.TextFigures.AsNoTracking().Where(f => apart.Contains(f.TextHash)).ToListAsync(cancel);
        return found.Where(f => vault.Has(f.Hash)).ToLookup(f => f.TextHash);
    }

    private ArchivedFigure Figure(TextFigureRow figure, string document) =>
        new(
            figure.Hash,
            string.Create(
                CultureInfo.InvariantCulture,
                $"{document} figures/{figure.Ordinal + 1}.{FigureFormats.EndingOf(figure.MediaType)}"
            ),
            new FileInfo(vault.PathOf(figure.Hash)).Length
        );

    /// <summary>Writes an archive, document by document: what is written before it can be sent on lies in memory or, where
    /// there is more of it, in a temporary file.</summary>
    public async Task Write(Stream to, TextArchive archive, CancellationToken cancel)
    {
        // An archive writes some of its bytes at once, which a response refuses.
        await using var held = new FileBufferingWriteStream();
        await using (
            var zip = await ZipArchive.CreateAsync(held, ZipArchiveMode.Create, leaveOpen: true, Encoding.UTF8, cancel)
        )
        {
            foreach (var text in archive.Texts.Where(t => vault.Has(t.Text.Hash)))
            {
                // PDFs are compressed already, and pictures are.
                await Put(text.Name, text.Text.Hash, text.Text.At, text.Text.Format == TextFormat.Pdf);
                foreach (var figure in text.Figures)
                    await Put(figure.Name, figure.Hash, text.Text.At, isCompressed: true);
            }
            await using var table = await zip.CreateEntry(Manifest).OpenAsync(cancel);
            await table.WriteAsync(Table(archive), cancel);

            async Task Put(string name, string hash, DateTimeOffset at, bool isCompressed)
            {
                var entry = zip.CreateEntry(
                    name,
                    isCompressed ? CompressionLevel.NoCompression : CompressionLevel.Optimal
                );
                entry.LastWriteTime = at;
                await using (var file = File.OpenRead(vault.PathOf(hash)))
                await using (var into = await entry.OpenAsync(cancel))
                    await file.CopyToAsync(into, cancel);
                await held.DrainBufferAsync(to, cancel);
            }
        }
        await held.DrainBufferAsync(to, cancel);
    }

    private static string Name(string template, TextRow text, Citation work) =>
        TextNames.Of(
            template,
            new(
                work.Authors.Concat(work.Editors).FirstOrDefault()?.Family,
                work.Year,
                work.Title,
                text.Version,
                work.Venue?.Title,
                work.Key,
                text.Format
            )
        );

    /// <summary>A row for each document, and one for each work without any.</summary>
    private byte[] Table(TextArchive archive)
    {
        using var to = new MemoryStream();
        using (var text = new StreamWriter(to, new UTF8Encoding(true), leaveOpen: true))
        using (var csv = SafeCsv.To(text))
        {
            foreach (
                var head in (string[])
                    [
                        "file",
                        "version",
                        "format",
                        "pages",
                        "bytes",
                        "came from",
                        "came at",
                        "sha-256",
                        "work",
                        "key",
                        "title",
                        "people",
                        "year",
                        "venue",
                        "doi",
                        "stage",
                        "figures",
                    ]
            )
                csv.WriteField(head);
            csv.NextRecord();
            foreach (
                var (document, work) in archive
                    .Texts.Select(t => ((ArchivedText?)t, t.Work))
                    .Concat(archive.Without.Select(w => ((ArchivedText?)null, w)))
            )
            {
                var t = document?.Text;
                csv.WriteField(
                    document is null ? ""
                    : vault.Has(document.Text.Hash) ? document.Name
                    : "missing from the data folder"
                );
                csv.WriteField(WorkVersions.Name(t?.Version));
                csv.WriteField(t is null ? null : TextFormats.Name(t.Format));
                csv.WriteField(t?.Pages is > 0 and var pages ? pages : (int?)null);
                csv.WriteField(t?.Bytes);
                csv.WriteField(t?.Source);
                csv.WriteField(t?.At.ToString("yyyy-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture));
                csv.WriteField(t?.Hash);
                csv.WriteField(work.WorkId);
                csv.WriteField(work.Key);
                csv.WriteField(work.Title);
                csv.WriteField(
                    string.Join(
                        "; ",
                        work.Authors.Concat(work.Editors)
                            .Select(p => p.Given is { Length: > 0 } given ? $"{p.Family}, {given}" : p.Family)
                    )
                );
                csv.WriteField(work.Year);
                csv.WriteField(work.Venue?.Title);
                csv.WriteField(work.Doi);
                csv.WriteField(work.Stage);
                csv.WriteField(document?.Figures.Count);
                csv.NextRecord();
            }
        }
        return to.ToArray();
    }
}
