namespace Pantomet.Application.Destinations;

/// <summary>The rules that a new data folder begins with: places with generic names and the figures of common practice.</summary>
internal static class StarterRules
{
    public static string Json { get; } = Read();

    private static string Read()
    {
        using var stream =
            typeof(StarterRules).Assembly.GetManifestResourceStream("starter-rules.json")
            ?? throw new InvalidOperationException("The starter rules are missing from the build.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
