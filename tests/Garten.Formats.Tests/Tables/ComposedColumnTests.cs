using Garten.Core.Floras;
using Garten.Formats.Tables;
using Xunit;

namespace Garten.Formats.Tests.Tables;

/// <summary>Tables whose columns are parts with qualities: they come in as they are.</summary>
public sealed class ComposedColumnTests
{
    private static FloraReading Read(string matrix, string? characters = null)
    {
        Sheet Table(string name, string text) => SheetReader.Read(name, System.Text.Encoding.UTF8.GetBytes(text)).Sheet!;
        return FloraTables.Read(
            new FloraSheets(Table("matrix.csv", matrix), characters is null ? null : Table("characters.csv", characters)),
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

    [Fact]
    public void AnUnknownColumnIsOfferedAsPartAndQuality()
    {
        var read = Read("taxon,bundle sc\nA b,3\nA c,5\n", "id,name,kind\nleaf-shape,leaf shape,categorical\n");
        Assert.Contains(read.Problems, p =>
            p.Code == "character.unknown" && p.Message.Contains("bundle-scar.number", StringComparison.Ordinal)
        );
    }
}
