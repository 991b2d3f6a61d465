namespace Pantomet.Core.Accounts;

/// <summary>What a program may do with a token. It never may more than the person whose token it is.</summary>
public enum TokenScope
{
    /// <summary>See everything.</summary>
    Read,

    /// <summary>Change pictures, jobs and destinations.</summary>
    Command,

    /// <summary>Publish live links, hand files over and deliver them.</summary>
    Publish,
}
