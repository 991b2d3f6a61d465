using Pantomet.Application.Variants;

namespace Pantomet.Application.Jobs;

/// <summary>How fast files are being made: pixels written in the last while, on the clock on the wall.</summary>
public sealed class Pace
{
    private const int Remembered = 40;
    private const int Needed = 3;
    private const long Overhead = 300_000;
    private readonly Queue<(DateTime Began, DateTime At, double Work)> _done = new();

    /// <summary>How much work a file is: its pixels, and a share for every file.</summary>
    public static long WorkOf(WantedFile file) => WorkOf(file.Request.Plan.Size.Area);

    /// <summary>How much work a file of so many pixels is.</summary>
    public static long WorkOf(long area) => area + Overhead;

    /// <summary>Adds a file that was made between two moments, with its share of the work.</summary>
    public void Add(DateTime began, DateTime at, double work)
    {
        lock (_done)
        {
            _done.Enqueue((began, at, work));
            while (_done.Count > Remembered)
            {
                _done.Dequeue();
            }
        }
    }

    /// <summary>Forgets all files.</summary>
    public void Forget()
    {
        lock (_done)
        {
            _done.Clear();
        }
    }

    /// <summary>Seconds that this much work takes; null while too little was seen.</summary>
    public double? SecondsFor(double work)
    {
        lock (_done)
        {
            if (_done.Count < Needed)
            {
                return null;
            }

            var seconds = (_done.Max(one => one.At) - _done.Min(one => one.Began)).TotalSeconds;
            return seconds <= 0 ? null : work * seconds / _done.Sum(one => one.Work);
        }
    }
}
