using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;

namespace Pantomet.Data;

/// <summary>A step of the tables that was a migration of its own once.</summary>
/// <param name="Name">The name of that migration, as data folders have it in their history.</param>
/// <param name="Sql">What it does.</param>
internal sealed partial record MigrationStep(string Name, string Sql)
{
    /// <summary>
    /// Its parts. Whether references are checked can only be switched outside of a transaction, so those lines stand alone.
    /// </summary>
    public IEnumerable<(string Sql, bool Alone)> Parts() =>
        Switch().Split(Sql).Where(part => part.Trim().Length > 0).Select(part => (part.Trim(), Switch().IsMatch(part)));

    [GeneratedRegex("^(PRAGMA foreign_keys = [01];)$", RegexOptions.Multiline)]
    private static partial Regex Switch();
}

/// <summary>
/// The steps of the tables that were migrations once and are one now. A data folder that a program of in between wrote has some of them; it gets
/// the others, and its history the one that stands for all.
/// </summary>
internal static partial class MigrationSteps
{
    /// <summary>The migration that stands for all steps.</summary>
    public const string Whole = "20261130050000_StepsToReceivers";

    /// <summary>All steps in their order.</summary>
    public static IReadOnlyList<MigrationStep> All { get; } = Read();

    /// <summary>Brings a data folder of in between to the end of the steps; does nothing with any other.</summary>
    /// <param name="db">The database.</param>
    /// <param name="cancel">Stops; then nothing has changed.</param>
    public static async Task CompleteAsync(PantometDb db, CancellationToken cancel)
    {
        var applied = (await db.Database.GetAppliedMigrationsAsync(cancel)).ToHashSet(StringComparer.Ordinal);
        if (!applied.Contains(All[0].Name))
        {
            return;
        }

        await using var all = await db.Database.BeginTransactionAsync(cancel);
        // Only the first step switches the check of references, and that one was done.
        foreach (var step in All.Where(step => !applied.Contains(step.Name)))
        {
            await db.Database.ExecuteSqlRawAsync(Braces().Replace(step.Sql, "$0$0"), cancel);
        }

        foreach (var step in All)
        {
            await db.Database.ExecuteSqlAsync($"DELETE FROM __EFMigrationsHistory WHERE MigrationId = {step.Name}", cancel);
        }

        await db.Database.ExecuteSqlAsync(
            $"INSERT INTO __EFMigrationsHistory (MigrationId, ProductVersion) VALUES ({Whole}, {"10.0.0"})",
            cancel
        );
        await all.CommitAsync(cancel);
    }

    private static List<MigrationStep> Read()
    {
        using var stream = typeof(MigrationSteps).Assembly.GetManifestResourceStream("steps.sql")!;
        using var reader = new StreamReader(stream);
        return [.. Head().Split(reader.ReadToEnd()).Skip(1).Chunk(2).Select(step => new MigrationStep(step[0], step[1]))];
    }

    [GeneratedRegex("^-- step (.+)$", RegexOptions.Multiline)]
    private static partial Regex Head();

    [GeneratedRegex("[{}]")]
    private static partial Regex Braces();
}
