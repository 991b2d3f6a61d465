using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Naming;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Tests.Naming;

public class BundleNamesTests
{
    private static readonly Slot Square = new()
    {
        Key = "square",
        Name = "Square",
        Size = new SizeRule.Exact(new(300, 300)),
    };

    [Theory]
    [InlineData("DSC_0412.JPG", "")]
    [InlineData("IMG_2081.jpg", "")]
    [InlineData("P1050233.JPG", "")]
    [InlineData("IMG-20240612-WA0007.jpg", "")]
    [InlineData("20240612_101530.jpg", "")]
    [InlineData("Screenshot 2024-06-12.png", "")]
    [InlineData("image (3).png", "")]
    [InlineData("storm-vane brass.jpg", "storm vane brass")]
    [InlineData("StormVaneBrass_0412.jpg", "Storm Vane Brass")]
    [InlineData("barometer-from-chat.jpg", "barometer from chat")]
    [InlineData("Ölfarbe.jpg", "Ölfarbe")]
    public void Words_are_told_from_the_numbers_of_cameras(string file, string words) => Assert.Equal(words, Keywords.In(file));

    [Fact]
    public void A_camera_number_is_never_used_unasked()
    {
        var picture = new JobPicture(Guid.NewGuid(), Decisions.None);
        var job = new Job { Name = "Autumn", Pictures = [new(Guid.NewGuid(), Decisions.None), picture] };
        Assert.Null(BundleNames.WordsFor(job, picture, "DSC_0412.JPG"));
        Assert.Equal("Autumn 02", BundleNames.WordsFor(job with { Numbered = true }, picture, "DSC_0412.JPG"));
        Assert.Equal(
            "brass vane",
            BundleNames.WordsFor(job, picture with { Decisions = Decisions.None with { Keywords = "brass vane" } }, "DSC_0412.JPG")
        );
    }

    [Fact]
    public void Names_are_unique_without_regard_to_case_and_never_an_original_s()
    {
        var pictures = Enumerable
            .Range(0, 3)
            .Select(_ => new JobPicture(Guid.NewGuid(), Decisions.None with { Keywords = "Brass vane" }))
            .ToList();
        var job = new Job { Name = "Autumn", Pictures = pictures };
        var files = pictures.SelectMany(one =>
            new[] { 1m, 2m }.Select(density => new NamedFile(one.Id, "shop", Square, new Density(density), new(300, 300), "jpg"))
        );
        var originals = pictures.ToDictionary(one => one.Id, one => one == pictures[0] ? "BRASS-VANE-square.jpg" : "b.jpg");
        var names = BundleNames.For(job, files, originals);
        Assert.Equal(6, names.Distinct(StringComparer.OrdinalIgnoreCase).Count());
        Assert.DoesNotContain("shop/brass-vane-square.jpg", names);
        Assert.Contains("shop/brass-vane-square@2x.jpg", names);
    }

    [Fact]
    public void A_prefix_stands_before_all_and_a_pattern_holds_for_its_destination()
    {
        var picture = new JobPicture(Guid.NewGuid(), Decisions.None with { Keywords = "vane" });
        var job = new Job
        {
            Name = "J",
            Prefix = "Skerry",
            Pictures = [picture],
            Patterns = new Dictionary<string, string> { ["shop"] = "{picture}_{width}x{height}{density}" },
        };
        var names = BundleNames.For(
            job,
            [
                new(picture.Id, "shop", Square, new Density(2), new(600, 600), "webp"),
                new(picture.Id, "site", Square, Density.One, new(300, 300), "jpg"),
            ],
            new Dictionary<Guid, string> { [picture.Id] = "DSC_1.JPG" }
        );
        Assert.Equal(["shop/skerry-vane_600x600@2x.webp", "site/skerry-vane-square.jpg"], names);
    }
}
