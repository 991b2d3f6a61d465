using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Data;

namespace Pantomet.Application.Jobs;

/// <summary>
/// The one door for writing: one change at a time, in one transaction, and only when it is stored is what is in memory changed and told.
/// Whoever asked may go
/// away meanwhile; a change that was begun is finished or not made at all.
/// </summary>
public sealed class Writer(IServiceScopeFactory scopes) : IDisposable
{
    private readonly SemaphoreSlim _one = new(1, 1);

    /// <summary>Makes a change.</summary>
    /// <param name="change">Works out and writes the change, and gives what comes of it and what is done once it is stored.</param>
    /// <param name="waiting">Stops waiting for the changes before this one; nothing else.</param>
    public async Task<T> WriteAsync<T>(Func<PantometDb, Task<(T Result, Action? Then)>> change, CancellationToken waiting)
    {
        await _one.WaitAsync(waiting);
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            await using var transaction = await db.Database.BeginTransactionAsync(CancellationToken.None);
            var (result, then) = await change(db);
            await transaction.CommitAsync(CancellationToken.None);
            then?.Invoke();
            return result;
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>Does something while nothing is written.</summary>
    public async Task AloneAsync(Action act, CancellationToken waiting)
    {
        await _one.WaitAsync(waiting);
        try
        {
            act();
        }
        finally
        {
            _one.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();
}
