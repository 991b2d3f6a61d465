using NetVips;
using Pantomet.Core.Framing;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;
using Pantomet.Imaging.Rendering;
using Pantomet.Imaging.Writing;

namespace Pantomet.Imaging.Hosting;

/// <summary>Carries out orders, one at a time, and keeps the last renderings so that another quality decodes nothing again.</summary>
public sealed class OrderDesk : IDisposable
{
    private const int MostRenderings = 3;

    private readonly LinkedList<(string Key, RenderedPixels Pixels)> _renderings = new();

    /// <summary>Carries out an order. Failures of the imaging library come back as a refusal.</summary>
    public Outcome Do(Order order, CancellationToken cancel = default)
    {
        ArgumentNullException.ThrowIfNull(order);
        try
        {
            return order switch
            {
                ReadOrder read => Read(read),
                PreviewOrder preview => Preview(preview),
                VariantOrder variant => Variant(variant, cancel),
                _ => new() { Refusal = "This order is not known." },
            };
        }
        catch (VipsException)
        {
            return new() { Refusal = "The picture could not be decoded or encoded." };
        }
    }

    /// <summary>Frees the renderings.</summary>
    public void Dispose()
    {
        foreach (var (_, pixels) in _renderings)
        {
            pixels.Dispose();
        }

        _renderings.Clear();
    }

    private static Outcome Read(ReadOrder order)
    {
        var read = PictureReader.ReadWhole(order.Path);
        return new() { Facts = read.Facts, Refusal = read.Refusal };
    }

    private static Outcome Preview(PreviewOrder order)
    {
        ImagingEngine.Start();
        using var small = Image.Thumbnail(order.Path, order.Side, height: order.Side, size: Enums.Size.Down, outputProfile: "srgb");
        small.Webpsave(order.Output, q: 82, effort: 0, keep: Enums.ForeignKeep.None);
        return new();
    }

    private Outcome Variant(VariantOrder order, CancellationToken cancel)
    {
        if (!RulesReader.TryRead(order.Rules, out var book, out var fault))
        {
            return new() { Refusal = fault!.ToString() };
        }

        var slot = book!.Destinations[0].Slots[0];
        var plan = VariantPlanner.Plan(order.Facts.Size, slot, new(order.Density), order.Hand, Subject.Of([], null, order.Facts.Suggestion));
        if (!plan.IsMade)
        {
            return new() { Variant = OutcomeOf(VariantMaker.NotMade(plan)) };
        }

        if (order.Reference)
        {
            File.WriteAllBytes(order.Output, LosslessPng.Write(Rendering(order, slot, order.Size is { } size && size != plan.Size ? plan.At(size) : plan)));
            return new();
        }

        var made = Made(order, slot, plan, cancel);
        if (made.File is not null)
        {
            File.WriteAllBytes(order.Output, made.File);
        }

        return new() { Variant = OutcomeOf(made) };
    }

    private MadeVariant Made(VariantOrder order, Slot slot, VariantPlan plan, CancellationToken cancel)
    {
        if (order.Quality is null && MovingPicture.Applies(order.Facts, slot))
        {
            return MovingPicture.Make(order.Path, order.Facts, slot, plan, cancel);
        }

        var pixels = Rendering(order, slot, plan);
        if (order.Quality is { } quality)
        {
            return VariantMaker.ByHand(pixels, slot, plan, order.Facts, order.Format, quality);
        }

        var asked = slot with { Each = false, Types = order.Format is { } format ? [new(format)] : slot.Types };
        return VariantMaker.Find(pixels, asked, plan, order.Facts, smaller => Render(order, slot, smaller), cancel)[0];
    }

    private RenderedPixels Rendering(VariantOrder order, Slot slot, VariantPlan plan)
    {
        var key = $"{order.Path}|{plan.Crop}|{plan.Size}|{plan.Content}|{slot.Background}|{slot.Sharpen}|{slot.Profile}";
        for (var node = _renderings.First; node is not null; node = node.Next)
        {
            if (node.Value.Key == key)
            {
                _renderings.Remove(node);
                _renderings.AddFirst(node);
                return node.Value.Pixels;
            }
        }

        var pixels = Render(order, slot, plan);
        _renderings.AddFirst((key, pixels));
        if (_renderings.Count > MostRenderings)
        {
            _renderings.Last!.Value.Pixels.Dispose();
            _renderings.RemoveLast();
        }

        return pixels;
    }

    private static RenderedPixels Render(VariantOrder order, Slot slot, VariantPlan plan)
    {
        using var master = PictureMaster.Decode(order.Path, order.Facts, [plan], slot.Profile);
        return VariantRenderer.Render(master, plan, slot.Background, slot.Sharpen);
    }

    private static VariantOutcome OutcomeOf(MadeVariant made) => new(
        made.File is not null, made.Format, made.Size, made.Quality, made.Likeness?.Score, made.Likeness?.WorstTile, made.Encodes, made.Verdict, made.Reasons);
}
