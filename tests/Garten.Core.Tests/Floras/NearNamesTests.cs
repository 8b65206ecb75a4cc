using CsCheck;
using Garten.Core.Floras;
using Xunit;

namespace Garten.Core.Tests.Floras;

/// <summary>Names of which one may be a slip of the other.</summary>
public sealed class NearNamesTests
{
    [Theory]
    // A letter missing, added, another, two swapped; case alone.
    [InlineData("Vellorna alba", "Velorna alba")]
    [InlineData("Vellorna alba", "Vellorna allba")]
    [InlineData("Vellorna alba", "Vellorna alga")]
    [InlineData("Vellorna nigra", "Vellorna nirga")]
    [InlineData("Vellorna alba", "vellorna Alba")]
    // The ending of the same stem.
    [InlineData("Vellorna alba", "Vellorna albus")]
    [InlineData("Vellorna viridis", "Vellorna viride")]
    // Two letters in a long word that begins alike.
    [InlineData("Vellorna ochroleuca", "Vellorna ochrolueka")]
    public void AreNear(string first, string second)
    {
        Assert.True(NearNames.AreNear(first, second));
        Assert.True(NearNames.AreNear(second, first));
        Assert.Equal([(first, second)], NearNames.Pairs([first, second]));
    }

    [Theory]
    [InlineData("Vellorna alba", "Vellorna alba")]
    [InlineData("Vellorna alba", "Vellorna nigra")]
    [InlineData("Vellorna alba", "Carpessa alba")]
    // Another word more, or both words another.
    [InlineData("Vellorna alba", "Vellorna alba minor")]
    [InlineData("Velorna alba", "Vellorna alga")]
    // A series is meant as it stands.
    [InlineData("Seedling 1", "Seedling 2")]
    [InlineData("Seedling A", "Seedling B")]
    [InlineData("Vellorna sp. A", "Vellorna sp. B")]
    // Abbreviations and ranks.
    [InlineData("V. alba", "W. alba")]
    [InlineData("Vellorna alba subsp. minor", "Vellorna alba subsq. minor")]
    // Short words differ by a letter as a rule.
    [InlineData("red oak", "bed oak")]
    // Two letters in a long word that begins otherwise.
    [InlineData("Vellorna ochroleuca", "Vellorna aphroleuca")]
    public void AreNotNear(string first, string second)
    {
        Assert.False(NearNames.AreNear(first, second));
        Assert.False(NearNames.AreNear(second, first));
        Assert.Empty(NearNames.Pairs([first, second]));
    }

    [Fact]
    public void PairsStandInTheOrderOfTheNamesEachOnce()
    {
        var pairs = NearNames.Pairs(["Vellorna nigra", "Carpessa rubra", "Vellorna nirga", "Vellorna nigra", "Carpesa rubra"]);
        Assert.Equal([("Vellorna nigra", "Vellorna nirga"), ("Carpessa rubra", "Carpesa rubra")], pairs);
    }

    [Fact]
    public void EveryPairThatIsNearIsFoundAndNoOther()
    {
        // Short words of few letters: nearly all of them are near to some other.
        var name = Gen.Char["abc"].Array[4, 9].Select(letters => "Vellorna " + new string(letters));
        name.Array[2, 14]
            .Sample(
                names =>
                {
                    var distinct = names.Distinct().ToList();
                    var expected = distinct
                        .SelectMany((a, i) => distinct.Skip(i + 1).Where(b => NearNames.AreNear(a, b)).Select(b => (a, b)))
                        .ToList();
                    Assert.Equal(expected, NearNames.Pairs(names));
                },
                iter: 500
            );
    }

    [Fact]
    public void OfManyNamesSlipsOfALetterAreStillFoundAndASeriesDoesNotEndInThousands()
    {
        var names = Enumerable
            .Range(0, 3000)
            .Select(i => $"Vellorna {Word(i)}")
            .Append("Carpessa rubra")
            .Append("Carpessa rubrra")
            .ToList();
        Assert.Contains(("Carpessa rubra", "Carpessa rubrra"), NearNames.Pairs(names));
        Assert.True(
            NearNames
                .Pairs([.. Enumerable.Range(0, 700).Select(i => $"Genella {(char)('a' + i % 26)}{(char)('a' + i / 26)}longword")])
                .Count <= 250
        );
    }

    // Words that lie far apart.
    private static string Word(int i) =>
        string.Concat(
            Enumerable
                .Range(0, 4)
                .Select(p =>
                    ((i >> (p * 3)) & 7) switch
                    {
                        0 => "bex",
                        1 => "dol",
                        2 => "fim",
                        3 => "gur",
                        4 => "hap",
                        5 => "jyt",
                        6 => "kos",
                        _ => "lew",
                    }
                )
        );
}
