using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Pantomet.Data.Accounts;

/// <summary>The tables of people, links, tokens and of what was done.</summary>
internal static class AccountTables
{
    /// <summary>Adds them to the model.</summary>
    public static void Add(ModelBuilder model)
    {
        model.Entity<Person>(person =>
        {
            person.ToTable("People");
            person.Property(row => row.Role).HasConversion<string>();
        });
        model.Entity<IdentityUserClaim<Guid>>().ToTable("PersonClaims");
        model.Entity<IdentityUserLogin<Guid>>().ToTable("PersonLogins");
        model.Entity<IdentityUserToken<Guid>>().ToTable("PersonTokens");
        model.Entity<LinkRow>(link =>
        {
            link.Property(row => row.Kind).HasConversion<string>();
            link.Property(row => row.Role).HasConversion<string>();
            link.HasIndex(row => row.Hash).IsUnique();
        });
        model.Entity<AccessTokenRow>(token =>
        {
            token.HasIndex(row => row.Hash).IsUnique();
            token.HasOne<Person>().WithMany().HasForeignKey(row => row.PersonId).OnDelete(DeleteBehavior.Cascade);
        });
        model.Entity<ActivityRow>().HasIndex(row => row.At);
        model
            .Entity<CommentRow>()
            .HasIndex(row => new
            {
                row.JobId,
                row.PictureId,
                row.Slot,
            });
        // The log of all jobs is read by time.
        model.Entity<Jobs.CommandRow>().HasIndex(row => row.At);
    }
}
