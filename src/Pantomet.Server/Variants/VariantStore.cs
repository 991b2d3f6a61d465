using System.Collections.Concurrent;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Planning;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;
using Pantomet.Imaging.Hosting;
using Pantomet.Imaging.Making;
using Pantomet.Server.Engine;

namespace Pantomet.Server.Variants;

/// <summary>Everything one file depends on: the same wish finds the same file.</summary>
/// <param name="Id">A hash of the rest.</param>
/// <param name="Picture">The original.</param>
/// <param name="Turn">How it is turned.</param>
/// <param name="Slot">The slot.</param>
/// <param name="Wish">What is wanted.</param>
internal sealed record WantedFile(string Id, PictureRow Picture, Turn Turn, Slot Slot, Wish Wish);

/// <summary>Files made: makes them, finds them again, and remembers which could not be made.</summary>
internal sealed class VariantStore(IServiceScopeFactory scopes, DataFolder folder, EngineRoom engine, TimeProvider clock)
{
    // Raised whenever the same wish would make other bytes than before.
    private const int Making = 3;
    private const int AtOnce = 400;

    private readonly ConcurrentDictionary<string, VariantRow> _made = new();
    private readonly ConcurrentDictionary<string, string> _failed = new();
    private readonly ConcurrentDictionary<string, UnderWay> _underWay = new();

    /// <summary>The identity of a file.</summary>
    public static WantedFile Wanted(PictureRow picture, Turn turn, Slot slot, string bytesKey, Wish wish)
    {
        var plan = wish.Plan;
        var text = string.Create(
            CultureInfo.InvariantCulture,
            $"{Making}|{picture.ContentHash}|{turn}|{bytesKey}|{plan.Crop}|{plan.Size}|{plan.Content}|{plan.MayShrink}|{wish.Format}|{wish.Quality}");
        return new(Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text))), picture, turn, slot, wish);
    }

    /// <summary>The file, if it is known to be made.</summary>
    public VariantRow? Known(string id) => _made.GetValueOrDefault(id);

    /// <summary>Why it could not be made, if that was tried.</summary>
    public string? Failure(string id) => _failed.GetValueOrDefault(id);

    /// <summary>Looks up which of these files are there already.</summary>
    public async Task RecallAsync(IEnumerable<string> ids, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        foreach (var chunk in ids.Where(id => !_made.ContainsKey(id)).Distinct().Chunk(AtOnce))
        {
            foreach (var row in await db.Variants.AsNoTracking().Where(row => chunk.Contains(row.Id)).ToListAsync(cancel))
            {
                if (folder.Variants.Holds(row.ContentHash))
                {
                    _made[row.Id] = row;
                }
            }
        }
    }

    /// <summary>
    /// Makes a file, or finds it again; null when it cannot be made, with the failure kept. What is being made for somebody else is waited for, and
    /// made here only if the other gives up.
    /// </summary>
    /// <param name="wanted">The file.</param>
    /// <param name="urgent">True when a person waits for it.</param>
    /// <param name="cancel">Stops between encodes.</param>
    /// <param name="weighed">Told of the file as soon as it is found.</param>
    public async Task<VariantRow?> MakeAsync(WantedFile wanted, bool urgent, CancellationToken cancel, Action<WeighedFile>? weighed = null)
    {
        while (true)
        {
            if (Known(wanted.Id) is { } known)
            {
                return known;
            }

            using var mine = new UnderWay();
            var other = _underWay.GetOrAdd(wanted.Id, mine);
            if (weighed is not null)
            {
                other.Listen(weighed);
            }

            if (!ReferenceEquals(other, mine))
            {
                await other.Ended.WaitAsync(cancel);
                if (Failure(wanted.Id) is not null)
                {
                    return null;
                }

                continue;
            }

            try
            {
                return await MakeNowAsync(wanted, urgent, mine.Weighed, cancel);
            }
            finally
            {
                _underWay.TryRemove(wanted.Id, out _);
            }
        }
    }

    private async Task<VariantRow?> MakeNowAsync(WantedFile wanted, bool urgent, Action<WeighedFile> weighed, CancellationToken cancel)
    {
        await RecallAsync([wanted.Id], cancel);
        if (Known(wanted.Id) is { } stored)
        {
            return stored;
        }

        var (output, small) = (folder.Scratch(), folder.Scratch());
        try
        {
            var order = OrderOf(wanted) with { Output = output, Small = small };
            var outcome = await engine.RunAsync(order, cancel, urgent, told => weighed(told.Weighed!));
            if (outcome.Variant is not { HasFile: true } made)
            {
                _failed[wanted.Id] = outcome.Refusal ?? "No file came of it.";
                return null;
            }

            var hash = await folder.Variants.StoreFileAsync(output, cancel);
            if (File.Exists(small))
            {
                File.Move(small, SmallPath(hash), overwrite: true);
            }

            _failed.TryRemove(wanted.Id, out _);
            return _made[wanted.Id] = await KeepAsync(RowOf(wanted, order, made, hash), cancel);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            // A full disk: said at the cell, and tried again when it is asked for.
            _failed[wanted.Id] = $"The file could not be kept: {fault.Message}";
            return null;
        }
        finally
        {
            File.Delete(output);
            File.Delete(small);
        }
    }

    /// <summary>Forgets a file and its failure, so that it is made again.</summary>
    public async Task ForgetAsync(IReadOnlyCollection<string> ids, CancellationToken cancel)
    {
        foreach (var id in ids)
        {
            _made.TryRemove(id, out _);
            _failed.TryRemove(id, out _);
        }

        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        foreach (var chunk in ids.Chunk(AtOnce))
        {
            await db.Variants.Where(row => chunk.Contains(row.Id)).ExecuteDeleteAsync(cancel);
        }
    }

    /// <summary>A small copy of a file for the screen; the file itself where there is none.</summary>
    public string SmallOf(VariantRow row) => SmallPath(row.ContentHash) is var path && File.Exists(path) ? path : folder.Variants.PathOf(row.ContentHash);

    /// <summary>The weight and likeness of a file at several qualities.</summary>
    public async Task<IReadOnlyList<CurvePoint>?> CurveAsync(WantedFile wanted, Core.Facts.PictureFormat format, IReadOnlyList<int> qualities, CancellationToken cancel)
    {
        var order = OrderOf(wanted);
        var outcome = await engine.RunAsync(new CurveOrder(order.Path, order.Facts, order.Turn, order.Rules, order.Plan, format, qualities), cancel, urgent: true);
        return outcome.Curve;
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
            var outcome = await engine.RunAsync(order with { Output = output, Reference = true, Size = new(variant.Width, variant.Height) }, cancel, urgent: true);
            return outcome.Refusal is null && File.Exists(output) ? await File.ReadAllBytesAsync(output, cancel) : null;
        }
        finally
        {
            File.Delete(output);
        }
    }

    // What the frame gave up is told apart from the file: the same file may serve a frame that was confirmed since.
    private VariantOrder OrderOf(WantedFile wanted)
    {
        var facts = wanted.Picture.Facts;
        var rules = RulesWriter.Write(new RuleBook([new("place", "place", [wanted.Slot])]));
        var plan = wanted.Wish.Plan with { Verdict = Verdict.Meets, Reasons = [] };
        return new(
            folder.Originals.PathOf(wanted.Picture.ContentHash), facts with { Size = wanted.Turn.SizeOf(facts.Size), Suggestion = null }, wanted.Turn, rules, plan,
            wanted.Wish.Format, wanted.Wish.Quality, "");
    }

    private VariantRow RowOf(WantedFile wanted, VariantOrder order, VariantOutcome made, string hash) => new()
    {
        Id = wanted.Id, PictureId = wanted.Picture.Id, ContentHash = hash, Format = made.Format!.Value, Width = made.Size.Width, Height = made.Size.Height,
        Bytes = new FileInfo(folder.Variants.PathOf(hash)).Length, Quality = made.Quality, Likeness = made.Likeness,
        WorstPlace = made.WorstTile is { } worst ? string.Create(CultureInfo.InvariantCulture, $"{worst.Left},{worst.Top},{worst.Right},{worst.Bottom}") : null,
        Order = OrderLine.Write<Order>(order with { Output = "", Small = null }), Encodes = made.Encodes, Verdict = made.Verdict,
        Reasons = JsonSerializer.Serialize(made.Reasons), MadeAt = clock.GetUtcNow().UtcDateTime,
    };

    private async Task<VariantRow> KeepAsync(VariantRow row, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        await db.Variants.Where(other => other.Id == row.Id).ExecuteDeleteAsync(cancel);
        db.Variants.Add(row);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException)
        {
            // The same wish was granted twice at once, and both made the same file; or its picture was removed meanwhile.
        }

        return row;
    }

    private string SmallPath(string hash) => Path.Combine(folder.Previews, $"{hash}-made.webp");

    /// <summary>A file that somebody is making, for all who want it.</summary>
    private sealed class UnderWay : IDisposable
    {
        private readonly TaskCompletionSource _ended = new(TaskCreationOptions.RunContinuationsAsynchronously);
        private readonly List<Action<WeighedFile>> _listeners = [];
        private WeighedFile? _weighed;

        public Task Ended => _ended.Task;

        public void Listen(Action<WeighedFile> listener)
        {
            lock (_listeners)
            {
                _listeners.Add(listener);
                if (_weighed is not null)
                {
                    listener(_weighed);
                }
            }
        }

        public void Weighed(WeighedFile file)
        {
            lock (_listeners)
            {
                _weighed = file;
                _listeners.ForEach(listener => listener(file));
            }
        }

        public void Dispose() => _ended.TrySetResult();
    }
}
