using System.Diagnostics.Metrics;

namespace Pantomet.Application.Background;

/// <summary>What is counted of the work, for whoever watches a server; names by the conventions of OpenTelemetry, units in seconds and files.</summary>
public static class WorkMetrics
{
    /// <summary>The name under which it is watched.</summary>
    public const string Name = "Pantomet";

    private static readonly Meter Meter = new(Name);

    private static readonly Counter<long> Files = Meter.CreateCounter<long>(
        "pantomet.files",
        "{file}",
        "Files that were made, or could not be."
    );

    private static readonly Histogram<double> Commands = Meter.CreateHistogram<double>(
        "pantomet.commands.duration",
        "s",
        "How long a list of commands took until it was stored."
    );

    /// <summary>A file came to its end.</summary>
    /// <param name="made">False when it could not be made.</param>
    public static void FileEnded(bool made) => Files.Add(1, new KeyValuePair<string, object?>("outcome", made ? "made" : "failed"));

    /// <summary>Commands were stored, or refused.</summary>
    /// <param name="took">How long that took.</param>
    public static void CommandsEnded(TimeSpan took) => Commands.Record(took.TotalSeconds);
}
