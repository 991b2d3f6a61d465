using CsCheck;
using Pantomet.Core.Accounts;

namespace Pantomet.Core.Tests.Accounts;

public sealed class AccessRulesTests
{
    private static readonly Gen<IReadOnlySet<Right>> Rights = Gen.Enum<Right>().HashSet[0, 8].Select(set => (IReadOnlySet<Right>)set);

    private static readonly Gen<Access> Given = Gen.Select(
        Rights,
        Rights,
        (editors, viewers) => new Access { ForEditors = editors, ForViewers = viewers }
    );

    [Fact]
    public void An_owner_may_everything_whatever_was_given() =>
        Gen.Select(Given, Gen.Enum<Right>()).Sample((access, right) => access.Allows(Role.Owner, right));

    [Fact]
    public void Only_what_reaches_into_the_machine_or_its_network_can_be_given() =>
        Gen.Select(Given, Gen.Enum<Right>(), Gen.Enum<Role>())
            .Sample(
                (access, right, role) => Access.Grantable.Contains(right) || access.Allows(role, right) == Access.Plain.Allows(role, right)
            );

    [Fact]
    public void Nobody_but_an_owner_administers_and_no_token_does()
    {
        Given.Sample(access => !access.Allows(Role.Editor, Right.Administer) && !access.Allows(Role.Viewer, Right.Administer));
        Gen.Select(Given, Gen.Enum<TokenScope>().HashSet[0, 3])
            .Sample((access, scopes) => !access.Allows(Role.Owner, scopes, Right.Administer));
    }

    [Fact]
    public void A_token_never_may_more_than_its_person() =>
        Gen.Select(Given, Gen.Enum<TokenScope>().HashSet[0, 3], Gen.Enum<Role>(), Gen.Enum<Right>())
            .Sample((access, scopes, role, right) => !access.Allows(role, scopes, right) || access.Allows(role, right));

    [Theory]
    [InlineData(Role.Viewer, Right.Edit, false)]
    [InlineData(Role.Viewer, Right.Comment, true)]
    [InlineData(Role.Editor, Right.Edit, true)]
    [InlineData(Role.Editor, Right.Publish, true)]
    [InlineData(Role.Editor, Right.CheckPages, false)]
    [InlineData(Role.Editor, Right.UseFolders, false)]
    [InlineData(Role.Editor, Right.UseReceivers, false)]
    public void Without_anything_given_a_role_has_this(Role role, Right right, bool has) =>
        Assert.Equal(has, Access.Plain.Allows(role, right));

    [Theory]
    [InlineData(TokenScope.Read, Right.Look, true)]
    [InlineData(TokenScope.Read, Right.Comment, false)]
    [InlineData(TokenScope.Command, Right.Edit, true)]
    [InlineData(TokenScope.Command, Right.Publish, false)]
    [InlineData(TokenScope.Publish, Right.Publish, true)]
    [InlineData(TokenScope.Publish, Right.Edit, false)]
    public void A_scope_includes_this(TokenScope scope, Right right, bool has) =>
        Assert.Equal(has, Access.Plain.Allows(Role.Owner, new HashSet<TokenScope> { scope }, right));

    [Theory]
    [InlineData("a glass barometer", null)]
    [InlineData("ünï cödé ☂☂", null)]
    [InlineData("nine char", "least")]
    [InlineData("Password123", "most used")]
    [InlineData("1234567890", "most used")]
    [InlineData("aaaaaaaaaaaaaa", "most used")]
    [InlineData("kimberley is here", "name")]
    public void A_password_is_taken_for_its_length_and_for_being_rare(string password, string? fault)
    {
        var said = PasswordRules.Fault(password, "kimberley");

        Assert.Equal(fault is null, said is null);
        if (fault is "name")
        {
            Assert.Contains("name", said, StringComparison.Ordinal);
        }
    }

    [Fact]
    public void A_password_of_200_characters_is_taken_and_one_more_is_not()
    {
        var long200 = string.Concat(Enumerable.Range(0, 50).Select(_ => "abc "));

        Assert.Null(PasswordRules.Fault(long200, "kim"));
        Assert.NotNull(PasswordRules.Fault(long200 + "x", "kim"));
    }

    [Theory]
    [InlineData("kim", true)]
    [InlineData("kim.moor@shop.example", true)]
    [InlineData("Åsa", true)]
    [InlineData("k", false)]
    [InlineData(".kim", false)]
    [InlineData("kim moor", false)]
    [InlineData("kim\n", false)]
    public void A_sign_in_name_has_letters_digits_and_a_few_characters_between(string name, bool taken) =>
        Assert.Equal(taken, AccountNames.SignInFault(name) is null);

    [Fact]
    public void A_secret_is_known_again_by_its_hash_and_no_two_are_the_same()
    {
        var (one, other) = (SecretText.Make(), SecretText.Make());

        Assert.True(SecretText.Is(one, SecretText.Hash(one)));
        Assert.False(SecretText.Is(other, SecretText.Hash(one)));
        Assert.Equal(43, one.Length);
        // FIPS 180-4, the example of one block.
        Assert.Equal("ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad", SecretText.Hash("abc"));
    }
}
