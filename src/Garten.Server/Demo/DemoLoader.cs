using System.Text.Json;
using System.Text.Json.Serialization;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Formats;
using Garten.Storage;

namespace Garten.Server.Demo;

/// <summary>Loads the made-up island of Torvane into an empty database, by the same commands that a page sends.</summary>
internal sealed class DemoLoader(FloraRepository floras, KeyRepository keys, PlaceRepository places, CommandStore commands, TimeProvider clock)
{
    private const string FloraId = "torvane";

    public async Task LoadOnceAsync(string folder, CancellationToken stop)
    {
        using (var table = new StreamReader(Path.Combine(folder, "flora", "taxa.csv"))) await floras.PublishAsync(new Flora(FloraId, "Torvane", TaxonTable.Read(table)), stop);
        if ((await places.ListAsync(stop)).Count > 0) return;
        foreach (var file in Directory.EnumerateFiles(Path.Combine(folder, "keys"), "*.txt").Order(StringComparer.Ordinal))
        {
            await SendAsync(new SaveKeysCommand(Guid.CreateVersion7(), await File.ReadAllTextAsync(file, stop)), stop);
        }
        await using var stream = File.OpenRead(Path.Combine(folder, "survey.json"));
        var survey = await JsonSerializer.DeserializeAsync(stream, DemoJson.Default.DemoSurvey, stop) ?? throw new JsonException("The survey is empty.");
        var shelf = new KeyShelf(await keys.ShelfAsync([], stop));
        var people = survey.Plants.SelectMany(p => p.Determinations).Select(d => d.By).Distinct(StringComparer.Ordinal).ToDictionary(n => n, n => new PersonReference(Guid.CreateVersion7(), n), StringComparer.Ordinal);
        var today = DateOnly.FromDateTime(clock.GetLocalNow().Date);
        var place = survey.Place;
        await SendAsync(new SavePlaceCommand(Guid.CreateVersion7(), place.Id, place.Name, place.Locality, place.Latitude, place.Longitude, place.UncertaintyMetres, place.Caution), stop);
        foreach (var plant in survey.Plants) await LoadAsync(plant, survey.Place, shelf, people, today, stop);
    }

    private async Task LoadAsync(DemoPlant plant, DemoPlace place, KeyShelf shelf, Dictionary<string, PersonReference> people, DateOnly today, CancellationToken stop)
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
            await SendAsync(new RecordDeterminationCommand(Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), plantId, plant.Label, place.Id,
                today.AddDays(-it.DaysAgo).ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture), people[it.By], start, answers, names, it.Note), stop);
        }
    }

    private async Task SendAsync(Command command, CancellationToken stop)
    {
        var result = await commands.ApplyAsync(command, stop);
        if (result.Problem is { } problem) throw new InvalidOperationException($"The demo can't be loaded: {problem.Title} {problem.Detail}");
    }
}

internal sealed record DemoPlace(Guid Id, string Name, string Locality, double Latitude, double Longitude, double UncertaintyMetres, string Caution);

internal sealed record DemoDetermination(int DaysAgo, string By, string Key, string Answers, string Note);

internal sealed record DemoPlant(string Label, IReadOnlyList<DemoDetermination> Determinations);

internal sealed record DemoSurvey(DemoPlace Place, IReadOnlyList<DemoPlant> Plants);

[JsonSourceGenerationOptions(PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase)]
[JsonSerializable(typeof(DemoSurvey))]
internal sealed partial class DemoJson : JsonSerializerContext;
