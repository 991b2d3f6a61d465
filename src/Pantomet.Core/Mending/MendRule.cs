using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Core.Weight;

namespace Pantomet.Core.Mending;

/// <summary>What the pictures of a library are lightened to, each under its own name and type.</summary>
public sealed record MendRule
{
    /// <summary>The likeness that is held where none is asked for: hard to see (docs/likeness.md).</summary>
    public const double UsualLikeness = 0.995;

    /// <summary>How far below that a limit of weight leads where no likeness is asked for: a slight difference.</summary>
    public const double LeastLikeness = 0.95;

    /// <summary>The share that must be saved where none is asked for.</summary>
    public const double UsualShare = 0.1;

    /// <summary>The types that are lightened.</summary>
    public static readonly IReadOnlyList<PictureFormat> Formats =
    [
        PictureFormat.Jpeg,
        PictureFormat.Png,
        PictureFormat.WebP,
        PictureFormat.Avif,
    ];

    /// <summary>The most pixels of the longer side; null leaves them all.</summary>
    public int? MaxSide { get; init; }

    /// <summary>The most a file may weigh; null for no limit.</summary>
    public ByteCount? MaxBytes { get; init; }

    /// <summary>
    /// How much a file must look like its picture at that size, 0 to 1; null asks for the usual, and for less where a file would weigh too much.
    /// </summary>
    public double? Likeness { get; init; }

    /// <summary>The share of its weight that a file must lose to be worth a change, 0 to 1.</summary>
    public double AtLeast { get; init; } = UsualShare;

    /// <summary>Why a picture is left alone before anything is tried; null where it is not.</summary>
    public static Reason? Beforehand(PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return !Formats.Contains(facts.Format) ? new(ReasonCodes.OtherType, FolderTexts.FilesAreNotMadeLighterThe(facts.Format.Label()))
            : facts.Frames > 1 ? new(ReasonCodes.FirstFrame, FolderTexts.TheOriginalIsAnAnimationOr)
            : null;
    }

    /// <summary>What a file of a picture is made by: whole, upright, in its own type and colours, tags kept but for the place.</summary>
    public Slot SlotFor(PictureFacts facts) => SlotFor(facts, Likeness ?? UsualLikeness, MaxBytes);

    /// <summary>
    /// The same once more, for a picture that is too heavy and of which no file that looks enough like it stays within the limit: as light as the
    /// least likeness allows. Null where that is not to be tried.
    /// </summary>
    /// <param name="facts">The picture's facts.</param>
    /// <param name="bytes">What the file weighs that was made first; null where none could be made.</param>
    /// <param name="likeness">Its likeness, 0 to 1.</param>
    public Slot? LastResortFor(PictureFacts facts, long? bytes, double? likeness)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return IsTooHeavy(facts.Bytes) && (IsTooHeavy(bytes ?? long.MaxValue) || likeness < LeastLikeness)
            ? SlotFor(facts, LeastLikeness, null)
            : null;
    }

    /// <summary>Why a file that was made does not take its picture's place; null where it does.</summary>
    /// <param name="before">The picture's weight in bytes.</param>
    /// <param name="bytes">The file's weight in bytes; null where none could be made.</param>
    /// <param name="likeness">The file's likeness, 0 to 1.</param>
    public Reason? NotTaken(long before, long? bytes, double? likeness)
    {
        if (bytes is not { } after)
        {
            return new(ReasonCodes.Unreadable, FolderTexts.NoLighterFileCouldBeMade);
        }

        var wanted = Likeness ?? (IsTooHeavy(before) ? LeastLikeness : UsualLikeness);
        // Where only a limit is asked for, staying within it is worth any change.
        var most = IsTooHeavy(before) && !IsTooHeavy(after) ? before : before * (1 - AtLeast);
        return likeness < wanted
                ? new(
                    ReasonCodes.Likeness,
                    FolderTexts.AFileThatIsLightEnough(Figures.Number(likeness.Value, 3), Figures.Number(wanted, 3))
                )
            : after > most
                ? new(ReasonCodes.LightEnough, FolderTexts.TheFileIsLightEnoughInstead(Figures.Weight(after), Figures.Weight(before)))
            : null;
    }

    /// <summary>True where only a limit of weight is asked for: likeness gives way to it, and is not missed then.</summary>
    public bool LimitRules => Likeness is null && MaxBytes is not null;

    /// <summary>What must be said of a file that took its picture's place where the limit rules; null where it is within.</summary>
    /// <param name="bytes">The file's weight in bytes.</param>
    public Reason? OverLimit(long bytes) =>
        IsTooHeavy(bytes)
            ? new(
                ReasonCodes.OverWeight,
                FolderTexts.OverTheLimitAtTheLeastLikeness(
                    Figures.Weight(bytes),
                    MaxBytes!.Value.ToString(),
                    Figures.Number(LeastLikeness, 2)
                )
            )
            : null;

    // Only a limit is asked for, and this is beyond it.
    private bool IsTooHeavy(long bytes) => LimitRules && bytes > MaxBytes!.Value.Bytes;

    private Slot SlotFor(PictureFacts facts, double likeness, ByteCount? limit)
    {
        ArgumentNullException.ThrowIfNull(facts);
        var side = Math.Min(MaxSide ?? Rounding.LongestSide, facts.Size.LongSide);
        return new()
        {
            Key = "mend",
            Name = "mend",
            Size = new SizeRule.Within(new(side, side)),
            Fit = Fit.Whole,
            Types = [new(facts.Format)],
            Limits = new() { MaxBytes = limit },
            // As fine as the likeness needs; what the original has lost already is not asked for.
            Aims = new() { Likeness = likeness, Quality = new(QualityRange.Unusable, QualityRange.Highest) },
            // What keeps its pixels must keep their edges too.
            Sharpen = side < facts.Size.LongSide ? Sharpening.Mild : Sharpening.Off,
            Profile = ProfileRule.Keep,
            Metadata = MetadataRule.Keep,
        };
    }
}
