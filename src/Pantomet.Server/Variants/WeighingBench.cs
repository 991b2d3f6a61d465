using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NetVips;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Rendering;

namespace Pantomet.Server.Variants;

/// <summary>Makes variants for looking at and for handing over, and finds again what was made before.</summary>
internal sealed class WeighingBench(PantometDb db, DataFolder folder, PixelShelf shelf, TimeProvider clock)
{
    // Raised whenever the same wish would make other bytes than before.
    private const int Making = 1;

    private static readonly SemaphoreSlim Turns = new(Math.Max(1, Environment.ProcessorCount - 1));

    public async Task<VariantView> MakeAsync(PictureRow picture, Destination destination, Slot slot, Density density, PictureFormat? format, int? quality, CancellationToken cancel)
    {
        var hand = (await db.Framings.AsNoTracking().FirstOrDefaultAsync(
            row => row.PictureId == picture.Id && row.Destination == destination.Key && row.Slot == slot.Key, cancel))?.Frame;
        var plan = VariantPlanner.Plan(picture.Facts.Size, slot, density, hand);
        if (!plan.IsMade)
        {
            return new(plan.Verdict, plan.Reasons, null);
        }

        var pixelKey = PixelKey(picture, slot, plan);
        var id = Hash($"{Making}|{pixelKey}|{destination.Key}|{slot}|{string.Join(',', slot.Types)}|{picture.Id}|{format}|{quality}");
        if (await db.Variants.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, cancel) is { } known && folder.Variants.Holds(known.ContentHash))
        {
            return VariantView.Of(known);
        }

        await Turns.WaitAsync(cancel);
        try
        {
            var made = await Task.Run(() => Work(picture, slot, plan, pixelKey, format, quality, cancel), cancel);
            return await StoreAsync(id, picture, destination, slot, made, cancel);
        }
        catch (VipsException)
        {
            return new(Verdict.Breaks, [new(ReasonCodes.Unreadable, "The picture could not be decoded or encoded for this slot.")], null);
        }
        finally
        {
            Turns.Release();
        }
    }

    /// <summary>The same pixels as a variant's, without loss: what it is compared with.</summary>
    public async Task<byte[]?> ReferenceAsync(PictureRow picture, Slot slot, VariantRow variant, CancellationToken cancel)
    {
        var hand = (await db.Framings.AsNoTracking().FirstOrDefaultAsync(
            row => row.PictureId == picture.Id && row.Destination == variant.Destination && row.Slot == variant.Slot, cancel))?.Frame;
        var plan = VariantPlanner.Plan(picture.Facts.Size, slot, new(variant.Density), hand);
        if (!plan.IsMade)
        {
            return null;
        }

        await Turns.WaitAsync(cancel);
        try
        {
            return await Task.Run(
                () => shelf.Use(PixelKey(picture, slot, plan), () => Render(picture, slot, plan), Imaging.Writing.LosslessPng.Write), cancel);
        }
        finally
        {
            Turns.Release();
        }
    }

    private MadeVariant Work(PictureRow picture, Slot slot, VariantPlan plan, string pixelKey, PictureFormat? format, int? quality, CancellationToken cancel) =>
        shelf.Use(pixelKey, () => Render(picture, slot, plan), pixels =>
        {
            var notes = VariantMaker.FirstFrame(picture.Facts);
            if (quality is { } chosen)
            {
                return VariantMaker.ByHand(pixels, slot, plan, format ?? slot.Types[0], chosen, notes);
            }

            var asked = format is { } type ? slot with { Types = [type] } : slot;
            return VariantMaker.Find(pixels, asked, plan, smaller => Render(picture, slot, smaller), notes, cancel);
        });

    private RenderedPixels Render(PictureRow picture, Slot slot, VariantPlan plan) =>
        VariantRenderer.Render(folder.Originals.PathOf(picture.ContentHash), picture.Facts, plan, slot.Background, slot.Sharpen);

    private async Task<VariantView> StoreAsync(string id, PictureRow picture, Destination destination, Slot slot, MadeVariant made, CancellationToken cancel)
    {
        var file = made.File!;
        var stem = slot.NamePattern.Fill(new(
            Path.GetFileNameWithoutExtension(picture.Name), destination.Key, slot.Key, made.Plan.Density, made.Size, slot.Size.Shape));
        var row = new VariantRow
        {
            Id = id, PictureId = picture.Id, Destination = destination.Key, Slot = slot.Key, Density = made.Plan.Density.Value,
            ContentHash = await folder.Variants.StoreAsync(file, cancel), FileName = $"{stem}.{made.Format!.Value.Ending()}", Format = made.Format.Value,
            Width = made.Size.Width, Height = made.Size.Height, Bytes = file.LongLength, Quality = made.Quality, Encodes = made.Encodes,
            Verdict = made.Verdict, Reasons = JsonSerializer.Serialize(made.Reasons), MadeAt = clock.GetUtcNow().UtcDateTime,
        };
        if (await db.Variants.FirstOrDefaultAsync(other => other.Id == id, cancel) is { } stale)
        {
            db.Variants.Remove(stale);
            await db.SaveChangesAsync(cancel);
        }

        db.Variants.Add(row);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException)
        {
            // The same wish was granted twice at once; both made the same file.
            db.Entry(row).State = EntityState.Detached;
        }

        return VariantView.Of(row);
    }

    private static string PixelKey(PictureRow picture, Slot slot, VariantPlan plan) =>
        string.Create(CultureInfo.InvariantCulture, $"{picture.ContentHash}|{plan.Crop}|{plan.Size}|{plan.Content}|{slot.Background}|{slot.Sharpen}");

    private static string Hash(string text) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)));
}
