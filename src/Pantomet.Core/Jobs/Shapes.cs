using System.Globalization;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Jobs;

/// <summary>Which slots are kin: those whose frames have one shape move together until one is unlinked.</summary>
public static class Shapes
{
    /// <summary>Slots that show any part of the picture, in any shape.</summary>
    public const string Free = "free";

    /// <summary>Slots that show the whole picture.</summary>
    public const string Whole = "whole";

    /// <summary>The key of a slot's shape: its ratio to three digits, so that 1500 x 1000 and 2048 x 1365 are kin.</summary>
    public static string KeyOf(Slot slot)
    {
        ArgumentNullException.ThrowIfNull(slot);
        return slot.Fit != Fit.Crop ? Whole
            : slot.FrameShape is { } shape ? shape.Value.ToString("G3", CultureInfo.InvariantCulture)
            : Free;
    }
}
