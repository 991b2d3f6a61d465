namespace Pantomet.Core.Tests.Vectors;

/// <summary>Files of the checkout that are written from the core.</summary>
internal static class WrittenFile
{
    /// <summary>Faults unless a file is what the core writes now; writes it where PANTOMET_WRITE_VECTORS is 1.</summary>
    /// <param name="name">Its path in the checkout.</param>
    /// <param name="text">What must stand in it.</param>
    public static void Check(string name, string text)
    {
        var path = Path.Combine(Checkout.Root, name);
        if (Environment.GetEnvironmentVariable("PANTOMET_WRITE_VECTORS") == "1")
        {
            File.WriteAllText(path, text);
        }

        Assert.True(
            File.Exists(path) && File.ReadAllText(path) == text,
            $"{name} is not what the core writes now; write it anew with PANTOMET_WRITE_VECTORS=1."
        );
    }
}
