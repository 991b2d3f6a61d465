using System.Buffers.Binary;
using System.Diagnostics;
using System.Globalization;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Imaging.Objects;
using Pantomet.Imaging.Reading;

namespace Pantomet.Bench;

/// <summary>How well subjects are found, against boxes that were drawn by eye.</summary>
internal static class Subjects
{
    // A subject is whole in a crop that shows so much of its box.
    private const double Whole = 0.97;

    private static readonly double[] Shapes = [2, 1, 2.0 / 3, 1.25, 1.91, 2.7];

    private sealed record Boxed(string Name, string Path, Frame? Subject);

    private sealed class Tally
    {
        public int Pictures { get; set; }
        public int Could { get; set; }
        public int Held { get; set; }
        public int Crops { get; set; }
        public int Asked { get; set; }
        public int Wrong { get; set; }
        public int WrongUnasked { get; set; }
        public double Overlap { get; set; }
        public double Kept { get; set; }
        public double Milliseconds { get; set; }

        public override string ToString() =>
            string.Create(
                CultureInfo.InvariantCulture,
                $"{Pictures} | {Held} of {Could}, {100.0 * Held / Could:F1} % | {Kept / Could:F3} | {Overlap / Pictures:F2} | "
                    + $"{Asked} of {Crops} | {WrongUnasked} of {Wrong} | {Milliseconds / Pictures:F0} ms"
            );
    }

    public static void Run(string table, string resources, string[] folders, TextWriter output)
    {
        var pictures = Read(table, resources, folders);
        var (all, demo, middle) = (new Tally(), new Tally(), new Tally());
        var missed = new List<string>();
        var none = new List<string>();
        _ = ObjectNetwork.Instance;
        foreach (var picture in pictures)
        {
            var read = PictureReader.ReadWhole(picture.Path).Facts!;
            var clock = Stopwatch.StartNew();
            var facts = SubjectDetector.Sought(picture.Path, read);
            var took = clock.Elapsed.TotalMilliseconds;
            if (picture.Subject is not { } subject)
            {
                var asks = facts.Suggestion is { } seen ? Shapes.Count(one => !seen.NeedsNoReview(FrameOf(facts.Size, one, seen))) : 0;
                none.Add($"| {picture.Name} | {Words(facts.Suggestion)}, asks in {asks} of {Shapes.Length} |");
                continue;
            }

            List<Tally> tallies = picture.Name.StartsWith("demo/", StringComparison.Ordinal) ? [all, demo] : [all];
            var faults = new List<string>();
            foreach (var tally in tallies)
            {
                tally.Pictures++;
                tally.Milliseconds += took;
                tally.Overlap += facts.Suggestion is { } found ? Overlap(found.Box, subject) : 0;
            }

            middle.Pictures++;
            foreach (var shape in Shapes)
            {
                Count(tallies, faults, facts.Size, shape, facts.Suggestion, subject);
                Count([middle], [], facts.Size, shape, null, subject);
            }

            if (faults.Count > 0)
            {
                missed.Add($"| {picture.Name} | {Words(facts.Suggestion)} | {string.Join(", ", faults)} |");
            }
        }

        output.WriteLine(
            "| how | pictures | whole, of those that could hold it | share kept | overlap (IoU) | crops that ask for a look "
                + "| wrong ones that do not ask | looking |\n|---|---|---|---|---|---|---|---|"
        );
        output.WriteLine($"| now, all | {all} |\n| now, the demo's | {demo} |\n| the middle | {middle} |");
        output.WriteLine("\n## Missed\n\n| picture | found as, confidence | shape: share of the subject kept |\n|---|---|---|");
        missed.ForEach(output.WriteLine);
        output.WriteLine("\n## Without a subject\n\n| picture | what is found all the same, and its confidence |\n|---|---|");
        none.ForEach(output.WriteLine);
    }

    /// <summary>What each network says of each picture, a line for each.</summary>
    public static void Say(string table, string resources, string[] folders, TextWriter output)
    {
        foreach (var picture in Read(table, resources, folders))
        {
            var thumb = SubjectDetector.ThumbOf(picture.Path);
            var clock = Stopwatch.StartNew();
            var faces = FaceNetwork.Find(thumb);
            var after = clock.ElapsedMilliseconds;
            var things = ThingNetwork.Find(thumb);
            var last = clock.ElapsedMilliseconds;
            var found = SubjectDetector.Sought(picture.Path, PictureReader.ReadWhole(picture.Path).Facts!).Suggestion;
            output.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{picture.Name}\t{thumb.Width}x{thumb.Height}\t{Text(picture.Subject)}\t{Words(found)} {Text(found?.Box)} {Text(found?.Strongest)}\t"
                        + $"{string.Join(" ", faces.Take(5).Select(Text))}\t{string.Join(" ", things.Take(6).Select(Text))}\t{after} {last - after}"
                )
            );
        }
    }

    private static string Text(Detection one) => string.Create(CultureInfo.InvariantCulture, $"{one.Score:F2}:{Text(one.Box)}");

    private static string Text(Frame? box) =>
        box is { } at ? string.Create(CultureInfo.InvariantCulture, $"[{at.Left:F3},{at.Top:F3},{at.Right:F3},{at.Bottom:F3}]") : "-";

    private static string Words(Suggestion? found) =>
        found is { } at ? string.Create(CultureInfo.InvariantCulture, $"{at.Kind}, {at.Confidence:F2}") : "none";

    private static void Count(List<Tally> tallies, List<string> faults, PixelSize size, double shape, Suggestion? found, Frame subject)
    {
        var frame = FrameOf(size, shape, found);
        var kept = frame.Shared(subject) / subject.Area;
        var could =
            subject.Right - subject.Left <= frame.Right - frame.Left + 1e-6
            && subject.Bottom - subject.Top <= frame.Bottom - frame.Top + 1e-6;
        var asks = found?.NeedsNoReview(frame) == false;
        foreach (var tally in tallies)
        {
            tally.Crops++;
            tally.Asked += asks ? 1 : 0;
            tally.Wrong += kept < Whole ? 1 : 0;
            tally.WrongUnasked += kept < Whole && !asks ? 1 : 0;
            tally.Could += could ? 1 : 0;
            tally.Held += could && kept >= Whole ? 1 : 0;
            tally.Kept += could ? kept : 0;
        }

        if (could && kept < Whole)
        {
            faults.Add(string.Create(CultureInfo.InvariantCulture, $"{shape:F2}: {kept:F2}"));
        }
    }

    private static Frame FrameOf(PixelSize size, double shape, Suggestion? found)
    {
        var ratio = Ratio.TryParse(shape.ToString("R", CultureInfo.InvariantCulture), out var parsed, out var error)
            ? parsed
            : throw new ArgumentException(error);
        var region = FrameSolver.Solve(size, ratio, null, Subject.Of([], null, found)).Region;
        Frame.TryCreate(
            Math.Max(0, region.X / size.Width),
            Math.Max(0, region.Y / size.Height),
            Math.Min(1, region.Right / size.Width),
            Math.Min(1, region.Bottom / size.Height),
            out var frame,
            out _
        );
        return frame;
    }

    private static double Overlap(Frame one, Frame other) => one.Shared(other) / (one.Area + other.Area - one.Shared(other));

    private static List<Boxed> Read(string table, string resources, string[] folders) =>
        [
            .. File.ReadLines(table)
                .Skip(1)
                .Select(line =>
                {
                    var cells = line.Split(',');
                    var edges = cells[1..]
                        .Where(cell => cell.Length > 0)
                        .Select(cell => double.Parse(cell, CultureInfo.InvariantCulture))
                        .ToArray();
                    Frame? box =
                        edges is [var left, var top, var right, var bottom]
                        && Frame.TryCreate(left, top, right, bottom, out var frame, out _)
                            ? frame
                            : null;
                    return new Boxed(cells[0], PathOf(cells[0], resources, folders), box);
                }),
        ];

    // A file's name, that of a theme whose largest picture is meant, or the number of a WebP file inside a resource file.
    private static string PathOf(string name, string resources, string[] folders)
    {
        if (name.Split('/') is [var file, var number] && file.EndsWith(".rcc", StringComparison.Ordinal))
        {
            return Carved(Path.Combine(resources, file), int.Parse(number, CultureInfo.InvariantCulture));
        }

        var plain = Path.GetFileName(name);
        foreach (var folder in folders)
        {
            if (File.Exists(Path.Combine(folder, plain)))
            {
                return Path.Combine(folder, plain);
            }

            var theme = Path.Combine(folder, Path.GetFileNameWithoutExtension(plain), "contents", "images");
            if (Directory.Exists(theme))
            {
                return new DirectoryInfo(theme).GetFiles().Where(one => one.LinkTarget is null).MaxBy(one => one.Length)!.FullName;
            }
        }

        throw new FileNotFoundException(name);
    }

    // RIFF's length stands after its four letters (RFC 9649, 2.3).
    private static string Carved(string resource, int number)
    {
        var path = $"{resource}-{number}.webp";
        if (!File.Exists(path))
        {
            var bytes = File.ReadAllBytes(resource).AsSpan();
            var at = 0;
            for (var i = 0; ; i++)
            {
                at += bytes[at..].IndexOf("RIFF"u8);
                while (!bytes.Slice(at + 8, 4).SequenceEqual("WEBP"u8))
                {
                    at += 4 + bytes[(at + 4)..].IndexOf("RIFF"u8);
                }

                var length = 8 + (int)BinaryPrimitives.ReadUInt32LittleEndian(bytes[(at + 4)..]);
                if (i == number)
                {
                    File.WriteAllBytes(path, bytes.Slice(at, length));
                    break;
                }

                at += length;
            }
        }

        return path;
    }
}
