using Microsoft.EntityFrameworkCore;
using Zendle.Store;

namespace Zendle.Server.Tests;

/// <summary>The tables that migrations make are the tables that the code asks.</summary>
public sealed class MigrationTests
{
    [Fact]
    public void No_change_of_what_a_review_keeps_lacks_its_migration()
    {
        using var context = new ZendleContextDesign().CreateDbContext([]);
        Assert.False(context.Database.HasPendingModelChanges());
    }

    [Fact]
    public void No_change_of_the_corpus_lacks_its_migration()
    {
        using var context = new CorpusContextDesign().CreateDbContext([]);
        Assert.False(context.Database.HasPendingModelChanges());
    }
}
