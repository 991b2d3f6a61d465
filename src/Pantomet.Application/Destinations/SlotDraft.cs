using System.Text.Json;
using Pantomet.Core.Naming;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;

namespace Pantomet.Application.Destinations;

/// <summary>A slot's rule as it is edited: as in a rules file, but for the pattern of names, which stands apart.</summary>
/// <param name="Rule">The slot as in a rules file.</param>
/// <param name="Pattern">The pattern of file names.</param>
public sealed record SlotDraft(JsonElement Rule, string? Pattern)
{
    /// <summary>The draft of a slot.</summary>
    public static SlotDraft Of(Slot slot)
    {
        ArgumentNullException.ThrowIfNull(slot);
        using var json = JsonDocument.Parse(RulesWriter.Write(slot));
        return new(json.RootElement.Clone(), slot.NamePattern.Text);
    }

    /// <summary>Reads the draft as a rules file would be.</summary>
    /// <param name="slot">The slot.</param>
    /// <param name="fault">Where and what is wrong; the place is relative to the slot, like "limits.maxBytes".</param>
    public bool TryRead(out Slot? slot, out JsonFault? fault)
    {
        var text = Rule.ValueKind == JsonValueKind.Object ? Rule.GetRawText() : "{}";
        if (!RulesReader.TryReadSlot(text, out slot, out fault))
        {
            fault = fault! with { Path = fault.Path.TrimStart('$').TrimStart('.') };
            return false;
        }

        if (Pattern is { Length: > 0 } own)
        {
            if (!NamePattern.TryParse(own, out var pattern, out var error))
            {
                fault = new("pattern", error!);
                return false;
            }

            slot = slot! with { NamePattern = pattern };
        }

        return true;
    }
}

/// <summary>What is wrong in a rule, and where.</summary>
/// <param name="Place">Like "limits.maxBytes"; empty for the rule as a whole.</param>
/// <param name="Message">A sentence.</param>
public sealed record PlacedFault(string Place, string Message);

/// <summary>A delivered file that a rule no longer allows.</summary>
/// <param name="Job">The job it was handed over from.</param>
/// <param name="JobName">Its name.</param>
/// <param name="Path">The file's path in the bundle.</param>
/// <param name="Reasons">Why.</param>
public sealed record DeliveredBreach(Guid Job, string JobName, string Path, IReadOnlyList<Reason> Reasons);

/// <summary>What a rule changes, before it is saved.</summary>
/// <param name="Fault">What is wrong with it; then nothing else is said.</param>
/// <param name="Slot">The slot as it would be.</param>
/// <param name="Delivered">How many files were delivered for it.</param>
/// <param name="Breaches">Those of them that no longer meet it.</param>
public sealed record DraftCheck(PlacedFault? Fault, SlotView? Slot, int Delivered, IReadOnlyList<DeliveredBreach> Breaches);

/// <summary>A name.</summary>
/// <param name="Name">For people.</param>
public sealed record DestinationName(string Name);

/// <summary>Slots that are retired, or used again.</summary>
/// <param name="Slots">Addresses.</param>
/// <param name="Retired">True to retire them.</param>
public sealed record RetireRequest(IReadOnlyList<string> Slots, bool Retired);
