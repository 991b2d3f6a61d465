using Pantomet.Core.PageChecks;

namespace Pantomet.PageChecks;

/// <summary>What is asked of a page check.</summary>
public sealed record PageCheckRequest
{
    /// <summary>The narrowest and the widest screen in CSS pixels.</summary>
    public static readonly (int Least, int Most) Widths = (200, 5120);

    /// <summary>The least and the most density.</summary>
    public static readonly (double Least, double Most) Dense = (0.5, 4);

    /// <summary>How many widths, and how many densities.</summary>
    public const int MostOfEach = 12;

    /// <summary>Megabits a second where no rate is asked for: a phone on the road (from memory).</summary>
    public const double UsualRate = 10;

    /// <summary>True where something can lie there: an address, or a file or folder that is there.</summary>
    public static bool Exists(string page) => PageSource.AddressOf(page) is not null || File.Exists(page) || Directory.Exists(page);

    /// <summary>True for the name of a host, with its port where it is not the usual one.</summary>
    public static bool IsHost(string text) => AllowedHost.TryParse(text, out _);

    /// <summary>The page: a path or an address.</summary>
    public required string Page { get; init; }

    /// <summary>The widths of screens in CSS pixels.</summary>
    public IReadOnlyList<int> Viewports { get; init; } = Screen.UsualViewports;

    /// <summary>The densities of screens.</summary>
    public IReadOnlyList<double> Densities { get; init; } = Screen.UsualDensities;

    /// <summary>Other hosts that may be read.</summary>
    public IReadOnlyList<string> Allowed { get; init; } = [];

    /// <summary>
    /// The hosts that may be read though they are private to the machine or its network; null for those that were named so: the page's own
    /// address, wherever it leads, and other hosts by a private address of their own or as this machine.
    /// </summary>
    public IReadOnlyList<string>? PrivateHosts { get; init; }

    /// <summary>The rate at which times are told, in megabits a second.</summary>
    public double Rate { get; init; } = UsualRate;

    /// <summary>How many files are made at once.</summary>
    public int Jobs { get; init; } = Environment.ProcessorCount;

    /// <summary>A folder that keeps what was loaded, what was made and pictures of the page; null to keep nothing.</summary>
    public string? Keep { get; init; }
}
