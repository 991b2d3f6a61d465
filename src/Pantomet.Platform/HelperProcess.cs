using System.ComponentModel;
using System.Diagnostics;
using System.Globalization;
using System.Runtime.InteropServices;

namespace Pantomet.Platform;

/// <summary>
/// What a process that works for another holds to: it ends when that one does, whatever it waits for, and takes no more memory and no more time
/// than it was given. The operating system holds both limits, so that neither a library nor a hostile file gets around them.
/// </summary>
public static class HelperProcess
{
    /// <summary>The variable with the process that it works for.</summary>
    public const string ParentVariable = "PANTOMET_PARENT";

    /// <summary>The variable with the most memory that it may take, in bytes.</summary>
    public const string BytesVariable = "PANTOMET_MOST_BYTES";

    /// <summary>The variable with the most time that one piece of its work may take, in seconds.</summary>
    public const string SecondsVariable = "PANTOMET_MOST_SECONDS";

    // getrlimit(2): writable memory of its own, which is what grows, unlike address space that is only reserved; and dumps.
    private const int Data = 2;
    private const int Core = 4;
    private const int KillSignal = 9;
    private const int NoSuchProcess = 3;

    private static readonly TimeSpan Look = TimeSpan.FromMilliseconds(250);

    /// <summary>What a helper is started with, beside its own.</summary>
    /// <param name="environment">Its environment.</param>
    /// <param name="mostBytes">The most memory that it may take, in bytes.</param>
    /// <param name="mostTime">The most time that one piece of its work may take.</param>
    public static void Limit(IDictionary<string, string?> environment, long mostBytes, TimeSpan mostTime)
    {
        ArgumentNullException.ThrowIfNull(environment);
        environment[ParentVariable] = Environment.ProcessId.ToString(CultureInfo.InvariantCulture);
        environment[BytesVariable] = mostBytes.ToString(CultureInfo.InvariantCulture);
        environment[SecondsVariable] = Math.Ceiling(mostTime.TotalSeconds).ToString(CultureInfo.InvariantCulture);
    }

    /// <summary>Takes the limits on. Called first of all in a helper; does nothing in a process that was given none.</summary>
    public static void Begin()
    {
        if (OperatingSystem.IsWindows())
        {
            return;
        }

        if (Number(ParentVariable) is { } parent)
        {
            new Thread(() => EndWith((int)parent)) { IsBackground = true, Name = "ends with its parent" }.Start();
        }

        if (Number(BytesVariable) is { } bytes)
        {
            Hold(bytes);
        }
    }

    /// <summary>Lets others have the processor first: work that nobody waits for gives way to what somebody does.</summary>
    public static void GiveWay()
    {
        using var own = Process.GetCurrentProcess();
        try
        {
            own.PriorityClass = ProcessPriorityClass.BelowNormal;
        }
        catch (Win32Exception)
        {
            // Where the system forbids it, the work is only less polite.
        }
    }

    /// <summary>Holds this very process to so much memory from now on: before it reads what a stranger made.</summary>
    /// <param name="mostBytes">The most memory that it may take, in bytes.</param>
    public static void Hold(long mostBytes)
    {
        if (Posix.IsLinux)
        {
            Set(Data, (ulong)mostBytes);
            // A dump of what a hostile file did would be as large as the limit.
            Set(Core, 0);
        }
    }

    /// <summary>A piece of work begins, or goes on after a step: the system ends the process when it takes longer than it may.</summary>
    public static void Step()
    {
        if (!OperatingSystem.IsWindows() && Number(SecondsVariable) is { } seconds)
        {
            _ = Posix.Alarm((uint)seconds);
        }
    }

    /// <summary>The piece of work is done.</summary>
    public static void Done()
    {
        if (!OperatingSystem.IsWindows())
        {
            _ = Posix.Alarm(0);
        }
    }

    /// <summary>True where what a process said last means that it got no more memory.</summary>
    /// <param name="said">A line of its error stream.</param>
    public static bool SaysOutOfMemory(string said)
    {
        ArgumentNullException.ThrowIfNull(said);
        return said.Contains("out of memory", StringComparison.OrdinalIgnoreCase)
            || said.Contains("OutOfMemory", StringComparison.Ordinal)
            || said.Contains("failed to allocate", StringComparison.OrdinalIgnoreCase)
            || said.Contains("cannot allocate memory", StringComparison.OrdinalIgnoreCase)
            || said.Contains("bad_alloc", StringComparison.Ordinal);
    }

    /// <summary>True for a process that runs, whoever started it.</summary>
    /// <param name="process">Its number.</param>
    public static bool IsAlive(int process)
    {
        if (OperatingSystem.IsWindows())
        {
            return true;
        }

        // kill(2) with no signal only asks; another user's process is alive too.
        return Posix.Kill(process, 0) == 0 || Marshal.GetLastPInvokeError() != NoSuchProcess;
    }

    // A thread of its own: whatever the others wait for, this one runs.
    private static void EndWith(int parent)
    {
        while (Posix.Parent() == parent)
        {
            Thread.Sleep(Look);
        }

        _ = Posix.Kill(Environment.ProcessId, KillSignal);
    }

    private static void Set(int resource, ulong most)
    {
        var limit = new ResourceLimit { Soft = most, Hard = most };
        _ = Posix.SetLimit(resource, ref limit);
    }

    private static long? Number(string variable) =>
        long.TryParse(Environment.GetEnvironmentVariable(variable), NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? number
            : null;
}
