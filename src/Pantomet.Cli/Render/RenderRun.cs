using System.Diagnostics;
using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Marks;
using Pantomet.Core.Naming;
using Pantomet.Core.Planning;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;

namespace Pantomet.Cli.Render;

/// <summary>One run over all files. Pictures are worked on side by side; names are given and files written in the order of the call.</summary>
internal sealed class RenderRun(
    RuleBook book, IReadOnlyDictionary<string, PictureMarks> marks, string output, int jobs, IReadOnlyList<string> files)
{
    private readonly UniqueNames _names = new();
    private readonly HashSet<string> _sources = [.. files.Select(Path.GetFullPath)];

    /// <summary>Makes everything that can be made.</summary>
    public RenderReport Execute(CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        Directory.CreateDirectory(output);
        var sources = new List<ReportedSource>();
        var variants = new List<ReportedVariant>();
        var pictures = files.AsParallel().AsOrdered().WithDegreeOfParallelism(jobs).WithMergeOptions(ParallelMergeOptions.NotBuffered).WithCancellation(cancel)
            .Select(file => Picture(file, cancel));
        foreach (var (source, made) in pictures)
        {
            sources.Add(source);
            variants.AddRange(made.Select(one => Write(source, one)));
        }

        var written = variants.Where(variant => variant.File is not null).ToList();
        return new(sources, variants, new(
            sources.Sum(source => source.Bytes ?? 0), written.Sum(variant => variant.Bytes ?? 0), written.Count, Math.Round(clock.Elapsed.TotalSeconds, 3)));
    }

    /// <summary>True when a limit was broken or a file could not be read.</summary>
    public static bool Broke(RenderReport report) =>
        report.Sources.Any(source => source.Error is not null) || report.Variants.Any(variant => variant.Verdict == Verdict.Breaks);

    private (ReportedSource Source, List<Job> Made) Picture(string file, CancellationToken cancel)
    {
        var read = PictureReader.ReadWhole(file);
        if (read.Facts is not { } facts)
        {
            return (new() { File = file, Error = read.Refusal }, []);
        }

        var source = new ReportedSource
        {
            File = file, Width = facts.Size.Width, Height = facts.Size.Height, Format = facts.Format.Word(), Bytes = facts.Bytes, Alpha = facts.HasAlpha, Frames = facts.Frames,
        };
        var mark = marks.GetValueOrDefault(file) ?? marks.GetValueOrDefault(Path.GetFileName(file)) ?? PictureMarks.None;
        var made = new List<Job>();
        foreach (var destination in book.Destinations)
        {
            foreach (var slot in destination.Slots)
            {
                foreach (var density in slot.Densities)
                {
                    var plan = VariantPlanner.Plan(facts.Size, slot, density, mark.FramingFor(destination.Key, slot.Key), mark.Focus);
                    made.Add(new(destination, slot, mark.Name ?? Path.GetFileNameWithoutExtension(file), MakeSafely(file, facts, slot, plan, cancel)));
                }
            }
        }

        return (source, made);
    }

    // What the decoder or encoder cannot do with one picture must not stop the others.
    private static MadeVariant MakeSafely(string file, PictureFacts facts, Slot slot, VariantPlan plan, CancellationToken cancel)
    {
        try
        {
            return VariantMaker.Make(file, facts, slot, plan, cancel);
        }
        catch (VipsException)
        {
            return new()
            {
                Plan = plan, Verdict = Verdict.Breaks, Reasons = [new(ReasonCodes.Unreadable, "The picture could not be decoded or encoded for this slot.")],
            };
        }
    }

    private ReportedVariant Write(ReportedSource source, Job job)
    {
        var (destination, slot, picture, made) = job;
        var delivered = made.File is not null && made.Verdict is Verdict.Meets or Verdict.Concedes;
        string? name = null;
        if (delivered)
        {
            var stem = slot.NamePattern.Fill(new(picture, destination.Key, slot.Key, made.Plan.Density, made.Size, slot.Size.Shape));
            do
            {
                name = _names.Take(destination.Key, stem, made.Format!.Value.Ending());
            }
            while (_sources.Contains(Path.GetFullPath(Path.Combine(output, name))));

            var path = Path.Combine(output, name);
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            File.WriteAllBytes(path + ".part", made.File!);
            File.Move(path + ".part", path, overwrite: true);
        }

        return new()
        {
            Source = source.File,
            Destination = destination.Key,
            Slot = slot.Key,
            Density = made.Plan.Density.Value,
            File = name,
            Width = delivered ? made.Size.Width : null,
            Height = delivered ? made.Size.Height : null,
            Format = delivered ? made.Format!.Value.Word() : null,
            Bytes = delivered ? made.File!.LongLength : null,
            Quality = delivered ? made.Quality : null,
            Frame = [made.Plan.Crop.Left, made.Plan.Crop.Top, made.Plan.Crop.Right, made.Plan.Crop.Bottom],
            Encodes = made.Encodes,
            Verdict = made.Verdict,
            Reasons = made.Reasons,
        };
    }

    private sealed record Job(Destination Destination, Slot Slot, string Picture, MadeVariant Made);
}
