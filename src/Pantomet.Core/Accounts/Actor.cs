namespace Pantomet.Core.Accounts;

/// <summary>Who did something, as it is kept: the name that they had then.</summary>
/// <param name="Name">Name for people, or one of the words below.</param>
/// <param name="Person">The person; null for guests, and where nobody signs in.</param>
public sealed record Actor(string Name, Guid? Person = null)
{
    /// <summary>A browser of this machine, where nobody signs in.</summary>
    public static Actor Browser { get; } = new("browser");

    /// <summary>A program of this machine, where nobody signs in.</summary>
    public static Actor Program { get; } = new("program");

    /// <summary>The application itself: what follows a change of the library.</summary>
    public static Actor Library { get; } = new("library");
}
