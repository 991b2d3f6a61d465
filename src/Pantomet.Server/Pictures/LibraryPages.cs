using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Pictures;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Server.Problems;

namespace Pantomet.Server.Pictures;

/// <summary>A part of the library.</summary>
/// <param name="Total">How many pictures there are, or how many were found.</param>
/// <param name="From">The place of the first one here, from 0.</param>
/// <param name="Pictures">The pictures.</param>
public sealed record LibraryPage(int Total, int From, IReadOnlyList<PictureView> Pictures);

/// <summary>The library in parts, so that ten thousand pictures are no more work for a page than ten.</summary>
internal static class LibraryPages
{
    private const int MostAtOnce = 200;
    private const int LongestSearch = 200;
    private const int MostWords = 8;

    public static async Task<Results<Ok<LibraryPage>, ProblemHttpResult>> GetAsync(
        string? search,
        int? from,
        int? count,
        PantometDb db,
        CancellationToken cancel
    )
    {
        if (from < 0 || count is < 1 or > MostAtOnce || search?.Length > LongestSearch)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-page", PictureTexts.AListStartsAtOrMore(MostAtOnce, LongestSearch));
        }

        var words = (search ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Take(MostWords);
        var found = words.Aggregate(
            db.Pictures.AsNoTracking().Where(row => row.RemovedAt == null && row.Parts == null),
            (rows, word) => Holding(db, rows, word)
        );
        // One look through the names, for the count and for the page.
        var ids = await found.OrderByDescending(row => row.AddedAt).ThenBy(row => row.Name).Select(row => row.Id).ToListAsync(cancel);
        var page = ids.Skip(from ?? 0).Take(count ?? MostAtOnce).ToList();
        var rows = await db.Pictures.AsNoTracking().Where(row => page.Contains(row.Id)).ToDictionaryAsync(row => row.Id, cancel);
        return TypedResults.Ok(
            new LibraryPage(ids.Count, from ?? 0, [.. page.Where(rows.ContainsKey).Select(id => PictureView.Of(rows[id]))])
        );
    }

    // A word stands in the picture's name, or in what was written about it in some job.
    private static IQueryable<PictureRow> Holding(PantometDb db, IQueryable<PictureRow> rows, string word)
    {
        var literal = word.Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace("%", "\\%", StringComparison.Ordinal)
            .Replace("_", "\\_", StringComparison.Ordinal);
        var like = $"%{literal}%";
        // Those that the words name are looked up once, not for each picture.
        var named = db
            .JobPictures.Where(one => one.Keywords != "" || one.Alternative != "")
            .Where(one => EF.Functions.Like(one.Keywords, like, "\\") || EF.Functions.Like(one.Alternative, like, "\\"))
            .Select(one => one.PictureId);
        return rows.Where(row => EF.Functions.Like(row.Name, like, "\\") || named.Contains(row.Id));
    }
}
