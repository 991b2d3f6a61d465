using System.Diagnostics;

namespace Pantomet.Imaging.Tests.Support;

/// <summary>What a program answered.</summary>
public sealed record Answer(int Code, string Out, string Error);

/// <summary>Runs other programs: our own command, and the independent readers that its files are checked with.</summary>
public static class Programs
{
    private static readonly System.Globalization.CultureInfo Invariant = System.Globalization.CultureInfo.InvariantCulture;

    private static readonly AsyncLocal<((string, DateTime, long) Of, (int, int, byte[]) Rows)?> _last = new();

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

    /// <summary>The pantomet command, as its own process with a variable of its own.</summary>
    public static Answer PantometWith(string variable, string value, params string[] arguments) =>
        Run("env", [$"{variable}={value}", "dotnet", Path.Combine(AppContext.BaseDirectory, "pantomet.dll"), .. arguments]);

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
    public static string Tag(string tag, string file) => TagReader.Ask("-s3", "-n", "-" + tag, file).Trim();

    /// <summary>The colour of one pixel, as red, green, blue, read by ImageMagick.</summary>
    public static int[] Pixel(string file, int x, int y)
    {
        var (width, _, values) = Rows(file);
        return [.. values.Skip(((y * width) + x) * 3).Take(3).Select(value => (int)value)];
    }

    /// <summary>All pixels as red, green, blue, read by ImageMagick. The file that was read last is remembered for as long as nobody writes it.</summary>
    public static (int Width, int Height, byte[] Values) Rows(string file)
    {
        var written = (file, File.GetLastWriteTimeUtc(file), new FileInfo(file).Length);
        if (_last.Value is { } last && last.Of == written)
        {
            return last.Rows;
        }

        var raw = Path.GetTempFileName();
        try
        {
            var size = Checked("convert", file, "-depth", "8", "-alpha", "off", "-write", $"rgb:{raw}", "-format", "%w %h", "info:")
                .Split(' ');
            var rows = (int.Parse(size[0], Invariant), int.Parse(size[1], Invariant), File.ReadAllBytes(raw));
            _last.Value = (written, rows);
            return rows;
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
        // Threads that wait for one another by spinning cost more on a busy machine than they bring.
        start.Environment["OMP_NUM_THREADS"] = "1";
        using var process = Process.Start(start)!;
        var error = process.StandardError.ReadToEndAsync();
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return new(process.ExitCode, output, error.Result);
    }
}

/// <summary>One exiftool for all questions: each start of it costs more than its answers.</summary>
internal static class TagReader
{
    private const string Ready = "{ready}";

    private static readonly Lock Turn = new();
    private static readonly Lazy<Process> Reader = new(Start);

    public static string Ask(params string[] arguments)
    {
        lock (Turn)
        {
            var process = Reader.Value;
            foreach (var argument in arguments)
            {
                process.StandardInput.WriteLine(argument);
            }

            process.StandardInput.WriteLine("-execute");
            process.StandardInput.Flush();
            var answer = new System.Text.StringBuilder();
            while (process.StandardOutput.ReadLine() is { } line)
            {
                if (line == Ready)
                {
                    return answer.ToString();
                }

                answer.AppendLine(line);
            }

            throw new InvalidOperationException($"exiftool ended: {string.Join(' ', arguments)}");
        }
    }

    // It ends with its input, and that with this process.
    private static Process Start() =>
        Process.Start(
            new ProcessStartInfo("exiftool", ["-stay_open", "True", "-@", "-"])
            {
                RedirectStandardInput = true,
                RedirectStandardOutput = true,
            }
        )!;
}
