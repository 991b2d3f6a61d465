namespace Pantomet.PageChecks;

/// <summary>A page that cannot be opened; the message says why.</summary>
/// <param name="message">A sentence.</param>
public sealed class PageFaultException(string message) : Exception(message);
