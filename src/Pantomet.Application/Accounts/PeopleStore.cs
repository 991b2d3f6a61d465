using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Accounts;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Accounts;

namespace Pantomet.Application.Accounts;

/// <summary>A person as an owner sees them.</summary>
/// <param name="Id">Identity.</param>
/// <param name="SignInName">What they sign in with.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Role">What they are.</param>
/// <param name="TwoStep">True when they sign in with a second step.</param>
/// <param name="SignedInAt">When they signed in last, UTC; null for never.</param>
/// <param name="LockedUntil">Until when they cannot sign in after wrong passwords, UTC; null when they can.</param>
public sealed record PersonView(
    Guid Id,
    string SignInName,
    string Name,
    Role Role,
    bool TwoStep,
    DateTime? SignedInAt,
    DateTimeOffset? LockedUntil
);

/// <summary>People: made, changed, removed. What is refused is said as a sentence.</summary>
public sealed class PeopleStore(PantometDb db, UserManager<Person> people, PeopleRegistry registry, TimeProvider clock)
{
    /// <summary>All people, by name.</summary>
    public async Task<IReadOnlyList<PersonView>> ListAsync(CancellationToken cancel)
    {
        var rows = await db.Users.AsNoTracking().Where(row => row.RemovedAt == null).ToListAsync(cancel);
        var now = clock.GetUtcNow();
        return
        [
            .. rows.OrderBy(row => row.DisplayName, StringComparer.CurrentCultureIgnoreCase)
                .Select(row => new PersonView(
                    row.Id,
                    row.UserName ?? "",
                    row.DisplayName,
                    row.Role,
                    row.TwoFactorEnabled,
                    row.SignedInAt,
                    row.LockoutEnd > now ? row.LockoutEnd : null
                )),
        ];
    }

    /// <summary>Makes a person; the sentence says what is wrong.</summary>
    public async Task<(Person? Person, string? Fault)> MakeAsync(string signInName, string name, string password, Role role)
    {
        if (AccountNames.SignInFault(signInName) is { } wrong)
        {
            return (null, wrong);
        }

        if (AccountNames.Fault(name) is { } fault)
        {
            return (null, fault);
        }

        var person = new Person
        {
            Id = Guid.CreateVersion7(),
            UserName = signInName,
            DisplayName = name.Trim(),
            Role = role,
            CreatedAt = clock.GetUtcNow().UtcDateTime,
            LockoutEnabled = true,
        };
        var made = await people.CreateAsync(person, password);
        if (made.Succeeded)
        {
            await registry.ReadAsync(CancellationToken.None);
            return (person, null);
        }

        return (null, SentenceOf(made));
    }

    /// <summary>A person who was not removed; null when there is none.</summary>
    public async Task<Person?> FindAsync(Guid id) =>
        await people.FindByIdAsync(id.ToString()) is { RemovedAt: null } person ? person : null;

    /// <summary>Gives a person another role.</summary>
    public async Task<string?> SetRoleAsync(Person person, Role role)
    {
        ArgumentNullException.ThrowIfNull(person);
        if (role != Role.Owner && await IsLastOwnerAsync(person))
        {
            return AccountTexts.ThereMustBeAnOwner;
        }

        person.Role = role;
        return await StoreAsync(person);
    }

    /// <summary>Removes a person: they cannot sign in, their tokens end, and what they did keeps their name.</summary>
    public async Task<string?> RemoveAsync(Person person)
    {
        ArgumentNullException.ThrowIfNull(person);
        if (await IsLastOwnerAsync(person))
        {
            return AccountTexts.ThereMustBeAnOwner;
        }

        person.RemovedAt = clock.GetUtcNow().UtcDateTime;
        // Somebody else can have the name.
        person.UserName = $"{person.UserName}-{person.Id:N}";
        person.PasswordHash = null;
        await people.UpdateSecurityStampAsync(person);
        var fault = await StoreAsync(person);
        await db.AccessTokens.Where(row => row.PersonId == person.Id).ExecuteDeleteAsync();
        return fault;
    }

    /// <summary>Ends all sign-ins of a person.</summary>
    public async Task SignOutAsync(Person person)
    {
        await people.UpdateSecurityStampAsync(person);
        await registry.ReadAsync(CancellationToken.None);
    }

    /// <summary>Sets a password without the one before, and ends all sign-ins; the sentence says what is wrong.</summary>
    public async Task<string?> SetPasswordAsync(Person person, string password)
    {
        ArgumentNullException.ThrowIfNull(person);
        if (PasswordRules.Fault(password, person.UserName ?? "") is { } fault)
        {
            return fault;
        }

        person.PasswordHash = people.PasswordHasher.HashPassword(person, password);
        await people.UpdateSecurityStampAsync(person);
        await people.ResetAccessFailedCountAsync(person);
        await people.SetLockoutEndDateAsync(person, null);
        return await StoreAsync(person);
    }

    /// <summary>Writes down that a person signed in.</summary>
    public async Task SignedInAsync(Person person)
    {
        ArgumentNullException.ThrowIfNull(person);
        person.SignedInAt = clock.GetUtcNow().UtcDateTime;
        await StoreAsync(person);
    }

    /// <summary>What a refusal of the account library says, as one sentence of ours where there is one.</summary>
    public static string SentenceOf(IdentityResult result)
    {
        ArgumentNullException.ThrowIfNull(result);
        var error = result.Errors.FirstOrDefault();
        return error?.Code switch
        {
            nameof(IdentityErrorDescriber.DuplicateUserName) => AccountTexts.TheNameIsTaken,
            nameof(IdentityErrorDescriber.PasswordMismatch) => AccountTexts.ThePasswordIsWrong,
            nameof(IdentityErrorDescriber.PasswordTooShort) => AccountTexts.APasswordMustBeLonger(PasswordRules.Least),
            _ => error?.Description ?? ServerTexts.TheRequestCannotBeRead,
        };
    }

    private async Task<string?> StoreAsync(Person person)
    {
        var stored = await people.UpdateAsync(person);
        await registry.ReadAsync(CancellationToken.None);
        return stored.Succeeded ? null : SentenceOf(stored);
    }

    private async Task<bool> IsLastOwnerAsync(Person person) =>
        person.Role == Role.Owner && await db.Users.CountAsync(row => row.Role == Role.Owner && row.RemovedAt == null) == 1;
}
