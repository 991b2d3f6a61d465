using System.Runtime.InteropServices;

namespace Pantomet.Platform;

/// <summary>
/// Takes from a process what work on pictures never needs: the network, and other programs. The kernel refuses both from then on, for all its
/// threads and for good, whatever a hostile file makes a library do (seccomp(2), a filter that needs no privilege).
/// </summary>
public static partial class Sandbox
{
    // linux/filter.h, linux/seccomp.h, linux/audit.h, sys/prctl.h
    private const ushort LoadWord = 0x20;
    private const ushort JumpIfEqual = 0x15;
    private const ushort JumpIfNotLess = 0x35;
    private const ushort Return = 0x06;
    private const uint Allow = 0x7fff_0000;
    private const uint RefuseWith = 0x0005_0000;
    private const uint KillProcess = 0x8000_0000;
    private const uint Denied = 13;
    private const uint NoSuchCall = 38;
    private const uint OtherForm = 0x4000_0000;
    private const int NumberAt = 0;
    private const int ArchitectureAt = 4;
    private const int FirstArgumentAt = 16;
    private const int NoNewPrivileges = 38;
    private const int SetFilter = 1;
    private const int AllThreads = 1;
    private const int Local = 1;

    /// <summary>True where the platform can do it: Linux on a 64-bit machine of Intel's or ARM's kind.</summary>
    public static bool IsPossible => Posix.IsLinux && Calls.Of(RuntimeInformation.ProcessArchitecture) is not null;

    /// <summary>Puts this process into it for good.</summary>
    /// <returns>True when the kernel holds it; false where the platform cannot.</returns>
    public static bool TryEnter()
    {
        if (!Posix.IsLinux || Calls.Of(RuntimeInformation.ProcessArchitecture) is not { } calls)
        {
            return false;
        }

        Instruction[] filter =
        [
            new(LoadWord, 0, 0, ArchitectureAt),
            // Calls of another architecture would have other numbers.
            new(JumpIfEqual, 1, 0, calls.Architecture),
            new(Return, 0, 0, KillProcess),
            new(LoadWord, 0, 0, NumberAt),
            // So would those of Intel's other form of calls.
            new(JumpIfNotLess, 0, 1, OtherForm),
            new(Return, 0, 0, KillProcess),
            new(JumpIfEqual, 0, 4, calls.Socket),
            new(LoadWord, 0, 0, FirstArgumentAt),
            // Processes of one machine talk by local sockets: the runtime does.
            new(JumpIfEqual, 0, 1, Local),
            new(Return, 0, 0, Allow),
            new(Return, 0, 0, RefuseWith | Denied),
            new(JumpIfEqual, 2, 0, calls.Execute),
            new(JumpIfEqual, 1, 0, calls.ExecuteAt),
            new(JumpIfEqual, 1, 2, calls.RingSetup),
            new(Return, 0, 0, RefuseWith | Denied),
            // Rings make sockets past the filter; whoever finds none does without.
            new(Return, 0, 0, RefuseWith | NoSuchCall),
            new(Return, 0, 0, Allow),
        ];
        var memory = GCHandle.Alloc(filter, GCHandleType.Pinned);
        try
        {
            var program = new FilterProgram { Length = (ushort)filter.Length, Filter = memory.AddrOfPinnedObject() };
            return Control(NoNewPrivileges, 1, 0, 0, 0) == 0 && Call(calls.Seccomp, SetFilter, AllThreads, ref program) == 0;
        }
        finally
        {
            memory.Free();
        }
    }

    // asm/unistd_64.h and asm-generic/unistd.h
    private sealed record Calls(uint Architecture, uint Socket, uint Execute, uint ExecuteAt, uint RingSetup, long Seccomp)
    {
        private static readonly Calls Intel = new(0xc000_003e, 41, 59, 322, 425, 317);
        private static readonly Calls Arm = new(0xc000_00b7, 198, 221, 281, 425, 277);

        public static Calls? Of(Architecture architecture) =>
            architecture switch
            {
                System.Runtime.InteropServices.Architecture.X64 => Intel,
                System.Runtime.InteropServices.Architecture.Arm64 => Arm,
                _ => null,
            };
    }

    // struct sock_filter
    [StructLayout(LayoutKind.Sequential)]
    private readonly struct Instruction(ushort code, byte ifTrue, byte ifFalse, uint value)
    {
        public readonly ushort Code = code;
        public readonly byte IfTrue = ifTrue;
        public readonly byte IfFalse = ifFalse;
        public readonly uint Value = value;
    }

    // struct sock_fprog
    [StructLayout(LayoutKind.Sequential)]
    private struct FilterProgram
    {
        public ushort Length;
        public IntPtr Filter;
    }

    [LibraryImport("libc", EntryPoint = "prctl", SetLastError = true)]
    private static partial int Control(int option, nuint first, nuint second, nuint third, nuint fourth);

    [LibraryImport("libc", EntryPoint = "syscall", SetLastError = true)]
    private static partial long Call(long number, nuint operation, nuint flags, ref FilterProgram program);
}
