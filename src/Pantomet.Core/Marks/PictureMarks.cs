using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;

namespace Pantomet.Core.Marks;

/// <summary>What a person said about one picture.</summary>
public sealed record PictureMarks
{
    /// <summary>Nothing said.</summary>
    public static readonly PictureMarks None = new();

    /// <summary>The point that frames should centre on.</summary>
    public FocusPoint? Focus { get; init; }

    /// <summary>The boxes that must stay whole.</summary>
    public IReadOnlyList<Frame> Keep { get; init; } = [];

    /// <summary>Keywords for file names.</summary>
    public string? Name { get; init; }

    /// <summary>What the picture shows, for those who cannot see it; empty for a decorative picture, null where nobody said it.</summary>
    public string? Alternative { get; init; }

    /// <summary>A text that goes over the picture where a slot has a place for one.</summary>
    public string? Title { get; init; }

    /// <summary>Frames set by hand, by <c>destination/slot</c>.</summary>
    public IReadOnlyDictionary<string, Frame> Framings { get; init; } = new Dictionary<string, Frame>();

    /// <summary>The frame set by hand for a slot, if there is one.</summary>
    public Frame? FramingFor(string destination, string slot) =>
        Framings.TryGetValue($"{destination}/{slot}", out var frame) ? frame : null;
}

/// <summary>Reads a marks file, <c>"schema": "pantomet-marks/1"</c>.</summary>
public static class MarksReader
{
    /// <summary>The schema that is read.</summary>
    public const string Schema = "pantomet-marks/1";

    private const int LongestText = 1000;

    /// <summary>Reads the text of a marks file.</summary>
    /// <param name="json">The text.</param>
    /// <param name="book">The rules that the framings refer to.</param>
    /// <param name="marks">Marks by file name, when there is no fault.</param>
    /// <param name="fault">What is wrong and where.</param>
    public static bool TryRead(string json, RuleBook book, out IReadOnlyDictionary<string, PictureMarks>? marks, out JsonFault? fault)
    {
        (marks, fault) = (null, null);
        try
        {
            var members = JsonNode.Parse(json).Members("schema", "pictures");
            RulesReader.CheckSchema(members.Needed("schema"), Schema);
            var all = new Dictionary<string, PictureMarks>(StringComparer.Ordinal);
            foreach (var (file, node) in members.Needed("pictures").FreeMembers())
            {
                if (!all.TryAdd(file, Picture(node, book)))
                {
                    throw node.Fault(JobTexts.ThePictureIsListedTwice);
                }
            }

            marks = all;
            return true;
        }
        catch (JsonFaultException wrong)
        {
            fault = wrong.Fault;
            return false;
        }
    }

    private static PictureMarks Picture(JsonNode node, RuleBook book)
    {
        var members = node.Members("focus", "keep", "name", "framings", "alt", "title");
        return new()
        {
            Focus = members.MaybeValue("focus", Focus),
            Keep = members.Or<IReadOnlyList<Frame>>("keep", [], n => [.. n.Items().Select(Box)]),
            Name = members.Maybe("name", Name),
            Alternative = members.Maybe("alt", Words),
            Title = members.Maybe("title", Words),
            Framings = members.Or<IReadOnlyDictionary<string, Frame>>("framings", new Dictionary<string, Frame>(), n => Framings(n, book)),
        };
    }

    private static string Name(JsonNode node) =>
        node.Text().Trim() is { Length: > 0 and <= 200 } name ? name : throw node.Fault(JobTexts.ANameHasToCharacters);

    private static string Words(JsonNode node) =>
        node.Text().Trim() is { Length: <= LongestText } text && !text.Any(letter => char.IsControl(letter) && letter != '\n')
            ? text
            : throw node.Fault(JobTexts.ATextCanHaveAtMost(LongestText));

    private static FocusPoint Focus(JsonNode node) =>
        node.Items() is [var x, var y] ? new(x.Fraction(), y.Fraction()) : throw node.Fault(JobTexts.AFocusIsAListOf);

    private static Dictionary<string, Frame> Framings(JsonNode node, RuleBook book)
    {
        var framings = new Dictionary<string, Frame>(StringComparer.Ordinal);
        foreach (var (place, box) in node.FreeMembers())
        {
            if (!book.Destinations.Any(d => d.Slots.Any(s => $"{d.Key}/{s.Key}" == place)))
            {
                throw box.Fault(JobTexts.TheRulesHaveNoSlot(place));
            }

            framings[place] = Box(box);
        }

        return framings;
    }

    private static Frame Box(JsonNode node)
    {
        if (node.Items() is not [var left, var top, var right, var bottom])
        {
            throw node.Fault(JobTexts.ABoxIsAListOf);
        }

        return Frame.TryCreate(left.Fraction(), top.Fraction(), right.Fraction(), bottom.Fraction(), out var frame, out var error)
            ? frame
            : throw node.Fault(error!);
    }
}
