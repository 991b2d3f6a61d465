using Microsoft.AspNetCore.Http;
using Pantomet.Core.Texts;

namespace Pantomet.Server.Door;

/// <summary>
/// A request's body that must keep coming. The server's own least rate is a mean over all of it: who sends a burst first may then send nothing for
/// minutes, and hold a connection and a half file for that long.
/// </summary>
/// <param name="inner">The body as it comes.</param>
/// <param name="longest">How long nothing may come.</param>
internal sealed class SteadyBody(Stream inner, TimeSpan longest) : Stream
{
    public override bool CanRead => true;

    public override bool CanSeek => false;

    public override bool CanWrite => false;

    public override long Length => throw new NotSupportedException();

    public override long Position
    {
        get => throw new NotSupportedException();
        set => throw new NotSupportedException();
    }

    public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancellationToken);
        limit.CancelAfter(longest);
        try
        {
            return await inner.ReadAsync(buffer, limit.Token);
        }
        catch (OperationCanceledException) when (!cancellationToken.IsCancellationRequested)
        {
            throw new BadHttpRequestException(ServerTexts.NoDataArrivedForSThe(longest.TotalSeconds), StatusCodes.Status408RequestTimeout);
        }
    }

    public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    public override void Flush() { }

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
}
