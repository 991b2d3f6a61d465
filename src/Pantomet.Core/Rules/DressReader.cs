using Pantomet.Core.Dressing;
using Pantomet.Core.Rules.Keys;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Rules;

/// <summary>Reads what a slot puts over its pictures.</summary>
public static class DressReader
{
    /// <summary>Reads a dress on its own, as it stands in a slot.</summary>
    /// <param name="json">The text.</param>
    /// <param name="dress">The dress, when there is no fault.</param>
    /// <param name="text">The same as it is written here, when there is no fault.</param>
    /// <param name="fault">What is wrong and where.</param>
    public static bool TryRead(string json, out Dress? dress, out string? text, out string? fault)
    {
        (dress, text, fault) = (null, null, null);
        try
        {
            dress = Read(JsonNode.Parse(json));
            text = RulesWriter.Write(dress);
            return true;
        }
        catch (JsonFaultException wrong)
        {
            fault = wrong.Fault.ToString();
            return false;
        }
    }

    /// <summary>A dress that was read before.</summary>
    /// <exception cref="InvalidDataException">It is none.</exception>
    internal static Dress Stored(string json)
    {
        try
        {
            return Read(JsonNode.Parse(json));
        }
        catch (JsonFaultException wrong)
        {
            throw new InvalidDataException(RuleTexts.AStoredStyleCannotBeRead(wrong.Fault), wrong);
        }
    }

    internal static Dress Read(JsonNode node) => DressKeys.Form.Read(node);

    /// <summary>The word for a corner.</summary>
    internal static string Word(Corner corner) => DressKeys.Corners.First(word => word.Value == corner).Key;

    /// <summary>Dressings by name.</summary>
    internal static List<NamedDress> Named(JsonNode node)
    {
        List<NamedDress> all = [.. node.FreeMembers().Select(member => new NamedDress(member.Key, Read(member.Value)))];
        return all.Count > RuleBook.MostDressings ? throw node.Fault(RuleTexts.AtMostSavedStylesAreAllowed(RuleBook.MostDressings))
            : all.Find(one => one.Name.Trim() != one.Name || one.Name.Length is 0 or > 80 || one.Name.Any(char.IsControl)) is { } odd
                ? throw node.Fault(RuleTexts.TheNameOfASavedStyle(odd.Name))
            : all;
    }
}
