using System.Security.Claims;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Accounts;

namespace Pantomet.Server.Accounts;

/// <summary>
/// Says of whoever holds a stream of events open whether they may still have it: a request asks once, a stream lasts for hours, and a sign-in may
/// end meanwhile.
/// </summary>
internal sealed class SignInCheck(PeopleRegistry people, Revocations revocations, IServiceScopeFactory scopes, TimeProvider clock)
{
    /// <summary>How long it may take until a stream is ended that nobody tells anything.</summary>
    public static readonly TimeSpan Interval = TimeSpan.FromSeconds(5);

    /// <summary>The check of one stream, which is asked at each event.</summary>
    /// <returns>
    /// False once the sign-in has ended, the person was removed or has another role, or the guest's link or the token was revoked. Whoever still
    /// has a right to the stream opens it again, and learns by that to ask what they may do now.
    /// </returns>
    public Func<CancellationToken, ValueTask<bool>> Of(ClaimsPrincipal user)
    {
        var (asked, revoked) = (clock.GetTimestamp(), -1L);
        return async cancel =>
        {
            var now = revocations.Count;
            // Links and tokens are read from the database: not at each event of a busy job, but when one was revoked, and when one may have run out.
            if (IsStored(user) && (now != revoked || clock.GetElapsedTime(asked) > Interval))
            {
                (asked, revoked) = (clock.GetTimestamp(), now);
                if (!await IsInForceAsync(user, cancel))
                {
                    return false;
                }
            }

            return await IsSignedInAsync(user, cancel);
        };
    }

    private static bool IsStored(ClaimsPrincipal user) => user.HasClaim(claim => claim.Type is Callers.Link or Callers.Token);

    private async Task<bool> IsInForceAsync(ClaimsPrincipal user, CancellationToken cancel)
    {
        await using var scope = scopes.CreateAsyncScope();
        var services = scope.ServiceProvider;
        return Guid.TryParse(user.FindFirstValue(Callers.Link), out var link)
            ? await services.GetRequiredService<LinkStore>().GuestAsync(link, cancel) is not null
            : Guid.TryParse(user.FindFirstValue(Callers.Token), out var token)
                && await services.GetRequiredService<AccessTokenStore>().IsInForceAsync(token, cancel);
    }

    // True for guests as well: they are no people.
    private async ValueTask<bool> IsSignedInAsync(ClaimsPrincipal user, CancellationToken cancel)
    {
        if (!Guid.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), out var id))
        {
            return true;
        }

        var stamp = user.FindFirstValue(Callers.Stamp);
        return await people.FindAsync(id, cancel) is { } person && (stamp is null || stamp == person.Stamp) && user.Role() == person.Role;
    }
}
