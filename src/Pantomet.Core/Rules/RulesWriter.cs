using System.Text.Json;
using Pantomet.Core.Dressing;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Naming;
using Pantomet.Core.Rules.Keys;

namespace Pantomet.Core.Rules;

/// <summary>
/// Writes a book of rules as a rules file: the same rules always give the same text, and what was not asked for is not written.
/// </summary>
public static class RulesWriter
{
    /// <summary>The text of a rules file.</summary>
    public static string Write(RuleBook book)
    {
        ArgumentNullException.ThrowIfNull(book);
        return RuleJson.Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("schema", RulesReader.Schema);
            json.WriteStartArray("destinations");
            foreach (var destination in book.Destinations)
            {
                json.WriteStartObject();
                json.WriteString("key", destination.Key);
                json.WriteString("name", destination.Name);
                json.WriteStartArray("slots");
                foreach (var slot in destination.Slots)
                {
                    Slot(json, slot, withPattern: true);
                }

                json.WriteEndArray();
                json.WriteEndObject();
            }

            json.WriteEndArray();
            if (book.Dressings.Count > 0)
            {
                json.WriteStartObject("dressings");
                foreach (var (name, dress) in book.Dressings)
                {
                    json.WritePropertyName(name);
                    DressKeys.Form.Write(json, dress);
                }

                json.WriteEndObject();
            }

            json.WriteEndObject();
        });
    }

    /// <summary>A dress as it stands in a slot of a rules file.</summary>
    public static string Write(Dress dress)
    {
        ArgumentNullException.ThrowIfNull(dress);
        return RuleJson.Text(json => DressKeys.Form.Write(json, dress));
    }

    /// <summary>One slot as it stands in a rules file, without the pattern of names: a file has one key for both names.</summary>
    public static string Write(Slot slot)
    {
        ArgumentNullException.ThrowIfNull(slot);
        return RuleJson.Text(json => Slot(json, slot, withPattern: false));
    }

    /// <summary>
    /// The part of a slot's rule that decides about the bytes of a file once its plan stands; for finding the same file again.
    /// </summary>
    public static string BytesKey(Slot slot)
    {
        ArgumentNullException.ThrowIfNull(slot);
        return Write(
            slot with
            {
                Key = "slot",
                Name = "slot",
                Clear = Frame.Whole,
                ShownAs = [],
                Toward = null,
                Responsive = null,
                // How large letters are in a file depends on how wide its slot is shown.
                Size =
                    slot.Dress.Title is not null && slot is { Responsive: not null, SetWidth: { } shown }
                        ? new SizeRule.SideAlone(Side.Width, shown)
                        : slot.Size,
                Group = null,
                Media = null,
                Inline = null,
                First = false,
                SubjectShare = null,
                Densities = [Density.One],
                WhenTooSmall = WhenTooSmall.Cap,
                NamePattern = NamePattern.Usual,
            }
        );
    }

    private static void Slot(Utf8JsonWriter json, Slot slot, bool withPattern)
    {
        json.WriteStartObject();
        SlotKeys.Table.Write(json, slot);
        if (withPattern && slot.NamePattern != NamePattern.Usual)
        {
            json.WriteString("name", slot.NamePattern.Text);
        }

        json.WriteEndObject();
    }
}
