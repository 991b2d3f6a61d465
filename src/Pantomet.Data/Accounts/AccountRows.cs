using Microsoft.AspNetCore.Identity;
using Pantomet.Core.Accounts;

namespace Pantomet.Data.Accounts;

/// <summary>Somebody who signs in.</summary>
public sealed class Person : IdentityUser<Guid>
{
    /// <summary>Name for people, as the log and the screens show it.</summary>
    public string DisplayName { get; set; } = "";

    /// <summary>What they are.</summary>
    public Role Role { get; set; }

    /// <summary>When they came, UTC.</summary>
    public DateTime CreatedAt { get; set; }

    /// <summary>When they signed in last, UTC; null for never.</summary>
    public DateTime? SignedInAt { get; set; }

    /// <summary>When they were removed, UTC: they cannot sign in, and the log keeps their name. Null for the others.</summary>
    public DateTime? RemovedAt { get; set; }
}

/// <summary>What a link lets its holder do.</summary>
public enum LinkKind
{
    /// <summary>Make an account, once.</summary>
    Invitation,

    /// <summary>Set a new password of an account, once.</summary>
    Password,

    /// <summary>See one job, comment and accept, without an account.</summary>
    Guest,
}

/// <summary>An address that was given to somebody. The secret in it is not stored, its hash is.</summary>
public sealed class LinkRow
{
    /// <summary>Identity.</summary>
    public Guid Id { get; set; }

    /// <summary>What it lets its holder do.</summary>
    public LinkKind Kind { get; set; }

    /// <summary>The hash of its secret.</summary>
    public required string Hash { get; set; }

    /// <summary>For whom it was made, as words.</summary>
    public string Name { get; set; } = "";

    /// <summary>The role of an invitation.</summary>
    public Role Role { get; set; }

    /// <summary>The job of a guest; null for invitations.</summary>
    public Guid? JobId { get; set; }

    /// <summary>The person whose password it sets; null for the others.</summary>
    public Guid? PersonId { get; set; }

    /// <summary>Who made it.</summary>
    public string CreatedBy { get; set; } = "";

    /// <summary>When it was made, UTC.</summary>
    public DateTime CreatedAt { get; set; }

    /// <summary>When it stops to work, UTC.</summary>
    public DateTime ExpiresAt { get; set; }

    /// <summary>When it was used: an invitation works once, a guest's link shows when it was opened last. UTC; null for never.</summary>
    public DateTime? UsedAt { get; set; }

    /// <summary>When it was revoked, UTC; null while it works.</summary>
    public DateTime? RevokedAt { get; set; }
}

/// <summary>A token of a program.</summary>
public sealed class AccessTokenRow
{
    /// <summary>Identity.</summary>
    public Guid Id { get; set; }

    /// <summary>Whose it is.</summary>
    public Guid PersonId { get; set; }

    /// <summary>What it is for, as words.</summary>
    public string Name { get; set; } = "";

    /// <summary>The hash of the token.</summary>
    public required string Hash { get; set; }

    /// <summary>The scopes by name, with commas.</summary>
    public string Scopes { get; set; } = "";

    /// <summary>When it was made, UTC.</summary>
    public DateTime CreatedAt { get; set; }

    /// <summary>When it stops to work, UTC.</summary>
    public DateTime ExpiresAt { get; set; }

    /// <summary>When a program used it last, UTC, to the minute; null for never.</summary>
    public DateTime? UsedAt { get; set; }

    /// <summary>When it was revoked, UTC; null while it works.</summary>
    public DateTime? RevokedAt { get; set; }
}

/// <summary>Something that somebody did, besides the commands of jobs, which are kept by themselves.</summary>
public sealed class ActivityRow
{
    /// <summary>Identity; ascending in time.</summary>
    public long Id { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTime At { get; set; }

    /// <summary>Who, by the name they had then.</summary>
    public required string Actor { get; set; }

    /// <summary>The person; null for guests, and where nobody signs in.</summary>
    public Guid? ActorId { get; set; }

    /// <summary>What was done, as a word for programs: the name of the request.</summary>
    public required string What { get; set; }

    /// <summary>What it was done to, as words; empty where the word says it all.</summary>
    public string Subject { get; set; } = "";

    /// <summary>The job; null where none is meant.</summary>
    public Guid? JobId { get; set; }

    /// <summary>The address it came from.</summary>
    public string From { get; set; } = "";
}

/// <summary>What somebody said about a picture in a slot.</summary>
public sealed class CommentRow
{
    /// <summary>Identity.</summary>
    public Guid Id { get; set; }

    /// <summary>The job.</summary>
    public Guid JobId { get; set; }

    /// <summary>The picture.</summary>
    public Guid PictureId { get; set; }

    /// <summary>The slot's address.</summary>
    public required string Slot { get; set; }

    /// <summary>Who said it, by the name they had then.</summary>
    public required string Actor { get; set; }

    /// <summary>The person; null for guests, and where nobody signs in.</summary>
    public Guid? ActorId { get; set; }

    /// <summary>When, UTC.</summary>
    public DateTime At { get; set; }

    /// <summary>What was said; may be empty where the cell was accepted.</summary>
    public string Text { get; set; } = "";

    /// <summary>True when they accepted the cell with it.</summary>
    public bool Accepted { get; set; }

    /// <summary>When it was resolved, UTC; null while it is open.</summary>
    public DateTime? ResolvedAt { get; set; }
}
