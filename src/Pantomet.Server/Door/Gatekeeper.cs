using System.Diagnostics;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Extensions.Logging;
using Pantomet.Core.Texts;
using Pantomet.Imaging.Dressing;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Door;

/// <summary>
/// Who comes in, and with how much. Everything that writes must come from this application's own pages or from a program that is no
/// browser: a page elsewhere can make a
/// browser send requests here, but not without saying where they come from (Fetch Standard; W3C Fetch Metadata).
/// </summary>
internal static partial class Gatekeeper
{
    /// <summary>The most bytes of a body that is not a picture.</summary>
    public const long MostBody = 2_000_000;

    private const string Policy = ServerTexts.DefaultSrcSelfImgSrcSelf + ServerTexts.NoneBaseUriNoneFormAction;

    /// <summary>Under this policy nothing in a file that came from elsewhere runs, should a browser show it by itself.</summary>
    public const string PolicyOfFiles =
        "default-src 'none'; img-src 'self' data:; style-src 'unsafe-inline'; sandbox; frame-ancestors 'none'";

    /// <summary>Puts the gate before everything else.</summary>
    public static void UseGatekeeper(this WebApplication app, ServerOptions options) =>
        app.Use(
            async (context, next) =>
            {
                var headers = context.Response.Headers;
                headers.ContentSecurityPolicy = Policy;
                headers.XContentTypeOptions = "nosniff";
                headers["Referrer-Policy"] = "no-referrer";
                headers["Cross-Origin-Resource-Policy"] = "same-origin";
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                if (context.Request.IsHttps)
                {
                    headers.StrictTransportSecurity = "max-age=31536000";
                }

                // What only some may see is in nobody's store but the browser's own.
                if (options.PeopleSignIn && context.Request.Path.StartsWithSegments("/api"))
                {
                    headers.CacheControl = "private, no-cache";
                }

                if (Refusal(context.Request, options) is { } refusal)
                {
                    await refusal.ExecuteAsync(context);
                    return;
                }

                if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
                {
                    limit.MaxRequestBodySize =
                        TakesPictures(context.Request) || TakesPages(context.Request) ? null
                        : TakesSideFiles(context.Request) ? SideFiles.MostFontBytes
                        : MostBody;
                }

                context.Request.Body = new SteadyBody(context.Request.Body, options.LongestSilence);
                var began = Stopwatch.GetTimestamp();
                await next(context);
                var (request, status) = (context.Request, context.Response.StatusCode);
                Answered(
                    app.Logger,
                    request.Method,
                    request.Path,
                    status,
                    Stopwatch.GetElapsedTime(began).TotalMilliseconds,
                    context.TraceIdentifier
                );
            }
        );

    /// <summary>A picture is added by its bytes alone; its own limit holds there.</summary>
    private static bool TakesPictures(HttpRequest request) =>
        HttpMethods.IsPost(request.Method)
        && request.Path.StartsWithSegments("/api/pictures", out var rest)
        && (rest.Value is "" or "/" or null || rest.Value.EndsWith("/revisions", StringComparison.Ordinal));

    /// <summary>So is a mark or a font that rules name.</summary>
    private static bool TakesSideFiles(HttpRequest request) =>
        HttpMethods.IsPut(request.Method) && request.Path.StartsWithSegments("/api/side-files");

    /// <summary>So is a file of a page or of a folder of pictures; their own limits hold there.</summary>
    private static bool TakesPages(HttpRequest request) =>
        HttpMethods.IsPut(request.Method)
        && (request.Path.StartsWithSegments("/api/page-checks") || request.Path.StartsWithSegments("/api/folders"));

    private static bool TakesFiles(HttpRequest request) => TakesPictures(request) || TakesSideFiles(request) || TakesPages(request);

    private static ProblemHttpResult? Refusal(HttpRequest request, ServerOptions options)
    {
        // A proxy on this machine passes requests on under the name by which it is reached.
        if (options.IsLocal && options.Proxies.Count == 0 && !IsThisMachine(request.Host.Host))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "foreign-host", ServerTexts.ThisHostNameDoesNotBelong);
        }

        if (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || HttpMethods.IsOptions(request.Method))
        {
            return null;
        }

        var origin = request.Headers.Origin.ToString();
        var site = request.Headers["Sec-Fetch-Site"].ToString();
        // A browser always says where a request that writes comes from; a program that is none says nothing.
        var foreign = origin.Length > 0 ? !IsOwn(origin, request) : site.Length > 0;
        if (foreign || site is "cross-site" or "same-site")
        {
            return Problem.Of(StatusCodes.Status403Forbidden, "foreign-origin", ServerTexts.PagesOfOtherSitesMayNot);
        }

        return TakesFiles(request) || !HasBody(request) || request.HasJsonContentType()
            ? Unread(request)
            : Problem.Of(StatusCodes.Status415UnsupportedMediaType, "not-json", ServerTexts.TheRequestBodyMustBeApplication);
    }

    // The types that a form on a page elsewhere can send without asking are none of a picture's.
    private static ProblemHttpResult? Unread(HttpRequest request) =>
        TakesFiles(request)
        && (request.ContentType ?? "").Split(';')[0].Trim().ToLowerInvariant()
            is "text/plain"
                or "application/x-www-form-urlencoded"
                or "multipart/form-data"
            ? Problem.Of(StatusCodes.Status415UnsupportedMediaType, "not-a-picture", ServerTexts.SendAFileAsItsBytes)
            : null;

    private static bool HasBody(HttpRequest request) => request.ContentLength > 0 || request.Headers.TransferEncoding.Count > 0;

    private static bool IsOwn(string origin, HttpRequest request) =>
        Uri.TryCreate(origin, UriKind.Absolute, out var from)
        && string.Equals(from.Authority, request.Host.Value, StringComparison.OrdinalIgnoreCase);

    private static bool IsThisMachine(string host) => host is "127.0.0.1" or "localhost" or "[::1]" or "::1";

    [LoggerMessage(Level = LogLevel.Information, Message = "{Method} {Path}: {Status} in {Milliseconds} ms, trace {Trace}")]
    private static partial void Answered(ILogger log, string method, string path, int status, double milliseconds, string trace);
}
