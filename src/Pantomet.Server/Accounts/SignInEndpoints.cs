using System.Security.Claims;
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

/// <summary>Name and password.</summary>
/// <param name="SignInName">What they sign in with.</param>
/// <param name="Password">Their password.</param>
public sealed record SignInRequest(string SignInName, string Password);

/// <summary>The second step of a sign-in.</summary>
/// <param name="Code">The six digits of the app, or one of the recovery codes.</param>
public sealed record CodeRequest(string Code);

/// <summary>What a sign-in came to.</summary>
/// <param name="NeedsCode">True when the code of the second step is asked for now.</param>
public sealed record SignInResult(bool NeedsCode);

/// <summary>A link that somebody was given, by its secret: what stands behind the <c>#</c> of its address.</summary>
/// <param name="Secret">The secret.</param>
public sealed record LinkRequest(string Secret);

/// <summary>What a link is for.</summary>
/// <param name="Kind">What it lets its holder do.</param>
/// <param name="Name">For whom it was made; empty for the first owner.</param>
/// <param name="Role">The role that it gives; null for guests.</param>
/// <param name="SignInName">The account whose password it sets; null for the others.</param>
public sealed record LinkPurpose(LinkKind Kind, string Name, Role? Role, string? SignInName);

/// <summary>An account that is made by a link.</summary>
/// <param name="Secret">The secret of the link.</param>
/// <param name="SignInName">What to sign in with.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Password">The password.</param>
public sealed record AccountRequest(string Secret, string SignInName, string Name, string Password);

/// <summary>A new password that is set by a link.</summary>
/// <param name="Secret">The secret of the link.</param>
/// <param name="Password">The password.</param>
public sealed record NewPasswordRequest(string Secret, string Password);

/// <summary>A guest who comes by a link.</summary>
/// <param name="Secret">The secret of the link.</param>
/// <param name="Name">How they want to be called; the name of the link where it is empty.</param>
public sealed record GuestRequest(string Secret, string? Name = null);

/// <summary>Where a guest is let in.</summary>
/// <param name="Job">The job that they may see.</param>
public sealed record GuestJob(Guid Job);

/// <summary>Coming in: signing in, making an account by a link, coming as a guest.</summary>
internal static class SignInEndpoints
{
    /// <summary>The limit of tries.</summary>
    public const string Limit = "sign-in";

    private const string SignIn = "signIn";
    private const string SignInFailed = "signInFailed";

    public static void Map(IEndpointRouteBuilder routes)
    {
        var come = routes
            .MapGroup("/api")
            .WithTags("Accounts")
            .AllowAnonymous()
            .RequireRateLimiting(Limit)
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status401Unauthorized)
            .ProducesProblem(StatusCodes.Status429TooManyRequests);
        come.MapPost("/sign-in", SignInAsync).WithName(SignIn).WithSummary("Signs in with name and password.").NotLogged();
        come.MapPost("/sign-in/code", CodeAsync)
            .WithName("signInCode")
            .WithSummary("Takes the second step of a sign-in: the code of an app, or a recovery code.")
            .NotLogged();
        come.MapPost("/links/purpose", PurposeAsync)
            .WithName("getLinkPurpose")
            .WithSummary("Says what a link is for; it is not used up by that.")
            .NotLogged();
        come.MapPost("/accounts", MakeAsync)
            .WithName("makeAccount")
            .WithSummary("Makes an account by an invitation, or by the one-time address of the first owner, and signs in.")
            .NotLogged();
        come.MapPost("/accounts/password", PasswordAsync)
            .WithName("setPasswordByLink")
            .WithSummary("Sets a new password by a link, and ends all sign-ins of the account.")
            .NotLogged();
        come.MapPost("/guests", GuestAsync).WithName("comeAsGuest").WithSummary("Comes as a guest by a link to a job.").NotLogged();
    }

    private static async Task<Results<Ok<SignInResult>, ProblemHttpResult>> SignInAsync(
        SignInRequest request,
        HttpContext context,
        SignInManager<Person> signIn,
        PeopleStore people,
        ActivityLog log,
        ServerOptions options
    )
    {
        if (!options.PeopleSignIn)
        {
            return Nobody();
        }

        var person = await signIn.UserManager.FindByNameAsync(request.SignInName);
        if (person is null or { RemovedAt: not null })
        {
            // As much work as for a name that there is: time must not tell which names there are.
            signIn.UserManager.PasswordHasher.HashPassword(new Person(), request.Password);
            return await WrongAsync(log, context, request.SignInName, null, AccountTexts.NameOrPasswordIsWrong);
        }

        var result = await signIn.PasswordSignInAsync(person, request.Password, isPersistent: false, lockoutOnFailure: true);
        if (result.RequiresTwoFactor)
        {
            return TypedResults.Ok(new SignInResult(NeedsCode: true));
        }

        if (!result.Succeeded)
        {
            return await WrongAsync(
                log,
                context,
                request.SignInName,
                person,
                result.IsLockedOut ? LockedSentence(person) : AccountTexts.NameOrPasswordIsWrong
            );
        }

        await CameAsync(people, log, context, person);
        return TypedResults.Ok(new SignInResult(NeedsCode: false));
    }

    private static async Task<Results<Ok<SignInResult>, ProblemHttpResult>> CodeAsync(
        CodeRequest request,
        HttpContext context,
        SignInManager<Person> signIn,
        PeopleStore people,
        ActivityLog log
    )
    {
        if (await signIn.GetTwoFactorAuthenticationUserAsync() is not { RemovedAt: null } person)
        {
            return Problem.Of(StatusCodes.Status401Unauthorized, "first-step-first", AccountTexts.SignInAgainWithThePassword);
        }

        var code = request.Code.Replace(" ", "", StringComparison.Ordinal);
        var isOfApp = code.Length == TwoStep.Digits && code.All(char.IsAsciiDigit);
        var result = isOfApp
            ? await signIn.TwoFactorAuthenticatorSignInAsync(code, isPersistent: false, rememberClient: false)
            : await signIn.TwoFactorRecoveryCodeSignInAsync(code);
        if (!result.Succeeded)
        {
            if (!isOfApp)
            {
                // Wrong recovery codes count like wrong passwords.
                await signIn.UserManager.AccessFailedAsync(person);
            }

            return await WrongAsync(
                log,
                context,
                person.UserName ?? "",
                person,
                result.IsLockedOut ? LockedSentence(person) : AccountTexts.TheCodeIsWrong
            );
        }

        await CameAsync(people, log, context, person);
        return TypedResults.Ok(new SignInResult(NeedsCode: false));
    }

    private static async Task<Results<Ok<LinkPurpose>, ProblemHttpResult>> PurposeAsync(
        LinkRequest request,
        FirstOwner first,
        LinkStore links,
        PeopleStore people,
        CancellationToken cancel
    )
    {
        if (first.Is(request.Secret))
        {
            return TypedResults.Ok(new LinkPurpose(LinkKind.Invitation, "", Role.Owner, null));
        }

        if (await links.FindAsync(request.Secret, cancel) is not { } link)
        {
            return NoLink();
        }

        var person = link.PersonId is { } id ? await people.FindAsync(id) : null;
        return TypedResults.Ok(
            new LinkPurpose(link.Kind, link.Name, link.Kind == LinkKind.Invitation ? link.Role : null, person?.UserName)
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> MakeAsync(
        AccountRequest request,
        HttpContext context,
        FirstOwner first,
        LinkStore links,
        PeopleStore people,
        SignInManager<Person> signIn,
        ActivityLog log,
        CancellationToken cancel
    )
    {
        var isFirst = first.Is(request.Secret);
        var link = isFirst ? null : await links.FindAsync(request.Secret, cancel);
        if (!isFirst && link is not { Kind: LinkKind.Invitation })
        {
            return NoLink();
        }

        // What is wrong with the account is said before the link is used up.
        if (
            (
                AccountNames.SignInFault(request.SignInName)
                ?? AccountNames.Fault(request.Name)
                ?? PasswordRules.Fault(request.Password, request.SignInName)
                ?? (await signIn.UserManager.FindByNameAsync(request.SignInName) is null ? null : AccountTexts.TheNameIsTaken)
            ) is
            { } fault
        )
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-account", fault);
        }

        if (!(isFirst ? first.TryUse(request.Secret) : await links.TryUseAsync(link!, cancel)))
        {
            return NoLink();
        }

        var role = link?.Role ?? Role.Owner;
        var (person, refused) = await people.MakeAsync(request.SignInName, request.Name, request.Password, role);
        if (person is null)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-account", refused!);
        }

        await signIn.SignInAsync(person, isPersistent: false);
        await log.AddAsync(new(person.DisplayName, person.Id), "makeAccount", role.ToString(), null, ActivityFilter.From(context));
        await CameAsync(people, log, context, person);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> PasswordAsync(
        NewPasswordRequest request,
        HttpContext context,
        LinkStore links,
        PeopleStore people,
        ActivityLog log,
        CancellationToken cancel
    )
    {
        if (
            await links.FindAsync(request.Secret, cancel) is not { Kind: LinkKind.Password, PersonId: { } id } link
            || await people.FindAsync(id) is not { } person
        )
        {
            return NoLink();
        }

        if (PasswordRules.Fault(request.Password, person.UserName ?? "") is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-password", fault, "$.password");
        }

        if (!await links.TryUseAsync(link, cancel))
        {
            return NoLink();
        }

        await people.SetPasswordAsync(person, request.Password);
        await log.AddAsync(new(person.DisplayName, person.Id), "setPasswordByLink", "", null, ActivityFilter.From(context));
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<GuestJob>, ProblemHttpResult>> GuestAsync(
        GuestRequest request,
        HttpContext context,
        LinkStore links,
        ActivityLog log,
        CancellationToken cancel
    )
    {
        if (await links.FindAsync(request.Secret, cancel) is not { Kind: LinkKind.Guest, JobId: { } job } link)
        {
            return NoLink();
        }

        var name = string.IsNullOrWhiteSpace(request.Name) ? link.Name : request.Name.Trim();
        if (AccountNames.Fault(name) is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-name", fault, "$.name");
        }

        await links.TryUseAsync(link, cancel);
        var shown = AccountTexts.GuestNamed(name);
        var identity = new ClaimsIdentity(
            [new(ClaimTypes.Name, shown), new(Callers.Job, job.ToString()), new(Callers.Link, link.Id.ToString())],
            AccountServices.Guests
        );
        await context.SignInAsync(AccountServices.Guests, new(identity), new() { IsPersistent = true, ExpiresUtc = link.ExpiresAt });
        await log.AddAsync(new(shown), "comeAsGuest", "", job, ActivityFilter.From(context));
        return TypedResults.Ok(new GuestJob(job));
    }

    private static async Task CameAsync(PeopleStore people, ActivityLog log, HttpContext context, Person person)
    {
        await people.SignedInAsync(person);
        await log.AddAsync(new(person.DisplayName, person.Id), SignIn, "", null, ActivityFilter.From(context));
    }

    private static async Task<ProblemHttpResult> WrongAsync(
        ActivityLog log,
        HttpContext context,
        string name,
        Person? person,
        string sentence
    )
    {
        await log.AddAsync(new(person?.DisplayName ?? "", person?.Id), SignInFailed, name, null, ActivityFilter.From(context));
        return Problem.Of(StatusCodes.Status401Unauthorized, "wrong-sign-in", sentence);
    }

    private static string LockedSentence(Person person) =>
        AccountTexts.SignInIsLocked(Math.Max(1, (int)Math.Ceiling(((person.LockoutEnd ?? default) - DateTimeOffset.UtcNow).TotalMinutes)));

    private static ProblemHttpResult NoLink() => Problem.Of(StatusCodes.Status400BadRequest, "no-link", AccountTexts.TheLinkDoesNotWork);

    private static ProblemHttpResult Nobody() => Problem.Of(StatusCodes.Status400BadRequest, "no-accounts", AccountTexts.NobodySignsInHere);
}
