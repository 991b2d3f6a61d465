namespace Pantomet.Core.Reports;

/// <summary>Which share a report is of, and where its entries stand in the report of the whole.</summary>
/// <param name="Number">Which share, from 1.</param>
/// <param name="Of">How many there are.</param>
/// <param name="Sources">For each source, its place among all; ascending.</param>
/// <param name="Variants">For each variant, its place among all; what stands together has one place.</param>
/// <param name="Markup">For each entry of the markup, its place among all.</param>
public sealed record ReportedShare(int Number, int Of, IReadOnlyList<int> Sources, IReadOnlyList<int> Variants, IReadOnlyList<int> Markup);
