namespace Pantomet.PageChecks;

/// <summary>How far a page check is.</summary>
/// <param name="Making">False while the browser looks, true while files are made.</param>
/// <param name="Done">How many screens or pictures are done.</param>
/// <param name="Of">Of how many.</param>
public sealed record PageProgress(bool Making, int Done, int Of);
