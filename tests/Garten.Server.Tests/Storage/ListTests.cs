using System.Globalization;
using Garten.Server.Database;
using Garten.Server.Features.Plants;
using Garten.Server.Features.Records;
using Garten.Testing;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests.Storage;

/// <summary>A database with fifty thousand of each kind of record.</summary>
public sealed class FiftyThousand : IAsyncLifetime
{
    public const int Plants = 5_000,
        Determinations = 50_000,
        Observations = 50_000;
    private TestDatabase _database = null!;

    /// <summary>One connection, so that what it has scanned can be asked of it.</summary>
    public NpgsqlDataSource Source { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        _database = await Databases.EmptyAsync();
        await ManyRecords.MakeAsync(
            _database.ConnectionString,
            Plants,
            Determinations,
            Observations,
            TestContext.Current.CancellationToken
        );
        Source = NpgsqlDataSource.Create(
            new NpgsqlConnectionStringBuilder(_database.ConnectionString) { MaxPoolSize = 1 }.ConnectionString
        );
    }

    public async ValueTask DisposeAsync()
    {
        await Source.DisposeAsync();
        await _database.DisposeAsync();
    }
}

/// <summary>Lists over many records: none reads a large table whole, and pages together are the list.</summary>
public sealed class ListTests(FiftyThousand many) : IClassFixture<FiftyThousand>
{
    private static readonly string[] Large =
    [
        "determination",
        "occurrence",
        "observation",
        "plant",
        "plant_now",
        "plant_visit",
        "determination_name",
    ];
    private static readonly DateOnly Day = new(2026, 6, 1);
    private readonly NpgsqlDataSource _source = many.Source;
    private readonly DeterminationRepository _records = new(many.Source, Garten.Core.Floras.CharacterTable.Empty);
    private readonly PlantRepository _plants = new(many.Source);

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task<string> ScannedWholeAsync()
    {
        await using var connection = await _source.OpenConnectionAsync(Stop);
        await connection.Command("select pg_stat_force_next_flush()").RunAsync(Stop);
        await connection.Command("select 1").RunAsync(Stop);
        return string.Join(
            ' ',
            await connection
                .Command(
                    "select relname || '=' || seq_scan from pg_stat_user_tables where relname = any($1) order by relname",
                    (object)Large
                )
                .ReadAllAsync(r => r.GetString(0), Stop)
        );
    }

    [Fact]
    public async Task NoListReadsALargeTableWhole()
    {
        var place = (await _source.CreateCommand("select id from place limit 1").ExecuteScalarAsync(Stop)) is Guid id ? id : default;
        var plant = (
            await _source
                .CreateCommand("select id from plant where place_id = (select id from place limit 1) limit 1")
                .ExecuteScalarAsync(Stop)
        )
            is Guid p
            ? p
            : default;
        const string name = "Genus3 species43";
        var before = await ScannedWholeAsync();
        foreach (var filter in new[] { new RecordFilter(null, null), new(name, null), new(null, place), new(name, place) })
        {
            var page = await _records.PageAsync(filter, null, 50, Stop);
            if (page.Next is { } next)
                await _records.PageAsync(filter, RecordCursor.Parse(next), 50, Stop);
        }
        foreach (var filter in new[] { new PlantFilter(), new(place), new(IsPegged: false), new(Text: "peg 77") })
        {
            var (_, next) = await _plants.PageAsync(filter, null, 20, Stop);
            if (next is not null)
                await _plants.PageAsync(filter, next, 20, Stop);
        }
        var open = await _records.OpenAsync(Day, null, 100, Stop);
        await _records.OpenAsync(Day, open.Next, 100, Stop);
        await _records.NamesAtAsync(place, Stop);
        Assert.NotNull(await _records.PlantAsync(plant, Stop));
        Assert.Equal(before, await ScannedWholeAsync());
    }

    [Fact]
    public async Task PagesTogetherAreTheList()
    {
        var seen = new List<string>();
        for (
            var (page, next) = await _plants.PageAsync(new PlantFilter(), null, 700, Stop);
            ;
            (page, next) = await _plants.PageAsync(new PlantFilter(), PlantCursor.Parse(next!.ToString()), 700, Stop)
        )
        {
            seen.AddRange(page.Select(p => $"{p.PlaceName}|{p.Label}|{p.Id}"));
            if (next is null)
                break;
        }
        Assert.Equal(FiftyThousand.Plants, seen.Distinct(StringComparer.Ordinal).Count());
        Assert.Equal(FiftyThousand.Plants, seen.Count);
        Assert.Equal(
            "peg 77",
            Assert
                .Single((await _plants.PageAsync(new PlantFilter(Text: "PEG 77"), null, 500, Stop)).Plants, p => p.Label == "peg 77")
                .Label
        );
        // What means something in a pattern means itself.
        Assert.Empty((await _plants.PageAsync(new PlantFilter(Text: "peg_77"), null, 500, Stop)).Plants);
        Assert.Empty((await _plants.PageAsync(new PlantFilter(Text: "%"), null, 500, Stop)).Plants);
        var open = await _records.OpenAsync(Day, Stop);
        Assert.Equal(
            Convert.ToInt32(
                await _source
                    .CreateCommand(
                        "select count(*) from (select distinct on (plant_id) confirmation from determination order by plant_id, number desc) d where confirmation is not null"
                    )
                    .ExecuteScalarAsync(Stop),
                CultureInfo.InvariantCulture
            ),
            open.Count
        );
    }

    /// <summary>A record is found under each name that it leaves open, in the order of the list, over all pages.</summary>
    [Fact]
    public async Task RecordsOfANameAreAllFoundInTheOrderOfTheList()
    {
        const string name = "Genus3 species43";
        var found = new List<(DateOnly, Guid)>();
        for (
            var page = await _records.PageAsync(new RecordFilter(name, null), null, 7, Stop);
            ;
            page = await _records.PageAsync(new RecordFilter(name, null), RecordCursor.Parse(page.Next!), 7, Stop)
        )
        {
            found.AddRange(page.Records.Select(r => (r.EventDate, r.DeterminationId)));
            if (page.Next is null)
                break;
        }
        var all = await _source
            .CreateCommand($"select array_agg(id order by event_date desc, number desc) from determination where '{name}' = any(names)")
            .ExecuteScalarAsync(Stop);
        Assert.Equal((Guid[])all!, found.Select(f => f.Item2));
    }
}

/// <summary>Places in lists as they go over the wire.</summary>
public sealed class PlantCursorTests
{
    [Fact]
    public void WhatWasGivenOutIsRead()
    {
        var cursor = new PlantCursor("Kell “Strand”, north", "peg 7\"", Guid.CreateVersion7());
        Assert.Equal(cursor, PlantCursor.Parse(cursor.ToString()));
    }

    [Theory]
    [InlineData("x")]
    [InlineData("bnVsbA==")]
    [InlineData("WyJhIl0=")]
    [InlineData("WyJhIiwiYiIsImMiXQ==")]
    public void WhatIsNoCursorIsNone(string text) => Assert.Null(PlantCursor.Parse(text));
}
