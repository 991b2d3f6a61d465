using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using Pantomet.Application.Background;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Mending;
using Pantomet.Core.Reports;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;
using Pantomet.Platform;

namespace Pantomet.Batch.Mending;

/// <summary>Lightens the pictures of a folder: in place with their originals kept, or into another folder.</summary>
/// <param name="folder">The folder, held: what takes its path meanwhile is not touched.</param>
/// <param name="output">Where the lightened ones go; null to put them in place.</param>
/// <param name="keep">Where the originals of those in place are kept.</param>
/// <param name="rule">What they are lightened to.</param>
/// <param name="dry">True to touch nothing.</param>
/// <param name="jobs">How many pictures are worked on at once.</param>
/// <param name="tells">Told what became of each picture that was looked at, as soon as it is known.</param>
/// <param name="only">The paths that are looked at, from the folder's root; null for all.</param>
/// <param name="copies">True where another folder gets a copy also of each picture that is not lightened, so that it can stand in for the first.</param>
public sealed class FolderOptimisation(
    FolderHandle folder,
    string? output,
    string? keep,
    MendRule rule,
    bool dry,
    int jobs,
    Action<MendedPicture>? tells = null,
    IReadOnlyList<string>? only = null,
    bool copies = true
)
{
    /// <summary>What is said of a picture that an earlier run of the same rule looked at.</summary>
    public const string KnownAlready = FolderTexts.ProcessedBeforeAndNotChangedSince;

    /// <summary>What is said of a file whose name is no UTF-8.</summary>
    internal const string NoUtf8 = FolderTexts.TheFileNameIsNotUTF;

    // The disk is full (errno ENOSPC; Win32 ERROR_DISK_FULL).
    private const int NoSpace = 28;
    private const int DiskFull = 112;

    private static readonly string[] Endings = [".jpg", ".jpeg", ".jpe", ".png", ".webp", ".avif", ".jfif"];

    private readonly KeptOriginals? _kept = keep is null ? null : new(Path.GetFullPath(keep));
    private FolderHandle? _output;
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
        return !Directory.Exists(from) ? FolderTexts.TheFolderDoesNotExist(folder)
            : to is null ? null
            : File.Exists(to) ? FolderTexts.ThisIsAFileNotA(other)
            : RealPath.IsInside(RealPath.Of(to), RealPath.Of(from)) || RealPath.IsInside(RealPath.Of(from), RealPath.Of(to))
                ? FolderTexts.TheFolderOfThePicturesAnd
            : null;
    }

    /// <summary>Looks through the folder and lightens what is worth it.</summary>
    public async Task<RenderReport> ExecuteAsync(CancellationToken cancel)
    {
        var clock = Stopwatch.StartNew();
        using var kept = _kept;
        using var into = output is null || dry ? null : FolderHandle.OpenNamed(output, create: true);
        _output = into;
        if (!dry)
        {
            PartFile.Sweep(into ?? folder);
        }

        var known = _kept?.Known() ?? [];
        var told = new ConcurrentBag<(ReportedSource Source, ReportedVariant? Variant)>();
        var room = new WorkRoom(jobs);
        await Parallel.ForEachAsync(
            only ?? Pictures(folder),
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
    /// <param name="folder">The folder, held.</param>
    /// <param name="keep">Where the originals are kept.</param>
    /// <param name="only">Which of them, from the folder's root; null for all.</param>
    /// <param name="tells">Told of each that was restored.</param>
    /// <param name="cancel">Stops between two.</param>
    /// <returns>How many were, and what was changed by somebody since and stays.</returns>
    public static (int Restored, IReadOnlyList<string> Changed) Restore(
        FolderHandle folder,
        string keep,
        IReadOnlySet<string>? only = null,
        Action<string>? tells = null,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(folder);
        using var kept = new KeptOriginals(Path.GetFullPath(keep));
        PartFile.Sweep(folder);
        var known = kept.Known();
        var (restored, changed) = (0, new List<string>());
        foreach (var path in kept.Paths().Where(path => only?.Contains(path) != false).ToList())
        {
            cancel.ThrowIfCancellationRequested();
            using var place = folder.Place(path, create: true);
            if (IsChanged(path, place, kept, known))
            {
                changed.Add(path);
                continue;
            }

            kept.PutBack(path, place);
            restored++;
            tells?.Invoke(path);
        }

        return (restored, changed);
    }

    /// <summary>The paths of a folder's pictures of types that are lightened, from its root. Links are not followed.</summary>
    /// <param name="folder">The folder.</param>
    public static IEnumerable<string> Pictures(FolderHandle folder)
    {
        ArgumentNullException.ThrowIfNull(folder);
        return folder.Files().Where(path => Endings.Contains(Path.GetExtension(path), StringComparer.OrdinalIgnoreCase));
    }

    // Neither what was put there nor the original: somebody changed it.
    private static bool IsChanged(string path, FilePlace place, KeptOriginals kept, Dictionary<string, MendedFile> known)
    {
        if (place.Facts() is not { } there || (known.TryGetValue(path, out var mended) && IsSame(there, mended)))
        {
            return false;
        }

        if (!there.IsRegular)
        {
            return true;
        }

        using var file = place.Open();
        return !kept.Holds(path, file);
    }

    private async Task<(ReportedSource Source, ReportedVariant? Variant)> OneAsync(
        string path,
        Dictionary<string, MendedFile> known,
        WorkRoom room,
        CancellationToken cancel
    )
    {
        try
        {
            using var place = folder.Place(path);
            using var file = place.Open();
            // By time and size alone: of a library that was optimised nothing is read again.
            if (known.TryGetValue(path, out var mended) && mended.By == _by && IsSame(file.Facts, mended))
            {
                return (new() { File = path, Bytes = file.Facts.Bytes }, Left(path, new(ReasonCodes.LightEnough, KnownAlready)));
            }

            // What another rule made lighter before is no original: that one is kept, and made lighter anew.
            using var original = mended is not null && IsSame(file.Facts, mended) ? _kept?.Open(path) : null;
            var read = PictureReader.ReadFacts((original ?? file).Path);
            var variant =
                read.Facts is not { } facts ? null
                : MendRule.Beforehand(facts) is { } beforehand ? Left(path, beforehand)
                : await LightenAsync(path, place, file, original, facts, room, cancel);
            if (variant?.File is null)
            {
                CopyUnchanged(path, file);
            }

            return (read.Facts is { } told ? ReportedSource.Of(path, told) : new() { File = path, Error = read.Refusal }, variant);
        }
        catch (FileNotFoundException) when (IsUnnamable(path))
        {
            return (new() { File = path, Error = NoUtf8 }, null);
        }
        catch (IOException fault) when ((fault.HResult & 0xFFFF) is NoSpace or DiskFull)
        {
            throw new IOException(FolderTexts.TheDiskIsFullThePictures, fault);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return (new() { File = path, Error = FolderTexts.TheFileCannotBeReadOr(fault.Message) }, null);
        }
    }

    /// <summary>True for a name that does not lead to its file: the bytes of that are no UTF-8.</summary>
    internal static bool IsUnnamable(string path) => path.Contains('\uFFFD', StringComparison.Ordinal);

    private async Task<ReportedVariant> LightenAsync(
        string path,
        FilePlace place,
        RegularFile file,
        RegularFile? original,
        PictureFacts facts,
        WorkRoom room,
        CancellationToken cancel
    )
    {
        async Task<MadePicture> MadeAsync(Slot slot) =>
            await PictureMaker.MakeAsync((original ?? file).Path, [], null, [new(slot, null)], room, cancel);
        var picture = await MadeAsync(rule.SlotFor(facts));
        if (picture.Facts is null)
        {
            return Left(path, new(ReasonCodes.Unreadable, picture.Refusal ?? FolderTexts.TheFileCannotBeRead), Verdict.Breaks);
        }

        var made = picture.Made[0][0];
        var encodes = made.Encodes;
        if (rule.LastResortFor(facts, made.File?.LongLength, made.Likeness?.Score) is { } last)
        {
            picture = await MadeAsync(last);
            made = picture.Facts is null ? made : picture.Made[0][0];
            encodes += made.Encodes;
        }

        if (rule.NotTaken(facts.Bytes, made.File?.LongLength, made.Likeness?.Score) is { } reason)
        {
            Note(path, file.Facts);
            return Left(path, reason);
        }

        // Its rights may be set meanwhile, and its name counted anew: what counts is what it holds.
        if (place.Facts() is not { } now || now.Identity != file.Facts.Identity || !IsAlike(now, file.Facts))
        {
            return Left(path, new(ReasonCodes.Waiting, FolderTexts.TheFileWasChangedWhileIt));
        }

        if (!dry)
        {
            Put(path, place, file, isKept: original is not null, made.File!);
        }

        var over = rule.OverLimit(made.File!.LongLength);
        return ReportedVariant.Of(
            path,
            "mend",
            "mend",
            Density.One,
            made.Plan.Crop,
            new(path, made.Size, made.Format!.Value, made.File!.LongLength, made.Quality, made.Likeness?.Score, made.Likeness?.WorstTile),
            encodes,
            !rule.LimitRules ? made.Verdict
                : over is null ? Verdict.Meets
                : Verdict.Concedes,
            rule.LimitRules ? new[] { over }.OfType<Reason>().ToList() : made.Reasons
        );
    }

    // The original is kept before its place is taken. What is written down of a file that never came is not what lies there, and looked at again.
    private void Put(string path, FilePlace place, RegularFile file, bool isKept, byte[] content)
    {
        place.MustBeStillThere();
        if (!isKept)
        {
            _kept?.Keep(path, file);
        }

        _kept?.Note(new(path, content.LongLength, file.Facts.Changed, _by));
        using var to = _output?.Place(path, create: true);
        WholeFile.Put(to ?? place, file.Facts, part => File.WriteAllBytes(part, content));
    }

    private void CopyUnchanged(string path, RegularFile file)
    {
        if (_output is not null && copies)
        {
            using var to = _output.Place(path, create: true);
            WholeFile.Copy(file, to);
        }
    }

    private void Note(string path, FileFacts file)
    {
        if (!dry)
        {
            _kept?.Note(new(path, file.Bytes, file.Changed, _by));
        }
    }

    private static bool IsAlike(FileFacts one, FileFacts other) => one.Bytes == other.Bytes && one.Changed == other.Changed;

    private static bool IsSame(FileFacts file, MendedFile known) => file.Bytes == known.Bytes && file.Changed == known.Changed;

    private static ReportedVariant Left(string path, Reason reason, Verdict verdict = Verdict.Skipped) =>
        ReportedVariant.Of(path, "mend", "mend", Density.One, default, null, 0, verdict, [reason]) with
        {
            Frame = null,
        };
}
