using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Garten.Core.Contracts;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>Every address that takes JSON, with a sound body of which one thing after the other is put out of order: what can't be used is
/// said, and nothing falls over.</summary>
public sealed class OddRequestTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private const string Flora = "odd-isle";
    private static readonly Guid Place = Guid.CreateVersion7();
    private static readonly Guid Ended = Guid.CreateVersion7();
    private static readonly Guid Plant = Guid.CreateVersion7();
    private static readonly Guid Population = Guid.CreateVersion7();
    private static readonly Guid SiteVisit = Guid.CreateVersion7();
    private static readonly Guid Line = Guid.CreateVersion7();
    private static readonly Guid Track = Guid.CreateVersion7();
    private const string Partner = "the island's record centre";
    private static readonly Guid Survey = Guid.CreateVersion7();
    private static readonly Guid Plot = Guid.CreateVersion7();
    private static Guid _import;
    private static Guid _taken;
    private static string _key = "";

    public async ValueTask InitializeAsync()
    {
        if (_key.Length > 0)
            return;
        var form = new MultipartFormDataContent { { new StringContent("Odd isle"), "name" } };
        foreach (
            var (field, text) in new[]
            {
                (
                    "characters",
                    "id,name,organ,kind,unit,states\nmargin,margin,leaf,categorical,,entire|toothed\nlength,length,leaf,length,mm,\n"
                ),
                (
                    "taxa",
                    "name,family,cells,habitats,phenology\nAlvena montis,Alvenaceae,B2,heath,flower apr–jun\nAlvena palus,Alvenaceae,C3,marsh,flower may\n"
                ),
                ("matrix", "taxon,margin,length\nAlvena montis,entire,20–40\nAlvena palus,toothed,60–90\n"),
            }
        )
        {
            var part = new ByteArrayContent(Encoding.UTF8.GetBytes(text));
            part.Headers.ContentType = new MediaTypeHeaderValue("text/csv");
            form.Add(part, field, $"{field}.csv");
        }
        Assert.Equal(200, (await server.PostTextAsync("/api/v1/floras", form)).Status);
        Assert.Equal(200, (await server.PostTextAsync($"/api/v1/floras/{Flora}/publish", new StringContent(""))).Status);
        _import = await SentAsync("odd.csv");
        _taken = await SentAsync("taken.csv");
        var (_, saved) = await server.SendAsync(
            new()
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] = "Key to Alvena\n1. Leaf entire ... Alvena montis\n1. Leaf toothed ... Alvena palus\n",
            }
        );
        _key = (string)saved["results"]![0]!["keys"]![0]!["hash"]!;
        foreach (
            var (kind, field, id) in new[]
            {
                ("savePlace", "placeId", Place),
                ("savePlace", "placeId", Ended),
                ("tagPlant", "plantId", Plant),
                ("savePopulation", "populationId", Population),
                ("saveSiteVisit", "siteVisitId", SiteVisit),
                ("listTaxon", "lineId", Line),
                ("keepTrack", "trackId", Track),
                ("saveSurvey", "surveyId", Survey),
                ("savePlot", "plotId", Plot),
            }
        )
        {
            var command = Command(kind);
            command[field] = id;
            var (status, body) = await server.SendAsync(command);
            Assert.True(status == 200, kind + ": " + body.ToJsonString());
        }
        var delivered = Command("keepDelivery");
        delivered["partner"] = Partner;
        Assert.Equal(200, (await server.SendAsync(delivered)).Status);
        var taken = Command("takeIn");
        taken["importId"] = _taken;
        Assert.Equal(200, (await server.SendAsync(taken)).Status);
    }

    private async Task<Guid> SentAsync(string name)
    {
        using var file = new MultipartFormDataContent
        {
            { new ByteArrayContent("taxon,date\nAlvena montis,3/4/2021\nAlvena,2021\n"u8.ToArray()), "file", name },
        };
        return Guid.Parse((string)(await server.PostTextAsync("/api/v1/imports", file)).Body["id"]!);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static JsonObject Recorder => new() { ["id"] = Guid.CreateVersion7(), ["name"] = "Örn Askling" };

    private static JsonNode Fact =>
        JsonNode.Parse(
            $$"""
            {"id":"{{Guid.CreateVersion7()}}","character":"length","outcome":"seen","states":[],"together":false,"readings":[{"value":31,"text":"31","resolution":1,"calibration":0,"struck":"","at":"low"}],"show":0,"of":0,"sureness":"sure",
            "context":{"position":"low","light":"sun","stage":"adult","age":"grown","shaping":"unsaid","attachment":"attached","sex":"unsaid"},"tool":"ruler","date":"2026-05-10","note":"","supersedes":null,"withdrawn":false,"fromCouplet":""}
            """
        )!;

    private static JsonNode Look =>
        JsonNode.Parse(
            """{"character":"length","values":[2.4,3.1],"unit":"cm","sureness":"fairly","context":{"light":"shade"},"together":false,"outcome":"seen","show":0,"of":0,"date":"2026-05-10"}"""
        )!;

    private static JsonObject Command(string kind)
    {
        var command = Fields(kind);
        (command["kind"], command["id"]) = (kind, Guid.CreateVersion7());
        return command;
    }

    private static JsonObject Fields(string kind) =>
        kind switch
        {
            "erase" => new() { ["subjectId"] = Guid.CreateVersion7() },
            "savePlace" => new()
            {
                ["placeId"] = Guid.CreateVersion7(),
                ["name"] = "Harrow Heath",
                ["locality"] = "Torvane",
                ["latitude"] = 57.0,
                ["longitude"] = -11.0,
                ["uncertaintyMetres"] = 100,
                ["caution"] = "",
                ["cell"] = "B2",
                ["elevationMetres"] = 120,
                ["habitats"] = new JsonArray("heath"),
            },
            "tagPlant" => new()
            {
                ["plantId"] = Guid.CreateVersion7(),
                ["placeId"] = Place,
                ["label"] = "peg 1",
                ["taggedOn"] = "2026-05-01",
                ["recorder"] = Recorder,
                ["site"] = new JsonObject
                {
                    ["latitude"] = 57.0,
                    ["longitude"] = -11.0,
                    ["uncertaintyMetres"] = 5,
                },
                ["finding"] = new JsonObject
                {
                    ["landmark"] = "stile",
                    ["bearingDegrees"] = 20,
                    ["distanceMetres"] = 4,
                    ["note"] = "",
                },
            },
            "visitPlant" => new()
            {
                ["visitId"] = Guid.CreateVersion7(),
                ["plantId"] = Plant,
                ["date"] = "2026-05-20",
                ["recorder"] = Recorder,
                ["state"] = "alive",
                ["phases"] = new JsonArray(new JsonObject { ["phase"] = "flower", ["stage"] = "shown" }),
                ["sexes"] = new JsonArray(new JsonObject { ["branch"] = "east", ["sex"] = "male" }),
                ["note"] = "",
                ["observations"] = new JsonArray(Fact),
            },
            "describePlace" => new()
            {
                ["placeId"] = Place,
                ["ground"] = JsonNode.Parse(
                    """{"outline":[{"latitude":57.0,"longitude":-11.0},{"latitude":57.0,"longitude":-11.01},{"latitude":57.01,"longitude":-11.0}],"parts":[{"name":"ride","habitat":"heath","substrate":"","moisture":"","light":"","aspect":"","slopeDegrees":5,"outline":[]}],"entrances":[{"name":"gate","at":{"latitude":57.0,"longitude":-11.0}}],"hazards":[{"name":"bull","at":null}],"leave":{"from":"the holder","until":"2027-01-01","allows":"touch","passingOn":""}}"""
                ),
                ["version"] = null,
            },
            "mergePlace" => new()
            {
                ["placeId"] = Ended,
                ["intoId"] = Place,
                ["version"] = null,
            },
            "saveSiteVisit" => new()
            {
                ["siteVisitId"] = Guid.CreateVersion7(),
                ["placeId"] = Place,
                ["date"] = "2026-05-20",
                ["startedAt"] = "09:40",
                ["people"] = new JsonArray(Recorder),
                ["purpose"] = "spring list",
                ["weather"] = "dry",
                ["pauses"] = JsonNode.Parse("""[{"from":"12:00","to":"12:20"}]"""),
                ["safety"] = JsonNode.Parse("""{"contact":"the hut","backBy":"17:00"}"""),
            },
            "listTaxon" => new()
            {
                ["lineId"] = Guid.CreateVersion7(),
                ["siteVisitId"] = SiteVisit,
                ["taxon"] = "Alvena montis",
                ["recorder"] = Recorder,
                ["compartment"] = "north ride",
                ["at"] = "10:05",
                ["details"] = JsonNode.Parse(
                    """{"abundance":"frequent","isLocal":true,"count":12,"unit":"shoots","phase":"flower","sex":"female","growth":"planted","growthReason":"in a row","associates":["Alvena palus"],"note":""}"""
                ),
                ["site"] = JsonNode.Parse("""{"latitude":57.0,"longitude":-11.0,"uncertaintyMetres":5}"""),
            },
            "saveSurvey" => new()
            {
                ["surveyId"] = Guid.CreateVersion7(),
                ["name"] = "Odd heath",
                ["question"] = "what grows there?",
                ["from"] = "2026-05-01",
                ["to"] = "2026-09-30",
                ["leader"] = Recorder,
                ["placeIds"] = new JsonArray(Place),
                ["sought"] = new JsonArray("Alvena palus"),
                ["protocol"] = JsonNode.Parse(
                    """{"kind":"quadrat","shape":"square","squareMetres":4,"pins":0,"scale":"percent","rooting":"rooted","edge":"twoSides","layers":["herbs"],"seasonFrom":"05-20","seasonTo":"07-31","leastMinutes":8,"twiceOneIn":10,"note":""}"""
                ),
            },
            "savePlot" => new()
            {
                ["plotId"] = Guid.CreateVersion7(),
                ["surveyId"] = Survey,
                ["placeId"] = Place,
                ["label"] = $"P {Guid.NewGuid():N}",
                ["isPermanent"] = true,
                ["placing"] = "random",
                ["seed"] = 40,
                ["site"] = JsonNode.Parse("""{"latitude":57.0,"longitude":-11.0,"uncertaintyMetres":5}"""),
                ["part"] = "ride",
                ["group"] = "grazed",
                ["squareMetres"] = 2,
                ["finding"] = JsonNode.Parse(
                    """{"marks":[{"what":"post","metres":12.5,"bearingDegrees":40}],"declinationDegrees":-3.5,"buried":"","photograph":"from the north"}"""
                ),
            },
            "recordPlot" => new()
            {
                ["recordId"] = Guid.CreateVersion7(),
                ["plotId"] = Plot,
                ["siteVisitId"] = SiteVisit,
                ["recorder"] = Recorder,
                ["finds"] = JsonNode.Parse("""[{"taxon":"Alvena montis","layer":"herbs","percent":12.5}]"""),
                ["layers"] = JsonNode.Parse("""[{"name":"herbs","percent":80,"heightCm":35}]"""),
                ["bareGround"] = 5,
                ["litter"] = 10,
                ["minutes"] = 12,
                ["departure"] = "",
                ["note"] = "",
            },
            "writeSurveyText" => new()
            {
                ["surveyId"] = Survey,
                ["key"] = "do",
                ["text"] = "Cut after August.",
            },
            "keepReport" => new()
            {
                ["reportId"] = Guid.CreateVersion7(),
                ["surveyId"] = Survey,
                ["for"] = "the holder",
            },
            "takeIn" => new()
            {
                ["importId"] = _import,
                ["choices"] = new JsonObject
                {
                    ["fields"] = new JsonArray("taxon", "date"),
                    ["order"] = "dayFirst",
                    ["date"] = "2021",
                    ["placeId"] = Place,
                    ["recorder"] = Recorder,
                    ["names"] = new JsonArray(new JsonObject { ["given"] = "Alvena", ["meant"] = "Alvena montis" }),
                    ["places"] = new JsonArray(new JsonObject { ["given"] = "the moor", ["placeId"] = Place }),
                    ["keepsDoubles"] = false,
                },
                ["by"] = Recorder,
            },
            "takeBack" => new()
            {
                ["importId"] = _taken,
                ["reason"] = "twice",
                ["by"] = Recorder,
            },
            "keepTrack" => new()
            {
                ["trackId"] = Track,
                ["siteVisitId"] = SiteVisit,
                ["recorder"] = Recorder,
                ["startedAt"] = "2026-05-10T09:00:00Z",
                ["points"] = JsonNode.Parse("""[{"latitude":57.1,"longitude":-11.2,"accuracyMetres":4,"seconds":0}]"""),
                ["source"] = "receiver",
                ["file"] = "",
            },
            "keepDelivery" => new()
            {
                ["deliveryId"] = Guid.CreateVersion7(),
                ["partner"] = Guid.CreateVersion7().ToString(),
                ["scope"] = new JsonObject
                {
                    ["placeId"] = Place,
                    ["taxon"] = "",
                    ["isExact"] = false,
                },
                ["by"] = Recorder,
                ["note"] = "each spring",
            },
            "noteVerdict" => new()
            {
                ["partner"] = Partner,
                ["occurrenceId"] = Line,
                ["verdict"] = "queried",
                ["says"] = "Is there a picture?",
                ["on"] = "2026-05-12",
                ["by"] = Recorder,
            },
            "withdrawTrack" => new() { ["siteVisitId"] = SiteVisit, ["trackId"] = Track },
            "withdrawLine" => new() { ["siteVisitId"] = SiteVisit, ["lineId"] = Line },
            "closeSiteVisit" => new()
            {
                ["siteVisitId"] = SiteVisit,
                ["closing"] = JsonNode.Parse(
                    """{"endedAt":"16:15","completeness":"complete","group":"Vascular plants","level":"Species","sought":[{"taxon":"Alvena palus","area":"north ride","minutes":20,"observers":2,"note":""}],"ticks":["Looked for ticks"],"note":""}"""
                ),
            },
            "savePopulation" => new()
            {
                ["populationId"] = Guid.CreateVersion7(),
                ["placeId"] = Place,
                ["name"] = "east bank",
                ["taxon"] = "Alvena montis",
                ["bounds"] = "",
            },
            "countPopulation" => new()
            {
                ["countId"] = Guid.CreateVersion7(),
                ["populationId"] = Population,
                ["date"] = "2026-05-20",
                ["recorder"] = Recorder,
                ["unit"] = "individuals",
                ["number"] = 12,
                ["note"] = "",
            },
            "defineTerm" => new()
            {
                ["quality"] = JsonNode.Parse(
                    $$"""{"id":"odd-{{Guid.CreateVersion7()}}","name":"odd","kind":"categorical","applies":["any"],"unit":"","measures":[],"reliability":0.9,"detection":1,"effortSeconds":20,"tool":"lens","handling":"look","several":false,"definition":"Odd.","trap":"Odd.","states":[{"id":"one","name":"one","broader":"","near":"","terms":["one"],"definition":"One."},{"id":"two","name":"two","broader":"one","near":"","terms":["two"],"definition":"Two."}]}"""
                ),
            },
            "noteThreat" => new()
            {
                ["threatId"] = Guid.CreateVersion7(),
                ["populationId"] = Population,
                ["notedOn"] = "2026-05-20",
                ["text"] = "ditch clearing",
                ["actBy"] = "2026-09-01",
            },
            "recordDetermination" => new()
            {
                ["determinationId"] = Guid.CreateVersion7(),
                ["occurrenceId"] = Guid.CreateVersion7(),
                ["plantId"] = Guid.CreateVersion7(),
                ["plantLabel"] = "",
                ["placeId"] = Place,
                ["eventDate"] = "2026-05-20",
                ["recorder"] = Recorder,
                ["startKey"] = _key,
                ["answers"] = new JsonArray(
                    new JsonObject
                    {
                        ["keyVersion"] = _key,
                        ["couplet"] = "1",
                        ["lead"] = 0,
                    }
                ),
                ["names"] = new JsonArray("Alvena montis"),
                ["note"] = "",
                ["observations"] = new JsonArray(Fact),
                ["hand"] = new JsonArray(),
            },
            "saveKeys" => new() { ["text"] = "Key to Brontia\n1. Leaf entire ... Brontia lenta\n1. Leaf toothed ... Brontia alta\n" },
            "teachTerm" => new()
            {
                ["character"] = "margin",
                ["state"] = "entire",
                ["term"] = "smooth-edged" + Guid.NewGuid(),
            },
            "correctStatement" => new() { ["text"] = "Leaf entire", ["claims"] = new JsonArray() },
            _ => throw new ArgumentOutOfRangeException(nameof(kind)),
        };

    private static JsonNode Body(string address) =>
        address switch
        {
            "identify/sift" => new JsonObject
            {
                ["floraId"] = Flora,
                ["observations"] = new JsonArray(Look),
                ["sheet"] = new JsonArray(Fact),
                ["options"] = JsonNode.Parse(
                    """{"prior":"plausible","place":"B2","at":{"cell":"B2","elevation":10,"habitats":["heath"]},"date":"2026-05-10","tolerance":1,"tools":["lens"],"handling":"cut","missing":["flower"],"skip":["margin"],"narrowing":{"families":["Alvenaceae"],"growthForms":[],"genera":["Alvena"],"recordedHere":false,"taxa":["alvena-montis"]},"looks":true,"why":["alvena-palus"]}"""
                ),
            },
            "identify/contrast" => new JsonObject
            {
                ["floraId"] = Flora,
                ["taxa"] = new JsonArray("alvena-montis", "alvena-palus"),
                ["date"] = "2026-05-10",
                ["place"] = "B2",
                ["observations"] = new JsonArray(Look),
                ["sheet"] = new JsonArray(Fact),
                ["plants"] = new JsonArray(new JsonArray(Fact)),
            },
            "identify/confirm" => new JsonObject
            {
                ["floraId"] = Flora,
                ["taxon"] = "alvena-montis",
                ["observations"] = new JsonArray(Look),
                ["sheet"] = new JsonArray(Fact),
                ["at"] = JsonNode.Parse("""{"cell":"B2","elevation":10,"habitats":["heath"]}"""),
                ["date"] = "2026-05-10",
                ["ownRules"] = JsonNode.Parse(
                    """{"id":"own","name":"Own","text":"","rules":[{"grade":"reasoned"},{"grade":"corroborated","overAll":5},{"grade":"confirmed","diagnostics":1}]}"""
                ),
                ["planted"] = false,
                ["explanations"] = JsonNode.Parse("""[{"kind":"presence","text":"Nobody looked."}]"""),
                ["seconded"] = false,
                ["prior"] = "plausible",
            },
            "vocabulary/find" => new JsonObject { ["text"] = "petiole glands 2" },
            "vocabulary/part" => new JsonObject { ["part"] = "petiole/gland" },
            "identify/giveaways" => new JsonObject
            {
                ["floraId"] = Flora,
                ["at"] = JsonNode.Parse("""{"cell":"B2"}"""),
                ["date"] = "2026-05-10",
                ["narrowing"] = JsonNode.Parse("""{"families":["Alvenaceae"],"recordedHere":true}"""),
            },
            "identify/describe" => new JsonObject { ["floraId"] = Flora, ["taxa"] = new JsonArray("alvena-montis") },
            "surveys/statistics" => JsonNode.Parse(
                """{"kind":"individuals","samples":[{"sample":"A","taxon":"x","value":3},{"sample":"B","taxon":"y","value":1}],"rarefyTo":1}"""
            )!,
            "surveys/indicators" => JsonNode.Parse(
                """{"kind":"cover","samples":[{"sample":"a","taxon":"x","value":3},{"sample":"b","taxon":"x","value":1}],"groups":[{"sample":"a","group":"1"},{"sample":"b","group":"2"}]}"""
            )!,
            "surveys/arrangement" => JsonNode.Parse(
                """{"kind":"cover","samples":[{"sample":"A","taxon":"x","value":3},{"sample":"B","taxon":"y","value":1},{"sample":"C","taxon":"y","value":2}],"distance":"jaccard","axes":1}"""
            )!,
            "surveys/table" => JsonNode.Parse("""{"text":"plot\tx\ty\nA\t3\t1","layout":"samplesInRows","kind":"individuals"}""")!,
            "surveys/plots/lay" => JsonNode.Parse(
                """{"ground":{"outline":[{"latitude":57.0,"longitude":-11.0},{"latitude":57.0,"longitude":-11.01},{"latitude":57.01,"longitude":-11.0}],"parts":[],"entrances":[],"hazards":[],"leave":null},"placing":"random","count":3,"apartMetres":5,"seed":7}"""
            )!,
            "surveys/plots/name" => new JsonObject
            {
                ["floraId"] = Flora,
                ["typed"] = "al mo 12",
                ["scale"] = "percent",
                ["layer"] = "herbs",
                ["most"] = 6,
            },
            "identify/gradient" => new JsonObject { ["text"] = "plant;group;petiole\na;first;12\nb;second;30\nc;stand;20\n" },
            "identify/stand-gradient" => new JsonObject
            {
                ["floraId"] = Flora,
                ["plants"] = JsonNode.Parse("""[{"label":"1","names":["Alvena alba"]},{"label":"2","names":["Alvena nigra"]}]"""),
                ["first"] = "Alvena alba",
                ["second"] = "Alvena nigra",
            },
            "identify/stand" => new JsonObject
            {
                ["floraId"] = Flora,
                ["plants"] = JsonNode.Parse(
                    """[{"label":"1","observations":[{"character":"margin","states":["entire"]}]},{"label":"2"}]"""
                ),
                ["options"] = JsonNode.Parse("""{"strangers":{"sum":1.5,"plants":12},"date":"2026-05-10"}"""),
            },
            "surveys/design" => JsonNode.Parse("""{"deviation":2.5,"change":1,"chance":0.4,"wanted":0.95}""")!,
            "visits/names" => new JsonObject
            {
                ["floraId"] = Flora,
                ["typed"] = "al mo f",
                ["most"] = 8,
            },
            "visits/read" => new JsonObject { ["floraId"] = Flora, ["text"] = "1. Alvena montis f\n- al pa\nNothing known" },
            "visits/advice" => new JsonObject
            {
                ["floraId"] = Flora,
                ["date"] = "2026-05-20",
                ["lines"] = JsonNode.Parse(
                    """[{"id":"01900000-0000-7000-8000-0000000000b1","name":"Alvena montis","unnamed":"","plantId":null,"compartment":"","recorder":"Örn","at":"10:00","details":{"phase":"flower"},"supersedes":null,"isWithdrawn":false}]"""
                ),
                ["at"] = JsonNode.Parse("""{"cell":"B2","elevation":10,"habitats":["heath"]}"""),
                ["before"] = JsonNode.Parse("""[{"name":"Alvena palus","years":[2024,2025]}]"""),
                ["most"] = 30,
            },
            "identify/near" => new JsonObject { ["floraId"] = Flora, ["taxon"] = "alvena-montis" },
            "seasons/visits" => JsonNode.Parse(
                """{"from":"2026-05-10","needs":[{"id":"a","place":"Harrow","windows":[{"from":130,"to":150},{"from":350,"to":20}]},{"id":"b","place":"Harrow","windows":[]}]}"""
            )!,
            "seasons/visits/move" => JsonNode.Parse(
                """{"date":"2026-05-10","needs":[{"id":"a","place":"Harrow","windows":[{"from":130,"to":150}]}]}"""
            )!,
            "seasons/standings" => JsonNode.Parse(
                """{"date":"2026-05-10","questions":[{"id":"a","windows":[{"from":130,"to":150}],"lookedOn":"2026-05-01"}]}"""
            )!,
            "seasons/year" => JsonNode.Parse(
                """{"floraId":"odd-isle","date":"2026-05-10","taxa":["alvena-montis"],"cell":"B2","from":{"latitude":57,"longitude":-11,"elevationMetres":10},"to":{"latitude":57.5,"longitude":-11.2,"elevationMetres":300},"firsts":[{"taxon":"Alvena montis","phase":"flower","notYet":"2026-04-10","seen":"2026-04-15","site":{"latitude":57,"longitude":-11,"elevationMetres":10}}]}"""
            )!,
            "seasons/now" => JsonNode.Parse(
                """{"floraId":"odd-isle","date":"2026-05-10","places":[{"id":"01900000-0000-7000-8000-0000000000b1","name":"Harrow","cell":"B2"}],"firsts":[]}"""
            )!,
            "identify/figures" => JsonNode.Parse(
                """{"floraId":"odd-isle","figures":[{"name":"Alvena montis","character":"margin"}],"date":"2026-05-10"}"""
            )!,
            "keys/outlook" => new JsonObject
            {
                ["day"] = "2026-05-10",
                ["tools"] = new JsonArray("lens"),
                ["most"] = "touch",
                ["entries"] = new JsonArray(_key),
            },
            "descriptions/read" => new JsonObject { ["text"] = "Vellorna alba Hask. Shrub to 2 m. Leaves ovate, 3–8 cm." },
            "keys/reading" => new JsonObject { ["hash"] = _key },
            "keys/parting" => new JsonObject { ["names"] = new JsonArray("Vellorna alata", "Vellorna cinerea") },
            "keys/teaching" => new JsonObject
            {
                ["hash"] = _key,
                ["term"] = new JsonObject
                {
                    ["character"] = "leaf.margin",
                    ["state"] = "toothed",
                    ["term"] = "nicked",
                },
            },
            "vocabulary/looks" => new JsonObject { ["text"] = "leaves hairy, petiole 12 14 mm" },
            "keys/walk" => JsonNode.Parse(
                $$"""{"start":"{{_key}}","answers":[{"keyVersion":"{{_key}}","couplet":"1","lead":0,"sureness":"fairly"}]}"""
            )!,
            "keys/bench" => new JsonObject
            {
                ["start"] = _key,
                ["answers"] = new JsonArray(
                    new JsonObject
                    {
                        ["keyVersion"] = _key,
                        ["couplet"] = "1",
                        ["lead"] = null,
                    }
                ),
                ["observations"] = new JsonArray(Fact),
                ["hand"] = new JsonArray(),
                ["day"] = "2026-05-10",
            },
            _ => Command(address),
        };

    public static TheoryData<string> Addresses => [.. CoreCalls.All.Select(c => c.Address).OfType<string>()];

    public static TheoryData<string> Commands =>
        [
            "savePlace",
            "tagPlant",
            "visitPlant",
            "savePopulation",
            "countPopulation",
            "noteThreat",
            "describePlace",
            "mergePlace",
            "saveSiteVisit",
            "listTaxon",
            "withdrawLine",
            "closeSiteVisit",
            "keepTrack",
            "withdrawTrack",
            "keepDelivery",
            "noteVerdict",
            "saveSurvey",
            "savePlot",
            "recordPlot",
            "writeSurveyText",
            "keepReport",
            "takeIn",
            "takeBack",
            "defineTerm",
            "recordDetermination",
            "saveKeys",
            "teachTerm",
            "correctStatement",
        ];

    private static JsonNode?[] Oddities() =>
        [
            null,
            JsonValue.Create(-1),
            JsonValue.Create(99),
            JsonValue.Create(1e300),
            JsonValue.Create(""),
            JsonValue.Create("\u0000 odd ' \" <b>"),
            JsonValue.Create(new string('x', 5000)),
            JsonValue.Create("9999-12-31"),
            JsonValue.Create(true),
            new JsonArray(),
            new JsonArray((JsonNode?)null),
            new JsonObject(),
            new JsonArray(new JsonObject()),
        ];

    // Every place in a body: a field, or an element of a list.
    private static IEnumerable<object[]> Places(JsonNode? node, object[] path)
    {
        var inner = node switch
        {
            JsonObject o => o.Select(p => (Key: (object)p.Key, p.Value)),
            JsonArray a => a.Select((v, i) => (Key: (object)i, Value: v)),
            _ => [],
        };
        foreach (var (key, value) in inner.ToList())
        {
            object[] here = [.. path, key];
            yield return here;
            foreach (var deeper in Places(value, here))
                yield return deeper;
        }
    }

    private static void Put(JsonNode body, object[] path, JsonNode? value)
    {
        var at = body;
        foreach (var step in path.SkipLast(1))
            at = step is int i ? at![i]! : at![(string)step]!;
        if (path[^1] is int index)
            at![index] = value;
        else
            at![(string)path[^1]] = value;
    }

    private async Task NeverFallsOver(string address, Func<JsonNode> body, string what)
    {
        var sound = body();
        var (status, answer) = await server.PostAsync(address, sound);
        Assert.True(status == 200, $"{what}: {answer.ToJsonString()}");
        var failed = new List<string>();
        foreach (var path in Places(sound, []))
        {
            foreach (var oddity in Oddities())
            {
                var odd = body();
                Put(odd, path, oddity);
                var response = await server.Client.PostAsJsonAsync(address, odd, TestContext.Current.CancellationToken);
                var text = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
                var shown = oddity?.ToJsonString() ?? "null";
                if ((int)response.StatusCode >= 500)
                    failed.Add(
                        $"{what} {string.Join('.', path)} = {(shown.Length > 40 ? shown[..40] : shown)}: {(int)response.StatusCode}"
                    );
                else if (
                    !response.IsSuccessStatusCode
                    && (JsonNode.Parse(text)!["code"] is null || ((string?)JsonNode.Parse(text)!["detail"] ?? "").Length == 0)
                )
                    failed.Add($"{what} {string.Join('.', path)}: {text}");
            }
        }
        // What a list holds, once more behind it.
        foreach (var path in Places(sound, []).Where(p => p[^1] is 0))
        {
            var odd = body();
            var list = path.SkipLast(1).Aggregate(odd, (at, step) => step is int i ? at![i]! : at![(string)step]!).AsArray();
            list.Add(list[0]!.DeepClone());
            var response = await server.Client.PostAsJsonAsync(address, odd, TestContext.Current.CancellationToken);
            if ((int)response.StatusCode >= 500)
                failed.Add($"{what} {string.Join('.', path)} twice: {(int)response.StatusCode}");
        }
        Assert.True(failed.Count == 0, $"{failed.Count}:\n{string.Join('\n', failed.Take(60))}");
    }

    [Theory]
    [InlineData("records?taxon=%00")]
    [InlineData("records?place=%00")]
    [InlineData("records?after=%00&size=x")]
    [InlineData("records.csv?taxon=%00a")]
    [InlineData("plants?place=%00")]
    [InlineData("plants/%01%27")]
    [InlineData("keys/%01%27")]
    [InlineData("keys/%01%27/statements")]
    [InlineData("keys/shelf?with=%00")]
    [InlineData("keys/shelf/short?with=%00")]
    [InlineData("keys/shelf/packed?with=%00&with=~")]
    [InlineData("search?text=%00")]
    [InlineData("search?text=%25_%27--")]
    [InlineData("today?date=2026-02-30")]
    [InlineData("today?date=%00")]
    [InlineData("floras/%01%27/taxa")]
    [InlineData("floras/odd-isle/taxa?find=%00&family=%00")]
    [InlineData("floras/odd-isle/taxa?day=tomorrow&place=x&from=-5")]
    [InlineData("floras/odd-isle/taxa/%01%27")]
    [InlineData("floras/odd-isle/characters/%01%27")]
    [InlineData("floras/odd-isle/pack?version=-1")]
    [InlineData("floras/odd-isle/columns?version=99999999999999999999")]
    [InlineData("floras/odd-isle/sdd?version=0")]
    [InlineData("seasons/firsts?year=0")]
    [InlineData("seasons/firsts?year=99999")]
    [InlineData("seasons/visits.ics?from=%00&trips=2")]
    [InlineData("seasons/visits.ics?from=2026-13-01")]
    [InlineData("records?size=-1")]
    [InlineData("records?size=1000000000000")]
    public async Task AddressesThatMeanNothingAreAnsweredOrRefused(string address)
    {
        var response = await server.Client.GetAsync(new Uri("/api/v1/" + address, UriKind.Relative), TestContext.Current.CancellationToken);
        var text = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        Assert.True((int)response.StatusCode < 500, text);
        if (!response.IsSuccessStatusCode)
            Assert.NotEmpty((string)JsonNode.Parse(text)!["detail"]!);
    }

    [Theory]
    [InlineData("""{"commands":[null]}""", "$.commands[0]", "leave it out of the list")]
    [InlineData("""{"commands":[{"kind":"savePlace","habitats":["a",null]}]}""", "$.commands[0].habitats[1]", "leave it out of the list")]
    [InlineData("""{"commands":[[1,[2,null]]]}""", "$.commands[0][1][1]", "leave it out of the list")]
    [InlineData("""{"commands":[{}]}""", "", "of what kind")]
    [InlineData("""{"commands":[{"kind":"eatPlant"}]}""", "$.commands[0]", "It isn't the JSON")]
    [InlineData("""{"commands":""", "", "It isn't the JSON")]
    [InlineData("[]", "", "It isn't the JSON")]
    public async Task WhatIsUnsoundInABodyIsSaidAtItsPlace(string body, string field, string says)
    {
        var (status, problem) = await server.PostTextAsync("/api/v1/commands", new StringContent(body, Encoding.UTF8, "application/json"));
        Assert.Equal(400, status);
        Assert.Contains(says, (string)problem["detail"]!, StringComparison.Ordinal);
        if (field.Length > 0)
            Assert.StartsWith(field, (string)problem["field"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task JsonNestedWithoutEndIsRefused()
    {
        var (status, _) = await server.PostTextAsync(
            "/api/v1/identify/sift",
            new StringContent(new string('[', 100_000), Encoding.UTF8, "application/json")
        );
        Assert.Equal(400, status);
    }

    // A statement is prepared at its fifth use on a connection: whichever use of it a text that can't be kept comes to, the next one is
    // well.
    [Fact]
    public async Task ATextThatCantBeKeptSpoilsNothingForTheNext()
    {
        const int uses = 12;
        for (var sound = 0; sound < uses; sound++)
        {
            var odd = Command("recordDetermination");
            odd["startKey"] = "a\0b";
            var (refused, _) = await server.PostAsync("/api/v1/commands", new JsonObject { ["commands"] = new JsonArray(odd) });
            Assert.Equal(400, refused);
            for (var n = 0; n < sound % 3; n++)
            {
                var (status, answer) = await server.PostAsync(
                    "/api/v1/commands",
                    new JsonObject { ["commands"] = new JsonArray(Command("recordDetermination")) }
                );
                Assert.True(status == 200, answer.ToJsonString());
                Assert.Equal("applied", (string?)answer["results"]![0]!["status"]);
            }
        }
    }

    [Theory]
    [MemberData(nameof(Addresses))]
    public async Task WhateverIsAskedIsAnsweredOrRefusedWithItsReason(string address) =>
        await NeverFallsOver("/api/v1/" + address, () => Body(address), address);

    [Theory]
    [MemberData(nameof(Commands))]
    public async Task WhateverIsCommandedIsDoneOrRefusedWithItsReason(string kind) =>
        await NeverFallsOver("/api/v1/commands", () => new JsonObject { ["commands"] = new JsonArray(Command(kind)) }, kind);
}
