using System.Buffers;
using NetVips;
using Pantomet.Core.Pixels;

namespace Pantomet.Imaging.Rendering;

/// <summary>
/// Pixels as the imaging library wrote them, where it wrote them: a large picture is not held twice, and goes the moment it is let go.
/// </summary>
internal sealed unsafe class HeldPixels : MemoryManager<byte>
{
    private readonly int _length;
    private nint _at;

    /// <summary>Draws an image into memory.</summary>
    /// <param name="image">8-bit pixels.</param>
    /// <exception cref="VipsException">They cannot be decoded.</exception>
    public HeldPixels(Image image)
    {
        _at = image.WriteToMemory(out var size);
        _length = checked((int)size);
        Rows = new(Memory, image.Width, image.Height, image.Bands);
    }

    /// <summary>The pixels, row by row.</summary>
    public PixelRows Rows { get; }

    /// <summary>The same as an image of the library; this must outlive it.</summary>
    public Image AsImage() => Image.NewFromMemory(_at, (ulong)_length, Rows.Width, Rows.Height, Rows.Bands, Enums.BandFormat.Uchar);

    /// <inheritdoc/>
    public override Span<byte> GetSpan()
    {
        ObjectDisposedException.ThrowIf(_at == 0, this);
        return new((void*)_at, _length);
    }

    /// <inheritdoc/>
    public override MemoryHandle Pin(int elementIndex = 0) => new((byte*)_at + elementIndex);

    /// <inheritdoc/>
    public override void Unpin() { }

    /// <inheritdoc/>
    protected override void Dispose(bool disposing)
    {
        if (Interlocked.Exchange(ref _at, 0) is var at and not 0)
        {
            NetVips.NetVips.Free(at);
        }
    }
}
