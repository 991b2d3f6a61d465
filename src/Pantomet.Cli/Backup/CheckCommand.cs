using System.CommandLine;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Keeping;
using Pantomet.Backups;
using Pantomet.Core;
using Pantomet.Core.Texts;
using Pantomet.Server;

namespace Pantomet.Cli.Backup;

/// <summary><c>check</c>: holds a data folder against its hashes and its database, and mends what can be mended.</summary>
internal static class CheckCommand
{
    public static Command Build()
    {
        var data = BackupCommands.DataOption(CommandTexts.TheDataFolderCreatedIfIt);
        var repair = new Option<bool>("--repair") { Description = BackupTexts.MakesWhatIsDamagedAgain };
        var backups = new Option<string?>("--backups") { Description = BackupTexts.WhereBackupsLie, HelpName = "DIR" };
        var command = new Command("check", BackupTexts.ChecksADataFolder) { data, repair, backups };
        command.SetAction(
            (call, cancel) =>
                BackupCommands.ToldAsync(() => RunAsync(call.GetRequiredValue(data), call.GetValue(repair), call.GetValue(backups), cancel))
        );
        return command;
    }

    private static async Task<int> RunAsync(string data, bool repair, string? backups, CancellationToken cancel)
    {
        var found = await DataCheck.RunAsync(data, backups, BackupCommands.Progress(), cancel);
        await TellAsync(found, backups is not null);
        if (!repair || found.Database.Count > 0 || found.IsSound)
        {
            return found.IsSound ? ExitCodes.Fine : ExitCodes.SomethingBroke;
        }

        return await RepairAsync(data, found, backups, cancel) ? ExitCodes.Fine : ExitCodes.SomethingBroke;
    }

    private static async Task TellAsync(CheckOutcome found, bool withBackups)
    {
        var error = CallOutput.Error;
        foreach (var fault in found.Database)
        {
            await error.WriteLineAsync(BackupTexts.DatabaseFault(fault));
        }

        foreach (var original in found.BadOriginals)
        {
            var says = original.IsMissing ? BackupTexts.OriginalIsMissing(original.Name) : BackupTexts.OriginalIsDamaged(original.Name);
            var where =
                !withBackups ? ""
                : original.Backups.Count > 0 ? $" {BackupTexts.BackupsHaveIt(string.Join(", ", original.Backups))}"
                : $" {BackupTexts.NoBackupHasIt}";
            await error.WriteLineAsync(says + where);
        }

        if (found.BadVariants.Count > 0)
        {
            await error.WriteLineAsync(BackupTexts.FilesToMakeAgain(found.BadVariants.Count));
        }

        if (found.Database.Count > 0)
        {
            return;
        }

        CallOutput.Out.WriteLine(BackupTexts.Checked(found.Originals, found.Variants));
        if (found.Unreferenced > 0)
        {
            CallOutput.Out.WriteLine(BackupTexts.Unreferenced(found.Unreferenced, Figures.Weight(found.UnreferencedBytes)));
        }

        if (found.IsSound)
        {
            CallOutput.Out.WriteLine(BackupTexts.NothingIsDamaged);
        }
    }

    private static async Task<bool> RepairAsync(string data, CheckOutcome found, string? backups, CancellationToken cancel)
    {
        try
        {
            // The same parts as in a server, which is not started: one program at a time has a data folder.
            await using var app = await PantometServer.BuildAsync(new() { Data = data, Port = 0 });
            var restored = 0;
            foreach (var original in found.BadOriginals.Where(one => one.Backups.Count > 0))
            {
                if (await DataRestore.OriginalAsync(backups!, original.Sha256, data, cancel))
                {
                    restored++;
                    CallOutput.Out.WriteLine(BackupTexts.OriginalTakenFrom(original.Name, original.Backups[0]));
                }
            }

            var made = await app.Services.GetRequiredService<VariantRepair>().RunAsync(found.BadVariants, null, cancel);
            if (found.BadVariants.Count > 0)
            {
                CallOutput.Out.WriteLine(BackupTexts.FilesMadeAgain(made, found.BadVariants.Count));
            }

            return restored == found.BadOriginals.Count && made == found.BadVariants.Count;
        }
        catch (InvalidDataException fault)
        {
            await CallOutput.Error.WriteLineAsync($"pantomet: {fault.Message} {BackupTexts.StopPantometToRepair}");
            return false;
        }
    }
}
