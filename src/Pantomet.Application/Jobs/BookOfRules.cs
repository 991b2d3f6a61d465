using System.Security.Cryptography;
using System.Text;
using Pantomet.Application.Destinations;
using Pantomet.Core.Jobs;
using Pantomet.Core.Recipes;
using Pantomet.Core.Rules;

namespace Pantomet.Application.Jobs;

/// <summary>A slot of the book, with what is asked of it again and again.</summary>
/// <param name="Destination">Its destination.</param>
/// <param name="Slot">The slot.</param>
/// <param name="BytesKey">Its rule as far as bytes depend on it.</param>
/// <param name="Rank">Where it stands in the book, from 0, those of a group next to each other.</param>
/// <param name="LaidOutBy">A hash of all that a cell's layout depends on besides picture and decisions.</param>
/// <param name="Asked">The slot as the book has it; <see cref="Slot"/> names its logos and fonts by their content.</param>
/// <param name="Files">The logos and fonts that rules can name.</param>
public sealed record BoardSlot(
    Destination Destination,
    Slot Slot,
    string BytesKey,
    int Rank,
    string LaidOutBy,
    Slot Asked,
    SideFileStore Files
)
{
    /// <summary>The slot as it is for one picture: with its own title, and what is drawn over it alone.</summary>
    /// <param name="decisions">What was decided about the picture.</param>
    /// <param name="address">The slot's address.</param>
    public (Slot Slot, string BytesKey) For(Decisions decisions, string address)
    {
        // Most slots lay nothing over their pictures, and most pictures have nothing of their own.
        if (Slot.Dress.Title is null && decisions.For(address).Dress is null)
        {
            return (Slot, BytesKey);
        }

        // The slot's own files have the names of their content already.
        var dressed = decisions.Dressed(Slot, address);
        var own = decisions.For(address).Dress is null ? dressed : Files.Now.Named(dressed);
        return (own, RulesWriter.BytesKey(own));
    }
}

/// <summary>The book of rules, by addresses.</summary>
internal static class BookOfRules
{
    // Raised whenever the same rule would lay a cell out otherwise than before.
    private const int Layout = 1;

    /// <summary>All slots by address. A slot whose rule says the same as before is the very same object.</summary>
    public static IReadOnlyDictionary<string, BoardSlot> SlotsOf(
        RuleBook book,
        SideFileStore files,
        IReadOnlyDictionary<string, BoardSlot> before
    )
    {
        var names = files.Now;
        var slots = new Dictionary<string, BoardSlot>();
        foreach (var destination in book.Destinations)
        {
            foreach (var asked in Together(destination.Slots))
            {
                var slot = names.Named(asked);
                var rule = RulesWriter.Write(new RuleBook([new(destination.Key, destination.Name, [slot])]));
                // What is needed of a slot of a group depends on where the others are shown, and they stand together on a page.
                var shown = slot.Group is null
                    ? ""
                    : string.Concat(destination.Slots.Where(one => one.Group == slot.Group).Select(one => $"/{RulesWriter.Write(one)}"));
                var hash = Convert.ToHexStringLower(
                    SHA256.HashData(Encoding.UTF8.GetBytes($"{Recipe.CurrentVersion}/{Layout}/{rule}{shown}/{names.Exchanges}"))
                );
                var address = $"{destination.Key}/{slot.Key}";
                slots[address] =
                    before.TryGetValue(address, out var known) && known.LaidOutBy == hash && known.Rank == slots.Count
                        ? known
                        : new(destination, slot, RulesWriter.BytesKey(slot.For(null)), slots.Count, hash, asked, files);
            }
        }

        return slots;
    }

    // Slots of one group stand together, in their order, where its first one is.
    private static IEnumerable<Slot> Together(IReadOnlyList<Slot> slots) =>
        slots.GroupBy(slot => slot.Group is { } group ? $"group {group}" : $"slot {slot.Key}").SelectMany(same => same);
}
