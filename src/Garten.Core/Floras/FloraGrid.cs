using System.Globalization;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;

namespace Garten.Core.Floras;

/// <summary>How the cells of a grid are named.</summary>
[JsonConverter(typeof(CamelCaseWords<GridNaming>))]
public enum GridNaming
{
    /// <summary>Letters from west to east (A, B … Z, AA), numbers from south to north: B2.</summary>
    LettersEastNumbersNorth,

    /// <summary>Letters from west to east, numbers from north to south: B2.</summary>
    LettersEastNumbersSouth,

    /// <summary>Two numbers, eastward and then northward: 2-3.</summary>
    NumbersEastNumbersNorth,
}

/// <summary>
/// The grid of a flora: what positions of sensitive taxa are coarsened to. Square cells by the rule of the equirectangular projection at
/// the
/// latitude of the origin: east and west sides are meridians, and a cell of another latitude is as wide in degrees.
/// </summary>
/// <param name="Latitude">Of the origin, the south-west corner (with numbers going south the north-west one): WGS 84 decimal degrees, −80
/// to 80.</param>
/// <param name="Longitude">Of the same corner, −180 to 180.</param>
/// <param name="CellMetres">Side of a cell in metres, 100 to 100,000.</param>
/// <param name="Columns">How many columns it has, 1 to 702 (A to ZZ).</param>
/// <param name="Rows">How many rows it has, 1 to 999.</param>
/// <param name="Naming">How its cells are named.</param>
public sealed partial record FloraGrid(
    double Latitude,
    double Longitude,
    double CellMetres,
    int Columns,
    int Rows,
    GridNaming Naming = GridNaming.LettersEastNumbersNorth
)
{
    // Of a sphere with the mean radius of the earth, 6,371,008.8 m.
    private const double MetresPerDegree = 111_195.08;

    private const int Letters = 26;
    private const int MostColumns = Letters * Letters + Letters;
    private const int MostRows = 999;

    /// <summary>A cell with its middle and the circle that holds it.</summary>
    /// <param name="Name">What it is called.</param>
    /// <param name="Latitude">Of its middle.</param>
    /// <param name="Longitude">Of its middle.</param>
    /// <param name="RadiusMetres">From its middle to its corners, in metres: √½ of its side.</param>
    public sealed record Cell(string Name, double Latitude, double Longitude, double RadiusMetres);

    /// <summary>What is wrong with it, as a sentence; null where it is a grid.</summary>
    public string? Problem() =>
        !(Latitude is >= -80 and <= 80) ? "The grid's latitude is from -80 to 80 decimal degrees."
        : !(Longitude is >= -180 and <= 180) ? "The grid's longitude is from -180 to 180 decimal degrees."
        : !(CellMetres is >= 100 and <= 100_000) ? "A cell is from 100 to 100,000 m wide."
        : Columns is < 1 or > MostColumns ? string.Create(CultureInfo.InvariantCulture, $"A grid has 1 to {MostColumns} columns.")
        : Rows is < 1 or > MostRows ? string.Create(CultureInfo.InvariantCulture, $"A grid has 1 to {MostRows} rows.")
        : !Enum.IsDefined(Naming) ? "This is no way of naming cells."
        : null;

    /// <summary>The cell that holds a position; null where it lies outside the grid.</summary>
    public Cell? At(double latitude, double longitude)
    {
        var (height, width) = Degrees();
        var up = Naming == GridNaming.LettersEastNumbersSouth ? Latitude - latitude : latitude - Latitude;
        var (column, row) = (Math.Floor((longitude - Longitude) / width), Math.Floor(up / height));
        if (!(column >= 0 && column < Columns && row >= 0 && row < Rows))
            return null;
        return Of((int)column, (int)row);
    }

    // Two figures of a hundredth of a cell each way are as fine as receivers are; three are kept for the finest.
    private const int MostFigures = 5;

    /// <summary>The square of a reference: a cell by its name ("B2"), or a piece of it by figures behind ("B2 34": three tenths east and
    /// four tenths north of its south-west corner; "B2 347 712": thousandths). Its corner in the south-west is meant whatever way rows
    /// are numbered.</summary>
    /// <param name="reference">The reference.</param>
    /// <returns>The square with its middle and the circle that holds it, in its usual writing; null where it is none of this
    /// grid.</returns>
    public Cell? Find(string reference)
    {
        ArgumentNullException.ThrowIfNull(reference);
        if (Problem() is not null || Reference().Match(reference.Trim().ToUpperInvariant()) is not { Success: true } read)
            return null;
        var figures = read.Groups["figures"].Value.Replace(" ", "", StringComparison.Ordinal);
        var parts = read.Groups["figures"].Value.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var half = figures.Length / 2;
        if (figures.Length % 2 != 0 || half > MostFigures || parts.Length > 2 || parts.Length == 2 && parts[0].Length != parts[1].Length)
            return null;
        int column;
        if (Naming == GridNaming.NumbersEastNumbersNorth)
        {
            if (!read.Groups["number"].Success)
                return null;
            column = int.Parse(read.Groups["number"].Value, CultureInfo.InvariantCulture) - 1;
        }
        else
        {
            if (!read.Groups["letters"].Success)
                return null;
            column = read.Groups["letters"].Value.Aggregate(0, (sum, c) => sum * Letters + (c - 'A' + 1)) - 1;
        }
        var row = int.Parse(read.Groups["row"].Value, CultureInfo.InvariantCulture) - 1;
        if (column < 0 || column >= Columns || row < 0 || row >= Rows)
            return null;
        if (half == 0)
            return Of(column, row);
        var divided = Math.Pow(10, half);
        var (east, north) = (
            (int.Parse(figures[..half], CultureInfo.InvariantCulture) + 0.5) / divided,
            (int.Parse(figures[half..], CultureInfo.InvariantCulture) + 0.5) / divided
        );
        var (height, width) = Degrees();
        var south = Naming == GridNaming.LettersEastNumbersSouth ? Latitude - (row + 1) * height : Latitude + row * height;
        return new Cell(
            $"{NameOf(column, row)} {figures[..half]} {figures[half..]}",
            Math.Round(south + north * height, FineDigits),
            Math.Round(Longitude + (column + east) * width, FineDigits),
            Math.Max(1, Math.Ceiling(CellMetres / divided * Math.Sqrt(0.5)))
        );
    }

    private const int FineDigits = 6;

    [GeneratedRegex(
        @"^(?:(?<letters>[A-Z]{1,2})|(?<number>\d{1,3})-)(?<row>\d{1,3})(?<figures>(?: \d+){0,2})$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Reference();

    private (double Height, double Width) Degrees() =>
        (CellMetres / MetresPerDegree, CellMetres / (MetresPerDegree * Math.Cos(Latitude * Math.PI / 180)));

    private Cell Of(int column, int row)
    {
        var (height, width) = Degrees();
        var up = (row + 0.5) * height;
        // Five decimals are a metre: the middle of a cell is no finer than that.
        return new Cell(
            NameOf(column, row),
            Math.Round(Naming == GridNaming.LettersEastNumbersSouth ? Latitude - up : Latitude + up, 5),
            Math.Round(Longitude + (column + 0.5) * width, 5),
            Math.Ceiling(CellMetres * Math.Sqrt(0.5))
        );
    }

    private string NameOf(int column, int row)
    {
        if (Naming == GridNaming.NumbersEastNumbersNorth)
            return string.Create(CultureInfo.InvariantCulture, $"{column + 1}-{row + 1}");
        var letters =
            column < Letters ? $"{(char)('A' + column)}" : $"{(char)('A' + column / Letters - 1)}{(char)('A' + column % Letters)}";
        return string.Create(CultureInfo.InvariantCulture, $"{letters}{row + 1}");
    }
}
