using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Core.Accounts;
using Pantomet.Server.Accounts;

namespace Pantomet.Server.Tests;

/// <summary>Who may do what, asked of every address.</summary>
public sealed class AccessTests(AccountFixture server) : IClassFixture<AccountFixture>
{
    private static readonly string[] ForEverybody =
    [
        "comeAsGuest",
        "getLinkPurpose",
        "getMe",
        "makeAccount",
        "setPasswordByLink",
        "signIn",
        "signInCode",
        "signOut",
    ];

    private List<RouteEndpoint> Addresses =>
        [
            .. server
                .Services.GetRequiredService<EndpointDataSource>()
                .Endpoints.OfType<RouteEndpoint>()
                .Where(one => one.RoutePattern.RawText!.StartsWith("/api", StringComparison.Ordinal)),
        ];

    [Fact]
    public void Every_address_says_who_may_use_it()
    {
        var open = Addresses
            .Where(one => one.Metadata.GetMetadata<IAllowAnonymous>() is not null)
            .Select(NameOf)
            .Order(StringComparer.Ordinal);

        Assert.Equal(ForEverybody, open);
        Assert.All(
            Addresses.Where(one => !ForEverybody.Contains(NameOf(one))),
            one => Assert.True(one.Metadata.GetMetadata<NeededRight>() is not null, NameOf(one))
        );
    }

    [Fact]
    public async Task Whoever_is_not_signed_in_gets_nothing()
    {
        using var nobody = server.Browser();
        foreach (var address in Addresses.Where(one => !ForEverybody.Contains(NameOf(one))))
        {
            var (status, code) = await AskAsync(nobody, address);
            Assert.True((status, code) == (HttpStatusCode.Unauthorized, "sign-in-needed"), $"{NameOf(address)}: {status} {code}");
        }
    }

    [Theory]
    [InlineData("viewer")]
    [InlineData("editor")]
    public async Task A_role_reaches_what_its_rights_say_and_nothing_else(string role)
    {
        using var browser = await server.SignedInAsync($"reach-{role}", role);
        foreach (
            var address in Addresses.Where(one => !ForEverybody.Contains(NameOf(one)) && one.RoutePattern.RawText != "/api/jobs/events")
        )
        {
            // It would end this sign-in.
            if (NameOf(address) == "signOutEverywhere")
            {
                continue;
            }

            var allowed = Access.Plain.Allows(Enum.Parse<Role>(role, ignoreCase: true), address.Metadata.GetMetadata<NeededRight>()!.Right);
            var (status, code) = await AskAsync(browser, address);
            Assert.True(status != HttpStatusCode.Unauthorized && code == "not-allowed" != allowed, $"{NameOf(address)}: {status} {code}");
        }
    }

    [Fact]
    public async Task A_guest_reaches_only_what_is_open_to_guests()
    {
        using var owner = await server.SignedInAsync("host-of-guest", "owner");
        var job = (await AccountFixture.JsonAsync(owner, HttpMethod.Post, "/api/jobs", new { name = "For a guest" }))
            .GetProperty("id")
            .GetString()!;
        using var guest = await GuestAsync(owner, job);
        foreach (var address in Addresses.Where(one => !ForEverybody.Contains(NameOf(one))))
        {
            if (address.Metadata.GetMetadata<OpenToGuests>() is null)
            {
                var (status, code) = await AskAsync(guest, address, job);
                Assert.True((status, code) == (HttpStatusCode.Forbidden, "not-allowed"), $"{NameOf(address)}: {status} {code}");
            }
        }
    }

    [Fact]
    public async Task A_guest_sees_one_job_comments_accepts_and_is_out_when_the_link_is_revoked()
    {
        using var owner = await server.SignedInAsync("host", "owner");
        var (mine, picture) = await JobAsync(owner, "Mine", "DSC_0423.JPG");
        var (other, hidden) = await JobAsync(owner, "Of another client", "IMG_2102.jpg");
        using var guest = await GuestAsync(owner, mine);

        var me = await AccountFixture.JsonAsync(guest, HttpMethod.Get, "/api/me");
        var seen = await AccountFixture.JsonAsync(guest, HttpMethod.Get, $"/api/jobs/{mine}");
        var said = await AccountFixture.JsonAsync(
            guest,
            HttpMethod.Post,
            $"/api/jobs/{mine}/comments",
            new
            {
                picture,
                slot = "website/thumbnail",
                text = "A little more air above, please.",
                accepts = true,
            }
        );

        Assert.Equal("guest", me.GetProperty("state").GetString());
        Assert.Equal(mine, me.GetProperty("job").GetString());
        Assert.Equal(mine, seen.GetProperty("head").GetProperty("id").GetString());
        Assert.Equal("Ms Moor (guest)", said.GetProperty("actor").GetString());
        Assert.True(said.GetProperty("accepted").GetBoolean());
        foreach (
            var closed in new[]
            {
                $"/api/jobs/{other}",
                $"/api/jobs/{other}/comments",
                $"/api/pictures/{hidden}",
                $"/api/pictures/{hidden}/preview/480",
                $"/api/pictures/{picture}/original",
                "/api/jobs",
                "/api/pictures",
                "/api/people",
            }
        )
        {
            Assert.Equal((HttpStatusCode.Forbidden, "not-allowed"), await AccountFixture.RefusedAsync(guest, HttpMethod.Get, closed));
        }

        Assert.Equal(HttpStatusCode.OK, (await AccountFixture.RefusedAsync(guest, HttpMethod.Get, $"/api/pictures/{picture}")).Status);
        var link = Assert.Single((await AccountFixture.JsonAsync(owner, HttpMethod.Get, $"/api/jobs/{mine}/guests")).EnumerateArray());
        await AccountFixture.JsonAsync(owner, HttpMethod.Delete, $"/api/jobs/{mine}/guests/{link.GetProperty("id").GetString()}");
        Assert.Equal(
            (HttpStatusCode.Unauthorized, "sign-in-needed"),
            await AccountFixture.RefusedAsync(guest, HttpMethod.Get, $"/api/jobs/{mine}")
        );
    }

    private async Task<HttpClient> GuestAsync(HttpClient owner, string job)
    {
        var link = await AccountFixture.JsonAsync(owner, HttpMethod.Post, $"/api/jobs/{job}/guests", new { name = "Ms Moor" });
        var guest = server.Browser();
        await AccountFixture.JsonAsync(
            guest,
            HttpMethod.Post,
            "/api/guests",
            new { secret = link.GetProperty("address").GetString()!.Split('#')[1] }
        );
        return guest;
    }

    private static async Task<(string Job, string Picture)> JobAsync(HttpClient owner, string name, string file)
    {
        using var sent = await owner.PostAsync(
            new Uri($"/api/pictures?name={file}", UriKind.Relative),
            new ByteArrayContent(ServerFixture.SmallPicture(file))
        );
        sent.EnsureSuccessStatusCode();
        var picture = (await sent.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("picture").GetProperty("id").GetString()!;
        var job = await AccountFixture.JsonAsync(
            owner,
            HttpMethod.Post,
            "/api/jobs",
            new
            {
                name,
                pictures = new[] { picture },
                slots = new[]
                {
                    new
                    {
                        destination = "website",
                        slot = "thumbnail",
                        choice = (object?)null,
                    },
                },
            }
        );
        return (job.GetProperty("id").GetString()!, picture);
    }

    private static async Task<(HttpStatusCode, string?)> AskAsync(HttpClient client, RouteEndpoint address, string? job = null)
    {
        var path = string.Join(
            '/',
            address.RoutePattern.PathSegments.Select(segment =>
                string.Concat(
                    segment.Parts.Select(part =>
                        part switch
                        {
                            Microsoft.AspNetCore.Routing.Patterns.RoutePatternLiteralPart literal => literal.Content,
                            Microsoft.AspNetCore.Routing.Patterns.RoutePatternParameterPart { Name: "id" } when job is not null => job,
                            Microsoft.AspNetCore.Routing.Patterns.RoutePatternParameterPart parameter => parameter.ParameterPolicies.Any(
                                policy => policy.Content == "int"
                            )
                                ? "480"
                            : parameter.ParameterPolicies.Count > 0 ? Guid.NewGuid().ToString()
                            : "none",
                            _ => "",
                        }
                    )
                )
            )
        );
        var method = address.Metadata.GetMetadata<HttpMethodMetadata>()!.HttpMethods[0];
        using var request = new HttpRequestMessage(HttpMethod.Parse(method), $"/{path}");
        if (method is not ("GET" or "DELETE"))
        {
            var type =
                address.Metadata.GetMetadata<Microsoft.AspNetCore.Http.Metadata.IAcceptsMetadata>()?.ContentTypes[0] ?? "application/json";
            request.Content = new StringContent("{}", System.Text.Encoding.UTF8, type == "*/*" ? "application/octet-stream" : type);
        }

        return await AccountFixture.RefusedAsync(client, request);
    }

    private static string NameOf(Endpoint one) =>
        one.Metadata.GetMetadata<IEndpointNameMetadata>()?.EndpointName ?? ((RouteEndpoint)one).RoutePattern.RawText!;
}
