using System.Globalization;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Formats.Tests.Tables;

/// <summary>The table of characters: all that may stand in it, and what is taken where nothing does.</summary>
public sealed class CharacterSheetTests
{
    // One character "a" with some columns; the matrix only has to be there.
    private static (Character Character, IReadOnlyList<FloraProblem> Problems) One(
        string columns,
        string cells,
        string kind = "categorical",
        string states = "x=x|y=y"
    )
    {
        var extra = columns.Length > 0 ? "," + columns : "";
        var (row, matrix) = (columns.Length > 0 ? "," + cells : "", kind is "categorical" or "ordered" ? "x" : "3 mm");
        var reading = FloraTablesTests.Read(
            $"taxon,a,b,c\nA b,{matrix},4 mm,2 mm\n",
            $"id,name,kind,states,unit{extra}\na,leaf colour,{kind},{states},{(states.Length == 0 ? "mm" : "")}{row}\nb,leaf length,length,,mm\nc,leaf width,length,,mm\n"
        );
        return (reading.Table.Characters[0], reading.Problems);
    }

    [Fact]
    public void WhereNothingIsSaidTheUsualIsTaken()
    {
        var (character, problems) = One("", "");
        Assert.Empty(problems);
        Assert.Equal(
            ("a", "leaf colour", Organ.Leaf, CharacterKind.Categorical),
            (character.Id, character.Name, character.Organ, character.Kind)
        );
        Assert.Equal(
            (0.9, 0.9, 30, Tool.Eye, Handling.Look),
            (character.Reliability, character.Detection, character.EffortSeconds, character.Tool, character.Handling)
        );
        Assert.Empty(character.SeenIn);
        Assert.Null(character.Needs);
        Assert.Equal(["x", "y"], character.States.Select(s => s.Id));
    }

    [Theory]
    [InlineData("reliability", "0.8", "0.8")]
    [InlineData("reliability", "80 %", "0.8")]
    [InlineData("reliability", "80%", "0.8")]
    [InlineData("reliability", "\"0,8\"", "0.8")]
    [InlineData("reliability", "1", "0.999")]
    [InlineData("reliability", "0", "0.9 !")]
    [InlineData("reliability", "120%", "0.9 !")]
    [InlineData("reliability", "80", "0.9 !")]
    [InlineData("reliability", "often", "0.9 !")]
    public void SharesAreReadOrTheUsualIsTakenAndSaid(string column, string cell, string expected)
    {
        var (character, problems) = One(column, cell);
        Assert.Equal(expected, character.Reliability.ToString(CultureInfo.InvariantCulture) + (problems.Count > 0 ? " !" : ""));
        Assert.All(problems, p =>
            Assert.Equal(("number.invalid", ProblemSeverity.Warning, 2, "reliability"), (p.Code, p.Severity, p.Row, p.Column))
        );
    }

    [Fact]
    public void WhatIsFoundLessOftenThanItIsScoredRight()
    {
        Assert.Equal((0.95, 0.6), One("reliability,detection", "0.95,0.6").Character is var c ? (c.Reliability, c.Detection) : default);
        // Without its own the detection is the reliability.
        Assert.Equal(0.95, One("reliability", "0.95").Character.Detection);
    }

    [Theory]
    [InlineData("organ", "Flower", "Flower")]
    [InlineData("organ", "underground", "Underground")]
    [InlineData("organ", "wing", "Leaf !")]
    [InlineData("organ", "3", "Leaf !")]
    [InlineData("tool", "lens", "Lens")]
    [InlineData("tool", "hammer", "Eye !")]
    [InlineData("handling", "take a piece", "TakeAPiece")]
    [InlineData("handling", "take-a-piece", "TakeAPiece")]
    [InlineData("handling", "eat", "Look !")]
    public void WordsAreReadOrTheUsualIsTakenAndSaid(string column, string cell, string expected)
    {
        var (character, problems) = One(column, cell);
        var value = column switch
        {
            "organ" => character.Organ.ToString(),
            "tool" => character.Tool.ToString(),
            _ => character.Handling.ToString(),
        };
        Assert.Equal(expected, value + (problems.Count > 0 ? " !" : ""));
        Assert.All(problems, p => Assert.Equal(("word.unknown", column), (p.Code, p.Column)));
    }

    [Theory]
    [InlineData("flower", "Flower", 0)]
    [InlineData("flower | ripe-fruit", "Flower RipeFruit", 0)]
    [InlineData("Full leaf|autumn_colour", "FullLeaf AutumnColour", 0)]
    [InlineData("always", "", 0)]
    [InlineData("flower | snow", "Flower", 1)]
    [InlineData("4", "", 1)]
    public void Phenophases(string cell, string expected, int problems)
    {
        var (character, found) = One("phenophases", cell);
        Assert.Equal(expected, string.Join(' ', character.SeenIn));
        Assert.Equal(problems, found.Count(p => p.Code == "word.unknown"));
    }

    [Fact]
    public void WhatItHangsOnAndWhatItDerivesFrom()
    {
        Assert.Equal(["b", "c"], One("ratio_of", "b / c", "ratio", "").Character.RatioOf!);
        Assert.Null(One("ratio_of", "b", "ratio", "").Character.RatioOf);
        var needs = One("applies_if", "b = long | short").Character.Needs!;
        Assert.Equal("b", needs.Character);
        Assert.Equal(["long", "short"], needs.States);
        Assert.Contains(One("applies_if", "z = long").Problems, p =>
            p.Code == "character.unknown" && p.Row == 2 && p.Severity == ProblemSeverity.Error
        );
        Assert.Contains(One("ratio_of", "b / z", "ratio", "").Problems, p => p.Code == "character.unknown");
        Assert.Contains(One("trend_of", "z").Problems, p => p.Code == "character.unknown");
        Assert.Equal("b", One("trend_of", "b").Character.TrendOf);
    }

    [Fact]
    public void EverythingElseIsKeptAsItStands()
    {
        var (character, problems) = One(
            "effort_s,nouns,family,sizes,measured,definition,trap,seen",
            "120,leaf|leaves,blade,leaf,along the midrib,How green it is.,Dust.,flower"
        );
        Assert.Empty(problems);
        Assert.Equal(
            (120, "blade", "leaf", "along the midrib", "How green it is.", "Dust."),
            (character.EffortSeconds, character.Family, character.SizeGroup, character.MeasuredFrom, character.Definition, character.Trap)
        );
        Assert.Equal(["leaf", "leaves"], character.Nouns);
        Assert.Equal([Phenophase.Flower], character.SeenIn);
        // An effort below nothing is none.
        Assert.Equal(30, One("effort", "-5").Character.EffortSeconds);
    }

    [Theory]
    [InlineData("nominal", CharacterKind.Categorical)]
    [InlineData("Ordinal", CharacterKind.Ordered)]
    [InlineData("factor", CharacterKind.Categorical)]
    public void KindsOfStatesGoByManyNames(string word, CharacterKind kind) =>
        Assert.Equal(
            kind,
            FloraTablesTests.Read("taxon,a\nA b,x\n", $"id,name,kind,states\na,colour,{word},x|y\n").Table.Characters[0].Kind
        );

    [Theory]
    [InlineData("integer", "", CharacterKind.Count)]
    [InlineData("meristic", "", CharacterKind.Count)]
    [InlineData("height", "m", CharacterKind.Length)]
    [InlineData("numeric", "mg", CharacterKind.Ratio)]
    [InlineData("quantitative", "", CharacterKind.Ratio)]
    [InlineData("angle", "°", CharacterKind.Angle)]
    public void KindsOfNumbersGoByManyNames(string word, string unit, CharacterKind kind) =>
        Assert.Equal(
            kind,
            FloraTablesTests.Read("taxon,a\nA b,3\n", $"id,name,kind,unit\na,thing,{word},{unit}\n").Table.Characters[0].Kind
        );

    [Fact]
    public void ALengthInAUnitThatIsNoneIsAPlainNumber()
    {
        var reading = FloraTablesTests.Read("taxon,a\nA b,3\n", "id,name,kind,unit\na,weight,length,mg\n");
        Assert.Equal(CharacterKind.Ratio, reading.Table.Characters[0].Kind);
        Assert.Equal("character.unit", Assert.Single(reading.Problems).Code);
    }

    [Fact]
    public void AYesOrNoNeedsNoStates()
    {
        var reading = FloraTablesTests.Read("taxon,a\nA b,TRUE\nC d,0\n", "id,name,kind\na,stipules,boolean\n");
        Assert.Empty(reading.Problems);
        Assert.Equal(["yes", "no"], reading.Table.Descriptions.Select(d => d.Characters[0].States[0].State));
    }

    [Fact]
    public void WithoutAnIdTheNameIsOneAndWithoutANameTheId()
    {
        Assert.Equal(
            "leaf-colour-above",
            FloraTablesTests
                .Read("taxon,leaf colour above\nA b,x\n", "name,kind,states\nLeaf colour (above),text,x\n")
                .Table.Characters[0]
                .Id
        );
        Assert.Equal(
            "leaf colour",
            FloraTablesTests.Read("taxon,leaf_colour\nA b,x\n", "id,kind,states\nleaf_colour,text,x\n").Table.Characters[0].Name
        );
        Assert.Contains(FloraTablesTests.Read("taxon,a\nA b,x\n", "id,name,kind\n,,text\na,a,text\n").Problems, p =>
            p.Code == "character.no-id" && p.Row == 2
        );
    }

    [Fact]
    public void StatesMayBeDefinedInATableOfTheirOwn()
    {
        var files = new Dictionary<string, (string, byte[])>(StringComparer.Ordinal)
        {
            ["matrix"] = ("m.csv", "taxon,a\nA b,egg-shaped\nC d,el\n"u8.ToArray()),
            ["characters"] = ("c.csv", "id,name,kind\na,leaf shape,categorical\n"u8.ToArray()),
            ["states"] = (
                "s.csv",
                "character,id,name,definition,terms\na,ov,ovate,Widest below the middle.,ovate|egg-shaped\na,el,,,\nz,other,other,,\n"u8.ToArray()
            ),
        };
        var reading = FloraImporter.Read(files, [], stop: TestContext.Current.CancellationToken);
        Assert.Empty(reading.Problems);
        Assert.Equal(
            [("ov", "ovate", "Widest below the middle."), ("el", "el", "")],
            reading.Table.Characters[0].States.Select(s => (s.Id, s.Name, s.Definition))
        );
        Assert.Equal(["ov", "el"], reading.Table.Descriptions.Select(d => d.Characters[0].States[0].State));
    }

    [Theory]
    [InlineData("petal colour", Organ.Flower)]
    [InlineData("Fruit length", Organ.Fruit)]
    [InlineData("bark", Organ.Bark)]
    [InlineData("soil moisture", Organ.Site)]
    [InlineData("root type", Organ.Underground)]
    [InlineData("height", Organ.Habit)]
    [InlineData("petiole length", Organ.Leaf)]
    public void TheOrganIsToldByTheName(string name, Organ organ) =>
        Assert.Equal(organ, FloraTablesTests.Read($"taxon,{name}\nA b,x\nC d,y\n").Table.Characters[0].Organ);

    [Theory]
    [InlineData("leaf length (cm)", "4", CharacterKind.Length, "cm", "leaf length")]
    [InlineData("leaf_length_mm", "4", CharacterKind.Length, "mm", "leaf length")]
    [InlineData("height [m]", "1.5", CharacterKind.Length, "m", "height")]
    [InlineData("branch angle (°)", "45", CharacterKind.Angle, "°", "branch angle")]
    [InlineData("petals", "5", CharacterKind.Count, "", "petals")]
    [InlineData("length ratio", "1.5", CharacterKind.Ratio, "", "length ratio")]
    [InlineData("leaf length", "4–6 cm", CharacterKind.Length, "", "leaf length")]
    [InlineData("colour", "red", CharacterKind.Categorical, "", "colour")]
    public void OfAPlainTableKindAndUnitAreToldByHeadingAndCells(string heading, string cell, CharacterKind kind, string unit, string name)
    {
        var character = FloraTablesTests.Read($"taxon,{heading}\nA b,{cell}\nC d,{cell}\n").Table.Characters[0];
        Assert.Equal((kind, unit, name), (character.Kind, character.Unit, character.Name));
    }

    [Theory]
    [InlineData("4.5", "4-5")]
    [InlineData("5", "5-5")]
    [InlineData("0", "0-0")]
    [InlineData("4-6", "4-6")]
    public void CountsAsPlainTablesHaveThem(string cell, string expected)
    {
        var reading = FloraTablesTests.Read($"taxon,petals\nA b,{cell}\nC d,3\n", "id,name,kind\npetals,petals,count\n");
        Assert.True(reading.IsSound);
        Assert.Equal(expected, reading.Table.Descriptions[0].Characters[0].Range is { } r ? $"{r.Low}-{r.High}" : "");
    }

    [Theory]
    [InlineData("0", "", false)]
    [InlineData("40", "30-50", true)]
    [InlineData("\"40,0\"", "30-50", true)]
    public void MeansOfLengths(string cell, string expected, bool applies)
    {
        var described = FloraTablesTests
            .Read($"taxon,a,b\nA b,{cell},x\n", "id,name,kind,unit,states\na,leaf length,length,mm,\nb,b,categorical,,x|y\n")
            .Table.Descriptions[0]
            .Characters[0];
        Assert.Equal(applies, described.Applies);
        Assert.Equal(expected, described.Range is { } r ? string.Create(CultureInfo.InvariantCulture, $"{r.Low}-{r.High}") : "");
    }

    [Fact]
    public void ALengthWithoutAnyUnitIsAskedFor()
    {
        var problem = Assert.Single(
            FloraTablesTests.Read("taxon,a,b\nA b,40,x\n", "id,name,kind,states\na,leaf length,length,\nb,b,categorical,x|y\n").Problems
        );
        Assert.Equal("cell.unreadable", problem.Code);
        Assert.Contains("has no unit", problem.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void ColumnsOfNotesAndOfNothingAreLeftOutAndSaid()
    {
        var rows = string.Join('\n', Enumerable.Range(0, 70).Select(i => $"Genella s{i},a note of its own {i},,red"));
        var reading = FloraTablesTests.Read($"taxon,remarks,empty,colour\n{rows}\n");
        Assert.Equal(["colour"], reading.Table.Characters.Select(c => c.Id));
        Assert.Contains(reading.Problems, p => p.Code == "column.text" && p.Column == "remarks");
        Assert.Contains(reading.Problems, p => p.Code == "column.empty" && p.Column == "empty");
        Assert.True(reading.IsSound);
    }

    [Fact]
    public void CellsWithoutAHeadingAreAnError()
    {
        Assert.Contains(FloraTablesTests.Read("taxon,,colour\nA b,x,red\n").Problems, p =>
            p.Code == "column.no-name" && p.Severity == ProblemSeverity.Error
        );
        Assert.True(FloraTablesTests.Read("taxon,,colour\nA b,,red\n").IsSound);
    }

    [Fact]
    public void TwoStatesInACellAreAskedAbout()
    {
        var reading = FloraTablesTests.Read("taxon,colour\nA b,red\nC d,white\nE f,\"red, blue\"\n");
        Assert.Equal("cell.several", Assert.Single(reading.Problems).Code);
    }

    [Fact]
    public void ARowLongerThanItsHeaderIsAskedAbout() =>
        Assert.Contains(FloraTablesTests.Read("taxon,colour\nA b,red,white\n").Problems, p => p.Code == "row.too-long" && p.Row == 2);

    [Fact]
    public void OfThousandsOfProblemsTheFirstAreListedAndTheRestCounted()
    {
        var rows = string.Join('\n', Enumerable.Range(0, 900).Select(i => $"Genella s{i},tubular"));
        var reading = FloraTablesTests.Read($"taxon,a\n{rows}\n", "id,name,kind,states\na,shape,categorical,ovate\n");
        Assert.Equal(
            500,
            reading.Problems.Count(p => p.Severity == ProblemSeverity.Warning)
                + reading.Problems.Count(p => p.Severity == ProblemSeverity.Error)
        );
        Assert.Equal("problems.more", reading.Problems[^1].Code);
        Assert.Contains("more problems", reading.Problems[^1].Message, StringComparison.Ordinal);
    }
}
