namespace Pantomet.Core.Reports;

/// <summary>What is wrong at a place of a page.</summary>
/// <param name="Line">The line of the page, from 1; null for the page as a whole.</param>
/// <param name="Message">A sentence.</param>
public sealed record PageFault(int? Line, string Message);

/// <summary>One page of a site that was built.</summary>
/// <param name="Page">Its path from the site's root.</param>
/// <param name="Replaced">How many images got their markup.</param>
/// <param name="Faults">What kept its tag, and why.</param>
public sealed record ReportedPage(string Page, int Replaced, IReadOnlyList<PageFault> Faults);
