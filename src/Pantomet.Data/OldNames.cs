namespace Pantomet.Data;

/// <summary>
/// Names that stored decisions and commands had before and their names of now. In JSON a member's name stands between a quotation mark and
/// one with a colon, which no text inside of a value can have: quotation marks are escaped there.
/// </summary>
public static class OldNames
{
    private static readonly (string Old, string New)[] Members =
    [
        ("loose", "unlinked"),
        ("letThrough", "allowed"),
        ("ornament", "decorative"),
        ("noSuggestion", "suggestionRejected"),
        ("out", "skipped"),
    ];

    private static readonly (string Old, string New)[] Commands =
    [
        ("let-loose", "unlink"),
        ("tie", "link"),
        ("decline-suggestion", "reject-suggestion"),
        ("leave-out", "skip"),
        ("let-through", "allow-anyway"),
        ("tick-slots", "add-slots"),
        ("untick-slots", "remove-slots"),
    ];

    /// <summary>Every text that is replaced, with its quotation marks.</summary>
    public static IReadOnlyList<(string Old, string New)> All { get; } =
    [
        .. Members.Select(name => ($"\"{name.Old}\":", $"\"{name.New}\":")),
        .. Commands.Select(name => ($"\"do\":\"{name.Old}\"", $"\"do\":\"{name.New}\"")),
    ];

    /// <summary>A stored text with the names of now.</summary>
    public static string Renamed(string json)
    {
        ArgumentNullException.ThrowIfNull(json);
        return All.Aggregate(json, (text, name) => text.Replace(name.Old, name.New, StringComparison.Ordinal));
    }

    /// <summary>The same as an expression of SQL over a column.</summary>
    internal static string Sql(string column) =>
        All.Aggregate($"\"{column}\"", (sql, name) => $"replace({sql}, '{name.Old}', '{name.New}')");
}
