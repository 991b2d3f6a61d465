namespace Pantomet.Core.Rules;

/// <summary>Two sets of rules made one.</summary>
public static class RuleBooks
{
    /// <summary>
    /// The rules of a file taken over into a book: slots with the same keys are replaced where they stand, new slots and destinations come last,
    /// all others stay. A saved style of the same name is replaced.
    /// </summary>
    /// <param name="book">The book.</param>
    /// <param name="file">The rules that are taken over.</param>
    public static RuleBook Merged(RuleBook book, RuleBook file)
    {
        ArgumentNullException.ThrowIfNull(book);
        ArgumentNullException.ThrowIfNull(file);
        var theirs = file.Destinations.ToDictionary(destination => destination.Key, StringComparer.OrdinalIgnoreCase);
        var kept = book.Destinations.Select(mine => theirs.Remove(mine.Key, out var other) ? Merged(mine, other) : mine).ToList();
        List<NamedDress> dressings =
        [
            .. book.Dressings.Where(one => file.Dressings.All(other => other.Name != one.Name)),
            .. file.Dressings,
        ];
        return new([.. kept, .. file.Destinations.Where(destination => theirs.ContainsKey(destination.Key))]) { Dressings = dressings };
    }

    private static Destination Merged(Destination mine, Destination other)
    {
        var theirs = other.Slots.ToDictionary(slot => slot.Key, StringComparer.OrdinalIgnoreCase);
        var kept = mine.Slots.Select(slot => theirs.Remove(slot.Key, out var newer) ? newer : slot).ToList();
        return mine with { Name = other.Name, Slots = [.. kept, .. other.Slots.Where(slot => theirs.ContainsKey(slot.Key))] };
    }
}
