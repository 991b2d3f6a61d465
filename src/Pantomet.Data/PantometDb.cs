using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Pantomet.Core.Framing;
using Pantomet.Data.Accounts;
using Pantomet.Data.Deliveries;
using Pantomet.Data.Folders;
using Pantomet.Data.Jobs;
using Pantomet.Data.Live;
using Pantomet.Data.Pages;
using Pantomet.Data.Pictures;
using Pantomet.Data.Rules;
using Pantomet.Data.Variants;

namespace Pantomet.Data;

/// <summary>What Pantomet remembers, in one SQLite file.</summary>
public sealed class PantometDb(DbContextOptions<PantometDb> options) : IdentityUserContext<Person, Guid>(options)
{
    /// <summary>The library.</summary>
    public DbSet<PictureRow> Pictures => Set<PictureRow>();

    /// <summary>The jobs.</summary>
    public DbSet<JobRow> Jobs => Set<JobRow>();

    /// <summary>Their pictures, with what was decided about each as a whole.</summary>
    public DbSet<JobPictureRow> JobPictures => Set<JobPictureRow>();

    /// <summary>Frames by picture and shape.</summary>
    public DbSet<JobFramingRow> JobFramings => Set<JobFramingRow>();

    /// <summary>Decisions by picture and slot.</summary>
    public DbSet<JobDecisionRow> JobDecisions => Set<JobDecisionRow>();

    /// <summary>Their slots.</summary>
    public DbSet<JobSlotRow> JobSlots => Set<JobSlotRow>();

    /// <summary>What was decided, in the order in which it was.</summary>
    public DbSet<CommandRow> Commands => Set<CommandRow>();

    /// <summary>Steps that can be undone.</summary>
    public DbSet<StepRow> Steps => Set<StepRow>();

    /// <summary>How each picture stands in each slot.</summary>
    public DbSet<CellRow> Cells => Set<CellRow>();

    /// <summary>The files that cells want.</summary>
    public DbSet<WantRow> Wants => Set<WantRow>();

    /// <summary>What was handed over, each time.</summary>
    public DbSet<DeliveryRow> Deliveries => Set<DeliveryRow>();

    /// <summary>Pages that are measured.</summary>
    public DbSet<PageCheckRow> PageChecks => Set<PageCheckRow>();

    /// <summary>Jobs that were made of pages.</summary>
    public DbSet<PageJobRow> PageJobs => Set<PageJobRow>();

    /// <summary>Folders of pictures that are optimised.</summary>
    public DbSet<PictureFolderRow> PictureFolders => Set<PictureFolderRow>();

    /// <summary>The files of what was handed over.</summary>
    public DbSet<DeliveredFileRow> DeliveredFiles => Set<DeliveredFileRow>();

    /// <summary>Places that files are handed to.</summary>
    public DbSet<ReceiverRow> Receivers => Set<ReceiverRow>();

    /// <summary>Jobs as they were handed to receivers last.</summary>
    public DbSet<ReceiverDeliveryRow> ReceiverDeliveries => Set<ReceiverDeliveryRow>();

    /// <summary>The files of those, and what became of each.</summary>
    public DbSet<ReceiverFileRow> ReceiverFiles => Set<ReceiverFileRow>();

    /// <summary>What was tried to see which files receivers show best.</summary>
    public DbSet<SurvivalRow> Survivals => Set<SurvivalRow>();

    /// <summary>Jobs whose files have addresses for pages.</summary>
    public DbSet<PublicationRow> Publications => Set<PublicationRow>();

    /// <summary>What was published of them, place by place.</summary>
    public DbSet<PublishedPlaceRow> PublishedPlaces => Set<PublishedPlaceRow>();

    /// <summary>The files of what was published.</summary>
    public DbSet<PublishedFileRow> PublishedFiles => Set<PublishedFileRow>();

    /// <summary>How often each place was fetched.</summary>
    public DbSet<FetchCountRow> FetchCounts => Set<FetchCountRow>();

    /// <summary>Files that could not be made.</summary>
    public DbSet<FailureRow> Failures => Set<FailureRow>();

    /// <summary>Originals that pictures have or had, once there is more than one.</summary>
    public DbSet<RevisionRow> Revisions => Set<RevisionRow>();

    /// <summary>The book of rules.</summary>
    public DbSet<RuleBookRow> RuleBooks => Set<RuleBookRow>();

    /// <summary>Marks and fonts that rules name.</summary>
    public DbSet<SideFileRow> SideFiles => Set<SideFileRow>();

    /// <summary>What is remembered by name.</summary>
    public DbSet<SettingRow> Settings => Set<SettingRow>();

    /// <summary>Files made.</summary>
    public DbSet<VariantRow> Variants => Set<VariantRow>();

    /// <summary>Invitations, and links of guests.</summary>
    public DbSet<LinkRow> Links => Set<LinkRow>();

    /// <summary>Tokens of programs.</summary>
    public DbSet<AccessTokenRow> AccessTokens => Set<AccessTokenRow>();

    /// <summary>What was done, besides the commands of jobs.</summary>
    public DbSet<ActivityRow> Activities => Set<ActivityRow>();

    /// <summary>What was said about pictures in slots.</summary>
    public DbSet<CommentRow> Comments => Set<CommentRow>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder builder)
    {
        ArgumentNullException.ThrowIfNull(builder);
        base.OnModelCreating(builder);
        AccountTables.Add(builder);
        builder.Entity<PictureRow>(picture =>
        {
            picture.HasIndex(row => row.ContentHash).IsUnique();
            // All that a search of the library asks of a picture, in the order in which it is shown.
            picture.HasIndex(row => new
            {
                row.AddedAt,
                row.Name,
                row.RemovedAt,
                row.Parts,
            });
            picture.Property(row => row.Format).HasConversion<string>();
            picture.Property(row => row.Kind).HasConversion<string>();
            picture
                .Property(row => row.Suggestion)
                .HasConversion(suggestion => StoredJson.Write(suggestion), text => StoredJson.Read<Suggestion?>(text));
            picture
                .Property(row => row.Parts)
                .HasConversion(
                    parts => StoredJson.Write(parts),
                    text => StoredJson.Read<IReadOnlyList<PartOfPair>?>(text),
                    // Never changed, only replaced.
                    new ValueComparer<IReadOnlyList<PartOfPair>?>(favorStructuralComparisons: false)
                );
            // Entries of before there was a network keep what they suggested.
            picture.Property(row => row.SubjectSought).HasDefaultValue(true).HasSentinel(true);
            picture.HasIndex(row => row.SubjectSought).HasFilter("SubjectSought = 0");
        });
        builder.Entity<RevisionRow>(revision =>
        {
            revision.HasKey(row => new { row.PictureId, row.Number });
            revision.HasOne<PictureRow>().WithMany().HasForeignKey(row => row.PictureId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<SettingRow>().HasKey(row => row.Name);
        builder.Entity<SideFileRow>().HasKey(row => row.Name);
        builder.Entity<PageCheckRow>().Property(row => row.State).HasConversion<string>();
        builder.Entity<PictureFolderRow>().Property(row => row.State).HasConversion<string>();
        builder.Entity<PageJobRow>(job =>
        {
            job.HasKey(row => row.JobId);
            job.HasOne<PageCheckRow>().WithMany().HasForeignKey(row => row.CheckId).OnDelete(DeleteBehavior.Cascade);
            job.Property(row => row.State).HasConversion<string>();
        });
        OfJobs(builder);
        OfPublications(builder);
        OfReceivers(builder);
        builder.Entity<VariantRow>(variant =>
        {
            variant.HasOne<PictureRow>().WithMany().HasForeignKey(row => row.PictureId).OnDelete(DeleteBehavior.Cascade);
            variant.Property(row => row.Format).HasConversion<string>();
            variant.Property(row => row.Verdict).HasConversion<string>();
            variant.Ignore(row => row.Worst);
            variant.HasIndex(row => row.ContentHash);
        });
        builder.Entity<FailureRow>(failure =>
        {
            failure.HasKey(row => row.FileId);
            failure.HasIndex(row => row.NextAt);
            failure.HasOne<PictureRow>().WithMany().HasForeignKey(row => row.PictureId).OnDelete(DeleteBehavior.Cascade);
        });
    }

    private static void OfPublications(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<PublicationRow>(publication =>
        {
            publication.HasIndex(row => row.Key).IsUnique();
            publication.HasIndex(row => row.JobId).IsUnique();
        });
        modelBuilder.Entity<PublishedPlaceRow>(place =>
        {
            place.HasIndex(row => new { row.PublicationId, row.Path });
            place.HasIndex(row => row.PictureId);
            place.HasOne<PublicationRow>().WithMany().HasForeignKey(row => row.PublicationId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<PublishedFileRow>(file =>
        {
            file.HasKey(row => new { row.PlaceId, row.Ordinal });
            file.HasIndex(row => row.FileId);
            file.HasOne<PublishedPlaceRow>().WithMany().HasForeignKey(row => row.PlaceId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<FetchCountRow>().HasKey(row => new { row.PublicationId, row.Path });
    }

    private static void OfReceivers(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<ReceiverDeliveryRow>(sending =>
        {
            sending.Property(row => row.State).HasConversion<string>();
            sending.HasIndex(row => new { row.JobId, row.ReceiverId }).IsUnique();
            sending.HasOne<ReceiverRow>().WithMany().HasForeignKey(row => row.ReceiverId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<SurvivalRow>(survival =>
        {
            survival.Property(row => row.State).HasConversion<string>();
            survival
                .HasIndex(row => new
                {
                    row.JobId,
                    row.ReceiverId,
                    row.Path,
                })
                .IsUnique();
            survival.HasOne<ReceiverRow>().WithMany().HasForeignKey(row => row.ReceiverId).OnDelete(DeleteBehavior.Cascade);
        });
        modelBuilder.Entity<ReceiverFileRow>(file =>
        {
            file.Property(row => row.State).HasConversion<string>();
            file.HasKey(row => new
            {
                row.JobId,
                row.ReceiverId,
                row.Path,
            });
            file.HasOne<ReceiverRow>().WithMany().HasForeignKey(row => row.ReceiverId).OnDelete(DeleteBehavior.Cascade);
        });
    }

    private static void OfJobs(ModelBuilder modelBuilder)
    {
        modelBuilder.Entity<JobRow>(job =>
        {
            job.Property(row => row.Run).HasConversion<string>();
            job.HasIndex(row => row.CreatedAt);
        });
        modelBuilder.Entity<JobPictureRow>(picture =>
        {
            picture.HasKey(row => new { row.JobId, row.PictureId });
            picture.HasIndex(row => row.PictureId);
            picture.HasIndex(row => new { row.JobId, row.Place });
            picture
                .HasIndex(row => new
                {
                    row.Keywords,
                    row.Alternative,
                    row.PictureId,
                })
                .HasFilter("Keywords <> '' OR Alternative <> ''");
        });
        modelBuilder
            .Entity<JobFramingRow>()
            .HasKey(row => new
            {
                row.JobId,
                row.PictureId,
                row.Shape,
            });
        modelBuilder
            .Entity<JobDecisionRow>()
            .HasKey(row => new
            {
                row.JobId,
                row.PictureId,
                row.Slot,
            });
        modelBuilder.Entity<JobSlotRow>(slot =>
        {
            slot.HasKey(row => new { row.JobId, row.Slot });
            slot.HasIndex(row => row.Slot);
        });
        modelBuilder.Entity<CommandRow>(command =>
        {
            command.HasIndex(row => new { row.JobId, row.Sender }).IsUnique().HasFilter("Sender IS NOT NULL");
            command.HasIndex(row => new { row.JobId, row.Step });
            command.HasIndex(row => new { row.JobId, row.Sequence });
        });
        modelBuilder.Entity<StepRow>(step =>
        {
            step.HasKey(row => new { row.JobId, row.Number });
            step.Property(row => row.State).HasConversion<string>();
        });
        modelBuilder
            .Entity<CellRow>()
            .HasKey(row => new
            {
                row.JobId,
                row.PictureId,
                row.Slot,
            });
        modelBuilder.Entity<WantRow>(want =>
        {
            want.HasKey(row => new
            {
                row.JobId,
                row.PictureId,
                row.Slot,
                row.Ordinal,
            });
            want.HasIndex(row => row.FileId);
            // The queue: only what is still to be made stands in it, so its head is found at once however much was made.
            want.HasIndex(row => new
                {
                    row.JobId,
                    row.Place,
                    row.Rank,
                })
                .HasFilter("State = 'open'");
        });
        modelBuilder.Entity<DeliveryRow>().HasIndex(row => new { row.JobId, row.Number }).IsUnique();
        modelBuilder.Entity<DeliveredFileRow>(file =>
        {
            file.HasIndex(row => row.DeliveryId);
            file.HasIndex(row => new { row.Destination, row.Slot });
            file.HasOne<DeliveryRow>().WithMany().HasForeignKey(row => row.DeliveryId).OnDelete(DeleteBehavior.Cascade);
        });
    }
}
