namespace Pantomet.Cli;

/// <summary>Where this program finds what ships with it: in the repository it was built of, or beside itself.</summary>
internal static class Installation
{
    private const string Solution = "Pantomet.slnx";

    /// <summary>
    /// The folder with the demo and the client: the root of the repository, the nearest folder above the program that holds the solution; where
    /// there is none, the program's own.
    /// </summary>
    public static string Root { get; } = Find();

    /// <summary>The built client.</summary>
    public static string Client => Path.Combine(Root, "client", "dist");

    /// <summary>Where the demo keeps its data: in the repository, or where it was started.</summary>
    public static string Data => Path.Combine(File.Exists(Path.Combine(Root, Solution)) ? Root : Directory.GetCurrentDirectory(), "data");

    private static string Find()
    {
        for (var folder = new DirectoryInfo(AppContext.BaseDirectory); folder is not null; folder = folder.Parent)
        {
            if (File.Exists(Path.Combine(folder.FullName, Solution)))
            {
                return folder.FullName;
            }
        }

        return AppContext.BaseDirectory;
    }
}
