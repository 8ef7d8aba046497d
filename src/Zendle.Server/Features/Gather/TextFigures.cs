using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Fetch;
using Zendle.Core.FullText;
using Zendle.Documents;
using Zendle.Documents.Reading;
using Zendle.Store.Files;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>
/// The figures of texts that are no PDFs: fetched with the text, or taken out of it where it holds them itself. A figure that
/// cannot be had keeps nobody from the text.
/// </summary>
internal sealed class TextFigures(
    IDbContextFactory<ZendleContext> contexts,
    DocumentReader documents,
    DocumentFetcher fetcher,
    FileVault vault
)
{
    /// <summary>Most bytes of all figures of a text.</summary>
    private const long MostBytes = 60_000_000;

    private const int AtOnce = 2;

    /// <summary>Brings the figures of a text that was taken in. What came before stays.</summary>
    /// <param name="hash">The text's file.</param>
    /// <param name="bytes">What it holds.</param>
    /// <param name="from">Where it came from; null when a person brought it: then only what it holds itself is taken.</param>
    /// <param name="cancel">Stops.</param>
    public async Task Bring(string hash, byte[] bytes, Uri? from, CancellationToken cancel)
    {
        if (TextFormats.Of(bytes) is not (TextFormat.Html or TextFormat.Jats or TextFormat.Epub))
            return;
        IReadOnlyList<string> named;
        try
        {
            named = (await documents.Readable(bytes, cancel)).Figures;
        }
        catch (DocumentFaultException)
        {
            return;
        }
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var there = await context.TextFigures.Where(f => f.TextHash == hash).Select(f => f.Ordinal).ToListAsync(cancel);
        var (found, left) = (new TextFigureRow?[named.Count], MostBytes);
        await Parallel.ForEachAsync(
            Enumerable.Range(0, named.Count).Except(there),
            new ParallelOptions { MaxDegreeOfParallelism = AtOnce, CancellationToken = cancel },
            async (i, stop) =>
            {
                if (Interlocked.Read(ref left) <= 0 || await Picture(named[i], from, stop) is not { } picture)
                    return;
                if (FigureFormats.TypeOf(picture) is not { } type || Interlocked.Add(ref left, -picture.Length) < 0)
                    return;
                try
                {
                    found[i] = new()
                    {
                        TextHash = hash,
                        Ordinal = i,
                        Hash = vault.Put(picture),
                        MediaType = type,
                    };
                }
                catch (NoRoomException)
                {
                    // The text is in hand; a disk that is full is told with the next document.
                }
            }
        );
        context.TextFigures.AddRange(found.OfType<TextFigureRow>());
        try
        {
            await context.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException)
        {
            // Two works brought the same file at one moment: the other's figures are these.
        }
    }

    /// <summary>Which figures of a text there are, by ordinal.</summary>
    public async Task<IReadOnlyDictionary<int, TextFigureRow>> Of(string hash, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context
            .TextFigures.AsNoTracking()
            .Where(f => f.TextHash == hash)
            .ToDictionaryAsync(f => f.Ordinal, cancel);
    }

    /// <summary>Takes the figures of a text out, but for files that something else needs.</summary>
    public async Task Remove(string hash)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var files = await context.TextFigures.Where(f => f.TextHash == hash).Select(f => f.Hash).ToListAsync();
        await context.TextFigures.Where(f => f.TextHash == hash).ExecuteDeleteAsync();
        foreach (var file in files.Distinct())
            if (
                !await context.TextFigures.AnyAsync(f => f.Hash == file)
                && !await context.Texts.AnyAsync(t => t.Hash == file && t.Verdict != TextVerdict.Refused)
            )
                vault.Remove(file);
    }

    private async Task<byte[]?> Picture(string address, Uri? from, CancellationToken cancel)
    {
        if (address.StartsWith("data:", StringComparison.OrdinalIgnoreCase))
            return Held(address);
        return from is not null && Uri.TryCreate(from, address, out var at) && at.Scheme is "http" or "https"
            ? await fetcher.Figure(at, cancel)
            : null;
    }

    /// <summary>A picture that the text holds itself (RFC 2397), in base64.</summary>
    private static byte[]? Held(string data)
    {
        var comma = data.IndexOf(',', StringComparison.Ordinal);
        if (comma < 0 || !data[..comma].EndsWith(";base64", StringComparison.OrdinalIgnoreCase))
            return null;
        var bytes = new byte[(data.Length - comma) * 3 / 4];
        return Convert.TryFromBase64String(data[(comma + 1)..], bytes, out var written) ? bytes[..written] : null;
    }
}
