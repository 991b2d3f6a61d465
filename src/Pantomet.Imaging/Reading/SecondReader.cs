using ImageMagick;
using NetVips;
using Pantomet.Core.Facts;

namespace Pantomet.Imaging.Reading;

/// <summary>
/// Reads the types that the imaging library does not know - what phones send, what old programs and new ones write - and hands them on as
/// an upright PNG with profile and tags, in memory. Everything else then goes on as with any other picture.
/// </summary>
internal static class SecondReader
{
    private static readonly Lock Gate = new();
    private static readonly Lazy<bool> Ready = new(SetUp);

    // The last one, as long as there is memory for it: a picture is asked for several times in a row.
    private static (string Path, DateTime Written, WeakReference<byte[]> Png)? _last;

    /// <summary>The picture, upright, as the imaging library opens it.</summary>
    /// <param name="path">The file.</param>
    /// <param name="format">Its type; see <see cref="PictureFormats.IsOther"/>.</param>
    /// <param name="access">How its pixels will be asked for.</param>
    /// <exception cref="VipsException">It is damaged, or larger than what is read here.</exception>
    public static NetVips.Image Open(string path, PictureFormat format, Enums.Access access) =>
        NetVips.Image.PngloadBuffer(PngOf(path, format), access: access, failOn: Enums.FailOn.Truncated);

    private static byte[] PngOf(string path, PictureFormat format)
    {
        var written = File.GetLastWriteTimeUtc(path);
        lock (Gate)
        {
            if (_last is { } last && last.Path == path && last.Written == written && last.Png.TryGetTarget(out var known))
            {
                return known;
            }
        }

        var png = Read(path, format);
        lock (Gate)
        {
            _last = (path, written, new(png));
        }

        return png;
    }

    private static byte[] Read(string path, PictureFormat format)
    {
        Start();
        try
        {
            // A stream, not a name: names may mean more than a file to it.
            using var file = File.OpenRead(path);
            using var image = new MagickImage(
                file,
                new MagickReadSettings
                {
                    // The type is known: no other coder is asked, whatever the name says.
                    Format = format switch
                    {
                        PictureFormat.Heic => MagickFormat.Heic,
                        PictureFormat.Bmp => MagickFormat.Bmp,
                        _ => MagickFormat.Jxl,
                    },
                }
            );
            if (image.ColorSpace is ColorSpace.CMYK)
            {
                image.ColorSpace = ColorSpace.sRGB;
            }

            // These types carry their turn in the picture itself, and the reader has applied it; the tag would turn it once more.
            image.Orientation = OrientationType.TopLeft;
            if (image.GetExifProfile() is { } exif)
            {
                exif.SetValue(ExifTag.Orientation, (ushort)1);
                image.SetProfile(exif);
            }

            image.Settings.SetDefine(MagickFormat.Png, "compression-level", "1");
            image.Settings.SetDefine(MagickFormat.Png, "compression-filter", "0");
            return image.ToByteArray(MagickFormat.Png);
        }
        catch (MagickException fault)
        {
            throw new VipsException(fault.Message);
        }
    }

    /// <summary>Sets the reader's own limits, once, for whoever else uses it.</summary>
    internal static void Start() => _ = Ready.Value;

    private static bool SetUp()
    {
        ResourceLimits.Width = ResourceLimits.Height = PictureReader.LongestSide;
        ResourceLimits.Area = PictureReader.MostPixels;
        ResourceLimits.Memory = 2_000_000_000;
        ResourceLimits.Disk = 0;
        ResourceLimits.Thread = 1;
        return true;
    }
}
