using System.Globalization;
using System.Text.RegularExpressions;

namespace Pantomet.Core.PageChecks;

/// <summary>
/// A computed length of CSS in which a share may stand: <c>40px</c>, <c>50%</c>, <c>calc(100% - 10px)</c> (CSS Values Level 4, 10: a sum of
/// a percentage and a length is what remains of any calculation).
/// </summary>
/// <param name="Share">The share of what it is measured against; 1 for 100 %.</param>
/// <param name="Pixels">What is added, in CSS pixels.</param>
public readonly partial record struct CssOffset(double Share, double Pixels)
{
    /// <summary>The middle of what is free.</summary>
    public static readonly CssOffset Middle = new(0.5, 0);

    /// <summary>Its length against so many CSS pixels.</summary>
    public double Of(double whole) => (Share * whole) + Pixels;

    /// <summary>Reads one computed length; false for what is none, such as <c>auto</c>.</summary>
    public static bool TryParse(string? text, out CssOffset offset)
    {
        offset = default;
        if (text is null || Term().Match(text.Trim()) is not { Success: true } match)
        {
            return false;
        }

        var (share, pixels) = (0.0, 0.0);
        foreach (var part in Part().Matches(match.Groups["sum"].Value).Cast<Match>())
        {
            var sign = part.Groups["sign"].Value == "-" ? -1 : 1;
            var number = sign * double.Parse(part.Groups["number"].Value, CultureInfo.InvariantCulture);
            (share, pixels) = part.Groups["unit"].Value == "%" ? (share + (number / 100), pixels) : (share, pixels + number);
        }

        offset = new(share, pixels);
        return true;
    }

    /// <summary>Reads two, across and down, with a space between; where only one stands, the other is in the middle.</summary>
    public static (CssOffset Across, CssOffset Down) Pair(string? text)
    {
        var (first, second) = Words(text);
        return (TryParse(first, out var across) ? across : Middle, TryParse(second, out var down) ? down : Middle);
    }

    /// <summary>The first two computed values of a list with spaces between; those in brackets are one.</summary>
    internal static (string? First, string? Second) Words(string? text)
    {
        var words = Word().Matches(text ?? "");
        return (words.ElementAtOrDefault(0)?.Value, words.ElementAtOrDefault(1)?.Value);
    }

    [GeneratedRegex(@"^(calc\(\s*)?(?<sum>[-+]?\s*[\d.]+(e[-+]?\d+)?(%|px)?(\s*[-+]\s*[\d.]+(e[-+]?\d+)?(%|px))*)\s*\)?$")]
    private static partial Regex Term();

    [GeneratedRegex(@"(?<sign>[-+])?\s*(?<number>[\d.]+(e[-+]?\d+)?)(?<unit>%|px)?")]
    private static partial Regex Part();

    [GeneratedRegex(@"calc\([^)]*\)|[^\s]+")]
    private static partial Regex Word();
}
