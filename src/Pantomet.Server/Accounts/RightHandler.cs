using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Http;
using Pantomet.Application.Accounts;
using Pantomet.Core.Accounts;
using Pantomet.Core.Texts;

namespace Pantomet.Server.Accounts;

/// <summary>Asks for the right of an address.</summary>
internal sealed class RightRequirement : IAuthorizationRequirement;

/// <summary>Says whether whoever asks has the right of the address; guests have none but what their job is.</summary>
internal sealed class RightHandler(AccessStore access) : AuthorizationHandler<RightRequirement>
{
    protected override async Task HandleRequirementAsync(AuthorizationHandlerContext context, RightRequirement requirement)
    {
        if (context.Resource is not HttpContext http || context.User.Identity is not { IsAuthenticated: true })
        {
            return;
        }

        var right = http.GetEndpoint()?.Metadata.GetMetadata<NeededRight>()?.Right ?? Right.Administer;
        if (http.GuestJob() is { } job)
        {
            if (http.GetEndpoint()?.Metadata.GetMetadata<OpenToGuests>() is not null && await GuestReach.ReachesAsync(http, job))
            {
                context.Succeed(requirement);
            }
            else
            {
                context.Fail(new(this, AccountTexts.GuestsSeeOneJob));
            }

            return;
        }

        if (context.User.Role() is not { } role)
        {
            return;
        }

        var given = await access.GetAsync(http.RequestAborted);
        var scopes = context.User.Scopes();
        if (scopes is null ? given.Allows(role, right) : given.Allows(role, scopes, right))
        {
            context.Succeed(requirement);
        }
        else
        {
            context.Fail(
                new(
                    this,
                    scopes is not null && given.Allows(role, right) ? AccountTexts.TheTokenDoesNotInclude : AccountTexts.YouMayNotDoThis
                )
            );
        }
    }
}
