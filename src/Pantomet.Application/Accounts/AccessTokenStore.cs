using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Data;
using Pantomet.Data.Accounts;

namespace Pantomet.Application.Accounts;

/// <summary>A token as it is listed.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Name">What it is for.</param>
/// <param name="Scopes">What a program may do with it.</param>
/// <param name="CreatedAt">When it was made, UTC.</param>
/// <param name="ExpiresAt">When it stops to work, UTC.</param>
/// <param name="UsedAt">When a program used it last, UTC, to the minute; null for never.</param>
public sealed record AccessTokenView(
    Guid Id,
    string Name,
    IReadOnlyList<TokenScope> Scopes,
    DateTime CreatedAt,
    DateTime ExpiresAt,
    DateTime? UsedAt
);

/// <summary>The tokens of programs: shown once, stored as hashes.</summary>
public sealed class AccessTokenStore(PantometDb db, Writer writer, Revocations revocations, TimeProvider clock)
{
    private static readonly TimeSpan Noted = TimeSpan.FromMinutes(1);

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <summary>Makes a token and gives it, for the only time.</summary>
    /// <param name="person">Whose it is.</param>
    /// <param name="name">What it is for.</param>
    /// <param name="scopes">What a program may do with it.</param>
    /// <param name="lasts">For how long it works.</param>
    /// <param name="cancel">Stops waiting.</param>
    public async Task<(AccessTokenView View, string Token)> MakeAsync(
        Guid person,
        string name,
        IReadOnlyList<TokenScope> scopes,
        TimeSpan lasts,
        CancellationToken cancel
    )
    {
        var token = SecretText.TokenPrefix + SecretText.Make();
        var row = new AccessTokenRow
        {
            Id = Guid.CreateVersion7(),
            PersonId = person,
            Name = name,
            Hash = SecretText.Hash(token),
            Scopes = string.Join(',', scopes.Distinct().Order()),
            CreatedAt = Now,
            ExpiresAt = Now + lasts,
        };
        await writer.WriteAsync<bool>(
            async write =>
            {
                write.AccessTokens.Add(row);
                await write.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            cancel
        );
        return (View(row), token);
    }

    /// <summary>The token that a program sent; null when there is none, or it no longer works.</summary>
    public async Task<AccessTokenRow?> FindAsync(string token, CancellationToken cancel)
    {
        var (hash, now) = (SecretText.Hash(token), Now);
        var row = await db
            .AccessTokens.AsNoTracking()
            .FirstOrDefaultAsync(one => one.Hash == hash && one.RevokedAt == null && one.ExpiresAt > now, cancel);
        if (row is not null && (row.UsedAt is null || now - row.UsedAt > Noted))
        {
            await writer.WriteAsync<bool>(
                async write =>
                {
                    await write
                        .AccessTokens.Where(one => one.Id == row.Id)
                        .ExecuteUpdateAsync(set => set.SetProperty(one => one.UsedAt, now), CancellationToken.None);
                    return (true, null);
                },
                cancel
            );
        }

        return row;
    }

    /// <summary>True while a token that a program sent before still works.</summary>
    public Task<bool> IsInForceAsync(Guid id, CancellationToken cancel)
    {
        var now = Now;
        return db.AccessTokens.AnyAsync(row => row.Id == id && row.RevokedAt == null && row.ExpiresAt > now, cancel);
    }

    /// <summary>The tokens of a person that work, the newest first.</summary>
    public async Task<IReadOnlyList<AccessTokenView>> ListAsync(Guid person, CancellationToken cancel)
    {
        var now = Now;
        var rows = await db
            .AccessTokens.AsNoTracking()
            .Where(row => row.PersonId == person && row.RevokedAt == null && row.ExpiresAt > now)
            .OrderByDescending(row => row.CreatedAt)
            .ToListAsync(cancel);
        return [.. rows.Select(View)];
    }

    /// <summary>Revokes a token of a person; false when there is none.</summary>
    public async Task<bool> RevokeAsync(Guid person, Guid id, CancellationToken cancel)
    {
        var now = Now;
        var revoked = await writer.WriteAsync<bool>(
            async write =>
                (
                    await write
                        .AccessTokens.Where(row => row.PersonId == person && row.Id == id && row.RevokedAt == null)
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

    /// <summary>The scopes of a token as they are stored.</summary>
    public static IReadOnlyList<TokenScope> ScopesOf(AccessTokenRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return [.. row.Scopes.Split(',', StringSplitOptions.RemoveEmptyEntries).Select(Enum.Parse<TokenScope>)];
    }

    private static AccessTokenView View(AccessTokenRow row) =>
        new(row.Id, row.Name, ScopesOf(row), row.CreatedAt, row.ExpiresAt, row.UsedAt);
}
