using System.Diagnostics;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Engine;
using Pantomet.Imaging.Hosting;

namespace Pantomet.Server.Tests;

/// <summary>The imaging library works in processes of its own; what ends one of them ends one order and nothing else.</summary>
public sealed class EngineTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    [Fact]
    public async Task A_crash_in_native_code_ends_the_order_and_not_the_server()
    {
        var id = await server.PictureAsync("DSC_0440.JPG");
        var job = await server.JobAsync([id], ["website/grid-square"], run: "stopped");
        var engine = server.Services.GetRequiredService<ImagingProcessPool>();
        var crashed = 0;
        for (var quality = 31; quality < 40 && crashed == 0; quality++)
        {
            var answer = server.TryAsync(job, id, "website/grid-square", "jpeg", quality);
            // While the order is under way. Not the signal of a wild pointer: coming from outside it may meet managed code, which
            // takes it for a missing object and goes on.
            while (!answer.IsCompleted)
            {
                foreach (var process in engine.ProcessIds)
                {
                    using var kill = Process.Start("kill", $"-ABRT {process}");
                    await kill.WaitForExitAsync();
                }

                await Task.WhenAny(answer, Task.Delay(200));
            }

            var made = await answer;
            crashed += made.GetProperty("verdict").GetString() == "breaks" ? 1 : 0;
            Assert.True(
                crashed == 0
                    || made.GetProperty("reasons")[0]
                        .GetProperty("message")
                        .GetString()!
                        .StartsWith(ImagingProcessPool.Crashed, StringComparison.Ordinal)
            );
        }

        Assert.Equal(1, crashed);
        Assert.Equal("ready", await server.Client.GetStringAsync(new Uri("/healthz", UriKind.Relative)));
        Assert.Equal("meets", (await server.TryAsync(job, id, "website/grid-square", "jpeg", 41)).GetProperty("verdict").GetString());
        Assert.DoesNotContain(
            server.Log.Lines,
            line => line.StartsWith("Error", StringComparison.Ordinal) || line.StartsWith("Critical", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task An_order_that_is_answered_waits_for_no_clock()
    {
        await using var room = new ImagingProcessPool(new() { Data = server.Data }, clock: new StillClock());
        var answer = room.RunAsync(new ReadRequest(ServerFixture.DemoPicture("glass-falling-chart.png")), CancellationToken.None);
        // The clock of the room stands still, so that any pause in it would never end.
        Assert.Null((await answer.WaitAsync(TimeSpan.FromMinutes(1))).Refusal);
    }

    private sealed class StillClock : TimeProvider
    {
        public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period) => new Never();

        private sealed class Never : ITimer
        {
            public bool Change(TimeSpan dueTime, TimeSpan period) => true;

            public void Dispose() { }

            public ValueTask DisposeAsync() => default;
        }
    }

    [Fact]
    public async Task An_order_that_takes_too_long_is_given_up()
    {
        await using var room = new ImagingProcessPool(new() { Data = server.Data, LongestOrder = TimeSpan.FromMilliseconds(1) });
        var clock = Stopwatch.StartNew();
        var response = await room.RunAsync(new ReadRequest(ServerFixture.DemoPicture("glass-falling-chart.png")), CancellationToken.None);
        Assert.Equal(ImagingProcessPool.TookTooLong, response.Refusal);
        Assert.True(clock.Elapsed < TimeSpan.FromSeconds(10));
        Assert.Empty(room.ProcessIds);
    }

    [Fact]
    public async Task An_order_that_takes_too_much_memory_is_given_up()
    {
        await using var room = new ImagingProcessPool(new() { Data = server.Data, MostEngineBytes = 1_000_000 });
        Assert.Equal(
            ImagingProcessPool.TookTooMuch,
            (await room.RunAsync(new ReadRequest(ServerFixture.DemoPicture("glass-falling-chart.png")), CancellationToken.None)).Refusal
        );
    }

    [Fact]
    public async Task A_process_that_ended_while_idle_costs_the_next_order_nothing()
    {
        await using var room = new ImagingProcessPool(new() { Data = server.Data, Workers = 1 });
        var request = new ReadRequest(ServerFixture.DemoPicture("barometer-from-chat.jpg"));
        await room.RunAsync(request, CancellationToken.None);
        using var idle = Process.GetProcessById(Assert.Single(room.ProcessIds));
        idle.Kill();
        await idle.WaitForExitAsync();
        Assert.NotNull((await room.RunAsync(request, CancellationToken.None)).Facts);
        Assert.NotEqual(idle.Id, Assert.Single(room.ProcessIds));
    }

    [Fact]
    public async Task No_more_processes_run_than_there_are_workers_and_none_is_left_behind()
    {
        var room = new ImagingProcessPool(new() { Data = server.Data, Workers = 2 });
        var paths = new[] { "DSC_0412.JPG", "DSC_0415.JPG", "DSC_0423.JPG", "DSC_0431.JPG" };
        var outcomes = await Task.WhenAll(
            paths.Select(path => room.RunAsync(new ReadRequest(ServerFixture.DemoPicture(path)), CancellationToken.None))
        );
        Assert.All(outcomes, response => Assert.NotNull(response.Facts?.Kind));
        Assert.Equal(2, room.ProcessIds.Count);
        var processes = room.ProcessIds.ToList();
        await room.DisposeAsync();
        Assert.All(processes, id => Assert.Throws<ArgumentException>(() => Process.GetProcessById(id)));
    }

    [Fact]
    public async Task One_process_more_looks_for_subjects_whoever_asks_and_however_many()
    {
        await using var room = new ImagingProcessPool(new() { Data = server.Data, Workers = 2 });
        var path = ServerFixture.DemoPicture("P1050233.JPG");
        var facts = (await room.RunAsync(new ReadRequest(path), CancellationToken.None)).Facts!;
        Assert.False(facts.SubjectSought);
        var looks = await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(i => room.RunAsync(new DetectSubjectRequest(path, facts), CancellationToken.None, urgent: i % 2 == 0))
        );
        Assert.All(looks, look => Assert.True(look.Facts!.SubjectSought));
        Assert.Single(looks.Select(look => look.Facts!.Suggestion!.Value.Box).Distinct());
        Assert.Equal(2, room.ProcessIds.Count);
    }

    [Fact]
    public async Task An_order_can_be_stopped_and_its_process_goes_on()
    {
        await using var room = new ImagingProcessPool(new() { Data = server.Data, Workers = 1 });
        using var cancel = new CancellationTokenSource();
        var facts = (await room.RunAsync(new ReadRequest(ServerFixture.DemoPicture("P1050233.JPG")), CancellationToken.None)).Facts!;
        const string rules = """
            {"schema":"pantomet-rules/1","destinations":[{"key":"d","slots":[{"key":"a","size":{"width":2500},
            "types":["avif"],"limits":{"maxBytes":"90 kB"}}]}]}
            """;
        var process = Assert.Single(room.ProcessIds);
        var output = Path.Combine(server.Data, "stopped.avif");
        var request = room.RunAsync(Mutations.RequestFor(ServerFixture.DemoPicture("P1050233.JPG"), facts, rules, output), cancel.Token);
        await Task.Delay(300);
        await cancel.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => request);
        Assert.Equal(process, Assert.Single(room.ProcessIds));
        Assert.False(File.Exists(output));
    }

    [Theory]
    [InlineData("webp", "image/webp")]
    [InlineData("avif", "image/avif")]
    public async Task Every_type_is_made_with_its_likeness_and_the_worst_place(string format, string media)
    {
        var id = await server.PictureAsync("barometer-from-chat.jpg");
        var job = await server.JobAsync([id], ["website/grid-square"], run: "stopped");
        var file = (await server.TryAsync(job, id, "website/grid-square", format, 60)).GetProperty("file");
        Assert.InRange(file.GetProperty("likeness").GetDouble(), 0.9, 1);
        Assert.Equal(4, file.GetProperty("worstPlace").GetArrayLength());
        Assert.NotNull(file.GetProperty("likenessWord").GetString());
        var bytes = await server.Client.GetAsync(new Uri($"/api/variants/{file.GetProperty("id").GetString()}/file", UriKind.Relative));
        Assert.Equal(media, bytes.Content.Headers.ContentType!.MediaType);
        Assert.Equal(file.GetProperty("bytes").GetInt64(), bytes.Content.Headers.ContentLength);
    }
}
