using System.Globalization;
using System.Net;
using System.Net.Sockets;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.RateLimiting;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Core.Texts;
using Pantomet.Server.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Door;

/// <summary>How many requests are answered where people sign in; on this machine alone there is no limit.</summary>
internal static class RateLimits
{
    /// <summary>Pictures and files that are sent.</summary>
    public const string Uploads = "uploads";

    /// <summary>Fetches of live links.</summary>
    public const string LiveLinks = "live-links";

    private const int Segments = 6;
    private const int BitsOfNetwork = 64;
    private static readonly TimeSpan Minute = TimeSpan.FromMinutes(1);

    /// <summary>Adds the limits.</summary>
    public static void AddRateLimits(this IServiceCollection services, ServerOptions options) =>
        services.AddRateLimiter(limiter =>
        {
            limiter.AddPolicy(SignInEndpoints.Limit, context => Limit(options, options.Limits.SignIns, Address(context)));
            limiter.AddPolicy(
                Uploads,
                context => Limit(options, options.Limits.Uploads, context.PersonId()?.ToString() ?? Address(context))
            );
            limiter.AddPolicy(LiveLinks, context => Limit(options, options.Limits.LiveLinks, Address(context)));
            limiter.OnRejected = async (rejected, _) =>
            {
                var seconds = rejected.Lease.TryGetMetadata(MetadataName.RetryAfter, out var after)
                    ? (int)Math.Ceiling(after.TotalSeconds)
                    : (int)(Minute.TotalSeconds / Segments);
                rejected.HttpContext.Response.Headers.RetryAfter = seconds.ToString(CultureInfo.InvariantCulture);
                await Problem
                    .Of(StatusCodes.Status429TooManyRequests, "too-many-requests", AccountTexts.TooManyRequests(seconds))
                    .ExecuteAsync(rejected.HttpContext);
            };
        });

    private static RateLimitPartition<string> Limit(ServerOptions options, int most, string key) =>
        options.PeopleSignIn
            ? RateLimitPartition.GetSlidingWindowLimiter(
                key,
                _ =>
                    new()
                    {
                        PermitLimit = most,
                        Window = Minute,
                        SegmentsPerWindow = Segments,
                    }
            )
            : RateLimitPartition.GetNoLimiter("");

    // One holder has a whole /64 of IPv6 addresses (common practice; RFC 6177).
    private static string Address(HttpContext context) =>
        context.Connection.RemoteIpAddress switch
        {
            null => "",
            { AddressFamily: AddressFamily.InterNetworkV6, IsIPv4MappedToIPv6: false } six => new IPNetwork(
                Masked(six),
                BitsOfNetwork
            ).ToString(),
            var address => address.ToString(),
        };

    private static IPAddress Masked(IPAddress address)
    {
        var bytes = address.GetAddressBytes();
        bytes.AsSpan(BitsOfNetwork / 8).Clear();
        return new(bytes);
    }
}
