namespace Pantomet.Data.Rules;

/// <summary>The book of rules as the text of a rules file.</summary>
public sealed class RuleBookRow
{
    /// <summary>The one book's identity.</summary>
    public const int TheOne = 1;

    /// <summary>Identity.</summary>
    public int Id { get; set; } = TheOne;

    /// <summary>The text, <c>pantomet-rules/1</c>.</summary>
    public required string Json { get; set; }

    /// <summary>Slots that are no longer offered, as "destination/slot" with line breaks between them.</summary>
    public string Retired { get; set; } = "";
}
