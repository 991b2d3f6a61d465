namespace Pantomet.Core.Accounts;

/// <summary>What a person is on a server, from the least to the most.</summary>
public enum Role
{
    /// <summary>Sees everything and comments; changes nothing else.</summary>
    Viewer,

    /// <summary>Works with pictures, jobs and destinations, and publishes.</summary>
    Editor,

    /// <summary>May do everything, and decides who else may do what.</summary>
    Owner,
}
