using System.Security.Cryptography;
using Pantomet.Data;

namespace Pantomet.Server.Tests;

public sealed class ContentFolderTests : IDisposable
{
    private readonly string _root = Directory.CreateTempSubdirectory("pantomet-folder-").FullName;

    public void Dispose() => Directory.Delete(_root, recursive: true);

    [Fact]
    public async Task A_file_is_kept_under_its_hash_and_once_only()
    {
        var folder = new ContentFolder(_root);
        var bytes = RandomNumberGenerator.GetBytes(300_000);
        var first = await folder.StoreAsync(bytes, CancellationToken.None);
        var second = await folder.StoreAsync(bytes, CancellationToken.None);
        Assert.Equal(Convert.ToHexStringLower(SHA256.HashData(bytes)), first);
        Assert.Equal(first, second);
        Assert.Equal(bytes, await File.ReadAllBytesAsync(folder.PathOf(first)));
        Assert.Single(Directory.GetFiles(_root, "*", SearchOption.AllDirectories));
    }

    [Fact]
    public async Task What_is_received_but_not_kept_is_gone()
    {
        var folder = new ContentFolder(_root);
        using (var file = await folder.ReceiveAsync(new MemoryStream([1, 2, 3]), 10, CancellationToken.None))
        {
            Assert.Equal(3, file!.Bytes);
            Assert.False(folder.Holds(file.Hash));
        }

        Assert.Empty(Directory.GetFiles(_root, "*", SearchOption.AllDirectories));
    }

    [Fact]
    public async Task More_than_the_limit_is_not_taken()
    {
        var folder = new ContentFolder(_root);
        Assert.Null(await folder.ReceiveAsync(new MemoryStream(new byte[11]), 10, CancellationToken.None));
        using var exact = await folder.ReceiveAsync(new MemoryStream(new byte[10]), 10, CancellationToken.None);
        Assert.NotNull(exact);
    }

    [Fact]
    public async Task A_stop_in_the_middle_leaves_nothing()
    {
        var folder = new ContentFolder(_root);
        using var stop = new CancellationTokenSource();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() =>
            folder.ReceiveAsync(new StoppingStream(stop), long.MaxValue, stop.Token)
        );
        Assert.Empty(Directory.GetFiles(_root, "*", SearchOption.AllDirectories));
    }

    [Fact]
    public void What_was_arriving_when_the_last_run_ended_is_removed()
    {
        Directory.CreateDirectory(Path.Combine(_root, "incoming"));
        File.WriteAllText(Path.Combine(_root, "incoming", "left.part"), "half a picture");
        _ = new ContentFolder(_root);
        Assert.Empty(Directory.GetFiles(_root, "*", SearchOption.AllDirectories));
    }

    // Gives a few bytes, then asks for a stop, then would go on for ever.
    private sealed class StoppingStream(CancellationTokenSource stop) : MemoryStream
    {
        private int _reads;

        public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
        {
            if (_reads++ == 3)
            {
                await stop.CancelAsync();
            }

            cancellationToken.ThrowIfCancellationRequested();
            buffer.Span[..100].Clear();
            return 100;
        }
    }

    [Fact]
    public async Task A_file_that_was_changed_at_once_after_it_was_stored_is_not_taken_for_whole()
    {
        var root = Directory.CreateTempSubdirectory("pantomet-content-").FullName;
        var folder = new ContentFolder(root);
        for (var i = 0; i < 200; i++)
        {
            var hash = await folder.StoreAsync(System.Text.Encoding.UTF8.GetBytes($"content {i}"), CancellationToken.None);
            Assert.True(await folder.IsWholeAsync(hash, CancellationToken.None));
            File.WriteAllText(folder.PathOf(hash), $"Content {i}");
            Assert.False(await folder.IsWholeAsync(hash, CancellationToken.None), $"round {i}");
        }

        Directory.Delete(root, recursive: true);
    }
}
