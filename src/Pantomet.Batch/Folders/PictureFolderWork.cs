using System.Diagnostics;
using System.Text.Json.Serialization;
using Pantomet.Application.Background;
using Pantomet.Batch.Mending;
using Pantomet.Core.Mending;
using Pantomet.Core.Texts;
using Pantomet.Core.Weight;
using Pantomet.Imaging.Reading;
using Pantomet.Platform;

namespace Pantomet.Batch.Folders;

/// <summary>What is done with a folder of pictures.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<PictureFolderStep>))]
public enum PictureFolderStep
{
    /// <summary>It is scanned.</summary>
    Look,

    /// <summary>Some pictures are made, and nothing is touched.</summary>
    Try,

    /// <summary>It is optimised.</summary>
    Mend,

    /// <summary>Originals are restored.</summary>
    Restore,
}

/// <summary>What pictures of a folder are lightened to, as people write it.</summary>
/// <param name="MaxSide">The most pixels of the longer side; null leaves them all.</param>
/// <param name="MaxBytes">The most a file may weigh, in bytes; null for no limit.</param>
/// <param name="Likeness">How much a file must look like its picture, 0 to 1; null for the usual, or less where the weight asks for it.</param>
/// <param name="AtLeast">The share of its weight that a file must lose to be worth a change, 0 to 1.</param>
public sealed record PictureFolderRule(
    int? MaxSide = null,
    long? MaxBytes = null,
    double? Likeness = null,
    double AtLeast = MendRule.UsualShare
)
{
    /// <summary>The rule that it means.</summary>
    public MendRule ToRule() =>
        new()
        {
            MaxSide = MaxSide,
            MaxBytes = MaxBytes is { } bytes ? new ByteCount(bytes) : null,
            Likeness = Likeness,
            AtLeast = AtLeast,
        };

    /// <summary>What is wrong with it: a sentence; null when nothing is.</summary>
    public string? Fault() =>
        MaxSide is < 16 or > 65_535 ? FolderTexts.TheLongerSideMustBeFrom
        : MaxBytes is < 1_000 ? FolderTexts.TheWeightAtMostMustBe
        : Likeness is not (null or (>= 0.5 and <= 1)) ? FolderTexts.TheLikenessMustBeFromTo
        : AtLeast is not (>= 0 and < 1) ? FolderTexts.TheShareMustBeFromTo
        : null;
}

/// <summary>What is asked of a process that puts a folder of pictures right.</summary>
/// <param name="Step">What is done.</param>
/// <param name="Folder">The folder.</param>
/// <param name="Work">Where lists and originals are kept.</param>
/// <param name="Rule">What pictures are lightened to.</param>
/// <param name="Paths">Which originals are restored; null for all.</param>
/// <param name="Jobs">How many pictures are worked on at once.</param>
public sealed record PictureFolderOrder(
    PictureFolderStep Step,
    string Folder,
    string Work,
    PictureFolderRule Rule,
    IReadOnlyList<string>? Paths,
    int Jobs
);

/// <summary>How far it is.</summary>
/// <param name="Done">How many pictures.</param>
/// <param name="Of">Of how many.</param>
/// <param name="Bytes">What those weigh that were looked at by this run.</param>
/// <param name="OfBytes">What all of this run weigh.</param>
/// <param name="Saved">What this run saved, in bytes.</param>
/// <param name="Seconds">How long it has been at it.</param>
public sealed record PictureFolderProgress(int Done, int Of, long Bytes, long OfBytes, long Saved, double Seconds)
{
    /// <summary>How much longer it takes at this pace, in seconds; null until enough is done to tell.</summary>
    public double? Left => Bytes > 0 && Seconds >= 5 && Done >= 5 ? Math.Max(0, Seconds * (OfBytes - Bytes) / Bytes) : null;
}

/// <summary>Puts a folder of pictures right, step by step, in a process of its own.</summary>
public static class PictureFolderWork
{
    /// <summary>What the process is called with.</summary>
    public const string Call = "folder-work";

    private const double Pause = 0.3;

    /// <summary>Does what is asked.</summary>
    /// <returns>Why it could not: a sentence; null when it did.</returns>
    public static async Task<string?> DoAsync(PictureFolderOrder order, Action<PictureFolderProgress> tells, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(order);
        var lists = new PictureFolderLists(order.Work);
        Directory.CreateDirectory(order.Work);
        FolderHandle folder;
        try
        {
            folder = FolderHandle.Open(order.Folder);
        }
        catch (LinkedPathException)
        {
            return FolderTexts.ThePathNowContainsALink(order.Folder);
        }
        catch (IOException fault)
        {
            return FolderTexts.TheFolderNoLongerExists(order.Folder, fault.Message);
        }

        using (folder)
        {
            switch (order.Step)
            {
                case PictureFolderStep.Look:
                    Look(folder, lists, tells, cancel);
                    return null;
                case PictureFolderStep.Try:
                    await TryAsync(folder, order, lists, tells, cancel);
                    return null;
                case PictureFolderStep.Mend:
                    await MendAsync(folder, order, lists, tells, cancel);
                    return null;
                default:
                    return Restore(folder, order, lists, tells, cancel);
            }
        }
    }

    // Headers only: nothing of a picture is decoded, and nothing is held but the figures.
    private static void Look(FolderHandle folder, PictureFolderLists lists, Action<PictureFolderProgress> tells, CancellationToken cancel)
    {
        var of = 0;
        foreach (var _ in FolderOptimisation.Pictures(folder))
        {
            cancel.ThrowIfCancellationRequested();
            of++;
        }

        tells(new(0, of, 0, of, 0, 0));
        var (figures, counting) = (new PictureFolderFigures(), new Counting(tells, of, of));
        using (var list = lists.Pictures.Begin())
        {
            foreach (var path in FolderOptimisation.Pictures(folder))
            {
                cancel.ThrowIfCancellationRequested();
                var one = Seen(folder, path);
                figures = figures.With(one);
                list.Add(one);
                counting.Add(1, 0);
            }
        }

        lists.WriteFigures(figures);
    }

    private static SurveyedPicture Seen(FolderHandle folder, string path)
    {
        try
        {
            using var file = folder.OpenFile(path);
            var read = PictureReader.ReadFacts(file.Path);
            return read.Facts is { } facts
                ? SurveyedPicture.Of(path, facts)
                : SurveyedPicture.Unread(path, file.Facts.Bytes, read.Refusal ?? FolderTexts.TheFileCannotBeRead);
        }
        catch (FileNotFoundException) when (FolderOptimisation.IsUnnamable(path))
        {
            return SurveyedPicture.Unread(path, 0, FolderOptimisation.NoUtf8);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return SurveyedPicture.Unread(path, 0, FolderTexts.ThePageCannotBeRead(fault.Message));
        }
    }

    private static async Task TryAsync(
        FolderHandle folder,
        PictureFolderOrder order,
        PictureFolderLists lists,
        Action<PictureFolderProgress> tells,
        CancellationToken cancel
    )
    {
        var can = lists.Pictures.Read().Where(one => one.CanBeMended).Select(one => (one.Path, one.Bytes)).ToList();
        var drawn = OptimisationForecast.Drawn([.. can.Select(one => one.Bytes)]).Select(i => can[i]).ToList();
        var counting = new Counting(tells, drawn.Count, drawn.Sum(one => one.Bytes));
        var tried = new List<MendedPicture>();
        lists.ForgetTrial();
        await new FolderOptimisation(
            folder,
            lists.Tried,
            null,
            order.Rule.ToRule(),
            dry: false,
            order.Jobs,
            one =>
            {
                lock (tried)
                {
                    tried.Add(one);
                }

                counting.Add(one.Before ?? 0, Saved(one));
            },
            [.. drawn.Select(one => one.Path)],
            copies: false
        ).ExecuteAsync(cancel);
        lists.WriteTrial(
            new(
                OptimisationForecast.Of(
                    [
                        .. tried
                            .Where(one => one.Before is not null)
                            .Select(one => new TriedPicture(one.Before!.Value, one.After ?? one.Before!.Value, one.Seconds)),
                    ],
                    can.Sum(one => one.Bytes),
                    drawn.Count == can.Count,
                    order.Jobs
                ),
                order.Rule,
                [.. tried.OrderByDescending(one => one.Before)]
            )
        );
    }

    // What an earlier run of the same rule put right is known by its time and size, and neither read nor told again.
    private static async Task MendAsync(
        FolderHandle folder,
        PictureFolderOrder order,
        PictureFolderLists lists,
        Action<PictureFolderProgress> tells,
        CancellationToken cancel
    )
    {
        var of = lists
            .Pictures.Read()
            .Select(one => one.Bytes)
            .Aggregate((Count: 0, Bytes: 0L), (sum, bytes) => (sum.Count + 1, sum.Bytes + bytes));
        var counting = new Counting(tells, of.Count, of.Bytes);
        using var list = lists.Results.Append();
        await new FolderOptimisation(
            folder,
            null,
            lists.Kept,
            order.Rule.ToRule(),
            dry: false,
            order.Jobs,
            one =>
            {
                // It takes no time, and is no measure of the pace.
                if (one.Sentence == FolderOptimisation.KnownAlready)
                {
                    counting.Skip(one.Before ?? 0);
                    return;
                }

                list.Add(one);
                counting.Add(one.Before ?? 0, Saved(one));
            }
        ).ExecuteAsync(cancel);
    }

    private static string? Restore(
        FolderHandle folder,
        PictureFolderOrder order,
        PictureFolderLists lists,
        Action<PictureFolderProgress> tells,
        CancellationToken cancel
    )
    {
        if (!Directory.Exists(lists.Kept))
        {
            return FolderTexts.NoOriginalsAreKept;
        }

        var only = order.Paths?.ToHashSet(StringComparer.Ordinal);
        var counting = new Counting(tells, only?.Count ?? lists.KeptCount(), 0);
        using var list = lists.Results.Append();
        var (_, changed) = FolderOptimisation.Restore(
            folder,
            lists.Kept,
            only,
            path =>
            {
                list.Add(new(path, null, null, null, PictureFolderLists.PutBack, FolderTexts.TheOriginalWasRestored, 0));
                counting.Add(0, 0);
            },
            cancel
        );
        return changed.Count == 0
            ? null
            : FolderTexts.ChangedSinceSuchAsTheyStay(
                changed.Count,
                (changed.Count == 1 ? FolderTexts.PictureWas : FolderTexts.PicturesWere),
                changed[0]
            );
    }

    private static long Saved(MendedPicture one) => one.After is { } after ? one.Before!.Value - after : 0;

    // Told now and then: ten thousand lines a second help nobody.
    private sealed class Counting(Action<PictureFolderProgress> tells, int of, long ofBytes)
    {
        private readonly Stopwatch _clock = Stopwatch.StartNew();
        private readonly Lock _gate = new();
        private int _done;
        private long _bytes;
        private long _ofBytes = ofBytes;
        private long _saved;
        private double _told = -1;

        public void Add(long bytes, long saved)
        {
            lock (_gate)
            {
                (_done, _bytes, _saved) = (_done + 1, _bytes + bytes, _saved + saved);
                Tell();
            }
        }

        public void Skip(long bytes)
        {
            lock (_gate)
            {
                (_done, _ofBytes) = (_done + 1, Math.Max(0, _ofBytes - bytes));
                Tell();
            }
        }

        private void Tell()
        {
            var now = _clock.Elapsed.TotalSeconds;
            if (now - _told > Pause || _done == of)
            {
                _told = now;
                tells(new(_done, of, _bytes, _ofBytes, _saved, Math.Round(now, 2)));
            }
        }
    }
}
