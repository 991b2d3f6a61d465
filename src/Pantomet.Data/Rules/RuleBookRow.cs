namespace Pantomet.Data.Rules;

/// <summary>A file that rules name, such as a mark.</summary>
public sealed class SideFileRow
{
    /// <summary>The name that rules give it.</summary>
    public required string Name { get; set; }

    /// <summary>The name of its content, under which it lies in its folder.</summary>
    public required string Content { get; set; }

    /// <summary>Its weight.</summary>
    public long Bytes { get; set; }

    /// <summary>When it was added or exchanged, UTC.</summary>
    public DateTime At { get; set; }
}

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
