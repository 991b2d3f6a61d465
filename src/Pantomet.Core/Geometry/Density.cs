using System.Globalization;

namespace Pantomet.Core.Geometry;

/// <summary>How many picture pixels stand for one CSS pixel: 1, 1.5, 2 ... Greater than 0, at most 10.</summary>
/// <param name="Value">The factor.</param>
public readonly record struct Density(decimal Value) : IComparable<Density>
{
    /// <summary>The most a slot may ask for.</summary>
    public const decimal Most = 10m;

    /// <summary>One picture pixel for one CSS pixel.</summary>
    public static readonly Density One = new(1m);

    /// <summary>What stands in a file name: nothing for 1, else <c>@2x</c>.</summary>
    public string Suffix => Value == 1m ? "" : $"@{this}";

    /// <inheritdoc/>
    public int CompareTo(Density other) => Value.CompareTo(other.Value);

    /// <summary>Smaller or equal.</summary>
    public static bool operator <=(Density a, Density b) => a.Value <= b.Value;

    /// <summary>Larger or equal.</summary>
    public static bool operator >=(Density a, Density b) => a.Value >= b.Value;

    /// <summary>Smaller.</summary>
    public static bool operator <(Density a, Density b) => a.Value < b.Value;

    /// <summary>Larger.</summary>
    public static bool operator >(Density a, Density b) => a.Value > b.Value;

    /// <summary><c>2x</c>, <c>1.5x</c>.</summary>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Value:0.####}x");
}
