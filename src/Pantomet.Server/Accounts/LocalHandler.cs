using System.Security.Claims;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Authentication;
using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Options;
using Pantomet.Core.Accounts;

namespace Pantomet.Server.Accounts;

/// <summary>Where only this machine reaches the server, whoever asks is its owner; they have no name.</summary>
internal sealed class LocalHandler(IOptionsMonitor<AuthenticationSchemeOptions> options, ILoggerFactory logger, UrlEncoder encoder)
    : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
{
    /// <summary>The name of the scheme.</summary>
    public const string Name = "local";

    private static readonly AuthenticationTicket Ticket = new(
        new(new ClaimsIdentity([new(ClaimTypes.Role, nameof(Role.Owner))], Name)),
        Name
    );

    protected override Task<AuthenticateResult> HandleAuthenticateAsync() => Task.FromResult(AuthenticateResult.Success(Ticket));
}
