using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Framing;
using Pantomet.Data.Framings;
using Pantomet.Data.Pictures;
using Pantomet.Data.Rules;
using Pantomet.Data.Variants;

namespace Pantomet.Data;

/// <summary>What Pantomet remembers, in one SQLite file.</summary>
public sealed class PantometDb(DbContextOptions<PantometDb> options) : DbContext(options)
{
    /// <summary>The library.</summary>
    public DbSet<PictureRow> Pictures => Set<PictureRow>();

    /// <summary>Frames set by hand.</summary>
    public DbSet<FramingRow> Framings => Set<FramingRow>();

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
        modelBuilder.Entity<FramingRow>(framing =>
        {
            framing.HasKey(row => new { row.PictureId, row.Destination, row.Slot });
            framing.HasOne<PictureRow>().WithMany().HasForeignKey(row => row.PictureId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<VariantRow>(variant =>
        {
            variant.HasOne<PictureRow>().WithMany().HasForeignKey(row => row.PictureId).OnDelete(DeleteBehavior.Cascade);
            variant.Property(row => row.Format).HasConversion<string>();
            variant.Property(row => row.Verdict).HasConversion<string>();
        });
    }
}
