namespace Pantomet.Core.Responsive;

/// <summary>A length that grows evenly with the width of the viewport, as <c>calc(50vw - 32px)</c> does.</summary>
/// <param name="Pixels">Its part in CSS pixels.</param>
/// <param name="PerViewport">What is added for each CSS pixel of the viewport: 0.5 for 50vw.</param>
public readonly record struct ViewportLength(double Pixels, double PerViewport)
{
    /// <summary>The length at a viewport, in CSS pixels.</summary>
    /// <param name="viewport">The width of the viewport in CSS pixels.</param>
    public double At(int viewport) => Pixels + (PerViewport * viewport);
}
