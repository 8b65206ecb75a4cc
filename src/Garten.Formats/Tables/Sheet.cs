using Garten.Core.Floras;

namespace Garten.Formats.Tables;

/// <summary>A table as it was read: a header and rows of text.</summary>
/// <param name="Name">What it is called in messages.</param>
/// <param name="Header">The headings, trimmed; empty ones are kept in their place.</param>
/// <param name="Rows">The rows that aren't empty.</param>
public sealed record Sheet(string Name, IReadOnlyList<string> Header, IReadOnlyList<SheetRow> Rows)
{
    /// <summary>Place of a column by any of its names, from 0; -1 where there is none. Case, spaces, hyphens and underscores don't
    /// matter.</summary>
    public int Column(params ReadOnlySpan<string> names)
    {
        foreach (var name in names)
        {
            for (var i = 0; i < Header.Count; i++)
            {
                if (Plain(Header[i]) == Plain(name))
                    return i;
            }
        }
        return -1;
    }

    /// <summary>A heading without case, spaces, hyphens and underscores.</summary>
    public static string Plain(string heading) =>
        string.Concat((heading ?? "").Where(c => !char.IsWhiteSpace(c) && c is not ('_' or '-' or '.'))).ToLowerInvariant();
}

/// <summary>A row of a sheet.</summary>
/// <param name="Number">Its number in the table, the header being 1.</param>
/// <param name="Cells">Its cells, trimmed; rows may be shorter than the header.</param>
public sealed record SheetRow(int Number, IReadOnlyList<string> Cells)
{
    /// <summary>The cell at a place; empty where the row is shorter or the place is -1.</summary>
    public string Cell(int column) => column >= 0 && column < Cells.Count ? Cells[column] : "";
}

/// <summary>What came of reading a table.</summary>
/// <param name="Sheet">The table; null where nothing could be read.</param>
/// <param name="Problems">What is wrong.</param>
public sealed record SheetReading(Sheet? Sheet, IReadOnlyList<FloraProblem> Problems);

/// <summary>How much of a table is read, so that memory stays bounded.</summary>
public static class SheetLimits
{
    /// <summary>Rows of data.</summary>
    public const int MostRows = 20_000;

    /// <summary>Columns.</summary>
    public const int MostColumns = 2_000;

    /// <summary>Cells in all.</summary>
    public const int MostCells = 4_000_000;

    /// <summary>Characters in a cell.</summary>
    public const int LongestCell = 20_000;

    /// <summary>Characters of the sheet, or of the texts, of a workbook once it is unpacked: what a small file may swell to.</summary>
    public const int LongestPart = 120_000_000;

    /// <summary>The same of every other part of a workbook.</summary>
    public const int LongestSmallPart = 2_000_000;

    /// <summary>Parts of a workbook.</summary>
    public const int MostParts = 1_000;

    /// <summary>Attributes of an element of a workbook; a work sheet's own has some twenty.</summary>
    public const int MostAttributes = 200;

    /// <summary>Characters of all different texts of a table together.</summary>
    public const int MostText = 20_000_000;

    /// <summary>How many different texts a table may have.</summary>
    public const int MostTexts = 600_000;
}
