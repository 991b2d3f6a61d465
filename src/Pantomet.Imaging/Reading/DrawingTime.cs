using Pantomet.Core.Facts;
using Pantomet.Core.Texts;

namespace Pantomet.Imaging.Reading;

/// <summary>
/// How long a drawing may be drawn. A few hundred bytes of nested masks, a filter or a dashed path can ask for minutes, and what draws them
/// cannot be stopped on the way: only its process can be ended.
/// </summary>
public static class DrawingTime
{
    /// <summary>The most time of one core that drawing may take: five seconds.</summary>
    public static readonly TimeSpan Most = TimeSpan.FromSeconds(5);

    /// <summary>What is said of a drawing that takes longer.</summary>
    public const string Refusal = PictureTexts.ThisDrawingTakesMoreThanSeconds;

    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(100);

    /// <summary>What is done when a drawing takes longer; null where nothing watches, as there is no process to end.</summary>
    internal static Action? Over { get; set; }

    /// <summary>Watches while something is decoded, until it is disposed of; null where there is nothing to watch.</summary>
    internal static IDisposable? Watch(PictureFormat? format) => format == PictureFormat.Svg && Over is { } over ? new Watcher(over) : null;

    // The time of one core, not that of the clock: a machine with much to do refuses nothing that it would draw at another time.
    private sealed class Watcher : IDisposable
    {
        private readonly TimeSpan _before = Environment.CpuUsage.TotalTime;
        private readonly Timer _timer;

        public Watcher(Action over) =>
            _timer = new(
                _ =>
                {
                    if (Environment.CpuUsage.TotalTime - _before > Most)
                    {
                        over();
                    }
                },
                null,
                Look,
                Look
            );

        public void Dispose() => _timer.Dispose();
    }
}
