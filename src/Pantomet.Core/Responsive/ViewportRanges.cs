namespace Pantomet.Core.Responsive;

/// <summary>Some widths of the viewport, in whole CSS pixels: disjoint ranges, ascending, their ends included.</summary>
public sealed class ViewportRanges
{
    /// <summary>The widest viewport that is told apart, in CSS pixels; what holds there holds for all wider ones.</summary>
    public const int Widest = 100_000;

    private readonly (int From, int To)[] _parts;

    private ViewportRanges((int From, int To)[] parts) => _parts = parts;

    /// <summary>Every viewport.</summary>
    public static ViewportRanges All { get; } = new([(0, Widest)]);

    /// <summary>No viewport.</summary>
    public static ViewportRanges None { get; } = new([]);

    /// <summary>The ranges.</summary>
    public IReadOnlyList<(int From, int To)> Parts => _parts;

    /// <summary>True when no viewport is among them.</summary>
    public bool IsEmpty => _parts.Length == 0;

    /// <summary>The viewports from one width to another; none when they are the wrong way round.</summary>
    public static ViewportRanges Between(int from, int to)
    {
        var (low, high) = (Math.Max(0, from), Math.Min(Widest, to));
        return low > high ? None : new([(low, high)]);
    }

    /// <summary>True when the viewport is among them.</summary>
    public bool Contains(int viewport) => Array.Exists(_parts, part => part.From <= viewport && viewport <= part.To);

    /// <summary>Those that are in both.</summary>
    public ViewportRanges And(ViewportRanges other)
    {
        ArgumentNullException.ThrowIfNull(other);
        var parts = new List<(int, int)>();
        foreach (var mine in _parts)
        {
            foreach (var (from, to) in other._parts)
            {
                if (Math.Max(mine.From, from) is var low && Math.Min(mine.To, to) is var high && low <= high)
                {
                    parts.Add((low, high));
                }
            }
        }

        return new([.. parts]);
    }

    /// <summary>Those that are not among these.</summary>
    public ViewportRanges Not()
    {
        var parts = new List<(int, int)>();
        var next = 0;
        foreach (var (from, to) in _parts)
        {
            if (from > next)
            {
                parts.Add((next, from - 1));
            }

            next = to + 1;
        }

        if (next <= Widest)
        {
            parts.Add((next, Widest));
        }

        return new([.. parts]);
    }

    /// <summary>Those that are in one of them at least.</summary>
    public ViewportRanges Or(ViewportRanges other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return Not().And(other.Not()).Not();
    }
}
