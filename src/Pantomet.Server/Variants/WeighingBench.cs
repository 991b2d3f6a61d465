using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;
using Pantomet.Imaging.Hosting;
using Pantomet.Server.Destinations;
using Pantomet.Server.Engine;

namespace Pantomet.Server.Variants;

/// <summary>Makes variants for looking at and for handing over, and finds again what was made before.</summary>
internal sealed class WeighingBench(PantometDb db, DataFolder folder, EngineRoom engine, RuleShelf shelf, TimeProvider clock)
{
    // Raised whenever the same wish would make other bytes than before.
    private const int Making = 2;

    public async Task<VariantView> MakeAsync(PictureRow picture, Destination destination, Slot slot, Density density, PictureFormat? format, int? quality, CancellationToken cancel)
    {
        var hand = (await db.Framings.AsNoTracking().FirstOrDefaultAsync(
            row => row.PictureId == picture.Id && row.Destination == destination.Key && row.Slot == slot.Key, cancel))?.Frame;
        var plan = VariantPlanner.Plan(picture.Facts.Size, slot, density, hand, Subject.Of([], null, picture.Suggestion));
        if (!plan.IsMade)
        {
            return new(plan.Verdict, plan.Reasons, null);
        }

        var order = new VariantOrder(
            folder.Originals.PathOf(picture.ContentHash), picture.Facts, await shelf.RulesOfAsync(destination.Key, slot.Key, cancel), density.Value, hand, format, quality, "");
        var id = Hash($"{Making}|{picture.Id}|{picture.ContentHash}|{OrderLine.Write<Order>(order with { Path = "" })}");
        if (await db.Variants.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, cancel) is { } known && folder.Variants.Holds(known.ContentHash))
        {
            return VariantView.Of(known);
        }

        var output = folder.Scratch();
        try
        {
            var outcome = await engine.RunAsync(order with { Output = output }, cancel);
            return outcome.Variant is not { } made ? new(Verdict.Breaks, [new(ReasonCodes.Unreadable, outcome.Refusal!)], null)
                : made.HasFile ? await StoreAsync(id, picture, destination, slot, order, made, output, cancel)
                : new(made.Verdict, made.Reasons, null);
        }
        finally
        {
            File.Delete(output);
        }
    }

    /// <summary>The same pixels as a variant's, without loss: what it is compared with.</summary>
    public async Task<byte[]?> ReferenceAsync(VariantRow variant, CancellationToken cancel)
    {
        if (variant.Order.Length == 0 || OrderLine.Read<Order>(variant.Order) is not VariantOrder order)
        {
            return null;
        }

        var output = folder.Scratch();
        try
        {
            var outcome = await engine.RunAsync(order with { Output = output, Reference = true, Size = new(variant.Width, variant.Height) }, cancel);
            return outcome.Refusal is null && File.Exists(output) ? await File.ReadAllBytesAsync(output, cancel) : null;
        }
        finally
        {
            File.Delete(output);
        }
    }

    private async Task<VariantView> StoreAsync(
        string id, PictureRow picture, Destination destination, Slot slot, VariantOrder order, VariantOutcome made, string output, CancellationToken cancel)
    {
        var stem = slot.NamePattern.Fill(new(
            Path.GetFileNameWithoutExtension(picture.Name), destination.Key, slot.Key, new(order.Density), made.Size, slot.Size.Shape));
        var file = await File.ReadAllBytesAsync(output, cancel);
        var row = new VariantRow
        {
            Id = id, PictureId = picture.Id, Destination = destination.Key, Slot = slot.Key, Density = order.Density,
            ContentHash = await folder.Variants.StoreAsync(file, cancel), FileName = $"{stem}.{made.Format!.Value.Ending()}", Format = made.Format.Value,
            Width = made.Size.Width, Height = made.Size.Height, Bytes = file.LongLength, Quality = made.Quality, Likeness = made.Likeness,
            WorstPlace = made.WorstTile is { } worst ? string.Create(CultureInfo.InvariantCulture, $"{worst.Left},{worst.Top},{worst.Right},{worst.Bottom}") : null,
            Order = OrderLine.Write<Order>(order), Encodes = made.Encodes,
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

    private static string Hash(string text) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)));
}
