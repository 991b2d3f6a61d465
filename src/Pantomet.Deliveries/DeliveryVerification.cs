using System.Security.Cryptography;
using Pantomet.Application.Engine;
using Pantomet.Application.Variants;
using Pantomet.Core.Deliveries;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Variants;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Deliveries;

/// <summary>The figures of a file that was handed over.</summary>
/// <param name="Size">Its pixel size.</param>
/// <param name="Format">Its type.</param>
/// <param name="Quality">Its quality; null where it has none.</param>
/// <param name="Likeness">How much it looks like the picture's own pixels, 0 to 1; null where that was not measured.</param>
public readonly record struct GivenFigures(PixelSize Size, PictureFormat Format, int? Quality, double? Likeness)
{
    /// <summary>The figures of a stored file.</summary>
    public static GivenFigures Of(VariantRow row) => new(new(row.Width, row.Height), row.Format, row.Quality, row.Likeness);
}

/// <summary>
/// Looks at what a receiver shows of a file: whether it is the file, else how large and heavy it is, and how much it looks like the picture's
/// own pixels at that size. What came from elsewhere is decoded in the imaging processes alone.
/// </summary>
public sealed class DeliveryVerification(ImagingProcessPool engine, VariantStore store, DataFolder folder)
{
    // A media library may make a dozen sizes.
    private const int MostLooked = 12;

    /// <summary>Looks.</summary>
    /// <param name="line">The way to the receiver.</param>
    /// <param name="handed">What came of handing the file over.</param>
    /// <param name="file">The file.</param>
    /// <param name="given">Its figures.</param>
    /// <param name="wanted">What it was made by.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<IReadOnlyList<ShownFile>> LookAsync(
        HttpLine line,
        Handed handed,
        Outgoing file,
        GivenFigures given,
        WantedFile wanted,
        CancellationToken cancel
    )
    {
        List<ShownFile> shown = [];
        foreach (var address in handed.ShownAt.Take(MostLooked))
        {
            var fetched = await line.FetchAsync(address, cancel);
            // That nothing is to be seen under the address where a file was put is usual.
            if (fetched.Bytes is not null || handed.SaysWhere || !fetched.IsNothing)
            {
                shown.Add(await LookAsync(address, fetched, file, given, wanted, cancel));
            }
        }

        return shown;
    }

    private async Task<ShownFile> LookAsync(
        Uri address,
        Fetched fetched,
        Outgoing file,
        GivenFigures given,
        WantedFile wanted,
        CancellationToken cancel
    )
    {
        var shown = new ShownFile(address.AbsoluteUri, fetched.Bytes?.Length, Trouble: fetched.Trouble);
        if (fetched.Bytes is not { } bytes)
        {
            return shown;
        }

        if (Convert.ToHexStringLower(SHA256.HashData(bytes)) == file.Hash)
        {
            return shown with
            {
                IsSame = true,
                Format = given.Format,
                Width = given.Size.Width,
                Height = given.Size.Height,
                Quality = given.Quality,
                Likeness = given.Likeness,
            };
        }

        if (fetched.MediaType is "text/html" or "application/xhtml+xml")
        {
            return shown with { Trouble = ReceiverTexts.TheReceiverShowsAWebPage };
        }

        var (path, reference) = (folder.Scratch(), folder.Scratch());
        try
        {
            await File.WriteAllBytesAsync(path, bytes, cancel);
            if ((await engine.RunAsync(new ReadRequest(path), cancel)).Facts is not { } facts)
            {
                return shown with { Trouble = ReceiverTexts.TheFileThatIsShownIs };
            }

            shown = shown with { Format = facts.Format, Width = facts.Size.Width, Height = facts.Size.Height, Quality = facts.JpegQuality };
            var own = given.Size;
            return !IsWhole(own, facts.Size) ? shown with { Trouble = ReceiverTexts.TheReceiverChangedTheShapeThe }
                : facts.Size.Width > own.Width ? shown with { Trouble = ReceiverTexts.TheReceiverEnlargedThePicture }
                : await store.ReferenceAsync(wanted, facts.Size, cancel) is not { } pixels ? shown
                : shown with { Likeness = await ComparedAsync(path, reference, pixels, cancel) };
        }
        finally
        {
            File.Delete(path);
            File.Delete(reference);
        }
    }

    private async Task<double?> ComparedAsync(string path, string reference, byte[] pixels, CancellationToken cancel)
    {
        await File.WriteAllBytesAsync(reference, pixels, cancel);
        return (await engine.RunAsync(new CompareRequest(path, reference), cancel)).Likeness;
    }

    // The other side may be rounded either way.
    private static bool IsWhole(PixelSize own, PixelSize shown) =>
        Math.Abs(((double)shown.Width * own.Height / own.Width) - shown.Height) <= 1
        || Math.Abs(((double)shown.Height * own.Width / own.Height) - shown.Width) <= 1;
}
