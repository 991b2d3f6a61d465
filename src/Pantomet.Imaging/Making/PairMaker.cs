using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Dressing;
using Pantomet.Imaging.Objects;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Imaging.Making;

/// <summary>One picture that goes into a pair.</summary>
/// <param name="Path">The original.</param>
/// <param name="Keep">Boxes that must stay whole.</param>
/// <param name="Focus">A focus point.</param>
/// <param name="Hand">The frame set by hand.</param>
public sealed record PairedPicture(string Path, IReadOnlyList<Frame> Keep, FocusPoint? Focus, Frame? Hand);

/// <summary>An original of a pair, read.</summary>
/// <param name="Path">The original.</param>
/// <param name="Facts">Its facts, with the size of the turned picture.</param>
/// <param name="Turn">How it is turned.</param>
internal sealed record PairedOriginal(string Path, PictureFacts Facts, Turn Turn);

/// <summary>What came of a pair.</summary>
/// <param name="Made">The files, by density or width; none where a picture cannot be read.</param>
/// <param name="Unreadable">The first picture that cannot be read, counted from 0; null where all can.</param>
public sealed record MadePair(IReadOnlyList<MadeVariant> Made, int? Unreadable);

/// <summary>Makes the files of pictures side by side: each is cut and reduced for its part, and laid beside the others.</summary>
public static class PairMaker
{
    /// <summary>Makes every file of a slot.</summary>
    /// <param name="pictures">The pictures from left to right, as many as the slot takes.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="room">Where the work is done.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public static async Task<MadePair> MakeAsync(
        IReadOnlyList<PairedPicture> pictures,
        Slot slot,
        WorkRoom room,
        CancellationToken cancel = default
    )
    {
        ArgumentNullException.ThrowIfNull(pictures);
        ArgumentNullException.ThrowIfNull(slot);
        ArgumentNullException.ThrowIfNull(room);
        var facts = new List<PictureFacts>();
        for (var i = 0; i < pictures.Count; i++)
        {
            var picture = pictures[i];
            if (await room.RunAsync(() => Looked(picture), cancel) is not { } known)
            {
                return new([], i);
            }

            facts.Add(known);
        }

        var plans = PairPlanner.PlanAll(
            [.. pictures.Select((one, i) => new PairPart(facts[i].Size, Subject.Of(one.Keep, one.Focus, facts[i].Suggestion), one.Hand))],
            slot
        );
        var made = new List<MadeVariant>();
        foreach (var plan in plans)
        {
            made.AddRange(await room.RunAsync(() => MakeSafely(pictures, facts, slot, plan, cancel), cancel));
        }

        return new(made, null);
    }

    private static PictureFacts? Looked(PairedPicture picture)
    {
        var read = PictureReader.ReadFacts(picture.Path);
        if (read.Facts is not { } facts)
        {
            return null;
        }

        try
        {
            var content = ContentReader.Read(picture.Path, facts);
            return picture.Keep.Count == 0 && picture.Focus is null && picture.Hand is null
                ? SubjectDetector.Sought(picture.Path, content)
                : content;
        }
        catch (VipsException fault)
        {
            ImagingFault.Tell(fault);
            return null;
        }
    }

    private static IReadOnlyList<MadeVariant> MakeSafely(
        IReadOnlyList<PairedPicture> pictures,
        List<PictureFacts> facts,
        Slot slot,
        VariantPlan plan,
        CancellationToken cancel
    )
    {
        try
        {
            return VariantMaker.Make(
                new PairPixels([.. pictures.Zip(facts, (one, known) => new PairedOriginal(one.Path, known, Turn.None))], slot),
                slot,
                plan,
                cancel: cancel
            );
        }
        catch (VipsException fault)
        {
            return [VariantMaker.Unreadable(plan, ImagingFault.Sentence(fault, ReasonTexts.OneOfTheCombinedPicturesCould))];
        }
    }

    /// <summary>What the files of pictures side by side are held to: not finer than the coarsest original, a photograph if one is.</summary>
    /// <param name="parts">The facts of each.</param>
    internal static PictureFacts FactsOf(IReadOnlyList<PictureFacts> parts) =>
        parts[0] with
        {
            Frames = 1,
            JpegQuality = parts.All(one => one.JpegQuality is not null) ? parts.Max(one => one.JpegQuality) : null,
            Kind = parts.All(one => one.Kind == parts[0].Kind) ? parts[0].Kind : PictureKind.Photograph,
        };

    /// <summary>Cuts and reduces each picture for its part and lays it beside the others. Of what moves the first frame is taken.</summary>
    /// <param name="pictures">The pictures from left to right.</param>
    /// <param name="slot">The slot.</param>
    /// <param name="plan">A plan with parts.</param>
    internal static RenderedPixels Laid(IReadOnlyList<PairedOriginal> pictures, Slot slot, VariantPlan plan)
    {
        using var scope = new Scope();
        var ground = slot.Pair!.Background;
        var sheet = new byte[plan.Size.Width * plan.Size.Height * 3];
        for (var i = 0; i < plan.Size.Width * plan.Size.Height; i++)
        {
            (sheet[i * 3], sheet[(i * 3) + 1], sheet[(i * 3) + 2]) = (ground.Red, ground.Green, ground.Blue);
        }

        foreach (var (picture, part) in pictures.Zip(plan.Parts!))
        {
            var own = plan with { Crop = part.Crop, Size = part.Place.Size, Content = part.Place.Size, Parts = null };
            using var master = PictureMaster.Decode(picture.Path, picture.Facts, [own], ProfileRule.Srgb, turn: picture.Turn);
            using var pixels = VariantRenderer.Render(master, own, slot.Background, slot.Sharpen);
            Lay(sheet, plan.Size.Width, Coloured(pixels, ground, scope), part.Place);
        }

        var bare = scope.Own(Image.NewFromMemoryCopy(sheet, plan.Size.Width, plan.Size.Height, 3, Enums.BandFormat.Uchar));
        return new(scope.Own(bare.Copy(interpretation: Enums.Interpretation.Srgb)).CopyMemory());
    }

    private static byte[] Coloured(RenderedPixels pixels, Rgb ground, Scope scope)
    {
        var image = pixels.Image.Bands < 3 ? scope.Own(pixels.Image.Colourspace(Enums.Interpretation.Srgb)) : pixels.Image;
        image = image.HasAlpha() ? scope.Own(image.Flatten(background: [ground.Red, ground.Green, ground.Blue])) : image;
        return image.WriteToMemory<byte>();
    }

    private static void Lay(byte[] sheet, int width, byte[] values, Crop place)
    {
        for (var row = 0; row < place.Height; row++)
        {
            values.AsSpan(row * place.Width * 3, place.Width * 3).CopyTo(sheet.AsSpan((((place.Top + row) * width) + place.Left) * 3));
        }
    }

    private sealed class PairPixels(IReadOnlyList<PairedOriginal> pictures, Slot slot) : IPixelSource
    {
        public PictureFacts Facts { get; } = FactsOf([.. pictures.Select(one => one.Facts)]);

        public RenderedPixels Still(VariantPlan plan) => Dresser.Apply(Laid(pictures, slot, plan), slot, plan.Kept);

        public RenderedPixels Moving(VariantPlan plan) => Still(plan);
    }
}
