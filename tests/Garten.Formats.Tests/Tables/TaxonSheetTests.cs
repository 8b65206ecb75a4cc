using Garten.Core.Floras;
using Xunit;

namespace Garten.Formats.Tests.Tables;

/// <summary>The table of taxa.</summary>
public sealed class TaxonSheetTests
{
    private static (Taxon Taxon, IReadOnlyList<FloraProblem> Problems) One(string columns, string cells, string name = "Alvena montis")
    {
        var reading = FloraTablesTests.Read(
            $"taxon,colour\n{name},red\n",
            null,
            $"name,{columns}\n{name},{cells}\nAlvena palus{new string(',', columns.Count(c => c == ',') + 1)}\n"
        );
        return (reading.Taxa.Single(t => t.Name == name), reading.Problems);
    }

    [Theory]
    [InlineData("Alvenaceae", "family")]
    [InlineData("Alvena", "genus")]
    [InlineData("Alvena montis", "species")]
    [InlineData("Alvena montis subsp. alta", "subspecies")]
    [InlineData("Alvena montis var. alta", "variety")]
    [InlineData("Alvena montis 'Silver'", "cultivar")]
    [InlineData("Alvena × media", "hybrid")]
    [InlineData("Alvena montis agg.", "aggregate")]
    public void TheRankIsToldByTheName(string name, string rank) => Assert.Equal(rank, One("family", "", name).Taxon.Rank);

    [Fact]
    public void ARankThatIsGivenCounts() => Assert.Equal("microspecies", One("rank", "Microspecies").Taxon.Rank);

    [Theory]
    [InlineData("0–300", 0, 300)]
    [InlineData("0-300 m", 0, 300)]
    [InlineData("120", 120, 120)]
    [InlineData("", null, null)]
    public void Elevation(string cell, int? from, int? to)
    {
        var (taxon, problems) = One("elevation", cell);
        Assert.Equal((from, to), (taxon.Facts!.ElevationFrom, taxon.Facts.ElevationTo));
        Assert.Empty(problems);
    }

    [Theory]
    [InlineData("300–0")]
    [InlineData("high")]
    [InlineData("1–2–3")]
    public void AnElevationThatIsNoneIsSaid(string cell)
    {
        var (taxon, problems) = One("elevation", cell);
        Assert.Null(taxon.Facts!.ElevationFrom);
        Assert.Equal(("number.invalid", 2, "elevation"), Assert.Single(problems) is var p ? (p.Code, p.Row, p.Column) : default);
    }

    [Theory]
    [InlineData("flower apr–jun", "Flower 7-12")]
    [InlineData("flower apr2–may1", "Flower 8-9")]
    [InlineData("flower May", "Flower 9-10")]
    [InlineData("flower april–june", "Flower 7-12")]
    [InlineData("flower Sept2–dec", "Flower 18-24")]
    [InlineData("bare-twig nov–mar", "BareTwig 21-6")]
    [InlineData("flower apr-jun | ripe-fruit sep–nov1", "Flower 7-12 RipeFruit 17-21")]
    public void Phenology(string cell, string expected)
    {
        var (taxon, problems) = One("phenology", cell);
        Assert.Empty(problems);
        Assert.Equal(expected, string.Join(' ', taxon.Facts!.Phenology.Select(s => $"{s.Phase} {s.From}-{s.To}")));
    }

    [Theory]
    [InlineData("flower")]
    [InlineData("apr–jun")]
    [InlineData("snow apr–jun")]
    [InlineData("flower apr–jun–aug")]
    [InlineData("flower apr3")]
    [InlineData("flower ap–jun")]
    [InlineData("flower aprilish")]
    [InlineData("flower 4–6")]
    public void APhenologyThatIsNoneIsSaid(string cell)
    {
        var (taxon, problems) = One("phenology", cell);
        Assert.Empty(taxon.Facts!.Phenology);
        Assert.Equal("phenology.invalid", Assert.Single(problems).Code);
    }

    [Fact]
    public void Cautions()
    {
        Assert.Equal([Caution.Poisonous, Caution.Protected], One("cautions", "poisonous | Protected").Taxon.Cautions);
        var (taxon, problems) = One("cautions", "poisonous | tasty | 1");
        Assert.Equal([Caution.Poisonous], taxon.Cautions);
        Assert.Equal(2, problems.Count(p => p.Code == "word.unknown"));
    }

    [Theory]
    [InlineData("native", Origin.Native, 0)]
    [InlineData("Introduced", Origin.Introduced, 0)]
    [InlineData("", Origin.Unsaid, 0)]
    [InlineData("alien", Origin.Unsaid, 1)]
    [InlineData("2", Origin.Unsaid, 1)]
    public void Status(string cell, Origin origin, int problems)
    {
        var (taxon, found) = One("status", cell);
        Assert.Equal((origin, problems), (taxon.Facts!.Origin, found.Count));
    }

    [Fact]
    public void TaxaNameOthersAndAreRefusedWhereThoseAreNotThere()
    {
        Assert.Equal(["alvena-palus"], One("look_alikes", "alvena PALUS").Taxon.Facts!.LookAlikes);
        foreach (var column in new[] { "look_alikes", "parents", "members" })
        {
            var problem = Assert.Single(One(column, "Zedia prima").Problems);
            Assert.Equal(("taxon.unknown", ProblemSeverity.Error, column), (problem.Code, problem.Severity, problem.Column));
        }
    }

    [Fact]
    public void ASpeciesBelongsToItsGenusWhereThatIsThere()
    {
        var reading = FloraTablesTests.Read(
            "taxon,colour\nAlvena montis,red\n",
            null,
            "name,parent\nAlvena,\nAlvena montis,\nBrontia alta,\n"
        );
        Assert.Equal([("Alvena", ""), ("Alvena montis", "alvena"), ("Brontia alta", "")], reading.Taxa.Select(t => (t.Name, t.Parent)));
    }

    [Fact]
    public void NamesThatMakeTheSameIdAreToldApart()
    {
        var reading = FloraTablesTests.Read("taxon,colour\nAlvena × media,red\nAlvena x media,white\n×,blue\n");
        Assert.Equal(["alvena-x-media", "alvena-x-media-2", "x"], reading.Taxa.Select(t => t.Id).Order(StringComparer.Ordinal));
    }

    [Fact]
    public void EverythingElseIsKeptAsItStands()
    {
        var (taxon, problems) = One(
            "authorship,family,common_names,synonyms,meaning,growth_form,establishment,sensitive,habitats,cells,caution_note,key_marks",
            "Hask.,Alvenaceae,hill alvena|grey alvena,Alvena alpina,of the hills,Shrub,established,yes,hedge|scree,B2|B3,Its sap blisters.,grey beneath"
        );
        Assert.Empty(problems);
        Assert.Equal(
            ("Hask.", "Alvenaceae", "hill alvena", "Its sap blisters."),
            (taxon.Authorship, taxon.Family, taxon.CommonName, taxon.CautionNote)
        );
        var facts = taxon.Facts!;
        Assert.Equal(["hill alvena", "grey alvena"], facts.CommonNames);
        Assert.Equal(["Alvena alpina"], facts.Synonyms);
        Assert.Equal(
            ("of the hills", "shrub", "established", true),
            (facts.Meaning, facts.GrowthForm, facts.Establishment, facts.IsSensitive)
        );
        Assert.Equal(["hedge", "scree"], facts.Habitats);
        Assert.Equal(["B2", "B3"], facts.Cells);
        Assert.Equal(["grey beneath"], facts.KeyMarks);
    }

    [Fact]
    public void OfAMatrixAloneItsOwnColumnsSayWhatTheTaxaAre()
    {
        var reading = FloraTablesTests.Read(
            "species,Family,Common name,habitat,status,colour\nAlvena montis,Alvenaceae,hill alvena,hedge,native,red\n"
        );
        var taxon = Assert.Single(reading.Taxa);
        Assert.Equal(("Alvenaceae", "hill alvena", Origin.Native), (taxon.Family, taxon.CommonName, taxon.Facts!.Origin));
        Assert.Equal(["hedge"], taxon.Facts.Habitats);
        Assert.Equal(["colour"], reading.Table.Characters.Select(c => c.Id));
    }

    [Fact]
    public void ATableOfTaxaWithoutNamesIsRefused() =>
        Assert.Contains(FloraTablesTests.Read("taxon,colour\nA b,red\n", null, "label,family\nA b,C\n").Problems, p =>
            p.Code == "column.missing" && p.Column == "name"
        );
}
