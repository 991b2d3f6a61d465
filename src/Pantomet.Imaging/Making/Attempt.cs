using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Verdicts;

namespace Pantomet.Imaging.Making;

/// <summary>
/// A file of one type as it came out, with what was conceded for it. File and likeness are made when they are asked for: of an attempt that
/// does not fit, mostly neither is.
/// </summary>
/// <param name="format">Its type.</param>
/// <param name="quality">1 to 100; null for lossless files and palettes.</param>
/// <param name="fits">True when it is within the weight limit.</param>
/// <param name="file">Gives the file.</param>
/// <param name="likeness">Measures its likeness.</param>
internal sealed class Attempt(PictureFormat format, int? quality, bool fits, Func<byte[]> file, Func<byte[], Likeness> likeness)
{
    private readonly Lazy<byte[]> _file = new(file);
    private Likeness? _likeness;

    /// <summary>The type.</summary>
    public PictureFormat Format => format;

    /// <summary>1 to 100; null for lossless files and palettes.</summary>
    public int? Quality => quality;

    /// <summary>True when it is within the weight limit.</summary>
    public bool Fits => fits;

    /// <summary>True when no higher quality is allowed.</summary>
    public bool AtCeiling { get; init; }

    /// <summary>The file.</summary>
    public byte[] File => _file.Value;

    /// <summary>Its weight in bytes.</summary>
    public long Bytes => File.LongLength;

    /// <summary>Its likeness.</summary>
    public Likeness Likeness => _likeness ??= likeness(File);

    /// <summary>The same with file and likeness made: what they are made from may go away.</summary>
    public Attempt Settled()
    {
        _ = Likeness;
        return this;
    }

    /// <summary>What was given up.</summary>
    public List<Reason> Concessions { get; } = [];

    /// <summary>What is worth knowing and changes no verdict.</summary>
    public List<Reason> Notes { get; } = [];
}
