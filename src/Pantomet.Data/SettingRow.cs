namespace Pantomet.Data;

/// <summary>Something that is remembered by name.</summary>
public sealed class SettingRow
{
    /// <summary>The last day, UTC, on which removed pictures were counted on.</summary>
    public const string LastDay = "removals.last-day";

    /// <summary>How many bytes of files that nothing wants are kept at most.</summary>
    public const string MostUnwanted = "files.most-unwanted-bytes";

    /// <summary>How often a mark or a font under a known name was exchanged or removed.</summary>
    public const string SideFileExchanges = "side-files.exchanges";

    /// <summary>How often backups are made by themselves.</summary>
    public const string BackupEvery = "backups.every";

    /// <summary>How many backups are kept.</summary>
    public const string BackupsKept = "backups.kept";

    /// <summary>What the owner gave to editors.</summary>
    public const string RightsOfEditors = "rights.editors";

    /// <summary>What the owner gave to viewers.</summary>
    public const string RightsOfViewers = "rights.viewers";

    /// <summary>The name.</summary>
    public required string Name { get; set; }

    /// <summary>The value as text.</summary>
    public required string Value { get; set; }
}
