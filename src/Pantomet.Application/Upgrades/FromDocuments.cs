using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Pantomet.Application.Jobs;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Naming;
using Pantomet.Core.Recipes;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Data;
using Pantomet.Data.Jobs;
using Pantomet.Data.Variants;

namespace Pantomet.Application.Upgrades;

/// <summary>
/// Brings over what an earlier version kept otherwise: jobs as documents, files known by another hash, enumerations by their number. Each
/// job is brought over by
/// itself; one that cannot be read is set aside with the reason and the rest goes on.
/// </summary>
public sealed partial class FromDocuments(Writer writer, IServiceScopeFactory scopes, ILogger<FromDocuments> log)
{
    /// <summary>Brings everything over that is still in an earlier form.</summary>
    public async Task RunAsync(CancellationToken cancel)
    {
        List<Guid> jobs;
        bool files;
        await using (var scope = scopes.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            jobs = await db.Jobs.Where(job => job.Text != null && job.Fault == null).Select(job => job.Id).ToListAsync(cancel);
            files = await db.Variants.AnyAsync(row => row.Order != null, cancel);
        }

        if (jobs.Count == 0 && !files)
        {
            return;
        }

        // A job's document names files by their earlier hash, so both are brought over in one step.
        var brought = await writer.WriteAsync<int>(
            async db =>
            {
                var wants = await FilesAsync(db);
                foreach (var job in jobs)
                {
                    await JobAsync(db, job, wants);
                }

                await NamesOfEnumerationsAsync(db);
                return (wants.Count, null);
            },
            cancel
        );
        BroughtOver(log, jobs.Count, brought);
    }

    private static async Task<Dictionary<string, string>> FilesAsync(PantometDb db)
    {
        var wants = new Dictionary<string, string>();
        using var files = new OldFiles(db);
        foreach (var (id, order, madeAt) in await files.AllAsync())
        {
            if (RecipeOf(order) is not { } recipe)
            {
                await files.RemoveAsync(id);
                continue;
            }

            wants[id] = recipe.Want;
            await files.SetRecipeAsync(id, recipe.Id, recipe.Want, recipe.ToJson(), madeAt);
        }

        return wants;
    }

    // An order of then: the original's path, the slot as a rules file, the plan, and what was chosen by hand.
    private static Recipe? RecipeOf(string text)
    {
        try
        {
            var order = JsonNode.Parse(text)!.AsObject();
            var plan = order["plan"]!;
            var path = (string)order["path"]!;
            if (!RulesReader.TryRead((string)order["rules"]!, out var book, out _))
            {
                return null;
            }

            static PixelSize Size(JsonNode size) => new((int)size["width"]!, (int)size["height"]!);
            var crop = plan["crop"]!;
            var turn = order["turn"];
            return new()
            {
                Parts =
                [
                    new(
                        Path.GetFileName(Path.GetDirectoryName(path)) + Path.GetFileName(path),
                        turn is null ? Turn.None : new((int)turn["quarters"]!, (double)turn["degrees"]!),
                        new((int)crop["left"]!, (int)crop["top"]!, (int)crop["right"]!, (int)crop["bottom"]!)
                    ),
                ],
                Size = Size(plan["size"]!),
                Content = Size(plan["content"]!),
                MayShrink = (bool)plan["mayShrink"]!,
                Rule = RulesWriter.BytesKey(book!.Destinations[0].Slots[0]),
                Format = order["format"] is { } format ? Enum.Parse<PictureFormat>((string)format!, ignoreCase: true) : null,
                Quality = (int?)order["quality"],
            };
        }
        catch (Exception fault)
            when (fault is JsonException or InvalidOperationException or ArgumentException or FormatException or NullReferenceException)
        {
            return null;
        }
    }

    private async Task JobAsync(PantometDb db, Guid id, Dictionary<string, string> wants)
    {
        var row = await db.Jobs.FirstAsync(job => job.Id == id);
        try
        {
            var job = JsonSerializer.Deserialize<Job>(OldNames.Renamed(row.Text!), JsonSerializerOptions.Web)!;
            if (Fault(job) is { } fault)
            {
                throw new JsonException(fault);
            }

            job = job with
            {
                Pictures =
                [
                    .. job.Pictures.DistinctBy(one => one.Id).Select(one => one with { Decisions = Renamed(one.Decisions, wants) }),
                ],
                Slots = [.. job.Slots.DistinctBy(slot => slot.Address)],
            };
            (row.Text, row.Name) = (null, job.Name);
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
            await JobTables.StoreAsync(db, id, job, JobPatch.Between(new Job { Name = "" }, job), new Dictionary<Guid, long>());
        }
        catch (Exception fault) when (fault is JsonException or NotSupportedException or ArgumentException or InvalidOperationException)
        {
            db.ChangeTracker.Clear();
            NotBroughtOver(log, id, fault.Message);
            var why = RuleTexts.ThisJobIsStoredInA(fault.Message);
            var name = NameIn(row.Text) ?? RuleTexts.AJobThatCannotBeRead;
            await db
                .Jobs.Where(job => job.Id == id)
                .ExecuteUpdateAsync(set => set.SetProperty(job => job.Fault, why).SetProperty(job => job.Name, name));
        }
    }

    private static string? Fault(Job job) =>
        job.Pictures is null
        || job.Slots is null
        || job.Patterns is null
        || job.Pictures.Any(one => one?.Decisions is null)
        || job.Slots.Any(one => one?.Destination is null || one.Slot is null)
            ? RuleTexts.APartOfItIsMissing
            : job
                .Pictures.Select(one => one.Decisions.Fault())
                .Concat(job.Slots.Select(slot => Choice.Fault(slot.Choice)))
                .FirstOrDefault(fault => fault is not null);

    private static string? NameIn(string? text)
    {
        try
        {
            return text is null ? null
                : (string?)JsonNode.Parse(text)?["name"] is { Length: > 0 and <= 100 } name ? name
                : null;
        }
        catch (Exception fault) when (fault is JsonException or InvalidOperationException)
        {
            return null;
        }
    }

    private static Decisions Renamed(Decisions decisions, Dictionary<string, string> wants) =>
        decisions with
        {
            Cells = decisions
                .Cells.Where(pair => !pair.Value.IsNone)
                .ToDictionary(
                    pair => pair.Key,
                    pair => pair.Value with { Allowed = [.. pair.Value.Allowed.Where(wants.ContainsKey).Select(id => wants[id])] }
                ),
        };

    // Written anew, members of enumerations stand by their names.
    private static async Task NamesOfEnumerationsAsync(PantometDb db)
    {
        foreach (var picture in await db.Pictures.Where(row => row.Suggestion != null).ToListAsync())
        {
            db.Entry(picture).Property(row => row.Suggestion).IsModified = true;
        }

        foreach (var file in await db.DeliveredFiles.ToListAsync())
        {
            file.File = StoredJson.Write(StoredJson.Read<DeliveredFile>(file.File));
        }

        foreach (var revision in await db.Revisions.ToListAsync())
        {
            revision.Facts = StoredJson.Write(StoredJson.Read<PictureFacts>(revision.Facts));
        }

        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
    }

    [LoggerMessage(Level = LogLevel.Information, Message = "{Jobs} jobs and {Files} files of an earlier version were brought over.")]
    private static partial void BroughtOver(ILogger log, int jobs, int files);

    [LoggerMessage(Level = LogLevel.Error, Message = "The job {Job} of an earlier version cannot be read and is set aside: {Why}")]
    private static partial void NotBroughtOver(ILogger log, Guid job, string why);
}
