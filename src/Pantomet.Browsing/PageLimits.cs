namespace Pantomet.Browsing;

/// <summary>How long a page may take, and how much of it is looked at.</summary>
public sealed record PageLimits
{
    /// <summary>The longest that an empty tab may take.</summary>
    public TimeSpan Opening { get; init; } = TimeSpan.FromSeconds(10);

    /// <summary>The longest that loading is waited for on one screen.</summary>
    public TimeSpan Loading { get; init; } = TimeSpan.FromSeconds(20);

    /// <summary>The longest that is waited for what scrolling brings.</summary>
    public TimeSpan Settling { get; init; } = TimeSpan.FromSeconds(8);

    /// <summary>The longest that a page may take to answer a question.</summary>
    public TimeSpan Answering { get; init; } = TimeSpan.FromSeconds(30);

    /// <summary>The longest that all screens together may take; those that are left then are not looked at.</summary>
    public TimeSpan Whole { get; init; } = TimeSpan.FromMinutes(5);

    /// <summary>The most memory that the browser and all its processes may take together, in bytes.</summary>
    public long MostBytes { get; init; } = 2_000_000_000;

    /// <summary>How many first screens a page is scrolled down.</summary>
    public int MostSteps { get; init; } = 60;

    /// <summary>How many documents within documents are looked at.</summary>
    public int MostFrames { get; init; } = 40;

    /// <summary>How often a page may go elsewhere by itself.</summary>
    public int MostMoves { get; init; } = 5;

    /// <summary>The longest page that is taken a picture of, in CSS pixels.</summary>
    public int LongestShot { get; init; } = 16_000;
}
