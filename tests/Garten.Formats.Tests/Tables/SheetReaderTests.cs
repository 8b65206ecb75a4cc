using System.Text;
using Garten.Core.Floras;
using Garten.Formats.Tables;
using Xunit;

namespace Garten.Formats.Tests.Tables;

/// <summary>Tables as files hold them: separators, encodings, quotes, limits.</summary>
public sealed class SheetReaderTests
{
    private static SheetReading Read(byte[] content) => SheetReader.Read("t.csv", content, TestContext.Current.CancellationToken);

    private static SheetReading Read(string text) => Read(Encoding.UTF8.GetBytes(text));

    private static string Cells(SheetReading reading) => string.Join(" / ", reading.Sheet!.Rows.Select(r => string.Join('|', r.Cells)));

    [Theory]
    [InlineData("taxon,a\nx,1\n", "x|1")]
    [InlineData("taxon;a\nx;1,5\n", "x|1,5")]
    [InlineData("taxon\ta\nx\t1,5; 2\n", "x|1,5; 2")]
    [InlineData("taxon,a\r\nx,1\r\ny,2", "x|1 / y|2")]
    [InlineData("taxon,a\nx,\"1, or 2\"\n", "x|1, or 2")]
    [InlineData("taxon,a\nx,\"said \"\"so\"\"\"\n", "x|said \"so\"")]
    [InlineData("taxon,a\nx,\"two\nlines\"\n", "x|two\nlines")]
    [InlineData("taxon , a \n  x , 1 \n", "x|1")]
    [InlineData("\n\ntaxon,a\n\nx,1\n,\n\ny,2\n\n", "x|1 / y|2")]
    [InlineData("taxon,a,b\nx,1\ny,1,2,3\n", "x|1 / y|1|2|3")]
    // Separators within the quotes of the header don't count.
    [InlineData("\"taxon, of the list, by name\";a\nx;1,5\n", "x|1,5")]
    public void CsvWithAnySeparator(string text, string cells)
    {
        var reading = Read(text);
        Assert.Empty(reading.Problems);
        Assert.Equal(cells, Cells(reading));
    }

    [Fact]
    public void RowsKeepTheirNumbers()
    {
        // The header is row 1; empty rows are counted, though they say nothing.
        var sheet = Read("taxon,a\nx,1\n\n\ny,2\n").Sheet!;
        Assert.Equal([2, 5], sheet.Rows.Select(r => r.Number));
        Assert.Equal("", sheet.Rows[0].Cell(7));
        Assert.Equal("", sheet.Rows[0].Cell(-1));
    }

    public static TheoryData<string> Encodings => new("utf-8", "utf-8-bom", "utf-16le", "utf-16be");

    [Theory]
    [MemberData(nameof(Encodings))]
    public void TextOfAnyUnicode(string name)
    {
        Encoding encoding = name switch
        {
            "utf-8" => new UTF8Encoding(false),
            "utf-8-bom" => new UTF8Encoding(true),
            "utf-16le" => new UnicodeEncoding(false, true),
            _ => new UnicodeEncoding(true, true),
        };
        var reading = Read([.. encoding.GetPreamble(), .. encoding.GetBytes("taxon,größe\nŠípek × ☂,4–6\n")]);
        Assert.Empty(reading.Problems);
        Assert.Equal("taxon", reading.Sheet!.Header[0]);
        Assert.Equal("Šípek × ☂|4–6", Cells(reading));
    }

    [Fact]
    public void WhatIsNotUnicodeIsReadAsWindows1252AndSaid()
    {
        // 4–6 with the dash of Windows-1252, ö of both.
        var reading = Read([.. "taxon,a\nBl"u8, 0xF6, .. "te,4"u8, 0x96, .. "6\n"u8]);
        Assert.Equal("Blöte|4–6", Cells(reading));
        Assert.Equal("file.encoding", Assert.Single(reading.Problems).Code);
        Assert.Equal(ProblemSeverity.Warning, reading.Problems[0].Severity);
    }

    [Fact]
    public void WhatIsNoTableIsRefused()
    {
        static void Refused(byte[] content, string code)
        {
            var reading = SheetReader.Read("t", content, TestContext.Current.CancellationToken);
            Assert.Null(reading.Sheet);
            Assert.Equal(code, Assert.Single(reading.Problems).Code);
        }
        Refused([], "file.empty");
        Refused("\n\n  \n"u8.ToArray(), "file.empty");
        Refused([0xD0, 0xCF, 0x11, 0xE0, 0xA1], "file.old-workbook");
        Refused([0x89, 0x50, 0x00, 0x47], "file.binary");
        Refused("PK but no archive"u8.ToArray(), "workbook.unreadable");
        Refused(Encoding.UTF8.GetBytes("taxon,a\nx,\"" + new string('y', SheetLimits.LongestCell + 1)), "cell.too-long");
        Refused(
            Encoding.UTF8.GetBytes(
                "taxon," + string.Join(',', Enumerable.Range(0, SheetLimits.MostColumns).Select(i => $"c{i}")) + "\nx\n"
            ),
            "table.columns"
        );
    }

    [Fact]
    public void AHeaderAloneAndTwoColumnsOfOneName()
    {
        Assert.Equal("table.no-rows", Assert.Single(Read("taxon,a\n").Problems).Code);
        var twice = Assert.Single(Read("taxon,leaf length,Leaf_Length\nx,1,2\n").Problems);
        Assert.Equal(("column.twice", 1), (twice.Code, twice.Row));
    }

    [Fact]
    public void ColumnsAreFoundByAnyOfTheirNames()
    {
        var sheet = Read("Scientific Name,leaf_length,,GROWTH-FORM\nx,1,2,3\n").Sheet!;
        Assert.Equal(0, sheet.Column("name", "scientific_name"));
        Assert.Equal(1, sheet.Column("Leaf Length"));
        Assert.Equal(3, sheet.Column("growthform"));
        Assert.Equal(-1, sheet.Column("habit"));
    }

    [Fact]
    public void AnyBytesEndInATableOrInARefusal()
    {
        var random = new Random(20261125);
        byte[] marks = [(byte)',', (byte)';', (byte)'"', (byte)'\n', (byte)'\r', (byte)'\t', (byte)'a', 0xC3, 0xBC, 0xFF, 0xEF];
        for (var i = 0; i < 2000; i++)
        {
            var content = new byte[random.Next(0, 60)];
            for (var b = 0; b < content.Length; b++)
                content[b] = marks[random.Next(marks.Length)];
            var reading = Read(content);
            Assert.True(reading.Sheet is not null || reading.Problems.Any(p => p.Severity == ProblemSeverity.Error));
        }
    }
}
