using System.Net;

namespace Pantomet.Server.Tests;

public sealed class AlikePictureTests(StockedServerFixture server) : IClassFixture<StockedServerFixture>
{
    private const string Square = "website/grid-square";

    [Fact]
    public async Task The_same_shot_in_two_sizes_is_found_and_another_shot_is_not()
    {
        // The second was sent on by chat: smaller, and compressed once more.
        var shot = await server.PictureAsync("DSC_0412.JPG");
        var other = await server.PictureAsync("DSC_0452.JPG");
        var sentOn = await server.PictureAsync("barometer-from-chat.jpg");
        var id = await server.JobAsync([shot, other, sentOn], [Square]);
        Assert.Equal(
            [
                [$"{shot}", $"{sentOn}"],
            ],
            await GroupsAsync(id)
        );

        // A job without alike pictures has none.
        Assert.Empty(await GroupsAsync(await server.JobAsync([shot, other], [Square])));
        // Turned, it takes no frame from the other.
        await server.SendAsync(
            HttpMethod.Post,
            $"/api/jobs/{id}/commands",
            new
            {
                commands = new object[]
                {
                    new
                    {
                        @do = "turn",
                        picture = shot,
                        quarters = 1,
                        degrees = 0,
                    },
                },
            }
        );
        Assert.Empty(await GroupsAsync(id));
    }

    [Fact]
    public async Task No_job_has_no_alike_pictures()
    {
        using var none = await server.Client.GetAsync(new Uri($"/api/jobs/{Guid.Empty}/alike", UriKind.Relative));
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);
    }

    private async Task<string[][]> GroupsAsync(object job) =>
        [
            .. (await server.SendAsync(HttpMethod.Get, $"/api/jobs/{job}/alike"))
                .EnumerateArray()
                .Select(group => group.EnumerateArray().Select(picture => picture.GetString()!).ToArray()),
        ];
}
