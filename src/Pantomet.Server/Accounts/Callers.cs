using System.Security.Claims;
using Microsoft.AspNetCore.Http;
using Pantomet.Core.Accounts;

namespace Pantomet.Server.Accounts;

/// <summary>Who a request is from.</summary>
internal static class Callers
{
    /// <summary>The claim of a guest: the job that they may see.</summary>
    public const string Job = "job";

    /// <summary>The claim of a guest: the link that they came by.</summary>
    public const string Link = "link";

    /// <summary>The claim of a token: one for each of its scopes.</summary>
    public const string Scope = "scope";

    /// <summary>The claim of a token: which one it is.</summary>
    public const string Token = "token";

    /// <summary>The claim that a person's sign-ins share until all of them end.</summary>
    public const string Stamp = "stamp";

    /// <summary>When a sign-in began, in seconds since 1970.</summary>
    public const string Since = "since";

    /// <summary>Who it is, as it is kept.</summary>
    public static Actor Actor(this HttpContext context) =>
        context.User.Identity is { IsAuthenticated: true, Name: { } name } ? new(name, context.PersonId())
        : context.Request.Headers.ContainsKey("Sec-Fetch-Site") ? Core.Accounts.Actor.Browser
        : Core.Accounts.Actor.Program;

    /// <summary>The person; null for guests, and where nobody signs in.</summary>
    public static Guid? PersonId(this HttpContext context) =>
        Guid.TryParse(context.User.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : null;

    /// <summary>The one job of a guest; null for everybody else.</summary>
    public static Guid? GuestJob(this HttpContext context) => Guid.TryParse(context.User.FindFirstValue(Job), out var id) ? id : null;

    /// <summary>What they are; null for guests, and where nobody signs in.</summary>
    public static Role? Role(this ClaimsPrincipal user) =>
        Enum.TryParse<Role>(user.FindFirstValue(ClaimTypes.Role), out var role) ? role : null;

    /// <summary>The scopes of a token; null for a person.</summary>
    public static IReadOnlySet<TokenScope>? Scopes(this ClaimsPrincipal user)
    {
        var scopes = user.FindAll(Scope).Select(claim => Enum.Parse<TokenScope>(claim.Value)).ToHashSet();
        return user.Identity?.AuthenticationType == TokenHandler.Name ? scopes : null;
    }

    /// <summary>A principal of a person.</summary>
    public static ClaimsIdentity Identity(string scheme, Guid id, string name, Role role) =>
        new([new(ClaimTypes.NameIdentifier, id.ToString()), new(ClaimTypes.Name, name), new(ClaimTypes.Role, role.ToString())], scheme);
}
