using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Recipes;

namespace Pantomet.Core.Tests.Recipes;

/// <summary>A recipe names everything a file depends on: the same finds the same, any difference another.</summary>
public sealed class RecipeTests
{
    private static readonly string Hash = new('a', 64);

    private static Recipe Plain =>
        new()
        {
            Parts = [new(Hash, Turn.None, new(0, 0, 400, 300))],
            Size = new(200, 150),
            Content = new(200, 150),
            Rule = """{"key":"slot","size":{"width":200}}""",
        };

    [Fact]
    public void The_canonical_text_of_a_plain_file_is_this_and_its_hash_is_the_identity()
    {
        Assert.Equal(
            """
            {"version":11,"parts":[{"content":"HASH","crop":[0,0,400,300]}],"size":[200,150],"rule":{"key":"slot","size":{"width":200}}}
            """.Replace("HASH", Hash, StringComparison.Ordinal),
            Plain.ToJson()
        );
        Assert.Equal(
            Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(Plain.ToJson()))),
            Plain.Id
        );
    }

    [Fact]
    public void Another_version_is_another_file_that_is_wanted_for_the_same()
    {
        var later = Plain with { Version = Recipe.CurrentVersion + 1 };
        Assert.NotEqual(Plain.Id, later.Id);
        Assert.Equal(Plain.Want, later.Want);
    }

    [Fact]
    public void Each_member_makes_another_file()
    {
        Recipe[] all =
        [
            Plain,
            Plain with
            {
                Size = new(200, 151),
            },
            Plain with
            {
                Content = new(100, 75),
            },
            Plain with
            {
                MayShrink = true,
            },
            Plain with
            {
                Format = PictureFormat.WebP,
            },
            Plain with
            {
                Quality = 80,
            },
            Plain with
            {
                Rule = """{"key":"slot","size":{"width":201}}""",
            },
            Plain with
            {
                Parts = [new(Hash, new(1, 0), new(0, 0, 400, 300))],
            },
            Plain with
            {
                Parts = [new(Hash, Turn.None, new(0, 0, 400, 299))],
            },
            Plain with
            {
                Parts = [.. Plain.Parts, new(Hash, Turn.None, new(0, 0, 400, 300), new(100, 0, 200, 150))],
            },
            Plain with
            {
                Axes = new Dictionary<string, string> { ["page"] = "2" },
            },
            Plain with
            {
                Layers = [new("fade", new Dictionary<string, string> { ["to"] = "#ffffff" })],
            },
        ];
        Assert.Equal(all.Length, all.Select(recipe => recipe.Id).Distinct().Count());
    }

    [Fact]
    public void What_is_written_is_read_back_with_all_that_it_can_carry()
    {
        var rich = Plain with
        {
            Parts = [new(Hash, new(3, -2.5), new(1, 2, 30, 40), new(0, 0, 10, 10)), new(new('b', 64), Turn.None, new(0, 0, 5, 5))],
            Axes = new Dictionary<string, string> { ["width"] = "800", ["page"] = "2" },
            Layers = [new("title", new Dictionary<string, string> { ["text"] = "Glass Falling", ["ink"] = "#222222" })],
            Format = PictureFormat.Avif,
            Quality = 62,
            MayShrink = true,
        };
        var read = Recipe.Parse(rich.ToJson());
        Assert.Equal((rich.ToJson(), rich.Id), (read.ToJson(), read.Id));
        // The order in which values were put in is of no account.
        Assert.Equal(
            rich.Id,
            (
                rich with
                {
                    Axes = new Dictionary<string, string> { ["page"] = "2", ["width"] = "800" },
                }
            ).Id
        );
    }
}
