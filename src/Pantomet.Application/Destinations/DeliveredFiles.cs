using Pantomet.Core.Rules;
using Pantomet.Data;
using Pantomet.Data.Jobs;

namespace Pantomet.Application.Destinations;

/// <summary>A delivered file, against which a changed rule is held.</summary>
/// <param name="Job">The job.</param>
/// <param name="Path">Its path in the bundle.</param>
/// <param name="File">Its figures.</param>
public sealed record DeliveredOfSlot(Guid Job, string Path, DeliveredFile File);

/// <summary>The delivered files of the slot whose rule is being changed: a rule is checked at every pause of typing.</summary>
public sealed class DeliveredFiles
{
    private volatile Known _known = new("", default, []);

    /// <summary>The delivered files of a slot; read once for as long as nothing else is delivered.</summary>
    /// <param name="destination">The destination's key.</param>
    /// <param name="slot">The slot's key.</param>
    /// <param name="queries">What is asked.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<IReadOnlyList<DeliveredOfSlot>> OfAsync(
        string destination,
        string slot,
        HandOverQueries queries,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(queries);
        var (place, state) = ($"{destination}/{slot}", await queries.StateAsync(cancel));
        var known = _known;
        if (known.Place == place && known.State == state)
        {
            return known.Files;
        }

        var rows = await queries.LastOfSlotAsync(destination, slot, cancel);
        List<DeliveredOfSlot> files =
        [
            .. rows.Select(row => new DeliveredOfSlot(row.Job, row.Path, StoredJson.Read<DeliveredFile>(row.File))),
        ];
        _known = new(place, state, files);
        return files;
    }

    private sealed record Known(string Place, (int Count, DateTime? Last) State, IReadOnlyList<DeliveredOfSlot> Files);
}
