namespace Pantomet.Core.Accounts;

/// <summary>What a request needs.</summary>
public enum Right
{
    /// <summary>To see pictures, jobs, destinations and files.</summary>
    Look,

    /// <summary>To comment at a cell and to accept it.</summary>
    Comment,

    /// <summary>To change pictures, jobs and destinations.</summary>
    Edit,

    /// <summary>To publish live links and to hand files over.</summary>
    Publish,

    /// <summary>To have pages checked: the server reaches other machines for it.</summary>
    CheckPages,

    /// <summary>To optimise folders of the server's machine, and to write files into them.</summary>
    UseFolders,

    /// <summary>To set up receivers and to deliver to them: the server reaches other machines for it.</summary>
    UseReceivers,

    /// <summary>To decide who may do what, and to look after the data: people, the log, storage, backups.</summary>
    Administer,
}
