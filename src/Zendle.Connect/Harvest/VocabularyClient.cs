using Zendle.Connect.Fetch;
using Zendle.Core.Terms;

namespace Zendle.Connect.Harvest;

/// <summary>Fetches controlled vocabularies.</summary>
public sealed class VocabularyClient(AddressPolicy policy) : IDisposable
{
    private static readonly OutsideWish Vocabulary = new(
        "a vocabulary",
        ["application/rdf+xml", "application/xml"],
        50_000_000,
        TimeSpan.FromSeconds(60)
    );
    private readonly OutsideDocuments documents = new(policy, "harvester");

    /// <summary>The document at an address.</summary>
    /// <param name="address">Where it lies.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="VocabularyFaultException">It did not come; the message says why.</exception>
    public async Task<byte[]> Fetch(Uri address, CancellationToken cancel)
    {
        try
        {
            using var to = new MemoryStream();
            await documents.Fetch(address, Vocabulary, to, cancel);
            return to.ToArray();
        }
        catch (OutsideFaultException e)
        {
            throw new VocabularyFaultException(e.Message, e);
        }
    }

    /// <inheritdoc/>
    public void Dispose() => documents.Dispose();
}
