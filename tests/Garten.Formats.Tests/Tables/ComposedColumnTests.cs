using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Formats.Tables;
using Xunit;

namespace Garten.Formats.Tests.Tables;

/// <summary>Tables whose columns are parts with qualities: they come in as they are.</summary>
public sealed class ComposedColumnTests
{
    private static FloraReading Read(string matrix, string? characters = null, IReadOnlyList<Character>? before = null)
    {
        Sheet Table(string name, string text) => SheetReader.Read(name, System.Text.Encoding.UTF8.GetBytes(text)).Sheet!;
        return FloraTables.Read(
            new FloraSheets(Table("matrix.csv", matrix), characters is null ? null : Table("characters.csv", characters))
            {
                Before = before ?? [],
            },
            ShippedGlossary.Seasons
        );
    }

    [Fact]
    public void ColumnsInABotanistsWordsArePartsWithQualities()
    {
        var read = Read(
            """
            taxon,bundle scars,bud ring,bud colour,bud stickiness,petiole hairs,rachis hairs,petiole glands,petiole groove,leaf tip,leaf attachment,husk splitting,utricle beak length (mm),tepal number,petiole.section,hair form of the leaf
            Arbor alba,3,yes,red-brown,sticky,glabrous,densely hairy,2,no,acuminate,connate,to the base,0.5–1,5,grooved above,stellate hairs
            Arbor nigra,5–7,no,black,not sticky,felted,hairless,0,yes,hooded,sessile,half-way,1–2,6,round,t-shaped
            """
        );
        Assert.DoesNotContain(read.Problems, p => p.Severity == ProblemSeverity.Error);
        Assert.Equal(
            [
                "bud-ring.presence",
                "bud.colour",
                "bud.stickiness",
                "bundle-scar.number",
                "husk.husk-splitting",
                "leaf.apex",
                "leaf.hair-form",
                "leaf.insertion",
                "petiole.hair-density",
                "petiole.section",
                "petiole/gland.number",
                "petiole/groove.presence",
                "rachis.hair-density",
                "tepal.number",
                "utricle-beak.length",
            ],
            read.Table.Characters.Select(c => c.Id).Order(StringComparer.Ordinal)
        );
        Assert.All(read.Table.Descriptions, d => Assert.Equal(15, d.Characters.Count));
    }

    [Fact]
    public void AColumnThatIsUnknownIsOfferedAsPartsWithQualities()
    {
        var beginnings = Read("taxon,bundle sc\nA b,2\n", "id,name,kind\nleaf-length,leaf length,length\n");
        Assert.Contains(
            "bundle-scar.number",
            Assert.Single(beginnings.Problems, p => p.Code == "character.unknown").Offers!.Select(o => o.Heading)
        );
    }

    [Fact]
    public void AQualityThatAPartHasNotUsuallyIsAskedAndTakenWhereItIsMeant()
    {
        var asked = Assert.Single(Read("taxon,seed.arrangement\nA b,opposite\nA c,spiral\n").Problems, p => p.Code == "column.unusual");
        Assert.Equal(ProblemSeverity.Error, asked.Severity);
        Assert.Equal(["seed.arrangement!", ""], asked.Offers!.Select(o => o.Heading));
        var meant = Read("taxon,seed.arrangement!\nA b,opposite\nA c,spiral\n");
        Assert.True(meant.IsSound);
        Assert.Equal("seed.arrangement", Assert.Single(meant.Table.Characters).Id);
        Assert.DoesNotContain(Read("taxon,seed.colour\nA b,red\n").Problems, p => p.Code == "column.unusual");
    }

    /// <summary>"petals" was a character of the flora's own once: brought again it stays that, and what it would be now is
    /// offered.</summary>
    [Fact]
    public void AColumnThatWasAnOwnCharacterBeforeStaysThat()
    {
        const string table = "taxon,petals\nA b,5\nA c,4\n";
        Assert.Equal("petal.number", Assert.Single(Read(table).Table.Characters).Id);
        var own = Read(
            "taxon,petals\nA b,5\nA c,4\n",
            null,
            [ShippedVocabulary.Botany.Compose("petal.number")! with { Id = "petals", Name = "petals" }]
        );
        Assert.Equal("petals", Assert.Single(own.Table.Characters).Id);
        Assert.Equal("petal.number", Assert.Single(own.Problems, p => p.Code == "column.as-before").Offers![0].Heading);
        Assert.True(own.IsSound);
    }

    [Fact]
    public void AnOlderHeadingGoesOnMeaningWhatItDid()
    {
        var read = Read("taxon,leaf-shape,bud-hairs\nA b,ovate,hairy\nA c,linear,bald\n");
        Assert.Equal(["bud-hairs", "leaf-shape"], read.Table.Characters.Select(c => c.Id).Order(StringComparer.Ordinal));
    }

    [Fact]
    public void WordsThatTheQualityHasNotStayStatesOfTheColumnsOwn()
    {
        var read = Read("taxon,petiole hairs\nA b,fluffy\nA c,glabrous\n");
        Assert.Equal("petiole-hairs", Assert.Single(read.Table.Characters).Id);
    }

    [Fact]
    public void APartThatManyHaveIsSaidToBeAssumed()
    {
        var read = Read("taxon,vein number\nA b,5\nA c,7–9\n");
        Assert.Equal("leaf/vein.number", Assert.Single(read.Table.Characters).Id);
        Assert.Contains(read.Problems, p =>
            p.Code == "column.assumed" && p.Message.Contains("veins of the leaf", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void AFloraMayKnowItsOwnReliability()
    {
        var read = Read("taxon,petiole.hair-density\nA b,hairy\nA c,glabrous\n", "id,name,kind,reliability\npetiole.hair-density,,,0.7\n");
        Assert.Equal(0.7, Assert.Single(read.Table.Characters).Reliability);
        Assert.Empty(read.Problems);
    }
}
