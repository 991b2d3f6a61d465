namespace Pantomet.Core.Markup;

/// <summary>An attribute as it is written in an element.</summary>
/// <param name="Name">Its name in lower case.</param>
/// <param name="Text">Name and value as written, such as <c>alt="A vane"</c>.</param>
public readonly record struct HtmlAttribute(string Name, string Text)
{
    /// <summary>An attribute with its value made safe.</summary>
    public static HtmlAttribute Of(string name, string value) => new(name, $"{name}=\"{HtmlWriter.Escaped(value)}\"");
}
