namespace Pantomet.Cli;

/// <summary>Where a call says what it has to say: the program's own streams, or those that whoever calls within the process gave.</summary>
internal static class CallOutput
{
    private static readonly AsyncLocal<(TextWriter Out, TextWriter Error)?> Given = new();

    /// <summary>What came of the call.</summary>
    public static TextWriter Out => Given.Value?.Out ?? Console.Out;

    /// <summary>What is wrong, a line each.</summary>
    public static TextWriter Error => Given.Value?.Error ?? Console.Error;

    /// <summary>Has everything that this call says go elsewhere.</summary>
    public static void Use(TextWriter output, TextWriter error) => Given.Value = (output, error);
}
