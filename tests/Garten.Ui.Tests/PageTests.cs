using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Quantities;
using Garten.Testing;
using Xunit;

namespace Garten.Ui.Tests;

public sealed class PageTests(GartenSite site) : IClassFixture<GartenSite>
{
    [Theory]
    [InlineData("paper")]
    [InlineData("night")]
    [InlineData("sun")]
    public async Task EveryPageIsAccessibleInEveryLook(string look)
    {
        var stop = TestContext.Current.CancellationToken;
        var key = (string)(await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/keys", stop))![0]!["hash"]!;
        var plant = (string)(await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/records?of=plants", stop))!["records"]![0]!["plantId"]!;
        var population = (string)
            (await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/populations", stop))!
                .AsArray()
                .First(p => p!["pegs"]!.AsArray().Count > 0)!["id"]!;
        var seen = (await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/site-visits", stop))![0]!;
        var (visit, place) = ((string)seen["id"]!, (string)seen["placeId"]!);
        var surveys = (await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/surveys", stop))!.AsArray();
        var survey = (string)surveys.First(s => (int)s!["plots"]! > 0)!["id"]!;
        var whole = (await site.Client.GetFromJsonAsync<JsonNode>($"/api/v1/surveys/{survey}", stop))!;
        var plot = (string)whole["plots"]![0]!["id"]!;
        var browser = site.Browse();
        browser.Open("/bench");
        browser.Run($"localStorage.setItem('garten.look','{look}')");
        // Colours are those of the look on every page: in the others every third page tells.
        foreach (
            var (path, text) in new[]
            {
                ("/bench", "Begin with a key"),
                ("/keys", "Paste a key"),
                ($"/keys/{key}", "Couplets"),
                ("/keys/new", "Try it with an example"),
                ("/records", "Export ▾"),
                ("/imports", "Choose a file"),
                ("/deliveries", "Pass records on"),
                ("/visits", "no fewer will do"),
                ($"/plants/{plant}", "Stands now"),
                ("/", "In season at your places"),
                ($"/plants/{plant}/visit", "What is seen of its characters?"),
                ("/plants", "Plants to come back to"),
                ($"/populations/{population}", "What becomes of them"),
                ("/seasons", "can be named by what they show"),
                ("/bench/nothing", "isn’t on this device"),
                ("/no/such/page", "nothing at this address"),
                ("/along", "Room on this device"),
                ("/devices", "Paired devices"),
                ("/figures", "Take the records kept here"),
                ("/figures/parents", "Put an example in"),
                ("/pair", "nothing has to be paired here"),
                ("/places", "I am here"),
                ("/site-visits", "Enter one afterwards"),
                ($"/site-visits/{visit}", "What the visit says"),
                ($"/site-visits/{visit}/end", "Before you leave"),
                ("/surveys", "Begin a survey"),
                ($"/surveys/{survey}", "This year"),
                ($"/surveys/{survey}/figures", "How constant each taxon is"),
                ($"/surveys/{survey}/report", "What was found, and how surely"),
                ($"/surveys/{survey}/plots/{plot}", "What was recorded"),
                ("/map", "recorded with a position"),
                ($"/map?place={place}", "within its boundary"),
                ("/diagnostic", "Diagnostic here: Torvane"),
                ("/flora", "75 taxa."),
                ("/glossary", "272 parts"),
                ("/hand", "Hand over without a network"),
            }.Where((_, at) => look == "paper" || at % 3 == 0)
        )
        {
            browser.Go(path);
            browser.UntilText(text);
            browser.ShouldBeAccessible();
        }
        browser.Go("/bench");
        browser.Click("Follow Key to the woody plants");
        browser.UntilText("24 taxa stand");
        browser.ShouldBeAccessible();
        browser.Press("0");
        browser.UntilText("under 1b");
        browser.ShouldBeAccessible();
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void TheCoreInTheBrowserReadsAndWalksAsTheNativeOne()
    {
        var browser = site.Browse();
        browser.Open("/keys");
        browser.UntilText("Paste a key");
        const string load =
            "const {dotnet}=await import(location.origin+'/_framework/dotnet.js');globalThis.core??=(await (await dotnet.create()).getAssemblyExports('Garten.Browser.dll')).Garten.Browser.CoreExports;";
        foreach (
            var file in Directory
                .EnumerateFiles(Path.Combine(Repository.Root, "tests", "Garten.Core.Tests", "Keys", "KeyTexts"))
                .Concat(Directory.EnumerateFiles(Path.Combine(Repository.Root, "demo", "keys")))
        )
        {
            var request = JsonSerializer.Serialize(new ReadKeyTextRequest(File.ReadAllText(file)), CoreJson.Default.ReadKeyTextRequest);
            var native = KeyTextReader.Read(File.ReadAllText(file));
            Assert.Equal(
                JsonSerializer.Serialize(native, CoreJson.Default.KeyReading),
                browser.Run(
                    load
                        + "return core.Call('readKeyText',arguments[0])".Replace(
                            "arguments[0]",
                            JsonSerializer.Serialize(request),
                            StringComparison.Ordinal
                        )
                )
            );
            if (!native.IsSound)
                continue;
            var versions = native.Keys.Select(k => new KeyVersion(KeyHash.Of(k), k)).ToList();
            var walk = new WalkRequest(versions[0].Hash, [new TrailAnswer(versions[0].Hash, versions[0].Key.Couplets[0].Label, null)]);
            var answer = browser.Run(
                load
                    + "core.FillShelf(Uint8Array.from(atob('"
                    + Convert.ToBase64String(ShelfFile.Write(new Shelf(versions, [], CharacterTable.Empty, [], [])))
                    + "'),c=>c.charCodeAt(0)));"
                    + "return core.Call('walk',"
                    + JsonSerializer.Serialize(JsonSerializer.Serialize(walk, CoreJson.Default.WalkRequest))
                    + ")"
            );
            Assert.Equal(
                JsonSerializer.Serialize(KeyWalk.Follow(new KeyShelf(versions), walk.Start, walk.Answers), CoreJson.Default.WalkState),
                answer
            );
        }
    }

    [Fact]
    public void ATextOfTenThousandCoupletsNeitherStopsThePageNorIsRefused()
    {
        var browser = site.Browse();
        browser.Open("/keys/new");
        browser.Find("textarea[aria-invalid=false]:enabled");
        // Typed at once, as from the clipboard; meanwhile the page's own thread must go on.
        browser.Run(
            """
            let text='Key to a long row\n';
            for(let i=1;i<=10000;i++) text+=`${i}a. Red ... Vellorna alba\n${i}b. Blue ... ${i===10000?'Vellorna nigra':i+1}\n`;
            const area=document.querySelector('textarea[aria-invalid=false]');
            Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype,'value').set.call(area,text);
            area.dispatchEvent(new Event('input',{bubbles:true}));
            """
        );
        browser.UntilText("10000 couplets, 2 taxa");
        browser.UntilText("✓ Sound");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public async Task ANewVersionOfAKeyIsNotBegunFromAnotherTextWhileTheServerIsAway()
    {
        var key = (string)
            (await site.Client.GetFromJsonAsync<JsonNode>("/api/v1/keys", TestContext.Current.CancellationToken))![0]!["hash"]!;
        var browser = site.Browse();
        browser.Open("/keys/new");
        browser
            .Find("textarea[aria-invalid=false]:enabled")
            .SendKeys("Key to something else\n\n1. Leaves opposite ... Vellorna alata\n1. Leaves alternate ... Carpessa rubra");
        browser.UntilText("✓ Sound");
        site.Relay.TakeAway();
        try
        {
            browser.Open($"/keys/new?from={key}");
            browser.UntilText("doesn’t answer now");
            Assert.False(browser.Find("textarea[aria-invalid=false]").Enabled);
            Assert.DoesNotContain(
                "something else",
                browser.Find("textarea[aria-invalid=false]").GetAttribute("value"),
                StringComparison.Ordinal
            );
        }
        finally
        {
            site.Relay.BringBack();
        }
        browser.Open($"/keys/new?from={key}");
        browser.Find("textarea[aria-invalid=false]:enabled");
        browser.UntilText("✓ Sound");
        // The text that was begun before is still there.
        browser.Open("/keys/new");
        browser.UntilText("Key to something else");
        // Each way back is to the text of its own key, also without the page being loaded anew.
        browser.Run($"history.pushState(null,'','/keys/new?from={key}');dispatchEvent(new PopStateEvent('popstate'));return ''");
        browser.Until(
            () =>
                browser.Find("textarea[aria-invalid=false]:enabled").GetAttribute("value") is { Length: > 0 } text
                && !text.Contains("something else", StringComparison.Ordinal),
            "the text of the key"
        );
        browser.Run("history.back();return ''");
        browser.Until(
            () =>
                browser
                    .Find("textarea[aria-invalid=false]:enabled")
                    .GetAttribute("value")
                    ?.Contains("something else", StringComparison.Ordinal) == true,
            "what was typed for a new key"
        );
    }

    [Fact]
    public async Task TheSameSheetGivesTheSameNumbersInTheBrowserAsNatively()
    {
        var json = await site.Client.GetStringAsync("/api/v1/keys/shelf", TestContext.Current.CancellationToken);
        var shelf = JsonSerializer.Deserialize(json, CoreJson.Default.Shelf)!.Ready();
        var browser = site.Browse();
        browser.Open("/keys");
        browser.UntilText("Paste a key");
        Observation Look(string character, string[] states, params double[] values) =>
            new(
                Guid.CreateVersion7(),
                character,
                Outcome.Seen,
                states,
                false,
                [.. values.Select(v => new Reading(v, "", 1))],
                0,
                0,
                Sureness.Fairly,
                new ObservationContext(Light: Light.Shade),
                Tool.Ruler,
                "2026-07-01",
                ""
            );
        Observation[] sheet =
        [
            Look("leaf-length", [], 72, 81, 79),
            Look("leaf-width", [], 60, 66, 71),
            Look("leaf-base", ["rounded", "heart"]),
            Look("tooth-number", [], 11, 14),
            Look("fruit-hairs", ["hairy"]),
        ];
        foreach (var key in shelf.Keys.Versions)
        {
            var request = new BenchRequest(key.Hash, [new TrailAnswer(key.Hash, key.Key.Couplets[0].Label, 1)], sheet, [], "2026-07-01");
            var native = JsonNode.Parse(JsonSerializer.Serialize(request.Follow(shelf), CoreJson.Default.BenchState));
            var answer = browser.Run(
                "const {dotnet}=await import(location.origin+'/_framework/dotnet.js');globalThis.core??=(await (await dotnet.create()).getAssemblyExports('Garten.Browser.dll')).Garten.Browser.CoreExports;"
                    + "globalThis.filled??=core.FillShelf(new Uint8Array(await (await fetch('/api/v1/keys/shelf/packed')).arrayBuffer()));return core.Call('bench',arguments[0])",
                JsonSerializer.Serialize(request, CoreJson.Default.BenchRequest)
            );
            Alike(native, JsonNode.Parse(answer), key.Key.Title);
        }
    }

    [Fact]
    public async Task SiftingGivesTheSameNumbersInTheBrowserAsOnTheServer()
    {
        var browser = site.Browse();
        browser.Open("/keys");
        browser.UntilText("Paste a key");
        const string load =
            "const {dotnet}=await import(location.origin+'/_framework/dotnet.js');globalThis.core??=(await (await dotnet.create()).getAssemblyExports('Garten.Browser.dll')).Garten.Browser.CoreExports;"
            + "globalThis.held??=core.LoadFlora(new Uint8Array(await (await fetch('/api/v1/floras/torvane/columns')).arrayBuffer()));";
        const string seen =
            "\"observations\":[{\"character\":\"leaf-length\",\"values\":[72,81,79]},{\"character\":\"leaf-margin\",\"states\":[\"toothed\"]},{\"character\":\"flower-colour\",\"states\":[\"yellow\",\"white\"],\"sureness\":\"fairly\"}]";
        foreach (
            var (path, method, request) in new[]
            {
                (
                    "sift",
                    "sift",
                    $$"""{"floraId":"torvane",{{seen}},"options":{"prior":"plausible","date":"2026-06-10","at":{"cell":"C2","elevation":90,"habitats":["meadow"]} } }"""
                ),
                ("sift", "sift", "{\"floraId\":\"torvane\"}"),
                (
                    "contrast",
                    "contrast",
                    $$"""{"floraId":"torvane","taxa":["crepessa-laevis","crepessa-hirsuta","senecorra-radiata"],"date":"2026-06-10",{{seen}} }"""
                ),
                ("giveaways", "giveaways", "{\"floraId\":\"torvane\",\"date\":\"2026-06-10\"}"),
                ("near", "near", "{\"floraId\":\"torvane\",\"taxon\":\"vellorna-alata\"}"),
                (
                    "../seasons/year",
                    "year",
                    "{\"floraId\":\"torvane\",\"date\":\"2026-06-10\",\"cell\":\"C2\",\"from\":{\"latitude\":57.4,\"longitude\":-11.2,\"elevationMetres\":3},\"to\":{\"latitude\":57.5,\"longitude\":-11.1,\"elevationMetres\":320}}"
                ),
            }
        )
        {
            var response = await site.Client.PostAsync(
                $"/api/v1/identify/{path}",
                new StringContent(request, System.Text.Encoding.UTF8, "application/json"),
                TestContext.Current.CancellationToken
            );
            var native = JsonNode.Parse(await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
            Alike(native, JsonNode.Parse(browser.Run(load + $"return core.Call('{method}',arguments[0])", request)), path);
        }
    }

    // Texts and numbers of both, a number within 1e-9 of its size.
    private static void Alike(JsonNode? expected, JsonNode? actual, string at)
    {
        switch (expected)
        {
            case JsonObject own:
                foreach (var (name, value) in own)
                    Alike(value, actual!.AsObject()[name], $"{at}.{name}");
                break;
            case JsonArray list:
                Assert.Equal(list.Count, actual!.AsArray().Count);
                for (var i = 0; i < list.Count; i++)
                    Alike(list[i], actual.AsArray()[i], $"{at}[{i}]");
                break;
            case JsonValue value when value.GetValueKind() == JsonValueKind.Number:
                var (a, b) = (value.GetValue<double>(), actual!.GetValue<double>());
                Assert.True(Math.Abs(a - b) <= 1e-9 * Math.Max(1, Math.Abs(a)), $"{at}: {a} natively, {b} in the browser");
                break;
            default:
                Assert.Equal(expected?.ToJsonString(), actual?.ToJsonString());
                break;
        }
    }
}
