namespace Pantomet.Core.Rules;

/// <summary>The forms of a size.</summary>
public static class SizeForms
{
    /// <summary>The keys of each form; any other set of keys is no size.</summary>
    public static IReadOnlyList<IReadOnlyList<string>> All { get; } =
    [
        ["width", "height"],
        ["ratio", "width"],
        ["ratio", "height"],
        ["ratio", "longSide"],
        ["ratio", "shortSide"],
        ["ratio"],
        ["width"],
        ["height"],
        ["longSide"],
        ["shortSide"],
        ["within"],
        ["share"],
        ["maxPixels"],
    ];
}
