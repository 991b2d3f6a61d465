using System.Xml.Linq;
using Microsoft.AspNetCore.DataProtection.Repositories;
using Microsoft.Extensions.Logging;
using Pantomet.Data;

namespace Pantomet.Application.Background;

/// <summary>
/// The keys that seal cookies and secrets, as files. A key is on the disk before anything is sealed with it: one that a power loss leaves empty
/// would open nothing again, and the server would rightly refuse to start with it.
/// </summary>
internal sealed class KeyFiles(DirectoryInfo folder, ILoggerFactory log) : FileSystemXmlRepository(folder, log)
{
    /// <inheritdoc/>
    public override void StoreElement(XElement element, string friendlyName)
    {
        ArgumentNullException.ThrowIfNull(element);
        ArgumentNullException.ThrowIfNull(friendlyName);
        var path = Path.Combine(Directory.FullName, $"{friendlyName}.xml");
        var part = path + ".part";
        using (var file = new FileStream(part, Mode()))
        {
            element.Save(file);
        }

        Durable.Flush(part);
        Durable.Move(part, path);
    }

    // Its owner's alone from its first byte on.
    private static FileStreamOptions Mode()
    {
        var mode = new FileStreamOptions
        {
            Mode = FileMode.Create,
            Access = FileAccess.Write,
            Share = FileShare.None,
        };
        if (!OperatingSystem.IsWindows())
        {
            mode.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        }

        return mode;
    }
}
