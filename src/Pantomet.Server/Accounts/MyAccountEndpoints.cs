using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.RateLimiting;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Accounts;
using Pantomet.Core.Accounts;
using Pantomet.Core.Texts;
using Pantomet.Data.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Accounts;

/// <summary>Whether whoever asks is signed in, and as what.</summary>
public enum SignInState
{
    /// <summary>Nobody signs in here: only this machine reaches the server.</summary>
    Local,

    /// <summary>Not signed in.</summary>
    SignedOut,

    /// <summary>Not signed in, and there is no owner yet.</summary>
    NoOwner,

    /// <summary>Signed in.</summary>
    SignedIn,

    /// <summary>A guest of one job.</summary>
    Guest,
}

/// <summary>Who asks, and what they may do.</summary>
/// <param name="State">Whether somebody is signed in, and as what.</param>
/// <param name="Id">The person; null for all others.</param>
/// <param name="Name">Their name; null where they have none.</param>
/// <param name="SignInName">What they sign in with; null for all others than people.</param>
/// <param name="Role">What they are; null for guests and whoever is not signed in.</param>
/// <param name="Rights">What they may do.</param>
/// <param name="TwoStep">True when they sign in with a second step.</param>
/// <param name="Job">The job of a guest; null for all others.</param>
public sealed record Me(
    SignInState State,
    Guid? Id,
    string? Name,
    string? SignInName,
    Role? Role,
    IReadOnlyList<Right> Rights,
    bool TwoStep,
    Guid? Job
);

/// <summary>A change of one's password.</summary>
/// <param name="Current">The password as it is.</param>
/// <param name="New">The password as it is to be.</param>
public sealed record PasswordChange(string Current, string New);

/// <summary>What an app needs for the second step.</summary>
/// <param name="Key">The key, to be typed.</param>
/// <param name="Address">The same as an address that such apps open.</param>
/// <param name="Picture">The same as a QR code, a picture in SVG.</param>
public sealed record TwoStepBeginning(string Key, string Address, string Picture);

/// <summary>What signs in when the app is lost.</summary>
/// <param name="Codes">Codes that work once each; they are shown now and never again.</param>
public sealed record RecoveryCodes(IReadOnlyList<string> Codes);

/// <summary>What needs the password once more.</summary>
/// <param name="Password">The password.</param>
public sealed record PasswordCheck(string Password);

/// <summary>A new token.</summary>
/// <param name="Name">What it is for.</param>
/// <param name="Scopes">What a program may do with it.</param>
/// <param name="Days">For how many days it works.</param>
public sealed record TokenRequest(string Name, IReadOnlyList<TokenScope> Scopes, int Days = 90);

/// <summary>A token that was made.</summary>
/// <param name="Token">The token; it is shown now and never again.</param>
/// <param name="View">As it is listed.</param>
public sealed record TokenMade(string Token, AccessTokenView View);

/// <summary>One's own account.</summary>
internal static class MyAccountEndpoints
{
    private const int LongestToken = 366;
    private const int Recoveries = 10;

    public static void Map(IEndpointRouteBuilder routes)
    {
        routes
            .MapGet("/api/me", GetAsync)
            .WithTags("Accounts")
            .WithName("getMe")
            .WithSummary("Who asks, and what they may do.")
            .AllowAnonymous();
        var mine = routes
            .MapGroup("/api/me")
            .WithTags("Accounts")
            .NeedsRight(Right.Look)
            .RequireRateLimiting(SignInEndpoints.Limit)
            .AddEndpointFilter(OfPersonAsync)
            .ProducesProblem(StatusCodes.Status400BadRequest);
        routes
            .MapPost("/api/me/sign-out", SignOutAsync)
            .WithTags("Accounts")
            .WithName("signOut")
            .WithSummary("Signs out here.")
            .AllowAnonymous();
        mine.MapPost("/sign-out-everywhere", SignOutEverywhereAsync)
            .WithName("signOutEverywhere")
            .WithSummary("Ends all sign-ins of one's account.");
        mine.MapPut("/password", ChangeAsync)
            .WithName("changePassword")
            .WithSummary("Changes one's password, and ends all other sign-ins.");
        mine.MapPost("/two-step", BeginAsync)
            .WithName("beginTwoStep")
            .WithSummary("Gives the key for an app that makes codes; the second step begins once one of them is confirmed.");
        mine.MapPost("/two-step/confirm", ConfirmAsync)
            .WithName("confirmTwoStep")
            .WithSummary("Switches the second step on, and gives recovery codes.");
        mine.MapPost("/two-step/end", EndAsync).WithName("endTwoStep").WithSummary("Switches the second step off.");
        mine.MapGet("/tokens", TokensAsync).WithName("listTokens").WithSummary("One's tokens for programs.");
        mine.MapPost("/tokens", MakeTokenAsync).WithName("makeToken").WithSummary("Makes a token for a program; it is shown once.");
        mine.MapDelete("/tokens/{id:guid}", RevokeAsync).WithName("revokeToken").WithSummary("Revokes a token.");
    }

    // A token never changes the account it belongs to, and where nobody signs in there is no account.
    private static async ValueTask<object?> OfPersonAsync(EndpointFilterInvocationContext call, EndpointFilterDelegate next)
    {
        var context = call.HttpContext;
        return context.User.Scopes() is not null
                ? Problem.Of(StatusCodes.Status403Forbidden, "not-allowed", AccountTexts.TheTokenDoesNotInclude)
            : context.PersonId() is null ? Problem.Of(StatusCodes.Status400BadRequest, "no-accounts", AccountTexts.NobodySignsInHere)
            : await next(call);
    }

    private static async Task<Ok<Me>> GetAsync(
        HttpContext context,
        ServerOptions options,
        AccessStore access,
        PeopleRegistry registry,
        PeopleStore people,
        CancellationToken cancel
    )
    {
        // Who one is changes without this address changing.
        context.Response.Headers.CacheControl = "no-store";
        if (!options.PeopleSignIn)
        {
            return TypedResults.Ok(new Me(SignInState.Local, null, null, null, Role.Owner, Enum.GetValues<Right>(), false, null));
        }

        if (context.GuestJob() is { } job)
        {
            return TypedResults.Ok(
                new Me(SignInState.Guest, null, context.User.Identity?.Name, null, null, [Right.Look, Right.Comment], false, job)
            );
        }

        if (context.PersonId() is not { } id || await people.FindAsync(id) is not { } person)
        {
            var state = await registry.HasOwnerAsync(cancel) ? SignInState.SignedOut : SignInState.NoOwner;
            return TypedResults.Ok(new Me(state, null, null, null, null, [], false, null));
        }

        var given = await access.GetAsync(cancel);
        var scopes = context.User.Scopes();
        return TypedResults.Ok(
            new Me(
                SignInState.SignedIn,
                id,
                person.DisplayName,
                person.UserName,
                person.Role,
                [
                    .. Enum.GetValues<Right>()
                        .Where(right => scopes is null ? given.Allows(person.Role, right) : given.Allows(person.Role, scopes, right)),
                ],
                person.TwoFactorEnabled,
                null
            )
        );
    }

    private static async Task<NoContent> SignOutAsync(HttpContext context, SignInManager<Person> signIn, ServerOptions options)
    {
        if (options.PeopleSignIn)
        {
            await signIn.SignOutAsync();
            await context.SignOutAsync(AccountServices.Guests);
        }

        return TypedResults.NoContent();
    }

    private static async Task<NoContent> SignOutEverywhereAsync(HttpContext context, SignInManager<Person> signIn, PeopleStore people)
    {
        await people.SignOutAsync(await MeAsync(context, people));
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ChangeAsync(
        PasswordChange change,
        HttpContext context,
        SignInManager<Person> signIn,
        PeopleStore people,
        PeopleRegistry registry
    )
    {
        var person = await MeAsync(context, people);
        if (await WrongPasswordAsync(signIn, person, change.Current, "$.current") is { } wrong)
        {
            return wrong;
        }

        var changed = await signIn.UserManager.ChangePasswordAsync(person, change.Current, change.New);
        if (!changed.Succeeded)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-password", PeopleStore.SentenceOf(changed), "$.new");
        }

        // All other sign-ins end by the new stamp; this one goes on.
        await registry.ReadAsync(CancellationToken.None);
        await signIn.SignInAsync(person, isPersistent: false);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<TwoStepBeginning>, ProblemHttpResult>> BeginAsync(
        HttpContext context,
        UserManager<Person> accounts,
        PeopleStore people
    )
    {
        var person = await MeAsync(context, people);
        if (person.TwoFactorEnabled)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "two-step-is-on", AccountTexts.TwoStepIsOnAlready);
        }

        var stamp = person.SecurityStamp;
        await accounts.ResetAuthenticatorKeyAsync(person);
        // Only a key was made: nobody is to be signed out by it.
        person.SecurityStamp = stamp;
        await accounts.UpdateAsync(person);
        var key = await accounts.GetAuthenticatorKeyAsync(person) ?? "";
        var address = TwoStep.Address(person.UserName ?? "", key);
        return TypedResults.Ok(new TwoStepBeginning(key, address, TwoStep.Picture(address)));
    }

    private static async Task<Results<Ok<RecoveryCodes>, ProblemHttpResult>> ConfirmAsync(
        CodeRequest request,
        HttpContext context,
        SignInManager<Person> signIn,
        PeopleStore people,
        PeopleRegistry registry
    )
    {
        var person = await MeAsync(context, people);
        var accounts = signIn.UserManager;
        if (person.TwoFactorEnabled)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "two-step-is-on", AccountTexts.TwoStepIsOnAlready);
        }

        var code = request.Code.Replace(" ", "", StringComparison.Ordinal);
        if (!await accounts.VerifyTwoFactorTokenAsync(person, accounts.Options.Tokens.AuthenticatorTokenProvider, code))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "wrong-code", AccountTexts.TheCodeIsWrong, "$.code");
        }

        await accounts.SetTwoFactorEnabledAsync(person, true);
        var codes = await accounts.GenerateNewTwoFactorRecoveryCodesAsync(person, Recoveries);
        await registry.ReadAsync(CancellationToken.None);
        await signIn.SignInAsync(person, isPersistent: false);
        return TypedResults.Ok(new RecoveryCodes([.. codes ?? []]));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EndAsync(
        PasswordCheck check,
        HttpContext context,
        SignInManager<Person> signIn,
        PeopleStore people,
        PeopleRegistry registry
    )
    {
        var person = await MeAsync(context, people);
        if (await WrongPasswordAsync(signIn, person, check.Password, "$.password") is { } wrong)
        {
            return wrong;
        }

        await signIn.UserManager.SetTwoFactorEnabledAsync(person, false);
        await signIn.UserManager.ResetAuthenticatorKeyAsync(person);
        await registry.ReadAsync(CancellationToken.None);
        await signIn.SignInAsync(person, isPersistent: false);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<IReadOnlyList<AccessTokenView>>> TokensAsync(
        HttpContext context,
        AccessTokenStore tokens,
        CancellationToken cancel
    ) => TypedResults.Ok(await tokens.ListAsync(context.PersonId()!.Value, cancel));

    private static async Task<Results<Ok<TokenMade>, ProblemHttpResult>> MakeTokenAsync(
        TokenRequest request,
        HttpContext context,
        AccessTokenStore tokens,
        CancellationToken cancel
    )
    {
        if (AccountNames.Fault(request.Name) is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-name", fault, "$.name");
        }

        if (request.Scopes.Count == 0)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "no-scope", AccountTexts.ATokenNeedsAScope, "$.scopes");
        }

        if (request.Days is < 1 or > LongestToken)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-days", AccountTexts.ATokenLasts(LongestToken), "$.days");
        }

        var (view, token) = await tokens.MakeAsync(
            context.PersonId()!.Value,
            request.Name.Trim(),
            request.Scopes,
            TimeSpan.FromDays(request.Days),
            cancel
        );
        context.IsAbout(request.Name.Trim());
        return TypedResults.Ok(new TokenMade(token, view));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RevokeAsync(
        Guid id,
        HttpContext context,
        AccessTokenStore tokens,
        CancellationToken cancel
    ) =>
        await tokens.RevokeAsync(context.PersonId()!.Value, id, cancel)
            ? TypedResults.NoContent()
            : Problem.Of(StatusCodes.Status404NotFound, "no-such-token", AccountTexts.ThisTokenDoesNotExist);

    // Wrong passwords count here as well: a browser that was left open is no way to guess it.
    private static async Task<ProblemHttpResult?> WrongPasswordAsync(
        SignInManager<Person> signIn,
        Person person,
        string password,
        string place
    )
    {
        var result = await signIn.CheckPasswordSignInAsync(person, password, lockoutOnFailure: true);
        return result.Succeeded ? null
            : result.IsLockedOut ? Problem.Of(StatusCodes.Status400BadRequest, "locked", AccountTexts.SignInIsLocked(5), place)
            : Problem.Of(StatusCodes.Status400BadRequest, "wrong-password", AccountTexts.ThePasswordIsWrong, place);
    }

    private static async Task<Person> MeAsync(HttpContext context, PeopleStore people) =>
        await people.FindAsync(context.PersonId()!.Value) ?? throw new InvalidOperationException("A sign-in of nobody was let through.");
}
