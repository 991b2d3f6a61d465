using System.Globalization;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Weight;

/// <summary>
/// A weight in bytes, at least 1. Written as a number of bytes or with a unit: kB and MB are 1000 and 1000² (the reading that
/// is safe wherever a place is vague), KiB and MiB are 1024 and 1024².
/// </summary>
/// <param name="Bytes">Exact bytes.</param>
public readonly record struct ByteCount(long Bytes)
{
    /// <summary>The units that a weight is written with, and how many bytes each is.</summary>
    public static IReadOnlyList<(string Name, decimal Bytes)> Units { get; } =
    [("B", 1m), ("kB", 1000m), ("MB", 1_000_000m), ("KiB", 1024m), ("MiB", 1_048_576m)];

    /// <summary>Reads "500 kB", "1 MB", "300 KiB", "1.5 MiB" or "1000".</summary>
    public static bool TryParse(string text, out ByteCount count, out string? error)
    {
        ArgumentNullException.ThrowIfNull(text);
        count = default;
        var trimmed = text.Trim();
        var digits = trimmed.Length;
        while (digits > 0 && !char.IsAsciiDigit(trimmed[digits - 1]))
        {
            digits--;
        }

        var unit = trimmed[digits..].Trim();
        // "KB" is written by many who mean kB.
        var (name, factor) = Units.FirstOrDefault(one =>
            one.Name
            == (
                unit is "" ? "B"
                : unit is "KB" ? "kB"
                : unit
            )
        );
        if (
            name is null
            || !decimal.TryParse(trimmed[..digits], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value)
        )
        {
            error = ReasonTexts.IsNotAWeightGiveA(text);
            return false;
        }

        return TryCreate(value, factor, out count, out error);
    }

    /// <summary>Makes a weight from a number and a factor, rounded down to whole bytes.</summary>
    public static bool TryCreate(decimal value, decimal factor, out ByteCount count, out string? error)
    {
        count = default;
        if (value <= 0 || value > 1_000_000_000_000m || decimal.Floor(value * factor) is < 1 or > 1_000_000_000_000m)
        {
            error = ReasonTexts.AWeightMustBeFromByte;
            return false;
        }

        count = new((long)decimal.Floor(value * factor));
        error = null;
        return true;
    }

    /// <inheritdoc/>
    /// <inheritdoc/>
    public override string ToString() => Figures.Weight(Bytes);
}
