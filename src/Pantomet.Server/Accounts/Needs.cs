using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Pantomet.Core.Accounts;

namespace Pantomet.Server.Accounts;

/// <summary>The right that a request needs; the last one said of an address holds.</summary>
internal sealed record NeededRight(Right Right);

/// <summary>Guests may use this address, within their job.</summary>
internal sealed record OpenToGuests;

/// <summary>What is asked for at this address is written into the log, or is not.</summary>
internal sealed record LoggedActivity(bool IsLogged);

/// <summary>Says of addresses who may use them. An address that nobody says it of is the owner's alone.</summary>
internal static class Needs
{
    /// <summary>The policy that asks for the right of an address.</summary>
    public const string Policy = "rights";

    /// <summary>One right for all these addresses.</summary>
    public static TBuilder NeedsRight<TBuilder>(this TBuilder builder, Right right)
        where TBuilder : IEndpointConventionBuilder => builder.WithMetadata(new NeededRight(right));

    /// <summary>One right to read and another to write.</summary>
    public static RouteGroupBuilder NeedsRight(this RouteGroupBuilder group, Right read, Right write)
    {
        ((IEndpointConventionBuilder)group).Add(endpoint => endpoint.Metadata.Add(new NeededRight(IsRead(endpoint) ? read : write)));
        return group;
    }

    /// <summary>Guests may use it as well, within their job.</summary>
    public static RouteHandlerBuilder AlsoForGuests(this RouteHandlerBuilder builder) => builder.WithMetadata(new OpenToGuests());

    /// <summary>What only reads is not logged; this is, because what it reads leaves the server.</summary>
    public static RouteHandlerBuilder Logged(this RouteHandlerBuilder builder) => builder.WithMetadata(new LoggedActivity(true));

    /// <summary>It changes nothing that anybody would ask about later, or is kept otherwise.</summary>
    public static RouteHandlerBuilder NotLogged(this RouteHandlerBuilder builder) => builder.WithMetadata(new LoggedActivity(false));

    /// <summary>Closes every address of a group for those who lack its right, and logs what is done there.</summary>
    public static void Guard(this RouteGroupBuilder group)
    {
        group.AddEndpointFilter(ActivityFilter.FilterAsync);
        ((IEndpointConventionBuilder)group).Finally(endpoint =>
        {
            if (!endpoint.Metadata.OfType<IAllowAnonymous>().Any())
            {
                endpoint.Metadata.Add(new AuthorizeAttribute(Policy));
            }
        });
    }

    /// <summary>True when an address only reads.</summary>
    public static bool IsRead(EndpointBuilder endpoint) =>
        endpoint.Metadata.OfType<HttpMethodMetadata>().LastOrDefault()?.HttpMethods is ["GET"] or ["HEAD"] or ["GET", "HEAD"];
}
