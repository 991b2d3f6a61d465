using System.CommandLine;
using System.Globalization;
using Pantomet.Backups;
using Pantomet.Core;
using Pantomet.Core.Texts;

namespace Pantomet.Cli.Backup;

/// <summary>The commands that keep what is entrusted: <c>backup</c> and <c>restore</c>; <c>check</c> has its own file.</summary>
internal static class BackupCommands
{
    public static Command Backup()
    {
        var data = DataOption(CommandTexts.TheDataFolderCreatedIfIt);
        var to = new Option<string>("--to")
        {
            Description = BackupTexts.WhereTheBackupGoes,
            HelpName = "FILE",
            Required = true,
        };
        var command = new Command("backup", BackupTexts.BacksUpADataFolder) { data, to };
        command.SetAction((call, cancel) => ToldAsync(() => BackupAsync(call.GetRequiredValue(data), call.GetRequiredValue(to), cancel)));
        return command;
    }

    public static Command Restore()
    {
        var from = new Option<string>("--from")
        {
            Description = BackupTexts.TheBackup,
            HelpName = "FILE",
            Required = true,
        };
        var data = DataOption(BackupTexts.AnEmptyFolder);
        var id = new Option<string?>("--id") { Description = BackupTexts.WhichBackupOfAFolder, HelpName = "NAME" };
        var command = new Command("restore", BackupTexts.RestoresABackup) { from, data, id };
        command.SetAction(
            (call, cancel) =>
                ToldAsync(() => RestoreAsync(call.GetRequiredValue(from), call.GetValue(id), call.GetRequiredValue(data), cancel))
        );
        return command;
    }

    /// <summary>The option that names the data folder.</summary>
    public static Option<string> DataOption(string description) =>
        new("--data")
        {
            Description = description,
            HelpName = "DIR",
            Required = true,
        };

    /// <summary>Does something and tells in a line why it cannot be done.</summary>
    public static async Task<int> ToldAsync(Func<Task<int>> act)
    {
        try
        {
            return await act();
        }
        catch (BackupException fault)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {fault.Message}");
            return ExitCodes.WrongCall;
        }
    }

    /// <summary>How far something is, in one line that is written over and over; nothing where nobody looks.</summary>
    public static Action<BackupProgress>? Progress()
    {
        if (Console.IsErrorRedirected)
        {
            return null;
        }

        var last = -1L;
        return now =>
        {
            var percent = now.OfBytes == 0 ? 100 : 100 * now.Bytes / now.OfBytes;
            if (percent != last)
            {
                last = percent;
                Console.Error.Write($"\r{percent, 3} %  {now.Files} / {now.Of}{(now.Files == now.Of ? "\n" : "")}");
            }
        };
    }

    private static async Task<int> BackupAsync(string data, string to, CancellationToken cancel)
    {
        var outcome = await DataBackup.TakeAsync(data, to, DateTime.UtcNow, BackupManifest.ThisProgram, Progress(), cancel);
        foreach (var lost in outcome.Manifest.Lost)
        {
            await CallOutput.Error.WriteLineAsync(BackupTexts.LostOriginal(lost.Name));
        }

        CallOutput.Out.WriteLine(
            BackupTexts.BackedUp(
                outcome.Manifest.Files.Count,
                Figures.Weight(outcome.Manifest.Bytes),
                outcome.Added,
                Figures.Weight(outcome.AddedBytes)
            )
        );
        return outcome.Manifest.Lost.Count > 0 ? ExitCodes.SomethingBroke : ExitCodes.Fine;
    }

    private static async Task<int> RestoreAsync(string from, string? id, string data, CancellationToken cancel)
    {
        var outcome = await DataRestore.RunAsync(from, id, data, Progress(), cancel);
        foreach (var path in outcome.Damaged)
        {
            await CallOutput.Error.WriteLineAsync(BackupTexts.NotRestored(path));
        }

        CallOutput.Out.WriteLine(
            BackupTexts.Restored(
                outcome.Manifest.Files.Count - outcome.Damaged.Count,
                Figures.Weight(outcome.Manifest.Bytes),
                outcome.Manifest.TakenAt.ToString("yyyy-MM-dd HH:mm:ss 'UTC'", CultureInfo.InvariantCulture)
            )
        );
        return outcome.Damaged.Count > 0 ? ExitCodes.SomethingBroke : ExitCodes.Fine;
    }
}
