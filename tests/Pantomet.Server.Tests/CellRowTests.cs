using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Pantomet.Core.Jobs;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Live;

namespace Pantomet.Server.Tests;

/// <summary>The rows of cells and of what they want, and what is counted, on a database alone.</summary>
#pragma warning disable CA1001 // The test framework calls DisposeAsync.
public sealed class CellRowTests : IAsyncLifetime
#pragma warning restore CA1001
{
    private static readonly Guid Job = Guid.Parse("00000000-0000-0000-0000-0000000000a1");
    private static readonly Guid One = Guid.Parse("00000000-0000-0000-0000-000000000001");
    private static readonly Guid Two = Guid.Parse("00000000-0000-0000-0000-000000000002");
    private readonly SqliteConnection _connection = new("Data Source=:memory:");
    private PantometDb _db = null!;

    public async Task InitializeAsync()
    {
        await _connection.OpenAsync();
        _db = new(new DbContextOptionsBuilder<PantometDb>().UseSqlite(_connection).Options);
        await _db.Database.MigrateAsync();
        await _db.Database.ExecuteSqlRawAsync("PRAGMA foreign_keys = 0;");
    }

    public async Task DisposeAsync()
    {
        await _db.DisposeAsync();
        await _connection.DisposeAsync();
    }

    [Fact]
    public async Task What_is_written_is_read_and_what_is_removed_is_gone()
    {
        using var rows = new CellRows(_db);
        var (a, b) = (new CellKey(One, "site/a"), new CellKey(Two, "site/a"));
        var cell = Cell(Want("f1", 1, WantRow.Open), Want("f2", 1, WantRow.Made, 900));
        await WriteAsync(rows, a, cell);
        await WriteAsync(rows, b, Cell());
        var read = await rows.ReadAsync(Job, new HashSet<CellKey> { a, b, new(One, "site/other") });
        Assert.Equal([a, b], read.Keys.OrderBy(key => key.Picture));
        Assert.Equal(cell.Wants, read[a].Wants);
        Assert.Equal((cell.State, cell.Verdict, cell.ToReview), (read[a].State, read[a].Verdict, read[a].ToReview));
        // Cells that nobody asked for are not read.
        Assert.Equal([b], (await rows.ReadAsync(Job, new HashSet<CellKey> { b })).Keys);
        await rows.RemoveAsync(Job, a);
        Assert.Empty(await rows.ReadAsync(Job, new HashSet<CellKey> { a }));
        Assert.Empty(await rows.WantingAsync("f1"));
    }

    [Fact]
    public async Task What_a_cell_wants_takes_the_place_of_what_it_wanted()
    {
        using var rows = new CellRows(_db);
        var key = new CellKey(One, "site/a");
        var before = Cell(Want("f1", 1, WantRow.Open), Want("f2", 1, WantRow.Open));
        await WriteAsync(rows, key, before);
        var after = Cell(Want("f3", 1, WantRow.Open));
        await rows.SetWantsAsync(Job, key, before, after);
        Assert.Equal(after.Wants, (await rows.ReadAsync(Job, new HashSet<CellKey> { key }))[key].Wants);
        Assert.Equal([(Job, key)], await rows.WantingAsync("f3"));
        Assert.Empty(await rows.WantingAsync("f1"));
    }

    [Fact]
    public async Task Open_files_come_in_the_order_of_the_pictures_the_largest_first_and_wait_for_the_subject()
    {
        foreach (var (id, sought) in new[] { (One, true), (Two, false) })
        {
            _db.Pictures.Add(
                new()
                {
                    Id = id,
                    Name = "a.jpg",
                    ContentHash = $"{id:N}",
                    Colours = "RGB",
                    SubjectSought = sought,
                }
            );
        }

        await _db.SaveChangesAsync();
        using var rows = new CellRows(_db);
        await WriteAsync(
            rows,
            new(One, "site/a"),
            Cell(Want("small", 2, WantRow.Open, rank: -100), Want("large", 2, WantRow.Open, rank: -900))
        );
        await WriteAsync(rows, new(One, "site/b"), Cell(Want("made", 2, WantRow.Made), Want("failed", 2, WantRow.Failed)));
        await WriteAsync(rows, new(Two, "site/a"), Cell(Want("not-yet", 1, WantRow.Open)));
        Assert.Equal(["large", "small"], (await rows.OpenFromAsync(Job, long.MinValue, 9)).Select(want => want.File));
        Assert.Equal(["large"], (await rows.OpenFromAsync(Job, 2, 1)).Select(want => want.File));
        Assert.Empty(await rows.OpenFromAsync(Job, 3, 9));
        Assert.Equal(["large", "small"], (await rows.OpenBetweenAsync(Job, 0, 2)).Select(want => want.File));
        await _db.Database.ExecuteSqlAsync($"UPDATE Pictures SET SubjectSought = 1");
        Assert.Equal("not-yet", (await rows.OpenFromAsync(Job, long.MinValue, 9))[0].File);
    }

    [Fact]
    public async Task What_is_fetched_is_counted_on()
    {
        var row = new FetchCountRow
        {
            PublicationId = Job,
            Path = "a.jpg",
            Fetches = 2,
            Unchanged = 1,
            Bytes = 500,
        };
        await FetchCountRows.AddAsync(_db, row);
        await FetchCountRows.AddAsync(_db, row);
        var counted = await _db.FetchCounts.AsNoTracking().SingleAsync();
        Assert.Equal((4, 2, 1000), (counted.Fetches, counted.Unchanged, counted.Bytes));
    }

    private static async Task WriteAsync(CellRows rows, CellKey key, StoredCell cell)
    {
        await rows.SetStateAsync(Job, key, cell);
        await rows.SetWantsAsync(Job, key, null, cell);
    }

    private static StoredCell Cell(params StoredWant[] wants) => new("waiting", "Meets", "suggested", [.. wants]);

    private static StoredWant Want(string file, long place, string state, long bytes = 0, long rank = -1) =>
        new(file, place, rank, state, bytes);
}
