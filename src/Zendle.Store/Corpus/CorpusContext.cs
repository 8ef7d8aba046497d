using Microsoft.EntityFrameworkCore;

namespace Zendle.Store.Corpus;

/// <summary>
/// What was harvested: databases, records, works (<c>corpus.db</c>). Could be fetched again, but for its ids.
/// </summary>
public sealed class CorpusContext(DbContextOptions<CorpusContext> options) : DbContext(options)
{
    /// <summary>Which corpus it is.</summary>
    public DbSet<CorpusRow> Corpus => Set<CorpusRow>();

    /// <summary>Databases.</summary>
    public DbSet<DatabaseRow> Databases => Set<DatabaseRow>();

    /// <summary>Records.</summary>
    public DbSet<RecordRow> Records => Set<RecordRow>();

    /// <summary>What merging looks at in records.</summary>
    public DbSet<MergeFactsRow> MergeFacts => Set<MergeFactsRow>();

    /// <summary>Keys of records.</summary>
    public DbSet<KeyPartRow> KeyParts => Set<KeyPartRow>();

    /// <summary>What whole runs under way have brought.</summary>
    public DbSet<SeenRow> Seen => Set<SeenRow>();

    /// <summary>Works.</summary>
    public DbSet<WorkRow> Works => Set<WorkRow>();

    /// <summary>Names of references that people said mean a work.</summary>
    public DbSet<ResolvedReferenceRow> ResolvedReferences => Set<ResolvedReferenceRow>();

    /// <summary>Where lists come from that no record has.</summary>
    public DbSet<TieSourceRow> TieSources => Set<TieSourceRow>();

    /// <summary>Lists that no record has.</summary>
    public DbSet<AddedListRow> AddedLists => Set<AddedListRow>();

    /// <summary>Persons told apart.</summary>
    public DbSet<PersonRow> People => Set<PersonRow>();

    /// <summary>Labels that persons were shown under.</summary>
    public DbSet<PersonLabelRow> PersonLabels => Set<PersonLabelRow>();

    /// <summary>Names on works with their persons.</summary>
    public DbSet<PersonMarkRow> PersonMarks => Set<PersonMarkRow>();

    /// <summary>Controlled vocabularies of databases.</summary>
    public DbSet<VocabularyRow> Vocabularies => Set<VocabularyRow>();

    /// <summary>Pairs that agree enough to be one work.</summary>
    public DbSet<MatchRow> Matches => Set<MatchRow>();

    /// <summary>What curators decided.</summary>
    public DbSet<RulingRow> Rulings => Set<RulingRow>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<CorpusRow>().Property(c => c.Id).ValueGeneratedNever();
        modelBuilder.Entity<DatabaseRow>().HasIndex(d => new { d.Address, d.SetName }).IsUnique();
        modelBuilder.Entity<RecordRow>(r =>
        {
            r.HasIndex(x => new { x.DatabaseId, x.Identifier }).IsUnique();
            r.HasIndex(x => x.WorkId);
            r.HasIndex(x => x.Sequence);
            r.HasIndex(x => x.OpensOn).HasFilter("OpensOn IS NOT NULL");
            r.HasOne<DatabaseRow>().WithMany().HasForeignKey(x => x.DatabaseId);
        });
        modelBuilder.Entity<MergeFactsRow>(m =>
        {
            m.HasKey(x => x.RecordId);
            m.Property(x => x.RecordId).ValueGeneratedNever();
        });
        modelBuilder.Entity<VocabularyRow>(v =>
        {
            v.HasKey(x => x.DatabaseId);
            v.Property(x => x.DatabaseId).ValueGeneratedNever();
            v.HasOne<DatabaseRow>().WithOne().HasForeignKey<VocabularyRow>(x => x.DatabaseId);
        });
        modelBuilder.Entity<ResolvedReferenceRow>(r =>
        {
            r.HasKey(x => x.Name);
            r.Property(x => x.Name).ValueGeneratedNever();
            r.HasIndex(x => x.WorkId);
        });
        modelBuilder.Entity<TieSourceRow>(s =>
        {
            s.Property(x => x.Id).ValueGeneratedNever();
            s.HasIndex(x => x.Address).IsUnique();
        });
        modelBuilder.Entity<AddedListRow>(l =>
        {
            l.Property(x => x.Id).ValueGeneratedNever();
            l.HasIndex(x => x.Sequence);
            l.HasIndex(x => new { x.SourceId, x.WorkId });
        });
        modelBuilder.Entity<SeenRow>().HasKey(s => new { s.DatabaseId, s.Identifier });
        modelBuilder.Entity<KeyPartRow>(k =>
        {
            k.Property(x => x.Id).ValueGeneratedNever();
            k.HasIndex(x => x.Run);
        });
        modelBuilder.Entity<PersonRow>().Property(p => p.Id).ValueGeneratedNever();
        modelBuilder.Entity<PersonLabelRow>(l =>
        {
            l.HasKey(x => x.Label);
            l.Property(x => x.Label).UseCollation("NOCASE");
        });
        modelBuilder.Entity<PersonMarkRow>().HasKey(m => new { m.WorkId, m.Name });
        modelBuilder.Entity<MatchRow>(m =>
        {
            m.HasKey(x => new { x.First, x.Second });
            m.HasIndex(x => x.Second);
        });
        modelBuilder.Entity<RulingRow>(r =>
        {
            r.HasIndex(x => x.First);
            r.HasIndex(x => x.Second);
        });
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<Sqlite.UtcText>();
    }
}
