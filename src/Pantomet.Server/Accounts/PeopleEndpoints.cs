using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing;
using Pantomet.Application.Accounts;
using Pantomet.Core.Accounts;
using Pantomet.Core.Texts;
using Pantomet.Data.Accounts;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Accounts;

/// <summary>The people of a server.</summary>
/// <param name="People">All people, by name.</param>
/// <param name="Links">Invitations and links that set a password, which still work.</param>
/// <param name="Access">What the owner gave to roles.</param>
public sealed record PeopleView(IReadOnlyList<PersonView> People, IReadOnlyList<LinkView> Links, AccessView Access);

/// <summary>What the owner gave to roles, of page checks, folders and receivers.</summary>
/// <param name="Editors">What editors may.</param>
/// <param name="Viewers">What viewers may.</param>
public sealed record AccessView(IReadOnlyList<Right> Editors, IReadOnlyList<Right> Viewers);

/// <summary>An invitation.</summary>
/// <param name="Name">For whom it is.</param>
/// <param name="Role">What they are to be.</param>
/// <param name="Days">For how many days it works.</param>
public sealed record InvitationRequest(string Name, Role Role, int Days = 7);

/// <summary>A link that was made.</summary>
/// <param name="Address">The address; it is shown now and never again.</param>
/// <param name="Link">As it is listed.</param>
public sealed record LinkMade(string Address, LinkView Link);

/// <summary>A role for a person.</summary>
/// <param name="Role">What they are to be.</param>
public sealed record RoleRequest(Role Role);

/// <summary>Who may do what: for owners.</summary>
internal static class PeopleEndpoints
{
    private const int LongestInvitation = 30;
    private static readonly TimeSpan PasswordLinkLasts = TimeSpan.FromDays(1);

    public static void Map(IEndpointRouteBuilder routes)
    {
        var people = routes
            .MapGroup("/api/people")
            .WithTags("Accounts")
            .NeedsRight(Right.Administer)
            .ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status404NotFound);
        people
            .MapGet("/", ListAsync)
            .WithName("listPeople")
            .WithSummary("The people of this server, the invitations, and who may do what.");
        people
            .MapPost("/invitations", InviteAsync)
            .WithName("invite")
            .WithSummary("Makes a link by which somebody makes their account; it is shown once.");
        people.MapDelete("/invitations/{id:guid}", RevokeAsync).WithName("revokeInvitation").WithSummary("Revokes an invitation.");
        people.MapPut("/access", AccessAsync).WithName("setAccess").WithSummary("Gives page checks, folders and receivers to roles.");
        people.MapPut("/{id:guid}/role", RoleAsync).WithName("setRole").WithSummary("Gives a person another role.");
        people
            .MapDelete("/{id:guid}", RemoveAsync)
            .WithName("removePerson")
            .WithSummary("Removes a person; what they did keeps their name.");
        people.MapPost("/{id:guid}/sign-out", SignOutAsync).WithName("signPersonOut").WithSummary("Ends all sign-ins of a person.");
        people
            .MapPost("/{id:guid}/password-link", PasswordLinkAsync)
            .WithName("makePasswordLink")
            .WithSummary("Makes a link by which a person sets a new password; it is shown once.");
    }

    private static async Task<Ok<PeopleView>> ListAsync(PeopleStore people, LinkStore links, AccessStore access, CancellationToken cancel)
    {
        var given = await access.GetAsync(cancel);
        return TypedResults.Ok(
            new PeopleView(
                await people.ListAsync(cancel),
                await links.ListAsync(null, cancel),
                new([.. given.ForEditors.Order()], [.. given.ForViewers.Order()])
            )
        );
    }

    private static async Task<Results<Ok<LinkMade>, ProblemHttpResult>> InviteAsync(
        InvitationRequest request,
        HttpContext context,
        LinkStore links,
        ServerOptions options,
        CancellationToken cancel
    )
    {
        if (!options.PeopleSignIn)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "no-accounts", AccountTexts.NobodySignsInHere);
        }

        if (AccountNames.Fault(request.Name) is { } fault)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-name", fault, "$.name");
        }

        if (request.Days is < 1 or > LongestInvitation)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-days", AccountTexts.ALinkLasts(LongestInvitation), "$.days");
        }

        context.IsAbout($"{request.Name.Trim()}, {request.Role}");
        return TypedResults.Ok(
            await MakeAsync(
                context,
                links,
                new()
                {
                    Hash = "",
                    Kind = LinkKind.Invitation,
                    Name = request.Name.Trim(),
                    Role = request.Role,
                },
                TimeSpan.FromDays(request.Days),
                cancel
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RevokeAsync(Guid id, LinkStore links, CancellationToken cancel) =>
        await links.RevokeAsync(id, null, cancel)
            ? TypedResults.NoContent()
            : Problem.Of(StatusCodes.Status404NotFound, "no-such-link", AccountTexts.ThisLinkDoesNotExist);

    private static async Task<Results<NoContent, ProblemHttpResult>> AccessAsync(
        AccessView view,
        HttpContext context,
        AccessStore access,
        CancellationToken cancel
    )
    {
        if (view.Editors.Concat(view.Viewers).Any(right => !Access.Grantable.Contains(right)))
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-right", AccountTexts.OnlyTheseRightsCanBeGiven);
        }

        context.IsAbout(AccountTexts.RightsGiven(view.Editors, view.Viewers));
        await access.SetAsync(new() { ForEditors = view.Editors.ToHashSet(), ForViewers = view.Viewers.ToHashSet() }, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RoleAsync(
        Guid id,
        RoleRequest request,
        HttpContext context,
        PeopleStore people
    )
    {
        if (await people.FindAsync(id) is not { } person)
        {
            return NoPerson();
        }

        context.IsAbout($"{person.DisplayName}, {request.Role}");
        return Answer(await people.SetRoleAsync(person, request.Role));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(Guid id, PeopleStore people) =>
        await people.FindAsync(id) is { } person ? Answer(await people.RemoveAsync(person)) : NoPerson();

    private static async Task<Results<NoContent, ProblemHttpResult>> SignOutAsync(Guid id, PeopleStore people)
    {
        if (await people.FindAsync(id) is not { } person)
        {
            return NoPerson();
        }

        await people.SignOutAsync(person);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<LinkMade>, ProblemHttpResult>> PasswordLinkAsync(
        Guid id,
        HttpContext context,
        PeopleStore people,
        LinkStore links,
        CancellationToken cancel
    ) =>
        await people.FindAsync(id) is { } person
            ? TypedResults.Ok(
                await MakeAsync(
                    context,
                    links,
                    new()
                    {
                        Hash = "",
                        Kind = LinkKind.Password,
                        Name = person.DisplayName,
                        PersonId = id,
                    },
                    PasswordLinkLasts,
                    cancel
                )
            )
            : NoPerson();

    /// <summary>Makes a link and gives its address, as whoever asked reaches this server.</summary>
    public static async Task<LinkMade> MakeAsync(
        HttpContext context,
        LinkStore links,
        LinkRow link,
        TimeSpan lasts,
        CancellationToken cancel
    )
    {
        link.CreatedBy = context.Actor().Name;
        var (row, secret) = await links.MakeAsync(link, lasts, cancel);
        // What stands behind the "#" is not sent, so that no log on the way has it.
        var address = $"{context.Request.Scheme}://{context.Request.Host}{AddressOf(row.Kind)}#{secret}";
        return new(address, new(row.Id, row.Kind, row.Name, row.Role, row.CreatedBy, row.CreatedAt, row.ExpiresAt, null));
    }

    /// <summary>The page of the client that takes a link.</summary>
    public static string AddressOf(LinkKind kind) =>
        kind switch
        {
            LinkKind.Guest => "/guest",
            LinkKind.Password => "/new-password",
            _ => "/welcome",
        };

    private static Results<NoContent, ProblemHttpResult> Answer(string? fault) =>
        fault is null ? TypedResults.NoContent() : Problem.Of(StatusCodes.Status400BadRequest, "refused", fault);

    private static ProblemHttpResult NoPerson() =>
        Problem.Of(StatusCodes.Status404NotFound, "no-such-person", AccountTexts.ThisPersonDoesNotExist);
}
