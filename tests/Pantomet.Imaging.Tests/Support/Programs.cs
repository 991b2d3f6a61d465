using System.Diagnostics;

namespace Pantomet.Imaging.Tests.Support;

/// <summary>What a program answered.</summary>
public sealed record Answer(int Code, string Out, string Error);

/// <summary>Runs other programs: our own command, and the independent readers that its files are checked with.</summary>
public static class Programs
{
    private static readonly System.Globalization.CultureInfo Invariant = System.Globalization.CultureInfo.InvariantCulture;

    /// <summary>The pantomet command, carried out within this process: by the very call that its program makes.</summary>
    public static Answer Pantomet(params string[] arguments)
    {
        using var output = new StringWriter();
        using var error = new StringWriter();
        // Where it says what it has to say is this call's own; others run beside it.
        var code = Task.Run(() =>
            {
                Cli.CallOutput.Use(output, error);
                return Cli.CommandLine.RunAsync(arguments);
            })
            .GetAwaiter()
            .GetResult();
        return new(code, output.ToString(), error.ToString());
    }

    /// <summary>The pantomet command, as its own process.</summary>
    public static Answer PantometAlone(params string[] arguments) =>
        Run("dotnet", [Path.Combine(AppContext.BaseDirectory, "pantomet.dll"), .. arguments]);

    /// <summary>The pantomet command, killed after a while wherever it is.</summary>
    public static void Killed(string[] arguments, TimeSpan after)
    {
        var start = new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "pantomet.dll"), .. arguments])
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        using var process = Process.Start(start)!;
        if (!process.WaitForExit(after))
        {
            process.Kill();
            process.WaitForExit();
        }
    }

    /// <summary>ImageMagick's identify.</summary>
    public static string Identify(string format, string file) => Checked("identify", "-quiet", "-format", format, file);

    /// <summary>exiftool's value of one tag, or nothing.</summary>
    public static string Tag(string tag, string file) => Checked("exiftool", "-s3", "-n", "-" + tag, file).Trim();

    /// <summary>The colour of one pixel, as red, green, blue, read by ImageMagick.</summary>
    public static int[] Pixel(string file, int x, int y) =>
        [
            .. Checked(
                    "convert",
                    file,
                    "-depth",
                    "8",
                    "-crop",
                    $"1x1+{x}+{y}",
                    "-alpha",
                    "off",
                    "-format",
                    "%[fx:round(255*r)] %[fx:round(255*g)] %[fx:round(255*b)]",
                    "info:"
                )
                .Split(' ')
                .Select(int.Parse),
        ];

    /// <summary>All pixels as red, green, blue, read by ImageMagick.</summary>
    public static (int Width, int Height, byte[] Values) Rows(string file)
    {
        var size = Identify("%w %h", file).Split(' ');
        var raw = Path.GetTempFileName();
        try
        {
            Checked("convert", file, "-depth", "8", "-alpha", "off", $"rgb:{raw}");
            return (int.Parse(size[0], Invariant), int.Parse(size[1], Invariant), File.ReadAllBytes(raw));
        }
        finally
        {
            File.Delete(raw);
        }
    }

    /// <summary>Runs a program that must succeed.</summary>
    public static string Checked(string program, params string[] arguments)
    {
        var answer = Run(program, arguments);
        return answer.Code == 0
            ? answer.Out
            : throw new InvalidOperationException($"{program} {string.Join(' ', arguments)}: {answer.Error}");
    }

    private static Answer Run(string program, string[] arguments)
    {
        var start = new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true };
        using var process = Process.Start(start)!;
        var error = process.StandardError.ReadToEndAsync();
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return new(process.ExitCode, output, error.Result);
    }
}
