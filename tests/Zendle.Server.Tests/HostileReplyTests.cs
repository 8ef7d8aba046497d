using Zendle.Connect.Harvest;

namespace Zendle.Server.Tests;

/// <summary>Tests that measure this process; they run when no other does.</summary>
[CollectionDefinition("Alone", DisableParallelization = true)]
public sealed class Alone;

/// <summary>What a hostile reply costs, in memory of this process.</summary>
[Collection("Alone")]
public sealed class HostileReplyTests : IAsyncLifetime
{
    private readonly HostileService service = new();

    public async ValueTask InitializeAsync() => await service.Start();

    public ValueTask DisposeAsync() => service.DisposeAsync();

    public static TheoryData<string, string> Kinds =>
        new()
        {
            { "nested", "nested deeper than 100 levels" },
            { "attributes", "a tag of more than 100,000 characters" },
            { "parts", "more than 1,000,000 parts" },
            { "word", "more than 4,000,000 characters" },
            { "error", "answers with the error" },
        };

    [Theory, MemberData(nameof(Kinds))]
    public async Task A_reply_made_to_cost_much_is_refused_in_one_sentence(string kind, string sentence)
    {
        using var client = new OaiClient(new([new(service.Base)]), OaiLimits.Usual, TimeProvider.System);
        var before = GC.GetTotalAllocatedBytes();
        var e = await Assert.ThrowsAsync<HarvestFaultException>(() =>
            client.Records(
                new($"{service.Base}/{kind}/oai"),
                "mods",
                null,
                null,
                null,
                r => RecordReader.Read(r),
                null,
                TestContext.Current.CancellationToken
            )
        );
        Assert.Contains(sentence, e.Message, StringComparison.Ordinal);
        Assert.True(e.Message.Length < 700, $"{e.Message.Length}");
        Assert.True(
            GC.GetTotalAllocatedBytes() - before < 800L << 20,
            $"{(GC.GetTotalAllocatedBytes() - before) >> 20} MB"
        );
    }
}
