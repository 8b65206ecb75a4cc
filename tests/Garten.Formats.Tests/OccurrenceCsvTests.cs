using System.Globalization;
using System.Text;
using CsvHelper;
using Xunit;

namespace Garten.Formats.Tests;

public sealed class OccurrenceCsvTests
{
    private static readonly DarwinCoreOccurrence Plain = new()
    {
        OccurrenceId = "urn:uuid:1",
        OrganismId = "urn:uuid:2",
        OrganismName = "",
        EventDate = "2026-05-31",
        RecordedBy = "Ilse Marrin",
        ScientificName = "Vellorna alata",
        TaxonRank = "species",
        Family = "Vellornaceae",
        VernacularName = "winged vellorn",
        VerbatimIdentification = "Vellorna alata",
        IdentifiedBy = "Ilse Marrin",
        DateIdentified = "2026-06-01",
        IdentificationReferences = "Key to Vellorna",
        IdentificationRemarks = "",
        PreviousIdentifications = "",
        Locality = "Harrow Alder Wood",
        DecimalLatitude = 57.4182,
        DecimalLongitude = -11.2046,
        CoordinateUncertaintyInMeters = 150,
    };

    private static async Task<string> WriteAsync(params DarwinCoreOccurrence[] rows)
    {
        using var stream = new MemoryStream();
        await OccurrenceCsv.WriteAsync(stream, rows.ToAsyncEnumerable(), CancellationToken.None);
        return Encoding.UTF8.GetString(stream.ToArray());
    }

    [Fact]
    public async Task EveryHeaderIsADarwinCoreTermAndEveryRowHasAllCells()
    {
        var lines = (await WriteAsync(Plain)).Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(
            "occurrenceID,organismID,organismName,basisOfRecord,occurrenceStatus,eventDate,recordedBy,kingdom,family,scientificName,taxonRank,vernacularName,verbatimIdentification,"
                + "identifiedBy,dateIdentified,identificationReferences,identificationRemarks,previousIdentifications,locality,decimalLatitude,decimalLongitude,geodeticDatum,coordinateUncertaintyInMeters,dataGeneralizations,informationWithheld",
            lines[0]
        );
        Assert.Equal(
            "urn:uuid:1,urn:uuid:2,,HumanObservation,present,2026-05-31,Ilse Marrin,Plantae,Vellornaceae,Vellorna alata,species,winged vellorn,Vellorna alata,"
                + "Ilse Marrin,2026-06-01,Key to Vellorna,,,Harrow Alder Wood,57.4182,-11.2046,EPSG:4326,150,,",
            lines[1]
        );
    }

    [Fact]
    public async Task CommasQuotesLineBreaksAndUmlautsComeBackAsTheyWere()
    {
        const string awkward = "near \"the stile\", by Örn;\r\nsecond line × ☂";
        using var csv = new CsvReader(
            new StringReader(await WriteAsync(Plain with { IdentificationRemarks = awkward })),
            CultureInfo.InvariantCulture
        );
        csv.Read();
        csv.ReadHeader();
        csv.Read();
        Assert.Equal(awkward, csv.GetField("identificationRemarks"));
        Assert.Equal("-11.2046", csv.GetField("decimalLongitude"));
    }

    [Theory]
    [InlineData("=1+1", "'=1+1")]
    [InlineData("+cmd", "'+cmd")]
    [InlineData("-2+3", "'-2+3")]
    [InlineData("@SUM(A1)", "'@SUM(A1)")]
    [InlineData("\t=1", "'\t=1")]
    [InlineData("＝1", "'＝1")]
    [InlineData(" =1", "' =1")]
    [InlineData("\u00A0+1", "'\u00A0+1")]
    [InlineData("\u200B=1", "'\u200B=1")]
    [InlineData("\uFEFF@x", "'\uFEFF@x")]
    [InlineData("\r=1", "'\n=1")]
    [InlineData("a\r=1", "a\n=1")]
    [InlineData("a\u2028b\u0007", "a\nb ")]
    [InlineData("a=1", "a=1")]
    [InlineData("", "")]
    public void NoCellIsAFormula(string text, string cell) => Assert.Equal(cell, CsvTable.Inert(text));

    /// <summary>Whatever a person has typed comes back as one cell of one row, by two readers that have nothing in common.</summary>
    [Fact]
    public async Task AnyTextIsOneCellForTwoReaders()
    {
        string[] awkward =
        [
            "a\r=cmd|x",
            "\r\n",
            "\"",
            "a\"\"b",
            ",",
            ";;",
            " spaced ",
            "\tx",
            "line\nbreak",
            "quote\"at,comma\r\nand more",
            "'",
            "= 1",
            "\u00A0=1",
            "ends in\r",
        ];
        var rows = awkward.Select(t => Plain with { OrganismName = t, IdentificationRemarks = t, Locality = t }).ToArray();
        var text = await WriteAsync(rows);
        using var csv = new CsvReader(new StringReader(text), CultureInfo.InvariantCulture);
        using var parser = new Microsoft.VisualBasic.FileIO.TextFieldParser(new StringReader(text))
        {
            HasFieldsEnclosedInQuotes = true,
            TrimWhiteSpace = false,
        };
        parser.SetDelimiters(",");
        csv.Read();
        csv.ReadHeader();
        Assert.Equal(OccurrenceCsv.Headers, parser.ReadFields()!);
        foreach (var row in rows)
        {
            csv.Read();
            Assert.Equal(CsvTable.Inert(row.Locality), csv.GetField("locality"));
            var fields = parser.ReadFields()!;
            Assert.Equal(OccurrenceCsv.Headers.Count, fields.Length);
            // The other reader ends its lines in its own way.
            Assert.Equal(CsvTable.Inert(row.Locality).ReplaceLineEndings("\n"), fields[18].ReplaceLineEndings("\n"));
            Assert.False(fields[18].TrimStart().StartsWith('='));
        }
        Assert.False(csv.Read());
        Assert.True(parser.EndOfData);
    }
}
