using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;

namespace Pantomet.TestReceivers;

/// <summary>
/// A marketplace: takes one picture of a listing in a form, or refuses it by rules of its own and says all that is wrong at once, as problem
/// details (RFC 9457) whose member "errors" is a list, as in the example of its section 3.
/// </summary>
internal static partial class Market
{
    private const int MostBytes = 1_000_000;
    private const int LeastSide = 1_600;
    private const int MostSide = 5_000;
    private const int LongestName = 44;

    public static void Map(IEndpointRouteBuilder routes, GivenFiles files) =>
        routes.MapPost(
            "/market/listings",
            async (HttpRequest request, CancellationToken cancel) =>
            {
                if (await TestReceiverServer.FileOfAsync(request, "picture", cancel) is not var (name, bytes))
                {
                    return Results.Problem("Send one picture, in the field \"picture\".", statusCode: StatusCodes.Status400BadRequest);
                }

                var refusals = Refusals(name, bytes).ToList();
                if (refusals.Count > 0)
                {
                    return Results.Problem(
                        title: "The picture does not meet the rules for listings.",
                        statusCode: StatusCodes.Status422UnprocessableEntity,
                        extensions: new Dictionary<string, object?> { ["errors"] = refusals.Select(detail => new { detail }) }
                    );
                }

                await files.KeepAsync(name, bytes, cancel);
                return Results.Json(new { listing = name, state = "shown to buyers" }, statusCode: StatusCodes.Status201Created);
            }
        );

    private static IEnumerable<string> Refusals(string name, byte[] bytes)
    {
        if (!FileName().IsMatch(name))
        {
            yield return "File names may have small letters, digits and hyphens, and end in .jpg.";
        }

        if (name.Length > LongestName)
        {
            yield return $"File names may have {LongestName} characters; this one has {name.Length}.";
        }

        if (bytes.Length >= MostBytes)
        {
            yield return "The file must be under 1 MB.";
        }

        if (ReceivedPicture.At(bytes) is not { } picture)
        {
            yield return "This is no picture.";
            yield break;
        }

        if (picture.Type != "jpeg" || picture.IsPrint)
        {
            yield return "Listings take JPEG in screen colours.";
        }

        if (picture.Longest is < LeastSide or > MostSide)
        {
            yield return $"The longest side must have {LeastSide} to {MostSide} pixels; this one has {picture.Longest}.";
        }

        if (picture.Longest > picture.Shortest * 1.5)
        {
            yield return "The picture is too narrow: at most 3:2.";
        }

        if (picture.HasLocation)
        {
            yield return "The file tells where it was taken. Take that out.";
        }
    }

    [GeneratedRegex(@"^[a-z0-9-]+\.jpg$")]
    private static partial Regex FileName();
}
