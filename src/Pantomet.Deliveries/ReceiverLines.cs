using Pantomet.Application;
using Pantomet.Application.Background;
using Pantomet.Core.Deliveries;

namespace Pantomet.Deliveries;

/// <summary>Opens ways to receivers.</summary>
public sealed class ReceiverLines(AllowedFolders folders, WorkOptions options)
{
    /// <summary>Opens the way to a receiver; nothing is connected before the first file.</summary>
    /// <param name="rule">The receiver; nothing is wrong with it.</param>
    /// <param name="secret">Its password, token or key; null for none.</param>
    public IReceiverLine Open(ReceiverRule rule, string? secret) =>
        rule.Way switch
        {
            ReceiverWay.Folder => new FolderLine(rule, folders),
            ReceiverWay.S3 => new S3Line(rule, secret, options),
            ReceiverWay.Sftp => new SftpLine(rule, secret, options),
            _ => new HttpLine(rule, secret, options),
        };
}
