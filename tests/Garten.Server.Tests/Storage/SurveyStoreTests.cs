using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Plants;
using Garten.Server.Features.Populations;
using Garten.Testing;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests.Storage;

/// <summary>Plants, visits and populations as they are kept: each command once, wholly or not at all.</summary>
public sealed class SurveyStoreTests : IAsyncLifetime
{
    private static readonly PersonReference Recorder = new(Guid.CreateVersion7(), "Tove Askling");

    private readonly Guid _place = Guid.CreateVersion7();
    private TestDatabase _database = null!;
    private NpgsqlDataSource _source = null!;
    private CommandPipeline _commands = null!;
    private PlantRepository _plants = null!;
    private PopulationRepository _populations = null!;

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _database = await Databases.EmptyAsync();
        _source = NpgsqlDataSource.Create(_database.ConnectionString);
        _commands = Pipelines.Of(_source, CharacterTable.Empty);
        (_plants, _populations) = (new PlantRepository(_source), new PopulationRepository(_source));
        await Applied(new SavePlaceCommand(Guid.CreateVersion7(), _place, "Harrow Alder Wood", "", 57, -11, 100, ""));
    }

    public async ValueTask DisposeAsync()
    {
        await _source.DisposeAsync();
        await _database.DisposeAsync();
    }

    private async Task Applied(Command command)
    {
        var result = await _commands.ApplyAsync(command, Stop);
        Assert.True(result.Status == CommandStatus.Applied, result.Problem?.Detail);
    }

    private async Task Refused(Command command, string code)
    {
        var before = await FactsAsync();
        var result = await _commands.ApplyAsync(command, Stop);
        Assert.Equal(code, result.Problem?.Code);
        Assert.NotEmpty(result.Problem!.Detail);
        Assert.Equal(before, await FactsAsync());
    }

    // How much is kept, over all tables: what is refused leaves nothing behind.
    private async Task<long> FactsAsync()
    {
        var tables = new List<string>();
        await using (
            var command = _source.CreateCommand(
                "select table_name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'"
            )
        )
        await using (var reader = await command.ExecuteReaderAsync(Stop))
        {
            while (await reader.ReadAsync(Stop))
                tables.Add(reader.GetString(0));
        }
        long rows = 0;
        foreach (var table in tables)
            rows += (long)(await _source.CreateCommand($"select count(*) from \"{table}\"").ExecuteScalarAsync(Stop))!;
        return rows;
    }

    private TagPlantCommand Tag(
        Guid plant,
        string label = "peg 7",
        string on = "2026-05-01",
        int? version = null,
        Guid? population = null
    ) =>
        new(
            Guid.CreateVersion7(),
            plant,
            _place,
            label,
            on,
            Recorder,
            new PlantSite(57.0003, -11.0004, 6),
            new Finding("stile", 220, 12, ""),
            population,
            version
        );

    private static VisitPlantCommand Visit(Guid plant, string date, PlantState state = PlantState.Alive, params PhaseNote[] phases) =>
        new(Guid.CreateVersion7(), Guid.CreateVersion7(), plant, date, Recorder, state, phases);

    [Fact]
    public async Task ATaggedPlantIsListedAtItsPlaceAndChangedByItsVersion()
    {
        var plant = Guid.CreateVersion7();
        await Applied(Tag(plant));
        var listed = Assert.Single((await _plants.PageAsync(new PlantFilter(_place), null, 10, Stop)).Plants);
        Assert.Equal((plant, "peg 7"), (listed.Id, listed.Label));
        Assert.Empty((await _plants.PageAsync(new PlantFilter(Guid.CreateVersion7()), null, 10, Stop)).Plants);
        await Refused(Tag(plant, "peg 8"), "plant.changed");
        await Applied(Tag(plant, "peg 8", version: 1));
        await Refused(Tag(plant, "peg 9", version: 1), "plant.changed");
        Assert.Equal("peg 8", (await _plants.PageAsync(new PlantFilter(), null, 10, Stop)).Plants.Single().Label);
    }

    [Fact]
    public async Task ACommandSentAgainIsKeptOnceAlsoByManyAtOnce()
    {
        var plant = Guid.CreateVersion7();
        await Applied(Tag(plant));
        var visit = Visit(plant, "2026-05-20", PlantState.Alive, new PhaseNote(Phenophase.Flower, PhaseStage.Shown));
        var results = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => _commands.ApplyAsync(visit, Stop)));
        Assert.All(results, r => Assert.Null(r.Problem));
        Assert.Single(results, r => r.Status == CommandStatus.Applied);
        Assert.Equal(1L, await _source.CreateCommand("select count(*) from plant_visit").ExecuteScalarAsync(Stop));
    }

    [Fact]
    public async Task TheSameIdForSomethingElseIsRefused()
    {
        var first = Tag(Guid.CreateVersion7());
        await Applied(first);
        var result = await _commands.ApplyAsync(first with { Label = "another" }, Stop);
        Assert.Equal(409, result.Problem?.Status);
    }

    [Fact]
    public async Task WhatCanNotBeLeavesNothingBehind()
    {
        var plant = Guid.CreateVersion7();
        await Refused(Visit(plant, "2026-05-20"), "plant.unknown");
        await Refused(Tag(plant) with { PlaceId = Guid.CreateVersion7() }, "place.unknown");
        await Applied(Tag(plant));
        await Refused(Visit(plant, "2026-04-30"), "evidence.before-tag");
        await Refused(Visit(plant, "2999-01-01"), "date.future");
        await Refused(
            Visit(plant, "2026-05-20", PlantState.NotRefound, new PhaseNote(Phenophase.Flower, PhaseStage.Shown)),
            "visit.disagrees"
        );
        await Refused(Tag(Guid.CreateVersion7()) with { Site = new PlantSite(58, -11, 5) }, "plant.far");
    }

    [Fact]
    public async Task APopulationIsCountedCorrectedAndThreatened()
    {
        var (population, threat) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await Applied(
            new SavePopulationCommand(Guid.CreateVersion7(), population, _place, "east bank", "Alvena montis", "up to the ditch")
        );
        var count = new CountPopulationCommand(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            population,
            "2026-05-20",
            Recorder,
            CountUnit.Individuals,
            12
        );
        await Applied(count);
        await Applied(
            new CountPopulationCommand(
                Guid.CreateVersion7(),
                Guid.CreateVersion7(),
                population,
                "2026-05-20",
                Recorder,
                CountUnit.Individuals,
                14,
                "two behind the stone",
                count.CountId
            )
        );
        await Applied(new NoteThreatCommand(Guid.CreateVersion7(), threat, population, "2026-05-20", "ditch clearing", "2026-09-01"));
        await Applied(Tag(Guid.CreateVersion7(), "peg 1", population: population));
        var row = Assert.Single(await _populations.ListAsync(Stop));
        Assert.Equal(("east bank", "Alvena montis", "up to the ditch"), (row.Name, row.Taxon, row.Bounds));
        // Both counts are kept; the second corrects the first.
        Assert.Equal([12, 14], row.Counts.Select(c => c.Number));
        Assert.Equal(count.CountId, row.Counts[1].Supersedes);
        Assert.Equal("peg 1", Assert.Single(row.Pegs).Label);
        await Refused(
            new SavePopulationCommand(Guid.CreateVersion7(), population, _place, "east bank", "Alvena montis"),
            "population.exists"
        );
        await Refused(
            count with
            {
                Id = Guid.CreateVersion7(),
                CountId = Guid.CreateVersion7(),
                PopulationId = Guid.CreateVersion7(),
            },
            "population.unknown"
        );
        await Refused(count with { Id = Guid.CreateVersion7(), CountId = Guid.CreateVersion7(), Number = -1 }, "count.negative");
        await Refused(
            new NoteThreatCommand(Guid.CreateVersion7(), Guid.CreateVersion7(), population, "2026-05-20", "felling", "2026-05-01"),
            "threat.past"
        );
    }

    [Fact]
    public async Task FirstsAreThoseOfTheYearWithTheDayOnWhichNothingWasThereYet()
    {
        var plant = Guid.CreateVersion7();
        await Applied(Tag(plant));
        await Applied(Visit(plant, "2026-05-02", PlantState.Alive, new PhaseNote(Phenophase.Flower, PhaseStage.NotYet)));
        await Applied(Visit(plant, "2026-05-09", PlantState.Alive, new PhaseNote(Phenophase.Flower, PhaseStage.Shown)));
        // Without a name nobody knows of which taxon it is the first.
        Assert.Empty(await _plants.FirstsAsync(2026, Stop));
        Assert.Empty(await _plants.FirstsAsync(2025, Stop));
    }
}
