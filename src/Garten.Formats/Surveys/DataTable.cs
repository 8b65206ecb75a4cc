namespace Garten.Formats.Surveys;

/// <summary>What the cells of a column are.</summary>
public enum ColumnType
{
    /// <summary>A text.</summary>
    Text,

    /// <summary>A number.</summary>
    Number,

    /// <summary>A whole number.</summary>
    Whole,

    /// <summary>A day, YYYY-MM-DD.</summary>
    Day,

    /// <summary>Yes or no.</summary>
    YesNo,
}

/// <summary>A column of a table.</summary>
/// <param name="Name">Its name, one word.</param>
/// <param name="Type">What its cells are.</param>
/// <param name="Description">What it says, with its unit.</param>
public sealed record DataColumn(string Name, ColumnType Type, string Description);

/// <summary>A table of a survey as it leaves the program. A cell is null, a text, a double, an int, a day or a bool.</summary>
/// <param name="Name">Its name, one word.</param>
/// <param name="Title">What it holds.</param>
/// <param name="Columns">Its columns.</param>
/// <param name="Rows">Its rows, a cell a column.</param>
public sealed record DataTable(string Name, string Title, IReadOnlyList<DataColumn> Columns, IReadOnlyList<IReadOnlyList<object?>> Rows);
