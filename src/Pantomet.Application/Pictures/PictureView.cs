using Pantomet.Core.Facts;
using Pantomet.Data.Pictures;

namespace Pantomet.Application.Pictures;

/// <summary>A picture as the client sees it.</summary>
/// <param name="Id">Identity in addresses.</param>
/// <param name="Name">The file name as it arrived.</param>
/// <param name="AddedAt">When it was added, UTC.</param>
/// <param name="Width">Pixels across, as displayed.</param>
/// <param name="Height">Pixels down, as displayed.</param>
/// <param name="Bytes">Weight.</param>
/// <param name="Format">jpeg, png ...</param>
/// <param name="FormatLabel">JPEG, PNG ...</param>
/// <param name="HasAlpha">Whether it has transparency.</param>
/// <param name="Frames">Frames or pages.</param>
/// <param name="Orientation">Orientation tag as stored, 1 to 8.</param>
/// <param name="Profile">Name of the embedded colour profile.</param>
/// <param name="Colours">RGB, grey or CMYK.</param>
/// <param name="Bits">Bits for each channel.</param>
/// <param name="Ppi">Resolution tag.</param>
/// <param name="HasLocation">Whether the file tells where it was taken.</param>
/// <param name="JpegQuality">The quality a JPEG was written at, estimated from its tables.</param>
/// <param name="Kind">Photograph or flat graphic, by content.</param>
/// <param name="NeedsLight">Whether it has so much fine bright detail that it is reduced in light.</param>
/// <param name="Revision">Which of its originals this is, from 1.</param>
/// <param name="Shown">Changes whenever its pixels do: a part of preview addresses.</param>
/// <param name="Misnamed">Whether the name's ending says another type than the content.</param>
public sealed record PictureView(
    Guid Id,
    string Name,
    DateTime AddedAt,
    int Width,
    int Height,
    long Bytes,
    string Format,
    string FormatLabel,
    bool HasAlpha,
    int Frames,
    int Orientation,
    string? Profile,
    string Colours,
    int Bits,
    double? Ppi,
    bool HasLocation,
    int? JpegQuality,
    PictureKind? Kind,
    bool NeedsLight,
    int Revision,
    string Shown,
    bool Misnamed
)
{
    /// <summary>The view of a row.</summary>
    public static PictureView Of(PictureRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new(
            row.Id,
            row.Name,
            DateTime.SpecifyKind(row.AddedAt, DateTimeKind.Utc),
            row.Width,
            row.Height,
            row.Bytes,
            row.Format.Word(),
            row.Format.Label(),
            row.HasAlpha,
            row.Frames,
            row.Orientation,
            row.Profile,
            row.Colours,
            row.Bits,
            row.Ppi,
            row.HasLocation,
            row.JpegQuality,
            row.Kind,
            row.Facts.NeedsLight,
            row.Revision,
            row.ContentHash[..12],
            PictureFormats.IsMisnamed(row.Name, row.Format)
        );
    }
}

/// <summary>The picture that was added.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="AlreadyHere">True when the very same file was in the library before.</param>
public sealed record Intake(PictureView Picture, bool AlreadyHere);

/// <summary>One original that a picture has or had.</summary>
/// <param name="Number">1 for the first.</param>
/// <param name="Name">The file name as it arrived.</param>
/// <param name="AddedAt">When it was added, UTC.</param>
/// <param name="Current">True for the one in use.</param>
public sealed record RevisionView(int Number, string Name, DateTime AddedAt, bool Current);

/// <summary>A picture that was removed.</summary>
/// <param name="Picture">The picture.</param>
/// <param name="Until">When it goes for good, UTC.</param>
public sealed record RemovedPicture(PictureView Picture, DateTime Until);
