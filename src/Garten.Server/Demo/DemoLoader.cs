using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Keys;
using Garten.Core.Quantities;
using Garten.Formats;
using Garten.Server.Commands;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Keys;
using Garten.Server.Features.Places;
using Npgsql;

namespace Garten.Server.Demo;

/// <summary>Loads the made-up island of Torvane into an empty database, by the same commands that a page sends.</summary>
internal sealed partial class DemoLoader(
    NpgsqlDataSource database,
    FloraRepository floras,
    KeyRepository keys,
    PlaceRepository places,
    GroundRepository grounds,
    CommandPipeline commands,
    TimeProvider clock,
    ILogger<DemoLoader> log
)
{
    private const string FloraId = "torvane";
    private const int AtOnce = 4;

    private static readonly TextSource OwnKeys = new("Keys to the plants of Torvane", "", TextLicence.Cc0);
    private static readonly TextSource OldBook = new("The Trees of the Western Isles", "212", TextLicence.PublicDomain);

    // The island's own keys, and a page out of an old book whose plants no flora here describes.
    private static readonly string[] TextFolders = ["keys", "pages"];

    private static Guid SubjectOf(Command command) =>
        command switch
        {
            TagPlantCommand tag => tag.PlantId,
            VisitPlantCommand visit => visit.PlantId,
            RecordDeterminationCommand named => named.PlantId,
            CountPopulationCommand count => count.PopulationId,
            NoteThreatCommand threat => threat.PopulationId,
            _ => command.Id,
        };

    // Any fixed number: servers that start at the same time on one database take turns on it, and the first one loads.
    private const long AdvisoryLock = 0x6465_6d6f;

    public async Task LoadOnceAsync(string folder, CancellationToken stop)
    {
        await using var turn = await database.OpenConnectionAsync(stop);
        await using (
            var take = new NpgsqlCommand("select pg_advisory_lock($1)", turn)
            {
                Parameters = { new() { Value = AdvisoryLock } },
                CommandTimeout = 0,
            }
        )
            await take.ExecuteNonQueryAsync(stop);
        try
        {
            await LoadAsync(folder, stop);
        }
        finally
        {
            await using var give = new NpgsqlCommand("select pg_advisory_unlock($1)", turn)
            {
                Parameters = { new() { Value = AdvisoryLock } },
            };
            await give.ExecuteNonQueryAsync(CancellationToken.None);
        }
    }

    // Where the shrubs grow of which a hybrid stands between its parents.
    private const string HabitatOfTheStand = "wet wood";

    private async Task LoadAsync(string folder, CancellationToken stop)
    {
        var flora = ReadFlora(Path.Combine(folder, "flora"));
        await floras.PublishAsync(flora, stop);
        if ((await places.ListAsync(stop)).Count > 0)
            return;
        var began = clock.GetTimestamp();
        var texts = TextFolders.Select(f => Path.Combine(folder, f)).Where(Directory.Exists);
        foreach (var file in texts.SelectMany(f => Directory.EnumerateFiles(f, "*.txt").Order(StringComparer.Ordinal)))
        {
            var text = await File.ReadAllTextAsync(file, stop);
            var isOwn = Path.GetFileName(Path.GetDirectoryName(file)) == TextFolders[0];
            await SendAsync(new SaveKeysCommand(Guid.CreateVersion7(), text, isOwn ? OwnKeys : OldBook), stop);
        }
        await using var stream = File.OpenRead(Path.Combine(folder, "survey.json"));
        var survey = await JsonSerializer.DeserializeAsync(stream, DemoJson.Default.DemoSurvey, stop)
            ?? throw new JsonException("The survey is empty.");
        var shelf = new KeyShelf(await keys.ShelfAsync([], stop));
        var people = survey
            .Plants.SelectMany(p => p.Determinations)
            .Select(d => d.By)
            .Distinct(StringComparer.Ordinal)
            .ToDictionary(n => n, n => new PersonReference(Guid.CreateVersion7(), n), StringComparer.Ordinal);
        var today = DateOnly.FromDateTime(clock.GetLocalNow().Date);
        foreach (var place in survey.Places)
        {
            await SendAsync(
                new SavePlaceCommand(
                    Guid.CreateVersion7(),
                    place.Id,
                    place.Name,
                    place.Locality,
                    place.Latitude,
                    place.Longitude,
                    place.UncertaintyMetres,
                    place.Caution,
                    place.Cell,
                    place.ElevationMetres,
                    place.Habitats
                ),
                stop
            );
        }
        var described = await LoadGroundsAsync(folder, stop);
        var taxa = flora.Taxa.ToDictionary(t => t.Name, t => t.Id, StringComparer.Ordinal);
        foreach (var plant in survey.Plants)
            await LoadAsync(plant, survey.Places[0], shelf, people, taxa, today, stop);
        // Genera with plants of their own in the file are left out.
        var known = new HashSet<string>(["Vellorna", "Carpessa", "Crepessa", "Senecorra", "Rubaxa", "Tharsina"], StringComparer.Ordinal);
        var ready = (await floras.ReadyAsync(FloraId, stop))!;
        var wood = survey.Places.First(p => p.Habitats?.Contains(HabitatOfTheStand, StringComparer.Ordinal) == true);
        List<Command> drawn =
        [
            .. new DemoYears(ready, survey.Places, [.. people.Values], known, today).Draw(),
            .. new DemoStand(wood, [.. people.Values], today).Draw(),
        ];
        foreach (var population in drawn.OfType<SavePopulationCommand>())
            await SendAsync(population, stop);
        // What belongs to one plant or population goes in its order; the others needn't wait for it.
        await Parallel.ForEachAsync(
            drawn.Where(c => c is not SavePopulationCommand).GroupBy(SubjectOf),
            new ParallelOptions { MaxDegreeOfParallelism = AtOnce, CancellationToken = stop },
            async (own, cancel) =>
            {
                await SendAsync(own, cancel);
            }
        );
        await Parallel.ForEachAsync(
            new DemoVisits(
                ready,
                survey.Places,
                [.. people.Values],
                [.. drawn.OfType<TagPlantCommand>()],
                drawn.OfType<RecordDeterminationCommand>().SelectMany(d => d.Names).ToHashSet(StringComparer.Ordinal),
                described,
                today
            )
                .Draw()
                .ToList(),
            new ParallelOptions { MaxDegreeOfParallelism = AtOnce, CancellationToken = stop },
            async (own, cancel) =>
            {
                await SendAsync(own, cancel);
            }
        );
        await SendAsync(new DemoSurveys(ready, survey.Places, described, [.. people.Values], today).Draw(), stop);
        Loaded(log, clock.GetElapsedTime(began).TotalSeconds);
    }

    private async Task<Dictionary<Guid, GroundDescription>> LoadGroundsAsync(string folder, CancellationToken stop)
    {
        using var map = JsonDocument.Parse(await File.ReadAllBytesAsync(Path.Combine(folder, "map.geojson"), stop));
        await grounds.SaveBaseAsync(FloraId, map.RootElement.GetProperty("features").GetRawText(), stop);
        await using var stream = File.OpenRead(Path.Combine(folder, "grounds.json"));
        var all = await JsonSerializer.DeserializeAsync(stream, DemoJson.Default.DictionaryGuidGroundDescription, stop)
            ?? throw new JsonException("The grounds are empty.");
        foreach (var (place, ground) in all)
            await SendAsync(new DescribePlaceCommand(Guid.CreateVersion7(), place, ground), stop);
        return all;
    }

    private static Flora ReadFlora(string folder)
    {
        var reading = FloraFolder.Read(folder);
        if (reading.Problems.Count > 0)
            throw new FormatException(
                $"The demo's {reading.Problems[0].Sheet}, row {reading.Problems[0].Row}, {reading.Problems[0].Column}: "
                    + $"{reading.Problems[0].Message}"
            );
        return new Flora(FloraId, "Torvane", reading.Taxa, reading.Table, FloraFolder.Grid(folder));
    }

    private async Task LoadAsync(
        DemoPlant plant,
        Place place,
        KeyShelf shelf,
        Dictionary<string, PersonReference> people,
        Dictionary<string, string> taxa,
        DateOnly today,
        CancellationToken stop
    )
    {
        var plantId = Guid.CreateVersion7();
        foreach (var it in plant.Determinations)
        {
            var start = shelf.Versions.First(v => v.Key.Title == it.Key).Hash;
            var answers = new List<TrailAnswer>();
            // "b a ?": lead b at the first open couplet, lead a at the next, then can't tell.
            foreach (var answer in it.Answers.Split(' '))
            {
                var open = KeyWalk.Follow(shelf, start, answers).Open[0];
                answers.Add(new TrailAnswer(open.KeyVersion, open.Couplet.Label, answer == "?" ? null : answer[0] - 'a'));
            }
            var names = KeyWalk.Follow(shelf, start, answers).Standing.Select(s => s.Name).ToList();
            // A name that stands alone is confirmed as far as the sheet goes.
            var confirming =
                names is [var one] && taxa.TryGetValue(one, out var taxon) ? new Confirming(FloraId, taxon, "confirmed-list") : null;
            var day = today.AddDays(-it.DaysAgo).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
            await SendAsync(
                new RecordDeterminationCommand(
                    Guid.CreateVersion7(),
                    Guid.CreateVersion7(),
                    Guid.CreateVersion7(),
                    plantId,
                    plant.Label,
                    place.Id,
                    day,
                    people[it.By],
                    start,
                    answers,
                    names,
                    it.Note,
                    [.. (it.Sheet ?? []).Select(line => Look(line, day))],
                    Confirming: confirming
                ),
                stop
            );
        }
    }

    // "leaf-length@shade: 72 80 76 mm", "leaf-base: rounded": a look as the survey's file writes it.
    private static Observation Look(string line, string day)
    {
        var parts = line.Split(": ", 2);
        var name = parts[0].Split('@');
        var character = ShippedGlossary.Characters.Single(c => c.Id == name[0]);
        var context = new ObservationContext(Light: name.Length > 1 ? Light.Shade : Light.Unsaid);
        var readings = character.IsQuantity ? ReadingText.Read(parts[1], character.Quantity).Readings : [];
        return new Observation(
            Guid.CreateVersion7(),
            character.Id,
            Outcome.Seen,
            character.IsQuantity ? [] : parts[1].Split(" | "),
            false,
            readings,
            0,
            0,
            Sureness.Sure,
            context,
            character.IsQuantity && character.Quantity == QuantityKind.Length ? Tool.Ruler : Tool.Eye,
            day,
            ""
        );
    }

    [LoggerMessage(LogLevel.Information, "The demo was loaded in {Seconds:0.0} s")]
    private static partial void Loaded(ILogger log, double seconds);

    private Task SendAsync(Command command, CancellationToken stop) => SendAsync([command], stop);

    private async Task SendAsync(IEnumerable<Command> batch, CancellationToken stop)
    {
        if ((await commands.ApplyAsync(batch, stop)).Select(r => r.Problem).FirstOrDefault(p => p is not null) is { } problem)
            throw new InvalidOperationException($"The demo can't be loaded: {problem.Title} {problem.Detail}");
    }
}

internal sealed record DemoDetermination(
    int DaysAgo,
    string By,
    string Key,
    string Answers,
    string Note,
    IReadOnlyList<string>? Sheet = null
);

internal sealed record DemoPlant(string Label, IReadOnlyList<DemoDetermination> Determinations);

internal sealed record DemoSurvey(IReadOnlyList<Place> Places, IReadOnlyList<DemoPlant> Plants);

[JsonSourceGenerationOptions(PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase)]
[JsonSerializable(typeof(DemoSurvey))]
[JsonSerializable(typeof(Dictionary<Guid, GroundDescription>))]
internal sealed partial class DemoJson : JsonSerializerContext;
