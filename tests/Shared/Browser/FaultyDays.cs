using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Garten.Testing;

/// <summary>
/// Two devices work on the same plants while browsers, tabs, the network, the server and its database fail at random. Afterwards every fact
/// that a page had accepted has to be there, once and whole, and both devices have to show the same.
/// </summary>
public sealed class FaultyDays(HttpClient client, Uri address, int seed) : IDisposable
{
    // As many as a day's plants are: on a hundred of them each would have a thousand visits in the end.
    private const int BasePlants = 1000;
    private const int Populations = 100;

    // Visits whose lists are written through the page: a list of more lines than anyone writes would only slow the page down.
    private const int Lists = 500;
    private const int MostLines = 8;
    private const int MostPasted = 70;
    private const int FewestPasted = 40;

    // Most lines come out of a notebook, pasted; some are typed one by one.
    private const int TypedOneIn = 4;

    // A form of its own, a plant's visit, takes as long as some ten lines of a list.
    private const int VisitFormOneIn = 20;

    // A line is found again by its count, which no other one has; all of seven digits.
    private const int FirstCount = 1_000_000;

    // More than this and the devices only heap up what they send.
    private const long MostWaiting = 600;
    private const int LargestBatch = 300;

    // Who writes a list has no thousand changes waiting: with fewer than this it goes as fast as one writes.
    private const long FewWaiting = 20;
    private static readonly TimeSpan ToBeSentFirst = TimeSpan.FromSeconds(10);
    private static readonly TimeSpan ToWriteAList = TimeSpan.FromSeconds(12);
    private static readonly TimeSpan ToSend = TimeSpan.FromMinutes(5);
    private readonly FaultyDevice[] _devices = [new(address), new(address)];
    private readonly ConcurrentDictionary<string, FaultyFact> _begun = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<string, bool> _accepted = new(StringComparer.Ordinal);
    private readonly Dictionary<string, int> _faults = new(StringComparer.Ordinal);
    private readonly List<Guid> _plants = [];
    private readonly List<Guid> _lists = [];
    private string[] _taxa = [];
    private readonly Guid _place = Guid.CreateVersion7();
    private readonly List<Guid> _populations = [];
    private readonly Random _random = new(seed);
    private int _byForm;
    private int _number;

    /// <summary>The faults of the devices themselves.</summary>
    public IEnumerable<Fault> OfDevices =>
        _devices.SelectMany(d =>
            new[]
            {
                new Fault("browser killed", () => Run(d.Kill), () => Run(() => d.Start())),
                new Fault("tab crashed", () => Run(d.Crash), () => Run(() => d.Start())),
            }
        );

    private static Task Run(Action action) => Task.Run(action);

    /// <summary>Works until as many faults happened, or until the time is over.</summary>
    /// <param name="faults">What may happen.</param>
    /// <param name="most">How many faults at most.</param>
    /// <param name="time">For how long at most.</param>
    /// <param name="workFor">For how long the devices work until the next fault, at most.</param>
    /// <param name="formOneIn">Before one fault in so many both devices type into forms.</param>
    /// <param name="tell">Told now and then how far it is.</param>
    public async Task<FaultyOutcome> RunAsync(
        IReadOnlyList<Fault> faults,
        int most,
        TimeSpan time,
        TimeSpan workFor,
        int formOneIn,
        Action<string> tell
    )
    {
        await BeginAsync();
        var began = Stopwatch.GetTimestamp();
        for (var n = 0; n < most && Stopwatch.GetElapsedTime(began) < time; n++)
        {
            using var end = new CancellationTokenSource();
            var isByForm = _random.Next(formOneIn) == 0;
            // Whoever types has sent first what waited; the time until the fault begins then.
            var hasBegun = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
            if (!isByForm)
                hasBegun.SetResult();
            var work = _devices.Select(d => Start(d, isByForm, hasBegun, end.Token)).ToArray();
            await Task.WhenAny([hasBegun.Task, .. work]);
            var longest = isByForm ? workFor + ToWriteAList : workFor;
            await Task.Delay(_random.Next(200, (int)longest.TotalMilliseconds));
            var fault = faults[_random.Next(faults.Count)];
            await fault.Breaks();
            await Task.Delay(_random.Next(0, 400));
            await end.CancelAsync();
            // Whoever waits for what is gone goes on when it is back.
            await fault.Mends();
            await Task.WhenAll(work);
            _faults[fault.Name] = _faults.GetValueOrDefault(fault.Name) + 1;
            if (n % 25 == 24)
                tell(string.Create(CultureInfo.InvariantCulture, $"{n + 1} faults, {_accepted.Count} facts accepted, {_byForm} by forms"));
        }
        return await EndAsync();
    }

    private async Task BeginAsync()
    {
        var commands = new JsonArray(
            Made.Command(
                "savePlace",
                ("placeId", _place),
                ("name", "Fault Fen"),
                ("locality", "Torvane"),
                ("latitude", 57.1),
                ("longitude", -11.2),
                ("uncertaintyMetres", 200),
                ("caution", "")
            )
        );
        for (var i = 0; i < Populations; i++)
        {
            _populations.Add(Guid.CreateVersion7());
            commands.Add(
                Made.Command(
                    "savePopulation",
                    ("populationId", _populations[i]),
                    ("placeId", _place),
                    ("name", string.Create(CultureInfo.InvariantCulture, $"population {i}")),
                    ("taxon", "Alvena alba")
                )
            );
        }
        for (var i = 0; i < BasePlants; i++)
        {
            _plants.Add(Guid.CreateVersion7());
            commands.Add(Made.Tag(_plants[i], _place, string.Create(CultureInfo.InvariantCulture, $"base {i}")));
        }
        var flora = (string)(await client.GetFromJsonAsync<JsonNode>("/api/v1/floras"))![0]!["id"]!;
        using var described = await client.PostAsJsonAsync("/api/v1/identify/describe", new JsonObject { ["floraId"] = flora });
        string[] names = [.. (await described.Content.ReadFromJsonAsync<JsonNode>())!.AsArray().Select(t => (string)t!["taxon"]!["name"]!)];
        // Only names that leave nothing to be asked: of a species with a cultivar several may be meant.
        using var read = await client.PostAsJsonAsync(
            "/api/v1/visits/read",
            new JsonObject { ["floraId"] = flora, ["text"] = string.Join('\n', names) }
        );
        var meant = (await read.Content.ReadFromJsonAsync<JsonNode>())!.AsArray().Select(n => (string)n!["answer"]!["meant"]!);
        _taxa = [.. names.Zip(meant).Where(n => n.First == n.Second).Select(n => n.First)];
        for (var i = 0; i < Lists; i++)
        {
            _lists.Add(Guid.CreateVersion7());
            commands.Add(
                Made.Command(
                    "saveSiteVisit",
                    ("siteVisitId", _lists[i]),
                    ("placeId", _place),
                    ("date", "2026-05-04"),
                    ("startedAt", "09:00"),
                    ("people", new JsonArray(Made.Recorder()))
                )
            );
        }
        foreach (var batch in commands.Select(c => c!.DeepClone()).Chunk(LargestBatch))
        {
            using var response = await client.PostAsJsonAsync("/api/v1/commands", new JsonObject { ["commands"] = new JsonArray(batch) });
            response.EnsureSuccessStatusCode();
        }
        await Task.WhenAll(_devices.Select(d => Task.Run(() => d.Start())));
    }

    private Task Start(FaultyDevice device, bool isByForm, TaskCompletionSource hasBegun, CancellationToken stop)
    {
        var random = new Random(_random.Next());
        return Task.Run(
            () =>
            {
                try
                {
                    if (isByForm)
                        Type(device, random, hasBegun, stop);
                    else
                        Keep(device, random, stop);
                }
                catch (Exception gone)
                    when (gone
                            is OpenQA.Selenium.WebDriverException
                                or NullReferenceException
                                or ObjectDisposedException
                                or HttpRequestException
                    )
                {
                    // The device is.
                }
            },
            CancellationToken.None
        );
    }

    private void Type(FaultyDevice device, Random random, TaskCompletionSource hasBegun, CancellationToken stop)
    {
        for (var began = Stopwatch.GetTimestamp(); Stopwatch.GetElapsedTime(began) < ToBeSentFirst; Thread.Sleep(100))
        {
            if (stop.IsCancellationRequested || device.Count().Waiting < FewWaiting)
                break;
        }
        while (!stop.IsCancellationRequested && WorkByForm(device, random, hasBegun, stop)) { }
    }

    private void Keep(FaultyDevice device, Random random, CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
        {
            var facts = new List<FaultyFact>();
            for (var left = random.Next(1, LargestBatch); left > 0; left--)
                facts.AddRange(Draw(random));
            foreach (var fact in facts)
                _begun[fact.Name] = fact;
            if (!device.KeepAll(facts))
                return;
            foreach (var fact in facts)
                _accepted[fact.Name] = true;
            while (device.Count().Waiting > MostWaiting && !stop.IsCancellationRequested)
                Thread.Sleep(100);
        }
    }

    // A visit to a plant, or some lines of a list; false where the page didn't say that it is kept.
    private bool WorkByForm(FaultyDevice device, Random random, TaskCompletionSource hasBegun, CancellationToken stop)
    {
        if (random.Next(VisitFormOneIn) == 0)
        {
            var visited = Begun("visitPlant", Next("form"));
            return device.VisitByForm(_plants[random.Next(BasePlants)], visited) && Kept(visited);
        }
        var isOpen = device.OpenList(_lists[random.Next(Lists)]);
        hasBegun.TrySetResult();
        if (!isOpen)
            return false;
        if (random.Next(TypedOneIn) != 0)
        {
            var taxa = _taxa[..];
            random.Shuffle(taxa);
            var pasted = taxa[..Math.Min(random.Next(FewestPasted, MostPasted), taxa.Length)].ToDictionary(_ => NextLine());
            foreach (var count in pasted.Keys)
                Begun("listTaxon", count);
            var kept = device.Paste(pasted, stop);
            foreach (var count in kept)
                Kept(count);
            return kept.Count > 0;
        }
        for (var left = random.Next(1, MostLines); left > 0 && !stop.IsCancellationRequested; left--)
        {
            var line = Begun("listTaxon", NextLine());
            if (!device.List($"{_taxa[random.Next(_taxa.Length)]} {line}", line) || !Kept(line))
                return false;
        }
        return true;
    }

    private string NextLine() => (FirstCount + Interlocked.Increment(ref _number)).ToString(CultureInfo.InvariantCulture);

    private string Begun(string kind, string name)
    {
        _begun[name] = new FaultyFact(kind, name, new JsonObject(), [], Guid.Empty);
        return name;
    }

    private bool Kept(string name)
    {
        _accepted[name] = true;
        Interlocked.Increment(ref _byForm);
        return true;
    }

    private string Next(string of) => string.Create(CultureInfo.InvariantCulture, $"{of} {Interlocked.Increment(ref _number):x6}.");

    private IEnumerable<FaultyFact> Draw(Random random)
    {
        var plant = _plants[random.Next(BasePlants)];
        // Mostly visits: plants and names that come into being at every other step would make a place of thirty thousand plants.
        switch (random.Next(20))
        {
            case 0:
                var tagged = Guid.CreateVersion7();
                var label = Next("tag");
                yield return new FaultyFact("tagPlant", label, Made.Tag(tagged, _place, label), [tagged.ToString()], Guid.Empty);
                // What hangs on it goes after it.
                yield return Visit(tagged, Next("visit"), Guid.Empty);
                break;
            case > 14:
                var counted = Next("count");
                yield return new FaultyFact(
                    "countPopulation",
                    counted,
                    Made.Command(
                        "countPopulation",
                        ("countId", Guid.CreateVersion7()),
                        ("populationId", _populations[random.Next(Populations)]),
                        ("date", "2026-05-03"),
                        ("recorder", Made.Recorder()),
                        ("unit", "individuals"),
                        ("number", random.Next(500)),
                        ("note", counted)
                    ),
                    [],
                    Guid.Empty
                );
                break;
            case 1:
                var (named, note) = (Guid.CreateVersion7(), Next("name"));
                yield return new FaultyFact(
                    "recordDetermination",
                    note,
                    Made.Named(named, _place, note, "Alvena alba", "Alvena nigra"),
                    [named.ToString()],
                    Guid.Empty
                );
                break;
            case < 7:
                yield return Visit(plant, Next("visit"), Guid.CreateVersion7());
                break;
            default:
                yield return Visit(plant, Next("visit"), Guid.Empty);
                break;
        }
    }

    private static FaultyFact Visit(Guid plant, string note, Guid look)
    {
        var command = Made.Visit(plant, note);
        if (look != Guid.Empty)
            command["observations"] = new JsonArray(
                JsonNode.Parse(
                    $$"""{"id":"{{look}}","character":"leaf-margin","outcome":"notFound","states":[],"together":false,"readings":[],"show":0,"of":0,"sureness":"sure","context":{},"tool":"lens","date":"2026-05-04","note":""}"""
                )
            );
        return new FaultyFact("visitPlant", note, command, [], look);
    }

    // All that waits is sent; then what is there is held against what was accepted.
    private async Task<FaultyOutcome> EndAsync()
    {
        var began = Stopwatch.GetTimestamp();
        long refused = 0;
        foreach (var device in _devices)
        {
            await Run(() => device.Open("/hand"));
            while (true)
            {
                (var waiting, var waitsForAPerson) = await Task.Run(device.Count);
                if (waiting == 0)
                {
                    refused += waitsForAPerson;
                    break;
                }
                if (Stopwatch.GetElapsedTime(began) > ToSend)
                    throw new TimeoutException($"{waiting} changes were never sent.");
                await Task.Delay(100);
            }
        }
        var (there, looks) = await ReadAsync();
        List<string> hashes = [];
        foreach (var device in _devices)
            hashes.Add(await Task.Run(device.TakeAlong));
        return new FaultyOutcome(
            _accepted.Count,
            _byForm,
            _faults,
            [.. _accepted.Keys.Where(n => !there.ContainsKey(n)).Order()],
            [.. there.Where(t => t.Value > 1).Select(t => t.Key).Order()],
            [
                .. _begun
                    .Values.Where(f => f.Look != Guid.Empty && there.ContainsKey(f.Name) != (looks.GetValueOrDefault(f.Look) == 1))
                    .Select(f => f.Name)
                    .Order(),
            ],
            refused,
            _begun.Keys.Count(n => !_accepted.ContainsKey(n) && there.ContainsKey(n)),
            _devices.Sum(d => d.Cleared),
            hashes
        );
    }

    private async Task<(Dictionary<string, int> Facts, Dictionary<Guid, int> Looks)> ReadAsync()
    {
        var there = new Dictionary<string, int>(StringComparer.Ordinal);
        var looks = new Dictionary<Guid, int>();
        void Count(JsonNode? name)
        {
            if ((string?)name is { } text && _begun.ContainsKey(text))
                there[text] = there.GetValueOrDefault(text) + 1;
        }
        for (string? next = $"/api/v1/plants/whole?place={_place}&size=100"; next is not null; )
        {
            using var response = await client.GetAsync(new Uri(next, UriKind.Relative));
            response.EnsureSuccessStatusCode();
            foreach (var plant in (await response.Content.ReadFromJsonAsync<JsonNode>())!.AsArray())
            {
                Count(plant!["label"]);
                foreach (var visit in plant["visits"]!.AsArray())
                    Count(visit!["note"]);
                foreach (var name in plant["determinations"]!.AsArray())
                    Count(name!["note"]);
                foreach (var look in plant["observations"]!.AsArray())
                    looks[(Guid)look!["id"]!] = looks.GetValueOrDefault((Guid)look["id"]!) + 1;
            }
            next = response.Headers.TryGetValues("Link", out var links) ? links.First().Split('<', '>')[1] : null;
        }
        foreach (var population in (await client.GetFromJsonAsync<JsonNode>("/api/v1/populations"))!.AsArray())
        {
            foreach (var count in population!["counts"]!.AsArray())
                Count(count!["note"]);
        }
        foreach (var list in _lists)
        {
            foreach (var line in (await client.GetFromJsonAsync<JsonNode>($"/api/v1/site-visits/{list}"))!["lines"]!.AsArray())
                Count(line!["details"]!["count"]?.ToString());
        }
        return (there, looks);
    }

    public void Dispose()
    {
        foreach (var device in _devices)
            device.Dispose();
    }
}
