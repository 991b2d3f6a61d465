using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Rules;

namespace Pantomet.Server.Destinations;

/// <summary>The book of rules as stored, read once per request.</summary>
internal sealed class RuleShelf(PantometDb db)
{
    private RuleBook? _book;
    private string _json = "";

    public async Task<RuleBook> BookAsync(CancellationToken cancel)
    {
        if (_book is not null)
        {
            return _book;
        }

        var row = await db.RuleBooks.AsNoTracking().FirstOrDefaultAsync(cancel);
        _json = row?.Json ?? StarterRules.Json;
        return RulesReader.TryRead(_json, out var book, out var fault)
            ? _book = book!
            : throw new InvalidOperationException($"The stored rules cannot be read: {fault}");
    }

    public async Task<(Destination Destination, Slot Slot)?> FindAsync(string destination, string slot, CancellationToken cancel)
    {
        var book = await BookAsync(cancel);
        return book.Destinations.FirstOrDefault(d => d.Key == destination) is { } place && place.Slots.FirstOrDefault(s => s.Key == slot) is { } found
            ? (place, found)
            : null;
    }

    /// <summary>Addresses of slots that are no longer offered.</summary>
    public async Task<IReadOnlySet<string>> RetiredAsync(CancellationToken cancel) =>
        ((await db.RuleBooks.AsNoTracking().FirstOrDefaultAsync(cancel))?.Retired ?? "").Split('\n', StringSplitOptions.RemoveEmptyEntries).ToHashSet();

    /// <summary>Takes slots out of what is offered, or offers them again; jobs that have them keep them.</summary>
    public async Task RetireAsync(IEnumerable<string> addresses, bool retired, CancellationToken cancel)
    {
        if (await db.RuleBooks.FirstOrDefaultAsync(cancel) is not { } row)
        {
            await BookAsync(cancel);
            db.RuleBooks.Add(row = new() { Json = _json });
        }

        var all = row.Retired.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        row.Retired = string.Join('\n', retired ? all.Union(addresses) : all.Except(addresses));
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Replaces the book; the text was read without a fault before.</summary>
    public async Task ReplaceAsync(string json, CancellationToken cancel)
    {
        if (await db.RuleBooks.FirstOrDefaultAsync(cancel) is { } row)
        {
            row.Json = json;
        }
        else
        {
            db.RuleBooks.Add(new() { Json = json });
        }

        await db.SaveChangesAsync(cancel);
        _book = null;
    }
}
