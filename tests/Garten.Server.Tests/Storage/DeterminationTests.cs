using Garten.Core.Contracts;
using Garten.Core.Keys;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Records;
using Garten.Testing;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests.Storage;

public sealed class DeterminationTests : IAsyncLifetime
{
    private const string Text =
        "Key to Vellorna\n1. Twigs winged ... Vellorna alata\n1. Twigs round ... 2\n2. Leaf grey ... Vellorna cinerea\n2. Leaf green ... Vellorna torvanica\n";
    private static readonly PersonReference Recorder = new(Guid.CreateVersion7(), "Tove Askling");
    private static readonly Guid Place = Guid.CreateVersion7();

    private TestDatabase _database = null!;
    private NpgsqlDataSource _source = null!;
    private CommandPipeline _commands = null!;
    private DeterminationRepository _records = null!;
    private string _key = "";

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _database = await Databases.EmptyAsync();
        _source = NpgsqlDataSource.Create(_database.ConnectionString);
        _commands = Pipelines.Of(_source, Garten.Core.Floras.CharacterTable.Empty);
        _records = new DeterminationRepository(_source, Garten.Core.Floras.CharacterTable.Empty);
        _key = (await _commands.ApplyAsync(new SaveKeysCommand(Guid.CreateVersion7(), Text), Stop)).Keys![0].Hash;
        await _commands.ApplyAsync(new SavePlaceCommand(Guid.CreateVersion7(), Place, "Harrow Alder Wood", "", 57, -11, 100, ""), Stop);
    }

    public async ValueTask DisposeAsync()
    {
        await _source.DisposeAsync();
        await _database.DisposeAsync();
    }

    private RecordDeterminationCommand Record(string date, params (string Couplet, int? Lead)[] answers)
    {
        var trail = answers.Select(a => new TrailAnswer(_key, a.Couplet, a.Lead)).ToList();
        var names = KeyWalk
            .Follow(new KeyShelf([new KeyVersion(_key, KeyTextReader.Read(Text).Keys[0])]), _key, trail)
            .Standing.Select(s => s.Name)
            .ToList();
        return new RecordDeterminationCommand(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            "by the stile",
            Place,
            date,
            Recorder,
            _key,
            trail,
            names,
            "A note"
        );
    }

    private async Task<CommandResult> Applied(RecordDeterminationCommand command)
    {
        var result = await _commands.ApplyAsync(command, Stop);
        Assert.True(result.Status == CommandStatus.Applied, result.Problem?.Detail);
        return result;
    }

    [Fact]
    public async Task PagesGoNewestFirstAndMeetEachRecordOnce()
    {
        // Several on one day: the one that came last stands first.
        var days = new[] { "2026-03-01", "2026-05-02", "2026-05-02", "2025-12-24", "2026-05-02", "2026-01-31", "2026-11-01" };
        foreach (var day in days)
            await Applied(Record(day, ("1", 0)));
        var met = new List<RecordLine>();
        RecordCursor? after = null;
        do
        {
            var page = await _records.PageAsync(new RecordFilter(null, null), after, 2, Stop);
            met.AddRange(page.Records);
            after = page.Next is null ? null : RecordCursor.Parse(page.Next);
        } while (after is not null);
        Assert.Equal(days.OrderDescending(StringComparer.Ordinal), met.Select(m => m.EventDate.ToString("yyyy-MM-dd")));
        Assert.Equal(days.Length, met.Select(m => m.DeterminationId).Distinct().Count());
    }

    [Fact]
    public async Task RecordsAreFoundByTaxonAloneOrAmongOthersOpenAndByPlace()
    {
        await Applied(Record("2026-05-01", ("1", 0)));
        await Applied(Record("2026-05-02", ("1", 1), ("2", null)));
        async Task<int> Count(string? taxon, Guid? place) =>
            (await _records.PageAsync(new RecordFilter(taxon, place), null, 50, Stop)).Records.Count;
        Assert.Equal(
            (1, 1, 1, 0, 2, 0),
            (
                await Count("Vellorna alata", null),
                await Count("Vellorna cinerea", null),
                await Count("Vellorna", null),
                await Count("Vellorna humilis", null),
                await Count(null, Place),
                await Count(null, Guid.CreateVersion7())
            )
        );
    }

    [Fact]
    public async Task ASecondDeterminationIsAddedAndTheFirstStays()
    {
        var first = Record("2026-01-20", ("1", null));
        await Applied(first);
        await Applied(Record("2026-09-20", ("1", 1), ("2", 1)) with { PlantId = first.PlantId });
        // Another name for what was seen in January.
        await Applied(Record("2026-01-20", ("1", 1), ("2", 0)) with { PlantId = first.PlantId, OccurrenceId = first.OccurrenceId });
        var plant = (await _records.PlantAsync(first.PlantId, Stop))!;
        Assert.Equal(["Vellorna cinerea", "Vellorna torvanica", "Vellorna"], plant.Determinations.Select(d => d.Name));
        Assert.Equal(3, plant.Determinations[2].Names.Count);
        Assert.Equal(["Twigs winged", "Twigs round"], plant.Determinations[2].Steps[0].Leads);
        var export = new List<OccurrenceRow>();
        await foreach (var row in _records.ExportAsync(new RecordFilter(null, null), Stop))
            export.Add(row);
        Assert.Equal([1, 2], export.Select(e => e.Determinations.Count));
        Assert.Equal("Vellorna cinerea", export[1].Determinations[0].Name);
    }

    [Fact]
    public async Task WhatDisagreesWithThePlantIsRefusedAndLeavesNothingBehind()
    {
        var first = Record("2026-05-01", ("1", 0));
        await Applied(first);
        var other = Guid.CreateVersion7();
        await _commands.ApplyAsync(new SavePlaceCommand(Guid.CreateVersion7(), other, "Skarn Ridge", "", 57, -11, 100, ""), Stop);
        var again = Record("2026-06-01", ("1", 0)) with { PlantId = first.PlantId };
        Assert.Equal("plant.place", (await _commands.ApplyAsync(again with { PlaceId = other }, Stop)).Problem!.Code);
        Assert.Equal(
            "occurrence.disagrees",
            (await _commands.ApplyAsync(again with { OccurrenceId = first.OccurrenceId }, Stop)).Problem!.Code
        );
        Assert.Equal(
            "determination.exists",
            (await _commands.ApplyAsync(again with { DeterminationId = first.DeterminationId }, Stop)).Problem!.Code
        );
        Assert.Single((await _records.PlantAsync(first.PlantId, Stop))!.Determinations);
    }

    [Fact]
    public async Task TheSameCommandSentTenTimesAtOnceIsDoneOnce()
    {
        var command = Record("2026-05-01", ("1", 0));
        var results = await Task.WhenAll(Enumerable.Range(0, 10).Select(_ => _commands.ApplyAsync(command, Stop)));
        Assert.Equal(1, results.Count(r => r.Status == CommandStatus.Applied));
        Assert.Equal(9, results.Count(r => r.Status == CommandStatus.Already));
        Assert.Single((await _records.PlantAsync(command.PlantId, Stop))!.Determinations);
    }
}
