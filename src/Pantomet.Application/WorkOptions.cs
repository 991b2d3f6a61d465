using Pantomet.Application.Engine;
using Pantomet.Data;

namespace Pantomet.Application;

/// <summary>Where the data lies and how much may be done at once.</summary>
public record WorkOptions
{
    /// <summary>The data folder, made if missing.</summary>
    public required string Data { get; init; }

    /// <summary>The folder of the logos and fonts that rules name; null without a data folder.</summary>
    public string? SideFiles => Data.Length == 0 ? null : Path.Combine(Path.GetFullPath(Data), DataFolder.SideFilesName);

    /// <summary>The folder of backups; beside the data folder unless set otherwise.</summary>
    public string? Backups { get; init; }

    /// <summary>The folder of backups as a whole path.</summary>
    public string BackupFolder => Path.GetFullPath(Backups ?? $"{Path.TrimEndingDirectorySeparator(Path.GetFullPath(Data))}-backups");

    /// <summary>The most bytes of one upload: 200 MB unless set otherwise.</summary>
    public long MostUploadBytes { get; init; } = 200_000_000;

    /// <summary>The program whose <c>work</c> call carries out imaging orders in a process of its own.</summary>
    public string Engine { get; init; } = ImagingProcess.Self();

    /// <summary>How many imaging processes work at once.</summary>
    public int Workers { get; init; } = Environment.ProcessorCount;

    /// <summary>How long one order may take before its process is ended: two minutes unless set otherwise.</summary>
    public TimeSpan LongestOrder { get; init; } = TimeSpan.FromMinutes(2);

    /// <summary>How long one picture of a folder may take before its process is ended: ten minutes unless set otherwise.</summary>
    public TimeSpan LongestPicture { get; init; } = TimeSpan.FromMinutes(10);

    /// <summary>The most memory one imaging process may take, in bytes: 3 GB unless set otherwise.</summary>
    public long MostEngineBytes { get; init; } = 3_000_000_000;

    /// <summary>
    /// How much more memory than that the system itself grants: what is only asked for counts there too, and a process that is caught in time
    /// tells why.
    /// </summary>
    public const long Reserve = 1_000_000_000;

    /// <summary>How much longer than an order may take the system waits before it ends the process.</summary>
    public static readonly TimeSpan Grace = TimeSpan.FromSeconds(15);

    /// <summary>How long after the start the slow check of all stored files begins: a minute unless set otherwise.</summary>
    public TimeSpan IntegrityBegins { get; init; } = TimeSpan.FromMinutes(1);

    /// <summary>How long it rests between two rounds: a day unless set otherwise.</summary>
    public TimeSpan IntegrityEvery { get; init; } = TimeSpan.FromDays(1);

    /// <summary>How many bytes it reads a second: 20 MB unless set otherwise.</summary>
    public long IntegrityBytesPerSecond { get; init; } = 20_000_000;

    /// <summary>How many entries the log keeps besides the commands of jobs, the newest: a million unless set otherwise, about 200 MB.</summary>
    public int MostLogEntries { get; init; } = 1_000_000;

    /// <summary>True where whoever names a host sits at this machine: what is private to it may be read where it was named.</summary>
    public bool ReachesPrivate { get; init; } = true;

    /// <summary>Where others use the server: the hosts of its own machine or network that its owner lets them name, with their ports.</summary>
    public IReadOnlyList<string> PrivateHosts { get; init; } = [];

    /// <summary>The folders of this machine whose pictures may be optimised, with all that lies in them; none unless the owner says so.</summary>
    public IReadOnlyList<string> PictureFolders { get; init; } = [];

    /// <summary>How long the check of one page may take before its process is ended: twenty minutes unless set otherwise.</summary>
    public TimeSpan LongestPageCheck { get; init; } = TimeSpan.FromMinutes(20);

    /// <summary>How long a receiver of files may take to answer, beside the time that the bytes need: a minute unless set otherwise.</summary>
    public TimeSpan LongestAnswer { get; init; } = TimeSpan.FromMinutes(1);

    /// <summary>The pauses after which a file is handed to a receiver again that could not take it; after the last it is given up.</summary>
    public IReadOnlyList<TimeSpan> DeliveryPauses { get; init; } = [TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(10)];

    /// <summary>
    /// The pauses after which a file that could not be made is tried again; after the last it is given up until somebody asks for it.
    /// </summary>
    public IReadOnlyList<TimeSpan> Pauses { get; init; } =
    [TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(10), TimeSpan.FromSeconds(60), TimeSpan.FromMinutes(5)];
}
