using System.IO.Compression;
using System.Text;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;
using Garten.Formats.Tables;
using Xunit;

namespace Garten.Formats.Tests.Tables;

/// <summary>Tables of a flora as they come: sound ones, plain trait tables from elsewhere, and everything that is wrong with them at its
/// place.</summary>
public sealed class FloraTablesTests
{
    private const string Characters =
        "id,name,kind,unit,states\nleaf-shape,leaf shape,categorical,,ov=ovate|el=elliptic|la=lanceolate\nleaf-length,leaf length,length,cm,\npetals,petals,count,,\n";

    internal static FloraReading Read(string matrix, string? characters = null, string? taxa = null, DashMeaning dash = DashMeaning.Unsaid)
    {
        var files = new Dictionary<string, (string, byte[])>(StringComparer.Ordinal)
        {
            ["matrix"] = ("matrix.csv", Encoding.UTF8.GetBytes(matrix)),
        };
        if (characters is not null)
            files["characters"] = ("characters.csv", Encoding.UTF8.GetBytes(characters));
        if (taxa is not null)
            files["taxa"] = ("taxa.csv", Encoding.UTF8.GetBytes(taxa));
        return FloraImporter.Read(files, [], stop: TestContext.Current.CancellationToken, dash: dash);
    }

    private static CharacterDescription Cell(FloraReading reading, string character) =>
        reading.Table.Descriptions.Single().Characters.Single(c => c.Character == character);

    [Fact]
    public void CellsHoldStatesWithFrequenciesMisreadingsAndRanges()
    {
        var reading = Read(
            "taxon,leaf-shape,Leaf Length,petals\nVellorna alba,ovate | usually elliptic | !lanceolate,(4–)6–9(–13),5\n",
            Characters
        );
        Assert.Empty(reading.Problems);
        var shape = Cell(reading, "leaf-shape");
        // Usually 0.85; the unmarked one has at least "often", 0.6: 0.6 and 0.85 of 1.45.
        Assert.Equal(0.6 / 1.45, shape.States.Single(s => s.State == "ov").Share, 9);
        Assert.Equal(["la"], shape.Misread!);
        var length = Cell(reading, "leaf-length").Range!;
        Assert.Equal((40, 60, 90, 130), (length.LowExtreme, length.Low, length.High, length.HighExtreme));
        Assert.Equal(RangeForm.Exactly, Cell(reading, "petals").Range!.Form);
    }

    [Fact]
    public void IndicatorValuesAreReadAndWhatLiesBeyondTheirScaleIsLeftOut()
    {
        var reading = Read(
            "taxon,leaf-shape\nVellorna alba,ovate\nBalsora gigantea,ovate\n",
            Characters,
            "name,light_value,moisture,reaction_value,nutrients_value,conservatism\nVellorna alba,7,12,x,4.5,0\nBalsora gigantea,,13,,,\n"
        );
        Assert.Equal(
            new SiteIndication(Light: 7, Moisture: 12, Nutrients: 4.5, Conservatism: 0),
            reading.Taxa.Single(t => t.Name == "Vellorna alba").Facts!.Indication
        );
        Assert.Null(reading.Taxa.Single(t => t.Name == "Balsora gigantea").Facts!.Indication);
        var problem = Assert.Single(reading.Problems);
        Assert.Equal((ProblemSeverity.Warning, 3, "moisture"), (problem.Severity, problem.Row, problem.Column));
        Assert.Contains("1 to 12", problem.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("?")]
    [InlineData("NA")]
    [InlineData("")]
    public void WhatIsUnknownIsLeftOut(string cell) =>
        Assert.Single(Read($"taxon,leaf-shape,petals\nVellorna alba,{cell},5\n", Characters).Table.Descriptions.Single().Characters);

    [Theory]
    [InlineData("-")]
    [InlineData("n/a")]
    public void WhatDoesNotApplyIsKept(string cell) =>
        Assert.False(
            Cell(
                Read($"taxon,leaf-shape,petals\nVellorna alba,{cell},5\n", Characters, dash: DashMeaning.Inapplicable),
                "leaf-shape"
            ).Applies
        );

    /// <summary>A dash means different things in different tables: it is asked once, and counts as nothing until then.</summary>
    [Fact]
    public void ADashIsAskedAboutOnce()
    {
        const string matrix = "taxon,leaf-shape,petals\nVellorna alba,ovate,–\nVellorna nigra,-,-\nVellorna rubra,ovate,5\n";
        var asked = Read(matrix, Characters);
        var problem = Assert.Single(asked.Problems, p => p.Code == "cell.dash");
        Assert.Equal((2, "petals"), (problem.Row, problem.Column));
        Assert.Contains("in 3 cells", problem.Message, StringComparison.Ordinal);
        Assert.DoesNotContain(asked.Table.Descriptions.Single(d => d.Taxon == "vellorna-alba").Characters, c => c.Character == "petals");
        // Absent: there are none of them, which a count says.
        var absent = Read(matrix, Characters, dash: DashMeaning.Absent);
        Assert.DoesNotContain(absent.Problems, p => p.Code == "cell.dash");
        Assert.Equal(
            0,
            absent.Table.Descriptions.Single(d => d.Taxon == "vellorna-alba").Characters.Single(c => c.Character == "petals").Range!.High
        );
        Assert.DoesNotContain(Read(matrix, Characters, dash: DashMeaning.NotRecorded).Problems, p => p.Code == "cell.dash");
    }

    [Theory]
    [InlineData("ovate/round")]
    [InlineData("round;ovate")]
    [InlineData("ovate & round")]
    [InlineData("ovate or round")]
    [InlineData("usually ovate / round")]
    public void StatesBesideOneAnotherAreSeveralWhereEachStandsAloneSomewhere(string cell)
    {
        var reading = Read($"taxon,leaf shape\nVellorna alba,\"{cell}\"\nVellorna nigra,ovate\nVellorna rubra,round\n");
        Assert.Empty(reading.Problems);
        Assert.Equal(2, Assert.Single(reading.Table.Characters).States.Count);
        Assert.Equal(2, reading.Table.Descriptions.Single(d => d.Taxon == "vellorna-alba").Characters.Single().States.Count);
    }

    [Theory]
    [InlineData("linear & round")]
    [InlineData("red and white")]
    [InlineData("ovate/cordate")]
    public void WhatMayBeOneStateOrTwoIsSaid(string cell)
    {
        var reading = Read($"taxon,leaf shape\nVellorna alba,{cell}\nVellorna nigra,ovate\nVellorna rubra,round\n");
        var problem = Assert.Single(reading.Problems);
        Assert.Equal(("cell.several", 2), (problem.Code, problem.Row));
    }

    /// <summary>Genera, common names and codes are taxa like any other; a row that brings nothing to name is said to.</summary>
    [Theory]
    [InlineData("Vellorna", "Ondrelia", "Robrisca")]
    [InlineData("sycamore", "Ash", "silver birch")]
    [InlineData("QURO", "SP02", "x17")]
    [InlineData("Vellornaceae", "Vellorna alba", "Ondrelia")]
    public void ADescribedTaxonIsOnTheListWhateverItsRank(string first, string second, string third)
    {
        var reading = Read($"taxon,leaf shape,petals\n{first},ovate,5\n{second},round,4\n{third},ovate,4\nMissing one,,\n");
        Assert.Equal(3, CharacterTable.Complete(reading.Table.Descriptions, reading.Taxa).Count);
        Assert.Equal((5, "row.empty"), (Assert.Single(reading.Problems).Row, reading.Problems[0].Code));
    }

    [Fact]
    public void AGenusAboveDescribedSpeciesIsNoNameOfItsOwnAndThatIsSaid()
    {
        var reading = Read("taxon,leaf shape\nVellorna,ovate\nVellorna alba,round\nOndrelia,round\n");
        Assert.Equal(
            ["ondrelia", "vellorna-alba"],
            CharacterTable.Complete(reading.Table.Descriptions, reading.Taxa).Select(d => d.Taxon).Order()
        );
        Assert.Equal((2, "row.above"), (Assert.Single(reading.Problems).Row, reading.Problems[0].Code));
    }

    [Fact]
    public void APlainTraitTableNeedsNoTableOfCharacters()
    {
        var reading = Read(
            "Species;Family;Plant height (cm);leaf_length_cm;Leaf shape;petals;Seed mass (mg);notes\nAlvena montis;Alvenaceae;35,5;4–7;ovate;5;0,8;\nAlvena palus;Alvenaceae;60;NA;ovate|elliptic;4.5;1,1;\n"
        );
        Assert.True(reading.IsSound);
        var kinds = reading.Table.Characters.ToDictionary(c => c.Name, c => (c.Kind, c.Unit));
        Assert.Equal((CharacterKind.Length, "cm"), kinds["Plant height"]);
        Assert.Equal((CharacterKind.Length, "cm"), kinds["leaf length"]);
        Assert.Equal((CharacterKind.Ratio, "mg"), kinds["Seed mass"]);
        Assert.Equal(["elliptic", "ovate"], reading.Table.Characters.Single(c => c.Name == "Leaf shape").States.Select(s => s.Name));
        Assert.Equal("Alvenaceae", reading.Taxa[0].Family);
        // A bare mean: a quarter to either side. 35.5 cm = 355 mm.
        var height = reading.Table.Descriptions[0].Characters.Single(c => c.Character == "plant.height").Range!;
        Assert.Equal((355 * 0.75, 355 * 1.25), (height.Low, height.High));
        Assert.Contains(reading.Problems, p => p.Code == "column.empty" && p.Column == "notes");
    }

    [Theory]
    [InlineData("taxon,leaf-shape\nA b,ovate\nA b,ovate\n", null, "taxon.twice", 3)]
    [InlineData("taxon,tail\nA b,long\n", null, "character.unknown", 1)]
    [InlineData("taxon,leaf-shape,leaf shape\nA b,ovate,ovate\n", null, "column.twice", 1)]
    [InlineData("taxon,leaf-shape\nA b,ovate\n", "name,parent\nA b,Zed\n", "taxon.parent", 2)]
    [InlineData("taxon,leaf-shape\nA b,ovate\n", "name,parent\nA b,C\nC,A b\n", "taxon.circle", 2)]
    [InlineData("taxon,leaf-shape\nA b,ovate\n", "name\nA b\nA b\n", "taxon.twice", 3)]
    [InlineData("taxon,leaf-shape\nA b,ovate\n", "name\nC d\n", "taxon.unknown", 2)]
    [InlineData("taxon\nA b\n", null, "matrix.columns", 1)]
    [InlineData("taxon,leaf-shape\n,ovate\n", null, "taxon.missing", 2)]
    [InlineData("taxon,leaf-shape\nA b,?\n", null, "matrix.empty", 0)]
    [InlineData("taxon,leaf-shape\n", null, "table.no-rows", 1)]
    public void WhatCanNotBeKeptIsAnErrorAtItsRow(string matrix, string? taxa, string code, int row)
    {
        var reading = Read(matrix, Characters, taxa);
        Assert.False(reading.IsSound);
        Assert.Contains(reading.Problems, p => p.Code == code && p.Row == row && p.Severity == ProblemSeverity.Error);
    }

    [Theory]
    [InlineData("leaf-shape", "tubular", "no state")]
    [InlineData("leaf-shape", "ovate | often ovate", "twice")]
    [InlineData("leaf-length", "9–6", "above the high bound")]
    [InlineData("leaf-length", "-3", "below zero")]
    [InlineData("petals", "few", "number")]
    public void ACellThatCanNotBeReadIsUnknownAndSaysSo(string column, string cell, string says)
    {
        var reading = Read($"taxon,leaf-tip,{column}\nA b,x,{cell}\n", Characters + "leaf-tip,leaf tip,categorical,,x=x|y=y\n");
        var problem = Assert.Single(reading.Problems);
        Assert.Equal(
            (ProblemSeverity.Warning, "cell.unreadable", 2, column),
            (problem.Severity, problem.Code, problem.Row, problem.Column)
        );
        Assert.Contains(says, problem.Message, StringComparison.Ordinal);
        Assert.True(reading.IsSound);
    }

    [Theory]
    [InlineData("id,name\na,b\n", "column.missing")]
    [InlineData("id,name,kind\na,b,funny\n", "character.kind")]
    [InlineData("id,name,kind\na,b,count\na,c,count\n", "character.twice")]
    [InlineData("id,name,kind,applies_if\na,b,count,zed=yes\n", "character.unknown")]
    [InlineData("id,name,kind,states\na,b,categorical,x=x|x=y\n", "state.twice")]
    public void ATableOfCharactersIsCheckedToo(string characters, string code) =>
        Assert.Contains(Read("taxon,a\nA b,1\n", characters).Problems, p => p.Code == code && p.Sheet == "characters.csv");

    [Fact]
    public void TextInAnotherEncodingIsReadAndSaid()
    {
        var files = new Dictionary<string, (string, byte[])>(StringComparer.Ordinal)
        {
            ["matrix"] = ("m.csv", Encoding.Latin1.GetBytes("taxon;colour\nA b;bläulich\nC d;rot\n")),
        };
        var reading = FloraImporter.Read(files, [], stop: TestContext.Current.CancellationToken);
        Assert.Contains("bläulich", reading.Table.Characters[0].States.Select(s => s.Name));
        Assert.Contains(reading.Problems, p => p.Code == "file.encoding");
    }

    [Fact]
    public void TooManyRowsAreRefusedWithoutReadingThemAll()
    {
        var text = new StringBuilder("taxon,a\n");
        for (var i = 0; i <= SheetLimits.MostRows + 10; i++)
            text.Append("A b").Append(i).Append(",x\n");
        Assert.Contains(Read(text.ToString()).Problems, p => p.Code == "table.rows" && p.Row == SheetLimits.MostRows + 2);
        // Records may be more.
        var records = SheetReader.Read("records", Encoding.UTF8.GetBytes(text.ToString()), 30_000, TestContext.Current.CancellationToken);
        Assert.Equal((SheetLimits.MostRows + 11, 0), (records.Sheet!.Rows.Count, records.Problems.Count));
    }

    [Fact]
    public void AWorkbookIsReadWithItsFormulasDatesAndMergedCellsSaid()
    {
        var sound = Workbook(
            "<row r='1'><c r='A1' t='inlineStr'><is><t>taxon</t></is></c><c r='B1' t='inlineStr'><is><t>petals</t></is></c></row><row r='2'><c r='A2' t='inlineStr'><is><t>A b</t></is></c><c r='B2'><f>2+3</f><v>5</v></c></row><row r='3'><c r='A3' t='inlineStr'><is><t>C d</t></is></c><c r='B3' s='1'><v>45000</v></c></row>",
            ""
        );
        var reading = FloraImporter.Read(
            new Dictionary<string, (string, byte[])>(StringComparer.Ordinal) { ["matrix"] = ("m.xlsx", sound) },
            [],
            stop: TestContext.Current.CancellationToken
        );
        Assert.True(reading.IsSound, string.Join(' ', reading.Problems));
        Assert.Equal(5, reading.Table.Descriptions.Single().Characters.Single().Range!.Low);
        Assert.Contains(reading.Problems, p => p.Code == "cell.formula" && (p.Row, p.Column) == (2, "B"));
        Assert.Contains(reading.Problems, p => p.Code == "cell.date" && (p.Row, p.Column) == (3, "B"));
        var merged = Workbook(
            "<row r='1'><c r='A1' t='inlineStr'><is><t>taxon</t></is></c><c r='B1' t='inlineStr'><is><t>petals</t></is></c></row><row r='2'><c r='A2' t='inlineStr'><is><t>A b</t></is></c><c r='B2'><v>5</v></c></row>",
            "<mergeCells count='1'><mergeCell ref='B2:B3'/></mergeCells>"
        );
        Assert.Contains(
            FloraImporter
                .Read(
                    new Dictionary<string, (string, byte[])>(StringComparer.Ordinal) { ["matrix"] = ("m.xlsx", merged) },
                    [],
                    stop: TestContext.Current.CancellationToken
                )
                .Problems,
            p => p.Code == "cells.merged" && p.Row == 2 && p.Severity == ProblemSeverity.Error
        );
        Assert.Contains(
            FloraImporter
                .Read(
                    new Dictionary<string, (string, byte[])>(StringComparer.Ordinal) { ["matrix"] = ("m.xlsx", sound[..200]) },
                    [],
                    stop: TestContext.Current.CancellationToken
                )
                .Problems,
            p => p.Code == "workbook.unreadable"
        );
    }

    private static byte[] Workbook(string rows, string behind)
    {
        using var stream = new MemoryStream();
        using (var zip = new ZipArchive(stream, ZipArchiveMode.Create, true))
        {
            void Part(string name, string text)
            {
                using var writer = new StreamWriter(zip.CreateEntry(name).Open());
                writer.Write(text.Replace('\'', '"'));
            }
            Part(
                "[Content_Types].xml",
                "<Types xmlns='http://schemas.openxmlformats.org/package/2006/content-types'><Default Extension='rels' ContentType='application/vnd.openxmlformats-package.relationships+xml'/><Override PartName='/xl/workbook.xml' ContentType='application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml'/><Override PartName='/xl/worksheets/sheet1.xml' ContentType='application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml'/><Override PartName='/xl/styles.xml' ContentType='application/vnd.openxmlformats-officedocument.spreadsheetml.styles+xml'/></Types>"
            );
            Part(
                "_rels/.rels",
                "<Relationships xmlns='http://schemas.openxmlformats.org/package/2006/relationships'><Relationship Id='r1' Type='http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument' Target='xl/workbook.xml'/></Relationships>"
            );
            Part(
                "xl/workbook.xml",
                "<workbook xmlns='http://schemas.openxmlformats.org/spreadsheetml/2006/main' xmlns:r='http://schemas.openxmlformats.org/officeDocument/2006/relationships'><sheets><sheet name='m' sheetId='1' r:id='s1'/></sheets></workbook>"
            );
            Part(
                "xl/_rels/workbook.xml.rels",
                "<Relationships xmlns='http://schemas.openxmlformats.org/package/2006/relationships'><Relationship Id='s1' Type='http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet' Target='worksheets/sheet1.xml'/><Relationship Id='s2' Type='http://schemas.openxmlformats.org/officeDocument/2006/relationships/styles' Target='styles.xml'/></Relationships>"
            );
            Part(
                "xl/styles.xml",
                "<styleSheet xmlns='http://schemas.openxmlformats.org/spreadsheetml/2006/main'><cellXfs count='2'><xf numFmtId='0'/><xf numFmtId='14'/></cellXfs></styleSheet>"
            );
            Part(
                "xl/worksheets/sheet1.xml",
                $"<worksheet xmlns='http://schemas.openxmlformats.org/spreadsheetml/2006/main'><sheetData>{rows}</sheetData>{behind}</worksheet>"
            );
        }
        return stream.ToArray();
    }
}
