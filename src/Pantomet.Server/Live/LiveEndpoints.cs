using System.Globalization;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Net.Http.Headers;
using Pantomet.Application.Live;
using Pantomet.Core.Geometry;
using Pantomet.Core.Texts;
using Pantomet.Server.Accounts;
using Pantomet.Server.Door;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Live;

/// <summary>
/// What is published, for pages. One address for a picture in a place: the type is chosen by <c>Accept</c>, the width by <c>w</c>, and a
/// version by <c>v</c>. No address makes more files than were published, and none that is not published is served.
/// </summary>
internal static class LiveEndpoints
{
    private const string Root = "/live/";

    public static void Map(IEndpointRouteBuilder routes)
    {
        var (store, maker, clock) = (
            routes.ServiceProvider.GetRequiredService<LiveLinkStore>(),
            routes.ServiceProvider.GetRequiredService<LiveMaker>(),
            routes.ServiceProvider.GetRequiredService<TimeProvider>()
        );
        routes
            .MapMethods("/live/{**rest}", ["GET", "HEAD"], context => ServeAsync(context, store, maker, clock))
            .RequireRateLimiting(RateLimits.LiveLinks)
            .ExcludeFromDescription();
    }

    private static async Task ServeAsync(HttpContext context, LiveLinkStore store, LiveMaker maker, TimeProvider clock)
    {
        var headers = context.Response.Headers;
        headers.AccessControlAllowOrigin = "*";
        headers["Cross-Origin-Resource-Policy"] = "cross-origin";
        headers.ContentSecurityPolicy = Gatekeeper.PolicyOfFiles;
        var (width, version, wrong) = Asked(context.Request.Query);
        if (wrong is not null)
        {
            await RefuseAsync(context, StatusCodes.Status400BadRequest, "bad-width", wrong);
            return;
        }

        var whole = context.Request.Path.Value!;
        var path = whole.Length > Root.Length ? whole.AsMemory(Root.Length) : default;
        var (place, key) = await FindAsync(store, path, context.RequestAborted);
        if (place is null)
        {
            await RefuseAsync(context, StatusCodes.Status404NotFound, "not-published", JobTexts.NoFileIsPublishedAtThis);
            return;
        }

        if (place.At(version, clock.GetUtcNow().UtcDateTime) is not { } live || live.SlotAt(key.Span) is not { } slot)
        {
            await RefuseAsync(context, StatusCodes.Status404NotFound, "not-published", JobTexts.ThisVersionIsNoLongerPublished);
            return;
        }

        if (slot.IsNegotiated)
        {
            headers.Vary = "Accept";
        }

        var accepts = AcceptedTypes.Of(context.Request.Headers.Accept);
        var rung = slot.At(width);
        for (var tries = 0; tries < 2; tries++)
        {
            if (await maker.FindAsync(live, slot, rung, accepts, context.RequestAborted) is not { } file)
            {
                break;
            }

            headers.CacheControl = version is null ? "public, max-age=60" : "public, max-age=31536000, immutable";
            if (await SentAsync(context, place, file))
            {
                return;
            }

            // Somebody deleted it: it is made again.
            foreach (var one in rung.Files.Where(one => one.Stored == file))
            {
                one.Stored = null;
            }
        }

        await RefuseAsync(context, StatusCodes.Status404NotFound, "cannot-be-made", JobTexts.ThisFileCannotBeMade);
    }

    // False when the file is not there any more; nothing is sent then.
    private static async Task<bool> SentAsync(HttpContext context, LivePlace place, StoredFile file)
    {
        var tag = new EntityTagHeaderValue($"\"{file.Hash}\"");
        try
        {
            await TypedResults.PhysicalFile(file.Path, file.MediaType, entityTag: tag, enableRangeProcessing: true).ExecuteAsync(context);
        }
        catch (Exception fault) when (fault is FileNotFoundException or DirectoryNotFoundException && !context.Response.HasStarted)
        {
            return false;
        }

        if (context.Response.StatusCode == StatusCodes.Status304NotModified)
        {
            place.Confirmed();
        }
        else if (context.Response.StatusCode < 300 && HttpMethods.IsGet(context.Request.Method))
        {
            place.Sent(file.Bytes);
        }

        return true;
    }

    // The address of a place, or of one slot of a group.
    private static async ValueTask<(LivePlace? Place, ReadOnlyMemory<char> Slot)> FindAsync(
        LiveLinkStore store,
        ReadOnlyMemory<char> path,
        CancellationToken cancel
    )
    {
        var places = (await store.PlacesAsync(cancel)).GetAlternateLookup<ReadOnlySpan<char>>();
        if (places.TryGetValue(path.Span, out var place))
        {
            return (place, default);
        }

        var end = path.Span.LastIndexOf('/');
        return end > 0 && places.TryGetValue(path.Span[..end], out place) ? (place, path[(end + 1)..]) : (null, default);
    }

    private static (int? Width, string? Version, string? Wrong) Asked(IQueryCollection query)
    {
        int? width = null;
        if (query.TryGetValue("w", out var text))
        {
            if (
                !int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var asked)
                || asked is < 1 or > Rounding.LongestSide
            )
            {
                return (null, null, JobTexts.AWidthMustBeAWhole(Rounding.LongestSide));
            }

            width = asked;
        }

        return (width, query.TryGetValue("v", out var version) ? version.ToString() : null, null);
    }

    private static Task RefuseAsync(HttpContext context, int status, string code, string sentence)
    {
        context.Response.Headers.CacheControl = "no-cache";
        return Problem.Of(status, code, sentence).ExecuteAsync(context);
    }
}
