using Pantomet.Imaging.Making;

namespace Pantomet.Imaging.Tests;

public class WorkRoomTests
{
    [Fact]
    public async Task Never_more_work_is_done_at_once_than_there_are_workers()
    {
        var room = new WorkRoom(2);
        var (now, most) = (0, 0);
        await Task.WhenAll(
            Enumerable
                .Range(0, 40)
                .Select(_ =>
                    room.RunAsync(
                        () =>
                        {
                            most = Math.Max(most, Interlocked.Increment(ref now));
                            Thread.Sleep(5);
                            return Interlocked.Decrement(ref now);
                        },
                        CancellationToken.None
                    )
                )
        );
        Assert.InRange(most, 1, 2);
    }

    [Fact]
    public async Task What_waits_holds_nothing_and_a_large_picture_goes_in_alone()
    {
        var room = new WorkRoom(2, mostBytes: 100);
        var first = await room.HoldAsync(60, CancellationToken.None);
        var large = room.HoldAsync(500, CancellationToken.None);
        var small = room.HoldAsync(10, CancellationToken.None);
        Assert.False(large.IsCompleted);
        // In the order of asking: a small one does not slip past a large one for ever.
        Assert.False(small.IsCompleted);
        Assert.Equal(60, room.Held);
        first.Dispose();
        first.Dispose();
        var held = await large;
        Assert.Equal(500, room.Held);
        Assert.False(small.IsCompleted);
        held.Dispose();
        (await small).Dispose();
        Assert.Equal(0, room.Held);
    }

    [Fact]
    public async Task Who_gives_up_waiting_does_not_stop_the_others()
    {
        var room = new WorkRoom(1, mostBytes: 100);
        var first = await room.HoldAsync(100, CancellationToken.None);
        using var cancel = new CancellationTokenSource();
        var second = room.HoldAsync(50, cancel.Token);
        var third = room.HoldAsync(50, CancellationToken.None);
        await cancel.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => second);
        first.Dispose();
        (await third).Dispose();
        Assert.Equal(0, room.Held);
    }
}
