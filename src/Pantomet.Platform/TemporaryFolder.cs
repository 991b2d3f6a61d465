using System.Globalization;
using System.Text.RegularExpressions;

namespace Pantomet.Platform;

/// <summary>A folder for the time being, named by the process that made it, so that what a killed one left is known and swept away.</summary>
public static partial class TemporaryFolder
{
    /// <summary>Makes one.</summary>
    /// <param name="what">What it is for: small letters.</param>
    /// <param name="isPassed">True where other users may pass through it to what is theirs, though not look what is in it.</param>
    /// <returns>Its whole path.</returns>
    public static string Make(string what, bool isPassed = false)
    {
        var made = Directory.CreateTempSubdirectory(
            string.Create(CultureInfo.InvariantCulture, $"pantomet-{what}-{Environment.ProcessId}-")
        );
        if (isPassed && !OperatingSystem.IsWindows())
        {
            made.UnixFileMode |= UnixFileMode.GroupExecute | UnixFileMode.OtherExecute;
        }

        return made.FullName;
    }

    /// <summary>Removes those whose process ended. What is another user's, or still in use, stays.</summary>
    public static void Sweep()
    {
        try
        {
            foreach (var folder in Directory.EnumerateDirectories(Path.GetTempPath(), "pantomet-*"))
            {
                if (Owner(Path.GetFileName(folder)) is { } process && !HelperProcess.IsAlive(process))
                {
                    Remove(folder);
                }
            }
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            // What cannot be listed is not ours to sweep.
        }
    }

    /// <summary>Removes one with all that lies in it. Its last users may still write while it goes: it is tried a few times.</summary>
    public static void Remove(string folder)
    {
        for (var tries = 0; tries < 10 && Directory.Exists(folder); tries++)
        {
            try
            {
                Directory.Delete(folder, recursive: true);
            }
            catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
            {
                Thread.Sleep(50);
            }
        }
    }

    private static int? Owner(string name) =>
        Name().Match(name) is { Success: true } found
        && int.TryParse(found.Groups[1].ValueSpan, NumberStyles.None, CultureInfo.InvariantCulture, out var process)
            ? process
            : null;

    [GeneratedRegex("^pantomet-[a-z]+-([0-9]+)-")]
    private static partial Regex Name();
}
