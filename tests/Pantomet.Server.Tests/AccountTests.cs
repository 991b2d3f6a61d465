using System.Net;
using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Pantomet.Data;
using static Pantomet.Server.Tests.AccountFixture;

namespace Pantomet.Server.Tests;

/// <summary>How people come in, and go.</summary>
public sealed class AccountTests(AccountFixture server) : IClassFixture<AccountFixture>
{
    [Fact]
    public async Task The_one_time_address_makes_one_owner()
    {
        var secret = server.OwnerSecret();
        using var browser = server.Browser();
        var account = new
        {
            secret,
            signInName = "first",
            name = "The first",
            password = Password,
        };

        await JsonAsync(browser, HttpMethod.Post, "/api/accounts", account);
        var me = await JsonAsync(browser, HttpMethod.Get, "/api/me");
        using var other = server.Browser();

        Assert.Equal(("signedIn", "owner", "The first"), (me.Text("state"), me.Text("role"), me.Text("name")));
        Assert.Equal(
            (HttpStatusCode.BadRequest, "no-link"),
            await RefusedAsync(other, HttpMethod.Post, "/api/accounts", account with { signInName = "second" })
        );
    }

    [Fact]
    public async Task An_invitation_works_once_and_gives_the_role_it_was_made_for()
    {
        using var owner = await server.SignedInAsync("inviting", "owner");
        var link = await JsonAsync(owner, HttpMethod.Post, "/api/people/invitations", new { name = "Kim", role = "editor" });
        var address = new Uri(link.Text("address"));
        var secret = address.Fragment[1..];
        var account = new
        {
            secret,
            signInName = "kim",
            name = "Kim",
            password = Password,
        };
        using var kim = server.Browser();

        Assert.Equal("/welcome", address.AbsolutePath);
        Assert.Equal("editor", (await JsonAsync(kim, HttpMethod.Post, "/api/links/purpose", new { secret })).Text("role"));
        // What is wrong with the account does not use the invitation up.
        Assert.Equal(
            (HttpStatusCode.BadRequest, "bad-account"),
            await RefusedAsync(kim, HttpMethod.Post, "/api/accounts", account with { password = "short" })
        );
        await JsonAsync(kim, HttpMethod.Post, "/api/accounts", account);
        Assert.Equal("editor", (await JsonAsync(kim, HttpMethod.Get, "/api/me")).Text("role"));
        Assert.Equal((HttpStatusCode.BadRequest, "no-link"), await RefusedAsync(kim, HttpMethod.Post, "/api/accounts", account));
        await using var scope = server.Services.CreateAsyncScope();
        var stored = await scope.ServiceProvider.GetRequiredService<PantometDb>().Links.Select(row => row.Hash).ToListAsync();
        Assert.DoesNotContain(secret, stored);
    }

    [Fact]
    public async Task A_role_that_changes_counts_from_the_next_request_on()
    {
        using var owner = await server.SignedInAsync("changing", "owner");
        using var viewer = await server.SignedInAsync("changed", "viewer");
        var id = (await JsonAsync(viewer, HttpMethod.Get, "/api/me")).Text("id");

        Assert.Equal(HttpStatusCode.Forbidden, (await RefusedAsync(viewer, HttpMethod.Post, "/api/jobs", new { name = "Mine" })).Status);
        await JsonAsync(owner, HttpMethod.Put, $"/api/people/{id}/role", new { role = "editor" });
        Assert.Equal(HttpStatusCode.OK, (await RefusedAsync(viewer, HttpMethod.Post, "/api/jobs", new { name = "Mine" })).Status);
        Assert.Equal(HttpStatusCode.Forbidden, (await RefusedAsync(viewer, HttpMethod.Get, "/api/page-checks")).Status);
        await JsonAsync(
            owner,
            HttpMethod.Put,
            "/api/people/access",
            new { editors = new[] { "checkPages" }, viewers = Array.Empty<string>() }
        );
        Assert.Equal(HttpStatusCode.OK, (await RefusedAsync(viewer, HttpMethod.Get, "/api/page-checks")).Status);
        Assert.Equal(HttpStatusCode.Forbidden, (await RefusedAsync(viewer, HttpMethod.Get, "/api/folders")).Status);
        Assert.Equal(
            (HttpStatusCode.BadRequest, "bad-right"),
            await RefusedAsync(
                owner,
                HttpMethod.Put,
                "/api/people/access",
                new { editors = new[] { "administer" }, viewers = Array.Empty<string>() }
            )
        );
        await JsonAsync(
            owner,
            HttpMethod.Put,
            "/api/people/access",
            new { editors = Array.Empty<string>(), viewers = Array.Empty<string>() }
        );
        await JsonAsync(owner, HttpMethod.Delete, $"/api/people/{id}");
        Assert.Equal(HttpStatusCode.Unauthorized, (await RefusedAsync(viewer, HttpMethod.Get, "/api/jobs")).Status);
    }

    [Fact]
    public async Task Five_wrong_passwords_lock_an_account_and_a_link_of_the_owner_opens_it()
    {
        using var owner = await server.SignedInAsync("opening", "owner");
        using var locked = await server.SignedInAsync("locked", "editor");
        var id = (await JsonAsync(locked, HttpMethod.Get, "/api/me")).Text("id");
        using var browser = server.Browser();
        for (var tries = 0; tries < 5; tries++)
        {
            Assert.Equal(
                (HttpStatusCode.Unauthorized, "wrong-sign-in"),
                await RefusedAsync(browser, HttpMethod.Post, "/api/sign-in", new { signInName = "locked", password = $"wrong {tries}" })
            );
        }

        // Even the right one does not come in now.
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await RefusedAsync(browser, HttpMethod.Post, "/api/sign-in", new { signInName = "locked", password = Password })).Status
        );
        var link = await JsonAsync(owner, HttpMethod.Post, $"/api/people/{id}/password-link");
        var secret = link.Text("address").Split('#')[1];
        await JsonAsync(browser, HttpMethod.Post, "/api/accounts/password", new { secret, password = "another four plain words" });
        await JsonAsync(browser, HttpMethod.Post, "/api/sign-in", new { signInName = "locked", password = "another four plain words" });
        // The sign-in of before ended with the password.
        Assert.Equal(HttpStatusCode.Unauthorized, (await RefusedAsync(locked, HttpMethod.Get, "/api/jobs")).Status);
    }

    [Fact]
    public async Task Signing_out_everywhere_ends_the_other_browsers_at_once()
    {
        using var one = await server.SignedInAsync("many-places", "owner");
        using var other = server.Browser();
        await JsonAsync(other, HttpMethod.Post, "/api/sign-in", new { signInName = "many-places", password = Password });

        await JsonAsync(one, HttpMethod.Post, "/api/me/sign-out-everywhere");

        Assert.Equal("signedOut", (await JsonAsync(one, HttpMethod.Get, "/api/me")).Text("state"));
        Assert.Equal("signedOut", (await JsonAsync(other, HttpMethod.Get, "/api/me")).Text("state"));
    }

    [Fact]
    public async Task The_last_owner_stays_one()
    {
        await using var own = new AlonePeople();
        await own.InitializeAsync();
        using var owner = await own.SignedInAsync("only", "owner");
        var id = (await JsonAsync(owner, HttpMethod.Get, "/api/me")).Text("id");

        Assert.Equal(
            (HttpStatusCode.BadRequest, "refused"),
            await RefusedAsync(owner, HttpMethod.Put, $"/api/people/{id}/role", new { role = "viewer" })
        );
        Assert.Equal((HttpStatusCode.BadRequest, "refused"), await RefusedAsync(owner, HttpMethod.Delete, $"/api/people/{id}"));
        Assert.Equal("owner", (await JsonAsync(owner, HttpMethod.Get, "/api/me")).Text("role"));
    }

    [Fact]
    public async Task The_second_step_asks_for_the_code_of_the_app_or_for_a_recovery_code_that_works_once()
    {
        using var browser = await server.SignedInAsync("two-steps", "owner");
        var key = (await JsonAsync(browser, HttpMethod.Post, "/api/me/two-step")).Text("key");
        Assert.Equal(
            (HttpStatusCode.BadRequest, "wrong-code"),
            await RefusedAsync(browser, HttpMethod.Post, "/api/me/two-step/confirm", new { code = "000000" })
        );
        var codes = (
            await JsonAsync(browser, HttpMethod.Post, "/api/me/two-step/confirm", new { code = CodeOf(key, DateTimeOffset.UtcNow) })
        )
            .GetProperty("codes")
            .EnumerateArray()
            .Select(code => code.GetString()!)
            .ToList();
        var password = new { signInName = "two-steps", password = Password };
        using var other = server.Browser();

        Assert.Equal(10, codes.Count);
        Assert.True((await JsonAsync(other, HttpMethod.Post, "/api/sign-in", password)).GetProperty("needsCode").GetBoolean());
        // The password alone does not come in.
        Assert.Equal(HttpStatusCode.Unauthorized, (await RefusedAsync(other, HttpMethod.Get, "/api/jobs")).Status);
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await RefusedAsync(other, HttpMethod.Post, "/api/sign-in/code", new { code = "000000" })).Status
        );
        await JsonAsync(other, HttpMethod.Post, "/api/sign-in/code", new { code = CodeOf(key, DateTimeOffset.UtcNow) });
        Assert.Equal("signedIn", (await JsonAsync(other, HttpMethod.Get, "/api/me")).Text("state"));

        using var lost = server.Browser();
        await JsonAsync(lost, HttpMethod.Post, "/api/sign-in", password);
        await JsonAsync(lost, HttpMethod.Post, "/api/sign-in/code", new { code = codes[0] });
        using var again = server.Browser();
        await JsonAsync(again, HttpMethod.Post, "/api/sign-in", password);
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await RefusedAsync(again, HttpMethod.Post, "/api/sign-in/code", new { code = codes[0] })).Status
        );
    }

    [Fact]
    public async Task A_token_does_what_its_scopes_say_and_nothing_of_its_owners_account()
    {
        using var owner = await server.SignedInAsync("programs", "owner");
        var made = await JsonAsync(owner, HttpMethod.Post, "/api/me/tokens", new { name = "Nightly", scopes = new[] { "read" } });
        var token = made.Text("token");
        using var program = server.Program(token);
        await using (var scope = server.Services.CreateAsyncScope())
        {
            var db = scope.ServiceProvider.GetRequiredService<PantometDb>();
            Assert.DoesNotContain(token, await db.AccessTokens.Select(row => row.Hash).ToListAsync());
        }

        Assert.Equal(HttpStatusCode.OK, (await RefusedAsync(program, HttpMethod.Get, "/api/jobs")).Status);
        Assert.Equal(
            (HttpStatusCode.Forbidden, "not-allowed"),
            await RefusedAsync(program, HttpMethod.Post, "/api/jobs", new { name = "A job" })
        );
        Assert.Equal((HttpStatusCode.Forbidden, "not-allowed"), await RefusedAsync(program, HttpMethod.Get, "/api/people"));
        Assert.Equal((HttpStatusCode.Forbidden, "not-allowed"), await RefusedAsync(program, HttpMethod.Get, "/api/me/tokens"));
        await JsonAsync(owner, HttpMethod.Delete, $"/api/me/tokens/{made.GetProperty("view").Text("id")}");
        Assert.Equal((HttpStatusCode.Unauthorized, "bad-token"), await RefusedAsync(program, HttpMethod.Get, "/api/jobs"));
    }

    [Fact]
    public async Task A_page_elsewhere_cannot_use_a_sign_in_and_the_cookie_is_out_of_reach_of_scripts()
    {
        using var browser = server.Browser();
        using var came = await browser.PostAsJsonAsync(
            "/api/accounts",
            new
            {
                secret = server.OwnerSecret(),
                signInName = "cookie",
                name = "Cookie",
                password = Password,
            }
        );
        var cookie = Assert.Single(came.Headers.GetValues("Set-Cookie"));
        using var foreign = new HttpRequestMessage(HttpMethod.Post, "/api/jobs") { Content = JsonContent.Create(new { name = "Foreign" }) };
        foreign.Headers.Add("Cookie", cookie.Split(';')[0]);
        foreign.Headers.Add("Origin", "https://elsewhere.example");
        using var plain = new HttpClient { BaseAddress = server.Client.BaseAddress };
        using var answer = await plain.SendAsync(foreign);

        Assert.Contains("httponly", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("samesite=strict", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Equal(HttpStatusCode.Forbidden, answer.StatusCode);
    }

    [Fact]
    public async Task A_sign_in_outlives_a_restart_of_the_server()
    {
        await using var own = new AlonePeople();
        await own.InitializeAsync();
        using var owner = await own.SignedInAsync("patient", "owner");
        var before = own.Client.BaseAddress!;
        await own.RestartAsync();
        using var moved = new HttpRequestMessage(HttpMethod.Get, new Uri(own.Client.BaseAddress!, "/api/me"));
        using var answer = await owner.SendAsync(moved);

        Assert.NotEqual(before, own.Client.BaseAddress);
        Assert.Contains("\"signedIn\"", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    private sealed class AlonePeople : AccountFixture, IAsyncDisposable
    {
        async ValueTask IAsyncDisposable.DisposeAsync() => await DisposeAsync();
    }
}
