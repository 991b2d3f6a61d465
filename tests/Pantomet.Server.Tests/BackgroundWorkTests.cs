using System.Collections.Concurrent;
using Microsoft.Extensions.Logging.Abstractions;
using Pantomet.Application.Background;

namespace Pantomet.Server.Tests;

/// <summary>Work in the background alone: it begins once, goes on after a fault, and ends when it is asked to.</summary>
public sealed class BackgroundWorkTests
{
    [Fact]
    public async Task A_step_that_fails_rests_and_the_work_goes_on()
    {
        using var work = new Steps(step => step == 2 ? throw new IOException("The disk is away.") : Task.CompletedTask, enough: 4);
        await work.StartAsync(CancellationToken.None);
        await work.Enough.Task.WaitAsync(TimeSpan.FromMinutes(1));
        await work.StopAsync(CancellationToken.None);
        Assert.Equal((1, true), (work.Begun, work.Ended));
        Assert.True(work.Count >= 4);
    }

    [Fact]
    public async Task What_must_be_done_first_is_tried_until_it_succeeds()
    {
        using var work = new Steps(_ => Task.CompletedTask, enough: 1, beginsAfter: 2);
        await work.StartAsync(CancellationToken.None);
        await work.Enough.Task.WaitAsync(TimeSpan.FromMinutes(1));
        await work.StopAsync(CancellationToken.None);
        Assert.Equal(3, work.Begun);
    }

    [Fact]
    public async Task One_that_is_stopped_has_ended_once_stopping_returns_and_the_next_one_goes_on()
    {
        using var queue = new Queue();
        var (first, second) = (Guid.NewGuid(), Guid.NewGuid());
        queue.Waiting.Enqueue(first);
        await queue.StartAsync(CancellationToken.None);
        queue.Ring();
        await queue.Began.Reader.ReadAsync();
        Assert.Equal("half", queue.ProgressOf(first));
        await queue.StopAsync(first);
        Assert.Null(queue.ProgressOf(first));
        // Whoever stopped it has said so: it is not told once more that it ended.
        Assert.DoesNotContain(first, queue.Told);
        queue.Waiting.Enqueue(second);
        queue.Ring();
        Assert.Equal(second, await queue.Began.Reader.ReadAsync());
        queue.Release.SetResult();
        await queue.StopAsync(CancellationToken.None);
    }

    private sealed class Steps(Func<int, Task> step, int enough, int beginsAfter = 0) : BackgroundWork(NullLogger.Instance)
    {
        public TaskCompletionSource Enough { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        public int Count { get; private set; }

        public int Begun { get; private set; }

        public bool Ended { get; private set; }

        protected override Task BeginAsync(CancellationToken stopping) =>
            Begun++ < beginsAfter ? throw new InvalidOperationException("Not yet.") : Task.CompletedTask;

        protected override async Task StepAsync(CancellationToken stopping)
        {
            if (++Count >= enough)
            {
                Enough.TrySetResult();
            }

            await step(Count);
            await Task.Delay(1, stopping);
        }

        protected override Task EndAsync()
        {
            Ended = true;
            return Task.CompletedTask;
        }
    }

    private sealed class Queue() : QueueWorker<string>(NullLogger.Instance)
    {
        public ConcurrentQueue<Guid> Waiting { get; } = [];

        public ConcurrentBag<Guid> Told { get; } = [];

        public System.Threading.Channels.Channel<Guid> Began { get; } = System.Threading.Channels.Channel.CreateUnbounded<Guid>();

        public TaskCompletionSource Release { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);

        protected override async Task<bool> NextAsync(CancellationToken stopping)
        {
            if (!Waiting.TryDequeue(out var id))
            {
                return false;
            }

            await RunAsync(
                id,
                async (tells, stop) =>
                {
                    tells("half");
                    Began.Writer.TryWrite(id);
                    await Release.Task.WaitAsync(stop);
                    return null;
                },
                _ =>
                {
                    Told.Add(id);
                    return Task.CompletedTask;
                },
                stopping
            );
            return true;
        }
    }
}
