namespace Pantomet.Core.PageChecks;

/// <summary>An element of a page on one screen: how wide a picture in it could be.</summary>
/// <param name="Where">A selector that finds it.</param>
/// <param name="Place">Where it lies on the page.</param>
/// <param name="Inner">The width of its content box in CSS pixels.</param>
public sealed record PageElement(string Where, PageBox Place, double Inner);
