using Pantomet.Bench;
using Pantomet.Imaging;

ImagingEngine.Start();
switch (args)
{
    case ["calibrate", .. var photographs]:
        Calibration.Run(photographs, Console.Out);
        return 0;
    case ["likeness-table", var csv]:
        await Console.Out.WriteAsync(CalibrationTable.Of(await File.ReadAllTextAsync(csv), Calibration.Chosen));
        return 0;
    case ["serve"]:
        await Workloads.ServeAsync();
        return 0;
    case ["stages", var photograph]:
        Stages.Run(photograph);
        return 0;
    default:
        await Console.Error.WriteLineAsync("calls: calibrate PHOTOGRAPH..., likeness-table CSV, serve, stages PHOTOGRAPH");
        return 2;
}
