using System.Globalization;
using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Accounts;
using Pantomet.Core.Accounts;
using Pantomet.Data;
using Pantomet.Data.Accounts;

namespace Pantomet.Server.Accounts;

/// <summary>Sign-in, put together: who asks is found by cookie, by token, or is whoever uses this machine.</summary>
internal static class AccountServices
{
    /// <summary>The scheme of guests' cookies.</summary>
    public const string Guests = "guest";

    private const string Whoever = "pantomet";
    private const string SecureName = "__Host-";

    // Work for whoever guesses a stolen file, as OWASP's password storage sheet asks of PBKDF2 with HMAC-SHA-512.
    private const int Iterations = 210_000;

    private static readonly TimeSpan Idle = TimeSpan.FromHours(12);
    private static readonly TimeSpan Longest = TimeSpan.FromDays(7);
    private static readonly TimeSpan SecondStep = TimeSpan.FromMinutes(5);

    /// <summary>Adds it.</summary>
    public static void AddAccounts(this IServiceCollection services, ServerOptions options)
    {
        services
            .AddSingleton<SignInCheck>()
            .AddSingleton<Revocations>()
            .AddSingleton<PeopleRegistry>()
            .AddSingleton<FirstOwner>()
            .AddSingleton<AccessStore>()
            .AddSingleton<ActivityLog>();
        services
            .AddScoped<LinkStore>()
            .AddScoped<AccessTokenStore>()
            .AddScoped<PeopleStore>()
            .AddScoped<CommentStore>()
            .AddScoped<ActivityReader>();
        services.AddSingleton<IAuthorizationHandler, RightHandler>();
        services.AddSingleton<IAuthorizationMiddlewareResultHandler, AuthorizationResultHandler>();
        services
            .AddIdentityCore<Person>(identity =>
            {
                identity.Lockout.MaxFailedAccessAttempts = 5;
                identity.Lockout.DefaultLockoutTimeSpan = TimeSpan.FromMinutes(5);
                identity.Password.RequiredLength = PasswordRules.Least;
                identity.Password.RequireDigit = false;
                identity.Password.RequireLowercase = false;
                identity.Password.RequireUppercase = false;
                identity.Password.RequireNonAlphanumeric = false;
                // Which names are taken is said by AccountNames.
                identity.User.AllowedUserNameCharacters = "";
            })
            .AddEntityFrameworkStores<PantometDb>()
            .AddSignInManager()
            .AddDefaultTokenProviders()
            .AddClaimsPrincipalFactory<PrincipalFactory>()
            .AddPasswordValidator<PasswordValidator>();
        services.Configure<PasswordHasherOptions>(hasher => hasher.IterationCount = Iterations);
        services
            .AddAuthentication(auth => auth.DefaultScheme = Whoever)
            .AddPolicyScheme(Whoever, null, scheme => scheme.ForwardDefaultSelector = context => SchemeOf(context, options))
            .AddScheme<AuthenticationSchemeOptions, LocalHandler>(LocalHandler.Name, null)
            .AddScheme<AuthenticationSchemeOptions, TokenHandler>(TokenHandler.Name, null)
            .AddCookie(Guests, cookie => Bake(cookie, "pantomet-guest", Longest, options))
            .AddIdentityCookies();
        services.Configure<CookieAuthenticationOptions>(
            IdentityConstants.ApplicationScheme,
            cookie =>
            {
                Bake(cookie, "pantomet", Idle, options);
                cookie.SlidingExpiration = true;
                cookie.Events.OnValidatePrincipal = ValidateAsync;
            }
        );
        services.Configure<CookieAuthenticationOptions>(
            IdentityConstants.TwoFactorUserIdScheme,
            cookie => Bake(cookie, "pantomet-second-step", SecondStep, options)
        );
        services.Configure<CookieAuthenticationOptions>(Guests, cookie => cookie.Events.OnValidatePrincipal = ValidateGuestAsync);
        services.AddAuthorizationBuilder().AddPolicy(Needs.Policy, policy => policy.AddRequirements(new RightRequirement()));
    }

    private static string SchemeOf(HttpContext context, ServerOptions options) =>
        !options.PeopleSignIn ? LocalHandler.Name
        : TokenHandler.Sends(context.Request) ? TokenHandler.Name
        : !context.Request.Cookies.ContainsKey(NameOf("pantomet", options))
        && context.Request.Cookies.ContainsKey(NameOf("pantomet-guest", options))
            ? Guests
        : IdentityConstants.ApplicationScheme;

    private static string NameOf(string name, ServerOptions options) => options.HasTls ? SecureName + name : name;

    private static void Bake(CookieAuthenticationOptions cookie, string name, TimeSpan lasts, ServerOptions options)
    {
        cookie.Cookie.Name = NameOf(name, options);
        cookie.Cookie.HttpOnly = true;
        cookie.Cookie.SameSite = SameSiteMode.Strict;
        cookie.Cookie.SecurePolicy = options.HasTls ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;
        cookie.Cookie.Path = "/";
        cookie.ExpireTimeSpan = lasts;
        // Nobody is sent to a page of the server: the client shows what to do.
        cookie.Events.OnRedirectToLogin = Refused(StatusCodes.Status401Unauthorized);
        cookie.Events.OnRedirectToAccessDenied = Refused(StatusCodes.Status403Forbidden);
    }

    private static Func<RedirectContext<CookieAuthenticationOptions>, Task> Refused(int status) =>
        context =>
        {
            context.Response.StatusCode = status;
            return Task.CompletedTask;
        };

    // A sign-in ends when the person is removed, when all their sign-ins are ended, and a week after it began; name and role are those of now.
    private static async Task ValidateAsync(CookieValidatePrincipalContext context)
    {
        var services = context.HttpContext.RequestServices;
        var clock = services.GetRequiredService<TimeProvider>();
        var person = Guid.TryParse(context.Principal?.FindFirstValue(ClaimTypes.NameIdentifier), out var id)
            ? await services.GetRequiredService<PeopleRegistry>().FindAsync(id, context.HttpContext.RequestAborted)
            : null;
        if (
            person is null
            || context.Principal?.FindFirstValue(Callers.Stamp) != person.Stamp
            || !long.TryParse(context.Principal.FindFirstValue(Callers.Since), CultureInfo.InvariantCulture, out var since)
            || clock.GetUtcNow() - DateTimeOffset.FromUnixTimeSeconds(since) > Longest
        )
        {
            context.RejectPrincipal();
            return;
        }

        var identity = Callers.Identity(IdentityConstants.ApplicationScheme, person.Id, person.Name, person.Role);
        identity.AddClaim(new(Callers.Stamp, person.Stamp));
        identity.AddClaim(new(Callers.Since, since.ToString(CultureInfo.InvariantCulture)));
        context.ReplacePrincipal(new(identity));
    }

    private static async Task ValidateGuestAsync(CookieValidatePrincipalContext context)
    {
        var links = context.HttpContext.RequestServices.GetRequiredService<LinkStore>();
        if (
            !Guid.TryParse(context.Principal?.FindFirstValue(Callers.Link), out var link)
            || await links.GuestAsync(link, context.HttpContext.RequestAborted) is null
        )
        {
            context.RejectPrincipal();
        }
    }
}

/// <summary>What a sign-in holds of a person.</summary>
internal sealed class PrincipalFactory(TimeProvider clock) : IUserClaimsPrincipalFactory<Person>
{
    public Task<ClaimsPrincipal> CreateAsync(Person user)
    {
        var identity = Callers.Identity(IdentityConstants.ApplicationScheme, user.Id, user.DisplayName, user.Role);
        identity.AddClaim(new(Callers.Stamp, user.SecurityStamp ?? ""));
        identity.AddClaim(new(Callers.Since, clock.GetUtcNow().ToUnixTimeSeconds().ToString(CultureInfo.InvariantCulture)));
        return Task.FromResult(new ClaimsPrincipal(identity));
    }
}

/// <summary>The rules of passwords, wherever one is set.</summary>
internal sealed class PasswordValidator : IPasswordValidator<Person>
{
    public Task<IdentityResult> ValidateAsync(UserManager<Person> manager, Person user, string? password) =>
        Task.FromResult(
            PasswordRules.Fault(password, user.UserName ?? "") is { } fault
                ? IdentityResult.Failed(new IdentityError { Code = "bad-password", Description = fault })
                : IdentityResult.Success
        );
}
