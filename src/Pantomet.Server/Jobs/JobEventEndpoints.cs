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
        HttpContext context,
        SignInCheck signIn,
        IHostApplicationLifetime life,
        CancellationToken cancel
    ) => TypedResults.ServerSentEvents(ChangedAsync(list, signIn.Of(context.User), life.ApplicationStopping, cancel));

    private static async IAsyncEnumerable<SseItem<IReadOnlyList<JobSummary>>> ChangedAsync(
        JobList list,
        Func<CancellationToken, ValueTask<bool>> mayStayAsync,
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
        } while (await RestedAsync(either.Token) && await mayStayAsync(either.Token));
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
        HttpContext context,
        SignInCheck signIn,
        IHostApplicationLifetime life,
        CancellationToken cancel
    ) =>
        await open.ListenAsync(id, cancel) is { } listening
            ? TypedResults.ServerSentEvents(
                ListenAsync(
                    listening.Board,
                    listening.Channel,
                    room,
                    presence.In(id),
                    context,
                    signIn.Of(context.User),
                    life.ApplicationStopping,
                    cancel
                )
            )
            : Problem.NoJob();

    private static async IAsyncEnumerable<SseItem<JobEvent>> ListenAsync(
        JobBoard board,
        Channel<JobEvent> channel,
        JobRoom room,
        IReadOnlyList<PersonInJob> people,
        HttpContext context,
        Func<CancellationToken, ValueTask<bool>> mayStayAsync,
        CancellationToken stopping,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping, cancel);
        try
        {
            // The first one says how things stand; whoever was away compares its sequence.
            var state = board.State;
            var first = new JobEvent(state.Sequence, null, null, null, null, [], false, room.Judge.Progress(board), state.Run, people);
            yield return new(For(context, first), "job");
            while (true)
            {
                var (what, ended) = await NextAsync(channel.Reader, either.Token);
                if (ended || !await mayStayAsync(either.Token))
                {
                    yield break;
                }

                if (what is not null)
                {
                    yield return new(For(context, what), "job");
                }
            }
        }
        finally
        {
            board.Leave(channel);
        }
    }

    // Who works in a job, and who changed what, is not for its guests.
    private static JobEvent For(HttpContext context, JobEvent what) =>
        context.GuestJob() is null ? what : what with { People = null, Change = null };

    // The next event; none after a while in which nothing happened.
    private static async Task<(JobEvent? What, bool Ended)> NextAsync(ChannelReader<JobEvent> reader, CancellationToken cancel)
    {
        using var rest = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        rest.CancelAfter(SignInCheck.Interval);
        try
        {
            return (await reader.ReadAsync(rest.Token), false);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            return (null, false);
        }
        catch (Exception end) when (end is OperationCanceledException or ChannelClosedException)
        {
            return (null, true);
        }
    }
}
