using Fendrik.Core.Lists;
using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Conventions;

namespace Fendrik.Data.Model;

/// <summary>The database. Items are not of its model: their tables follow from the descriptions in Core (<see cref="Items.ItemShape"/>).</summary>
public sealed class FendrikContext(DbContextOptions<FendrikContext> options)
    : IdentityDbContext<Person>(options),
        IDataProtectionKeyContext
{
    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();
    public DbSet<AccountRow> Accounts => Set<AccountRow>();
    public DbSet<AccountMember> AccountMembers => Set<AccountMember>();
    public DbSet<StepRow> Steps => Set<StepRow>();
    public DbSet<FindingRow> Findings => Set<FindingRow>();
    public DbSet<CheckRun> CheckRuns => Set<CheckRun>();
    public DbSet<JobRow> Jobs => Set<JobRow>();
    public DbSet<IntakeRecord> Intakes => Set<IntakeRecord>();
    public DbSet<PublishRow> Publishes => Set<PublishRow>();
    public DbSet<PublishItem> PublishItems => Set<PublishItem>();
    public DbSet<SavedView> SavedViews => Set<SavedView>();
    public DbSet<IntakeMapping> IntakeMappings => Set<IntakeMapping>();
    public DbSet<LiveDifference> LiveDifferences => Set<LiveDifference>();
    public DbSet<OuttakeRow> Outtakes => Set<OuttakeRow>();

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<AccountRow>(account =>
        {
            account.ToTable("account");
            account.Property(row => row.Language).HasDefaultValue(AccountLanguage.Usual);
            account.Property(row => row.HistoryFrom).HasDefaultValue(0);
        });
        builder.Entity<AccountMember>(member =>
        {
            member.ToTable("account_member").HasKey(row => new { row.PersonId, row.AccountId });
            member.HasOne<AccountRow>().WithMany().HasForeignKey(row => row.AccountId);
            member.HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId);
        });
        builder.Entity<StepRow>(step =>
        {
            step.ToTable("step").HasIndex(row => new { row.AccountId, row.Id });
            step.HasIndex(row => row.RequestId).IsUnique();
            step.HasOne<AccountRow>().WithMany().HasForeignKey(row => row.AccountId);
        });
        builder
            .Entity<StepInsertion>()
            .ToTable("step_insertion")
            .HasKey(row => new
            {
                row.StepId,
                row.Kind,
                row.FirstId,
            });
        builder.Entity<FindingRow>(finding =>
        {
            finding
                .ToTable("finding")
                .HasIndex(row => new
                {
                    row.AccountId,
                    row.Kind,
                    row.ItemId,
                });
            finding.HasOne<AccountRow>().WithMany().HasForeignKey(row => row.AccountId);
        });
        builder.Entity<CheckRun>().ToTable("check_run").HasKey(row => row.AccountId);
        builder.Entity<CheckRun>().Property(row => row.AccountId).ValueGeneratedNever();
        builder.Entity<JobRow>().ToTable("job").HasIndex(row => new { row.AccountId, row.Id });
        builder.Entity<IntakeRecord>(intake =>
        {
            intake.ToTable("intake").HasIndex(row => new { row.AccountId, row.Id });
            intake
                .Property(row => row.Intent)
                .HasDefaultValue(RowIntent.AddAndChange)
                .HasSentinel(RowIntent.AddAndChange);
            intake.Property(row => row.UsedColumns).HasDefaultValueSql("'{}'");
            intake
                .Property(row => row.Sample)
                .HasColumnType("jsonb")
                .HasConversion(Json<string[][]>.Converter, Json<string[][]>.Comparer);
        });
        builder.Entity<IntakeFilePart>().ToTable("intake_file_part").HasKey(row => new { row.IntakeId, row.Part });
        builder.Entity<SavedView>(view =>
        {
            view.ToTable("saved_view")
                .HasIndex(row => new
                {
                    row.AccountId,
                    row.PersonId,
                    row.Name,
                })
                .IsUnique();
            view.HasOne<AccountRow>().WithMany().HasForeignKey(row => row.AccountId);
        });
        builder.Entity<IntakeMapping>().ToTable("intake_mapping").HasKey(row => new { row.AccountId, row.HeaderKey });
        builder.Entity<OuttakeRow>(outtake =>
        {
            outtake.ToTable("outtake");
            outtake.HasOne<AccountRow>().WithMany().HasForeignKey(row => row.AccountId);
        });
        builder
            .Entity<LiveDifference>()
            .ToTable("live_difference")
            .HasKey(row => new
            {
                row.AccountId,
                row.Kind,
                row.ItemId,
            });
        builder.Entity<PublishRow>().ToTable("publish").HasIndex(row => new { row.AccountId, row.Id });
        builder.Entity<PublishItem>().ToTable("publish_item").HasKey(row => new { row.PublishId, row.Position });
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        // The identity indexes in Schema/working-copy.sql begin with the foreign keys; a second index would only cost.
        configurationBuilder.Conventions.Remove<ForeignKeyIndexConvention>();
        configurationBuilder.Properties<Enum>().HaveConversion<short>();
        configurationBuilder.Properties<decimal>().HaveColumnType("numeric(14,3)");
    }
}
