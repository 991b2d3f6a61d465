namespace Pantomet.PageChecks;

/// <summary>How far a page check is.</summary>
/// <param name="Making">False while the browser measures, true while files are made.</param>
/// <param name="Done">How many screens or pictures are done.</param>
/// <param name="Of">Of how many.</param>
/// <param name="Screens">The screens that are measured already, in the order in which they were.</param>
public sealed record PageProgress(bool Making, int Done, int Of, IReadOnlyList<MeasuredScreen> Screens);

/// <summary>A page on one screen, as soon as it is measured.</summary>
/// <param name="Viewport">The width of the screen, in CSS pixels.</param>
/// <param name="Density">Screen pixels for one CSS pixel.</param>
/// <param name="Height">How long the page is, in CSS pixels.</param>
/// <param name="Images">How many pictures it shows.</param>
/// <param name="Bytes">What it loads: pictures and all else.</param>
public sealed record MeasuredScreen(int Viewport, double Density, double Height, int Images, long Bytes);
