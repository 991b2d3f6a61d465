using System.Text.Json.Nodes;
using Microsoft.OpenApi;
using Pantomet.Core.Facts;
using Pantomet.Core.Likeness;
using Pantomet.Core.Responsive;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Core.Weight;

namespace Pantomet.Server.Door;

/// <summary>
/// What is a text or a figure in C# and one of a closed list by its meaning, told so in the description of the API: whoever is
/// generated from
/// it has the list, and a new entry breaks the build and not the page.
/// </summary>
internal static class ClosedLists
{
    private static readonly (string Schema, string Property, string List)[] Members =
    [
        ("Reason", "code", "ReasonCode"),
        ("CellView", "codes", "ReasonCode"),
        ("CellView", "toReview", "ReasonCode"),
        ("CellDecision", "accepted", "ReasonCode"),
        ("JobCommandAccept", "reasons", "ReasonCode"),
        ("SlotView", "types", "SlotType"),
        ("PictureView", "format", "PictureType"),
        ("VariantFileView", "format", "FileType"),
        ("CellFile", "format", "FileType"),
        ("HandOverFile", "format", "FileType"),
        ("Choice", "format", "FileType"),
        ("CurvesRequest", "format", "FileType"),
        ("TrialRequest", "format", "FileType"),
        ("OriginalFixRequest", "type", "FileType"),
    ];

    /// <summary>Adds the lists to the document, and refers to them where they are meant.</summary>
    /// <exception cref="InvalidOperationException">A member is named here that the document does not have.</exception>
    public static void Tell(OpenApiDocument document)
    {
        ArgumentNullException.ThrowIfNull(document);
        var schemas = (document.Components ??= new()).Schemas ??= new Dictionary<string, IOpenApiSchema>();
        foreach (var (name, what, values) in Lists())
        {
            schemas[name] = new OpenApiSchema
            {
                Type = values[0].GetValueKind() == System.Text.Json.JsonValueKind.Number ? JsonSchemaType.Number : JsonSchemaType.String,
                Enum = values,
                Description = what,
            };
        }

        foreach (var (schema, property, list) in Members)
        {
            if (
                !schemas.TryGetValue(schema, out var owner)
                || owner is not OpenApiSchema { Properties: { } properties }
                || !properties.TryGetValue(property, out var member)
            )
            {
                throw new InvalidOperationException($"{schema}.{property} is not told by the API");
            }

            properties[property] = Closed((OpenApiSchema)member, new OpenApiSchemaReference(list, document));
        }
    }

    private static OpenApiSchema Closed(OpenApiSchema member, OpenApiSchemaReference list) =>
        member.Type switch
        {
            { } type when type.HasFlag(JsonSchemaType.Array) => new()
            {
                Type = type,
                Items = list,
                Description = member.Description,
            },
            { } type when type.HasFlag(JsonSchemaType.Null) => new()
            {
                OneOf = [new OpenApiSchema { Type = JsonSchemaType.Null }, list],
                Description = member.Description,
            },
            _ => new() { AllOf = [list], Description = member.Description },
        };

    private static IEnumerable<(string Name, string What, IList<JsonNode> Values)> Lists()
    {
        yield return ("ReasonCode", "Why a verdict is what it is.", Values(ReasonCodes.All.Order(StringComparer.Ordinal)));
        yield return (
            "PictureType",
            "What a picture that is added may be.",
            Values(Enum.GetValues<PictureFormat>().Select(one => one.Word()))
        );
        yield return ("FileType", "What a file that is made may be.", Values(PictureFormats.Written.Select(one => one.Word())));
        yield return (
            "SlotType",
            "What a slot may take: a type of a file, or auto for one by content.",
            Values(PictureFormats.Written.Select(one => one.Word()).Append(SlotType.Auto.ToString()))
        );
        yield return (
            "LikenessBorder",
            "From which likeness on each word holds, in the order of LikenessWord; the last word holds below all of them.",
            [.. Likeness.Borders.Select(border => border.Least).Where(least => least > 0).Select(least => (JsonNode)least)]
        );
        yield return (
            "SizeForm",
            "The keys that say a size together, with + between them.",
            Values(SizeForms.All.Select(keys => string.Join('+', keys)))
        );
        yield return (
            "WidestViewport",
            "The widest viewport that is told apart, in CSS pixels; what holds there holds for all wider ones.",
            [ViewportRanges.Widest]
        );
        yield return ("WeightUnit", "The units of a weight that is written with one.", Values(ByteCount.Units.Select(unit => unit.Name)));
    }

    private static List<JsonNode> Values(IEnumerable<string> values) => [.. values.Select(value => (JsonNode)value)];
}
