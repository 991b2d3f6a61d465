using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Framing;
using Pantomet.Data.Jobs;
using Pantomet.Data.Pictures;
using Pantomet.Data.Rules;
using Pantomet.Data.Variants;

namespace Pantomet.Data;

/// <summary>What Pantomet remembers, in one SQLite file.</summary>
public sealed class PantometDb(DbContextOptions<PantometDb> options) : DbContext(options)
{
    /// <summary>The library.</summary>
    public DbSet<PictureRow> Pictures => Set<PictureRow>();

    /// <summary>The jobs.</summary>
    public DbSet<JobRow> Jobs => Set<JobRow>();

    /// <summary>What was handed over last.</summary>
    public DbSet<DeliveryRow> Deliveries => Set<DeliveryRow>();

    /// <summary>Originals that pictures have or had, once there is more than one.</summary>
    public DbSet<RevisionRow> Revisions => Set<RevisionRow>();

    /// <summary>The book of rules.</summary>
    public DbSet<RuleBookRow> RuleBooks => Set<RuleBookRow>();

    /// <summary>Files made.</summary>
    public DbSet<VariantRow> Variants => Set<VariantRow>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder modelBuilder)
    {
        ArgumentNullException.ThrowIfNull(modelBuilder);
        modelBuilder.Entity<PictureRow>(picture =>
        {
            picture.HasIndex(row => row.ContentHash).IsUnique();
            picture.Property(row => row.Format).HasConversion<string>();
            picture.Property(row => row.Kind).HasConversion<string>();
            picture.Property(row => row.Suggestion).HasConversion(
                suggestion => JsonSerializer.Serialize(suggestion, JsonSerializerOptions.Web), text => JsonSerializer.Deserialize<Suggestion?>(text, JsonSerializerOptions.Web));
        });
        modelBuilder.Entity<RevisionRow>(revision =>
        {
            revision.HasKey(row => new { row.PictureId, row.Number });
            revision.HasOne<PictureRow>().WithMany().HasForeignKey(row => row.PictureId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<JobRow>().Property(row => row.Run).HasConversion<string>();
        modelBuilder.Entity<DeliveryRow>(delivery =>
        {
            delivery.HasIndex(row => row.JobId);
            delivery.HasIndex(row => new { row.Destination, row.Slot });
        });
        modelBuilder.Entity<VariantRow>(variant =>
        {
            variant.HasOne<PictureRow>().WithMany().HasForeignKey(row => row.PictureId).OnDelete(DeleteBehavior.Cascade);
            variant.Property(row => row.Format).HasConversion<string>();
            variant.Property(row => row.Verdict).HasConversion<string>();
        });
    }
}
