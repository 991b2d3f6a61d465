namespace Pantomet.Cli;

/// <summary>What the process answers.</summary>
internal static class ExitCodes
{
    /// <summary>All meet or concede.</summary>
    public const int Fine = 0;

    /// <summary>Something broke a limit or a file could not be read; all the rest is made.</summary>
    public const int SomethingBroke = 1;

    /// <summary>The call or a JSON file is wrong; nothing is written.</summary>
    public const int WrongCall = 2;

    /// <summary>Something that nobody foresaw: EX_SOFTWARE of sysexits.h.</summary>
    public const int Unforeseen = 70;

    /// <summary>Somebody stopped it by Ctrl-C: 128 and the number of that signal, as shells have it.</summary>
    public const int Stopped = 130;
}
