using Pantomet.Core.Rules;

namespace Pantomet.Core.Jobs;

/// <summary>Which cells of a job a change touches: only those are planned, judged and stored again.</summary>
public static class TouchedCells
{
    /// <summary>The cells that differ after a change; one whose picture or slot went is among them.</summary>
    /// <param name="before">The job before it.</param>
    /// <param name="after">The job after it.</param>
    /// <param name="change">What differs.</param>
    /// <param name="slots">The rules of the job's slots by address, as far as the book has them.</param>
    /// <param name="pairsWith">The combined pictures of the job that a picture is a part of; they follow their parts.</param>
    public static HashSet<CellKey> Of(
        Job before,
        Job after,
        JobPatch change,
        IReadOnlyDictionary<string, Slot> slots,
        Func<Guid, IEnumerable<Guid>> pairsWith
    )
    {
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(after);
        ArgumentNullException.ThrowIfNull(change);
        ArgumentNullException.ThrowIfNull(slots);
        ArgumentNullException.ThrowIfNull(pairsWith);
        var columns = (change.SlotsIn?.Select(one => one.Slot.Address) ?? []).Concat(change.Choices?.Keys ?? []);
        return
        [
            .. Crossed(change.PicturesOut ?? [], before.Slots.Select(place => place.Address)),
            .. Crossed(before.Pictures.Select(one => one.Id), change.SlotsOut ?? []),
            .. Crossed(after.Pictures.Select(one => one.Id), columns),
            .. Crossed((change.PicturesIn ?? []).Select(one => one.Picture.Id), after.Slots.Select(place => place.Address)),
            .. (change.PicturesOut ?? []).SelectMany(Pairs),
            .. (change.PicturesIn ?? []).SelectMany(one => Pairs(one.Picture.Id)),
            .. (change.Decisions ?? new Dictionary<Guid, DecisionsPatch>()).SelectMany(one => Decided(one.Key, one.Value)),
        ];

        IEnumerable<CellKey> Pairs(Guid part) =>
            Crossed(pairsWith(part), slots.Where(one => one.Value.Pair is not null).Select(one => one.Key));

        IEnumerable<CellKey> Decided(Guid picture, DecisionsPatch patch)
        {
            var marks =
                patch.Turn is not null
                || patch.Focus is not null
                || patch.Keep is not null
                || patch.SuggestionRejected is not null
                || patch.OtherShape is not null;
            var own = slots.Where(one =>
                marks
                || (patch.Title is not null && HasTitle(picture, one.Key, one.Value))
                || patch.Cells?.ContainsKey(one.Key) == true
                || patch.Framings?.ContainsKey(Shapes.KeyOf(one.Value)) == true
            );
            return [.. Crossed([picture], own.Select(one => one.Key)), .. marks || patch.Cells is not null ? Pairs(picture) : []];
        }

        // A title stands where the slot writes one, or where something else is drawn over this picture alone.
        bool HasTitle(Guid picture, string address, Slot slot) =>
            slot.Dress.Title is not null || after.Find(picture)?.Decisions.For(address).Dress is not null;
    }

    private static IEnumerable<CellKey> Crossed(IEnumerable<Guid> pictures, IEnumerable<string> slots)
    {
        var addresses = slots.ToList();
        return pictures.SelectMany(picture => addresses.Select(address => new CellKey(picture, address)));
    }
}
