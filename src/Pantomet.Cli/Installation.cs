namespace Pantomet.Cli;

/// <summary>Where the repository and the built client lie.</summary>
internal static class Installation
{
    /// <summary>The root of the repository: the nearest folder above the program that holds the solution.</summary>
    public static string Root { get; } = Find();

    /// <summary>The built client.</summary>
    public static string Client => Path.Combine(Root, "client", "dist");

    private static string Find()
    {
        for (var folder = new DirectoryInfo(AppContext.BaseDirectory); folder is not null; folder = folder.Parent)
        {
            if (File.Exists(Path.Combine(folder.FullName, "Pantomet.slnx")))
            {
                return folder.FullName;
            }
        }

        return Directory.GetCurrentDirectory();
    }
}
