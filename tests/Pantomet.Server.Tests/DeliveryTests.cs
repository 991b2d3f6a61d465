using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Data;

namespace Pantomet.Server.Tests;

/// <summary>Files handed to receivers: what each says, what it shows, and what is sent the next time.</summary>
public sealed partial class DeliveryTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>, IAsyncLifetime
{
    [Fact]
    public async Task A_marketplace_takes_one_picture_and_refuses_another_in_its_own_words()
    {
        var (job, _) = await MadeJobAsync(["IMG_2102.jpg"], "shop/listing", "website/grid-square");
        var market = await ReceiverAsync("form", "/market/listings", new { field = "picture" });
        var sent = await SentAsync(job, market);
        Assert.Equal("done", sent.GetProperty("state").GetString());
        var taken = File(sent, "listing.jpg");
        Assert.Equal("accepted", taken.GetProperty("standing").GetString());
        Assert.True(System.IO.File.Exists(Path.Combine(_folder, "market", Path.GetFileName(taken.GetProperty("path").GetString()!))));
        var refused = File(sent, "@2x.jpg");
        Assert.Equal("refused", refused.GetProperty("standing").GetString());
        Assert.Equal(
            [
                "The picture does not meet the rules for listings.",
                "File names may have small letters, digits and hyphens, and end in .jpg.",
                "The longest side must have 1600 to 5000 pixels; this one has 600.",
            ],
            Said(refused)
        );

        // It stands at the cell for as long as the cell has that file.
        var said = await SaidAsync(job, "website/grid-square");
        Assert.Equal("A form", said[0].GetProperty("receiver").GetString());
        Assert.All(said, one => Assert.Equal("refused", one.GetProperty("standing").GetString()));
        await server.CommandAsync(
            job,
            new
            {
                @do = "choose-for-slots",
                slots = (string[]?)null,
                choice = new { format = (string?)null, quality = 30 },
            }
        );
        await server.MadeAsync(job);
        Assert.Empty(await SaidAsync(job, "website/grid-square"));
    }

    [Fact]
    public async Task A_second_time_only_what_changed_is_sent_and_what_goes_no_more_is_told()
    {
        var (job, pictures) = await MadeJobAsync(["DSC_0412.JPG"], "website/grid-square");
        var shop = await ReceiverAsync("put", "/shop/files", new { });
        var first = Files(await SentAsync(job, shop));
        Assert.Equal(2, first.Count);
        Assert.All(first, file => Assert.Equal("accepted", file.GetProperty("standing").GetString()));
        // The store shows what it was given: the same bytes.
        Assert.All(first, file => Assert.True(file.GetProperty("shown")[0].GetProperty("isSame").GetBoolean()));
        var before = Times();

        await SentAsync(job, shop);
        Assert.Equal(before, Times());

        // The words change the names: those files are new, the old ones are still there.
        await server.CommandAsync(
            job,
            new
            {
                @do = "give-words",
                picture = pictures[0],
                keywords = "brass barometer",
                alternative = "",
            }
        );
        var renamed = await ViewAsync(job, shop);
        Assert.Equal(2, Files(renamed).Count(file => file.GetProperty("standing").GetString() == "notSent"));
        Assert.Equal(2, Files(renamed).Count(file => file.GetProperty("standing").GetString() == "noLongerDelivered"));
        await SentAsync(job, shop);
        Assert.Equal(4, Times().Count);

        // What was delivered is held against a changed rule, as every delivery is.
        await using var scope = server.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
        Assert.Equal(
            ["sent", "sent"],
            await db.Deliveries.Where(row => row.JobId == Guid.Parse(job)).Select(row => row.Kind).ToListAsync()
        );
    }

    [Fact]
    public async Task What_a_network_made_of_a_picture_is_looked_at_and_compared()
    {
        var (job, _) = await MadeJobAsync(["IMG_2102.jpg"], "shop/listing");
        var network = await ReceiverAsync("form", "/network/posts", new { field = "media" }, "tidewrack-demo");
        var file = File(await SentAsync(job, network), "listing.jpg");
        var shown = file.GetProperty("shown")[0];
        Assert.True(shown.GetProperty("trouble").ValueKind == JsonValueKind.Null, shown.ToString());
        Assert.False(shown.GetProperty("isSame").GetBoolean());
        Assert.Equal(1440, shown.GetProperty("width").GetInt32());
        Assert.Equal(71, shown.GetProperty("quality").GetInt32());
        Assert.InRange(shown.GetProperty("likeness").GetDouble(), 0.9, 0.995);

        // People judge it by eye: it comes from the receiver, and nothing in it runs.
        using var picture = await server.Client.GetAsync(
            new Uri(
                $"/api/jobs/{job}/deliveries/{network}/shown?path={Uri.EscapeDataString(file.GetProperty("path").GetString()!)}",
                UriKind.Relative
            )
        );
        Assert.Equal("image/jpeg", picture.Content.Headers.ContentType!.MediaType);
        Assert.Equal(shown.GetProperty("bytes").GetInt64(), picture.Content.Headers.ContentLength);
        Assert.Contains("sandbox", string.Join(' ', picture.Headers.GetValues("Content-Security-Policy")), StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_file_that_a_network_leaves_alone_is_found_by_trying_and_becomes_the_slot_s_rule()
    {
        var (job, _) = await MadeJobAsync(["IMG_2102.jpg"], "shop/listing");
        var network = await ReceiverAsync(
            "form",
            "/network/posts",
            new { field = "media", trialAddress = $"{_address}/network/posts" },
            "tidewrack-demo"
        );
        var path = File(await SentAsync(job, network), "listing.jpg").GetProperty("path").GetString()!;
        var address = $"/api/jobs/{job}/deliveries/{network}/survival";
        await server.SendAsync(HttpMethod.Post, $"{address}?path={Uri.EscapeDataString(path)}");
        var found = await server.UntilAsync(
            $"{address}?path={Uri.EscapeDataString(path)}",
            view => view.GetProperty("state").GetString() != "waiting"
        );
        Assert.Equal("done", found.GetProperty("state").GetString());
        var tried = found.GetProperty("tried").EnumerateArray().ToList();
        var best = tried[found.GetProperty("best").GetInt32()];
        // What the network keeps to itself: what is larger than 1440 px or of a high quality it makes anew.
        Assert.Equal(1440, best.GetProperty("size").GetProperty("width").GetInt32());
        var quality = best.GetProperty("quality").GetInt32();
        var next = tried.Single(one =>
            one.GetProperty("quality").ValueKind == JsonValueKind.Number && one.GetProperty("quality").GetInt32() == quality + 1
        );
        Assert.False(next.GetProperty("shown").GetProperty("isSame").GetBoolean());
        Assert.True(best.GetProperty("shown").GetProperty("isSame").GetBoolean());
        // What the network makes of a better file may be a little more alike, as it is heavier.
        double Lost(JsonElement one) => 1 - one.GetProperty("shown").GetProperty("likeness").GetDouble();
        Assert.All(tried, one => Assert.True(Lost(best) <= Lost(one) * 1.2, $"{Lost(best)} and {Lost(one)}"));
        Assert.True(found.GetProperty("rule").GetBoolean());
        var rule = await server.SendAsync(HttpMethod.Get, $"{address}/rule?path={Uri.EscapeDataString(path)}");
        Assert.Equal("shop/listing", rule.GetProperty("slot").GetString());
        Assert.Equal(quality, rule.GetProperty("draft").GetProperty("rule").GetProperty("aims").GetProperty("quality")[1].GetInt32());

        // Where nobody said where it may be tried, nothing is.
        var library = await ReceiverAsync("form", "/media-library/media", new { user = "skerry", shownAt = "/sizes" }, "library-demo");
        using var refused = await server.Client.PostAsync(
            new Uri($"/api/jobs/{job}/deliveries/{library}/survival?path={Uri.EscapeDataString(path)}", UriKind.Relative),
            null
        );
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
    }

    [Fact]
    public async Task A_media_library_says_which_sizes_it_made()
    {
        var (job, _) = await MadeJobAsync(["IMG_2102.jpg"], "shop/listing");
        var library = await ReceiverAsync(
            "form",
            "/media-library/media",
            new
            {
                field = "file",
                user = "skerry",
                shownAt = "/sizes",
            },
            "library-demo"
        );
        var shown = File(await SentAsync(job, library), "listing.jpg").GetProperty("shown").EnumerateArray().ToList();
        Assert.Equal([320, 800, 1600], shown.Select(one => one.GetProperty("width").GetInt32()));
        Assert.All(shown, one => Assert.InRange(one.GetProperty("likeness").GetDouble(), 0.9, 1));
    }

    [Fact]
    public async Task A_store_of_objects_gets_the_files_signed_and_tells_a_wrong_key()
    {
        var (job, pictures) = await MadeJobAsync(["DSC_0412.JPG"], "website/grid-square");
        var more = new { bucket = "skerry", user = "SKERRYDEMO" };
        var store = await ReceiverAsync("s3", "/objects", more, "objects-demo-secret");
        Assert.True((await server.SendAsync(HttpMethod.Post, $"/api/receivers/{store}/try")).GetProperty("reached").GetBoolean());
        var sent = await SentAsync(job, store);
        Assert.All(Files(sent), file => Assert.Equal("accepted", file.GetProperty("standing").GetString()));
        var path = File(sent, "square.jpg").GetProperty("path").GetString()!;
        Assert.True(System.IO.File.Exists(Path.Combine(_folder, "objects", path)));

        var wrong = await ReceiverAsync("s3", "/objects", more, "another secret");
        var refused = await SentAsync(job, wrong);
        Assert.Equal("failed", refused.GetProperty("state").GetString());
        Assert.StartsWith(
            "The secret does not match the key. 1 file waits",
            refused.GetProperty("trouble").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_folder_gets_files_whole_and_another_s_file_is_never_replaced()
    {
        var (job, pictures) = await MadeJobAsync(["DSC_0412.JPG"], "website/grid-square");
        var place = Directory.CreateDirectory(Path.Combine(server.Pictures, "handed")).FullName;
        var folder = await ReceiverAsync("folder", place, new { });
        var path = File(await ViewAsync(job, folder), "square.jpg").GetProperty("path").GetString()!;
        var taken = Path.Combine(place, path);
        Directory.CreateDirectory(Path.GetDirectoryName(taken)!);
        await System.IO.File.WriteAllTextAsync(taken, "somebody's own");
        var sent = await SentAsync(job, folder);
        var states = Files(sent).Select(file => file.GetProperty("standing").GetString()).Order(StringComparer.Ordinal);
        Assert.Equal(["accepted", "refused"], states);
        Assert.Equal("somebody's own", await System.IO.File.ReadAllTextAsync(taken));
        Assert.DoesNotContain(
            Directory.GetFiles(place, "*", SearchOption.AllDirectories),
            name => name.EndsWith(".part", StringComparison.Ordinal)
        );

        // The owner allowed one folder, and no other.
        var outside = await ReceiverAsync("folder", "/tmp", new { });
        Assert.StartsWith(
            "Only these folders",
            (await SentAsync(job, outside)).GetProperty("trouble").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_receiver_at_another_place_has_none_of_the_files()
    {
        var (job, _) = await MadeJobAsync(["DSC_0412.JPG"], "website/grid-square");
        var shop = await ReceiverAsync("put", "/shop/files", new { });
        await SentAsync(job, shop);
        await server.SendAsync(
            HttpMethod.Put,
            $"/api/receivers/{shop}",
            new
            {
                rule = new
                {
                    name = "Moved",
                    way = "put",
                    address = $"{_address}/shop/files/winter",
                },
            }
        );
        Assert.All(Files(await ViewAsync(job, shop)), file => Assert.Equal("notSent", file.GetProperty("standing").GetString()));
    }

    [Fact]
    public async Task Secrets_are_sealed_never_told_and_never_shown_to_another_host()
    {
        var id = await ReceiverAsync("form", "/network/posts", new { field = "media" }, "tidewrack-demo");
        var all = await server.SendAsync(HttpMethod.Get, "/api/receivers");
        Assert.DoesNotContain("tidewrack-demo", all.GetRawText(), StringComparison.Ordinal);
        Assert.True(all[0].GetProperty("hasSecret").GetBoolean());
        await using (var scope = server.Services.CreateAsyncScope())
        {
            var row = await scope.ServiceProvider.GetRequiredService<PantometDb>().Receivers.SingleAsync(row => row.Id == Guid.Parse(id));
            Assert.DoesNotContain("tidewrack-demo", row.Secret, StringComparison.Ordinal);
        }

        Assert.Equal(
            UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute,
            new DirectoryInfo(Path.Combine(server.Data, "keys")).UnixFileMode
        );

        // Another path of the host keeps it, another host does not get it.
        var same = await ChangeAsync(id, $"{_address}/network/other");
        Assert.True(same.GetProperty("hasSecret").GetBoolean());
        var other = await ChangeAsync(id, "http://elsewhere.example/posts");
        Assert.False(other.GetProperty("hasSecret").GetBoolean());
    }

    [Fact]
    public async Task What_is_wrong_with_a_receiver_is_refused_with_its_place()
    {
        using var answer = await server.Client.PostAsJsonAsync(
            new Uri("/api/receivers", UriKind.Relative),
            new
            {
                rule = new
                {
                    name = "Odd",
                    way = "put",
                    address = "file:///etc",
                },
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("$.rule.address", (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("place").GetString());
    }
}
