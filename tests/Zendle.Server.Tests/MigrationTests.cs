using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Metadata;
using Zendle.Store;

namespace Zendle.Server.Tests;

/// <summary>
/// The tables that migrations make, and the models that a start takes ready made, are those that the code asks.
/// </summary>
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

    [Fact]
    public void The_compiled_models_are_what_the_contexts_say()
    {
        using var made = new ZendleContextDesign().CreateDbContext([]);
        using var corpus = new CorpusContextDesign().CreateDbContext([]);
        foreach (var context in new DbContext[] { made, corpus })
        {
            Assert.IsType<RuntimeModel>(context.Model, exactMatch: false);
            Assert.Equal(Said(context.GetService<IDesignTimeModel>().Model), Said(context.Model));
        }
    }

    /// <summary>What a model says of each table, column, key and index, a line for each.</summary>
    private static string[] Said(IModel model) =>
        [
            .. model
                .GetEntityTypes()
                .SelectMany(e =>
                    e.GetProperties()
                        .Select(p =>
                            $"{p.Name}: {p.ClrType} {p.GetColumnName()} {p.GetColumnType()} {p.IsNullable} {p.ValueGenerated} "
                            + $"{p.IsConcurrencyToken} {p.GetMaxLength()} {p.GetTypeMapping().Converter?.GetType()}"
                        )
                        .Concat(e.GetKeys().Select(k => $"key {Names(k.Properties)} {k.IsPrimaryKey()}"))
                        .Concat(e.GetIndexes().Select(i => $"index {Names(i.Properties)} {i.IsUnique}"))
                        .Concat(
                            e.GetForeignKeys()
                                .Select(f =>
                                    $"{Names(f.Properties)} of {f.PrincipalEntityType.Name} {Names(f.PrincipalKey.Properties)} "
                                    + $"{f.DeleteBehavior} {f.IsUnique} {f.IsRequired}"
                                )
                        )
                        .Select(line => $"{e.Name} {e.GetTableName()} {line}")
                )
                .Order(StringComparer.Ordinal),
        ];

    private static string Names(IEnumerable<IReadOnlyProperty> properties) =>
        string.Join(", ", properties.Select(p => p.Name));
}
