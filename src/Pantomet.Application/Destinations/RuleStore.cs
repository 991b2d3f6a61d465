using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Jobs;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Rules;

namespace Pantomet.Application.Destinations;

/// <summary>What came of a change of the book: the book, or why it was refused.</summary>
public sealed record RulesChange(RuleBook? Book, string? Code, string? Refusal)
{
    /// <summary>A change that is refused, with its place in the rules and a sentence.</summary>
    public static RulesChange Refused(string code, string sentence) => new(null, code, sentence);
}

/// <summary>
/// The book of rules as stored. A change is worked out from the book as it is now and stored in the same breath, so that two people who
/// edit two slots both keep
/// what they wrote.
/// </summary>
public sealed class RuleStore(IServiceScopeFactory scopes)
{
    /// <summary>The code of rules that are refused.</summary>
    public const string BadRules = "bad-rules";

    /// <summary>All destinations with their rules.</summary>
    public async Task<RuleBook> BookAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await BookAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), cancel);
    }

    /// <summary>A slot by the keys of its destination and its own; null where there is none.</summary>
    public async Task<(Destination Destination, Slot Slot)?> FindAsync(string destination, string slot, CancellationToken cancel)
    {
        var book = await BookAsync(cancel);
        return
            book.Destinations.FirstOrDefault(d => d.Key == destination) is { } place
            && place.Slots.FirstOrDefault(s => s.Key == slot) is { } found
            ? (place, found)
            : null;
    }

    /// <summary>Addresses of slots that are no longer offered.</summary>
    public async Task<IReadOnlySet<string>> RetiredAsync(CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var row = await scope.ServiceProvider.GetRequiredService<PantometDb>().RuleBooks.AsNoTracking().FirstOrDefaultAsync(cancel);
        return Lines(row?.Retired).ToHashSet();
    }

    /// <summary>Takes slots out of what is offered, or offers them again; jobs that have them keep them.</summary>
    public static Task RetireAsync(Writer writer, IReadOnlyList<string> addresses, bool retired, CancellationToken cancel) =>
        writer.WriteAsync<bool>(
            async db =>
            {
                var row = await RowAsync(db);
                row.Retired = string.Join('\n', retired ? Lines(row.Retired).Union(addresses) : Lines(row.Retired).Except(addresses));
                await db.SaveChangesAsync();
                return (true, null);
            },
            cancel
        );

    /// <summary>Changes the book.</summary>
    /// <param name="writer">The door for writing.</param>
    /// <param name="jobs">Takes the book over.</param>
    /// <param name="change">Gives the changed book, or a refusal.</param>
    /// <param name="cancel">Stops waiting.</param>
    public static Task<RulesChange> ChangeAsync(
        Writer writer,
        OpenJobs jobs,
        Func<RuleBook, RulesChange> change,
        CancellationToken cancel
    ) =>
        writer.WriteAsync<RulesChange>(
            async db =>
            {
                var changed = change(await BookAsync(db, CancellationToken.None));
                if (changed.Book is not { } book)
                {
                    return (changed, null);
                }

                // What is written is what a file would hold, so a file's own checks hold for it: keys, names, doubles.
                var json = RulesWriter.Write(book);
                if (!RulesReader.TryRead(json, out _, out var fault))
                {
                    return (RulesChange.Refused(BadRules, fault!.ToString()), null);
                }

                (await RowAsync(db)).Json = json;
                await db.SaveChangesAsync();
                return (changed, () => jobs.SetBook(book));
            },
            cancel
        );

    /// <summary>A key that no destination of a book has, as near to a wanted one as can be.</summary>
    public static string FreeKey(string wanted, RuleBook book)
    {
        var taken = book.Destinations.Select(destination => destination.Key).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var stem = wanted.Length > 50 ? wanted[..50].Trim('-') : wanted;
        return Enumerable.Range(1, int.MaxValue).Select(n => n == 1 ? stem : $"{stem}-{n}").First(key => !taken.Contains(key));
    }

    private static string[] Lines(string? text) => (text ?? "").Split('\n', StringSplitOptions.RemoveEmptyEntries);

    internal static async Task<RuleBook> BookAsync(PantometDb db, CancellationToken cancel)
    {
        var json = (await db.RuleBooks.AsNoTracking().FirstOrDefaultAsync(cancel))?.Json ?? StarterRules.Json;
        return RulesReader.TryRead(json, out var book, out var fault)
            ? book!
            : throw new InvalidDataException(RuleTexts.TheStoredRulesCannotBeRead(fault));
    }

    private static async Task<RuleBookRow> RowAsync(PantometDb db)
    {
        if (await db.RuleBooks.FirstOrDefaultAsync() is { } row)
        {
            return row;
        }

        db.RuleBooks.Add(row = new() { Json = StarterRules.Json });
        return row;
    }
}
