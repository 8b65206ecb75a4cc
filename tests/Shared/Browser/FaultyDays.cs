using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;

namespace Garten.Testing;

/// <summary>
/// Two devices work on the same plants while browsers, tabs, the network, the server and its database fail at random. Afterwards every fact
/// that a page had accepted has to be there, once and whole, and both devices have to show the same.
/// </summary>
/// <param name="client">Straight to the server, past what is cut.</param>
/// <param name="address">Where the devices reach it.</param>
/// <param name="seed">Where chance begins.</param>
/// <param name="plants">How many plants they work on; of hundred thousand visits each of a hundred would have a thousand in the
/// end.</param>
public sealed partial class FaultyDays(HttpClient client, Uri address, int seed, int plants) : IDisposable
{
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
    /// <param name="pace">How long the devices work in between.</param>
    /// <param name="tell">Told now and then how far it is.</param>
    public async Task<FaultyOutcome> RunAsync(IReadOnlyList<Fault> faults, int most, TimeSpan time, FaultyPace pace, Action<string> tell)
    {
        await BeginAsync();
        var began = Stopwatch.GetTimestamp();
        for (var n = 0; n < most && Stopwatch.GetElapsedTime(began) < time; n++)
        {
            using var end = new CancellationTokenSource();
            var isByForm = _random.Next(pace.FormOneIn) == 0;
            // Whoever types has sent first what waited; the time until the fault begins then.
            var hasBegun = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
            if (!isByForm)
                hasBegun.SetResult();
            var work = _devices.Select(d => Start(d, isByForm, hasBegun, end.Token)).ToArray();
            await Task.WhenAny([hasBegun.Task, .. work]);
            var longest = isByForm ? pace.Keep + pace.Write : pace.Keep;
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
                catch (Exception gone) when (FaultyDevice.IsGone(gone))
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
            return device.VisitByForm(_plants[random.Next(plants)], visited) && Kept(visited);
        }
        var isOpen = device.OpenList(_lists[random.Next(_lists.Count)]);
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

    public void Dispose()
    {
        foreach (var device in _devices)
            device.Dispose();
    }
}
