using CsCheck;
using Pantomet.Core.Sharing;

namespace Pantomet.Core.Tests.Sharing;

public sealed class ShareTests
{
    [Theory]
    [InlineData("3/8", 3, 8)]
    [InlineData("1/1", 1, 1)]
    [InlineData("1000/1000", 1000, 1000)]
    public void A_share_is_read_as_it_is_written(string text, int number, int of)
    {
        Assert.True(Share.TryParse(text, out var share));
        Assert.Equal((number, of, text), (share!.Number, share.Of, share.ToString()));
    }

    [Theory]
    [InlineData("0/8")]
    [InlineData("9/8")]
    [InlineData("3")]
    [InlineData("3/8/9")]
    [InlineData("-1/8")]
    [InlineData("+1/8")]
    [InlineData("a/b")]
    [InlineData("1/100001")]
    [InlineData("")]
    [InlineData(null)]
    public void What_is_no_share_is_not_read(string? text) => Assert.False(Share.TryParse(text, out _));

    [Fact]
    public void Every_picture_is_of_exactly_one_share() =>
        Gen.Select(Gen.String, Gen.Int[1, 40])
            .Sample((words, of) => Enumerable.Range(1, of).Count(number => new Share(number, of).Has(Share.KeyOf(words))) == 1);

    [Fact]
    public void Pictures_whose_names_differ_by_a_number_at_their_end_are_of_one_share() =>
        Gen.Select(Gen.String[Gen.Char['a', 'z'], 1, 12], Gen.Int[0, 9999], Gen.Int[1, 40])
            .Sample(
                (word, number, of) =>
                    Enumerable
                        .Range(1, of)
                        .All(one => new Share(one, of).Has(Share.KeyOf(word)) == new Share(one, of).Has(Share.KeyOf($"{word} {number}")))
            );

    [Theory]
    [InlineData("DSC_0423.JPG", "DSC 0423 JPG")]
    [InlineData("storm glass-2", "Storm Glass")]
    [InlineData("storm-glass-2-3", "storm glass")]
    public void Names_that_come_to_one_slug_have_one_key(string one, string other) => Assert.Equal(Share.KeyOf(one), Share.KeyOf(other));

    [Fact]
    public void Shares_are_about_equal()
    {
        var counts = Enumerable
            .Range(1, 8)
            .Select(number => Enumerable.Range(0, 4000).Count(i => new Share(number, 8).Has($"picture of {(char)('a' + (i % 26))}{i}x")));

        // 4 000 over 8: a share has 500, with a deviation of 21; seven of those are met once in 10^11.
        Assert.All(counts, count => Assert.InRange(count, 350, 650));
    }
}
