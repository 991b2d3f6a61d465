using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Jobs;
using Pantomet.Core.Deliveries;
using Pantomet.Data;
using Pantomet.Data.Deliveries;

namespace Pantomet.Deliveries;

/// <summary>A receiver as it is shown; what is secret of it never is.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Rule">What is to be known of it.</param>
/// <param name="HasSecret">True where a password, a token or a key is kept.</param>
public sealed record ReceiverView(Guid Id, ReceiverRule Rule, bool HasSecret);

/// <summary>The places that files are handed to.</summary>
public sealed class ReceiverStore(IServiceScopeFactory scopes, IDataProtectionProvider protection, Writer writer, TimeProvider clock)
{
    private readonly IDataProtector _protector = protection.CreateProtector("Pantomet.Receivers.v1");

    /// <summary>All of them, the oldest first.</summary>
    public async Task<IReadOnlyList<ReceiverRow>> AllAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Rows(scope).OrderBy(row => row.AddedAt).ThenBy(row => row.Id).ToListAsync(cancel);
    }

    /// <summary>One; null for none.</summary>
    public async Task<ReceiverRow?> OneAsync(Guid id, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Rows(scope).SingleOrDefaultAsync(row => row.Id == id, cancel);
    }

    /// <summary>Adds one.</summary>
    /// <param name="rule">Nothing is wrong with it.</param>
    /// <param name="secret">Its password, token or key; null or empty for none.</param>
    public Task<ReceiverRow> AddAsync(ReceiverRule rule, string? secret) =>
        writer.WriteAsync<ReceiverRow>(
            async db =>
            {
                var row = new ReceiverRow
                {
                    Id = Guid.CreateVersion7(),
                    Rule = StoredJson.Write(rule),
                    Secret = Sealed(secret),
                    AddedAt = clock.GetUtcNow().UtcDateTime,
                };
                db.Receivers.Add(row);
                await db.SaveChangesAsync(CancellationToken.None);
                return (row, null);
            },
            CancellationToken.None
        );

    /// <summary>
    /// Changes one. Another place has none of the files yet; and what is secret of one host is not shown to another: there it is to be entered
    /// anew.
    /// </summary>
    /// <param name="id">Which one.</param>
    /// <param name="rule">What it becomes; nothing is wrong with it.</param>
    /// <param name="secret">Its new secret; null to keep what it has, empty for none.</param>
    public Task<ReceiverRow?> ChangeAsync(Guid id, ReceiverRule rule, string? secret) =>
        writer.WriteAsync<ReceiverRow?>(
            async db =>
            {
                if (await db.Receivers.SingleOrDefaultAsync(row => row.Id == id, CancellationToken.None) is not { } row)
                {
                    return (null, null);
                }

                var before = RuleOf(row);
                if (Place(before) != Place(rule))
                {
                    await db.ReceiverFiles.Where(file => file.ReceiverId == id).ExecuteDeleteAsync(CancellationToken.None);
                    await db.ReceiverDeliveries.Where(sending => sending.ReceiverId == id).ExecuteDeleteAsync(CancellationToken.None);
                }

                row.Secret =
                    secret is not null ? Sealed(secret)
                    : Host(before) == Host(rule) ? row.Secret
                    : null;
                row.Rule = StoredJson.Write(rule);
                await db.SaveChangesAsync(CancellationToken.None);
                return (row, null);
            },
            CancellationToken.None
        );

    /// <summary>Takes one away, with all that is known of what it was given; the files there stay.</summary>
    public Task<bool> RemoveAsync(Guid id) =>
        writer.WriteAsync<bool>(
            async db => (await db.Receivers.Where(row => row.Id == id).ExecuteDeleteAsync(CancellationToken.None) > 0, null),
            CancellationToken.None
        );

    /// <summary>How one is shown.</summary>
    public static ReceiverView ViewOf(ReceiverRow row) => new(row.Id, RuleOf(row), row.Secret is not null);

    /// <summary>What is to be known of one.</summary>
    public static ReceiverRule RuleOf(ReceiverRow row) => StoredJson.Read<ReceiverRule>(row.Rule);

    /// <summary>Opens what is secret of one.</summary>
    /// <returns>False where it was sealed with keys that are not here any more.</returns>
    public bool TryOpen(ReceiverRow row, out string? secret)
    {
        secret = null;
        if (row.Secret is null)
        {
            return true;
        }

        try
        {
            secret = _protector.Unprotect(row.Secret);
            return true;
        }
        catch (CryptographicException)
        {
            return false;
        }
    }

    private string? Sealed(string? secret) => string.IsNullOrEmpty(secret) ? null : _protector.Protect(secret);

    private static string Host(ReceiverRule rule) =>
        rule.Way == ReceiverWay.Folder
            ? ""
            : $"{(rule.IsHttp ? "http" : rule.Way)} {new Uri(rule.Address).GetLeftPart(UriPartial.Authority)}";

    private static (ReceiverWay, string, string?) Place(ReceiverRule rule) => (rule.Way, rule.Address.TrimEnd('/'), rule.Bucket);

    private static IQueryable<ReceiverRow> Rows(AsyncServiceScope scope) =>
        scope.ServiceProvider.GetRequiredService<PantometDb>().Receivers.AsNoTracking();
}
