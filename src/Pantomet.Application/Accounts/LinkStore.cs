using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Data;
using Pantomet.Data.Accounts;

namespace Pantomet.Application.Accounts;

/// <summary>A link as it is listed: its secret was shown once and is not known any longer.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Kind">What it lets its holder do.</param>
/// <param name="Name">For whom it was made.</param>
/// <param name="Role">The role of an invitation.</param>
/// <param name="CreatedBy">Who made it.</param>
/// <param name="CreatedAt">When it was made, UTC.</param>
/// <param name="ExpiresAt">When it stops to work, UTC.</param>
/// <param name="UsedAt">When it was used last, UTC; null for never.</param>
public sealed record LinkView(
    Guid Id,
    LinkKind Kind,
    string Name,
    Role Role,
    string CreatedBy,
    DateTime CreatedAt,
    DateTime ExpiresAt,
    DateTime? UsedAt
);

/// <summary>Invitations, links that set a password, and links of guests.</summary>
public sealed class LinkStore(PantometDb db, Writer writer, Revocations revocations, TimeProvider clock)
{
    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <summary>Makes a link and gives its secret, which cannot be read again.</summary>
    /// <param name="row">The link, without secret and times.</param>
    /// <param name="lasts">For how long it works.</param>
    /// <param name="cancel">Stops waiting.</param>
    public async Task<(LinkRow Row, string Secret)> MakeAsync(LinkRow row, TimeSpan lasts, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(row);
        var secret = SecretText.Make();
        row.Id = Guid.CreateVersion7();
        row.Hash = SecretText.Hash(secret);
        row.CreatedAt = Now;
        row.ExpiresAt = Now + lasts;
        await writer.WriteAsync<bool>(
            async write =>
            {
                write.Links.Add(row);
                await write.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            cancel
        );
        return (row, secret);
    }

    /// <summary>The link of a secret; null when there is none, or it no longer works.</summary>
    public async Task<LinkRow?> FindAsync(string secret, CancellationToken cancel)
    {
        var (hash, now) = (SecretText.Hash(secret), Now);
        return await db
            .Links.AsNoTracking()
            .Where(row =>
                row.Hash == hash && row.RevokedAt == null && row.ExpiresAt > now && (row.Kind == LinkKind.Guest || row.UsedAt == null)
            )
            .FirstOrDefaultAsync(cancel);
    }

    /// <summary>The link of a guest who came by it before; null when it no longer works.</summary>
    public Task<LinkRow?> GuestAsync(Guid id, CancellationToken cancel)
    {
        var now = Now;
        return db
            .Links.AsNoTracking()
            .Where(row => row.Id == id && row.Kind == LinkKind.Guest && row.RevokedAt == null && row.ExpiresAt > now)
            .FirstOrDefaultAsync(cancel);
    }

    /// <summary>Uses a link; false when it was used or revoked meanwhile.</summary>
    public Task<bool> TryUseAsync(LinkRow link, CancellationToken cancel)
    {
        var now = Now;
        return writer.WriteAsync<bool>(
            async write =>
                (
                    await write
                        .Links.Where(row =>
                            row.Id == link.Id && row.RevokedAt == null && (row.Kind == LinkKind.Guest || row.UsedAt == null)
                        )
                        .ExecuteUpdateAsync(set => set.SetProperty(row => row.UsedAt, now), CancellationToken.None) == 1,
                    null
                ),
            cancel
        );
    }

    /// <summary>The links that work, the newest first: those of guests of one job, or those that lead to accounts.</summary>
    /// <param name="job">The job; null for invitations and passwords.</param>
    /// <param name="cancel">Stops waiting.</param>
    public async Task<IReadOnlyList<LinkView>> ListAsync(Guid? job, CancellationToken cancel)
    {
        var now = Now;
        return await db
            .Links.AsNoTracking()
            .Where(row =>
                row.JobId == job && row.RevokedAt == null && row.ExpiresAt > now && (row.Kind == LinkKind.Guest || row.UsedAt == null)
            )
            .OrderByDescending(row => row.CreatedAt)
            .Select(row => new LinkView(row.Id, row.Kind, row.Name, row.Role, row.CreatedBy, row.CreatedAt, row.ExpiresAt, row.UsedAt))
            .ToListAsync(cancel);
    }

    /// <summary>Revokes a link; false when there is none that works.</summary>
    /// <param name="id">The link.</param>
    /// <param name="job">The job of a guest; null for the others.</param>
    /// <param name="cancel">Stops waiting.</param>
    public async Task<bool> RevokeAsync(Guid id, Guid? job, CancellationToken cancel)
    {
        var now = Now;
        var revoked = await writer.WriteAsync<bool>(
            async write =>
                (
                    await write
                        .Links.Where(row => row.Id == id && row.JobId == job && row.RevokedAt == null)
                        .ExecuteUpdateAsync(set => set.SetProperty(row => row.RevokedAt, now), CancellationToken.None) == 1,
                    null
                ),
            cancel
        );
        if (revoked)
        {
            revocations.Add();
        }

        return revoked;
    }
}
