using System.Diagnostics;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Marks;
using Pantomet.Core.Naming;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Making;

namespace Pantomet.Cli.Render;

/// <summary>
/// One run over all files. Pictures are worked on side by side; names are given and files written in the order of the call.
/// </summary>
internal sealed class RenderRun(
    RuleBook book,
    IReadOnlyDictionary<string, PictureMarks> marks,
    string output,
    int jobs,
    IReadOnlyList<string> files
)
{
    private readonly UniqueNames _names = new();
    private readonly HashSet<string> _sources = [.. files.Select(Path.GetFullPath)];
    private readonly List<Place> _places =
    [
        .. book.Destinations.SelectMany(destination =>
            destination.Slots.SelectMany(slot => slot.Densities.Select(density => new Place(destination, slot, density)))
        ),
    ];

    /// <summary>Makes everything that can be made.</summary>
    public async Task<RenderReport> ExecuteAsync(CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        Directory.CreateDirectory(output);
        var sources = new List<ReportedSource>();
        var variants = new List<ReportedVariant>();
        var room = new WorkRoom(jobs);
        // A picture's files wait in memory until those before it are written, so only a few pictures are under way at once.
        var under = new Queue<(string File, Task<MadePicture> Work)>();
        var next = 0;
        while (under.Count > 0 || next < files.Count)
        {
            while (under.Count < jobs && next < files.Count)
            {
                var file = files[next++];
                under.Enqueue((file, PictureAsync(file, room, cancel)));
            }

            var (name, work) = under.Dequeue();
            var picture = await work;
            sources.Add(Source(name, picture));
            for (var i = 0; i < picture.Made.Count; i++)
            {
                variants.AddRange(picture.Made[i].Select(made => Write(name, _places[i], made)));
            }
        }

        var written = variants.Where(variant => variant.File is not null).ToList();
        return new(
            sources,
            variants,
            new(
                sources.Sum(source => source.Bytes ?? 0),
                written.Sum(variant => variant.Bytes ?? 0),
                written.Count,
                Math.Round(clock.Elapsed.TotalSeconds, 3)
            )
        );
    }

    /// <summary>True when a limit was broken or a file could not be read.</summary>
    public static bool Broke(RenderReport report) =>
        report.Sources.Any(source => source.Error is not null) || report.Variants.Any(variant => variant.Verdict == Verdict.Breaks);

    private Task<MadePicture> PictureAsync(string file, WorkRoom room, CancellationToken cancel)
    {
        var mark = MarksOf(file);
        var wanted = _places
            .Select(place => new Wanted(place.Slot, place.Density, mark.FramingFor(place.Destination.Key, place.Slot.Key)))
            .ToList();
        return PictureMaker.MakeAsync(file, mark.Keep, mark.Focus, wanted, room, cancel);
    }

    private PictureMarks MarksOf(string file) =>
        marks.GetValueOrDefault(file) ?? marks.GetValueOrDefault(Path.GetFileName(file)) ?? PictureMarks.None;

    private static ReportedSource Source(string file, MadePicture picture) =>
        picture.Facts is not { } facts
            ? new() { File = file, Error = picture.Refusal }
            : new()
            {
                File = file,
                Width = facts.Size.Width,
                Height = facts.Size.Height,
                Format = facts.Format.Word(),
                Bytes = facts.Bytes,
                Alpha = facts.HasAlpha,
                Frames = facts.Frames,
                Profile = facts.Profile,
                Ppi = facts.Ppi,
                JpegQuality = facts.JpegQuality,
                Kind = facts.Kind,
                Suggestion = facts.Suggestion is { } suggestion ? Edges(suggestion) : null,
            };

    private static double[] Edges(Suggestion suggestion) =>
        [
            .. new[] { suggestion.Box.Left, suggestion.Box.Top, suggestion.Box.Right, suggestion.Box.Bottom }.Select(edge =>
                Math.Round(edge, 4)
            ),
        ];

    private ReportedVariant Write(string file, Place place, MadeVariant made)
    {
        var delivered = made.File is not null && made.Verdict is Verdict.Meets or Verdict.Concedes;
        string? name = null;
        if (delivered)
        {
            var picture = MarksOf(file).Name ?? Path.GetFileNameWithoutExtension(file);
            var stem = place.Slot.NamePattern.Fill(
                new(picture, place.Destination.Key, place.Slot.Key, made.Plan.Density, made.Size, place.Slot.Size.Shape)
            );
            do
            {
                name = _names.Take(place.Destination.Key, stem, made.Format!.Value.Ending());
            } while (_sources.Contains(Path.GetFullPath(Path.Combine(output, name))));

            var path = Path.Combine(output, name);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            File.WriteAllBytes(path + ".part", made.File!);
            File.Move(path + ".part", path, overwrite: true);
        }

        return new()
        {
            Source = file,
            Destination = place.Destination.Key,
            Slot = place.Slot.Key,
            Density = made.Plan.Density.Value,
            File = name,
            Width = delivered ? made.Size.Width : null,
            Height = delivered ? made.Size.Height : null,
            Format = delivered ? made.Format!.Value.Word() : null,
            Bytes = delivered ? made.File!.LongLength : null,
            Quality = delivered ? made.Quality : null,
            Likeness = delivered && made.Likeness is { } likeness ? Math.Round(likeness.Score, 5) : null,
            WorstPlace =
                delivered && made.Likeness is { } worst
                    ? [worst.WorstTile.Left, worst.WorstTile.Top, worst.WorstTile.Right, worst.WorstTile.Bottom]
                    : null,
            Frame = [made.Plan.Crop.Left, made.Plan.Crop.Top, made.Plan.Crop.Right, made.Plan.Crop.Bottom],
            Encodes = made.Encodes,
            Verdict = made.Verdict,
            Reasons = made.Reasons,
        };
    }

    private sealed record Place(Destination Destination, Slot Slot, Core.Geometry.Density Density);
}
