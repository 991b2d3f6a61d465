using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Authorization.Policy;
using Microsoft.AspNetCore.Http;
using Pantomet.Core.Texts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Accounts;

/// <summary>Whoever is not let in is told why, as a problem with a code: nobody is sent to another page.</summary>
internal sealed class AuthorizationResultHandler : IAuthorizationMiddlewareResultHandler
{
    public async Task HandleAsync(
        RequestDelegate next,
        HttpContext context,
        AuthorizationPolicy policy,
        PolicyAuthorizationResult authorizeResult
    )
    {
        if (authorizeResult.Succeeded)
        {
            await next(context);
            return;
        }

        if (authorizeResult.Forbidden)
        {
            var why = authorizeResult.AuthorizationFailure?.FailureReasons.FirstOrDefault()?.Message;
            await Problem.Of(StatusCodes.Status403Forbidden, "not-allowed", why ?? AccountTexts.YouMayNotDoThis).ExecuteAsync(context);
            return;
        }

        var byToken = TokenHandler.Sends(context.Request);
        context.Response.Headers.WWWAuthenticate = byToken ? "Bearer error=\"invalid_token\"" : "Bearer";
        await Problem
            .Of(
                StatusCodes.Status401Unauthorized,
                byToken ? "bad-token" : "sign-in-needed",
                byToken ? AccountTexts.TheTokenIsUnknown : AccountTexts.SignInFirst
            )
            .ExecuteAsync(context);
    }
}
