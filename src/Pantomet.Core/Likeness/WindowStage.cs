using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;
using System.Runtime.Intrinsics;

namespace Pantomet.Core.Likeness;

/// <summary>
/// One channel of two pictures at one scale. Rows come in from top to bottom; what windows of 8 × 8 values, one every four, have in mean,
/// variance and difference goes out row by row, and rows of half the size go to the next scale. Only a few rows are held.
/// </summary>
/// <remarks>
/// Means and variances over square windows that overlap by half are how Z. Wang and A. Bovik, "A Universal Image Quality Index", IEEE Signal
/// Processing Letters 9 (3), 2002, slide a window of 8 × 8 over the picture; a step of four instead of one changes its mean hardly at all.
/// </remarks>
internal sealed class WindowStage
{
    /// <summary>The step from window to window, in values of this scale.</summary>
    public const int Step = 4;

    private const int Sums = 5;
    private const float Count = 4 * Step * Step;

    private static Vector256<float> Zero => Vector256<float>.Zero;

    private readonly int _width;
    private readonly int _padded;
    private readonly TakeRow _take;
    private readonly WindowStage? _coarser;
    private readonly float[] _x;
    private readonly float[] _y;
    private readonly float[][] _vertical;
    private readonly float[][] _sums;
    private readonly float[][] _windows;
    private int _rows;
    private int _blockRows;

    /// <summary>Makes the stage of a channel and all coarser ones.</summary>
    /// <param name="width">Values across.</param>
    /// <param name="scale">0 for the finest.</param>
    /// <param name="scales">How many there are.</param>
    /// <param name="take">Is given what each row of windows has.</param>
    public WindowStage(int width, int scale, int scales, TakeRow take)
    {
        (_width, Scale, _take) = (width, scale, take);
        // Whole blocks, two at least; edges are repeated.
        _padded = Math.Max(2, (width + Step - 1) / Step) * Step;
        var room = _padded + Vector256<float>.Count;
        (_x, _y) = (new float[Step * room], new float[Step * room]);
        _vertical = Rows(room);
        var blocks = (_padded / Step) + Vector256<float>.Count;
        (_sums, _windows) = (Rows(2 * blocks), Rows(blocks));
        Stride = room;
        Blocks = blocks;
        _coarser = scale + 1 < scales ? new(_padded / 2, scale + 1, scales, take) : null;
    }

    /// <summary>Is given a row of windows.</summary>
    /// <param name="scale">The scale, 0 for the finest.</param>
    /// <param name="row">The row of windows, from 0.</param>
    /// <param name="windows">What they have.</param>
    public delegate void TakeRow(int scale, int row, in WindowRow windows);

    /// <summary>The scale, 0 for the finest.</summary>
    public int Scale { get; }

    private int Stride { get; }

    private int Blocks { get; }

    /// <summary>Where the next row of the reference is to be written, as wide as the stage.</summary>
    public Span<float> NextOfReference => _x.AsSpan(_rows * Stride, _width);

    /// <summary>Where the next row of the file is to be written.</summary>
    public Span<float> NextOfFile => _y.AsSpan(_rows * Stride, _width);

    /// <summary>Takes the rows that were written.</summary>
    public void Take()
    {
        Fill(_x.AsSpan(_rows * Stride, Stride));
        Fill(_y.AsSpan(_rows * Stride, Stride));
        if (++_rows == Step)
        {
            Finish();
        }
    }

    /// <summary>Ends the picture: what is left of its last rows is filled up by repeating them.</summary>
    public void End()
    {
        while (_rows != 0 || _blockRows == 1)
        {
            // Of a picture with one row of blocks alone the last row that was held still stands in the buffer.
            var last = (_rows == 0 ? Step - 1 : _rows - 1) * Stride;
            _x.AsSpan(last, _width).CopyTo(NextOfReference);
            _y.AsSpan(last, _width).CopyTo(NextOfFile);
            Take();
        }

        _coarser?.End();
    }

    private static float[][] Rows(int length) => [.. Enumerable.Range(0, Sums).Select(_ => new float[length])];

    // Edges are repeated.
    private void Fill(Span<float> row) => row[_width..].Fill(row[_width - 1]);

    private void Finish()
    {
        _rows = 0;
        SumDown();
        var current = (_blockRows & 1) * Blocks;
        SumAcross(current);
        _blockRows++;
        if (_blockRows > 1)
        {
            Windows();
            _take(Scale, _blockRows - 2, new(_windows[0], _windows[1], _windows[2], _windows[3], _windows[4], (_padded / Step) - 1));
        }

        if (_coarser is not null)
        {
            for (var pair = 0; pair < Step; pair += 2)
            {
                Halve(_x, pair * Stride, _coarser.NextOfReference);
                Halve(_y, pair * Stride, _coarser.NextOfFile);
                _coarser.Take();
            }
        }
    }

    // Of each column of four rows: the values, the differences, and the squares of both pictures and of the differences.
    [MethodImpl(MethodImplOptions.AggressiveOptimization)]
    private void SumDown()
    {
        ref var x = ref MemoryMarshal.GetArrayDataReference(_x);
        ref var y = ref MemoryMarshal.GetArrayDataReference(_y);
        ref var toX = ref MemoryMarshal.GetArrayDataReference(_vertical[0]);
        ref var toD = ref MemoryMarshal.GetArrayDataReference(_vertical[1]);
        ref var toXx = ref MemoryMarshal.GetArrayDataReference(_vertical[2]);
        ref var toYy = ref MemoryMarshal.GetArrayDataReference(_vertical[3]);
        ref var toDd = ref MemoryMarshal.GetArrayDataReference(_vertical[4]);
        var stride = (nuint)Stride;
        for (nuint at = 0; at < (nuint)_padded; at += (nuint)Vector256<float>.Count)
        {
            var (x0, x1) = (Vector256.LoadUnsafe(ref x, at), Vector256.LoadUnsafe(ref x, at + stride));
            var (x2, x3) = (Vector256.LoadUnsafe(ref x, at + (2 * stride)), Vector256.LoadUnsafe(ref x, at + (3 * stride)));
            var (y0, y1) = (Vector256.LoadUnsafe(ref y, at), Vector256.LoadUnsafe(ref y, at + stride));
            var (y2, y3) = (Vector256.LoadUnsafe(ref y, at + (2 * stride)), Vector256.LoadUnsafe(ref y, at + (3 * stride)));
            var (d0, d1, d2, d3) = (x0 - y0, x1 - y1, x2 - y2, x3 - y3);
            (x0 + x1 + x2 + x3).StoreUnsafe(ref toX, at);
            (d0 + d1 + d2 + d3).StoreUnsafe(ref toD, at);
            ((x0 * x0) + (x1 * x1) + (x2 * x2) + (x3 * x3)).StoreUnsafe(ref toXx, at);
            ((y0 * y0) + (y1 * y1) + (y2 * y2) + (y3 * y3)).StoreUnsafe(ref toYy, at);
            ((d0 * d0) + (d1 * d1) + (d2 * d2) + (d3 * d3)).StoreUnsafe(ref toDd, at);
        }
    }

    [MethodImpl(MethodImplOptions.AggressiveOptimization)]
    private void SumAcross(int current)
    {
        for (var sum = 0; sum < Sums; sum++)
        {
            ref var from = ref MemoryMarshal.GetArrayDataReference(_vertical[sum]);
            var to = _sums[sum].AsSpan(current);
            for (var block = 0; block < _padded / Step; block++)
            {
                to[block] = Vector128.Sum(Vector128.LoadUnsafe(ref from, (nuint)(block * Step)));
            }
        }
    }

    // Two blocks across and down make a window.
    [MethodImpl(MethodImplOptions.AggressiveOptimization)]
    private void Windows()
    {
        var windows = (_padded / Step) - 1;
        var share = Vector256.Create(1 / Count);
        for (var at = 0; at < windows; at += Vector256<float>.Count)
        {
            var mean = Four(_sums[0], at) * share;
            var off = Four(_sums[1], at) * share;
            var other = mean - off;
            mean.StoreUnsafe(ref _windows[0][at]);
            off.StoreUnsafe(ref _windows[1][at]);
            Vector256.Max((Four(_sums[2], at) * share) - (mean * mean), Zero).StoreUnsafe(ref _windows[2][at]);
            Vector256.Max((Four(_sums[3], at) * share) - (other * other), Zero).StoreUnsafe(ref _windows[3][at]);
            Vector256.Max((Four(_sums[4], at) * share) - (off * off), Zero).StoreUnsafe(ref _windows[4][at]);
        }
    }

    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private Vector256<float> Four(float[] sums, int at)
    {
        ref var first = ref MemoryMarshal.GetArrayDataReference(sums);
        return Vector256.LoadUnsafe(ref first, (nuint)at)
            + Vector256.LoadUnsafe(ref first, (nuint)(at + 1))
            + Vector256.LoadUnsafe(ref first, (nuint)(at + Blocks))
            + Vector256.LoadUnsafe(ref first, (nuint)(at + Blocks + 1));
    }

    [MethodImpl(MethodImplOptions.AggressiveOptimization)]
    private void Halve(float[] rows, int from, Span<float> half)
    {
        ref var first = ref MemoryMarshal.GetArrayDataReference(rows);
        ref var to = ref MemoryMarshal.GetReference(half);
        var (swapped, even) = (Vector256.Create(1, 0, 3, 2, 5, 4, 7, 6), Vector256.Create(0, 2, 4, 6, 0, 2, 4, 6));
        var quarter = Vector256.Create(0.25f);
        for (var at = 0; at < _padded; at += Vector256<float>.Count)
        {
            var down = Vector256.LoadUnsafe(ref first, (nuint)(from + at)) + Vector256.LoadUnsafe(ref first, (nuint)(from + Stride + at));
            var pairs = (down + Vector256.Shuffle(down, swapped)) * quarter;
            Vector256.Shuffle(pairs, even).GetLower().StoreUnsafe(ref to, (nuint)(at / 2));
        }
    }
}

/// <summary>What a row of windows has.</summary>
/// <param name="Mean">The mean of the reference.</param>
/// <param name="Off">How far the reference's mean lies above the file's.</param>
/// <param name="Variance">The variance of the reference.</param>
/// <param name="FileVariance">The variance of the file.</param>
/// <param name="Error">The variance of the difference.</param>
/// <param name="Count">How many windows there are; there is room behind them.</param>
internal readonly record struct WindowRow(float[] Mean, float[] Off, float[] Variance, float[] FileVariance, float[] Error, int Count);
