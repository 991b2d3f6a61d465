namespace Pantomet.Backups;

/// <summary>A backup has the keys that seal secrets, as the data folder has: nobody but its owner can read it.</summary>
internal static class OwnersAlone
{
    /// <summary>Makes a file for writing and reading.</summary>
    public static FileStream Create(string path) =>
        new(
            path,
            OperatingSystem.IsWindows()
                ? new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.ReadWrite }
                : new FileStreamOptions
                {
                    Mode = FileMode.CreateNew,
                    Access = FileAccess.ReadWrite,
                    UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
                }
        );

    /// <summary>Makes a folder, if it is missing.</summary>
    public static void CreateFolder(string path)
    {
        if (OperatingSystem.IsWindows())
        {
            Directory.CreateDirectory(path);
            return;
        }

        Directory.CreateDirectory(path, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
    }
}
