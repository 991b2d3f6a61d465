using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Weight;

namespace Pantomet.Core.Mending;

/// <summary>
/// What an original of the library is fixed to: always upright and without the place where it was taken; of another type, smaller, or on a
/// background where something shows through, if that is asked for. What comes of it is a newer original; the first one stays.
/// </summary>
public sealed record OriginalFixRule
{
    /// <summary>
    /// How much it must look like the original: no difference at 100 % (docs/likeness.md), as everything later is made of it.
    /// </summary>
    public const double Likeness = 0.998;

    /// <summary>The most pixels of the longer side; null leaves them all.</summary>
    public int? MaxSide { get; init; }

    /// <summary>The type; null for its own, and for JPEG or PNG where nothing of its own type is written.</summary>
    public PictureFormat? Format { get; init; }

    /// <summary>The colour that fills transparent parts; null keeps them transparent where the type can.</summary>
    public Rgb? Background { get; init; }

    /// <summary>What is wrong with it: a sentence; null when nothing is.</summary>
    public string? Fault() =>
        MaxSide is < 16 or > Rounding.LongestSide ? FolderTexts.TheLongerSideMustBeFrom
        : Format is { } format && !MendRule.Formats.Contains(format) ? FolderTexts.AnOriginalIsSavedAsJPEG
        : Background is not null && Format is not (null or PictureFormat.Jpeg) ? FolderTexts.WithABackgroundAnOriginalIs
        : null;

    /// <summary>Why there is nothing to put right: a sentence; null where there is.</summary>
    public string? Nothing(PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return facts.Format == PictureFormat.Svg ? FolderTexts.ADrawingHasNoPixelsTo
            : facts.Frames > 1 ? FolderTexts.TheOriginalIsAnAnimationOr
            : facts.Orientation == 1
            && !facts.HasLocation
            && !(facts.Size.LongSide > MaxSide)
            && FormatFor(facts) == facts.Format
            && !(Background is not null && facts.HasAlpha)
                ? FolderTexts.TheOriginalIsAlreadyLikeThis
            : null;
    }

    /// <summary>The type that a picture becomes.</summary>
    public PictureFormat FormatFor(PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return Format
            ?? (
                Background is not null && facts.HasAlpha ? PictureFormat.Jpeg
                : MendRule.Formats.Contains(facts.Format) ? facts.Format
                : facts.HasAlpha ? PictureFormat.Png
                : PictureFormat.Jpeg
            );
    }

    /// <summary>What the newer original is made by: whole and upright, as fine as its original.</summary>
    public Slot SlotFor(PictureFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        var slot = new MendRule { MaxSide = MaxSide, Likeness = Likeness }.SlotFor(facts);
        return slot with
        {
            Key = "put-right",
            Name = "put-right",
            Types = [new(FormatFor(facts))],
            Aims = slot.Aims with { Quality = new(QualityRange.Comfortable.Floor, QualityRange.Highest) },
            Background = Background is { } background ? new(background) : null,
        };
    }
}
