using System.Buffers.Binary;
using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Garten.Testing;
using OpenQA.Selenium;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>What was typed is never lost: what the server refuses stays until somebody has seen to it; and every sign on a page is
/// drawn.</summary>
public sealed partial class HandTests(GartenSite site) : IClassFixture<GartenSite>
{
    private const string Recorder = """{"id":"0197a1c0-5b00-7a11-9c3e-2f6f6b1d0d01","name":"Ilse Marrin"}""";

    // Commands on their way, as the pages queue them.
    internal const string Queue = """
        const commands=JSON.parse(arguments[0]);
        const db=await new Promise((ok,no)=>{const r=indexedDB.open('garten');r.onsuccess=()=>ok(r.result);r.onerror=no});
        const t=db.transaction('outbox','readwrite');
        for(const command of commands)t.objectStore('outbox').add({id:command.id,command});
        await new Promise(ok=>t.oncomplete=ok);
        db.close();
        return 'queued';
        """;

    // The same for one at which the server has failed four times already, sent by itself.
    private static readonly string QueueFailing = Queue.Replace(
        "{id:command.id,command}",
        "{id:command.id,command,failures:4,alone:true}",
        StringComparison.Ordinal
    );

    // The same with what each brings into being, by its id.
    private static readonly string QueueCreating = Queue.Replace(
        "{id:command.id,command}",
        "{id:command.id,command,creates:JSON.parse(arguments[1])[command.id]}",
        StringComparison.Ordinal
    );

    // Of each look on the sheets of this device: its character and states.
    private const string Sheets = """
        const db=await new Promise((ok,no)=>{const r=indexedDB.open('garten');r.onsuccess=()=>ok(r.result);r.onerror=no});
        const all=await new Promise(ok=>{const r=db.transaction('walks').objectStore('walks').getAll();r.onsuccess=()=>ok(r.result)});
        db.close();
        const gone=o=>o.withdrawn;
        return all.flatMap(w=>{const s=w.observations??[];const past=new Set(s.map(o=>o.supersedes));return s.filter(o=>!gone(o)&&!past.has(o.id)).map(o=>o.character+'='+o.states.join('+'))}).sort().join(' ');
        """;

    private async Task<string> IdAsync(string address) =>
        (string)
            (
                (JsonArray)
                    JsonNode.Parse(
                        await site.Client.GetStringAsync(
                            new Uri("/api/v1/" + address, UriKind.Relative),
                            TestContext.Current.CancellationToken
                        )
                    )!
            )[0]!["id"]!;

    // What is saved as a file is kept in the page as well.
    private const string Catch = """
        const save=URL.createObjectURL.bind(URL);
        window.saved='';
        URL.createObjectURL=blob=>{blob.text().then(text=>window.saved=text);return save(blob)};
        return 'ready';
        """;

    /// <summary>What waits goes to another device as a locked file, and from there to the server, once however often it is taken
    /// in.</summary>
    [Fact]
    public async Task WhatWaitsGoesToAnotherDeviceAsAFileAndCountsOnce()
    {
        var (place, plant) = (Guid.CreateVersion7().ToString(), Guid.CreateVersion7().ToString());
        string[] commands =
        [
            $$"""{"kind":"savePlace","id":"{{Guid.CreateVersion7()}}","placeId":"{{place}}","name":"Carried Cove","locality":"","latitude":57.4,"longitude":-11.2,"uncertaintyMetres":5,"caution":""}""",
            $$"""{"kind":"tagPlant","id":"{{Guid.CreateVersion7()}}","plantId":"{{plant}}","placeId":"{{place}}","label":"tag 101","taggedOn":"2026-05-02","recorder":{{Recorder}}}""",
        ];
        var file = Path.Combine(Directory.CreateTempSubdirectory("garten-hand-").FullName, "waiting.json");
        var browser = site.Browse();
        browser.Open("/hand");
        browser.UntilText("Hand over without a network");
        site.Relay.TakeAway();
        try
        {
            browser.Run(Queue, "[" + string.Join(',', commands) + "]");
            browser.Open("/hand");
            browser.UntilText("Waiting to be sent: 2.");
            browser.Run(Catch);
            browser.Type("Pass-phrase", "wet boots");
            browser.Click("Save what waits as a file");
            browser.UntilText("2 changes are in the file, locked");
            browser.ShouldBeAccessible();
            var saved = "";
            browser.Until(() => (saved = browser.Run("return window.saved")).Length > 0, "the file");
            Assert.DoesNotContain("Carried Cove", saved, StringComparison.Ordinal);
            await File.WriteAllTextAsync(file, saved, TestContext.Current.CancellationToken);
            // The server opens it as another device does.
            Assert.Equal(2, Formats.HandOverFile.Read(saved, "wet boots").Commands.Count);

            browser = site.Browse();
            browser.Open("/hand");
            browser.UntilText("Hand over without a network");
            browser.Find("input[type=file]").SendKeys(file);
            browser.UntilText("This file is locked: give its pass-phrase.");
            browser.Open("/hand");
            browser.Type("Pass-phrase", "dry boots");
            browser.Find("input[type=file]").SendKeys(file);
            browser.UntilText("This pass-phrase doesn’t open it");
            browser.Open("/hand");
            TakeIn(browser, file, "2 changes were taken in.");
            browser.Open("/hand");
            TakeIn(browser, file, "0 changes were taken in; 2 waited here already.");
            await File.WriteAllTextAsync(file, saved[..^20], TestContext.Current.CancellationToken);
            browser.Open("/hand");
            TakeIn(browser, file, "it is cut off, or another kind of file");
            await File.WriteAllTextAsync(
                file,
                """{"format":"garten-hand-over","version":1,"commands":[{"command":{"kind":"recordDetermination","id":"x"}}]}""",
                TestContext.Current.CancellationToken
            );
            browser.Open("/hand");
            TakeIn(browser, file, "Entry 1 of this file can’t be read.");
            browser.UntilText("Waiting to be sent: 2.");
            await File.WriteAllTextAsync(file, saved, TestContext.Current.CancellationToken);
        }
        finally
        {
            site.Relay.BringBack();
        }
        await site.UntilServedAsync("/api/v1/plants?text=tag%20101", "tag 101");
        // Once more, when the server has it all.
        browser.Open("/hand");
        TakeIn(browser, file, "2 changes were taken in.");
        browser.Until(() => !browser.Text.Contains("waiting", StringComparison.Ordinal), "all to be sent");
        browser.UntilText("Nothing. What the server refuses");
        Assert.Equal(1, Occurrences(await ServedAsync("places"), "Carried Cove"));
        Assert.Equal(1, Occurrences(await ServedAsync("plants?text=tag%20101"), "\"tag 101\""));
        browser.ShouldHaveNoErrors();
    }

    private static void TakeIn(Browser browser, string file, string said)
    {
        browser.Type("Pass-phrase", "wet boots");
        browser.Find("input[type=file]").SendKeys(file);
        browser.UntilText(said);
    }

    private Task<string> ServedAsync(string address) =>
        site.Client.GetStringAsync(new Uri("/api/v1/" + address, UriKind.Relative), TestContext.Current.CancellationToken);

    private static int Occurrences(string text, string of) => text.Split(of).Length - 1;

    // One of each kind, each with something that the server refuses, and a text that must come back into its form.
    private async Task<List<(JsonObject Command, string Typed)>> RefusedOnesAsync()
    {
        var (place, plant, population) = (await IdAsync("places"), await IdAsync("plants"), await IdAsync("populations"));
        static string Own() => Guid.CreateVersion7().ToString();
        (string Json, string Typed)[] all =
        [
            (
                $$"""{"kind":"savePlace","placeId":"{{Own()}}","name":"Far Skerry","locality":"","latitude":57.4,"longitude":-11.2,"uncertaintyMetres":-5,"caution":""}""",
                "Far Skerry"
            ),
            (
                $$"""{"kind":"tagPlant","plantId":"{{Own()}}","placeId":"{{place}}","label":"peg 77","taggedOn":"2031-05-02","recorder":{{Recorder}}}""",
                "peg 77"
            ),
            (
                $$"""{"kind":"visitPlant","visitId":"{{Own()}}","plantId":"{{plant}}","date":"2031-05-02","recorder":{{Recorder}},"state":"alive","note":"in full flower"}""",
                "in full flower"
            ),
            (
                $$"""{"kind":"savePopulation","populationId":"{{Own()}}","placeId":"{{Own()}}","name":"Alder patch","taxon":"Erissa ciliata","bounds":"from wall to ditch"}""",
                "from wall to ditch"
            ),
            (
                $$"""{"kind":"countPopulation","countId":"{{Own()}}","populationId":"{{population}}","date":"2031-01-01","recorder":{{Recorder}},"unit":"individuals","number":3791,"note":"with two lenses"}""",
                "with two lenses"
            ),
            (
                $$"""{"kind":"noteThreat","threatId":"{{Own()}}","populationId":"{{population}}","notedOn":"2031-01-01","text":"the ditch is cleared","actBy":""}""",
                "the ditch is cleared"
            ),
            (
                $$"""{"kind":"recordDetermination","determinationId":"{{Own()}}","occurrenceId":"{{Own()}}","plantId":"{{Own()}}","plantLabel":"second hazel","placeId":"{{place}}","eventDate":"2031-02-02","recorder":{{Recorder}},"startKey":"","answers":[],"names":["Erissa ciliata"],"note":"near the stile","observations":[],"hand":[]}""",
                "Refused as Erissa ciliata"
            ),
            ("""{"kind":"saveKeys","text":"1 Leaves rusty ... 2\n- Leaves green ... 7\n"}""", "Leaves rusty"),
            ("""{"kind":"teachTerm","character":"nobody","state":"none","term":"rusty-felted"}""", "rusty-felted"),
            (
                """{"kind":"correctStatement","text":"leaves rusty below","claims":[{"character":"nobody","states":[],"low":0,"high":1,"negated":false}]}""",
                "leaves rusty below"
            ),
        ];
        return
        [
            .. all.Select(a =>
            {
                var command = JsonNode.Parse(a.Json)!.AsObject();
                command["id"] = Own();
                return (command, a.Typed);
            }),
        ];
    }

    [Fact]
    public async Task WhatIsRefusedStaysWithItsReasonAndIsMendedInItsForm()
    {
        var all = await RefusedOnesAsync();
        var browser = site.Browse();
        browser.Open("/");
        browser.UntilText("In season");
        Assert.Equal("queued", browser.Run(Queue, JsonSerializer.Serialize(all.Select(a => a.Command))));
        browser.Open("/");
        browser.UntilText("10 changes need your hand");
        browser.ShouldBeAccessible();
        // It is still there after the page was opened again, in every form that it came from.
        browser.Open("/hand");
        browser.Until(() => browser.All("article").Count == all.Count, "all that was refused");
        Assert.All(browser.All("article"), a => Assert.Contains("✕", a.Text, StringComparison.Ordinal));
        browser.ShouldBeAccessible();
        for (var i = 0; i < all.Count; i++)
        {
            browser.Open("/hand");
            browser.Until(() => browser.All("article").Count == all.Count, "all that was refused");
            browser.All("article button")[i * 4].Click();
            var typed = all[i].Typed;
            browser.Until(
                () =>
                    browser.Text.Contains(typed, StringComparison.Ordinal)
                    || browser.All("input,textarea").Any(e => (e.GetAttribute("value") ?? "").Contains(typed, StringComparison.Ordinal)),
                $"the form with “{typed}”"
            );
        }

        // Mended, it is kept and gone from here; discarded, it can be had back.
        browser.Size(390, 844, touch: true);
        browser.Open("/hand");
        browser.Until(() => browser.All("article").Count == all.Count, "all that was refused");
        browser.ShouldFitTheScreen();
        browser.All("article button")[0].Click();
        var metres = browser.Find("[role=dialog] input[value='-5']");
        metres.SendKeys(Keys.Control + "a" + Keys.Null + "25");
        browser.Find("[role=dialog] button[type=submit]").Click();
        browser.Until(() => browser.All("article").Count == all.Count - 1, "the place gone from what was refused");
        // It goes from what was refused as soon as it is on its way.
        var stop = TestContext.Current.CancellationToken;
        await site.UntilServedAsync("/api/v1/places", "Far Skerry");
        browser.All("article button")[3].Click();
        browser.Until(() => browser.All("article").Count == all.Count - 2, "the discarded one gone");
        browser.Click("Undo");
        browser.Until(() => browser.All("article").Count == all.Count - 1, "the discarded one back");
        browser.ShouldHaveNoErrors();
    }

    /// <summary>A week of commands that the server will refuse, the browser ended meanwhile: all of it is there, and what hangs on a
    /// refused one waits for it.</summary>
    [Fact]
    public async Task AfterAWeekWithoutSignalAndARestartAllThatIsRefusedIsThere()
    {
        var stop = TestContext.Current.CancellationToken;
        var all = await RefusedOnesAsync();
        var (place, plant) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        all[0].Command["placeId"] = place;
        var hanging = new[]
        {
            $$"""{"kind":"tagPlant","id":"{{Guid.CreateVersion7()}}","plantId":"{{plant}}","placeId":"{{place}}","label":"peg on the skerry","taggedOn":"2026-05-02","recorder":{{Recorder}}}""",
            $$"""{"kind":"visitPlant","id":"{{Guid.CreateVersion7()}}","visitId":"{{Guid.CreateVersion7()}}","plantId":"{{plant}}","date":"2026-05-09","recorder":{{Recorder}},"state":"alive","note":"seen again from the boat"}""",
        };
        using var browser = new Browser(site.Address);
        browser.Open("/plants");
        browser.UntilText("last seen on");
        site.Relay.TakeAway();
        Assert.Equal(
            "queued",
            browser.Run(
                QueueCreating,
                $"[{string.Join(',', all.Select(a => a.Command.ToJsonString()).Concat(hanging))}]",
                $$"""{"{{all[0].Command["id"]}}":["{{place}}"],"{{JsonNode.Parse(hanging[0])!["id"]}}":["{{plant}}"]}"""
            )
        );
        // What was done out of reach shows at once, at the place that waits like it.
        browser.Open("/plants");
        browser.UntilText("peg on the skerry");
        browser.UntilText("on this device, waiting to be sent");
        browser.Go($"/plants/{plant}");
        browser.UntilText("seen again from the boat");
        browser.UntilText("Tagged on 2 May 2026");
        browser.Restart();
        site.Relay.BringBack();
        browser.Open("/hand");
        browser.Until(() => browser.All("article").Count == all.Count, "all that was refused");
        browser.Restart();
        browser.Open("/hand");
        browser.Until(() => browser.All("article").Count == all.Count, "all that was refused, after another start");
        Assert.DoesNotContain(
            "peg on the skerry",
            await site.Client.GetStringAsync(new Uri("/api/v1/plants", UriKind.Relative), stop),
            StringComparison.Ordinal
        );
        // The place mended, the plant tagged there and its visit go on by themselves.
        browser.All("article button")[0].Click();
        browser.Find("[role=dialog] input[value='-5']").SendKeys(Keys.Control + "a" + Keys.Null + "25");
        browser.Find("[role=dialog] button[type=submit]").Click();
        browser.Until(() => browser.All("article").Count == all.Count - 1, "the place gone from what was refused");
        await site.UntilServedAsync("/api/v1/plants", "peg on the skerry");
        browser.Open($"/plants/{plant}");
        browser.UntilText("seen again from the boat");
    }

    /// <summary>Sent together with the place that is refused, a plant tagged there isn't refused with it: it waits, and goes out when the
    /// place is mended.</summary>
    [Fact]
    public async Task WhatHangsOnARefusedOneInItsBatchWaitsForIt()
    {
        var (place, plant, command) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var queue = $$"""
            [{"kind":"savePlace","id":"{{command}}","placeId":"{{place}}","name":"Near Skerry","locality":"","latitude":57.4,"longitude":-11.2,"uncertaintyMetres":-5,"caution":""},
            {"kind":"tagPlant","id":"{{Guid.CreateVersion7()}}","plantId":"{{plant}}","placeId":"{{place}}","label":"peg near by","taggedOn":"2026-05-02","recorder":{{Recorder}}}]
            """;
        var browser = site.Browse();
        browser.Open("/plants");
        browser.UntilText("Tag a plant");
        Assert.Equal("queued", browser.Run(QueueCreating, queue, $$"""{"{{command}}":["{{place}}"]}"""));
        browser.Open("/hand");
        browser.UntilText("Near Skerry");
        browser.UntilText("Waiting to be sent: 1");
        Assert.Single(browser.All("article"));
        browser.All("article button")[0].Click();
        browser.Find("[role=dialog] input[value='-5']").SendKeys(Keys.Control + "a" + Keys.Null + "25");
        browser.Find("[role=dialog] button[type=submit]").Click();
        await site.UntilServedAsync("/api/v1/plants?text=peg near", "peg near by");
        browser.Until(() => browser.All("article").Count == 0, "nothing left to be seen to");
    }

    /// <summary>Two tabs share one queue: each change goes out once.</summary>
    [Fact]
    public async Task TwoTabsSendEachChangeOnce()
    {
        var place = await IdAsync("places");
        var browser = site.Browse();
        browser.Open("/plants");
        browser.UntilText("Tag a plant");
        site.Relay.TakeAway();
        browser.Beside("/plants");
        var tags = Enumerable
            .Range(0, 6)
            .Select(i =>
                $$"""{"kind":"tagPlant","id":"{{Guid.CreateVersion7()}}","plantId":"{{Guid.CreateVersion7()}}","placeId":"{{place}}","label":"twin {{i}}","taggedOn":"2026-05-02","recorder":{{Recorder}}}"""
            );
        Assert.Equal("queued", browser.Run(Queue, $"[{string.Join(',', tags)}]"));
        site.Relay.BringBack();
        browser.Open("/plants");
        browser.OtherTab();
        browser.Open("/plants");
        browser.UntilText("twin 5");
        browser.OtherTab();
        browser.UntilText("twin 5");
        const string sent = "return String(performance.getEntriesByType('resource').filter(e=>e.name.endsWith('/commands')).length)";
        var first = int.Parse(browser.Run(sent), CultureInfo.InvariantCulture);
        browser.OtherTab();
        var second = int.Parse(browser.Run(sent), CultureInfo.InvariantCulture);
        Assert.True(first + second <= 6, $"{first} and {second} requests for 6 changes");
        Assert.DoesNotContain("need your hand", browser.Text, StringComparison.Ordinal);
        var plants = (JsonArray)
            JsonNode.Parse(
                await site.Client.GetStringAsync(new Uri("/api/v1/plants", UriKind.Relative), TestContext.Current.CancellationToken)
            )!;
        Assert.Equal(6, plants.Count(p => ((string)p!["label"]!).StartsWith("twin ", StringComparison.Ordinal)));
        browser.CloseOtherTab();
    }

    /// <summary>What the server fails at again and again while it is well needs a hand; what doesn't depend on it goes on.</summary>
    [Fact]
    public async Task WhatTheServerFailsAtFiveTimesStandsUnderNeedsYourHand()
    {
        var place = await IdAsync("places");
        await using var source = Npgsql.NpgsqlDataSource.Create(site.ConnectionString);
        var stop = TestContext.Current.CancellationToken;
        await source
            .CreateCommand(
                """
                create function fail_at_doomed() returns trigger language plpgsql as $$ begin if new.label = 'doomed' then raise exception 'doomed' using errcode = 'XX001'; end if; return new; end $$;
                create trigger fail_at_doomed before insert on plant for each row execute function fail_at_doomed();
                """
            )
            .ExecuteNonQueryAsync(stop);
        string Tag(string label) =>
            $$"""[{"kind":"tagPlant","id":"{{Guid.CreateVersion7()}}","plantId":"{{Guid.CreateVersion7()}}","placeId":"{{place}}","label":"{{label}}","taggedOn":"2026-05-02","recorder":{{Recorder}}}]""";
        var browser = site.Browse();
        browser.Open("/plants");
        browser.UntilText("Tag a plant");
        Assert.Equal("queued", browser.Run(QueueFailing, Tag("doomed")));
        Assert.Equal("queued", browser.Run(Queue, Tag("spared")));
        browser.Open("/plants");
        browser.UntilText("spared");
        browser.UntilText("One change needs your hand");
        browser.Open("/hand");
        browser.UntilText("The server fails at these");
        browser.ShouldBeAccessible();
        await source.CreateCommand("drop trigger fail_at_doomed on plant").ExecuteNonQueryAsync(stop);
        browser.Click("Try now");
        browser.Until(() => browser.All("article").Count == 0, "nothing left to be seen to");
        await site.UntilServedAsync("/api/v1/plants", "doomed");
    }

    /// <summary>After a restore the database is another one: a device that knew the one before says so until somebody has seen
    /// it.</summary>
    [Fact]
    public async Task ADeviceTellsThatTheServerWasSetBack()
    {
        var browser = site.Browse();
        browser.Open("/plants");
        const string known =
            "const db=await new Promise(ok=>{const r=indexedDB.open('garten');r.onsuccess=()=>ok(r.result)});const e=await new Promise(ok=>{const r=db.transaction('kept').objectStore('kept').get('epoch');r.onsuccess=()=>ok(r.result)});db.close();return e??'none'";
        browser.UntilText("Tag a plant");
        browser.Until(() => browser.Run(known) != "none", "the device having met the server");
        await using (var source = Npgsql.NpgsqlDataSource.Create(site.ConnectionString))
        {
            await source
                .CreateCommand("insert into epoch (id) values (gen_random_uuid())")
                .ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
        }
        browser.Open("/plants");
        browser.UntilText("The server was set back to a copy");
        browser.Click("I have seen it");
        browser.Until(() => !browser.Text.Contains("set back", StringComparison.Ordinal), "the note gone");
        browser.Open("/plants");
        browser.UntilText("Tag a plant");
        Assert.DoesNotContain("set back", browser.Text, StringComparison.Ordinal);
    }

    // A plant in hand on the way through a key, of which one thing was seen.
    private Browser WithAToothedLeaf()
    {
        var browser = site.Browse();
        browser.Open("/bench");
        browser.Click("Follow Key to the woody plants");
        browser.UntilText("24 taxa stand");
        browser.Click("Leaf");
        browser.UntilText("margin of the leaf");
        State(browser, "toothed");
        return browser;
    }

    /// <summary>Browsers clear stores by themselves: that is said, and what waited is back out of its second copy; where the browser has
    /// cleared that too, how much was lost.</summary>
    [Theory]
    [InlineData(true, "1 change that waited to be sent is back out of a second copy.")]
    [InlineData(false, "1 change that waited to be sent went with it.")]
    public void AStoreThatTheBrowserClearedIsSaid(bool hasCopy, string said)
    {
        var browser = WithAToothedLeaf();
        browser.Until(() => browser.Run(Sheets) == "leaf-margin=toothed", "the look");
        browser.Open("/plants");
        browser.UntilText("Tag a plant");
        site.Relay.TakeAway();
        try
        {
            const string place = "01a00000-0000-7000-8000-000000000001";
            var tag =
                $$"""[{"kind":"tagPlant","id":"{{Guid.CreateVersion7()}}","plantId":"{{Guid.CreateVersion7()}}","placeId":"{{place}}","label":"gone","taggedOn":"2026-05-02","recorder":{{Recorder}}}]""";
            Assert.Equal("queued", browser.Run(Queue, tag));
            browser.Open("/plants");
            browser.UntilText("Waiting to be sent: 1.");
            // Anything that is told of notes what waits.
            browser.Run("new BroadcastChannel('garten-outbox').postMessage({kind:'changed',taken:false});return 'told'");
            browser.Until(() => browser.Run("return localStorage.getItem('garten-waiting')??''") == "1", "it being noted");
            const string copied = """
                const copy=await (await caches.open('garten-copy')).matchAll();
                return String((await Promise.all(copy.map(r=>r.text()))).some(t=>t.includes('gone')));
                """;
            browser.Until(() => browser.Run(copied) == "true", "its copy");
            browser.Open("/licences.txt");
            if (!hasCopy)
                browser.Run("return String(await caches.delete('garten-copy'))");
            Assert.Equal(
                "cleared",
                browser.Run(
                    "return await new Promise(ok=>{const r=indexedDB.deleteDatabase('garten');r.onsuccess=()=>ok('cleared');r.onerror=()=>ok('not')})"
                )
            );
            browser.Open("/plants");
            browser.UntilText("The browser has cleared what Garten kept on this device.");
            browser.UntilText(said);
            if (hasCopy)
                browser.UntilText("Waiting to be sent: 1.");
            // The plant in hand goes and comes back with it.
            Assert.Equal(hasCopy ? "leaf-margin=toothed" : "", browser.Run(Sheets));
            browser.ShouldBeAccessible();
            browser.Click("I have seen it");
            browser.Open("/plants");
            browser.UntilText("Tag a plant");
            Assert.DoesNotContain("has cleared", browser.Text, StringComparison.Ordinal);
        }
        finally
        {
            site.Relay.BringBack();
        }
    }

    /// <summary>Erased on a page, a plant is gone from the device that knew it too, with what that had sent of it.</summary>
    [Fact]
    public async Task WhatIsErasedIsForgottenByTheDevice()
    {
        var browser = site.Browse();
        browser.Open("/plants");
        browser.UntilText("Tag a plant");
        var place = await IdAsync("places");
        var tag =
            $$"""[{"kind":"tagPlant","id":"{{Guid.CreateVersion7()}}","plantId":"{{Guid.CreateVersion7()}}","placeId":"{{place}}","label":"tag to be erased","taggedOn":"2026-05-02","recorder":{{Recorder}}}]""";
        Assert.Equal("queued", browser.Run(Queue, tag));
        browser.Open("/plants");
        await site.UntilServedAsync("/api/v1/plants?text=to%20be%20erased", "tag to be erased");
        browser.Type("Find", "to be erased");
        browser.ClickLink("/plants/", "tag to be erased");
        browser.UntilText("To find it again");
        const string holds = """
            const db=await new Promise(ok=>{const r=indexedDB.open('garten');r.onsuccess=()=>ok(r.result)});
            const all=await Promise.all(['answers','sent','outbox'].map(s=>new Promise(ok=>{const r=db.transaction(s).objectStore(s).getAll();r.onsuccess=()=>ok(r.result)})));
            db.close();
            return String(JSON.stringify(all).split('tag to be erased').length-1);
            """;
        Assert.NotEqual("0", browser.Run(holds));
        browser.Click("Erase this plant on request");
        browser.UntilText("It can’t be undone.");
        browser.ShouldBeAccessible();
        browser.Type("Type “erase”", "erase");
        browser.Click("Erase it for good");
        browser.Until(() => browser.Path == "/plants", "the list of plants");
        browser.Until(() => browser.Run(holds) == "0", "the device having forgotten it");
        browser.Open("/people");
        browser.UntilText("Ilse Marrin");
        browser.ShouldBeAccessible();
    }

    private static void State(Browser browser, string state) =>
        browser
            .Find("section[aria-label='margin of the leaf']")
            .FindElements(By.CssSelector("[aria-pressed]"))
            .Single(b => b.Text.TrimStart('✓', ' ') == state)
            .Click();

    private static void Manner(Browser browser, string field, string value)
    {
        browser.Click(field);
        browser.Click(value);
        browser.Until(() => browser.All("[role=option]").Count == 0, $"{field} chosen");
    }

    /// <summary>A plant that is named again in another season keeps the looks of the season before, each with its day.</summary>
    [Fact]
    public async Task NamingAPlantAgainLeavesTheLooksOfBeforeAsTheyWere()
    {
        var stop = TestContext.Current.CancellationToken;
        var (plant, place) = (Guid.CreateVersion7(), await IdAsync("places"));
        var look = new JsonObject
        {
            ["id"] = Guid.CreateVersion7(),
            ["character"] = "leaf-margin",
            ["outcome"] = "seen",
            ["states"] = new JsonArray("toothed"),
            ["together"] = false,
            ["readings"] = new JsonArray(),
            ["show"] = 0,
            ["of"] = 0,
            ["sureness"] = "sure",
            ["context"] = new JsonObject(),
            ["tool"] = "eye",
            ["date"] = "2025-06-02",
            ["note"] = "",
            ["withdrawn"] = false,
            ["fromCouplet"] = "",
        };
        var named = new JsonObject
        {
            ["kind"] = "recordDetermination",
            ["id"] = Guid.CreateVersion7(),
            ["determinationId"] = Guid.CreateVersion7(),
            ["occurrenceId"] = Guid.CreateVersion7(),
            ["plantId"] = plant,
            ["plantLabel"] = "twice named",
            ["placeId"] = place,
            ["eventDate"] = "2025-06-02",
            ["recorder"] = JsonNode.Parse(Recorder),
            ["startKey"] = "",
            ["answers"] = new JsonArray(),
            ["names"] = new JsonArray("Erissa ciliata"),
            ["note"] = "",
            ["observations"] = new JsonArray(look),
            ["hand"] = new JsonArray(),
        };
        using var sent = await site.Client.PostAsync(
            new Uri("/api/v1/commands", UriKind.Relative),
            new StringContent(new JsonObject { ["commands"] = new JsonArray(named) }.ToJsonString(), Encoding.UTF8, "application/json"),
            stop
        );
        Assert.Contains("applied", await sent.Content.ReadAsStringAsync(stop), StringComparison.Ordinal);
        var browser = site.Browse();
        browser.Open($"/plants/{plant}");
        browser.UntilText("twice named");
        browser.Click("Determine it again");
        browser.Click("Key to the woody plants");
        browser.Until(() => browser.Path.StartsWith("/bench/", StringComparison.Ordinal), "the plant in hand");
        browser.Click("Leaf");
        browser.UntilText("margin of the leaf");
        State(browser, "entire");
        browser.Until(() => browser.Run(Sheets) == "leaf-margin=entire leaf-margin=toothed", "both seasons’ looks");
        Assert.Contains("2025", browser.Find("section[aria-label='margin of the leaf']").Text, StringComparison.Ordinal);
    }

    /// <summary>A tap changes the look that was just made of the same part; one of another light is another look.</summary>
    [Fact]
    public void ALookOfAnotherPartIsNotWrittenOver()
    {
        var browser = WithAToothedLeaf();
        browser.Until(() => browser.Run(Sheets) == "leaf-margin=toothed", "the first look");
        State(browser, "toothed");
        State(browser, "entire");
        browser.Until(() => browser.Run(Sheets) == "leaf-margin=entire", "the look changed");
        browser.Click("Change");
        Manner(browser, "Light", "shade");
        browser.UntilText("Correct it");
        State(browser, "toothed");
        browser.Until(() => browser.Run(Sheets) == "leaf-margin=entire leaf-margin=toothed", "both looks");
        // So is one of another age and sex of the part, and one of another day.
        Manner(browser, "Age", "old, worn or fading");
        Manner(browser, "Sex of the part", "female");
        State(browser, "toothed");
        browser.Until(() => browser.Run(Sheets) == "leaf-margin=entire leaf-margin=toothed leaf-margin=toothed", "all three looks");
        // Said to be a correction, it is one.
        browser.Click("Correct entire");
        State(browser, "entire");
        State(browser, "toothed");
        browser.Press(Keys.Escape);
        browser.Until(() => browser.Text.Contains("Couplet 1", StringComparison.Ordinal), "the key again");
        browser.ShouldHaveNoErrors();
    }

    [Fact]
    public void EscapeLeadsBackFromAPartInConfirmToo()
    {
        var browser = WithAToothedLeaf();
        browser.Press(Keys.Escape);
        browser.UntilText("Couplet 1");
        browser.Click("Check the name");
        browser.Until(() => browser.Path.EndsWith("/confirm", StringComparison.Ordinal), "Confirm");
        browser.Click("Look now");
        browser.UntilText("Looked at:");
        browser.Press(Keys.Escape);
        browser.Until(() => !browser.Text.Contains("Looked at:", StringComparison.Ordinal), "the way back");
        Assert.EndsWith("/confirm", browser.Path, StringComparison.Ordinal);
    }

    [GeneratedRegex(@"@font-face\s*\{([^}]*)\}")]
    private static partial Regex Faces { get; }

    [GeneratedRegex(@"url\(\s*[""']?([^)""']*woff2)")]
    private static partial Regex Address { get; }

    [GeneratedRegex(@"unicode-range:\s*([^;}]*)")]
    private static partial Regex Range { get; }

    /// <summary>Whatever sign a page uses is in a font that comes along: no device draws it as an empty box.</summary>
    [Fact]
    public async Task EverySignOfThePagesIsInAFontThatComesAlong()
    {
        var stop = TestContext.Current.CancellationToken;
        var drawn = new HashSet<int>();
        var page = await site.Client.GetStringAsync(site.Address, stop);
        foreach (Match sheet in Regex.Matches(page, "href=\"([^\"]*\\.css)\""))
        {
            var address = new Uri(site.Address, sheet.Groups[1].Value);
            foreach (Match face in Faces.Matches(await site.Client.GetStringAsync(address, stop)))
            {
                var glyphs = Glyphs(await site.Client.GetByteArrayAsync(new Uri(address, Address.Match(face.Value).Groups[1].Value), stop));
                var ranges = Range.Match(face.Value) is { Success: true } r
                    ? r.Groups[1].Value.Split(',').Select(Span).ToList()
                    : [(0, 0x10FFFF)];
                drawn.UnionWith(glyphs.Where(g => ranges.Exists(s => g >= s.Item1 && g <= s.Item2)));
            }
        }
        var missing = new[] { "web/src", "src" }
            .SelectMany(f => Directory.EnumerateFiles(Path.Combine(Repository.Root, f), "*.*", SearchOption.AllDirectories))
            .Where(f => Path.GetExtension(f) is ".ts" or ".tsx" or ".cs" && !f.Contains("/obj/", StringComparison.Ordinal))
            .SelectMany(f =>
                File.ReadAllText(f)
                    .EnumerateRunes()
                    .Where(c => c.Value > 0x7E && !drawn.Contains(c.Value) && !IsOnlyRead(c, f))
                    .Distinct()
                    .Select(c => $"{c} U+{c.Value:X4} {Path.GetFileName(f)}")
            );
        Assert.Empty(missing);
        Assert.True(drawn.Count > 1000);
    }

    // Full-width and other forms of a sign are read by the core from what is pasted, and never written.
    private static bool IsOnlyRead(Rune sign, string file) =>
        file.EndsWith(".cs", StringComparison.Ordinal) && sign.Value is >= 0xFE50 and <= 0xFFEF;

    private static (int, int) Span(string range)
    {
        var parts = range.Trim()[2..].Split('-');
        // A question mark stands for any digit.
        return (Convert.ToInt32(parts[0].Replace('?', '0'), 16), Convert.ToInt32(parts[^1].Replace('?', 'F'), 16));
    }

    // The characters that a WOFF2 font has glyphs for: its table "cmap", in the forms 4 and 12.
    private static List<int> Glyphs(byte[] font)
    {
        const int knownTags = 63;
        var at = 48;
        int Number()
        {
            var value = 0;
            for (byte b = 0x80; (b & 0x80) != 0; )
                value = value << 7 | (b = font[at++]) & 0x7F;
            return value;
        }
        var (from, length, sum) = (-1, 0, 0);
        for (var n = BinaryPrimitives.ReadUInt16BigEndian(font.AsSpan(12)); n > 0; n--)
        {
            var (tag, form) = (font[at] & knownTags, font[at++] >> 6);
            if (tag == knownTags)
                at += 4;
            var size = Number();
            if (tag is 10 or 11 ? form == 0 : form != 0)
                size = Number();
            if (tag == 0)
                (from, length) = (sum, size);
            sum += size;
        }
        using var unpacked = new MemoryStream();
        using (var packed = new BrotliStream(new MemoryStream(font, at, font.Length - at), CompressionMode.Decompress))
            packed.CopyTo(unpacked);
        var map = unpacked.ToArray().AsSpan(from, length).ToArray();
        int Two(int i) => BinaryPrimitives.ReadUInt16BigEndian(map.AsSpan(i));
        int Four(int i) => (int)BinaryPrimitives.ReadUInt32BigEndian(map.AsSpan(i));
        var all = new List<int>();
        for (var i = 0; i < Two(2); i++)
        {
            var start = Four(8 + 8 * i);
            if (Two(start) == 4)
            {
                var count = Two(start + 6) / 2;
                for (var s = 0; s < count; s++)
                for (var c = Two(start + 16 + 2 * count + 2 * s); c <= Two(start + 14 + 2 * s) && c < 0xFFFF; c++)
                    all.Add(c);
            }
            else if (Two(start) == 12)
            {
                for (var g = 0; g < Four(start + 12); g++)
                for (var c = Four(start + 16 + 12 * g); c <= Four(start + 20 + 12 * g); c++)
                    all.Add(c);
            }
        }
        return all;
    }
}
