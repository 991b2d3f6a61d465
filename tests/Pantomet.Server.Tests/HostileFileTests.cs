using System.Net;
using System.Text.Json;
using Pantomet.Backups;

namespace Pantomet.Server.Tests;

/// <summary>Damaged files of other kinds than pictures: fonts that rules name, and backups that somebody hands over.</summary>
public sealed class HostileFileTests(ServerFixture server) : IClassFixture<ServerFixture>
{
    private const int Each = 24;

    [Fact]
    public async Task Damaged_fonts_are_taken_or_refused_with_a_sentence_and_the_server_goes_on()
    {
        var font = await File.ReadAllBytesAsync(
            Directory
                .GetFiles(Path.Combine(Cli.Installation.Root, "assets", "fonts", "lora"), "*.ttf")
                .Order(StringComparer.Ordinal)
                .First()
        );
        var random = new Random(20261201);
        var (taken, refused) = (0, 0);
        for (var i = 0; i < Each; i++)
        {
            using var body = new ByteArrayContent(Mutations.Mutated(font, random, "ttf"));
            body.Headers.ContentType = new("application/octet-stream");
            using var answer = await server.Client.PutAsync(new Uri($"/api/side-files/damaged-{i}.ttf", UriKind.Relative), body);
            if (answer.IsSuccessStatusCode)
            {
                taken++;
                continue;
            }

            using var problem = await JsonDocument.ParseAsync(await answer.Content.ReadAsStreamAsync());
            Assert.InRange((int)answer.StatusCode, 400, 499);
            Assert.EndsWith(".", problem.RootElement.GetProperty("detail").GetString(), StringComparison.Ordinal);
            refused++;
        }

        Assert.Equal(Each, taken + refused);
        // A font that was taken is drawn with in an imaging process, and shown as a list meanwhile.
        using var list = await server.Client.GetAsync(new Uri("/api/side-files", UriKind.Relative));
        Assert.Equal(HttpStatusCode.OK, list.StatusCode);
        await server.PictureAsync("IMG_2102.jpg");
    }

    [Fact]
    public async Task Damaged_backups_are_restored_as_far_as_they_are_whole_or_refused_and_write_nothing_elsewhere()
    {
        await server.PictureAsync("DSC_0423.JPG");
        var room = Directory.CreateTempSubdirectory("pantomet-hostile-").FullName;
        try
        {
            var sound = Path.Combine(room, "sound.zip");
            await DataBackup.TakeAsync(server.Data, sound, DateTime.UtcNow, "1", null, default);
            var bytes = await File.ReadAllBytesAsync(sound);
            var random = new Random(20261202);
            var (restored, refused) = (0, 0);
            for (var i = 0; i < Each; i++)
            {
                var (zip, data) = (Path.Combine(room, "damaged.zip"), Path.Combine(room, $"data-{i}"));
                await File.WriteAllBytesAsync(zip, Mutations.Mutated(bytes, random, "zip"));
                try
                {
                    var outcome = await DataRestore.RunAsync(zip, null, data, null, default);
                    // What is not what its list says is left out, and named.
                    Assert.All(
                        outcome.Manifest.Files.Where(file => !outcome.Damaged.Contains(file.Path)),
                        file => Assert.True(File.Exists(Path.Combine(data, file.Path)), file.Path)
                    );
                    restored++;
                }
                catch (BackupException fault)
                {
                    Assert.NotEmpty(fault.Message);
                    refused++;
                }
            }

            Assert.Equal(Each, restored + refused);
            var entries = Directory.EnumerateFileSystemEntries(room).Select(Path.GetFileName);
            Assert.All(
                entries,
                name => Assert.True(name is "sound.zip" or "damaged.zip" || name!.StartsWith("data-", StringComparison.Ordinal), name)
            );
        }
        finally
        {
            Directory.Delete(room, recursive: true);
        }
    }
}
