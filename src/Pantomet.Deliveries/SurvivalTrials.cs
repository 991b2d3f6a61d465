using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Query;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Background;
using Pantomet.Application.Bundles;
using Pantomet.Application.Jobs;
using Pantomet.Application.Variants;
using Pantomet.Core.Deliveries;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Deliveries;

namespace Pantomet.Deliveries;

/// <summary>What was tried with a file to see which one a receiver shows best.</summary>
/// <param name="State">Where it stands.</param>
/// <param name="Trouble">Why it ended before all was known: a sentence.</param>
/// <param name="IsThis">True where it is done, and was tried with the file as it is now.</param>
/// <param name="Tried">What was tried, the file as it is first.</param>
/// <param name="Best">The place of the one of which the receiver shows most; null where none can be compared.</param>
/// <param name="Rule">True where the slot's rule can ask for that one.</param>
public sealed record SurvivalView(
    ReceiverDeliveryState State,
    string? Trouble,
    bool IsThis,
    IReadOnlyList<SurvivalTry> Tried,
    int? Best,
    bool Rule
);

/// <summary>
/// Tries on a test receiver which file it shows best, when it makes its own copies: one after the other, each put down as it comes, so that
/// it goes on where it was.
/// </summary>
public sealed class SurvivalTrials(
    IServiceScopeFactory scopes,
    ReceiverStore receivers,
    ReceiverLines lines,
    DeliveryVerification look,
    VariantStore store,
    JobRoom room,
    FileDesk desk,
    Writer writer,
    TimeProvider clock,
    ILogger<SurvivalTrials> log
) : QueueWorker<ReceiverDeliveryProgress>(log)
{
    /// <summary>Asks for it; a sentence when it cannot be tried.</summary>
    public async Task<string?> AskAsync(Guid job, Guid receiver, string path, CancellationToken cancel)
    {
        if (await receivers.OneAsync(receiver, cancel) is not { } row)
        {
            return ReceiverTexts.ThisReceiverDoesNotExist;
        }

        if (ReceiverStore.RuleOf(row) is not { TrialAddress: not null })
        {
            return ReceiverTexts.TheReceiverHasNoTestAddress;
        }

        if (await FileAsync(job, path, cancel) is not { } file)
        {
            return ReceiverTexts.ThisFileIsNoLongerDelivered;
        }

        if (await OneAsync(job, receiver, path, cancel) is { } before)
        {
            await StopAsync(before.Id);
        }

        await writer.WriteAsync<bool>(
            async db =>
            {
                await Of(db.Survivals, job, receiver, path).ExecuteDeleteAsync(CancellationToken.None);
                db.Survivals.Add(
                    new()
                    {
                        Id = Guid.CreateVersion7(),
                        JobId = job,
                        ReceiverId = receiver,
                        Path = path,
                        ContentHash = file.File.Row!.ContentHash,
                        State = ReceiverDeliveryState.Waiting,
                        Tried = StoredJson.Write<IReadOnlyList<SurvivalTry>>([]),
                        AskedAt = clock.GetUtcNow().UtcDateTime,
                    }
                );
                await db.SaveChangesAsync(CancellationToken.None);
                return (true, null);
            },
            cancel
        );
        Ring();
        return null;
    }

    /// <summary>What was tried; null where nothing was.</summary>
    public async Task<SurvivalView?> ViewAsync(Guid job, Guid receiver, string path, CancellationToken cancel)
    {
        if (await OneAsync(job, receiver, path, cancel) is not { } row)
        {
            return null;
        }

        var tried = TriedOf(row);
        if (row.State != ReceiverDeliveryState.Done)
        {
            return new(row.State, row.Trouble, false, tried, null, false);
        }

        // Looked up once all is known, not each time that somebody asks how far it is.
        var file = await FileAsync(job, path, cancel);
        return new(
            row.State,
            null,
            file?.File.Row!.ContentHash == row.ContentHash,
            tried,
            SurvivalSearch.Best(tried),
            file is not null && RuleOf(file.Cell.Slot.Slot, tried) is not null
        );
    }

    /// <summary>The slot of a file, and its rule by which what survives best is made; null where it cannot ask for that.</summary>
    public async Task<(string Address, Slot Slot)?> RuleAsync(Guid job, Guid receiver, string path, CancellationToken cancel) =>
        await OneAsync(job, receiver, path, cancel) is { State: ReceiverDeliveryState.Done } row
        && await FileAsync(job, path, cancel) is { } file
        && RuleOf(file.Cell.Slot.Slot, TriedOf(row)) is { } slot
            ? (file.Cell.Place.Address, slot)
            : null;

    /// <inheritdoc/>
    protected override async Task<bool> NextAsync(CancellationToken stopping)
    {
        SurvivalRow? row;
        await using (var scope = scopes.CreateAsyncScope())
        {
            row = await Db(scope)
                .Survivals.AsNoTracking()
                .Where(one => one.State == ReceiverDeliveryState.Waiting)
                .OrderBy(one => one.AskedAt)
                .FirstOrDefaultAsync(stopping);
        }

        if (row is null)
        {
            return false;
        }

        await RunAsync(
            row.Id,
            (_, stop) => TryAsync(row, stop),
            trouble =>
                ChangeAsync(
                    row.Id,
                    set =>
                        set.SetProperty(one => one.State, trouble is null ? ReceiverDeliveryState.Done : ReceiverDeliveryState.Failed)
                            .SetProperty(one => one.Trouble, trouble)
                ),
            stopping
        );
        return true;
    }

    private async Task<string?> TryAsync(SurvivalRow row, CancellationToken stop)
    {
        if (
            await receivers.OneAsync(row.ReceiverId, stop) is not { } receiver
            || ReceiverStore.RuleOf(receiver) is not { TrialAddress: { } trial } rule
        )
        {
            return ReceiverTexts.TheReceiverNoLongerHasA;
        }

        if (!receivers.TryOpen(receiver, out var secret))
        {
            return DeliveryWorker.Unsealed;
        }

        if (
            await FileAsync(row.JobId, row.Path, stop) is not { } file
            || await desk.ReadAsync(file.File.Wanted, file.File.Row!, stop) is not var (bytes, figures)
        )
        {
            return ReceiverTexts.ThisFileIsNoLongerDelivered;
        }

        if (figures.ContentHash != row.ContentHash)
        {
            return ReceiverTexts.TheFileHasChangedSinceRun;
        }

        // Another host does not get what is secret of this one.
        var isOwn = new Uri(trial).Authority == new Uri(rule.Address).Authority;
        await using var line = (HttpLine)lines.Open(rule with { Address = trial, User = isOwn ? rule.User : null }, isOwn ? secret : null);
        var own = GivenFigures.Of(figures);
        List<SurvivalTry> tried = [.. TriedOf(row)];
        while (SurvivalSearch.Next(own.Size, tried) is { } step)
        {
            if (await GivenAsync(file.File.Wanted, own, bytes, step, stop) is not var (given, content))
            {
                return ReceiverTexts.AFileForTheTrialsCould;
            }

            var outgoing = new Outgoing(
                row.Path,
                given.Format.MediaType(),
                content,
                Convert.ToHexStringLower(SHA256.HashData(content)),
                null
            );
            var handed = await line.HandAsync(outgoing, stop);
            stop.ThrowIfCancellationRequested();
            if (handed.Meaning != AnswerMeaning.Accepted)
            {
                return string.Join(' ', handed.Said);
            }

            var shown = await look.LookAsync(line, handed, outgoing, given, file.File.Wanted, stop);
            // Of several sizes that it makes the largest counts.
            tried.Add(new(given.Size, step.Quality, content.Length, shown.MaxBy(one => one.Width ?? 0)));
            await ChangeAsync(row.Id, set => set.SetProperty(one => one.Tried, StoredJson.Write<IReadOnlyList<SurvivalTry>>(tried)));
        }

        return tried[0].Shown is not { } first ? ReceiverTexts.TheReceiverDoesNotSayWhere
            : first.Trouble is { } trouble ? trouble
            : null;
    }

    private async Task<(GivenFigures Given, byte[] Content)?> GivenAsync(
        WantedFile wanted,
        GivenFigures own,
        byte[] bytes,
        SurvivalStep step,
        CancellationToken stop
    )
    {
        if (step.Quality is not { } quality)
        {
            return (own, bytes);
        }

        // A type without qualities gives way to the one that every receiver makes its copies in.
        var format = own.Quality is null ? PictureFormat.Jpeg : own.Format;
        return await store.TryAsync(wanted, step.Size, format, quality, stop) is var (content, made)
            ? (new GivenFigures(made.Size, format, quality, made.Likeness), content)
            : null;
    }

    private static Slot? RuleOf(Slot slot, IReadOnlyList<SurvivalTry> tried) =>
        SurvivalSearch.Best(tried) is { } best && best > 0 && tried[best].Quality is { } quality
            ? SurvivalSearch.Rule(slot, tried[0].Size, tried[best].Size, quality)
            : null;

    private async Task<BundleFile?> FileAsync(Guid job, string path, CancellationToken cancel)
    {
        if (await room.OpenAsync(job, cancel) is not { } board)
        {
            return null;
        }

        await using var scope = scopes.CreateAsyncScope();
        return (await BundleContents.OfAsync(Db(scope), board, cancel)).Going.FirstOrDefault(file => file.Path == path);
    }

    private async Task<SurvivalRow?> OneAsync(Guid job, Guid receiver, string path, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await Of(Db(scope).Survivals.AsNoTracking(), job, receiver, path).SingleOrDefaultAsync(cancel);
    }

    private Task<bool> ChangeAsync(Guid id, Action<UpdateSettersBuilder<SurvivalRow>> change) =>
        writer.WriteAsync<bool>(
            async db => (await db.Survivals.Where(row => row.Id == id).ExecuteUpdateAsync(change, CancellationToken.None) > 0, null),
            CancellationToken.None
        );

    private static IQueryable<SurvivalRow> Of(IQueryable<SurvivalRow> rows, Guid job, Guid receiver, string path) =>
        rows.Where(row => row.JobId == job && row.ReceiverId == receiver && row.Path == path);

    private static IReadOnlyList<SurvivalTry> TriedOf(SurvivalRow row) => StoredJson.Read<IReadOnlyList<SurvivalTry>>(row.Tried);

    private static PantometDb Db(AsyncServiceScope scope) => scope.ServiceProvider.GetRequiredService<PantometDb>();
}
