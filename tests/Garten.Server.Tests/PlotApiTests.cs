using System.IO.Compression;
using System.Text.Json;
using System.Text.Json.Nodes;
using Garten.Core.Contracts;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>Surveys with plots: what is kept and refused, what a device makes of it, and what leaves the program.</summary>
public sealed class PlotApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private readonly Guid _place = Guid.CreateVersion7();
    private readonly Guid _survey = Guid.CreateVersion7();
    private readonly Guid _visit = Guid.CreateVersion7();
    private readonly JsonObject _tove = new() { ["id"] = Guid.CreateVersion7(), ["name"] = "Tove Askling" };

    public async ValueTask InitializeAsync()
    {
        await KeepAsync(
            "savePlace",
            $$"""{"placeId":"{{_place}}","name":"Lang Meadow","locality":"Torvane","latitude":57.4,"longitude":-11.2,"uncertaintyMetres":300,"caution":"Bulls."}"""
        );
        await KeepAsync(
            "describePlace",
            $$"""{"placeId":"{{_place}}","ground":{"outline":[{"latitude":57.398,"longitude":-11.204},{"latitude":57.398,"longitude":-11.196},{"latitude":57.402,"longitude":-11.196},{"latitude":57.402,"longitude":-11.204}],"parts":[],"entrances":[],"hazards":[],"leave":null},"version":null}"""
        );
        await KeepAsync("saveSurvey", Survey());
        await KeepAsync("saveSiteVisit", Visit(_visit, "2026-06-14"));
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private string Survey(
        string protocol =
            """{"kind":"quadrat","shape":"square","squareMetres":2,"pins":0,"scale":"percent","rooting":"rooted","edge":"twoSides","layers":[]}""",
        int? version = null
    ) =>
        $$"""{"surveyId":"{{_survey}}","name":"Hay <b>and</b> ditch","question":"Do they differ?","from":"2025-05-01","to":"2027-12-31","leader":{{_tove.ToJsonString()}},"placeIds":["{{_place}}"],"sought":["Caldea rara"],"protocol":{{protocol}},"version":{{version?.ToString(System.Globalization.CultureInfo.InvariantCulture) ?? "null"}} }""";

    private string Visit(Guid id, string date) =>
        $$"""{"siteVisitId":"{{id}}","placeId":"{{_place}}","date":"{{date}}","startedAt":"09:00","people":[{{_tove.ToJsonString()}}]}""";

    private string Plot(Guid id, string label, string more = "") =>
        $$"""{"plotId":"{{id}}","surveyId":"{{_survey}}","placeId":"{{_place}}","label":"{{label}}","isPermanent":true,"placing":"random","seed":40{{more}} }""";

    private string Record(Guid plot, string finds, string more = "", Guid? id = null, Guid? visit = null) =>
        $$"""{"recordId":"{{id ?? Guid.CreateVersion7()}}","plotId":"{{plot}}","siteVisitId":"{{visit ?? _visit}}","recorder":{{_tove.ToJsonString()}},"finds":{{finds}}{{more}} }""";

    private async Task<JsonNode> SendAsync(string kind, string fields)
    {
        var command = JsonNode.Parse(fields)!.AsObject();
        (command["kind"], command["id"]) = (kind, Guid.CreateVersion7());
        var (_, answer) = await server.SendAsync(command);
        return answer["results"]?[0] ?? answer;
    }

    private async Task KeepAsync(string kind, string fields)
    {
        var result = await SendAsync(kind, fields);
        Assert.True(result["status"]?.ToString() == "applied", result.ToJsonString());
    }

    private async Task RefusedAsync(string code, string kind, string fields, string says = "")
    {
        var result = await SendAsync(kind, fields);
        Assert.True((string?)result["code"] == code, result.ToJsonString());
        Assert.Contains(says, result.ToJsonString(), StringComparison.Ordinal);
    }

    private Task<JsonNode> WholeAsync() => server.GetAsync($"/api/v1/surveys/{_survey}");

    [Fact]
    public async Task WhatCantBeSoIsRefusedAtItsPlace()
    {
        var (plot, record) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync("savePlot", Plot(plot, "A"));
        await RefusedAsync("plot.label", "savePlot", Plot(Guid.CreateVersion7(), "A"));
        await RefusedAsync("plot.changed", "savePlot", Plot(plot, "B"));
        await RefusedAsync(
            "plot.outside",
            "savePlot",
            Plot(Guid.CreateVersion7(), "C", ""","site":{"latitude":57.41,"longitude":-11.2,"uncertaintyMetres":5}"""),
            "m beyond the boundary of Lang Meadow"
        );
        await KeepAsync(
            "savePlot",
            Plot(Guid.CreateVersion7(), "Edge", ""","site":{"latitude":57.40201,"longitude":-11.2,"uncertaintyMetres":5}""")
        );
        await RefusedAsync("plot.size", "savePlot", Plot(Guid.CreateVersion7(), "D", ""","squareMetres":0"""));
        await RefusedAsync("plot.record", "recordPlot", Record(plot, """[{"taxon":"Alvena alba","percent":101}]"""), "up to 100 %");
        await RefusedAsync(
            "plot.record",
            "recordPlot",
            Record(plot, """[{"taxon":"Alvena alba","percent":5},{"taxon":"Alvena alba","percent":7}]"""),
            "twice"
        );
        await KeepAsync("recordPlot", Record(plot, """[{"taxon":"Alvena alba","percent":5}]""", id: record));
        await RefusedAsync("plot.twice", "recordPlot", Record(plot, "[]"), "independent second");
        await KeepAsync("recordPlot", Record(plot, """[{"taxon":"Brontia lenta","percent":5}]""", $$""","repeats":"{{record}}" """));
        await KeepAsync("recordPlot", Record(plot, """[{"taxon":"Alvena alba","percent":50}]""", $$""","supersedes":"{{record}}" """));
        await RefusedAsync("plot.corrected", "recordPlot", Record(plot, "[]", $$""","supersedes":"{{record}}" """));
        await RefusedAsync("plot.repeats", "recordPlot", Record(plot, "[]", $$""","repeats":"{{Guid.CreateVersion7()}}" """));
        var late = Guid.CreateVersion7();
        await KeepAsync("saveSiteVisit", Visit(late, "2024-06-14"));
        await RefusedAsync("plot.visit", "recordPlot", Record(plot, "[]", visit: late), "lies outside the survey");
        await RefusedAsync("survey.changed", "saveSurvey", Survey());
        await RefusedAsync(
            "survey.protocol",
            "saveSurvey",
            Survey(
                """{"kind":"quadrat","shape":"square","squareMetres":0,"pins":0,"scale":"percent","rooting":"rooted","edge":"twoSides","layers":[]}""",
                1
            ),
            "above 0"
        );
        await RefusedAsync("survey.unknown", "writeSurveyText", $$"""{"surveyId":"{{Guid.CreateVersion7()}}","key":"do","text":"x"}""");
    }

    [Fact]
    public async Task EachCommandDoesToASurveyWhatItDoesOnTheServer()
    {
        var (plot, record, visit) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var commands = new (string Kind, string Fields)[]
        {
            (
                "savePlot",
                Plot(
                    plot,
                    "Twin",
                    ""","site":{"latitude":57.4,"longitude":-11.2,"uncertaintyMetres":5},"group":"hay","finding":{"marks":[{"what":"post","metres":3,"bearingDegrees":40}],"declinationDegrees":-3,"buried":"","photograph":"north"}"""
                )
            ),
            ("saveSiteVisit", Visit(visit, "2026-06-20")),
            (
                "recordPlot",
                Record(
                    plot,
                    """[{"taxon":"Alvena alba","percent":12.5}]""",
                    ""","layers":[{"name":"herbs","percent":80,"heightCm":30}],"bareGround":5,"minutes":9,"note":"lodged" """,
                    record,
                    visit
                )
            ),
            (
                "listTaxon",
                $$"""{"lineId":"{{Guid.CreateVersion7()}}","siteVisitId":"{{visit}}","taxon":"Alvena alba","recorder":{{_tove.ToJsonString()}} }"""
            ),
            ("recordPlot", Record(plot, """[{"taxon":"Alvena alba","percent":13}]""", $$""","supersedes":"{{record}}" """, visit: visit)),
            ("saveSiteVisit", Visit(visit, "2026-06-21")[..^1] + ""","version":1}"""),
            ("savePlot", Plot(plot, "Twin 2", ""","version":1""")),
            ("writeSurveyText", $$"""{"surveyId":"{{_survey}}","key":"do","text":"Cut after August."}"""),
            (
                "saveSurvey",
                Survey(
                    """{"kind":"quadrat","shape":"circle","squareMetres":2,"pins":0,"scale":"percent","rooting":"rooted","edge":"twoSides","layers":[]}""",
                    1
                )
            ),
            ("writeSurveyText", $$"""{"surveyId":"{{_survey}}","key":"do","text":""}"""),
        };
        foreach (var (kind, fields) in commands)
        {
            var before = await WholeAsync();
            var command = JsonNode.Parse(fields)!.AsObject();
            (command["kind"], command["id"]) = (kind, Guid.CreateVersion7());
            var (_, answer) = await server.SendAsync(command);
            Assert.True((string?)answer["results"]?[0]?["status"] == "applied", answer.ToJsonString());
            var after = await WholeAsync();
            var places = (await server.GetAsync("/api/v1/places")).Deserialize(CoreJson.Default.IReadOnlyListPlace)!;
            foreach (var from in new[] { before, after })
            {
                var waiting = new Waiting("2026-07-01", [JsonDocument.Parse(command.ToJsonString()).RootElement], places);
                var made = new SurveyDocument(_survey, from.Deserialize(CoreJson.Default.SurveyWhole), waiting).Tell()[0];
                var expected = Plain(after);
                Assert.True(
                    JsonNode.DeepEquals(expected, Plain(JsonSerializer.SerializeToNode(made, CoreJson.Default.SurveyWhole)!)),
                    $"{kind}: {expected.ToJsonString()}\n{JsonSerializer.Serialize(made, CoreJson.Default.SurveyWhole)}"
                );
            }
        }
        Assert.Equal(2, (await WholeAsync())["survey"]!["protocols"]!.AsArray().Count);
        var changes = await server.GetAsync("/api/v1/changes?after=0");
        Assert.True((bool)changes["surveys"]!);
    }

    // The server alone says which names are sensitive.
    private static JsonNode Plain(JsonNode whole)
    {
        var plain = whole.DeepClone();
        foreach (var visit in plain["visits"]!.AsArray())
            visit!["sensitive"] = null;
        return plain;
    }

    [Fact]
    public async Task AReportThatWasKeptStaysAsItWas()
    {
        var (plot, report) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync("savePlot", Plot(plot, "Kept"));
        await KeepAsync("recordPlot", Record(plot, """[{"taxon":"Alvena alba","percent":5}]"""));
        await KeepAsync("writeSurveyText", $$"""{"surveyId":"{{_survey}}","key":"do","text":"Cut after <i>August</i>."}""");
        await KeepAsync("keepReport", $$"""{"reportId":"{{report}}","surveyId":"{{_survey}}","for":"the holder"}""");
        async Task<string> PageAsync()
        {
            using var answer = await server.Client.GetAsync(
                new Uri($"/api/v1/reports/{report}.html", UriKind.Relative),
                TestContext.Current.CancellationToken
            );
            Assert.Contains(
                "default-src 'none'",
                string.Join(' ', answer.Headers.GetValues("Content-Security-Policy")),
                StringComparison.Ordinal
            );
            return await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        }
        var kept = await PageAsync();
        Assert.Contains("Alvena alba", kept, StringComparison.Ordinal);
        Assert.Contains("For the holder", kept, StringComparison.Ordinal);
        // What people write is text, whatever it looks like, and the page fetches nothing.
        Assert.Contains("Hay &lt;b&gt;and&lt;/b&gt; ditch", kept, StringComparison.Ordinal);
        Assert.DoesNotContain("<i>August", kept, StringComparison.Ordinal);
        Assert.DoesNotMatch("<script|src=|href=|url\\(", kept);
        var more = Guid.CreateVersion7();
        await KeepAsync("savePlot", Plot(more, "More"));
        await KeepAsync("recordPlot", Record(more, """[{"taxon":"Brontia lenta","percent":5}]"""));
        Assert.Equal(kept, await PageAsync());
        Assert.Contains(
            "Brontia lenta",
            await server.Client.GetStringAsync(
                new Uri($"/api/v1/surveys/{_survey}/report.html", UriKind.Relative),
                TestContext.Current.CancellationToken
            ),
            StringComparison.Ordinal
        );
        await KeepAsync("keepReport", $$"""{"reportId":"{{Guid.CreateVersion7()}}","surveyId":"{{_survey}}","for":"the holder"}""");
        // A name that is erased goes out of what was kept too, and nothing else does.
        await KeepAsync("erase", $$"""{"subjectId":"{{_tove["id"]!.GetValue<Guid>()}}"}""");
        Assert.DoesNotContain("Tove Askling", await PageAsync(), StringComparison.Ordinal);
        Assert.Equal(kept.Replace("Tove Askling", "(erased)", StringComparison.Ordinal), await PageAsync());
        Assert.Equal([1, 2], (await WholeAsync())["reports"]!.AsArray().Select(r => (int)r!["version"]!));
    }

    [Fact]
    public async Task WhatLeavesTheProgramIsReadAgain()
    {
        var stop = TestContext.Current.CancellationToken;
        var plot = Guid.CreateVersion7();
        await KeepAsync("savePlot", Plot(plot, "File", ""","site":{"latitude":57.4001,"longitude":-11.2001,"uncertaintyMetres":5}"""));
        await KeepAsync("recordPlot", Record(plot, """[{"taxon":"Alvena alba","percent":12.5},{"taxon":"=HYPERLINK(1)","percent":1}]"""));
        async Task<byte[]> FileAsync(string name) =>
            await server.Client.GetByteArrayAsync(new Uri($"/api/v1/surveys/{_survey}/{name}", UriKind.Relative), stop);

        using var package = new ZipArchive(new MemoryStream(await FileAsync("datapackage.zip")));
        using var described = JsonDocument.Parse(await TextAsync(package, "datapackage.json"));
        foreach (var resource in described.RootElement.GetProperty("resources").EnumerateArray())
        {
            var csv = (await TextAsync(package, resource.GetProperty("path").GetString()!)).Split("\r\n");
            Assert.Equal(
                string.Join(
                    ',',
                    resource.GetProperty("schema").GetProperty("fields").EnumerateArray().Select(f => f.GetProperty("name").GetString())
                ),
                csv[0]
            );
        }
        Assert.Contains("Alvena alba,,12.5", await TextAsync(package, "finds.csv"), StringComparison.Ordinal);
        Assert.Contains("'=HYPERLINK", await TextAsync(package, "finds.csv"), StringComparison.Ordinal);

        using var book = DocumentFormat.OpenXml.Packaging.SpreadsheetDocument.Open(
            new MemoryStream(await FileAsync("tables.xlsx")),
            isEditable: false
        );
        Assert.Empty(new DocumentFormat.OpenXml.Validation.OpenXmlValidator().Validate(book, stop));
        Assert.Equal(13, book.WorkbookPart!.Workbook!.Sheets!.Count());

        using var shapes = JsonDocument.Parse(await FileAsync("records.geojson"));
        var point = shapes
            .RootElement.GetProperty("features")
            .EnumerateArray()
            .First(f => f.GetProperty("properties").GetProperty("name").GetString() == "File");
        Assert.Equal(-11.2001, point.GetProperty("geometry").GetProperty("coordinates")[0].GetDouble());

        var archive = await StrictArchive.ReadAsync(await FileAsync("archive.zip"));
        var sample = archive
            .Tables["event"]
            .Single(e => e["eventType"] == "Sample" && e["locality"].EndsWith("plot File", StringComparison.Ordinal));
        Assert.Equal(
            ("2", "square metre", $"urn:uuid:{_visit:D}"),
            (sample["sampleSizeValue"], sample["sampleSizeUnit"], sample["parentEventID"])
        );
        var find = archive.Tables["occurrence"].Single(o => o["eventID"] == sample["eventID"] && o["scientificName"] == "Alvena alba");
        Assert.Equal(("12.5", "% cover"), (find["organismQuantity"], find["organismQuantityType"]));
        Assert.Equal(
            404,
            (int)
                (
                    await server.Client.GetAsync(new Uri($"/api/v1/surveys/{Guid.CreateVersion7()}/report.html", UriKind.Relative), stop)
                ).StatusCode
        );
    }

    private static async Task<string> TextAsync(ZipArchive zip, string name)
    {
        using var reader = new StreamReader(await zip.GetEntry(name)!.OpenAsync());
        return await reader.ReadToEndAsync();
    }
}
