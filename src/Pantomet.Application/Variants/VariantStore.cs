using System.Globalization;
using System.Text.Json;
using Pantomet.Application.Engine;
using Pantomet.Core.Dressing;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Planning;
using Pantomet.Core.Recipes;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;
using Pantomet.Imaging.Hosting;
using Pantomet.Imaging.Making;

namespace Pantomet.Application.Variants;

/// <summary>A file that was made and kept, or why none was.</summary>
public sealed record Rendered(VariantRow? Row, RenderFailure? Failure);

/// <summary>A file that was found, while the rest of what is to be known of it is still measured.</summary>
/// <param name="Weighed">Its figures.</param>
/// <param name="Hash">Its SHA-256, once it is kept under that.</param>
public sealed record FoundFile(WeighedFile Weighed, Task<string> Hash);

/// <summary>Why a file could not be made.</summary>
/// <param name="Code">What kind of failure it is.</param>
/// <param name="Reason">A sentence.</param>
/// <param name="MayPass">True when another try may do better.</param>
public sealed record RenderFailure(string Code, string Reason, bool MayPass);

/// <summary>
/// Renders files from recipes into the folder of variants, and reads them back; what the tables say of them is not its business.
/// </summary>
public sealed class VariantStore(DataFolder folder, ImagingProcessPool engine, TimeProvider clock)
{
    /// <summary>Renders a file and keeps it. Nothing is left behind when it cannot be done.</summary>
    /// <param name="wanted">The file.</param>
    /// <param name="urgent">True when a person waits for it.</param>
    /// <param name="found">Told of the file as soon as it is found.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public async Task<Rendered> RenderAsync(WantedFile wanted, bool urgent, Action<FoundFile> found, CancellationToken cancel)
    {
        if (await DamagedAsync(wanted.Recipe, cancel) is { } damaged)
        {
            return new(null, damaged);
        }

        var (output, small) = (folder.Scratch(), folder.Scratch());
        Task<string>? keeping = null;
        try
        {
            var request = OrderOf(wanted) with { Output = output, Small = small };
            var response = await engine.RunAsync(
                request,
                cancel,
                urgent,
                told => found(new(told.Weighed!, keeping = folder.Variants.StoreFileAsync(output, CancellationToken.None)))
            );
            if (response.Variant is not { HasFile: true } made)
            {
                return new(
                    null,
                    response.Failure is { } failure
                        ? new(
                            failure.ToString().ToLowerInvariant(),
                            response.Refusal ?? JobTexts.NoFileWasMade,
                            failure != ImagingFailure.Refused
                        )
                        : new("refused", response.Refusal ?? JobTexts.NoFileWasMade, false)
                );
            }

            var hash = await (keeping ?? folder.Variants.StoreFileAsync(output, cancel));
            if (File.Exists(small))
            {
                File.Move(small, SmallPath(hash), overwrite: true);
            }

            return new(RowOf(wanted, made, hash), null);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return new(null, new("disk", JobTexts.TheFileCouldNotBeSaved(fault.Message), true));
        }
        finally
        {
            await (keeping ?? Task.CompletedTask).ContinueWith(_ => { }, TaskScheduler.Default);
            Discard(output);
            Discard(small);
        }
    }

    /// <summary>True when the file is there, byte for byte as it was made.</summary>
    public ValueTask<bool> IsWholeAsync(VariantRow row, CancellationToken cancel) => folder.Variants.IsWholeAsync(row.ContentHash, cancel);

    /// <summary>The file, byte for byte as it was made; null when it is missing or damaged.</summary>
    public Task<byte[]?> ReadAsync(VariantRow row, CancellationToken cancel) => folder.Variants.ReadWholeAsync(row.ContentHash, cancel);

    /// <summary>A small copy of a file for the screen; the file itself where there is none.</summary>
    public string SmallOf(VariantRow row) =>
        SmallPath(row.ContentHash) is var path && File.Exists(path) ? path : folder.Variants.PathOf(row.ContentHash);

    /// <summary>True for a small copy, which is WebP; false where <see cref="SmallOf"/> found none and names the file itself.</summary>
    public static bool IsSmallCopy(string path) => path.EndsWith(".webp", StringComparison.Ordinal);

    /// <summary>The weight and likeness of a file at several qualities.</summary>
    public async Task<IReadOnlyList<CurvePoint>?> CurveAsync(
        WantedFile wanted,
        PictureFormat format,
        IReadOnlyList<int> qualities,
        CancellationToken cancel
    )
    {
        var request = OrderOf(wanted);
        var response = await engine.RunAsync(
            new CurveRequest(request.Path, request.Facts, request.Turn, request.Rules, request.Plan, format, qualities)
            {
                Pair = request.Pair,
            },
            cancel,
            urgent: true
        );
        return response.Curve;
    }

    /// <summary>Lays a file's dress over its pixels and writes them as PNG.</summary>
    public Task<ImagingResponse> DressAsync(
        WantedFile wanted,
        string output,
        bool colours,
        IReadOnlyList<Frame> keep,
        CancellationToken cancel
    )
    {
        var request = OrderOf(wanted);
        return engine.RunAsync(
            new DressRequest(request.Path, request.Facts, request.Turn, request.Rules, request.Plan, output, colours)
            {
                Pair = request.Pair,
                Keep = keep,
            },
            cancel,
            urgent: true
        );
    }

    /// <summary>The same pixels as a variant's, without loss: what it is compared with.</summary>
    public async Task<byte[]?> ReferenceAsync(VariantRow variant, PictureRow picture, CancellationToken cancel) =>
        variant.Recipe.Length == 0
            ? null
            : await ReferenceAsync(OrderOf(Recipe.Parse(variant.Recipe), picture), new(variant.Width, variant.Height), cancel);

    /// <summary>The pixels of a file at another size of its shape, without loss.</summary>
    public Task<byte[]?> ReferenceAsync(WantedFile wanted, PixelSize size, CancellationToken cancel) =>
        ReferenceAsync(OrderOf(wanted), size, cancel);

    private async Task<byte[]?> ReferenceAsync(VariantRequest request, PixelSize size, CancellationToken cancel)
    {
        var output = folder.Scratch();
        try
        {
            var response = await engine.RunAsync(request with { Output = output, Reference = true, Size = size }, cancel, urgent: true);
            return response.Refusal is null && File.Exists(output) ? await File.ReadAllBytesAsync(output, cancel) : null;
        }
        finally
        {
            Discard(output);
        }
    }

    /// <summary>Makes a file at another size of its shape and at one quality; it is not kept.</summary>
    /// <returns>The file and its figures; null where none came of it.</returns>
    public async Task<(byte[] Bytes, VariantResponse Made)?> TryAsync(
        WantedFile wanted,
        PixelSize size,
        PictureFormat format,
        int quality,
        CancellationToken cancel
    )
    {
        var output = folder.Scratch();
        try
        {
            var request = OrderOf(wanted);
            var response = await engine.RunAsync(
                request with
                {
                    Output = output,
                    Plan = size == request.Plan.Size ? request.Plan : request.Plan.At(size),
                    Format = format,
                    Quality = quality,
                },
                cancel
            );
            return response.Variant is { HasFile: true } made ? (await File.ReadAllBytesAsync(output, cancel), made) : null;
        }
        finally
        {
            Discard(output);
        }
    }

    // Nothing is made of an original whose bytes are no longer those that arrived.
    private async ValueTask<RenderFailure?> DamagedAsync(Recipe recipe, CancellationToken cancel)
    {
        foreach (var part in recipe.Parts)
        {
            if (!await folder.Originals.IsWholeAsync(part.Content, cancel))
            {
                return new("damaged", DamagedOriginal, MayPass: false);
            }
        }

        return null;
    }

    /// <summary>What is said of an original that is missing or damaged.</summary>
    public const string DamagedOriginal = JobTexts.TheOriginalOfThisPictureIs;

    private VariantRequest OrderOf(WantedFile wanted) =>
        OrderOf(wanted.Recipe, wanted.Picture) with
        {
            Plan = PlanOf(wanted.Recipe) with { Descriptor = wanted.Request.Plan.Descriptor },
        };

    // What the frame gave up is told apart from the file: the same file may serve a frame that was confirmed since.
    private VariantRequest OrderOf(Recipe recipe, PictureRow picture)
    {
        var (facts, part) = (picture.Facts, recipe.Parts[0]);
        var rules = $$"""{"schema":"{{RulesReader.Schema}}","destinations":[{"key":"place","slots":[{{recipe.Rule}}]}]}""";
        return new(
            folder.Originals.PathOf(part.Content),
            facts with
            {
                Size = part.Turn.SizeOf(facts.Size),
                Suggestion = null,
            },
            part.Turn,
            rules,
            PlanOf(recipe),
            recipe.Format,
            recipe.Quality,
            ""
        )
        {
            Pair = recipe.IsPair
                ? [.. recipe.Parts.Select(one => new TurnedOriginal(folder.Originals.PathOf(one.Content), one.Turn))]
                : null,
        };
    }

    /// <summary>As much of the plan of a recipe as its file depends on.</summary>
    public static VariantPlan PlanOf(Recipe recipe) =>
        new()
        {
            Descriptor = Density.One,
            Crop = recipe.Parts[0].Crop,
            Size = recipe.Size,
            Content = recipe.Content,
            Asked = recipe.Size,
            Offered = 1,
            Verdict = Verdict.Meets,
            Reasons = [],
            MayShrink = recipe.MayShrink,
            Kept = recipe.Kept,
            Place = recipe.IsPair ? null : recipe.Parts[0].Place,
            Parts = recipe.IsPair ? [.. recipe.Parts.Select(part => new PlacedPart(part.Crop, part.Place!.Value))] : null,
        };

    private VariantRow RowOf(WantedFile wanted, VariantResponse made, string hash)
    {
        var now = clock.GetUtcNow().UtcDateTime;
        return new()
        {
            Id = wanted.Id,
            Want = wanted.Want,
            PictureId = wanted.Picture.Id,
            ContentHash = hash,
            Format = made.Format!.Value,
            Width = made.Size.Width,
            Height = made.Size.Height,
            Bytes = new FileInfo(folder.Variants.PathOf(hash)).Length,
            Quality = made.Quality,
            Likeness = made.Likeness,
            Worst = made.WorstTile,
            Recipe = wanted.Recipe.ToJson(),
            Encodes = made.Encodes,
            Verdict = made.Verdict,
            Reasons = JsonSerializer.Serialize(made.Reasons),
            Placeholder = made.Placeholder,
            Edge = made.Edge?.ToString(),
            Dressed = made.Dressed is { } dressed ? JsonSerializer.Serialize(dressed) : null,
            MadeAt = now,
            WantedAt = now.Date,
        };
    }

    /// <summary>What became of the dress of a file; null where it has none.</summary>
    public static Dressed? DressedOf(VariantRow row) => row.Dressed is { } dressed ? JsonSerializer.Deserialize<Dressed>(dressed) : null;

    private static void Discard(string path)
    {
        try
        {
            File.Delete(path);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            // The next start removes it.
        }
    }

    /// <summary>Where the small copy of a file lies.</summary>
    public string SmallPath(string hash) => Path.Combine(folder.Previews, $"{hash}-made.webp");
}
