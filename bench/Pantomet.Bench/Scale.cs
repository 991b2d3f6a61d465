using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Application.Destinations;
using Pantomet.Application.Jobs;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Jobs.Commands;
using Pantomet.Core.Rules;
using Pantomet.Core.Verdicts;
using Pantomet.Data;
using Pantomet.Data.Pictures;
using Pantomet.Data.Variants;
using Pantomet.Server;

namespace Pantomet.Bench;

/// <summary>A large data folder: many pictures, jobs and made files, all small and made up.</summary>
internal static class Scale
{
    private const int Pictures = 10_000;
    private const int Jobs = 50;
    private const int PicturesOfJob = 300;
    private const int SlotsOfJob = 8;
    private const int PicturesOfLarge = 1_000;
    private const int SlotsOfLarge = 40;
    private const int MostVariants = 100_000;

    private static readonly string[] Words = ["barometer", "lantern", "vane", "gauge", "anemometer", "compass", "sextant", "hygrometer"];

    /// <summary>Fills a new data folder.</summary>
    /// <param name="data">The folder.</param>
    /// <param name="original">A JPEG of 1200 x 800; each original is a copy with a comment of its own.</param>
    /// <param name="file">A smaller one, for what was made of them.</param>
    public static async Task FillAsync(string data, string original, string file)
    {
        var bytes = await File.ReadAllBytesAsync(file);
        await using var app = await PantometServer.BuildAsync(new() { Data = data, Port = 0 });
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        var folder = scope.ServiceProvider.GetRequiredService<DataFolder>();
        var book = Book();
        await RuleStore.ChangeAsync(
            app.Services.GetRequiredService<Writer>(),
            app.Services.GetRequiredService<OpenJobs>(),
            _ => new(book, null, null),
            CancellationToken.None
        );
        var pictures = await PicturesAsync(db, folder, await File.ReadAllBytesAsync(original));
        Console.WriteLine($"{pictures.Count} pictures");
        var slots = book.Destinations[0].Slots.Select(slot => $"place/{slot.Key}").ToList();
        var jobs = Enumerable
            .Range(0, Jobs)
            .Select(n =>
                (
                    Name: $"Catalogue {n:00}",
                    Pictures: pictures.Skip(n * 190).Take(PicturesOfJob).ToList(),
                    Slots: slots.Take(SlotsOfJob).ToList()
                )
            )
            .Append((Name: "The large one", Pictures: pictures.Take(PicturesOfLarge).ToList(), Slots: slots.Take(SlotsOfLarge).ToList()))
            .ToList();
        var made = 0;
        var known = new HashSet<string>();
        foreach (var job in jobs)
        {
            made += await VariantsAsync(app, db, folder, bytes, job.Pictures, job.Slots, known, MostVariants - made);
            var (_, refused) = await app
                .Services.GetRequiredService<JobRoom>()
                .CreateAsync(
                    job.Name,
                    [new AddSlots(job.Slots), new AddPictures([.. job.Pictures.Select(row => row.Id)])],
                    CancellationToken.None
                );
            if (refused is not null)
            {
                throw new InvalidDataException(refused.Fault.Sentence);
            }
        }

        // What is not made is not to be made now: the jobs rest until the measurement runs one.
        await db.Jobs.ExecuteUpdateAsync(set => set.SetProperty(job => job.Run, Data.Jobs.RunState.Paused));
        Console.WriteLine($"{jobs.Count} jobs, {made} files");
    }

    private static RuleBook Book()
    {
        var slots = Enumerable
            .Range(0, SlotsOfLarge)
            .Select(n => new Slot
            {
                Key = $"slot-{n:00}",
                Name = $"Slot {n:00}",
                Size = new SizeRule.Exact(new(300 + (n * 10), 200 + (n % 5 * 40))),
            });
        return new([new("place", "Place", [.. slots])]);
    }

    private static async Task<List<PictureRow>> PicturesAsync(PantometDb db, DataFolder folder, byte[] seed)
    {
        var rows = new List<PictureRow>();
        for (var n = 0; n < Pictures; n++)
        {
            var hash = await KeepAsync(folder.Originals, seed, $"original {n}");
            var facts = new PictureFacts
            {
                Size = new(1200, 800),
                Format = PictureFormat.Jpeg,
                Bytes = seed.Length + 40,
                HasAlpha = false,
                Frames = 1,
                Orientation = 1,
                Colours = "RGB",
                Bits = 8,
                HasLocation = false,
                Suggestion = Frame.TryCreate(0.2, 0.2, 0.7, 0.8, out var box, out _)
                    ? new Suggestion(box, SuggestionKind.EyeCatching)
                    : null,
                // The seed is no picture to search: a row that still waits for its subject holds back the files that are to be measured.
                SubjectSought = true,
            };
            var name = string.Create(CultureInfo.InvariantCulture, $"{Words[n % Words.Length]}-{n:00000}.jpg");
            rows.Add(PictureRow.From(name, hash, DateTime.UtcNow.AddSeconds(n - Pictures), facts));
        }

        db.Pictures.AddRange(rows);
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        return rows;
    }

    private static async Task<int> VariantsAsync(
        WebApplication app,
        PantometDb db,
        DataFolder folder,
        byte[] seed,
        List<PictureRow> pictures,
        List<string> slots,
        HashSet<string> known,
        int most
    )
    {
        var book = await app.Services.GetRequiredService<OpenJobs>().SlotsAsync(CancellationToken.None);
        var made = 0;
        foreach (var picture in pictures)
        {
            foreach (var address in slots)
            {
                var cell = BoardCell.Of(picture, new(picture.Id, Decisions.None), JobSlot.At(address), book[address]);
                foreach (var file in cell.Files.Where(file => made < most && known.Add(file.Id)))
                {
                    made++;
                    var size = file.Request.Plan.Size;
                    db.Variants.Add(
                        new()
                        {
                            Id = file.Id,
                            Want = file.Want,
                            PictureId = picture.Id,
                            ContentHash = await KeepAsync(folder.Variants, seed, file.Id),
                            Format = PictureFormat.Jpeg,
                            Width = size.Width,
                            Height = size.Height,
                            Bytes = seed.Length + 40,
                            Quality = 80,
                            Likeness = 0.99,
                            Recipe = file.Recipe.ToJson(),
                            Encodes = 2,
                            Verdict = Verdict.Meets,
                            Reasons = "[]",
                            MadeAt = DateTime.UtcNow,
                            WantedAt = DateTime.UtcNow.Date,
                        }
                    );
                }
            }
        }

        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        return made;
    }

    // A comment segment right behind the start of the image (ITU-T T.81, B.2.4.5) makes each copy another file. Not flushed: a
    // measurement's data can be made again.
    private static async Task<string> KeepAsync(ContentFolder folder, byte[] seed, string comment)
    {
        var text = Encoding.ASCII.GetBytes(comment.PadRight(36)[..36]);
        byte[] bytes = [.. seed[..2], 0xFF, 0xFE, 0, 38, .. text, .. seed[2..]];
        var hash = Convert.ToHexStringLower(SHA256.HashData(bytes));
        var path = folder.PathOf(hash);
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        await File.WriteAllBytesAsync(path, bytes);
        return hash;
    }
}
