using System.Security.Claims;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Accounts;

namespace Pantomet.Server.Accounts;

/// <summary>
/// Says of whoever holds a stream of events open whether they may still have it: a request asks once, a stream lasts for hours, and a sign-in may
/// end meanwhile.
/// </summary>
internal sealed class StillIn(PeopleRegistry people, IServiceScopeFactory scopes)
{
    /// <summary>How long it may take until a stream is ended that nobody tells anything.</summary>
    public static readonly TimeSpan Often = TimeSpan.FromSeconds(15);

    /// <summary>False once the sign-in has ended, the person was removed, or the guest's link was revoked.</summary>
    public async ValueTask<bool> IsAsync(ClaimsPrincipal user, CancellationToken cancel)
    {
        if (Guid.TryParse(user.FindFirstValue(Callers.Link), out var link))
        {
            await using var scope = scopes.CreateAsyncScope();
            return await scope.ServiceProvider.GetRequiredService<LinkStore>().GuestAsync(link, cancel) is not null;
        }

        if (!Guid.TryParse(user.FindFirstValue(ClaimTypes.NameIdentifier), out var id))
        {
            return true;
        }

        var stamp = user.FindFirstValue(Callers.Stamp);
        return await people.FindAsync(id, cancel) is { } person && (stamp is null || stamp == person.Stamp);
    }
}
