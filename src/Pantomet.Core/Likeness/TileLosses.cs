using System.Runtime.CompilerServices;
using System.Runtime.Intrinsics;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Likeness;

/// <summary>
/// What each tile of a file lacks in likeness. Rows of both pictures come in from top to bottom, as many at a time as are at hand; only a few
/// are held. Not for several threads.
/// </summary>
/// <remarks>
/// <para>
/// Structure: the contrast and structure of Z. Wang, E. Simoncelli, A. Bovik, "Multi-scale structural similarity for image quality assessment",
/// Asilomar 2003, on luma at five scales with the exponents of its section 3.2 as weights of a sum.
/// </para>
/// <para>
/// What structure does not see, as it is no larger where nothing else is: the mean of an area that moved, in luma and, where the area is flat,
/// as CIEDE2000; and colour that went astray at full size, at edges most of all, which strong luma beside it hides in part.
/// </para>
/// <para>The weights are calibrated in docs/likeness.md.</para>
/// </remarks>
public sealed class TileLosses
{
    // From losses of windows to 1 − score: so that words and aims stand where they stood before colours counted in full.
    private const double Scale = 0.65;

    // Wang et al. 2003, section 3.2.
    private static readonly double[] Exponents = [0.0448, 0.2856, 0.3001, 0.2363, 0.1333];

    // Wang et al. 2004: (0.03 · 255)².
    private const float Contrast = 58.5225f;

    // A square of a difference of means in luma.
    private const float Moved = 0.019f;

    // A fourth power of CIEDE2000 in a flat window: far below 1 it says nothing, from 2 on it rules.
    private const double Recoloured = 0.0003;

    // Luma of this deviation halves what is called flat.
    private const double Flat = 3;

    // Where means differ less, in luma and in blue or red above it, CIEDE2000 is below 1 and needs not be worked out.
    private const float StillLuma = 1.2f;
    private const float StillColour = 1.6f;

    // A square of a difference in red above luma, and in blue; luma of this variance hides half of it.
    private const float Red = 0.0017f * 0.713f * 0.713f;
    private const float Blue = 0.25f * 0.0017f * 0.564f * 0.564f;
    private const float Hidden = 30;

    private const int WindowsOfTile = LikenessMeter.Tile / WindowStage.Step;

    private readonly PixelSize _size;
    private readonly int _bands;
    private readonly int _columns;
    private readonly int _lines;
    private readonly double[] _weights;
    private readonly double[][] _sums;
    private readonly int[][] _counts;
    private readonly WindowStage _luma;
    private readonly WindowStage? _blue;
    private readonly WindowStage? _red;
    private readonly float[] _values;
    private WindowRow _lumaRow;
    private WindowRow _blueRow;
    private int _added;
    private bool _ended;

    /// <summary>Begins.</summary>
    /// <param name="size">The size of both pictures in pixels.</param>
    /// <param name="bands">3 for red, green and blue, 1 for grey.</param>
    /// <exception cref="ArgumentOutOfRangeException">Another number of bands.</exception>
    public TileLosses(PixelSize size, int bands)
    {
        if (bands is not (1 or 3))
        {
            throw new ArgumentOutOfRangeException(nameof(bands), bands, "1 or 3 are measured");
        }

        (_size, _bands) = (size, bands);
        (_columns, _lines) = (TilesIn(size.Width), TilesIn(size.Height));
        var scales = 1;
        while (scales < Exponents.Length && Math.Min(size.Width, size.Height) >> scales >= 2 * WindowStage.Step)
        {
            scales++;
        }

        // Of a small picture the scales that are left share all of the weight.
        var total = Exponents.Take(scales).Sum();
        _weights = [.. Exponents.Take(scales).Select(exponent => exponent / total)];
        _sums = [.. _weights.Select(_ => new double[_columns * _lines])];
        _counts = [.. _weights.Select(_ => new int[_columns * _lines])];
        _luma = new(size.Width, 0, scales, TakeLuma);
        if (bands == 3)
        {
            _blue = new(size.Width, 0, 1, (_, _, in windows) => _blueRow = windows);
            _red = new(size.Width, 0, 1, TakeColour);
        }

        _values = new float[size.Width + (2 * WindowsOfTile)];
    }

    /// <summary>How many tiles stand side by side.</summary>
    /// <param name="side">A side in pixels.</param>
    internal static int TilesIn(int side) => (side + LikenessMeter.Tile - 1) / LikenessMeter.Tile;

    /// <summary>Takes the next rows of both.</summary>
    /// <param name="reference">Rows of the pixels uncompressed.</param>
    /// <param name="file">As many rows of the file's pixels.</param>
    /// <exception cref="ArgumentException">The bytes are no whole rows, differ in number, or are more than the picture has.</exception>
    public void Add(ReadOnlySpan<byte> reference, ReadOnlySpan<byte> file)
    {
        var row = _size.Width * _bands;
        if (reference.Length != file.Length || reference.Length % row != 0 || _added + (reference.Length / row) > _size.Height)
        {
            throw new ArgumentException(
                $"{reference.Length} and {file.Length} bytes are no rows of {row} to follow {_added}",
                nameof(file)
            );
        }

        for (var at = 0; at < reference.Length; at += row)
        {
            AddRow(reference.Slice(at, row), file.Slice(at, row));
        }
    }

    /// <summary>What each tile lacks, 1 − score, row by row. No rows can be added after it.</summary>
    /// <exception cref="InvalidOperationException">Rows are missing.</exception>
    public double[] Each()
    {
        End();
        var losses = new double[_columns * _lines];
        for (var i = 0; i < losses.Length; i++)
        {
            double loss = 0;
            for (var scale = 0; scale < _weights.Length; scale++)
            {
                var from = WithWindows(i, _counts[scale]);
                loss += _sums[scale][from] / Math.Max(1, _counts[scale][from]);
            }

            losses[i] = Math.Min(1, Scale * loss);
        }

        return losses;
    }

    /// <summary>All together. No rows can be added after it.</summary>
    /// <exception cref="InvalidOperationException">Rows are missing.</exception>
    public Likeness Together() => LikenessMeter.Together(Each(), _size);

    // A tile at the edge in which no window begins shares those of its neighbours before it.
    private int WithWindows(int tile, int[] counts)
    {
        var (column, line) = (tile % _columns, tile / _columns);
        while (counts[(line * _columns) + column] == 0 && column + line > 0)
        {
            var upper = line > 0 && counts[((line - 1) * _columns) + column] > 0;
            (column, line) = upper || column == 0 ? (column, line - 1) : (column - 1, line);
        }

        return (line * _columns) + column;
    }

    private void AddRow(ReadOnlySpan<byte> reference, ReadOnlySpan<byte> file)
    {
        if (_blue is null || _red is null)
        {
            ColourRow.Split(reference, _bands, _luma.NextOfReference, [], []);
            ColourRow.Split(file, _bands, _luma.NextOfFile, [], []);
            _luma.Take();
        }
        else
        {
            ColourRow.Split(reference, _bands, _luma.NextOfReference, _blue.NextOfReference, _red.NextOfReference);
            ColourRow.Split(file, _bands, _luma.NextOfFile, _blue.NextOfFile, _red.NextOfFile);
            _luma.Take();
            _blue.Take();
            _red.Take();
        }

        _added++;
    }

    private void End()
    {
        if (_added < _size.Height)
        {
            throw new InvalidOperationException($"{_added} of {_size.Height} rows were added");
        }

        if (_ended)
        {
            return;
        }

        _ended = true;
        _luma.End();
        _blue?.End();
        _red?.End();
    }

    private void TakeLuma(int scale, int row, in WindowRow windows)
    {
        if (scale == 0)
        {
            _lumaRow = windows;
        }

        Structure(windows, (float)_weights[scale], scale == 0 ? Moved : 0);
        AddUp(scale, row, windows.Count, counted: true);
    }

    // Luma of the same windows was taken just before, and blue.
    private void TakeColour(int scale, int row, in WindowRow windows)
    {
        Astray(windows);
        if (row % 2 == 0)
        {
            Recolour(windows);
        }

        AddUp(0, row, windows.Count, counted: false);
    }

    [MethodImpl(MethodImplOptions.AggressiveOptimization)]
    private void Structure(in WindowRow windows, float weight, float moved)
    {
        var (share, mean, contrast) = (Vector256.Create(weight), Vector256.Create(moved), Vector256.Create(Contrast));
        for (var at = 0; at < windows.Count; at += Vector256<float>.Count)
        {
            var variances = Vector256.LoadUnsafe(ref windows.Variance[at]) + Vector256.LoadUnsafe(ref windows.FileVariance[at]);
            var off = Vector256.LoadUnsafe(ref windows.Off[at]);
            var lost = share * Vector256.LoadUnsafe(ref windows.Error[at]) / (variances + contrast);
            (lost + (mean * off * off)).StoreUnsafe(ref _values[at]);
        }
    }

    [MethodImpl(MethodImplOptions.AggressiveOptimization)]
    private void Astray(in WindowRow red)
    {
        var (one, hidden) = (Vector256.Create(1f), Vector256.Create(1 / Hidden));
        for (var at = 0; at < red.Count; at += Vector256<float>.Count)
        {
            var seen = one + (hidden * Vector256.LoadUnsafe(ref _lumaRow.Variance[at]));
            ((Square(red, at) * Red) + (Square(_blueRow, at) * Blue)).StoreUnsafe(ref _values[at]);
            (Vector256.LoadUnsafe(ref _values[at]) / seen).StoreUnsafe(ref _values[at]);
        }
    }

    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private static Vector256<float> Square(in WindowRow windows, int at)
    {
        var off = Vector256.LoadUnsafe(ref windows.Off[at]);
        return Vector256.LoadUnsafe(ref windows.Error[at]) + (off * off);
    }

    // Every other window of every other row: those cover the picture once.
    private void Recolour(in WindowRow red)
    {
        const double covered = 4;
        for (var at = 0; at < red.Count; at += 2)
        {
            var (luma, blues, reds) = (_lumaRow.Off[at], _blueRow.Off[at], red.Off[at]);
            var flatness = 1 / (1 + (_lumaRow.Variance[at] / (Flat * Flat)));
            if (flatness < 0.05 || (Math.Abs(luma) < StillLuma && Math.Max(Math.Abs(blues), Math.Abs(reds)) < StillColour))
            {
                continue;
            }

            var before = Lab(_lumaRow.Mean[at], _blueRow.Mean[at], red.Mean[at]);
            var after = Lab(_lumaRow.Mean[at] - luma, _blueRow.Mean[at] - blues, red.Mean[at] - reds);
            var difference = before.To(after);
            _values[at] += (float)(covered * Recoloured * flatness * difference * difference * difference * difference);
        }
    }

    private static CieLab Lab(float luma, float blue, float red)
    {
        var (r, b) = (luma + red, luma + blue);
        return CieLab.Of(r, (luma - (ColourRow.RedShare * r) - (ColourRow.BlueShare * b)) / ColourRow.GreenShare, b);
    }

    private void AddUp(int scale, int row, int count, bool counted)
    {
        var (sums, counts) = (_sums[scale], _counts[scale]);
        var line = Math.Min(_lines - 1, (row << scale) / WindowsOfTile) * _columns;
        var step = Math.Max(1, WindowsOfTile >> scale);
        for (var at = 0; at < count; at += step)
        {
            var tile = line + Math.Min(_columns - 1, (at << scale) / WindowsOfTile);
            var end = Math.Min(count, at + step);
            float sum = 0;
            for (var i = at; i < end; i++)
            {
                sum += _values[i];
            }

            sums[tile] += sum;
            counts[tile] += counted ? end - at : 0;
        }
    }
}
