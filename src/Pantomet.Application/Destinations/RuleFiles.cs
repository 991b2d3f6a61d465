using Pantomet.Application.Engine;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Imaging.Dressing;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Application.Destinations;

/// <summary>The logos and fonts that rules name: taken from beside a rules file, for a run without the application's data.</summary>
public static class RuleFiles
{
    /// <summary>
    /// The same book, its files by the names of their content. What cannot be used is told of at every file that should have had it, and stops
    /// no other.
    /// </summary>
    /// <param name="book">The rules as read.</param>
    /// <param name="folder">Where the rules file lies.</param>
    /// <param name="cancel">Stops the look at drawings.</param>
    public static async Task<RuleBook> BesideAsync(RuleBook book, string folder, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(book);
        var (names, faults) = (new Dictionary<string, string>(), new Dictionary<string, string>());
        List<string> files = [.. book.Destinations.SelectMany(one => one.Slots).SelectMany(slot => slot.Dress.Files).Distinct()];
        if (files.Count == 0)
        {
            return book;
        }

        await using var processes = new ImagingProcessPool(new() { Data = "", Workers = 1 });
        foreach (var file in files)
        {
            var path = Path.Combine(folder, file);
            var fault = SideFiles.Take(path, out var name) ?? await NotDrawnAsync(path, processes, cancel);
            if (fault is null)
            {
                names[file] = name;
            }
            else
            {
                faults[file] = fault;
            }
        }

        return Named(book, file => names.GetValueOrDefault(file, file), faults.GetValueOrDefault);
    }

    // What draws cannot be stopped on the way: drawings and fonts are tried in a process that can be ended.
    internal static async Task<string?> NotDrawnAsync(string path, ImagingProcessPool processes, CancellationToken cancel) =>
        TrialOf(Path.GetFullPath(path)) is { } trial && (await processes.RunAsync(trial, cancel)).Refusal is { } refusal
            ? RuleTexts.CannotBeUsed(Path.GetFileName(path), refusal)
            : null;

    private static ImagingRequest? TrialOf(string path) =>
        Path.GetExtension(path).ToLowerInvariant() is var ending && ending == ".svg" ? new ReadRequest(path)
        : SideFile.FontEndings.Contains(ending) ? new FontRequest(path)
        : null;

    internal static RuleBook Named(RuleBook book, Func<string, string> named, Func<string, string?> fault) =>
        new([
            .. book.Destinations.Select(destination =>
                destination with
                {
                    Slots = [.. destination.Slots.Select(slot => slot.WithFiles(named, fault))],
                }
            ),
        ]);
}
