using System.Security.Cryptography;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Routing;

namespace Pantomet.TestReceivers;

/// <summary>
/// An object store with the S3 interface: objects are put, looked up and fetched by key in one bucket; each request is signed (Amazon S3 API
/// reference, "Authenticating Requests (AWS Signature Version 4)"), and refusals are XML, as that reference describes.
/// </summary>
internal static class ObjectStore
{
    /// <summary>The key that it knows.</summary>
    public const string AccessKey = "SKERRYDEMO";

    /// <summary>The secret of that key.</summary>
    public const string Secret = "objects-demo-secret";

    /// <summary>Its one bucket.</summary>
    public const string Bucket = "skerry";

    public static void Map(IEndpointRouteBuilder routes, GivenFiles files)
    {
        routes.MapPut(
            "/objects/{bucket}/{**key}",
            async (string bucket, string key, HttpRequest request, HttpResponse response, CancellationToken cancel) =>
            {
                var bytes = await TestReceiverServer.BodyOfAsync(request, cancel);
                if (Refusal(request, bucket, bytes) is { } refusal)
                {
                    return refusal;
                }

                if (!await files.KeepAsync(key, bytes, cancel))
                {
                    return Error(StatusCodes.Status400BadRequest, "InvalidArgument", "That is no key.");
                }

                response.Headers.ETag = TagOf(bytes);
                return Results.Ok();
            }
        );
        routes.MapMethods(
            "/objects/{bucket}/{**key}",
            [HttpMethods.Get, HttpMethods.Head],
            async (string bucket, string key, HttpRequest request, HttpResponse response, CancellationToken cancel) =>
            {
                if (Refusal(request, bucket, []) is { } refusal)
                {
                    return refusal;
                }

                if (files.Find(key) is not { } path)
                {
                    return Error(StatusCodes.Status404NotFound, "NoSuchKey", "The specified key does not exist.");
                }

                var bytes = await File.ReadAllBytesAsync(path, cancel);
                response.Headers.ETag = TagOf(bytes);
                return Results.Bytes(bytes, GivenFiles.TypeOf(key));
            }
        );
    }

    private static IResult? Refusal(HttpRequest request, string bucket, byte[] body)
    {
        var target = request.HttpContext.Features.Get<IHttpRequestFeature>()!.RawTarget;
        return RequestSignature.FaultOf(request, target, body, AccessKey, Secret) is { } fault
                ? Error(StatusCodes.Status403Forbidden, fault.Code, fault.Message)
            : bucket != Bucket ? Error(StatusCodes.Status404NotFound, "NoSuchBucket", "The specified bucket does not exist.")
            : null;
    }

    // The reference: for an object that was put as a whole the tag is the MD5 digest of its content.
#pragma warning disable CA5351 // Not a matter of security.
    private static string TagOf(byte[] bytes) => $"\"{Convert.ToHexStringLower(MD5.HashData(bytes))}\"";
#pragma warning restore CA5351

    private static IResult Error(int status, string code, string message) =>
        Results.Content(
            $"<?xml version=\"1.0\" encoding=\"UTF-8\"?><Error><Code>{code}</Code><Message>{message}</Message></Error>",
            "application/xml",
            statusCode: status
        );
}
