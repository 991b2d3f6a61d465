namespace Pantomet.Core.Jobs;

/// <summary>A cell of a job: a picture in a slot.</summary>
/// <param name="Picture">The picture's identity.</param>
/// <param name="Slot">The slot's address, "destination/slot".</param>
public readonly record struct CellKey(Guid Picture, string Slot);
