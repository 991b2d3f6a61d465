namespace Pantomet.Core.Accounts;

/// <summary>
/// Who may do what. Three rights reach into the machine and its network: whoever is not an owner has them only where the owner gave them to
/// the role.
/// </summary>
public sealed record Access
{
    /// <summary>The rights that an owner gives to a role, or does not.</summary>
    public static IReadOnlySet<Right> Grantable { get; } = new HashSet<Right> { Right.CheckPages, Right.UseFolders, Right.UseReceivers };

    /// <summary>Nothing is given beyond what a role has by itself.</summary>
    public static Access Plain { get; } = new();

    /// <summary>What the owner gave to editors.</summary>
    public IReadOnlySet<Right> ForEditors { get; init; } = new HashSet<Right>();

    /// <summary>What the owner gave to viewers.</summary>
    public IReadOnlySet<Right> ForViewers { get; init; } = new HashSet<Right>();

    /// <summary>True when a role has a right.</summary>
    public bool Allows(Role role, Right right) =>
        role switch
        {
            Role.Owner => true,
            Role.Editor => right is Right.Look or Right.Comment or Right.Edit or Right.Publish || Given(ForEditors, right),
            Role.Viewer => right is Right.Look or Right.Comment || Given(ForViewers, right),
            _ => false,
        };

    /// <summary>True when a token with these scopes, of a person of this role, has a right. No token administers.</summary>
    public bool Allows(Role role, IReadOnlySet<TokenScope> scopes, Right right)
    {
        ArgumentNullException.ThrowIfNull(scopes);
        return Allows(role, right)
            && right switch
            {
                Right.Look => scopes.Count > 0,
                Right.Comment or Right.Edit or Right.CheckPages or Right.UseFolders => scopes.Contains(TokenScope.Command),
                Right.Publish or Right.UseReceivers => scopes.Contains(TokenScope.Publish),
                _ => false,
            };
    }

    private static bool Given(IReadOnlySet<Right> given, Right right) => Grantable.Contains(right) && given.Contains(right);
}
