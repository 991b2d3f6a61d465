namespace Pantomet.Core.Weight;

/// <summary>The weights that are wanted for a file: an aim, not a limit.</summary>
/// <param name="Least">Lighter than this says that too little is left.</param>
/// <param name="Most">Heavier than this is not wanted; at least <paramref name="Least"/>.</param>
public readonly record struct WeightBand(ByteCount Least, ByteCount Most);
