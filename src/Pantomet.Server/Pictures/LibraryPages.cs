using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.HttpResults;
using Pantomet.Application.Pictures;
using Pantomet.Core.Texts;
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
        PictureQueries pictures,
        CancellationToken cancel
    )
    {
        if (from < 0 || count is < 1 or > MostAtOnce || search?.Length > LongestSearch)
        {
            return Problem.Of(StatusCodes.Status400BadRequest, "bad-page", PictureTexts.AListStartsAtOrMore(MostAtOnce, LongestSearch));
        }

        var words = (search ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Take(MostWords);
        var (total, rows) = await pictures.FindAsync(words, from ?? 0, count ?? MostAtOnce, cancel);
        return TypedResults.Ok(new LibraryPage(total, from ?? 0, [.. rows.Select(PictureView.Of)]));
    }
}
