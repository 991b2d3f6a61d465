namespace Pantomet.Core.Tests;

/// <summary>The project as it lies on the disk.</summary>
internal static class Checkout
{
    /// <summary>The folder of the project.</summary>
    public static string Root { get; } = Find();

    private static string Find()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Pantomet.slnx")))
        {
            folder = folder.Parent;
        }

        return folder?.FullName ?? throw new DirectoryNotFoundException("The tests do not lie in the project.");
    }
}
