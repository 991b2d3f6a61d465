using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Core.Accounts;
using Pantomet.Data;

namespace Pantomet.Application.Accounts;

/// <summary>A person as every request needs them.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Role">What they are now.</param>
/// <param name="Stamp">Changes when all their sign-ins end.</param>
public sealed record KnownPerson(Guid Id, string Name, Role Role, string Stamp);

/// <summary>
/// The people of this server, in memory: each request asks who it is from. It is read anew after each change of them, so that a right that
/// was taken away ends with the next request.
/// </summary>
public sealed class PeopleRegistry(IServiceScopeFactory scopes) : IDisposable
{
    private readonly ConcurrentDictionary<Guid, KnownPerson> _people = new();
    private readonly SemaphoreSlim _gate = new(1);
    private volatile bool _isRead;

    /// <summary>A person; null when there is none of this identity, or they were removed.</summary>
    public async ValueTask<KnownPerson?> FindAsync(Guid id, CancellationToken cancel)
    {
        if (!_isRead)
        {
            await ReadAsync(cancel);
        }

        return _people.GetValueOrDefault(id);
    }

    /// <summary>True when there is an owner.</summary>
    public async ValueTask<bool> HasOwnerAsync(CancellationToken cancel)
    {
        if (!_isRead)
        {
            await ReadAsync(cancel);
        }

        return _people.Values.Any(person => person.Role == Role.Owner);
    }

    /// <summary>Reads all of them anew.</summary>
    public async Task ReadAsync(CancellationToken cancel)
    {
        await _gate.WaitAsync(cancel);
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var rows = await scope
                .ServiceProvider.GetRequiredService<PantometDb>()
                .Users.AsNoTracking()
                .Where(row => row.RemovedAt == null)
                .Select(row => new KnownPerson(row.Id, row.DisplayName, row.Role, row.SecurityStamp ?? ""))
                .ToListAsync(cancel);
            foreach (var gone in _people.Keys.Except(rows.Select(row => row.Id)).ToList())
            {
                _people.TryRemove(gone, out _);
            }

            rows.ForEach(row => _people[row.Id] = row);
            _isRead = true;
        }
        finally
        {
            _gate.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _gate.Dispose();
}
