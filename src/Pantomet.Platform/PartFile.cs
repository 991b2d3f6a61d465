using System.Globalization;
using System.Text.RegularExpressions;

namespace Pantomet.Platform;

/// <summary>
/// A file under way, beside the place that it will take. Its name tells which process writes it, so that what a killed one left is known and
/// swept away.
/// </summary>
public static partial class PartFile
{
    /// <summary>The name of one that will take a place.</summary>
    /// <param name="path">The place.</param>
    public static string For(string path) =>
        string.Create(CultureInfo.InvariantCulture, $"{path}.{Environment.ProcessId}-{Guid.NewGuid():N}.part");

    /// <summary>True for the name of a file under way, whoever writes it.</summary>
    public static bool Is(string path) => Name().IsMatch(path);

    /// <summary>Removes those in a folder, and in all within it, whose process ended.</summary>
    /// <param name="folder">The folder.</param>
    public static void Sweep(FolderHandle folder)
    {
        ArgumentNullException.ThrowIfNull(folder);
        foreach (var path in folder.Files().Where(IsLeft).ToList())
        {
            try
            {
                using var place = folder.Place(path);
                File.Delete(place.Path);
            }
            catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
            {
                // It went by itself, or is not ours to remove.
            }
        }
    }

    /// <summary>True for one whose process ended.</summary>
    public static bool IsLeft(string path) =>
        Name().Match(path) is { Success: true } found
        && int.TryParse(found.Groups[1].ValueSpan, NumberStyles.None, CultureInfo.InvariantCulture, out var process)
        && !HelperProcess.IsAlive(process);

    [GeneratedRegex(@"\.([0-9]+)-[0-9a-f]{32}\.part$")]
    private static partial Regex Name();
}
