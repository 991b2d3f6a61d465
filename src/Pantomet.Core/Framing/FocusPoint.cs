namespace Pantomet.Core.Framing;

/// <summary>A point of a picture, as fractions of the picture as displayed, that a frame should centre on.</summary>
/// <param name="X">Across, 0 to 1.</param>
/// <param name="Y">Down, 0 to 1.</param>
public readonly record struct FocusPoint(double X, double Y);
