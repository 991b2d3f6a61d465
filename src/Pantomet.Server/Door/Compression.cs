using System.IO.Compression;
using System.Net;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.ResponseCompression;
using Microsoft.Extensions.DependencyInjection;

namespace Pantomet.Server.Door;

/// <summary>Answers to other machines are compressed; to this one they would only cost time. Pictures are compressed already and stay as they are.</summary>
internal static class Compression
{
    /// <summary>Adds what compresses.</summary>
    public static void AddCompression(this IServiceCollection services)
    {
        services.AddResponseCompression(compression =>
        {
            // What is shown once, as a token, answers a POST and is not compressed; a page elsewhere cannot send a GET with a cookie (SameSite).
            compression.EnableForHttps = true;
            compression.MimeTypes = [.. ResponseCompressionDefaults.MimeTypes, "application/problem+json", "image/svg+xml"];
        });
        services.Configure<BrotliCompressionProviderOptions>(brotli => brotli.Level = CompressionLevel.Fastest);
        services.Configure<GzipCompressionProviderOptions>(gzip => gzip.Level = CompressionLevel.Fastest);
    }

    /// <summary>Compresses what other machines get.</summary>
    public static void UseCompression(this IApplicationBuilder app) =>
        app.UseWhen(
            context =>
                HttpMethods.IsGet(context.Request.Method) && context.Connection.RemoteIpAddress is { } from && !IPAddress.IsLoopback(from),
            far => far.UseResponseCompression()
        );
}
