using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Naming;

/// <summary>What the name of one file in a bundle is made from.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Destination">The destination's key.</param>
/// <param name="Slot">The slot.</param>
/// <param name="Descriptor">The density, or the width of the ladder.</param>
/// <param name="Size">The file's pixel size.</param>
/// <param name="Ending">Without a dot.</param>
/// <param name="Hash">Its content, SHA-256 in lower-case hexadecimal.</param>
public sealed record NamedFile(
    Guid Picture,
    string Destination,
    Slot Slot,
    Descriptor Descriptor,
    PixelSize Size,
    string Ending,
    string Hash = ""
);

/// <summary>Names the files of a job: unique in the bundle, and the same at every call.</summary>
public static class BundleNames
{
    /// <summary>The words a picture is named by; null when only a camera's number is there and nobody said what to do.</summary>
    /// <param name="job">The job.</param>
    /// <param name="picture">One of its pictures.</param>
    /// <param name="fileName">The original's name.</param>
    public static string? WordsFor(Job job, JobPicture picture, string fileName)
    {
        ArgumentNullException.ThrowIfNull(job);
        ArgumentNullException.ThrowIfNull(picture);
        if (picture.Decisions.Keywords.Any(char.IsLetterOrDigit))
        {
            return picture.Decisions.Keywords;
        }

        if (Keywords.In(fileName) is { Length: > 0 } words)
        {
            return words;
        }

        // The number counts all pictures, so that it does not change when another picture gets words.
        var number = 1 + job.Pictures.TakeWhile(one => one.Id != picture.Id).Count();
        return job.Numbered ? $"{job.Name} {number:00}" : null;
    }

    /// <summary>Paths in the bundle: a folder for each destination.</summary>
    /// <param name="job">The job.</param>
    /// <param name="files">The files, in the order in which names are given away.</param>
    /// <param name="fileNames">The originals' names.</param>
    public static IReadOnlyList<string> For(Job job, IEnumerable<NamedFile> files, IReadOnlyDictionary<Guid, string> fileNames)
    {
        ArgumentNullException.ThrowIfNull(job);
        ArgumentNullException.ThrowIfNull(files);
        ArgumentNullException.ThrowIfNull(fileNames);
        var unique = new UniqueNames();
        // Never the name of an original: a folder may hold both.
        foreach (
            var name in fileNames.Values.SelectMany(
                name => files.Select(file => file.Destination).Distinct(),
                (name, folder) => (name, folder)
            )
        )
        {
            unique.Keep(name.folder, name.name);
        }

        var patterns = job.Patterns.ToDictionary(
            pair => pair.Key,
            pair => NamePattern.TryParse(pair.Value, out var pattern, out _) ? pattern : NamePattern.Usual
        );
        var words = job.Pictures.ToDictionary(
            picture => picture.Id,
            picture =>
                fileNames.TryGetValue(picture.Id, out var name)
                    ? WordsFor(job, picture, name) ?? Path.GetFileNameWithoutExtension(name)
                    : "picture"
        );
        return
        [
            .. files.Select(file =>
            {
                var pattern = patterns.TryGetValue(file.Destination, out var own) ? own : file.Slot.NamePattern;
                var stem = pattern.Fill(
                    new(
                        $"{job.Prefix} {words.GetValueOrDefault(file.Picture, "picture")}".Trim(),
                        file.Destination,
                        file.Slot.Key,
                        file.Descriptor,
                        file.Size,
                        file.Slot.Size.Shape,
                        file.Hash
                    )
                );
                return unique.Take(file.Destination, stem, file.Ending);
            }),
        ];
    }
}
