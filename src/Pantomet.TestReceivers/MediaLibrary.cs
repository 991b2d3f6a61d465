using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;

namespace Pantomet.TestReceivers;

/// <summary>
/// The media library of a site: takes a picture in a form from whoever has its password, keeps it as it is, and makes copies of its own sizes,
/// which it lists in its answer.
/// </summary>
internal static class MediaLibrary
{
    /// <summary>The user that it knows.</summary>
    public const string User = "skerry";

    /// <summary>The password.</summary>
    public const string Password = "library-demo";

    private const int OwnQuality = 76;

    private static readonly (string Name, int Side)[] Sizes = [("small", 320), ("column", 800), ("wide", 1_600)];

    public static void Map(IEndpointRouteBuilder routes, GivenFiles files)
    {
        routes.MapPost(
            "/media-library/media",
            async (HttpRequest request, HttpResponse response, CancellationToken cancel) =>
            {
                if (!TestReceiverServer.IsFrom(request, User, Password))
                {
                    response.Headers.WWWAuthenticate = "Basic realm=\"Media\"";
                    return Results.Problem("User or password are not right.", statusCode: StatusCodes.Status401Unauthorized);
                }

                if (await TestReceiverServer.FileOfAsync(request, "file", cancel) is not var (name, bytes))
                {
                    return Results.Problem("There is no file in \"file\".", statusCode: StatusCodes.Status400BadRequest);
                }

                if (ReceivedPicture.At(bytes) is not { } picture)
                {
                    return Results.Problem("The library holds pictures only.", statusCode: StatusCodes.Status415UnsupportedMediaType);
                }

                var id = $"{Guid.CreateVersion7():N}";
                var kept = $"{id}/{Path.GetFileName(name)}";
                if (!await files.KeepAsync(kept, bytes, cancel))
                {
                    return Results.Problem("That is no name for a file.", statusCode: StatusCodes.Status400BadRequest);
                }

                List<object> sizes = [];
                foreach (var (size, side) in Sizes.Where(size => size.Side < picture.Longest))
                {
                    var copy = ReceivedPicture.Reduced(bytes, side, OwnQuality);
                    await files.KeepAsync($"{id}/{size}.jpg", copy, cancel);
                    var seen = ReceivedPicture.At(copy)!;
                    sizes.Add(
                        new
                        {
                            name = size,
                            width = seen.Width,
                            height = seen.Height,
                            href = $"/media-library/media/{id}/{size}.jpg",
                        }
                    );
                }

                return Results.Created(
                    $"/media-library/media/{kept}",
                    new
                    {
                        id,
                        name,
                        bytes = bytes.Length,
                        sizes,
                    }
                );
            }
        );
        routes.MapGet(
            "/media-library/media/{id}/{name}",
            (string id, string name) =>
                files.Find($"{id}/{name}") is { } path ? Results.File(path, GivenFiles.TypeOf(name)) : Results.NotFound()
        );
    }
}
