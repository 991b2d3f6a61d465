using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.Hosting;
using Pantomet.Application.Jobs;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Jobs;

/// <summary>What happens to jobs, as server-sent events.</summary>
internal static class JobEventEndpoints
{
    public static void Map(RouteGroupBuilder jobs)
    {
        jobs.MapGet("/events", AllEvents)
            .WithName("watchJobs")
            .WithSummary("The jobs that changed, once a second at most, as server-sent events.");
        jobs.MapGet("/{id:guid}/events", EventsAsync)
            .WithName("watchJob")
            .AlsoForGuests()
            .WithSummary("The changes of a job, as server-sent events.");
    }

    private static ServerSentEventsResult<IReadOnlyList<JobSummary>> AllEvents(
        JobList list,
        IHostApplicationLifetime life,
        CancellationToken cancel
    ) => TypedResults.ServerSentEvents(ChangedAsync(list, life.ApplicationStopping, cancel));

    private static async IAsyncEnumerable<SseItem<IReadOnlyList<JobSummary>>> ChangedAsync(
        JobList list,
        CancellationToken stopping,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, cancel);
        // What stood before is told too: something may have happened between reading the list and listening.
        var told = new Dictionary<Guid, (long, int)>();
        do
        {
            var stamps = await list.StampsAsync(either.Token);
            var changed = stamps
                .Where(pair => !told.TryGetValue(pair.Key, out var before) || before != pair.Value)
                .Select(pair => pair.Key)
                .ToList();
            if (changed.Count > 0)
            {
                changed.ForEach(id => told[id] = stamps[id]);
                yield return new(await list.AllAsync(changed, either.Token), "jobs");
            }
        } while (await RestedAsync(either.Token));
    }

    private static async Task<bool> RestedAsync(CancellationToken cancel)
    {
        await Task.Delay(TimeSpan.FromSeconds(1), cancel).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        return !cancel.IsCancellationRequested;
    }

    private static async Task<Results<ServerSentEventsResult<JobEvent>, ProblemHttpResult>> EventsAsync(
        Guid id,
        OpenJobs open,
        JobRoom room,
        JobPresence presence,
        IHostApplicationLifetime life,
        CancellationToken cancel
    ) =>
        await open.ListenAsync(id, cancel) is { } listening
            ? TypedResults.ServerSentEvents(
                ListenAsync(listening.Board, listening.Channel, room, presence.In(id), life.ApplicationStopping, cancel)
            )
            : Problem.NoJob();

    private static async IAsyncEnumerable<SseItem<JobEvent>> ListenAsync(
        JobBoard board,
        Channel<JobEvent> channel,
        JobRoom room,
        IReadOnlyList<PersonInJob> people,
        CancellationToken stopping,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, cancel);
        try
        {
            // The first one says how things stand; whoever was away compares its sequence.
            var state = board.State;
            yield return new(new(state.Sequence, null, null, null, null, [], false, room.Judge.Progress(board), state.Run, people), "job");
            while (await NextAsync(channel.Reader, either.Token) is { } what)
            {
                yield return new(what, "job");
            }
        }
        finally
        {
            board.Leave(channel);
        }
    }

    private static async Task<JobEvent?> NextAsync(ChannelReader<JobEvent> reader, CancellationToken cancel)
    {
        try
        {
            return await reader.ReadAsync(cancel);
        }
        catch (Exception end) when (end is OperationCanceledException or ChannelClosedException)
        {
            return null;
        }
    }
}
