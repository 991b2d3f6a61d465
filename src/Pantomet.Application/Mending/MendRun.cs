using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using Pantomet.Application.Sites;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Mending;
using Pantomet.Core.Reports;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;

namespace Pantomet.Application.Mending;

/// <summary>Lightens the pictures of a folder: in place with their originals kept, or into another folder.</summary>
/// <param name="folder">The folder.</param>
/// <param name="output">Where the lightened ones go; null to put them in place.</param>
/// <param name="keep">Where the originals of those in place are kept.</param>
/// <param name="rule">What they are lightened to.</param>
/// <param name="dry">True to touch nothing.</param>
/// <param name="jobs">How many pictures are worked on at once.</param>
/// <param name="tells">Told what became of each picture that was looked at, as soon as it is known.</param>
/// <param name="only">The paths that are looked at, from the folder's root; null for all.</param>
public sealed class MendRun(
    string folder,
    string? output,
    string? keep,
    MendRule rule,
    bool dry,
    int jobs,
    Action<MendedPicture>? tells = null,
    IReadOnlyList<string>? only = null
)
{
    /// <summary>What is said of a picture that an earlier run of the same rule looked at.</summary>
    public const string KnownAlready = "It was looked at before and has not changed since.";

    /// <summary>What is said of a file whose name is no UTF-8.</summary>
    internal const string NoUtf8 = "Its name is no UTF-8, so it cannot be opened by it; rename it.";

    // The disk is full (errno ENOSPC; Win32 ERROR_DISK_FULL).
    private const int NoSpace = 28;
    private const int DiskFull = 112;

    private static readonly string[] Endings = [".jpg", ".jpeg", ".jpe", ".png", ".webp", ".avif", ".jfif"];

    // Links are not followed: what they lead to may lie outside.
    private static readonly EnumerationOptions Walk = new()
    {
        RecurseSubdirectories = true,
        IgnoreInaccessible = true,
        AttributesToSkip = FileAttributes.ReparsePoint,
    };

    private readonly string _root = Path.GetFullPath(folder);
    private readonly KeptOriginals? _kept = keep is null ? null : new(Path.GetFullPath(keep));
    private readonly string _by = string.Create(
        CultureInfo.InvariantCulture,
        $"{rule.MaxSide}|{rule.MaxBytes?.Bytes}|{rule.Likeness}|{rule.AtLeast}"
    );

    /// <summary>What is wrong with the folders; null when nothing is.</summary>
    /// <param name="folder">The folder.</param>
    /// <param name="other">The one for originals or results; null where nothing is touched.</param>
    public static string? Fault(string folder, string? other)
    {
        var from = Path.GetFullPath(folder);
        var to = other is null ? null : Path.GetFullPath(other);
        return !Directory.Exists(from) ? $"{folder}: there is no such folder"
            : to is null ? null
            : File.Exists(to) ? $"{other}: this is a file, not a folder"
            : SiteFolder.IsInside(to, from) || SiteFolder.IsInside(from, to)
                ? "the folder and the one for originals or results must not lie in each other"
            : null;
    }

    /// <summary>Looks through the folder and lightens what is worth it.</summary>
    public async Task<RenderReport> ExecuteAsync(CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        var known = _kept?.Known() ?? [];
        var told = new ConcurrentBag<(ReportedSource Source, ReportedVariant? Variant)>();
        var room = new WorkRoom(jobs);
        await Parallel.ForEachAsync(
            only ?? Pictures(_root),
            new ParallelOptions { MaxDegreeOfParallelism = jobs, CancellationToken = cancel },
            async (path, stop) =>
            {
                var started = Stopwatch.GetTimestamp();
                var (source, variant) = await OneAsync(path, known, room, stop);
                tells?.Invoke(MendedPicture.Of(source, variant, Stopwatch.GetElapsedTime(started)));
                // Whoever is told one by one needs no report.
                if (tells is null)
                {
                    told.Add((source, variant));
                }
            }
        );
        var all = told.OrderBy(one => one.Source.File, StringComparer.Ordinal).ToList();
        return RenderReport.Of(
            [.. all.Select(one => one.Source)],
            [.. all.Select(one => one.Variant).OfType<ReportedVariant>()],
            clock.Elapsed
        );
    }

    /// <summary>Puts the kept originals back, byte for byte.</summary>
    /// <param name="folder">The folder.</param>
    /// <param name="keep">Where the originals are kept.</param>
    /// <param name="only">Which of them, from the folder's root; null for all.</param>
    /// <param name="tells">Told of each that was put back.</param>
    /// <param name="cancel">Stops between two.</param>
    /// <returns>How many were, and what was changed by somebody since and stays.</returns>
    public static (int Restored, IReadOnlyList<string> Changed) Restore(
        string folder,
        string keep,
        IReadOnlySet<string>? only = null,
        Action<string>? tells = null,
        CancellationToken cancel = default
    )
    {
        var kept = new KeptOriginals(Path.GetFullPath(keep));
        var known = kept.Known();
        var (restored, changed) = (0, new List<string>());
        foreach (var path in kept.Paths().Where(path => only?.Contains(path) != false).ToList())
        {
            cancel.ThrowIfCancellationRequested();
            var to = Path.Combine(Path.GetFullPath(folder), path);
            // Neither what was put there nor the original: somebody changed it.
            var there = new FileInfo(to);
            if (there.Exists && !(known.TryGetValue(path, out var mended) && IsSame(there, mended)) && !kept.Holds(path, to))
            {
                changed.Add(path);
                continue;
            }

            kept.PutBack(path, to);
            restored++;
            tells?.Invoke(path);
        }

        return (restored, changed);
    }

    /// <summary>The paths of a folder's pictures of types that are lightened, from its root. Links are not followed.</summary>
    /// <param name="root">The folder.</param>
    public static IEnumerable<string> Pictures(string root) =>
        Directory
            .EnumerateFiles(root, "*", Walk)
            .Where(path => Endings.Contains(Path.GetExtension(path), StringComparer.OrdinalIgnoreCase))
            .Select(path => Path.GetRelativePath(root, path));

    private async Task<(ReportedSource Source, ReportedVariant? Variant)> OneAsync(
        string path,
        Dictionary<string, MendedFile> known,
        WorkRoom room,
        CancellationToken cancel
    )
    {
        var file = new FileInfo(Path.Combine(_root, path));
        try
        {
            if (IsUnnamable(path, file))
            {
                return (new() { File = path, Error = NoUtf8 }, null);
            }

            // By time and size alone: of a library that was put right nothing is read again.
            if (known.TryGetValue(path, out var mended) && mended.By == _by && IsSame(file, mended))
            {
                return (new() { File = path, Bytes = file.Length }, Left(path, new(ReasonCodes.LightEnough, KnownAlready)));
            }

            // What another rule made lighter before is no original: that one is kept, and made lighter anew.
            var original = mended is not null && IsSame(file, mended) && _kept?.Has(path) == true ? _kept.At(path) : null;
            var read = PictureReader.ReadFacts(original ?? file.FullName);
            var variant =
                read.Facts is not { } facts ? null
                : MendRule.Beforehand(facts) is { } beforehand ? Left(path, beforehand)
                : await LightenAsync(path, file, original, facts, room, cancel);
            if (variant?.File is null)
            {
                CopyUnchanged(path, file);
            }

            return (read.Facts is { } told ? ReportedSource.Of(path, told) : new() { File = path, Error = read.Refusal }, variant);
        }
        catch (IOException fault) when ((fault.HResult & 0xFFFF) is NoSpace or DiskFull)
        {
            throw new IOException("The disk is full. What was put right so far stays, and the rest as it was.", fault);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return (new() { File = path, Error = $"It cannot be read or written: {fault.Message}" }, null);
        }
    }

    /// <summary>True for a file that cannot be opened by the name that it seems to have: its bytes are no UTF-8.</summary>
    internal static bool IsUnnamable(string path, FileInfo file) => path.Contains('\uFFFD', StringComparison.Ordinal) && !file.Exists;

    private async Task<ReportedVariant> LightenAsync(
        string path,
        FileInfo file,
        string? original,
        PictureFacts facts,
        WorkRoom room,
        CancellationToken cancel
    )
    {
        var picture = await PictureMaker.MakeAsync(original ?? file.FullName, [], null, [new(rule.SlotFor(facts), null)], room, cancel);
        if (picture.Facts is null)
        {
            return Left(path, new(ReasonCodes.Unreadable, picture.Refusal ?? "It cannot be read."), Verdict.Breaks);
        }

        var made = picture.Made[0][0];
        if (rule.NotTaken(facts.Bytes, made.File?.LongLength, made.Likeness?.Score) is { } reason)
        {
            Note(path, file);
            return Left(path, reason);
        }

        var now = new FileInfo(file.FullName);
        if (!now.Exists || now.Length != file.Length || now.LastWriteTimeUtc != file.LastWriteTimeUtc)
        {
            return Left(path, new(ReasonCodes.Waiting, "It was changed while it was looked at; it stays as it is now."));
        }

        if (!dry)
        {
            Put(path, file, isKept: original is not null, made.File!);
        }

        return ReportedVariant.Of(
            path,
            "mend",
            "mend",
            Density.One,
            made.Plan.Crop,
            new(path, made.Size, made.Format!.Value, made.File!.LongLength, made.Quality, made.Likeness?.Score, made.Likeness?.WorstTile),
            made.Encodes,
            made.Verdict,
            made.Reasons
        );
    }

    // The original is kept before its place is taken. What is written down of a file that never came is not what lies there, and looked at again.
    private void Put(string path, FileInfo file, bool isKept, byte[] content)
    {
        if (!isKept)
        {
            _kept?.Keep(path, file.FullName);
        }

        _kept?.Note(new(path, content.LongLength, file.LastWriteTimeUtc, _by));
        WholeFile.Put(
            output is null ? file.FullName : Path.Combine(Path.GetFullPath(output), path),
            file,
            part => File.WriteAllBytes(part, content)
        );
    }

    // Another folder gets every picture, so that it can stand in for the first.
    private void CopyUnchanged(string path, FileInfo file)
    {
        if (!dry && output is not null)
        {
            WholeFile.Copy(file.FullName, Path.Combine(Path.GetFullPath(output), path));
        }
    }

    private void Note(string path, FileInfo file)
    {
        if (!dry)
        {
            _kept?.Note(new(path, file.Length, file.LastWriteTimeUtc, _by));
        }
    }

    private static bool IsSame(FileInfo file, MendedFile known) => file.Length == known.Bytes && file.LastWriteTimeUtc == known.Changed;

    private static ReportedVariant Left(string path, Reason reason, Verdict verdict = Verdict.Skipped) =>
        ReportedVariant.Of(path, "mend", "mend", Density.One, default, null, 0, verdict, [reason]) with
        {
            Frame = null,
        };
}
