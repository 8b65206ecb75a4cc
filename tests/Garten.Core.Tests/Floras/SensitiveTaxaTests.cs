using CsCheck;
using Garten.Core.Floras;
using Xunit;

namespace Garten.Core.Tests.Floras;

/// <summary>Which names keep a place back, and what is told of it instead.</summary>
public sealed class SensitiveTaxaTests
{
    private static readonly FloraGrid Grid = new(57.38294, -11.2832, 2500, 6, 5);

    private static Taxon Of(
        string name,
        bool sensitive = false,
        string parent = "",
        string rank = "species",
        string common = "",
        params string[] synonyms
    ) =>
        new(
            FloraId(name),
            name,
            "",
            rank,
            parent,
            "Alvenaceae",
            common,
            [],
            "",
            TaxonFacts.None with
            {
                IsSensitive = sensitive,
                Synonyms = synonyms,
            }
        );

    private static string FloraId(string name) => name.Replace(' ', '-').ToUpperInvariant();

    private static readonly SensitiveTaxa Torvane = new([
        new Flora(
            "f",
            "F",
            [
                Of("Brontia", rank: "genus"),
                Of("Brontia alta", sensitive: true, parent: FloraId("Brontia"), common: "Tall Bront", synonyms: "Alvena magna"),
                Of("Brontia humilis", parent: FloraId("Brontia")),
                Of("Brontia alta subsp. minor", parent: FloraId("Brontia alta"), rank: "subspecies"),
                Of("Celtra rosea") with
                {
                    Family = "Celtraceae",
                },
            ],
            null,
            Grid
        ),
    ]);

    [Theory]
    [InlineData("Brontia alta", true)]
    [InlineData("brontia alta", true)]
    [InlineData("Brontia alta L.", true)]
    [InlineData("B. alta", true)]
    [InlineData("Tall Bront", true)]
    [InlineData("Alvena magna", true)]
    [InlineData("Brontia", true)]
    [InlineData("Alvenaceae", true)]
    [InlineData("Brontia alta agg.", true)]
    [InlineData("Brontia alta subsp. minor", true)]
    [InlineData("Brontia alta var. longa", true)]
    [InlineData("Brontia humilis", false)]
    [InlineData("Celtra rosea", false)]
    [InlineData("C. alta", false)]
    [InlineData("Celtraceae", false)]
    [InlineData("", false)]
    public void ANameIsSensitiveWhereTheRareOneMayBeMeant(string name, bool held) => Assert.Equal(held, Torvane.Holds(name));

    [Fact]
    public void OneAmongSeveralOpenNamesIsEnough()
    {
        Assert.True(Torvane.HoldsAny(["Celtra rosea", "Brontia alta"]));
        Assert.False(Torvane.HoldsAny(["Celtra rosea", "Brontia humilis"]));
        Assert.False(new SensitiveTaxa([]).HoldsAny(["Brontia alta"]));
    }

    /// <summary>Every position within a cell gives the same answer, and lies within the circle that is told.</summary>
    [Fact]
    public void APositionIsTheMiddleOfItsCell() =>
        Gen.Select(Gen.Int[0, 4], Gen.Int[0, 5], Gen.Double[0.001, 0.999], Gen.Enum<GridNaming>())
            .Sample(
                (row, column, within, naming) =>
                {
                    var grid = Grid with { Naming = naming };
                    const double degree = 111_195.08;
                    var (up, along) = ((row + within) / grid.Rows, (column + 1 - within) / grid.Columns);
                    var south = naming == GridNaming.LettersEastNumbersSouth ? -1 : 1;
                    var (latitude, longitude) = (
                        grid.Latitude + south * up * grid.Rows * grid.CellMetres / degree,
                        grid.Longitude + along * grid.Columns * grid.CellMetres / (degree * Math.Cos(grid.Latitude * Math.PI / 180))
                    );
                    var cell = grid.At(latitude, longitude)!;
                    Assert.Equal(
                        naming == GridNaming.NumbersEastNumbersNorth ? $"{column + 1}-{row + 1}" : $"{(char)('A' + column)}{row + 1}",
                        cell.Name
                    );
                    var away = Math.Sqrt(
                        Math.Pow((cell.Latitude - latitude) * degree, 2)
                            + Math.Pow((cell.Longitude - longitude) * degree * Math.Cos(latitude * Math.PI / 180), 2)
                    );
                    Assert.True(away <= cell.RadiusMetres + 2, $"{away} m from the middle of {cell}");
                }
            );

    [Theory]
    [InlineData(57.3, -11.2)]
    [InlineData(57.4, -11.3)]
    [InlineData(57.4, 11.2)]
    [InlineData(double.NaN, 0)]
    public void OutsideTheGridThereIsNoCell(double latitude, double longitude)
    {
        Assert.Null(Grid.At(latitude, longitude));
        var coarse = Torvane.Coarsen(["Brontia alta"], latitude, longitude);
        Assert.Equal(("", null, null), (coarse.Cell, coarse.Latitude, coarse.Longitude));
        Assert.NotEmpty(coarse.Generalization);
    }

    [Theory]
    [InlineData(81, 0, 1000, 3, 3)]
    [InlineData(0, 181, 1000, 3, 3)]
    [InlineData(0, 0, 99, 3, 3)]
    [InlineData(0, 0, 1000, 703, 3)]
    [InlineData(0, 0, 1000, 3, 0)]
    [InlineData(double.NaN, 0, 1000, 3, 3)]
    public void AGridOfNothingIsToldOf(double latitude, double longitude, double metres, int columns, int rows) =>
        Assert.NotNull(new FloraGrid(latitude, longitude, metres, columns, rows).Problem());

    [Fact]
    public void ColumnsGoOnBehindZ() => Assert.Equal("AB1", new FloraGrid(0, 0, 1000, 100, 3).At(0.001, 27.5 * 1000 / 111_195.08)!.Name);

    /// <summary>Of two floras that keep the name back the one whose grid holds the place tells it.</summary>
    [Fact]
    public void TheGridThatHoldsThePlaceTellsIt()
    {
        var far = new Flora("g", "G", [Of("Brontia alta", sensitive: true)], null, new FloraGrid(10, 10, 5000, 9, 9));
        var near = new Flora("f", "F", [Of("Brontia alta", sensitive: true)], null, Grid);
        Assert.Equal("B2", new SensitiveTaxa([far, near]).Coarsen(["Brontia alta"], 57.4182, -11.2046).Cell);
    }
}
