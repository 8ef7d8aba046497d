using System.Globalization;
using System.IO.Compression;
using System.Text;
using Microsoft.AspNetCore.WebUtilities;
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
internal sealed record ArchivedText(TextRow Text, Citation Work, string Name);

/// <summary>The texts in hand of a set, as one archive.</summary>
/// <param name="Count">How many works the set has.</param>
/// <param name="Texts">Their documents, in the order of the list.</param>
/// <param name="Without">The works without a document, in that order, where they were asked for.</param>
internal sealed record TextArchive(int Count, IReadOnlyList<ArchivedText> Texts, IReadOnlyList<Citation> Without)
{
    /// <summary>Bytes of all documents.</summary>
    public long Bytes => Texts.Sum(t => (long)t.Text.Bytes);
}

/// <summary>
/// Texts in hand as a zip: each under a name made by a template, with a table of all works of the set and what became of
/// their texts.
/// </summary>
internal sealed class TextArchives(TextsInHand inHand, CorpusReader reader, KeyRegister keys, FileVault vault)
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
        return new(
            ids.Length,
            [.. pairs.Select((p, i) => new ArchivedText(p.Text, p.Work, names[i]))],
            withOthers ? await WorkCitations.Of(view, [.. ids.Where(id => !byWork.Contains(id))], reader, cancel) : []
        );
    }

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
                // PDFs are compressed already.
                var entry = zip.CreateEntry(
                    text.Name,
                    text.Text.Format == TextFormat.Pdf ? CompressionLevel.NoCompression : CompressionLevel.Optimal
                );
                entry.LastWriteTime = text.Text.At;
                await using (var file = File.OpenRead(vault.PathOf(text.Text.Hash)))
                await using (var into = await entry.OpenAsync(cancel))
                    await file.CopyToAsync(into, cancel);
                await held.DrainBufferAsync(to, cancel);
            }
            await using var table = await zip.CreateEntry(Manifest).OpenAsync(cancel);
            await table.WriteAsync(Table(archive), cancel);
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
                csv.NextRecord();
            }
        }
        return to.ToArray();
    }
}
