using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;

namespace Pantomet.TestReceivers;

/// <summary>
/// A social network: takes a picture from whoever has its token, makes its own copy of it, and shows that. What is small and light enough
/// already it shows as it is.
/// </summary>
internal static class Network
{
    /// <summary>The token that it knows.</summary>
    public const string Token = "tidewrack-demo";

    private const int MostSide = 1_440;
    private const int OwnQuality = 71;
    private const int LeftQuality = 82;
    private const int LargestSide = 8_000;

    public static void Map(IEndpointRouteBuilder routes, GivenFiles files)
    {
        routes.MapPost(
            "/network/posts",
            async (HttpRequest request, HttpResponse response, CancellationToken cancel) =>
            {
                if (request.Headers.Authorization.ToString() != $"Bearer {Token}")
                {
                    response.Headers.WWWAuthenticate = "Bearer";
                    return Results.Problem("The token is not known.", statusCode: StatusCodes.Status401Unauthorized);
                }

                if (await TestReceiverServer.FileOfAsync(request, "media", cancel) is not var (_, bytes))
                {
                    return Results.Problem("The post has no picture in \"media\".", statusCode: StatusCodes.Status400BadRequest);
                }

                if (ReceivedPicture.At(bytes) is not { Longest: <= LargestSide } picture)
                {
                    return Results.Problem("This cannot be shown in a post.", statusCode: StatusCodes.Status415UnsupportedMediaType);
                }

                var shown = Leaves(picture, bytes) ? bytes : ReceivedPicture.Reduced(bytes, MostSide, OwnQuality);
                var name = $"{Guid.CreateVersion7():N}.jpg";
                await files.KeepAsync(name, shown, cancel);
                return Results.Created($"/network/media/{name}", new { post = name[..^4] });
            }
        );
        routes.MapGet(
            "/network/media/{name}",
            (string name) => files.Find(name) is { } path ? Results.File(path, "image/jpeg") : Results.NotFound()
        );
    }

    private static bool Leaves(ReceivedPicture picture, byte[] bytes) =>
        picture is { Type: "jpeg", IsPrint: false, Longest: <= MostSide } && ReceivedPicture.QualityOf(bytes) is <= LeftQuality;
}
