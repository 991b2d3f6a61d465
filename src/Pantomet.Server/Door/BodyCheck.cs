using System.Collections;
using System.Collections.Concurrent;
using System.Globalization;
using System.Reflection;
using System.Text.Json;
using Microsoft.AspNetCore.Http;
using Pantomet.Core.Texts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Door;

/// <summary>
/// Checks every body where it is read: nothing that must be there is null, in whatever list it stands, and nothing is longer than anything
/// can be. What a value means is
/// checked by what it means it to; that it is one, here.
/// </summary>
internal static class BodyCheck
{
    private const int LongestText = 100_000;
    private const int MostItems = 20_000;
    private const string Ours = "Pantomet.";

    private static readonly ConcurrentDictionary<Type, Member[]> Members = new();

    private sealed record Member(PropertyInfo Property, string Name, NullabilityInfo Nullability);

    /// <summary>The filter that all endpoints stand behind.</summary>
    public static async ValueTask<object?> FilterAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        foreach (var argument in context.Arguments)
        {
            if (argument is not null && IsBody(argument.GetType()) && Fault(argument, "$", null) is { } fault)
            {
                return Problem.Of(StatusCodes.Status400BadRequest, "bad-body", fault.Sentence, fault.Place);
            }
        }

        return await next(context);
    }

    // Records of ours and lists; services, contexts and streams are no bodies.
    private static bool IsBody(Type type) =>
        (type.Namespace?.StartsWith(Ours, StringComparison.Ordinal) == true && type.GetMethod("<Clone>$") is not null)
        || (type.IsGenericType && typeof(IList).IsAssignableFrom(type));

    private static (string Place, string Sentence)? Fault(object value, string place, NullabilityInfo? declared)
    {
        switch (value)
        {
            case string text:
                return text.Length > LongestText ? (place, ServerTexts.ATextCanHaveAtMost(LongestText)) : null;
            case JsonElement:
                return null;
            case IDictionary pairs:
                return pairs.Count > MostItems
                    ? (place, ServerTexts.AListCanHaveAtMost(MostItems))
                    : pairs
                        .Keys.Cast<object>()
                        .Select(key => FaultOf(pairs[key], $"{place}.{key}", Last(declared)))
                        .FirstOrDefault(fault => fault is not null);
            case IEnumerable all:
                return FaultIn(all, place, Last(declared));
            default:
                return
                    value.GetType() is { IsPrimitive: false, IsEnum: false } type
                    && type.Namespace?.StartsWith(Ours, StringComparison.Ordinal) == true
                    ? MembersOf(type)
                        .Select(member => FaultOf(member.Property.GetValue(value), $"{place}.{member.Name}", member.Nullability))
                        .FirstOrDefault(fault => fault is not null)
                    : null;
        }
    }

    private static (string Place, string Sentence)? FaultOf(object? value, string place, NullabilityInfo? declared) =>
        value is not null ? Fault(value, place, declared)
        : declared is null or { ReadState: NullabilityState.NotNull } ? (place, ServerTexts.AValueIsNeededHereNot)
        : null;

    private static (string Place, string Sentence)? FaultIn(IEnumerable all, string place, NullabilityInfo? declared)
    {
        var at = 0;
        foreach (var one in all)
        {
            if (at >= MostItems)
            {
                return (place, ServerTexts.AListCanHaveAtMost(MostItems));
            }

            if (FaultOf(one, string.Create(CultureInfo.InvariantCulture, $"{place}[{at}]"), declared) is { } fault)
            {
                return fault;
            }

            at++;
        }

        return null;
    }

    private static NullabilityInfo? Last(NullabilityInfo? declared) =>
        declared?.GenericTypeArguments.LastOrDefault() ?? declared?.ElementType;

    private static Member[] MembersOf(Type type) =>
        Members.GetOrAdd(
            type,
            _ =>
            {
                var context = new NullabilityInfoContext();
                return
                [
                    .. type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                        .Where(property =>
                            property.GetIndexParameters().Length == 0
                            && property.GetCustomAttribute<System.Text.Json.Serialization.JsonIgnoreAttribute>() is null
                        )
                        .Select(property => new Member(
                            property,
                            JsonNamingPolicy.CamelCase.ConvertName(property.Name),
                            context.Create(property)
                        )),
                ];
            }
        );
}
