using System.IO.Compression;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Garten.Formats.Surveys;

/// <summary>Writes the tables of a survey as a data package (Frictionless Data Package 1, Table Schema 1): <c>datapackage.json</c> with
/// what each column is, a CSV a table, and a dictionary to read.</summary>
public static class SurveyPackage
{
    private static readonly JsonSerializerOptions Indented = new() { WriteIndented = true };

    /// <summary>Writes it.</summary>
    /// <param name="output">Where to; it stays open.</param>
    /// <param name="id">Id of the survey.</param>
    /// <param name="title">Its name.</param>
    /// <param name="description">What it is about.</param>
    /// <param name="made">The day it was made.</param>
    /// <param name="tables">The tables.</param>
    /// <param name="stop">Stops the writing.</param>
    public static async Task WriteAsync(
        Stream output,
        Guid id,
        string title,
        string description,
        DateOnly made,
        IReadOnlyList<DataTable> tables,
        CancellationToken stop
    )
    {
        ArgumentNullException.ThrowIfNull(tables);
        await using var zip = await ZipArchive.CreateAsync(output, ZipArchiveMode.Create, leaveOpen: true, entryNameEncoding: null, stop);
        var package = new JsonObject
        {
            ["profile"] = "tabular-data-package",
            ["name"] = $"survey-{id:N}",
            ["id"] = $"urn:uuid:{id:D}",
            ["title"] = title,
            ["description"] = description,
            ["created"] = $"{CellText.Of(made)}T00:00:00Z",
            ["resources"] = new JsonArray([.. tables.Select(ResourceOf)]),
        };
        await TextAsync(zip, "datapackage.json", package.ToJsonString(Indented), stop);
        await TextAsync(zip, "dictionary.md", Dictionary(title, tables), stop);
        foreach (var table in tables)
        {
            await using var file = await zip.CreateEntry($"{table.Name}.csv", CompressionLevel.Fastest).OpenAsync(stop);
            await using var text = new StreamWriter(file, new UTF8Encoding(encoderShouldEmitUTF8Identifier: false));
            await using var csv = new CsvTable(text);
            foreach (var column in table.Columns)
                csv.Text(column.Name);
            await csv.EndRowAsync();
            foreach (var row in table.Rows)
            {
                for (var i = 0; i < row.Count; i++)
                {
                    if (row[i] is double number)
                        csv.Number(number);
                    else if (row[i] is int whole)
                        csv.Whole(whole);
                    else
                        csv.Text(CellText.Of(row[i]));
                }
                await csv.EndRowAsync();
            }
        }
    }

    private static JsonNode ResourceOf(DataTable table) =>
        new JsonObject
        {
            ["profile"] = "tabular-data-resource",
            ["name"] = table.Name.Replace('_', '-'),
            ["path"] = $"{table.Name}.csv",
            ["title"] = table.Title,
            ["format"] = "csv",
            ["mediatype"] = "text/csv",
            ["encoding"] = "utf-8",
            ["schema"] = new JsonObject
            {
                ["fields"] = new JsonArray([
                    .. table.Columns.Select(c =>
                        (JsonNode)
                            new JsonObject
                            {
                                ["name"] = c.Name,
                                ["type"] = TypeOf(c.Type),
                                ["description"] = c.Description,
                            }
                    ),
                ]),
                ["missingValues"] = new JsonArray(""),
            },
        };

    private static string TypeOf(ColumnType type) =>
        type switch
        {
            ColumnType.Number => "number",
            ColumnType.Whole => "integer",
            ColumnType.Day => "date",
            ColumnType.YesNo => "boolean",
            _ => "string",
        };

    private static string Dictionary(string title, IReadOnlyList<DataTable> tables)
    {
        var text = new StringBuilder($"# {title}: what the columns are\n");
        foreach (var table in tables)
        {
            text.Append($"\n## {table.Name}.csv\n\n{table.Title}\n\n| column | type | what it is |\n|---|---|---|\n");
            foreach (var column in table.Columns)
                text.Append(
                    $"| {column.Name} | {TypeOf(column.Type)} | {column.Description.Replace("|", "\\|", StringComparison.Ordinal)} |\n"
                );
        }
        return text.ToString();
    }

    private static async Task TextAsync(ZipArchive zip, string name, string text, CancellationToken stop)
    {
        await using var file = await zip.CreateEntry(name, CompressionLevel.Fastest).OpenAsync(stop);
        await file.WriteAsync(Encoding.UTF8.GetBytes(text), stop);
    }
}
