using System.Diagnostics;
using System.Globalization;
using System.Runtime.Versioning;
using Pantomet.Platform;

namespace Pantomet.Server.Tests;

/// <summary>Processes that work for the server are held to what they were given, by the system itself.</summary>
[UnsupportedOSPlatform("windows")]
public sealed class HelperProcessTests
{
    [Fact]
    public void A_helper_ends_with_its_parent_whatever_it_waits_for()
    {
        // The shell is the parent; it is killed while the helper waits for a line that never comes.
        using var parent = Start("/bin/sh", ["-c", $"{Variables("$$")} exec 3<>/dev/null; {Host} {Program} work <&3 & echo $!; sleep 60"]);
        var helper = int.Parse(parent.StandardOutput.ReadLine()!, CultureInfo.InvariantCulture);
        using var asleep = Start("/bin/sh", ["-c", "sleep 60"]);
        Assert.True(HelperProcess.IsAlive(helper));
        parent.Kill();
        parent.WaitForExit();
        Assert.True(Gone(helper), "It still runs.");
        Assert.True(HelperProcess.IsAlive(asleep.Id));
        asleep.Kill(entireProcessTree: true);
    }

    [Fact]
    public void The_system_holds_the_memory_of_a_helper()
    {
        using var helper = Helper(700_000_000);
        helper.StandardInput.WriteLine("""{"work":"read","path":"/nowhere.jpg"}""");
        Assert.Contains("does not exist", helper.StandardOutput.ReadLine()!, StringComparison.Ordinal);
        var limits = File.ReadAllLines($"/proc/{helper.Id}/limits");
        Assert.Contains(
            limits,
            line => line.StartsWith("Max data size", StringComparison.Ordinal) && line.Contains("700000000", StringComparison.Ordinal)
        );
        Assert.Contains(
            limits,
            line => line.StartsWith("Max core file size", StringComparison.Ordinal) && line.Contains(" 0 ", StringComparison.Ordinal)
        );
        helper.Kill();
    }

    [Fact]
    public void A_helper_that_reads_pictures_has_no_network_and_starts_no_program()
    {
        using var helper = Helper(700_000_000);
        helper.StandardInput.WriteLine("""{"work":"read","path":"/nowhere.jpg"}""");
        Assert.Contains("does not exist", helper.StandardOutput.ReadLine()!, StringComparison.Ordinal);
        var status = File.ReadAllLines($"/proc/{helper.Id}/status");
        helper.Kill();

        // proc(5): 2 is a filter.
        Assert.Contains("Seccomp:\t2", status);
        Assert.Contains("NoNewPrivs:\t1", status);
        // What the filter does is tried by the program on itself.
        using var tried = Start(Host, [Program, "sandbox"]);
        Assert.Equal("memory and time are limited: yes\nno network: yes\nno other programs: yes\n", tried.StandardOutput.ReadToEnd());
    }

    [Fact]
    public void Temporary_folders_of_processes_that_ended_are_swept_and_those_in_use_stay()
    {
        var left = Directory.CreateDirectory(Path.Combine(Path.GetTempPath(), "pantomet-browser-999999999-abcdef")).FullName;
        File.WriteAllText(Path.Combine(left, "cookies"), "x");
        var mine = TemporaryFolder.Make("test");
        TemporaryFolder.Sweep();
        Assert.False(Directory.Exists(left));
        Assert.True(Directory.Exists(mine));
        TemporaryFolder.Remove(mine);
        Assert.False(Directory.Exists(mine));
    }

    private static string Program => Path.Combine(AppContext.BaseDirectory, "pantomet.dll");

    private static string Host => Environment.ProcessPath is { } self && Path.GetFileName(self) == "dotnet" ? self : "dotnet";

    private static string Variables(string parent) =>
        $"export {HelperProcess.ParentVariable}={parent} {HelperProcess.BytesVariable}=4000000000 {HelperProcess.SecondsVariable}=60;";

    private static Process Helper(long bytes)
    {
        var start = new ProcessStartInfo(Host, [Program, "work"])
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        HelperProcess.Limit(start.Environment, bytes, TimeSpan.FromMinutes(1));
        return Process.Start(start)!;
    }

    private static Process Start(string program, string[] arguments) =>
        Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true })!;

    private static bool Gone(int process)
    {
        for (var i = 0; i < 200 && HelperProcess.IsAlive(process) && !IsZombie(process); i++)
        {
            Thread.Sleep(50);
        }

        return !HelperProcess.IsAlive(process) || IsZombie(process);
    }

    // Nobody may wait for an orphan here.
    private static bool IsZombie(int process) =>
        File.Exists($"/proc/{process}/stat") && File.ReadAllText($"/proc/{process}/stat").Contains(") Z ", StringComparison.Ordinal);
}
