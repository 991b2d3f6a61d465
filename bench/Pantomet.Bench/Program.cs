using System.Globalization;
using Pantomet.Bench;
using Pantomet.Imaging;
using Pantomet.Server.Tests;

ImagingEngine.Start();
switch (args)
{
    case ["calibrate", .. var pictures]:
        Calibration.Run(pictures, Console.Out);
        return 0;
    case ["likeness-table", var csv]:
        await Console.Out.WriteAsync(CalibrationTable.Of(await File.ReadAllTextAsync(csv)));
        return 0;
    case ["serve"]:
        await Workloads.ServeAsync();
        return 0;
    case ["frames"]:
        Console.WriteLine(Frames.Measure());
        return 0;
    case ["alike", .. var folders]:
        AlikeShots.Run(folders, Console.Out);
        return 0;
    case ["fades", .. var photographs]:
        Console.WriteLine(Fades.Measure(photographs));
        return 0;
    case ["subjects", var table, var resources, .. var folders]:
        Subjects.Run(table, resources, folders, Console.Out);
        return 0;
    case ["seen", var table, var resources, .. var folders]:
        Subjects.Say(table, resources, folders, Console.Out);
        return 0;
    case ["weights", var parts, var photographs, var drawings]:
        Weights.Run(
            parts.Split(','),
            [.. (await File.ReadAllLinesAsync(photographs)).Where(File.Exists)],
            [.. (await File.ReadAllLinesAsync(drawings)).Where(File.Exists)],
            Console.Out
        );
        return 0;
    case ["stages", var photograph]:
        Stages.Run(photograph, 1500);
        return 0;
    case ["stages", var photograph, var width]:
        Stages.Run(photograph, int.Parse(width, CultureInfo.InvariantCulture));
        return 0;
    case ["scale", var data, var original, var file]:
        await Scale.FillAsync(data, original, file);
        return 0;
    case ["mutate", var count, var seed, var folder]:
        Console.WriteLine("| type | inputs | read | refused | files made | crashes or hangs | longest, s |\n|---|---|---|---|---|---|---|");
        var failed = 0;
        foreach (var format in Mutations.Formats)
        {
            var tally = await Mutations.RunAsync(
                format,
                int.Parse(count, CultureInfo.InvariantCulture),
                int.Parse(seed, CultureInfo.InvariantCulture),
                folder
            );
            Console.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"| {format} | {tally.Inputs} | {tally.Read} | {tally.Refused} | {tally.Made} | "
                        + $"{tally.Crashes} | {tally.Longest:0.00} |"
                )
            );
            failed += tally.Faults.Count;
            foreach (var fault in tally.Faults)
            {
                await Console.Error.WriteLineAsync(fault);
            }
        }

        return failed == 0 ? 0 : 1;
    default:
        await Console.Error.WriteLineAsync(
            "calls: calibrate PICTURE..., likeness-table CSV, serve, stages PHOTOGRAPH, frames, scale DATA ORIGINAL FILE, "
                + "weights PARTS PHOTOGRAPHS DRAWINGS, "
                + "mutate COUNT SEED FOLDER"
        );
        return 2;
}
