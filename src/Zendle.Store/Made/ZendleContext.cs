using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.FullText;
using Zendle.Core.Loans;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Schedules;

namespace Zendle.Store.Made;

/// <summary>
/// What people made: accounts, reviews, paths, decisions, runs, jobs (<c>zendle.db</c>, durable to the last
/// acknowledged write).
/// </summary>
public sealed class ZendleContext(DbContextOptions<ZendleContext> options) : IdentityUserContext<Account>(options)
{
    /// <summary>Reviews.</summary>
    public DbSet<Review> Reviews => Set<Review>();

    /// <summary>Members of reviews.</summary>
    public DbSet<Member> Members => Set<Member>();

    /// <summary>Steps of paths.</summary>
    public DbSet<StepRow> Steps => Set<StepRow>();

    /// <summary>Where accounts last were.</summary>
    public DbSet<PlaceRow> Places => Set<PlaceRow>();

    /// <summary>Decision events.</summary>
    public DbSet<DecisionRow> Decisions => Set<DecisionRow>();

    /// <summary>Runs.</summary>
    public DbSet<RunRow> Runs => Set<RunRow>();

    /// <summary>Keys under which reviews cite works.</summary>
    public DbSet<CitationKeyRow> CitationKeys => Set<CitationKeyRow>();

    /// <summary>Jobs.</summary>
    public DbSet<JobRow> Jobs => Set<JobRow>();

    /// <summary>Jobs that are asked for by themselves.</summary>
    public DbSet<ScheduleRow> Schedules => Set<ScheduleRow>();

    /// <summary>Terms that reviews do not want offered.</summary>
    public DbSet<RefusedTermRow> RefusedTerms => Set<RefusedTermRow>();

    /// <summary>Rounds of reviews.</summary>
    public DbSet<RoundRow> Rounds => Set<RoundRow>();

    /// <summary>Named maps.</summary>
    public DbSet<MapRow> Maps => Set<MapRow>();

    /// <summary>What topics were found among.</summary>
    public DbSet<TopicsRow> Topics => Set<TopicsRow>();

    /// <summary>Works looked at in rounds.</summary>
    public DbSet<LookedRow> Looked => Set<LookedRow>();

    /// <summary>Works whose texts are sought.</summary>
    public DbSet<SoughtRow> Sought => Set<SoughtRow>();

    /// <summary>Attempts to get texts.</summary>
    public DbSet<AttemptRow> Attempts => Set<AttemptRow>();

    /// <summary>Documents that came.</summary>
    public DbSet<TextRow> Texts => Set<TextRow>();

    /// <summary>What people opened and read.</summary>
    public DbSet<ReadingRow> Readings => Set<ReadingRow>();

    /// <summary>Figures of texts.</summary>
    public DbSet<TextFigureRow> TextFigures => Set<TextFigureRow>();

    /// <summary>What was read out of stored documents.</summary>
    public DbSet<TextReadingRow> TextReadings => Set<TextReadingRow>();

    /// <summary>Libraries.</summary>
    public DbSet<LibraryRow> Libraries => Set<LibraryRow>();

    /// <summary>Who uses which libraries.</summary>
    public DbSet<UsedLibraryRow> UsedLibraries => Set<UsedLibraryRow>();

    /// <summary>Sessions at libraries.</summary>
    public DbSet<LibrarySessionRow> LibrarySessions => Set<LibrarySessionRow>();

    /// <summary>Desks that loans are asked for at.</summary>
    public DbSet<LoanDeskRow> LoanDesks => Set<LoanDeskRow>();

    /// <summary>Requests for loans.</summary>
    public DbSet<LoanRow> Loans => Set<LoanRow>();

    /// <summary>What happened to them.</summary>
    public DbSet<LoanEventRow> LoanEvents => Set<LoanEventRow>();

    /// <summary>Sessions.</summary>
    public DbSet<SessionRow> Sessions => Set<SessionRow>();

    /// <summary>What decisions were made on.</summary>
    public DbSet<MadeOnRow> MadeOn => Set<MadeOnRow>();

    /// <summary>Databases known so far.</summary>
    public DbSet<KnownDatabaseRow> KnownDatabases => Set<KnownDatabaseRow>();

    /// <summary>Custom entries.</summary>
    public DbSet<EntryRow> Entries => Set<EntryRow>();

    /// <summary>What people said references mean.</summary>
    public DbSet<ResolutionRow> Resolutions => Set<ResolutionRow>();

    /// <summary>Settings.</summary>
    public DbSet<SettingRow> Settings => Set<SettingRow>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<CitationKeyRow>(k =>
        {
            k.HasKey(x => new { x.ReviewId, x.Key });
            k.HasOne<Review>().WithMany().HasForeignKey(x => x.ReviewId);
        });
        builder.Entity<RefusedTermRow>(t =>
        {
            t.HasKey(x => new { x.ReviewId, x.Text });
            t.HasOne<Review>().WithMany().HasForeignKey(x => x.ReviewId);
            t.HasOne<Account>().WithMany().HasForeignKey(x => x.AccountId);
        });
        builder.Entity<RoundRow>(r =>
        {
            r.HasIndex(x => new { x.ReviewId, x.Number }).IsUnique();
            r.HasOne<Review>().WithMany().HasForeignKey(x => x.ReviewId);
            r.HasOne<Account>().WithMany().HasForeignKey(x => x.AccountId);
        });
        builder.Entity<MapRow>(m =>
        {
            m.HasIndex(x => x.ReviewId);
            m.HasOne<Review>().WithMany().HasForeignKey(x => x.ReviewId);
            m.HasOne<StepRow>().WithMany().HasForeignKey(x => x.StepId);
            m.HasOne<Account>().WithMany().HasForeignKey(x => x.AccountId);
        });
        builder.Entity<TopicsRow>(t =>
        {
            t.HasKey(x => x.StepId);
            t.HasOne<StepRow>().WithOne().HasForeignKey<TopicsRow>(x => x.StepId);
        });
        builder.Entity<LookedRow>(l =>
        {
            l.HasKey(x => new
            {
                x.ReviewId,
                x.AccountId,
                x.WorkId,
            });
            l.HasOne<Review>().WithMany().HasForeignKey(x => x.ReviewId);
            l.HasOne<Account>().WithMany().HasForeignKey(x => x.AccountId);
        });
        builder.Entity<EntryRow>().HasOne<Account>().WithMany().HasForeignKey(e => e.AccountId);
        builder.Entity<ResolutionRow>().HasOne<Account>().WithMany().HasForeignKey(r => r.AccountId);
        builder.Entity<Member>().HasKey(m => new { m.ReviewId, m.AccountId });
        builder.Entity<Member>().HasOne<Review>().WithMany().HasForeignKey(m => m.ReviewId);
        builder.Entity<Member>().HasOne<Account>().WithMany().HasForeignKey(m => m.AccountId);
        builder.Entity<StepRow>().HasOne<Review>().WithMany().HasForeignKey(s => s.ReviewId);
        builder.Entity<PlaceRow>().HasKey(p => new { p.ReviewId, p.AccountId });
        builder.Entity<DecisionRow>().HasOne<Review>().WithMany().HasForeignKey(d => d.ReviewId);
        builder.Entity<RunRow>().HasOne<Review>().WithMany().HasForeignKey(r => r.ReviewId);
        builder.Entity<SoughtRow>().HasKey(s => new { s.ReviewId, s.WorkId });
        builder.Entity<SoughtRow>().HasOne<Review>().WithMany().HasForeignKey(s => s.ReviewId);
        builder.Entity<AttemptRow>().HasIndex(a => new { a.ReviewId, a.WorkId });
        builder.Entity<AttemptRow>().HasOne<Review>().WithMany().HasForeignKey(a => a.ReviewId);
        builder.Entity<TextRow>().HasIndex(t => new { t.ReviewId, t.WorkId });
        builder.Entity<TextRow>().HasIndex(t => t.Hash);
        builder.Entity<TextRow>().HasOne<Review>().WithMany().HasForeignKey(t => t.ReviewId);
        builder.Entity<TextRow>().Property(t => t.Format).HasDefaultValue(TextFormat.Pdf);
        builder.Entity<ReadingRow>(r =>
        {
            r.HasKey(x => new { x.AccountId, x.TextId });
            r.HasOne<Account>().WithMany().HasForeignKey(x => x.AccountId);
            r.HasOne<TextRow>().WithMany().HasForeignKey(x => x.TextId);
        });
        builder.Entity<UsedLibraryRow>(u =>
        {
            u.HasKey(x => new { x.AccountId, x.LibraryId });
            u.HasOne<Account>().WithMany().HasForeignKey(x => x.AccountId);
            u.HasOne<LibraryRow>().WithMany().HasForeignKey(x => x.LibraryId);
        });
        builder.Entity<LibrarySessionRow>(l =>
        {
            l.HasKey(x => new { x.AccountId, x.LibraryId });
            l.HasOne<Account>().WithMany().HasForeignKey(x => x.AccountId);
            l.HasOne<LibraryRow>().WithMany().HasForeignKey(x => x.LibraryId);
        });
        builder.Entity<LoanDeskRow>().HasOne<LibraryRow>().WithMany().HasForeignKey(d => d.LibraryId);
        builder.Entity<LoanRow>(l =>
        {
            l.HasIndex(x => new { x.ReviewId, x.WorkId });
            l.HasIndex(x => x.Number).IsUnique();
            l.HasIndex(x => x.Delivery);
            l.HasOne<Review>().WithMany().HasForeignKey(x => x.ReviewId);
        });
        builder.Entity<LoanEventRow>(e =>
        {
            e.HasIndex(x => x.LoanId);
            e.HasIndex(x => x.IsWaiting);
            e.HasOne<LoanRow>().WithMany().HasForeignKey(x => x.LoanId);
        });
        builder.Entity<TextFigureRow>().HasKey(f => new { f.TextHash, f.Ordinal });
        builder.Entity<TextReadingRow>().HasKey(t => t.Hash);
        builder.Entity<SettingRow>().HasKey(s => s.Name);
        builder.Entity<ScheduleRow>().HasKey(s => new { s.Kind, s.Subject });
        builder.Entity<SessionRow>().HasKey(s => s.Id);
        builder.Entity<SessionRow>().HasIndex(s => s.AccountId);
        builder.Entity<MadeOnRow>().HasKey(m => m.RecordId);
        builder.Entity<MadeOnRow>().Property(m => m.RecordId).ValueGeneratedNever();
        builder.Entity<MadeOnRow>().HasIndex(m => m.WorkId);
        builder.Entity<KnownDatabaseRow>().Property(d => d.Id).ValueGeneratedNever();
        builder.Entity<KnownDatabaseRow>().HasIndex(d => new { d.Address, d.SetName }).IsUnique();
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        base.ConfigureConventions(configurationBuilder);
        configurationBuilder.Properties<DecisionAct>().HaveConversion<string>();
        configurationBuilder.Properties<Role>().HaveConversion<string>();
        configurationBuilder.Properties<Recurrence>().HaveConversion<string>();
        configurationBuilder.Properties<JobState>().HaveConversion<string>();
        configurationBuilder.Properties<SoughtState>().HaveConversion<string>();
        configurationBuilder.Properties<TextFormat>().HaveConversion<string>();
        configurationBuilder.Properties<TextVerdict>().HaveConversion<string>();
        configurationBuilder.Properties<RouteKind>().HaveConversion<string>();
        configurationBuilder.Properties<AttemptOutcome>().HaveConversion<string>();
        configurationBuilder.Properties<WorkVersion>().HaveConversion<string>();
        configurationBuilder.Properties<LoanStatus>().HaveConversion<string>();
        configurationBuilder.Properties<LoanDelivery>().HaveConversion<string>();
        configurationBuilder.Properties<LoanEventKind>().HaveConversion<string>();
        // As text with a fixed zone, so that times sort and compare in SQL.
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<Sqlite.UtcText>();
    }
}
