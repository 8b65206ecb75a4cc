using System.Text;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Formats.Tables;
using Xunit;

namespace Garten.Formats.Tests;

/// <summary>The table that is offered to be filled in is read as it is meant.</summary>
public sealed class FloraTemplateTests
{
    private static (FloraReading Reading, IReadOnlyList<FloraColumn> Columns) Read(byte[] matrix) =>
        FloraImporter.ReadWithColumns(
            new Dictionary<string, (string, byte[])> { ["matrix"] = ("matrix", matrix) },
            ShippedGlossary.Seasons
        );

    [Fact]
    public void FilledInAsCsvEveryColumnIsOneOfTheShippedCharacters()
    {
        var header = Encoding.UTF8.GetString(FloraTemplate.Csv()).TrimEnd().Split(',');
        var cells = header.Select(h =>
            h switch
            {
                "taxon" => "Alvena montis",
                "leaf-arrangement" => "opposite",
                "leaf-length" => "(4–)6–12 cm",
                _ => "",
            }
        );
        var (reading, columns) = Read(Encoding.UTF8.GetBytes(string.Join(',', header) + "\n" + string.Join(',', cells)));
        Assert.DoesNotContain(reading.Problems, p => p.Severity == ProblemSeverity.Error);
        Assert.Equal(ShippedGlossary.Characters.Count + 1, header.Length);
        Assert.Equal(ShippedGlossary.Characters.Select(c => c.Id), columns.Select(c => c.Heading).Where(h => h != "taxon"));
        var described = Assert.Single(reading.Table.Descriptions).Characters;
        Assert.Equal(["leaf-arrangement", "leaf-length"], described.Select(c => c.Character));
        Assert.Equal("opposite", Assert.Single(described[0].States).State);
        Assert.Equal((60d, 120d, 40d), (described[1].Range!.Low, described[1].Range!.High, described[1].Range!.LowExtreme!.Value));
    }

    [Fact]
    public void TheWorkbookHasTheSameHeadings()
    {
        var sheet = SheetReader.Read("a.xlsx", FloraTemplate.Xlsx(), TestContext.Current.CancellationToken).Sheet!;
        Assert.Equal(Encoding.UTF8.GetString(FloraTemplate.Csv()).TrimEnd().Split(','), sheet.Header);
        Assert.Empty(sheet.Rows);
    }

    [Fact]
    public void WhatMayStandInAColumnIsSaid()
    {
        var arrangement = ShippedGlossary.Characters.Single(c => c.Id == "leaf-arrangement");
        Assert.StartsWith("opposite | ", FloraTemplate.WhatMayStand(arrangement), StringComparison.Ordinal);
        Assert.Contains(ShippedGlossary.Characters, c =>
            FloraTemplate.WhatMayStand(c).StartsWith("(4–)6–12(–15) ", StringComparison.Ordinal)
        );
    }
}
