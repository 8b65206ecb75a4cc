using CsCheck;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Xunit;

namespace Garten.Core.Tests.Keys;

public sealed class KeyWalkTests
{
    private const string Text = """
        Key to the woody plants
        1. Evergreen ........ Umbrissa coriacea
        1. Deciduous ........ 2
        2. Leaves opposite ........ Key to Vellorna
        2. Leaves alternate ........ 3
        3. Thorns present ........ Tharsina spinosa
        3. Thorns absent ........ 4
        4. Fruit red ........ Carpessa rubra
        4. Fruit black ........ Key to the lost ones

        Key to Vellorna
        1. Twigs winged ........ Vellorna alata
        1. Twigs round ........ 2
        2. Leaf grey ........ Vellorna cinerea
        2. Leaf green ........ Vellorna torvanica
        """;

    private static readonly KeyVersion[] Versions = [.. KeyTextReader.Read(Text).Keys.Select(k => new KeyVersion(KeyHash.Of(k), k))];
    private static readonly string Start = Versions[0].Hash;
    private static readonly string Sub = Versions[1].Hash;
    private static readonly KeyShelf Shelf = new(
        Versions,
        [new Taxon("vellorna-alata", "Vellorna alata", "", "species", "", "", "", [Caution.Protected], "")]
    );

    private static WalkState Walk(params TrailAnswer[] answers) => KeyWalk.Follow(Shelf, Start, answers);

    private static TrailAnswer At(string couplet, int? lead) => new(Start, couplet, lead);

    private static string[] Names(WalkState walk) => [.. walk.Standing.Select(s => s.Name)];

    [Fact]
    public void BeforeTheFirstAnswerEverythingStandsAlsoBehindOtherKeys()
    {
        var walk = Walk();
        Assert.Equal(
            [
                "Umbrissa coriacea",
                "Vellorna alata",
                "Vellorna cinerea",
                "Vellorna torvanica",
                "Tharsina spinosa",
                "Carpessa rubra",
                "Key to the lost ones",
            ],
            Names(walk)
        );
        Assert.Equal(
            ("1", 1, 4, 1, 4),
            (walk.Open[0].Couplet.Label, walk.Open[0].Place, walk.Open[0].CoupletsInKey, walk.Open[0].FewestToEnd, walk.Open[0].MostToEnd)
        );
        Assert.All(walk.Standing, s => Assert.False(s.Reached));
        Assert.Equal("vellorna-alata", walk.Standing[1].TaxonId);
    }

    [Fact]
    public void TheTrailGoesOnInTheNextKeyAtAHandOver()
    {
        var walk = Walk(At("1", 1), At("2", 0));
        var open = Assert.Single(walk.Open);
        Assert.Equal(("Key to Vellorna", "1", true), (open.KeyTitle, open.Couplet.Label, open.EntersKey));
        Assert.Equal(
            [
                ["Vellorna alata"],
                ["Vellorna cinerea", "Vellorna torvanica"],
            ],
            open.Taxa.Select(t => t.Select(s => s.Name))
        );
        var end = Walk(At("1", 1), At("2", 0), new TrailAnswer(Sub, "1", 0));
        Assert.True(end.IsFinished);
        Assert.Equal(["Vellorna alata"], Names(end));
        Assert.Equal([true, false, true], end.Steps.Select(s => s.EntersKey));
    }

    [Fact]
    public void CantTellKeepsEveryLeadOpenAndTheirUnionStands()
    {
        var walk = Walk(At("1", 1), At("2", null));
        Assert.Equal(["1", "3"], walk.Open.Select(o => o.Couplet.Label));
        Assert.Equal(["2a", "2b"], walk.Open.Select(o => o.Branch));
        Assert.Equal(
            ["Vellorna alata", "Vellorna cinerea", "Vellorna torvanica", "Tharsina spinosa", "Carpessa rubra", "Key to the lost ones"],
            Names(walk)
        );
        // Each open path goes on by itself.
        var further = Walk(At("1", 1), At("2", null), At("3", 0), new TrailAnswer(Sub, "1", 0));
        Assert.True(further.IsFinished);
        Assert.Equal(["Vellorna alata", "Tharsina spinosa"], Names(further));
        Assert.Equal([0, 0, 1, 1], further.Steps.Select(s => s.Forks));
    }

    [Fact]
    public void AnEarlierAnswerCanBeChangedAndChangedBack()
    {
        TrailAnswer[] answers = [At("1", 1), At("2", 1), At("3", 1), At("4", 0)];
        Assert.Equal(["Carpessa rubra"], Names(Walk(answers)));
        var changed = Walk([.. answers, At("2", 0)]);
        Assert.Equal("1", Assert.Single(changed.Open).Couplet.Label);
        Assert.Equal(["3", "4"], changed.Dormant.Select(d => d.Couplet));
        Assert.Equal(["Carpessa rubra"], Names(Walk([.. answers, At("2", 0), At("2", 1)])));
    }

    [Fact]
    public void AKeyThatIsntThereEndsTheTrailWithThatGroup()
    {
        var walk = Walk(At("1", 1), At("2", 1), At("3", 1), At("4", 1));
        Assert.True(walk.IsFinished);
        Assert.Null(Assert.Single(walk.Standing).Taxon);
    }

    [Fact]
    public void ATrailStaysWithTheVersionItHasFollowed()
    {
        var newer = KeyTextReader.Read("Key to Vellorna\n1. Bark white ... Vellorna nivea\n1. Bark dark ... Vellorna atra\n").Keys[0];
        var shelf = new KeyShelf([new KeyVersion(KeyHash.Of(newer), newer), .. Versions]);
        Assert.Equal(newer, shelf.Find(KeyWalk.Follow(shelf, Start, [At("1", 1), At("2", 0)]).Open[0].KeyVersion)!.Key);
        var onTheOld = KeyWalk.Follow(shelf, Start, [At("1", 1), At("2", 0), new TrailAnswer(Sub, "1", 1)]);
        Assert.Equal(Sub, onTheOld.Open[0].KeyVersion);
        Assert.Null(TrailCheck.Check(shelf, Start, [At("1", 1), At("2", 0), new TrailAnswer(Sub, "1", 1)]));
    }

    [Fact]
    public void TheOrderOfAnswersDoesNotMatter()
    {
        var answers = Gen.Shuffle(new[] { At("1", 1), At("2", null), At("3", 1), At("4", null), new TrailAnswer(Sub, "1", 1) });
        var expected = Names(Walk(At("1", 1), At("2", null), At("3", 1), At("4", null), new TrailAnswer(Sub, "1", 1)));
        answers.Sample(shuffled => Assert.Equal(expected, Names(Walk([.. shuffled]))), iter: 60);
    }

    [Theory]
    [InlineData("9", 0, "trail.couplet")]
    [InlineData("1", 2, "trail.lead")]
    [InlineData("1", -1, "trail.lead")]
    [InlineData("3", 0, "trail.off")]
    public void ATrailThatDoesntFitIsFound(string couplet, int lead, string code)
    {
        Assert.Equal(code, TrailCheck.Check(Shelf, Start, [At(couplet, lead)])!.Code);
    }

    [Fact]
    public void ATrailWithAnUnknownVersionOrACoupletTwiceIsFound()
    {
        Assert.Equal("trail.version", TrailCheck.Check(Shelf, new string('0', 64), [])!.Code);
        Assert.Equal("trail.version", TrailCheck.Check(Shelf, Start, [new TrailAnswer("unknown", "1", 0)])!.Code);
        var twice = TrailCheck.Check(Shelf, Start, [At("1", 0), At("1", 1)])!;
        Assert.Equal(("trail.twice", 1), (twice.Code, twice.Step));
    }

    [Fact]
    public void AnOpenSetIsNamedByTheGenusThatItShares()
    {
        Assert.Equal("Vellorna", Conclusion.SharedName(["Vellorna alata", "Vellorna cinerea"]));
        Assert.Equal("", Conclusion.SharedName(["Vellorna alata", "Carpessa rubra"]));
        Assert.Equal("", Conclusion.SharedName(["V. alata", "V. cinerea"]));
        Assert.Equal("A b, C d or E f", Conclusion.InWords(["A b", "C d", "E f"]));
    }
}
