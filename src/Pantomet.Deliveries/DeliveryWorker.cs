using System.Collections.Concurrent;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Application.Bundles;
using Pantomet.Application.Jobs;
using Pantomet.Core.Deliveries;
using Pantomet.Core.Facts;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Deliveries;

namespace Pantomet.Deliveries;

/// <summary>
/// Hands the files of jobs to receivers, some at once, so that a slow one holds up nobody else. Each file is put down as soon as the receiver
/// has answered for it: ended at any moment it goes on with the next one, and a second time only what changed is sent.
/// </summary>
public sealed partial class DeliveryWorker(
    IServiceScopeFactory scopes,
    ReceiverDeliveryStore store,
    ReceiverStore receivers,
    ReceiverLines lines,
    DeliveryVerification look,
    JobRoom room,
    FileDesk desk,
    BundleWriter bundles,
    WorkOptions options,
    ILogger<DeliveryWorker> log
) : QueueWorker<ReceiverDeliveryProgress>(log)
{
    /// <summary>What is said when what is secret of a receiver cannot be opened.</summary>
    public const string Unsealed = ReceiverTexts.ThePasswordCanNoLongerBe;

    private const int MostAtOnce = 8;

    // After a file that failed each time the next ones are tried once, and after so many in a row it ends.
    private const int MostLost = 3;

    private static readonly TimeSpan AfterFault = TimeSpan.FromSeconds(30);

    private readonly ConcurrentDictionary<Guid, Task> _underWay = new();

    /// <summary>Asks for a job's files to be handed to a receiver.</summary>
    public async Task AskAsync(Guid job, Guid receiver)
    {
        await StopAsync(job, receiver);
        await store.AskAsync(job, receiver);
        Ring();
    }

    /// <summary>Ends it, if it is under way; what was handed over stays.</summary>
    /// <returns>False where there is none.</returns>
    public async Task<bool> StopAsync(Guid job, Guid receiver)
    {
        if (await store.OneAsync(job, receiver, CancellationToken.None) is not { } row)
        {
            return false;
        }

        if (row.State == ReceiverDeliveryState.Waiting)
        {
            await store.EndAsync(row, ReceiverDeliveryState.Stopped, null);
        }

        await StopAsync(row.Id);
        return true;
    }

    /// <summary>Ends all that goes to a receiver.</summary>
    public async Task StopAllAsync(Guid receiver)
    {
        await using var scope = scopes.CreateAsyncScope();
        var ids = scope
            .ServiceProvider.GetRequiredService<PantometDb>()
            .ReceiverDeliveries.Where(row => row.ReceiverId == receiver)
            .Select(row => row.Id)
            .ToList();
        await Task.WhenAll(ids.Select(StopAsync));
    }

    /// <inheritdoc/>
    protected override async Task<bool> NextAsync(CancellationToken stopping)
    {
        if (_underWay.Count >= MostAtOnce || await store.NextAsync([.. _underWay.Keys], stopping) is not { } row)
        {
            return false;
        }

        var started = new TaskCompletionSource();
        _underWay[row.Id] = Task.Run(
            async () =>
            {
                await started.Task;
                await OneAsync(row, stopping);
            },
            CancellationToken.None
        );
        started.SetResult();
        return true;
    }

    /// <inheritdoc/>
    protected override Task EndAsync() => Task.WhenAll(_underWay.Values);

    private async Task OneAsync(ReceiverDeliveryRow row, CancellationToken stopping)
    {
        try
        {
            await RunAsync(
                row.Id,
                (tells, stop) => SendAsync(row, tells, stop),
                trouble => store.EndAsync(row, trouble is null ? ReceiverDeliveryState.Done : ReceiverDeliveryState.Failed, trouble),
                stopping
            );
        }
        catch (OperationCanceledException) when (stopping.IsCancellationRequested)
        {
            // It waits for the next start.
        }
#pragma warning disable CA1031 // Nothing that happens to one of them may end the others.
        catch (Exception fault)
#pragma warning restore CA1031
        {
            Stumbled(log, row.Id, fault);
            await Task.Delay(AfterFault, stopping).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }
        finally
        {
            _underWay.TryRemove(row.Id, out _);
            Ring();
        }
    }

    private async Task<string?> SendAsync(ReceiverDeliveryRow row, Action<ReceiverDeliveryProgress> tells, CancellationToken stop)
    {
        if (await receivers.OneAsync(row.ReceiverId, stop) is not { } receiver || await room.OpenAsync(row.JobId, stop) is not { } board)
        {
            return ReceiverTexts.TheJobOrTheReceiverNo;
        }

        var rule = ReceiverStore.RuleOf(receiver);
        if (!receivers.TryOpen(receiver, out var secret))
        {
            return Unsealed;
        }

        BundleContents contents;
        await using (var scope = scopes.CreateAsyncScope())
        {
            contents = await BundleContents.OfAsync(scope.ServiceProvider.GetRequiredService<PantometDb>(), board, stop);
        }

        var known = await store.FilesAsync(row.JobId, row.ReceiverId, stop);
        var going = contents.Going.Where(file => rule.Takes(file.Cell.Place.Destination)).ToList();
        var wanted = going.Where(file => !ReceiverDeliveryStore.Has(known.GetValueOrDefault(file.Path!), file)).ToList();
        await using var line = lines.Open(rule, secret);
        var (trouble, taken) = await SendAsync(line, row, wanted, known, tells, stop);
        if (taken > 0)
        {
            var has = await store.FilesAsync(row.JobId, row.ReceiverId, stop);
            await bundles.RememberAsync(
                contents,
                "sent",
                [.. going.Where(file => ReceiverDeliveryStore.Has(has.GetValueOrDefault(file.Path!), file))]
            );
        }

        return trouble;
    }

    private async Task<(string? Trouble, int Taken)> SendAsync(
        IReceiverLine line,
        ReceiverDeliveryRow row,
        List<BundleFile> wanted,
        Dictionary<string, ReceiverFileRow> known,
        Action<ReceiverDeliveryProgress> tells,
        CancellationToken stop
    )
    {
        var (lost, taken) = (0, 0);
        for (var i = 0; i < wanted.Count; i++)
        {
            var (file, done) = (wanted[i], i);
            tells(new(done, wanted.Count));
            if (await desk.ReadAsync(file.File.Wanted, file.File.Row!, stop) is not var (bytes, figures))
            {
                // What cannot be read is missing in the bundle too, and said there.
                continue;
            }

            var held = known.GetValueOrDefault(file.Path!)?.HeldHash;
            var outgoing = new Outgoing(file.Path!, figures.Format.MediaType(), bytes, figures.ContentHash, held);
            var handed = await HandAsync(line, outgoing, again: lost == 0, why => tells(new(done, wanted.Count, why)), stop);
            var shown =
                handed.Meaning == AnswerMeaning.Accepted && line is HttpLine http
                    ? await look.LookAsync(http, handed, outgoing, GivenFigures.Of(figures), file.File.Wanted, stop)
                    : [];
            if (!await store.PutDownAsync(row.Id, RowOf(row, file, outgoing, handed, shown)))
            {
                return (ReceiverTexts.TheReceiverWasRemovedOrHas, taken);
            }

            taken += handed.Meaning == AnswerMeaning.Accepted ? 1 : 0;
            lost = handed.Meaning == AnswerMeaning.Later ? lost + 1 : 0;
            if (handed.Meaning == AnswerMeaning.Closed || lost == Math.Min(MostLost, wanted.Count))
            {
                var rest = wanted.Count - i - 1;
                return (
                    $"{string.Join(' ', handed.Said)}{(rest == 0 ? "" : $" {rest} {(rest == 1 ? ReceiverTexts.FileWaits : ReceiverTexts.FilesWait)}.")}",
                    taken
                );
            }
        }

        return (null, taken);
    }

    private async Task<Handed> HandAsync(IReceiverLine line, Outgoing file, bool again, Action<string> waits, CancellationToken stop)
    {
        for (var tries = 0; ; tries++)
        {
            var handed = await line.HandAsync(file, stop);
            stop.ThrowIfCancellationRequested();
            if (handed.Meaning != AnswerMeaning.Later || !again || tries == options.DeliveryPauses.Count)
            {
                return handed;
            }

            var pause = handed.After ?? options.DeliveryPauses[tries];
            waits(ReceiverTexts.PantometTriesAgainInS(handed.Said[0], pause.TotalSeconds));
            await Task.Delay(pause, stop);
        }
    }

    private static ReceiverFileRow RowOf(
        ReceiverDeliveryRow row,
        BundleFile file,
        Outgoing outgoing,
        Handed handed,
        IReadOnlyList<ShownFile> shown
    ) =>
        new()
        {
            JobId = row.JobId,
            ReceiverId = row.ReceiverId,
            Path = outgoing.Path,
            PictureId = file.Cell.Picture.Id,
            Slot = file.Cell.Place.Address,
            ContentHash = outgoing.Hash,
            Bytes = outgoing.Bytes.Length,
            State = handed.Meaning switch
            {
                AnswerMeaning.Accepted => ReceiverFileState.Accepted,
                AnswerMeaning.Refused => ReceiverFileState.Refused,
                _ => ReceiverFileState.NotDelivered,
            },
            Said = StoredJson.Write(handed.Said),
            Shown = StoredJson.Write(shown),
            HeldHash = handed.Meaning == AnswerMeaning.Accepted ? outgoing.Hash : outgoing.HeldHash,
        };

    [LoggerMessage(Level = LogLevel.Error, Message = "Handing over {Delivery} stumbled and goes on in a while.")]
    private static partial void Stumbled(ILogger log, Guid delivery, Exception fault);
}
