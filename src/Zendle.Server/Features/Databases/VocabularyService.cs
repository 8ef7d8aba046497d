using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Harvest;
using Zendle.Core.Terms;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Databases;

/// <summary>A vocabulary with the database whose indexers use it.</summary>
internal sealed record DatabaseVocabulary(int DatabaseId, Vocabulary Vocabulary);

/// <summary>
/// Controlled vocabularies of databases: fetched when a curator says where one lies, kept as they came, and read once
/// until another comes. Together they take at most as much memory as <see cref="MostHeld"/> documents' bytes.
/// </summary>
internal sealed class VocabularyService(
    IDbContextFactory<CorpusContext> contexts,
    VocabularyClient client,
    TimeProvider clock
) : IDisposable
{
    /// <summary>Most bytes of documents whose concepts are held at once; what is beyond is read when it is asked for.</summary>
    private const long MostHeld = 20_000_000;

    private readonly SemaphoreSlim reading = new(1, 1);
    private readonly Dictionary<int, (DateTimeOffset FetchedAt, long Size, Vocabulary Vocabulary)> held = [];

    /// <summary>Fetches the vocabulary of a database, or takes it away.</summary>
    /// <param name="databaseId">The database.</param>
    /// <param name="address">Where it lies; null to take it away.</param>
    /// <param name="cancel">Stops before it is kept.</param>
    /// <returns>How many concepts it has.</returns>
    /// <exception cref="VocabularyFaultException">It did not come, or is none; the one before stays.</exception>
    public async Task<int> Set(int databaseId, Uri? address, CancellationToken cancel)
    {
        var document = address is null ? [] : await client.Fetch(address, cancel);
        var concepts = address is null ? 0 : SkosReader.Read(document).Concepts.Length;
        await using var context = await contexts.CreateDbContextAsync(cancel);
        await context.Vocabularies.Where(v => v.DatabaseId == databaseId).ExecuteDeleteAsync(cancel);
        if (address is not null)
        {
            context.Vocabularies.Add(
                new()
                {
                    DatabaseId = databaseId,
                    Address = address.AbsoluteUri,
                    FetchedAt = clock.GetUtcNow(),
                    Concepts = concepts,
                    Document = RecordCodec.Document(document),
                }
            );
            await context.SaveChangesAsync(cancel);
        }
        return concepts;
    }

    /// <summary>All vocabularies that there are.</summary>
    public async Task<IReadOnlyList<DatabaseVocabulary>> All(CancellationToken cancel)
    {
        await reading.WaitAsync(cancel);
        try
        {
            await using var context = await contexts.CreateDbContextAsync(cancel);
            var there = await context
                .Vocabularies.AsNoTracking()
                .OrderBy(v => v.DatabaseId)
                .Select(v => new { v.DatabaseId, v.FetchedAt })
                .ToListAsync(cancel);
            foreach (var gone in held.Keys.Except(there.Select(t => t.DatabaseId)).ToArray())
                held.Remove(gone);
            var all = new List<DatabaseVocabulary>();
            foreach (var one in there)
            {
                if (held.TryGetValue(one.DatabaseId, out var known) && known.FetchedAt == one.FetchedAt)
                {
                    all.Add(new(one.DatabaseId, known.Vocabulary));
                    continue;
                }
                held.Remove(one.DatabaseId);
                var document = await context
                    .Vocabularies.Where(v => v.DatabaseId == one.DatabaseId)
                    .Select(v => v.Document)
                    .SingleAsync(cancel);
                var opened = RecordCodec.Opened(document);
                var vocabulary = SkosReader.Read(opened);
                if (held.Values.Sum(h => h.Size) + opened.Length <= MostHeld)
                    held[one.DatabaseId] = (one.FetchedAt, opened.Length, vocabulary);
                all.Add(new(one.DatabaseId, vocabulary));
            }
            return all;
        }
        finally
        {
            reading.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => reading.Dispose();
}
