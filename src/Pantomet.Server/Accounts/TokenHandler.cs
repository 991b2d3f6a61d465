using System.Security.Claims;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Authentication;
using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Options;
using Pantomet.Application.Accounts;
using Pantomet.Core.Texts;

namespace Pantomet.Server.Accounts;

/// <summary>Programs that send a token: <c>Authorization: Bearer pmt_...</c> (RFC 6750).</summary>
internal sealed class TokenHandler(
    IOptionsMonitor<AuthenticationSchemeOptions> options,
    ILoggerFactory logger,
    UrlEncoder encoder,
    AccessTokenStore tokens,
    PeopleRegistry people
) : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
{
    /// <summary>The name of the scheme.</summary>
    public const string Name = "token";

    private const string Bearer = "Bearer ";

    /// <summary>True for a request with a token.</summary>
    public static bool Sends(Microsoft.AspNetCore.Http.HttpRequest request) =>
        request.Headers.Authorization.ToString().StartsWith(Bearer, StringComparison.OrdinalIgnoreCase);

    protected override async Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        var sent = Request.Headers.Authorization.ToString()[Bearer.Length..].Trim();
        if (
            await tokens.FindAsync(sent, Context.RequestAborted) is not { } token
            || await people.FindAsync(token.PersonId, Context.RequestAborted) is not { } person
        )
        {
            return AuthenticateResult.Fail(AccountTexts.TheTokenIsUnknown);
        }

        var identity = Callers.Identity(Name, person.Id, person.Name, person.Role);
        identity.AddClaim(new(Callers.Token, token.Id.ToString()));
        identity.AddClaims(AccessTokenStore.ScopesOf(token).Select(scope => new Claim(Callers.Scope, scope.ToString())));
        return AuthenticateResult.Success(new(new(identity), Name));
    }
}
