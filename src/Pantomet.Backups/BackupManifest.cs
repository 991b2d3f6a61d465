using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Pantomet.Backups;

/// <summary>A file of a data folder as it was backed up.</summary>
/// <param name="Path">Where it lies in the data folder, with slashes.</param>
/// <param name="Bytes">Its weight.</param>
/// <param name="Sha256">SHA-256 of its bytes, lower-case hexadecimal.</param>
/// <param name="Changed">When it was changed, UTC.</param>
public sealed record BackupFile(string Path, long Bytes, string Sha256, DateTime Changed);

/// <summary>An original that the database names and that could not be backed up.</summary>
/// <param name="Sha256">SHA-256 that its bytes should have.</param>
/// <param name="Name">The picture's name.</param>
public sealed record LostOriginal(string Sha256, string Name);

/// <summary>What a backup holds.</summary>
/// <param name="Schema">Always <see cref="CurrentSchema"/>.</param>
/// <param name="TakenAt">When the database was copied, UTC: the backup is the data folder of this moment.</param>
/// <param name="Program">The version of the program that made it.</param>
/// <param name="Files">Its files; the database is one of them.</param>
/// <param name="Lost">Originals that were missing or damaged when it was made.</param>
public sealed record BackupManifest(
    string Schema,
    DateTime TakenAt,
    string Program,
    IReadOnlyList<BackupFile> Files,
    IReadOnlyList<LostOriginal> Lost
)
{
    /// <summary>The form that is written and read.</summary>
    public const string CurrentSchema = "pantomet-backup/1";

    /// <summary>What it is called in a backup of one file.</summary>
    public const string FileName = "backup.json";

    /// <summary>The version of this program.</summary>
    public static string ThisProgram { get; } =
        typeof(BackupManifest).Assembly.GetCustomAttribute<AssemblyInformationalVersionAttribute>()?.InformationalVersion ?? "";

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    /// <summary>What all its files weigh, in bytes.</summary>
    [JsonIgnore]
    public long Bytes => Files.Sum(file => file.Bytes);

    /// <summary>Writes it as JSON.</summary>
    public byte[] Write() => JsonSerializer.SerializeToUtf8Bytes(this, Json);

    /// <summary>Reads it; null when it is no manifest of a form that this version knows.</summary>
    public static BackupManifest? Read(Stream stream)
    {
        ArgumentNullException.ThrowIfNull(stream);
        try
        {
            return JsonSerializer.Deserialize<BackupManifest>(stream, Json) is { Schema: CurrentSchema, Files: not null } manifest
                ? manifest with
                {
                    Lost = manifest.Lost ?? [],
                }
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
