using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;

namespace Pantomet.TestReceivers;

/// <summary>A hosted store: files are put under their names; the caps are hard, and what it says is a line of plain text.</summary>
internal static class Shop
{
    private const int MostSide = 4_472;
    private const int MostBytes = 20_000_000;

    public static void Map(IEndpointRouteBuilder routes, GivenFiles files)
    {
        routes.MapPut(
            "/shop/files/{**name}",
            async (string name, HttpRequest request, CancellationToken cancel) =>
            {
                if (request.ContentLength > MostBytes)
                {
                    return Results.Text("At most 20 MB a file.", statusCode: StatusCodes.Status413PayloadTooLarge);
                }

                var bytes = await TestReceiverServer.BodyOfAsync(request, cancel);
                if (bytes.Length > MostBytes)
                {
                    return Results.Text("At most 20 MB a file.", statusCode: StatusCodes.Status413PayloadTooLarge);
                }

                if (ReceivedPicture.At(bytes) is not { } picture || picture.Type is not ("jpeg" or "png" or "webp" or "gif"))
                {
                    return Results.Text("JPEG, PNG, WebP or GIF, please.", statusCode: StatusCodes.Status415UnsupportedMediaType);
                }

                if (picture.Longest > MostSide)
                {
                    return Results.Text($"At most {MostSide} px on a side.", statusCode: StatusCodes.Status422UnprocessableEntity);
                }

                return await files.KeepAsync(name, bytes, cancel)
                    ? Results.NoContent()
                    : Results.Text("That is no name for a file.", statusCode: StatusCodes.Status400BadRequest);
            }
        );
        routes.MapMethods(
            "/shop/files/{**name}",
            [HttpMethods.Get, HttpMethods.Head],
            (string name) => files.Find(name) is { } path ? Results.File(path, GivenFiles.TypeOf(name)) : Results.NotFound()
        );
    }
}
