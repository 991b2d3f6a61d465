using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Jobs;
using Pantomet.Core.Accounts;
using Pantomet.Data;

namespace Pantomet.Application.Accounts;

/// <summary>What the owner gave to which role.</summary>
public sealed class AccessStore(IServiceScopeFactory scopes, Writer writer)
{
    private Access? _access;

    /// <summary>As it is now.</summary>
    public async ValueTask<Access> GetAsync(CancellationToken cancel)
    {
        if (_access is { } known)
        {
            return known;
        }

        await using var scope = scopes.CreateAsyncScope();
        var values = await scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .Settings.AsNoTracking()
            .Where(row => row.Name == SettingRow.RightsOfEditors || row.Name == SettingRow.RightsOfViewers)
            .ToDictionaryAsync(row => row.Name, row => row.Value, cancel);
        return _access = new()
        {
            ForEditors = Read(values.GetValueOrDefault(SettingRow.RightsOfEditors)),
            ForViewers = Read(values.GetValueOrDefault(SettingRow.RightsOfViewers)),
        };
    }

    /// <summary>Gives rights to roles, and takes away all others.</summary>
    public Task SetAsync(Access access, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(access);
        return writer.WriteAsync<bool>(
            async db =>
            {
                string[] names = [SettingRow.RightsOfEditors, SettingRow.RightsOfViewers];
                await db.Settings.Where(row => names.Contains(row.Name)).ExecuteDeleteAsync(CancellationToken.None);
                db.Settings.Add(new() { Name = SettingRow.RightsOfEditors, Value = string.Join(',', access.ForEditors.Order()) });
                db.Settings.Add(new() { Name = SettingRow.RightsOfViewers, Value = string.Join(',', access.ForViewers.Order()) });
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, () => _access = access);
            },
            cancel
        );
    }

    private static HashSet<Right> Read(string? value) =>
        [.. (value ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Select(Enum.Parse<Right>)];
}
