using System.Buffers;
using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;
using Pantomet.Core.Geometry;
using Pantomet.Core.Pixels;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Dressing;

/// <summary>The pixels that something is written on, as far as contrast depends on them.</summary>
internal sealed class ContrastRegion : IDisposable
{
    // Ratios are told to a thousandth.
    private const int Fineness = 1000;

    private const int Tile = 16;

    // A rounding of the last digit must not fail a pixel.
    private const double Hair = 1e-6;

    private readonly PixelRows _pixels;
    private readonly Crop _area;
    private readonly FadeGoal _goal;
    private readonly int _threads;
    private readonly double _ink;
    private readonly float _dark;
    private readonly float _light;
    private readonly float[]?[] _tables = new float[FadeSolver.Whole + 1][];

    // Where the pixels begin that failed when they were last kept, and how many these are. It is borrowed: a new one each time would cost as
    // much as a look at all pixels.
    private int[] _places = [];
    private int _collected;

    // What is kept lies below what was asked for or a little above: at the amount that is found, the worst hundredth is among these.
    private const double Kept = 1.04;

    public ContrastRegion(PixelRows pixels, Crop area, FadeGoal goal, int threads)
    {
        (_pixels, _area) = pixels.Bands == 4 ? (OnWhite(pixels, area), new(0, 0, area.Width, area.Height)) : (pixels, area);
        (_goal, _threads, _ink) = (goal, threads, Contrast.LuminanceOf(goal.Ink));
        var (dark, light) = Contrast.Reaching(_ink, goal.Ratio);
        (_dark, _light) = ((float)(dark + Hair), (float)(light - Hair));
        Corner = (area.Left - _area.Left, area.Top - _area.Top);
    }

    public int Count => _area.Width * _area.Height;

    // Where the first of the own pixels lies in those that were given.
    private (int X, int Y) Corner { get; }

    /// <summary>An even choice of about so many of the pixels; all of them where they are fewer.</summary>
    public ContrastRegion Sample(int of)
    {
        if (Count <= of)
        {
            return this;
        }

        var some = PixelSample.Of(_pixels, _area, of);
        return new(some, new(0, 0, some.Width, 1), _goal, 1);
    }

    /// <summary>The first amount at which all but a hundredth reach the goal, in 255ths; 256 where none does.</summary>
    /// <param name="stride">In how large steps to look before the last of them is looked into.</param>
    public int First(int stride)
    {
        bool Reached(int level) => Failing(level) <= Count / FadeSolver.Hundredth;
        if (OnlyGains)
        {
            var (low, high) = (-1, FadeSolver.Whole + 1);
            while (high - low > 1)
            {
                var middle = (low + high) / 2;
                (low, high) = Reached(middle) ? (low, middle) : (middle, high);
            }

            return high;
        }

        for (var level = 0; ; level = Math.Min(FadeSolver.Whole, level + stride))
        {
            if (Reached(level))
            {
                for (var i = Math.Max(0, level - stride + 1); i < level; i++)
                {
                    if (Reached(i))
                    {
                        return i;
                    }
                }

                return level;
            }

            if (level == FadeSolver.Whole)
            {
                return FadeSolver.Whole + 1;
            }
        }
    }

    /// <summary>How many pixels do not reach the goal at an amount.</summary>
    /// <param name="level">The amount in 255ths.</param>
    public int Failing(int level)
    {
        var failing = 0;
        OverRows((_, from, to) => Interlocked.Add(ref failing, Inside(level, (_dark, _light), from, to, [])));
        return failing;
    }

    /// <summary>Keeps the pixels that do not reach the goal at an amount, or hardly, for what is asked of them alone.</summary>
    /// <param name="level">The amount in 255ths.</param>
    /// <returns>How many do not reach it.</returns>
    public int Collect(int level)
    {
        if (_places.Length == 0)
        {
            _places = ArrayPool<int>.Shared.Rent(Count + _threads);
        }

        // Each band writes into its own part, with one place more for what is written in vain.
        var bounds = Bounds(_goal.Ratio * Kept);
        var parts = new ConcurrentBag<(int From, int Count)>();
        OverRows(
            (band, from, to) =>
            {
                var start = (from * _area.Width) + band;
                parts.Add((start, Inside(level, bounds, from, to, _places.AsSpan(start))));
            }
        );
        _collected = 0;
        foreach (var (from, count) in parts.OrderBy(part => part.From))
        {
            _places.AsSpan(from, count).CopyTo(_places.AsSpan(_collected));
            _collected += count;
        }

        return FailingOfCollected(level);
    }

    public void Dispose()
    {
        if (_places.Length > 0)
        {
            ArrayPool<int>.Shared.Return(_places);
            _places = [];
        }
    }

    // How many pixels of some rows have a luminance between two bounds at an amount, and where they begin. Of those that green does not settle
    // none is jumped over: which are between is not to be foreseen, and a wrong guess costs more than a figure written in vain.
    private int Inside(int level, (float Dark, float Light) bounds, int from, int to, Span<int> places)
    {
        var (dark, light) = bounds;
        var found = 0;
        var passes = SettledByGreen.Of(TablesAt(level), dark, light);
        ref var table = ref MemoryMarshal.GetArrayDataReference(TablesAt(level));
        ref var place = ref MemoryMarshal.GetReference(places);
        var keeps = !places.IsEmpty;
        for (var y = from; y < to; y++)
        {
            var start = StartOf(y);
            var row = Row(y);
            ref var pixel = ref MemoryMarshal.GetReference(row);
            for (var at = 0; at < row.Length; at += 3)
            {
                if (passes.By(Unsafe.Add(ref pixel, at + 1)))
                {
                    continue;
                }

                var luminance = Luminance(ref table, ref Unsafe.Add(ref pixel, at));
                if (keeps)
                {
                    Unsafe.Add(ref place, found) = start + at;
                }

                found += (luminance > dark ? 1 : 0) & (luminance < light ? 1 : 0);
            }
        }

        return found;
    }

    /// <summary>How many of the pixels that were kept do not reach the goal at an amount.</summary>
    public int FailingOfCollected(int level)
    {
        var failing = 0;
        ref var table = ref MemoryMarshal.GetArrayDataReference(TablesAt(level));
        ref var pixels = ref MemoryMarshal.GetReference(_pixels.Values.Span);
        foreach (var place in _places.AsSpan(0, _collected))
        {
            failing += Fails(Luminance(ref table, ref Unsafe.Add(ref pixels, place))) ? 1 : 0;
        }

        return failing;
    }

    /// <summary>
    /// The contrast that all but a hundredth of the pixels have at least, at an amount, and how many do not reach the goal.
    /// </summary>
    public (double Ratio, int Failing) WorstHundredth(int level)
    {
        // What counts lies a little above what was asked for, if at all it is reached: only those near it are told apart. Where more is there, all
        // are.
        var most = Count / FadeSolver.Hundredth;
        return Counted(level, _goal.Ratio * 1.1, most) ?? Counted(level, Contrast.Most + 1, most)!.Value;
    }

    /// <summary>
    /// True where a pixel that reaches the goal goes on reaching it, and more, the more is mixed in: the colour is white or black, and what is
    /// on the ink's other side cannot reach it at all.
    /// </summary>
    public bool OnlyGains => (_goal.To == Rgb.White && _dark < 0) || (_goal.To == new Rgb(0, 0, 0) && _light > 1);

    /// <summary>
    /// The same as <see cref="WorstHundredth"/> from the pixels that were kept at a smaller amount, where <see cref="OnlyGains"/>; null where too
    /// few of them are left to tell.
    /// </summary>
    public (double Ratio, int Failing)? WorstHundredthOfCollected(int level)
    {
        var (dark, light) = Bounds(_goal.Ratio * Kept);
        ref var table = ref MemoryMarshal.GetArrayDataReference(TablesAt(level));
        ref var pixels = ref MemoryMarshal.GetReference(_pixels.Values.Span);
        var counts = new int[((int)Contrast.Most * Fineness) + 2];
        var failing = 0;
        foreach (var place in _places.AsSpan(0, _collected))
        {
            var luminance = Luminance(ref table, ref Unsafe.Add(ref pixels, place));
            if (luminance > dark && luminance < light)
            {
                counts[(int)((Contrast.Between(luminance, _ink) * Fineness) + Hair)]++;
                failing += Fails(luminance) ? 1 : 0;
            }
        }

        return Told(counts, failing, Count / FadeSolver.Hundredth);
    }

    private (float Dark, float Light) Bounds(double ratio)
    {
        var (dark, light) = Contrast.Reaching(_ink, ratio);
        return ((float)dark, (float)light);
    }

    // The ratio below which no more than may lie; null where fewer are counted.
    private static (double Ratio, int Failing)? Told(int[] counts, int failing, int most)
    {
        var left = most;
        for (var bin = 0; bin < counts.Length; bin++)
        {
            left -= counts[bin];
            if (left < 0)
            {
                return (bin / (double)Fineness, failing);
            }
        }

        return null;
    }

    // Null where fewer than enough lie below the bound.
    private (double Ratio, int Failing)? Counted(int level, double below, int most)
    {
        var counts = new int[((int)Contrast.Most * Fineness) + 2];
        var (dark, light) = Contrast.Reaching(_ink, below);
        var failing = 0;
        var passes = SettledByGreen.Of(TablesAt(level), (float)dark, (float)light);
        OverRows(
            (_, from, to) =>
            {
                var mine = new int[counts.Length];
                var count = 0;
                ref var table = ref MemoryMarshal.GetArrayDataReference(TablesAt(level));
                for (var y = from; y < to; y++)
                {
                    var row = Row(y);
                    ref var pixel = ref MemoryMarshal.GetReference(row);
                    for (var at = 0; at < row.Length; at += 3)
                    {
                        if (passes.By(Unsafe.Add(ref pixel, at + 1)))
                        {
                            continue;
                        }

                        var luminance = Luminance(ref table, ref Unsafe.Add(ref pixel, at));
                        if (luminance > dark && luminance < light)
                        {
                            mine[(int)((Contrast.Between(luminance, _ink) * Fineness) + Hair)]++;
                            count += Fails(luminance) ? 1 : 0;
                        }
                    }
                }

                Interlocked.Add(ref failing, count);
                lock (counts)
                {
                    for (var i = 0; i < counts.Length; i++)
                    {
                        counts[i] += mine[i];
                    }
                }
            }
        );
        return Told(counts, failing, most);
    }

    /// <summary>The part, of a few pixels' side, in which most do not reach the goal at an amount.</summary>
    public Crop Worst(int level)
    {
        if (_collected == 0)
        {
            Collect(level);
        }

        var (across, down) = ((_area.Width + Tile - 1) / Tile, (_area.Height + Tile - 1) / Tile);
        var counts = new int[across * down];
        ref var table = ref MemoryMarshal.GetArrayDataReference(TablesAt(level));
        ref var pixels = ref MemoryMarshal.GetReference(_pixels.Values.Span);
        foreach (var place in _places.AsSpan(0, _collected))
        {
            if (Fails(Luminance(ref table, ref Unsafe.Add(ref pixels, place))))
            {
                var (y, x) = Math.DivRem(place / 3, _pixels.Width);
                counts[((y - _area.Top) / Tile * across) + ((x - _area.Left) / Tile)]++;
            }
        }

        var (tileY, tileX) = Math.DivRem(counts.AsSpan().IndexOf(counts.Max()), across);
        var (left, top) = (Corner.X + _area.Left + (tileX * Tile), Corner.Y + _area.Top + (tileY * Tile));
        return new(left, top, Math.Min(left + Tile, Corner.X + _area.Right), Math.Min(top + Tile, Corner.Y + _area.Bottom));
    }

    /// <summary>The amount with the highest contrast of the worst hundredth; of those that are as good as that, the smallest.</summary>
    public int Nearest()
    {
        var ratios = Enumerable.Range(0, FadeSolver.Whole + 1).Select(level => WorstHundredth(level).Ratio).ToList();
        var enough = ratios.Max() * 0.995;
        return ratios.FindIndex(ratio => ratio >= enough);
    }

    private ReadOnlySpan<byte> Row(int y) => _pixels.Values.Span.Slice(StartOf(y), _area.Width * 3);

    private int StartOf(int y) => (((_area.Top + y) * _pixels.Width) + _area.Left) * 3;

    private void OverRows(Action<int, int, int> work)
    {
        var bands = Math.Clamp(Count / 50_000, 1, _threads);
        if (bands == 1)
        {
            work(0, 0, _area.Height);
            return;
        }

        Parallel.For(0, bands, band => work(band, _area.Height * band / bands, _area.Height * (band + 1) / bands));
    }

    private bool Fails(float luminance) => luminance > _dark && luminance < _light;

    // Three looked-up figures: what each channel adds once it is faded.
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private static float Luminance(ref float table, ref byte pixel) =>
        Unsafe.Add(ref table, (nint)pixel)
        + Unsafe.Add(ref table, 256 + (nint)Unsafe.Add(ref pixel, 1))
        + Unsafe.Add(ref table, 512 + (nint)Unsafe.Add(ref pixel, 2));

    private float[] TablesAt(int level)
    {
        lock (_tables)
        {
            return _tables[level] ??= Table(level);
        }
    }

    private float[] Table(int level)
    {
        ReadOnlySpan<byte> to = [_goal.To.Red, _goal.To.Green, _goal.To.Blue];
        var table = new float[3 * 256];
        for (var i = 0; i < table.Length; i++)
        {
            table[i] = (float)(Contrast.Shares[i >> 8] * Light.OfValues[FadeSolver.Mixed(i & 255, to[i >> 8], level)] / 255);
        }

        return table;
    }

    private static PixelRows OnWhite(PixelRows pixels, Crop area)
    {
        var laid = new byte[area.Width * area.Height * 3];
        for (var y = 0; y < area.Height; y++)
        {
            var row = pixels.Values.Span.Slice((((area.Top + y) * pixels.Width) + area.Left) * 4, area.Width * 4);
            for (var x = 0; x < area.Width; x++)
            {
                for (var band = 0; band < 3; band++)
                {
                    laid[(((y * area.Width) + x) * 3) + band] = FadeSolver.Mixed(row[(4 * x) + band], 255, 255 - row[(4 * x) + 3]);
                }
            }
        }

        return new(laid, area.Width, area.Height, 3);
    }
}
