using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;

namespace Zendle.Store.Made;

/// <summary>What people made: accounts, reviews, paths, decisions, runs, jobs (<c>zendle.db</c>, durable to the last acknowledged write).</summary>
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
    /// <summary>Jobs.</summary>
    public DbSet<JobRow> Jobs => Set<JobRow>();
    /// <summary>Settings.</summary>
    public DbSet<SettingRow> Settings => Set<SettingRow>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<Member>().HasKey(m => new { m.ReviewId, m.AccountId });
        builder.Entity<Member>().HasOne<Review>().WithMany().HasForeignKey(m => m.ReviewId);
        builder.Entity<Member>().HasOne<Account>().WithMany().HasForeignKey(m => m.AccountId);
        builder.Entity<StepRow>().HasOne<Review>().WithMany().HasForeignKey(s => s.ReviewId);
        builder.Entity<PlaceRow>().HasKey(p => new { p.ReviewId, p.AccountId });
        builder.Entity<DecisionRow>().HasOne<Review>().WithMany().HasForeignKey(d => d.ReviewId);
        builder.Entity<RunRow>().HasOne<Review>().WithMany().HasForeignKey(r => r.ReviewId);
        builder.Entity<SettingRow>().HasKey(s => s.Name);
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        base.ConfigureConventions(configurationBuilder);
        configurationBuilder.Properties<DecisionAct>().HaveConversion<string>();
        configurationBuilder.Properties<Role>().HaveConversion<string>();
        configurationBuilder.Properties<JobState>().HaveConversion<string>();
        // As text with a fixed zone, so that times sort and compare in SQL.
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<Sqlite.UtcText>();
    }
}
